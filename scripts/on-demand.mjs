import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { ROOT, ensureBuild, ensureDebian, ensureModules } from './lib/install.mjs';
import { checkNode, fail } from './lib/say.mjs';

/**
 * What `npm test` does short, done long: `npm run soak` (kills, a full disk, two servers, five times over) and
 * `npm run fuzz` (every endpoint with 40 wrong bodies, 2,000 odd queries; COCOTTE_FUZZ_SEED repeats a run).
 */
const KINDS = {
  soak: { env: { COCOTTE_SOAK: 'long' }, files: ['testing/soak.test.ts', 'testing/commands.test.ts'] },
  fuzz: { env: { COCOTTE_FUZZ: 'full' }, files: ['server/test/fuzz.test.ts'] },
};
const [kind = ''] = process.argv.slice(2);
if (!Object.hasOwn(KINDS, kind)) fail(`Say which: ${Object.keys(KINDS).join(' or ')}.`);
const { env, files } = KINDS[kind];
checkNode();
ensureDebian(['postgresql']);
ensureModules();
ensureBuild();
const run = spawnSync(
  process.execPath,
  [
    join(ROOT, 'node_modules/vitest/vitest.mjs'),
    'run',
    '--project',
    'api',
    '--testTimeout',
    '600000',
    ...files,
  ],
  { cwd: ROOT, stdio: 'inherit', env: { ...process.env, ...env } },
);
process.exit(run.status ?? 1);
