import { type ChildProcess, fork } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import { seedDemo } from '@cocotte/demo/seed';
import { crushedTomatoes, plumJam, waxBeans } from '@cocotte/demo/recipes';
import { openDatabase } from '@cocotte/server/house/database';
import { migrate } from '@cocotte/server/house/migrate';
import { hashToken } from '@cocotte/server/house/session-cookie';
import { insertSession } from '@cocotte/server/kitchen/outside';
import { fillTenYears } from '@cocotte/testing/ten-years';
import pg from 'pg';
import { PLAN } from './say.ts';

export const { ADMIN_URL = '', OWNER_URL = '', APP_URL = '', ROOT = '' } = process.env;
/** The same server's address, another database. */
export const at = (url: string, name: string) => Object.assign(new URL(url), { pathname: `/${name}` }).href;

/** A kitchen in a database of its own, to be measured. */
export interface Kitchen {
  name: string;
  appUrl: string;
  kitchenId: string;
  personId: string;
  token: string;
  batchId: string;
  /** The recipe of the plum jam. */
  jamId: string;
  recipes: string[];
}

/** Makes its database, the demo in it, and the ten years when they are wanted. */
export async function makeKitchen(name: string, ten: boolean): Promise<Kitchen> {
  const admin = new pg.Client({ connectionString: at(ADMIN_URL, 'postgres') });
  await admin.connect();
  await admin.query(`create database ${name} owner cocotte_owner`);
  await admin.end();
  await migrate(at(OWNER_URL, name), 'cocotte_app');
  const appUrl = at(APP_URL, name);
  const database = openDatabase(appUrl, 4, 600_000);
  await seedDemo(database, Date.now());
  const who = await database.outside(
    async trx =>
      (await trx('memberships').where({ role: 'owner' }).first()) as {
        account_id: string;
        kitchen_id: string;
      },
  );
  const token = randomUUID();
  await database.outside(trx =>
    insertSession(
      trx,
      { tokenHash: hashToken(token), accountId: who.account_id, kitchenId: who.kitchen_id },
      Date.now(),
    ),
  );
  const known = new Map([plumJam, waxBeans, crushedTomatoes].map(r => [r.code, r]));
  const recipes = await database.inKitchen(who.kitchen_id, async trx =>
    (await trx('recipes')).flatMap(r => {
      const recipe = known.get(r.code);
      return recipe ? [{ id: r.recipe_id as string, recipe }] : [];
    }),
  );
  if (ten)
    await fillTenYears(database, {
      ...PLAN,
      recipes,
      personId: who.account_id,
      kitchenId: who.kitchen_id,
      today: new Date().toISOString().slice(0, 10),
    });
  const batchId = await database.inKitchen(
    who.kitchen_id,
    async trx =>
      (await trx('batches').where({ stage: 'released' }).orderBy('made_on').first()).batch_id as string,
  );
  await database.close();
  const owner = new pg.Client({ connectionString: at(OWNER_URL, name) });
  await owner.connect();
  await owner.query('vacuum analyze');
  await owner.end();
  return {
    name,
    appUrl,
    kitchenId: who.kitchen_id,
    personId: who.account_id,
    token,
    batchId,
    jamId: recipes.find(r => r.recipe === plumJam)?.id ?? '',
    recipes: recipes.map(r => r.id),
  };
}

/** A server process of its own on that database. */
export async function serve(
  kitchen: Kitchen,
): Promise<{ port: number; child: ChildProcess; stop: () => Promise<void> }> {
  const port = 20_000 + Math.floor(Math.random() * 20_000);
  const child = fork(join(ROOT, 'dist/server/main.mjs'), [], {
    env: {
      ...process.env,
      DATABASE_URL: kitchen.appUrl,
      PORT: String(port),
      NODE_ENV: 'production',
      COCOTTE_WEB_DIST: join(ROOT, 'dist/web'),
    },
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
  });
  await new Promise<void>((resolve, reject) => {
    child.once('message', () => resolve());
    child.once('exit', code => reject(new Error(`the server ended with ${code}`)));
  });
  return {
    port,
    child,
    stop: () =>
      new Promise(resolve => {
        child.once('exit', () => resolve());
        child.kill('SIGTERM');
      }),
  };
}
