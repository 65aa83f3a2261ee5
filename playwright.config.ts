import { cpus } from 'node:os'
import { defineConfig } from '@playwright/test'

/** The Desk shows every drawing there is: its tests have a server of their own, where nobody else makes any. */
const DESK_PORT = 4398
const PORT = 4399
const ON_THE_DESK = /desk\.spec\.ts$/
/** What is timed in the browser has the machine to itself, once all else is done. */
const ALONE = /calm\.spec\.ts$/

export default defineConfig({
  testDir: 'tests/e2e',
  testMatch: '**/*.spec.ts',
  workers: Math.min(2, cpus().length),
  fullyParallel: false,
  retries: 0,
  timeout: 180_000,
  expect: { timeout: 15_000 },
  projects: [
    { name: 'desk', testMatch: ON_THE_DESK, workers: 1, use: { baseURL: `http://127.0.0.1:${DESK_PORT}` } },
    { name: 'drawings', testIgnore: [ON_THE_DESK, ALONE], use: { baseURL: `http://127.0.0.1:${PORT}` } },
    {
      name: 'alone',
      testMatch: ALONE,
      dependencies: ['desk', 'drawings'],
      workers: 1,
      use: { baseURL: `http://127.0.0.1:${PORT}` },
    },
  ],
  reporter: [['list']],
  outputDir: 'test-results',
  use: {
    actionTimeout: 15_000,
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
    acceptDownloads: true,
    // What is intercepted must not be answered from elsewhere; the tests of times without a server allow them.
    serviceWorkers: 'block',
  },
  webServer: [DESK_PORT, PORT].map((port) => ({
    command: 'node tests/e2e/serve.mjs',
    env: { PORT: String(port) },
    url: `http://127.0.0.1:${port}/api/drawings`,
    timeout: 120_000,
    reuseExistingServer: false,
  })),
})
