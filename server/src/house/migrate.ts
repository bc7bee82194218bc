import knexModule from 'knex';
import pg from 'pg';
import { house } from '../migrations/0001_house.ts';
import { recipeBook } from '../migrations/0002_recipe_book.ts';
import { stores } from '../migrations/0003_stores.ts';
import { houseStands } from '../migrations/0004_house_stands.ts';
import { receipts } from '../migrations/0005_receipts.ts';
import { revisions } from '../migrations/0006_revisions.ts';
import { counter } from '../migrations/0007_counter.ts';
import { costSheets } from '../migrations/0008_cost_sheets.ts';
import { confirmations } from '../migrations/0009_confirmations.ts';
import { papers } from '../migrations/0010_papers.ts';
import { pricedLater } from '../migrations/0011_priced_later.ts';
import { curves } from '../migrations/0012_curves.ts';
import { bench } from '../migrations/0013_bench.ts';
import { labels } from '../migrations/0014_labels.ts';
import { lots } from '../migrations/0015_lots.ts';
import type { Migration } from '../migrations/migration.ts';

const MIGRATIONS: readonly Migration[] = [
  house,
  recipeBook,
  stores,
  houseStands,
  receipts,
  revisions,
  counter,
  costSheets,
  confirmations,
  papers,
  pricedLater,
  curves,
  bench,
  labels,
  lots,
];
const LOCK = 4_600_001;

/**
 * Brings the schema up to date as its owner, under an advisory lock, each migration in its own transaction, and grants
 * the application's role what it may do. A migration that was interrupted left nothing and is done again.
 *
 * @param ownerUrl  postgres:// of the role that owns the tables
 * @param appRole  name of the application's role
 * @returns names of the migrations that were run
 */
export async function migrate(ownerUrl: string, appRole: string): Promise<string[]> {
  const lock = new pg.Client({ connectionString: ownerUrl });
  await lock.connect();
  const knex = knexModule({ client: 'pg', connection: ownerUrl, pool: { min: 0, max: 2 } });
  try {
    await lock.query('select pg_advisory_lock($1)', [LOCK]);
    const config = {
      migrationSource: {
        getMigrations: async () => [...MIGRATIONS],
        getMigrationName: (m: Migration) => m.name,
        getMigration: async (m: Migration) => ({
          up: (k: { raw: (sql: string) => Promise<unknown> }) => k.raw(m.up),
          down: async () => {
            throw new Error('Migrations go forward only.');
          },
        }),
      },
    };
    // We hold the advisory lock, so a lock row left by a process that was killed means nothing.
    if (await knex.schema.hasTable('knex_migrations_lock'))
      await knex.migrate.forceFreeMigrationsLock(config as never);
    const [, names] = (await knex.migrate.latest(config as never)) as [number, string[]];
    await knex.raw(grants(appRole));
    return names;
  } finally {
    await knex.destroy();
    await lock.end();
  }
}

/**
 * Whether the schema a role sees is the one this build expects.
 *
 * @returns names of the migrations that are missing
 */
export async function pendingMigrations(url: string): Promise<string[]> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    const table = await client.query("select to_regclass('public.knex_migrations') is not null as there");
    if (!table.rows[0].there) return MIGRATIONS.map(m => m.name);
    const done = await client.query('select name from knex_migrations');
    const names = new Set(done.rows.map(r => r.name as string));
    return MIGRATIONS.map(m => m.name).filter(n => !names.has(n));
  } finally {
    await client.end();
  }
}

/** What the application may do: events and movements are only ever read and added. */
function grants(role: string): string {
  const name = `"${role.replaceAll('"', '""')}"`;
  return `
    grant usage on schema public to ${name};
    grant select on knex_migrations to ${name};
    grant select, insert, update, delete on accounts, sessions, memberships, invitations, known_devices, grants, sign_in_counts to ${name};
    grant select, insert, update on device_people, kitchens, heads, revisions, recipes, recipe_versions, items, lots, batches to ${name};
    grant select, insert, update on receipts to ${name};
    grant select, insert, update, delete on tastings, ingredients, recipe_imports, receipt_mappings, receipt_imports, plans, item_months to ${name};
    grant select, insert on events, movements, done_calls, cost_sheets, confirmations to ${name};
    grant select, insert, delete on papers to ${name};
    grant select, insert on lot_pages to ${name};
    grant select, insert on curves, curve_chunks to ${name};
    grant select, insert, update on label_setups, label_settings to ${name};
    grant select, insert, update on kept_instruments to ${name};
    grant select, insert on instrument_checks to ${name};
    grant update (kept_at) on curves to ${name};
    revoke update, delete, truncate on events, movements from ${name};
  `;
}
