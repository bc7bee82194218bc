import { defineConfig } from '@playwright/test';

/** Debian's Chromium, headless, driven as a person would: by roles and labels. */
export default defineConfig({
  testDir: '.',
  outputDir: '../test-results/browser',
  // Two files side by side, each in a house of its own: on two cores neither has the machine to itself.
  timeout: 300_000,
  // No test is timed: a busy machine is waited for.
  expect: { timeout: 45_000 },
  workers: 2,
  // What fails once has failed: a test that needs a second try hides a fault of its own or ours.
  retries: 0,
  fullyParallel: false,
  reporter: [['list'], ['json', { outputFile: '../test-results/e2e.json' }]],
  globalSetup: './setup.ts',
  use: {
    viewport: { width: 1280, height: 800 },
    actionTimeout: 45_000,
    screenshot: 'only-on-failure',
    colorScheme: 'light',
    // Only the test of a lost connection lets pages be kept.
    serviceWorkers: 'block',
    launchOptions: {
      executablePath: '/usr/bin/chromium',
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
});
