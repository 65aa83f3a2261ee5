import { cpus } from 'node:os'
import { defineConfig } from '@playwright/test'

const PORT = 4399
const ON_THE_DESK = /desk\.spec\.ts$/

export default defineConfig({
  testDir: 'tests/e2e',
  testMatch: '**/*.spec.ts',
  workers: Math.min(2, cpus().length),
  fullyParallel: false,
  retries: 0,
  timeout: 180_000,
  expect: { timeout: 15_000 },
  // The Desk shows every drawing there is, so what happens on it is looked at before other tests make theirs.
  projects: [
    { name: 'desk', testMatch: ON_THE_DESK, workers: 1 },
    { name: 'drawings', testIgnore: ON_THE_DESK, dependencies: ['desk'] },
  ],
  reporter: [['list']],
  outputDir: 'test-results',
  use: {
    actionTimeout: 15_000,
    baseURL: `http://127.0.0.1:${PORT}`,
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking', '--disable-component-update', '--disable-sync'],
    },
    acceptDownloads: true,
  },
  webServer: {
    command: 'node tests/e2e/serve.mjs',
    env: { PORT: String(PORT) },
    url: `http://127.0.0.1:${PORT}/api/drawings`,
    timeout: 120_000,
    reuseExistingServer: false,
  },
})
