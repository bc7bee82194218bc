import { spawnSync } from 'node:child_process';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

/** Type-checks every room with its own settings; fails on the first that does not pass, after trying all. */
const root = dirname(dirname(fileURLToPath(import.meta.url)));
let failed = false;
for (const room of ['core', 'contract', 'server', 'web', 'devices', 'demo', 'testing', 'e2e', 'bench']) {
  const run = spawnSync(
    process.execPath,
    [join(root, 'node_modules/typescript/bin/tsc'), '-p', join(root, room)],
    { stdio: 'inherit', cwd: root },
  );
  if (run.status !== 0) failed = true;
}
process.exit(failed ? 1 : 0);
