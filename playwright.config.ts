import { defineConfig } from '@playwright/test'

const port = Number(process.env.E2E_PORT ?? 4173)
const slowed = Number(process.env.E2E_SLOWED ?? 1)

export default defineConfig({
  testDir: 'tests/e2e',
  outputDir: 'test-results/browser',
  fullyParallel: true,
  workers: 2,
  timeout: 120_000 * slowed,
  // A slow machine is no failure; what never comes still is.
  expect: { timeout: 30_000 * slowed },
  // Once more where a test failed: `npm test` says which, and a fault of the program fails twice.
  retries: 1,
  reporter: 'list',
  use: {
    // Each visit would fetch the whole program for later; the tests of being offline allow it.
    serviceWorkers: 'block',
    baseURL: `http://127.0.0.1:${port}`,
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium-headless-shell',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
  webServer: {
    command: 'node .output/server/index.mjs',
    env: { PORT: String(port), HOST: '127.0.0.1' },
    url: `http://127.0.0.1:${port}/api/schema/session`,
    reuseExistingServer: false,
  },
})
