declare module '*.css'
declare module '@fontsource-variable/atkinson-hyperlegible-next'
