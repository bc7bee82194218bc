// oxlint-disable-next-line typescript/triple-slash-reference -- an ambient declaration has nothing to import
/// <reference path="./provided.d.ts" />
import { migrate } from '@cocotte/server/house/migrate';
import type { TestProject } from 'vitest/node';
// The cluster is started by the same plain script that `npm start` uses.
// @ts-expect-error -- plain JavaScript, without types
import { adminSql, openCluster } from '../scripts/lib/cluster.mjs';

/** One migrated database for the whole run; each test file works in a clone of it. */
export default async function setup(project: TestProject): Promise<() => void> {
  const cluster = await openCluster();
  const template = `cocotte_template_${process.pid}`;
  adminSql(cluster, `drop database if exists ${template}`);
  adminSql(cluster, `create database ${template} owner cocotte_owner`);
  const at = (url: string) => Object.assign(new URL(url), { pathname: `/${template}` }).href;
  await migrate(at(cluster.ownerUrl), 'cocotte_app');
  for (const key of ['adminUrl', 'ownerUrl', 'appUrl'] as const) project.provide(key, cluster[key] as string);
  project.provide('template', template);
  return () => {
    const clones = adminSql(cluster, `select datname from pg_database where datname like '${template}%'`)
      .split('\n')
      .filter(Boolean) as string[];
    for (const name of clones) adminSql(cluster, `drop database ${name} with (force)`);
    cluster.stopIfUnused();
  };
}
