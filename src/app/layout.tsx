import { InitColorSchemeScript } from '@mui/material'
import { AppRouterCacheProvider } from '@mui/material-nextjs/v16-appRouter'
import type { Metadata, Viewport } from 'next'
import { headers } from 'next/headers'
import type { ReactNode } from 'react'
import { ThemeRoot } from '@/ui/theme/ThemeRoot'
import '@fontsource-variable/atkinson-hyperlegible-next'
import '@/ui/theme/global.css'

export const metadata: Metadata = {
  title: { default: 'Spillway', template: '%s · Spillway' },
  description: 'Sizes and documents battery back-up of chosen home circuits',
}

export const viewport: Viewport = { width: 'device-width', initialScale: 1 }

/** Every page is made for the request it answers: its scripts carry the nonce of that answer. */
export default async function RootLayout({ children }: { children: ReactNode }) {
  const nonce = (await headers()).get('x-nonce') ?? undefined
  return (
    <html lang="en-US" suppressHydrationWarning>
      <body>
        <InitColorSchemeScript nonce={nonce} attribute="data" defaultMode="system" />
        <AppRouterCacheProvider options={{ enableCssLayer: true, nonce }}>
          <ThemeRoot>{children}</ThemeRoot>
        </AppRouterCacheProvider>
      </body>
    </html>
  )
}
