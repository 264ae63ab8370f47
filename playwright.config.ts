import { defineConfig } from '@playwright/test'

const alone = /(trouble|keeper)\.spec\.ts/

export default defineConfig({
  testDir: 'e2e',
  outputDir: 'test-results',
  workers: 2,
  retries: 0,
  forbidOnly: true,
  // guards against what never ends, not measures of speed: a busy machine takes several times as long
  timeout: 90_000,
  expect: { timeout: 20_000 },
  // what stops the database or floods the server disturbs whoever is served beside it
  projects: [
    { name: 'together', testIgnore: alone },
    { name: 'alone', testMatch: alone, dependencies: ['together'] },
  ],
  use: {
    baseURL: process.env.SPILLWAY_URL ?? 'http://127.0.0.1:4180',
    viewport: { width: 1280, height: 800 },
    trace: 'off',
    contextOptions: { reducedMotion: 'reduce' },
    launchOptions: {
      executablePath: '/usr/bin/chromium-headless-shell',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--no-first-run',
      ],
    },
  },
})
