import { migrate } from '@cocotte/server/house/migrate';
import { openDatabase } from '@cocotte/server/house/database';
import { seedDemo } from '@cocotte/demo/seed';
// @ts-expect-error -- plain JavaScript, without types
import { adminSql, openCluster } from '../scripts/lib/cluster.mjs';

/** Two templates, the demo kitchen and an empty house; each spec file works in a clone. */
export default async function setup(): Promise<() => void> {
  const cluster = await openCluster();
  const base = `cocotte_e2e_${process.pid}`;
  const at = (url: string, name: string) => Object.assign(new URL(url), { pathname: `/${name}` }).href;
  for (const kind of ['empty', 'demo']) {
    adminSql(cluster, `create database ${base}_${kind} owner cocotte_owner`);
    await migrate(at(cluster.ownerUrl, `${base}_${kind}`), 'cocotte_app');
  }
  const database = openDatabase(at(cluster.appUrl, `${base}_demo`), 2, 60_000);
  await seedDemo(database, Date.now());
  await database.close();
  process.env.COCOTTE_E2E = JSON.stringify({ base, appUrl: cluster.appUrl, adminUrl: cluster.adminUrl });
  return () => {
    const clones = (
      adminSql(cluster, `select datname from pg_database where datname like '${base}%'`) as string
    )
      .split('\n')
      .filter(Boolean);
    for (const name of clones) adminSql(cluster, `drop database ${name} with (force)`);
    cluster.stopIfUnused();
  };
}
