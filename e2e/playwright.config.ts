import { defineConfig } from '@playwright/test';

export default defineConfig({
  testDir: '.',
  testMatch: '*.spec.ts',
  globalSetup: './global-setup.ts',
  outputDir: '../.data/test-results/playwright',
  // A slow and busy machine is waited for: nothing here is judged by its speed.
  timeout: 600_000,
  expect: { timeout: 60_000 },
  // Each has its own server, database and browser.
  workers: 2,
  forbidOnly: true,
  use: {
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    actionTimeout: 60_000,
    navigationTimeout: 120_000,
    screenshot: 'only-on-failure',
    launchOptions: {
      executablePath: process.env['CHROMIUM'] ?? '/usr/bin/chromium',
      args: [
        '--disable-quic',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--no-first-run',
      ],
    },
  },
});
