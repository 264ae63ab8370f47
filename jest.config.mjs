import nextJest from 'next/jest.js'

const configured = nextJest({ dir: './' })({
  testEnvironment: 'node',
  // the default leaves one core idle, which of two is half
  maxWorkers: '100%',
  // a guard against what never ends, not a measure of speed: a busy machine takes several times as long
  testTimeout: 60_000,
  // what a file leaves on its global scope is let go with it; wrapped file after file instead, what a library shares there overflows
  testEnvironmentOptions: { globalsCleanup: 'off' },
  roots: ['<rootDir>/src'],
  moduleNameMapper: { '^@/(.*)$': '<rootDir>/src/$1', '^lucide-react$': '<rootDir>/src/ui/test/icons.cjs' },
})

/** Published as modules only; what the build takes as they are, the runner of tests has to turn first. */
const modulesOnly = [
  'better-auth',
  '@better-auth/.*',
  'better-call',
  '@better-fetch/.*',
  '@noble/.*',
  'jose',
  'nanostores',
  'defu',
  'rou3',
]

export default async () => {
  const config = await configured()
  const [first = ''] = config.transformIgnorePatterns
  return {
    ...config,
    transformIgnorePatterns: [
      first.replace('(?!', `(?!(${modulesOnly.join('|')})/|`),
      ...config.transformIgnorePatterns.slice(1),
    ],
  }
}
