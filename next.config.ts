import type { NextConfig } from 'next'

// packages that come as ES modules only, which the runner of tests reads after this
const esm = [
  'd3-array',
  'd3-color',
  'd3-format',
  'd3-interpolate',
  'd3-path',
  'd3-scale',
  'd3-shape',
  'd3-time',
  'd3-time-format',
  'internmap',
  'intl-messageformat',
  '@formatjs/fast-memoize',
  '@formatjs/icu-messageformat-parser',
  '@formatjs/icu-skeleton-parser',
]

const config: NextConfig = {
  reactStrictMode: true,
  poweredByHeader: false,
  devIndicators: false,
  serverExternalPackages: [
    '@aws-sdk/client-s3',
    '@node-rs/argon2',
    'better-auth',
    '@better-auth/passkey',
    'kysely',
    'rate-limiter-flexible',
    'knex',
    'pdfkit',
    'pg',
    'pg-boss',
    'piscina',
    'pino',
    'async-mutex',
  ],
  // published as modules only; the unit tests take it from here too
  transpilePackages: ['suncalc', 'react-hotkeys-hook', ...esm],
  // each component is taken from its own file, in the build and in the tests
  modularizeImports: { '@mui/material': { transform: '@mui/material/{{member}}' } },
  // bin/test has looked at the types itself before it builds
  typescript: { ignoreBuildErrors: process.env.SPILLWAY_TYPES === 'checked' },
  redirects: async () => [{ source: '/', destination: '/jobs', permanent: false }],
}

export default config
