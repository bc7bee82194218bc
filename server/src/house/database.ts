import knexModule, { type Knex } from 'knex';
import pg from 'pg';

// Days, decimals and big integers stay as text: a double would change them.
pg.types.setTypeParser(1082, value => value);

export type Trx = Knex.Transaction;

/** The database was not there, or did not answer in time. Becomes a 503. */
export class DatabaseAway extends Error {
  constructor(cause: unknown) {
    super('The database is away.', { cause });
    this.name = 'DatabaseAway';
  }
}

const AWAY_CODES = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ENOTFOUND',
  'ETIMEDOUT',
  '57P01',
  '57P02',
  '57P03',
  '53300',
  '08000',
  '08003',
  '08006',
  '25P03',
]);

/** Whether an error means that PostgreSQL is away, and not that a query was wrong. */
export function isAway(error: unknown): boolean {
  if (error instanceof DatabaseAway) return true;
  if (!(error instanceof Error)) return false;
  const code = (error as { code?: string }).code;
  if (code !== undefined && AWAY_CODES.has(code)) return true;
  if (error instanceof AggregateError) return error.errors.some(isAway);
  return (
    error.name === 'KnexTimeoutError' ||
    /Connection terminated|Query read timeout|Connection ended|timeout exceeded when trying to connect|Unable to acquire a connection/.test(
      error.message,
    )
  );
}

/** Longest a call may wait for the database before it is answered with a 503. */
export const AWAY_AFTER_MS = 2500;

/** Every way into the database. Nothing else holds the connection pool. */
export interface Database {
  /** A transaction that sees one kitchen's rows and no other's. */
  inKitchen<T>(kitchenId: string, work: (trx: Trx) => Promise<T>): Promise<T>;
  /** A transaction outside every kitchen: accounts, sessions, memberships, invitations. */
  outside<T>(work: (trx: Trx) => Promise<T>): Promise<T>;
  close(): Promise<void>;
}

/** Lets the transaction see one kitchen, for its own length only. */
export async function enterKitchen(trx: Trx, kitchenId: string): Promise<void> {
  await trx.raw("select set_config('app.kitchen_id', ?, true)", [kitchenId]);
}

/**
 * Opens the pool for the application's role.
 *
 * @param url  postgres:// of a role that owns no table
 * @param patience_ms  longest one query may take
 */
export function openDatabase(url: string, poolMax = 12, patience_ms = AWAY_AFTER_MS): Database {
  const knex = knexModule({
    client: 'pg',
    connection: {
      connectionString: url,
      connectionTimeoutMillis: 2000,
      query_timeout: patience_ms,
      application_name: 'cocotte',
    } as Knex.PgConnectionConfig,
    pool: { min: 0, max: poolMax, idleTimeoutMillis: 30_000 },
    acquireConnectionTimeout: 2000,
  });
  const transaction = async <T>(work: (trx: Trx) => Promise<T>): Promise<T> => {
    try {
      return await knex.transaction(work);
    } catch (error) {
      throw isAway(error) ? new DatabaseAway(error) : error;
    }
  };
  return {
    outside: transaction,
    inKitchen: (kitchenId, work) =>
      transaction(async trx => {
        await enterKitchen(trx, kitchenId);
        return work(trx);
      }),
    close: () => knex.destroy(),
  };
}

/**
 * Checks that row-level security holds for this role: it is no superuser, cannot pass it by, and owns none of our tables.
 *
 * @throws Error in one line when it does not hold
 */
export async function assertSafeRole(database: Database): Promise<void> {
  const result = await database.outside(trx =>
    trx.raw(`
    select (rolsuper or rolbypassrls) as unsafe,
      exists (select 1 from pg_class c join pg_namespace n on n.oid = c.relnamespace where n.nspname = 'public' and c.relkind = 'r' and pg_get_userbyid(c.relowner) = current_user) as owns
    from pg_roles where rolname = current_user`),
  );
  const row = result.rows[0] as { unsafe: boolean; owns: boolean } | undefined;
  if (!row || row.unsafe || row.owns) {
    throw new Error(
      'DATABASE_URL names a role that owns the tables or passes by row security; name a plain role there and the owner in MIGRATION_DATABASE_URL.',
    );
  }
}
