import { defineConfig } from 'vitest/config';

/** Three parts: what computes, what serves, and the interface's own units. Browser tests are Playwright's, in e2e. */
export default defineConfig({
  test: {
    projects: [
      { test: { name: 'core', include: ['core/**/*.test.ts', 'contract/**/*.test.ts'] } },
      {
        test: {
          name: 'api',
          include: ['server/**/*.test.ts', 'testing/**/*.test.ts', 'demo/**/*.test.ts'],
          testTimeout: 60_000,
          hookTimeout: 120_000,
          fileParallelism: true,
          maxWorkers: 2,
          globalSetup: ['testing/database-template.ts'],
        },
      },
      { test: { name: 'web', include: ['web/**/*.test.{ts,tsx}'] } },
    ],
  },
});
