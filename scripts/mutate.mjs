import { spawnSync } from 'node:child_process';
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT, ensureModules } from './lib/install.mjs';
import { checkNode } from './lib/say.mjs';

/**
 * `npm run mutate`: changes the heart in small ways, one at a time, and counts the changes that no test notices.
 * Further words go to the tool, such as `-- --mutate core/acid/ph.ts`. Figures: docs/testing.md.
 */
checkNode();
ensureModules();
const run = spawnSync(
  process.execPath,
  [join(ROOT, 'node_modules/@stryker-mutator/core/bin/stryker.js'), 'run', ...process.argv.slice(2)],
  { cwd: ROOT, stdio: 'inherit' },
);
rmSync(join(ROOT, 'test-results/mutants'), { recursive: true, force: true });
process.exit(run.status ?? 1);
