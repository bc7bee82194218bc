import { byName } from '@cocotte/core/measure';
import { randomBytes, randomUUID } from 'node:crypto';
import { createInterface } from 'node:readline/promises';
import { parseArgs } from 'node:util';
import { rebuildKitchen, renewProjections } from './admin/rebuild.ts';
import { verifyChain } from './admin/verify.ts';
import { systemClock } from './house/clock.ts';
import { type Database, enterKitchen, openDatabase } from './house/database.ts';
import { migrate } from './house/migrate.ts';
import { costSheets } from './migrations/0008_cost_sheets.ts';
import { keepOldSheets } from './stores/kept-sheets.ts';
import { readPlace } from './kitchen/place.ts';
import { accountByEmail, addMembership, setPassword } from './kitchen/outside.ts';
import { INVITATION_MS, makeLink } from './kitchen/people.ts';
import { addKitchen, newKitchenSettings } from './kitchen/service.ts';
import { hashPassword } from './kitchen/sessions.ts';

/** What the keeper of the machine does from the terminal. */
const COMMANDS = byName<(args: string[]) => Promise<void>>({
  async migrate() {
    const { DATABASE_URL, MIGRATION_DATABASE_URL } = process.env;
    if (!DATABASE_URL || !MIGRATION_DATABASE_URL)
      throw new Error('Migrations need DATABASE_URL and MIGRATION_DATABASE_URL.');
    const role = decodeURIComponent(new URL(DATABASE_URL).username);
    const names = await migrate(MIGRATION_DATABASE_URL, role);
    if (names.length > 0) console.log(`Brought the database up to date: ${names.join(', ')}`);
    await withDatabase('owner', async database => {
      for (const id of await kitchenIds(database)) {
        if (names.includes(costSheets.name)) {
          const kept = await database.outside(async trx => {
            await enterKitchen(trx, id);
            return keepOldSheets(trx, id, systemClock.now_ms());
          });
          if (kept > 0) console.log(`${id}: the cost sheets of ${kept} closed batches stored as they stand`);
        }
        const renewed = await database.outside(async trx => {
          await enterKitchen(trx, id);
          return renewProjections(trx, id);
        });
        if (renewed > 0) console.log(`${id}: ${renewed} batches derived again by the rules of today`);
      }
    });
  },

  async verify() {
    await withDatabase('app', async database => {
      let faults = 0;
      for (const id of await kitchenIds(database)) {
        const verdict = await database.inKitchen(id, trx => verifyChain(trx, id));
        console.log(
          `${id}: ${verdict.entries} entries, ${verdict.fault ?? 'whole'}, head ${verdict.headHash}`,
        );
        if (verdict.fault) faults += 1;
      }
      if (faults > 0)
        throw new Error(`${faults} kitchen record is not whole; restore it from a backup and compare.`);
    });
  },

  async rebuild() {
    await withDatabase('owner', async database => {
      for (const id of await kitchenIds(database)) {
        const batches = await database.outside(async trx => {
          await enterKitchen(trx, id);
          return rebuildKitchen(trx, id);
        });
        console.log(`${id}: ${batches} batches derived again`);
      }
    });
  },

  async 'add-kitchen'(args) {
    const { values, positionals } = parseArgs({
      args,
      allowPositionals: true,
      options: { altitude: { type: 'string' }, zone: { type: 'string' } },
    });
    const [name, email] = positionals;
    if (!name || !email)
      throw new Error(
        'Say: npm run add-kitchen -- "NAME OF THE KITCHEN" OWNER@EMAIL [--altitude "2350 ft"] [--zone America/Denver]',
      );
    const place = readPlace(
      values.altitude ??
        (await ask('Its altitude, such as 2350 ft or 716 m (empty: asked for in its settings): ')),
      values.zone ??
        (await ask('Its time zone, such as America/Denver (empty: asked for in its settings): ')),
    );
    const now_ms = systemClock.now_ms();
    await withDatabase('app', database =>
      database.outside(async trx => {
        const account = await accountByEmail(trx, email);
        const id = await addKitchen(trx, newKitchenSettings(name, place), now_ms);
        const words = [
          `${name} is made (${id}).`,
          place
            ? `It stands at ${place.altitude_m.toFixed(0)} m, in the zone ${place.zone}.`
            : 'It is not set up: no batch starts in it until its altitude and time zone are entered in its settings.',
        ];
        if (account) {
          await addMembership(trx, account.id, id, 'owner', true);
          words.push(`${account.name} owns it.`);
        } else {
          const link = await makeLink(
            trx,
            { id: randomUUID(), kitchenId: id, role: 'owner', maySign: true, madeBy: null },
            now_ms,
          );
          words.push(
            `There is no account ${email}. Whoever opens this link on this server within ${INVITATION_MS / 3_600_000} hours makes one and owns the kitchen: /join/${link?.token}`,
          );
        }
        console.log(words.join('\n'));
      }),
    );
  },

  async 'reset-password'(args) {
    const [email] = args;
    if (!email) throw new Error('Say: npm run reset-password -- SOMEBODY@EMAIL');
    await withDatabase('app', database =>
      database.outside(async trx => {
        const account = await accountByEmail(trx, email);
        if (!account) throw new Error(`There is no account ${email}.`);
        const password = randomBytes(12).toString('base64url');
        await setPassword(trx, account.id, await hashPassword(password));
        console.log(`New password of ${account.name}: ${password}\nEvery session of theirs is over.`);
      }),
    );
  },
});

/** Asks at a terminal; anywhere else nothing is answered. */
async function ask(question: string): Promise<string> {
  if (!process.stdin.isTTY) return '';
  const terminal = createInterface({ input: process.stdin, output: process.stdout });
  try {
    return await terminal.question(question);
  } finally {
    terminal.close();
  }
}

async function kitchenIds(database: Database): Promise<string[]> {
  const rows: { kitchen_id: string }[] = await database.outside(trx =>
    trx('memberships').distinct('kitchen_id').orderBy('kitchen_id'),
  );
  return rows.map(r => r.kitchen_id);
}

async function withDatabase(
  role: 'app' | 'owner',
  work: (database: Database) => Promise<void>,
): Promise<void> {
  const url = role === 'app' ? process.env.DATABASE_URL : process.env.MIGRATION_DATABASE_URL;
  if (!url)
    throw new Error(
      role === 'app'
        ? 'DATABASE_URL is not set.'
        : 'MIGRATION_DATABASE_URL is not set: this takes the owner of the tables.',
    );
  const database = openDatabase(url, 2, 3_600_000);
  try {
    await work(database);
  } finally {
    await database.close();
  }
}

const [command = '', ...args] = process.argv.slice(2);
const run = COMMANDS[command];
if (!run) {
  console.error(`cocotte: no command "${command}"; there are ${Object.keys(COMMANDS).join(', ')}.`);
  process.exit(1);
}
run(args).catch((error: Error) => {
  console.error(`cocotte: ${error.message}`);
  process.exit(1);
});
