import { defineConfig } from 'vitest/config';

/**
 * What mutants are tried against: the core alone, which needs no database and no browser. The histories drawn by the
 * thousand take seconds each time; a mutant that only they would notice counts as not noticed.
 */
export default defineConfig({
  test: { include: ['core/**/*.test.ts'], exclude: ['core/checks/histories.test.ts', 'core/exchange/**'] },
});
