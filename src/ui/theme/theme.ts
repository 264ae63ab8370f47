'use client'
import { createTheme } from '@mui/material/styles'
import { text, tokens } from './tokens'

declare module '@mui/material/styles' {
  interface Palette {
    severity: Record<'stop' | 'fix' | 'mind' | 'ask', string>
    water: Record<'live' | 'deep' | 'shallow' | 'dry', string>
  }
  interface PaletteOptions {
    severity?: Palette['severity']
    water?: Palette['water']
  }
}

const fontFamily = '"Atkinson Hyperlegible Next Variable", system-ui, sans-serif'

/** Limestone and deep water by day; night water in the dark. Contrast is WCAG AA for all text in both. */
export const theme = createTheme({
  cssVariables: { colorSchemeSelector: 'data' },
  colorSchemes: {
    light: {
      palette: {
        background: { default: '#efece3', paper: '#fdfbf5' },
        text: { primary: '#15242a', secondary: '#47575c' },
        primary: { main: '#0b5566', contrastText: '#ffffff' },
        secondary: { main: '#6b4a1f' },
        error: { main: '#a01c2c' },
        divider: '#cbc5b4',
        severity: { stop: '#a01c2c', fix: '#8a4300', mind: '#57418a', ask: '#0b5566' },
        water: { live: '#1b7f95', deep: '#0b5566', shallow: '#cfe6ea', dry: '#d9d3c3' },
      },
    },
    dark: {
      palette: {
        background: { default: '#0d171b', paper: '#152329' },
        text: { primary: '#e8efee', secondary: '#a9babd' },
        primary: { main: '#7fcadb', contrastText: '#08222a' },
        secondary: { main: '#dcb47a' },
        error: { main: '#ff9a9f' },
        divider: '#33474e',
        severity: { stop: '#ff9a9f', fix: '#f3b06b', mind: '#c3b2f2', ask: '#7fcadb' },
        water: { live: '#4ba6ba', deep: '#7fcadb', shallow: '#1d3d46', dry: '#28353a' },
      },
    },
  },
  typography: {
    fontFamily,
    fontSize: 14,
    body1: { fontSize: text.body },
    h1: { fontSize: text.title, fontWeight: 700, letterSpacing: '-0.01em' },
    h2: { fontSize: text.lead, fontWeight: 700 },
    h3: { fontSize: text.body, fontWeight: 700 },
    caption: { fontSize: text.small },
    button: { textTransform: 'none', fontWeight: 600 },
  },
  shape: { borderRadius: 6 },
  components: {
    MuiButton: { defaultProps: { disableElevation: true }, styleOverrides: { root: { minHeight: 40 } } },
    MuiIconButton: { styleOverrides: { root: { minWidth: 40, minHeight: 40 } } },
    MuiTextField: { defaultProps: { size: 'small', fullWidth: true } },
    MuiCssBaseline: {
      styleOverrides: {
        ':root': tokens,
        body: { fontVariantNumeric: 'tabular-nums' },
        // only where nothing else says how a link looks
        ':where(a:not([class]))': { color: 'var(--mui-palette-primary-main)' },
        ':focus-visible': { outline: '3px solid var(--mui-palette-primary-main)', outlineOffset: 2 },
        '@media (prefers-reduced-motion: reduce)': {
          '*': { transition: 'none !important', animation: 'none !important' },
        },
      },
    },
  },
})
