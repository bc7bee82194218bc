import { defineConfig } from 'vitest/config';

/** What mutants are tried against: the core alone, which needs no database and no browser. */
export default defineConfig({ test: { include: ['core/**/*.test.ts'] } });
