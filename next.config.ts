import type { NextConfig } from 'next'

const dev = process.env.NODE_ENV === 'development'

/** Nothing is fetched from elsewhere at run time; the policy makes the browser hold us to it. */
const contentSecurityPolicy = [
  "default-src 'self'",
  // the solver of switch positions is WebAssembly
  `script-src 'self' 'unsafe-inline' 'wasm-unsafe-eval'${dev ? " 'unsafe-eval'" : ''}`,
  "style-src 'self' 'unsafe-inline'",
  "img-src 'self' data: blob:",
  "font-src 'self'",
  "connect-src 'self'",
  "worker-src 'self' blob:",
  "object-src 'none'",
  "base-uri 'self'",
  "form-action 'self'",
  "frame-ancestors 'none'",
].join('; ')

const config: NextConfig = {
  reactStrictMode: true,
  poweredByHeader: false,
  devIndicators: false,
  serverExternalPackages: ['knex', 'pg', 'pg-boss'],
  // published as modules only; the unit tests take it from here too
  transpilePackages: ['suncalc'],
  headers: async () => [
    {
      source: '/:path*',
      headers: [
        { key: 'Content-Security-Policy', value: contentSecurityPolicy },
        { key: 'X-Content-Type-Options', value: 'nosniff' },
        { key: 'Referrer-Policy', value: 'same-origin' },
      ],
    },
  ],
  redirects: async () => [{ source: '/', destination: '/jobs', permanent: false }],
}

export default config
