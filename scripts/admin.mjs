import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { databaseEnv, openDatabase } from './lib/cluster.mjs';
import { ROOT, ensureBuild, ensureDebian, ensureModules } from './lib/install.mjs';
import { checkNode } from './lib/say.mjs';

/** `verify`, `rebuild`, `add-kitchen`, `reset-password`: on the private cluster, or on DATABASE_URL. */
checkNode();
if (!process.env.DATABASE_URL) ensureDebian(['postgresql']);
ensureModules();
ensureBuild();
const database = await openDatabase();
const run = spawnSync(process.execPath, [join(ROOT, 'dist/server/cli.mjs'), ...process.argv.slice(2)], {
  env: databaseEnv(database),
  stdio: 'inherit',
});
database.stopIfUnused();
process.exit(run.status ?? 1);
