import InitColorSchemeScript from '@mui/material/InitColorSchemeScript'
import { AppRouterCacheProvider } from '@mui/material-nextjs/v16-appRouter'
import type { Metadata, Viewport } from 'next'
import type { ReactNode } from 'react'
import { ThemeRoot } from '@/ui/theme/ThemeRoot'
import '@fontsource-variable/atkinson-hyperlegible-next'
import '@/ui/theme/global.css'

export const metadata: Metadata = {
  title: { default: 'Spillway', template: '%s · Spillway' },
  description: 'Sizes and documents battery back-up of chosen home circuits',
}

export const viewport: Viewport = { width: 'device-width', initialScale: 1 }

export default function RootLayout({ children }: { children: ReactNode }) {
  return (
    <html lang="en-US" suppressHydrationWarning>
      <body>
        <InitColorSchemeScript attribute="data" defaultMode="system" />
        <AppRouterCacheProvider options={{ enableCssLayer: true }}>
          <ThemeRoot>{children}</ThemeRoot>
        </AppRouterCacheProvider>
      </body>
    </html>
  )
}
