import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { openCluster } from './lib/cluster.mjs';
import { ROOT, ensureBuild, ensureDebian, ensureModules } from './lib/install.mjs';
import { checkNode, fail } from './lib/say.mjs';

/** `npm run bench`: prints each figure beside its floor; `--tiny` only runs it through. */
checkNode();
ensureDebian(['postgresql']);
ensureModules();
ensureBuild();
const build = spawnSync(
  process.execPath,
  [
    join(ROOT, 'node_modules/vite/bin/vite.js'),
    'build',
    '--config',
    'vite.server.config.ts',
    '--mode',
    'bench',
    '--logLevel',
    'warn',
  ],
  { cwd: ROOT, stdio: ['ignore', 'inherit', 'inherit'] },
);
if (build.status !== 0) fail('The benchmark could not be built; see above.');
const cluster = await openCluster();
const run = spawnSync(process.execPath, [join(ROOT, 'dist/bench/bench.mjs'), ...process.argv.slice(2)], {
  cwd: ROOT,
  stdio: ['ignore', 'inherit', 'inherit'],
  env: {
    ...process.env,
    ADMIN_URL: cluster.adminUrl,
    OWNER_URL: cluster.ownerUrl,
    APP_URL: cluster.appUrl,
    ROOT,
  },
});
cluster.stopIfUnused();
process.exit(run.status ?? 1);
