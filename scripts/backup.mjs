import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { openDatabase, withoutPassword } from './lib/cluster.mjs';
import { ensureDebian, postgresBin } from './lib/install.mjs';
import { checkNode, fail, say } from './lib/say.mjs';

/** `npm run backup [FILE]`: the whole database in pg_dump's own format, while the kitchen goes on working. */
checkNode();
ensureDebian(['postgresql']);
const file = resolve(
  process.argv[2] ?? `cocotte-${new Date().toISOString().slice(0, 19).replaceAll(/[:T]/g, '-')}.dump`,
);
if (existsSync(file)) fail(`${file} is there already; name another file.`);
const database = await openDatabase();
const from = withoutPassword(database.adminUrl);
// Recipes, people and their password hashes are in it: nobody else on this machine reads it.
process.umask(0o077);
const run = spawnSync(
  join(postgresBin(), 'pg_dump'),
  ['--format=custom', '--no-owner', `--file=${file}`, from.url],
  { encoding: 'utf8', env: from.env },
);
database.stopIfUnused();
if (run.status !== 0) fail(`The backup did not succeed: ${run.stderr.trim().split('\n')[0]}`);
say(`Backed up to ${file}`);
