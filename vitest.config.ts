import { defineConfig } from 'vitest/config';

/** How long a test may hang, everywhere: no test is timed, and on a busy machine 4 seconds become 10. */
const PATIENCE_MS = { testTimeout: 120_000, hookTimeout: 120_000 };

/** Three parts: what computes, what serves, and the interface's own units. Browser tests are Playwright's, in e2e. */
export default defineConfig({
  test: {
    projects: [
      {
        test: {
          name: 'core',
          include: ['core/**/*.test.ts', 'contract/**/*.test.ts', 'devices/**/*.test.ts'],
          ...PATIENCE_MS,
        },
      },
      {
        test: {
          name: 'api',
          include: ['server/**/*.test.ts', 'testing/**/*.test.ts', 'demo/**/*.test.ts'],
          ...PATIENCE_MS,
          fileParallelism: true,
          maxWorkers: 2,
          globalSetup: ['testing/database-template.ts'],
        },
      },
      {
        test: {
          name: 'web',
          include: ['web/**/*.test.{ts,tsx}'],
          setupFiles: ['web/test/setup.ts'],
          ...PATIENCE_MS,
        },
      },
    ],
  },
});
