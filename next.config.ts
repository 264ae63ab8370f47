import type { NextConfig } from 'next'

const config: NextConfig = {
  reactStrictMode: true,
  poweredByHeader: false,
  devIndicators: false,
  serverExternalPackages: ['knex', 'pg', 'pg-boss', 'piscina', 'pino', 'async-mutex'],
  // published as modules only; the unit tests take it from here too
  transpilePackages: ['suncalc', 'react-hotkeys-hook'],
  redirects: async () => [{ source: '/', destination: '/jobs', permanent: false }],
}

export default config
