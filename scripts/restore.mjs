import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { adminSql, openDatabase, withoutPassword } from './lib/cluster.mjs';
import { ensureDebian, postgresBin } from './lib/install.mjs';
import { checkNode, fail, say } from './lib/say.mjs';

/** `npm run restore FILE`: restores into a new database and swaps the names; the one it replaces is kept beside it. */
checkNode();
ensureDebian(['postgresql']);
if (!process.argv[2]) fail('Name the file: npm run restore FILE');
const file = resolve(process.argv[2]);
if (!existsSync(file)) fail(`${file} is not there.`);
const database = await openDatabase();
const give = line => {
  database.stopIfUnused();
  fail(line);
};
const owner = new URL(database.ownerUrl ?? database.adminUrl);
const name = owner.pathname.slice(1);
const quoted = n => `"${n.replaceAll('"', '""')}"`;
const text = `'${name.replaceAll("'", "''")}'`;
/** A server that runs holds this lock, also while it is idle. The number stands in server/src/house/standing.ts too. */
const PRESENCE_LOCK = 4_600_002;
const count = query => Number(adminSql(database, query));
const refuseIfUsed = clean => {
  const held = count(
    `select count(*) from pg_locks l join pg_database d on d.oid = l.database where l.locktype = 'advisory' and l.objid = ${PRESENCE_LOCK} and d.datname = ${text}`,
  );
  const connected = count(
    `select count(*) from pg_stat_activity where datname = ${text} and pid <> pg_backend_pid()`,
  );
  if (held + connected === 0) return;
  clean();
  give('A server is connected to the database; stop it, then restore.');
};
refuseIfUsed(() => undefined);
const stamp = new Date().toISOString().slice(0, 19).replaceAll(/[-:T]/g, '');
const fresh = `${name}_restoring_${stamp}`;
const kept = `${name}_before_${stamp}`;
adminSql(database, `create database ${quoted(fresh)} owner ${quoted(decodeURIComponent(owner.username))}`);
const target = new URL(owner);
target.pathname = `/${fresh}`;
const into = withoutPassword(target.href);
const run = spawnSync(
  join(postgresBin(), 'pg_restore'),
  ['--no-owner', '--exit-on-error', '--single-transaction', `--dbname=${into.url}`, file],
  { encoding: 'utf8', env: into.env },
);
if (run.status !== 0) {
  adminSql(database, `drop database ${quoted(fresh)}`);
  give(`${file} could not be restored, nothing was changed: ${run.stderr.trim().split('\n')[0]}`);
}
refuseIfUsed(() => adminSql(database, `drop database ${quoted(fresh)}`));
// A server that came in this moment holds a connection, and PostgreSQL does not rename under it.
adminSql(database, `alter database ${quoted(name)} rename to ${quoted(kept)}`);
adminSql(database, `alter database ${quoted(fresh)} rename to ${quoted(name)}`);
database.stopIfUnused();
say(`Restored from ${file}. What was there before is kept as database ${kept}.`);
