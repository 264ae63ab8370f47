import nextJest from 'next/jest.js'

export default nextJest({ dir: './' })({
  testEnvironment: 'node',
  // the default leaves one core idle, which of two is half
  maxWorkers: '100%',
  // a guard against what never ends, not a measure of speed: a busy machine takes several times as long
  testTimeout: 60_000,
  roots: ['<rootDir>/src'],
  moduleNameMapper: { '^@/(.*)$': '<rootDir>/src/$1', '^lucide-react$': '<rootDir>/src/ui/test/icons.cjs' },
})
