import knexModule, { type Knex } from 'knex';
import pg from 'pg';
import { log } from './log.ts';

// Days, decimals and big integers stay as text: a double would change them.
pg.types.setTypeParser(1082, value => value);

/** A transaction: builds queries (`trx('lots').where(…)`, `trx.raw(…)`) that run on its connection while it is open. */
// oxlint-disable-next-line typescript/no-explicit-any -- rows have the columns of their table, which Knex does not know
type Unread = any;
/** Knex bound to one transaction: nothing that was built in it runs after its end. */
export interface Trx {
  (table: string | Knex.QueryBuilder<Unread, Unread>): Knex.QueryBuilder<Unread, Unread[]>;
  raw: Knex['raw'];
  /** Sends queries in one journey. They are done in the order they stand in, each seeing what the one before it did. */
  together(queries: readonly Knex.QueryBuilder<Unread, Unread>[]): Promise<Unread[][]>;
}

/** The database was not there, or did not answer in time. Nothing was written. Becomes a 503. */
export class DatabaseAway extends Error {
  constructor(
    cause: unknown,
    /** Why: nobody answers; or it has too much to do: no connection or lock was free in time, or the call took too long. */
    readonly why: 'away' | 'busy' = 'away',
  ) {
    super('The database is away.', { cause });
    this.name = 'DatabaseAway';
  }
}

/** The transaction was sent off, and its answer was lost: it may be written. The same id sent again tells. */
export class OutcomeUnknown extends Error {
  constructor(cause: unknown) {
    super('Whether it was written is not known.', { cause });
    this.name = 'OutcomeUnknown';
  }
}

const AWAY_CODES = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ENOTFOUND',
  'EHOSTUNREACH',
  'ETIMEDOUT',
  // A statement past its deadline, a lock not given in time, a ring of waiters: the same call may succeed later.
  '57014',
  '55P03',
  '40001',
  '40P01',
  // A transaction ended because its session stood idle.
  '25P03',
  // Corrupted or unreadable storage.
  '58000',
  '58030',
]);
/** Classes of SQLSTATE: connection failures, resources used up (a full disk), a server that shuts down or starts. */
const AWAY_CLASSES = /^(08|53|57P)/;

/** Whether an error means that PostgreSQL is away or overrun, and not that a query was wrong. */
export function isAway(error: unknown): boolean {
  if (error instanceof DatabaseAway) return true;
  if (!(error instanceof Error)) return false;
  const code = (error as { code?: string }).code;
  if (code !== undefined && (AWAY_CODES.has(code) || AWAY_CLASSES.test(code))) return true;
  if (error instanceof AggregateError) return error.errors.some(isAway);
  return /Connection terminated|Connection ended|not queryable|Client was closed|timeout exceeded when trying to connect|Cannot use a pool after/.test(
    error.message,
  );
}

/** Longest a call may take, from asking for a connection to its answer, before it is rolled back: so a 503 comes within 3 s. */
export const AWAY_AFTER_MS = 2500;
/** Longest a call waits for a connection while others hold them all. */
const CONNECT_MS = 2000;
/** Longest one statement waits for a lock that somebody else holds. */
const LOCK_MS = 2000;
/** The same for administration, which may wait for the kitchen's own work. */
const ADMIN_LOCK_MS = 60_000;
/** A session of ours that stands idle inside a transaction is ended: only a server that was stopped leaves one. */
const IDLE_IN_TRANSACTION_MS = 10_000;
/** What a rollback, or a commit whose answer is late, is given beyond the deadline. */
const GRACE_MS = 400;

/** What has been turned away, since the start. */
export interface Counts {
  /** Calls that found no connection in time. */
  busy: number;
  /** Calls that were rolled back at their deadline. */
  late: number;
  /** Commits whose answer was lost. */
  unknown: number;
  /** Calls that wait for a connection now. */
  waiting: number;
}

/** SQL with its parameters, which are `$1` and so on. */
export interface Statement {
  text: string;
  values?: unknown[];
}

interface Opts {
  /** Longest it may take, ms. */
  patience_ms?: number;
  /** Nothing is written: the answer need not wait for the end of the transaction. */
  reads?: boolean;
}

/** Every way into the database. Nothing else holds a connection. */
export interface Database {
  /** A transaction that sees one kitchen's rows and no other's. */
  inKitchen<T>(kitchenId: string, work: (trx: Trx) => Promise<T>, opts?: Opts): Promise<T>;
  /** A transaction outside every kitchen: accounts, sessions, memberships, invitations. */
  outside<T>(work: (trx: Trx) => Promise<T>, opts?: Opts): Promise<T>;
  /** A transaction whose first statement is sent along with its beginning, in one journey. */
  beginningWith<T>(
    first: Statement,
    work: (trx: Trx, rows: Record<string, unknown>[]) => Promise<T>,
    opts?: Opts,
  ): Promise<T>;
  /** One statement by itself, committed whatever becomes of the caller. */
  alone(statement: Statement): Promise<{ rows: Record<string, unknown>[]; rowCount: number | null }>;
  counts(): Counts;
  close(): Promise<void>;
}

/** Lets the transaction see one kitchen, for its own length only. */
const entering = (kitchenId: string): Statement => ({
  text: "select set_config('app.kitchen_id', $1, true)",
  values: [kitchenId],
});

/** Lets the transaction see one kitchen, for its own length only. */
export async function enterKitchen(trx: Trx, kitchenId: string): Promise<void> {
  await trx.raw("select set_config('app.kitchen_id', ?, true)", [kitchenId]);
}

/** Builds SQL and nothing else: it holds no connection. Errors do not carry the values of a query. */
const builder = knexModule({ client: 'pg', compileSqlOnError: false }).client as Knex.Client;

/** A statement said so often is prepared on each connection that says it: PostgreSQL then reads and plans it once. */
const PREPARED_FROM = 4;
/** Most statements that are prepared, and most that are counted: lists of ids make many that are said once. */
const MOST_PREPARED = 250;
const MOST_COUNTED = 2000;
const names = new Map<string, string>();
const said = new Map<string, number>();

function prepared(statement: Statement): pg.QueryConfig {
  const { text, values } = statement;
  const name = names.get(text);
  if (name !== undefined) return { name, text, values: values as unknown[] };
  if (names.size < MOST_PREPARED) {
    const times = (said.get(text) ?? 0) + 1;
    if (said.size >= MOST_COUNTED) said.clear();
    said.set(text, times);
    if (times >= PREPARED_FROM) {
      names.set(text, `s${names.size}`);
      said.delete(text);
    }
  }
  return { text, values: values as unknown[] };
}

/** SQLSTATE of a prepared statement whose tables have changed since: its connection is thrown away. */
export const PLAN_IS_STALE = '0A000';

interface Turn {
  open: boolean;
}

/** Knex on one connection for one transaction: what was built in it does not run after its end. */
function bind(connection: pg.PoolClient, turn: Turn): Trx {
  const client = Object.create(builder, {
    acquireConnection: { value: async () => connection },
    releaseConnection: { value: async () => undefined },
    _query: {
      value: async (on: pg.PoolClient, query: { sql: string; bindings?: unknown[]; response?: unknown }) => {
        if (!turn.open) throw new DatabaseAway('the transaction is over', 'busy');
        query.response = await on.query(prepared({ text: query.sql, values: query.bindings ?? [] }));
        return query;
      },
    },
  }) as { queryBuilder(): { table(name: unknown): unknown }; raw(...args: unknown[]): unknown };
  const trx = (table: unknown): unknown => client.queryBuilder().table(table);
  const together = async (queries: readonly Knex.QueryBuilder[]): Promise<Unread[][]> => {
    if (!turn.open) throw new DatabaseAway('the transaction is over', 'busy');
    const sent = queries.map(query => {
      const { sql, bindings } = query.toSQL().toNative();
      return connection.query<Record<string, unknown>>(prepared({ text: sql, values: [...bindings] }));
    });
    return (await Promise.all(sent)).map(answer => answer.rows);
  };
  return Object.assign(trx, {
    raw: (...args: unknown[]) => client.raw(...args),
    together,
  }) as unknown as Trx;
}

/** A promise that is given only so long. */
async function within<T>(ms: number, work: Promise<T>): Promise<T> {
  let timer: NodeJS.Timeout | undefined;
  const late = new Promise<never>((_, reject) => {
    timer = setTimeout(() => reject(new DatabaseAway(`no answer within ${ms} ms`)), ms);
  });
  work.catch(() => undefined);
  return Promise.race([work, late]).finally(() => clearTimeout(timer));
}

/**
 * Opens the pool for the application's role. Deadlines stand in PostgreSQL, on each connection: a statement, a lock and
 * an idle transaction are ended there, whatever becomes of us.
 *
 * @param url  postgres:// of a role that owns no table
 * @param patience_ms  longest one call may take; administration takes its time
 */
export function openDatabase(url: string, poolMax = 10, patience_ms = AWAY_AFTER_MS): Database {
  const config: pg.PoolConfig & { pipeline: boolean } = {
    connectionString: url,
    application_name: 'cocotte',
    pipeline: true,
    statement_timeout: patience_ms,
    lock_timeout: Math.min(patience_ms > AWAY_AFTER_MS ? ADMIN_LOCK_MS : LOCK_MS, patience_ms),
    idle_in_transaction_session_timeout: Math.max(IDLE_IN_TRANSACTION_MS, patience_ms),
  };
  const pool = new pg.Pool({
    ...config,
    max: poolMax,
    connectionTimeoutMillis: CONNECT_MS,
    idleTimeoutMillis: 30_000,
  });
  // An error of a connection reaches whoever uses it; one that nobody uses is dropped from the pool.
  pool.on('error', () => undefined);
  pool.on('connect', client => client.on('error', () => undefined));
  const counts = { busy: 0, late: 0, unknown: 0 };

  /** Stops what a connection is doing, through another one. */
  const cancel = async (connection: pg.PoolClient): Promise<void> => {
    const { processID } = connection as unknown as { processID: number };
    const other = new pg.Client({ ...config, connectionTimeoutMillis: GRACE_MS });
    other.on('error', () => undefined);
    await other.connect();
    await other.query('select pg_cancel_backend($1)', [processID]).finally(() => other.end());
  };

  const acquire = async (): Promise<pg.PoolClient> => {
    try {
      return await pool.connect();
    } catch (error) {
      if (!(error instanceof Error && /timeout exceeded when trying to connect/.test(error.message)))
        throw isAway(error) ? new DatabaseAway(error) : error;
      counts.busy += 1;
      const full = pool.totalCount >= poolMax;
      log.warn({ waiting: pool.waitingCount, busy: counts.busy, full }, 'no connection in time');
      throw new DatabaseAway(error, full ? 'busy' : 'away');
    }
  };

  const run = async <T>(
    first: Statement | null,
    work: (trx: Trx, rows: Record<string, unknown>[]) => Promise<T>,
    opts: Opts = {},
  ): Promise<T> => {
    const mine_ms = opts.patience_ms ?? patience_ms;
    const until = performance.now() + mine_ms;
    // Work that may take longer than a call usually does brings its own deadlines along.
    const beginning =
      (opts.reads ? 'begin read only' : 'begin') +
      (mine_ms > patience_ms
        ? ['statement_timeout', 'lock_timeout', 'idle_in_transaction_session_timeout']
            .map(name => `; set local ${name} = ${mine_ms}`)
            .join('')
        : '');
    const connection = await acquire();
    const turn: Turn = { open: true };
    let committing = false;
    let late = false;
    let given = false;
    // A connection goes back only when its transaction ended cleanly; else it is thrown away.
    const giveBack = (clean: boolean) => {
      turn.open = false;
      if (!given) connection.release(!clean);
      given = true;
    };
    const rollback = async (clean: boolean) => {
      turn.open = false;
      try {
        await within(GRACE_MS, connection.query('rollback'));
        giveBack(clean);
      } catch {
        giveBack(false);
      }
    };
    const commit = async () => {
      turn.open = false;
      committing = true;
      try {
        const left_ms = Math.max(0, until - performance.now()) + GRACE_MS;
        const answer = await within(left_ms, connection.query('commit'));
        // A transaction in which a statement failed answers a commit with a rollback, and no error.
        if (answer.command !== 'COMMIT')
          throw Object.assign(new Error('The transaction had failed.'), { severity: 'ERROR' });
        giveBack(true);
      } catch (error) {
        giveBack(false);
        // Only an error that the server itself sent in answer says that nothing was written.
        if ((error as { severity?: string }).severity === 'ERROR') throw error;
        throw new OutcomeUnknown(error);
      }
    };
    const attempt = async (): Promise<T> => {
      let value: T;
      try {
        // Both are sent before either is answered.
        const [, begun] = await Promise.all([
          connection.query(beginning),
          first === null ? null : connection.query<Record<string, unknown>>(prepared(first)),
        ]);
        value = await work(bind(connection, turn), begun?.rows ?? []);
        if (late) throw new DatabaseAway('past its deadline', 'busy');
      } catch (error) {
        const overrun = late || isOverrun(error);
        if (overrun && !given) counts.late += 1;
        await rollback((error as { code?: string })?.code !== PLAN_IS_STALE);
        throw overrun || isAway(error) ? asAway(error, overrun) : error;
      }
      if (!opts.reads) {
        await commit();
        return value;
      }
      // What was only read is answered at once; the end of its transaction is nobody's concern but the connection's.
      commit().catch(() => undefined);
      return value;
    };
    let timer: NodeJS.Timeout | undefined;
    const overdue = new Promise<never>((_, reject) => {
      const end = () => {
        if (given || committing) return;
        // It does not end: the connection is cut. Without a commit PostgreSQL rolls it back.
        counts.late += 1;
        giveBack(false);
        reject(new DatabaseAway('no answer in time'));
      };
      const stop = () => {
        if (given || committing) return;
        late = true;
        turn.open = false;
        cancel(connection).catch(() => undefined);
        timer = setTimeout(end, GRACE_MS);
      };
      timer = setTimeout(stop, Math.max(0, until - performance.now()));
    });
    const whole = attempt();
    whole.catch(() => undefined);
    try {
      return await Promise.race([whole, overdue]);
    } catch (error) {
      if (error instanceof OutcomeUnknown) counts.unknown += 1;
      throw error;
    } finally {
      clearTimeout(timer);
    }
  };

  return {
    outside: (work, opts) => run(null, work, opts),
    inKitchen: (kitchenId, work, opts) => run(entering(kitchenId), work, opts),
    beginningWith: run,
    async alone(statement) {
      const connection = await acquire();
      try {
        const answer = await within(
          patience_ms,
          connection.query(statement.text, statement.values as unknown[]),
        );
        connection.release();
        return { rows: answer.rows, rowCount: answer.rowCount };
      } catch (error) {
        connection.release(true);
        throw isAway(error) ? asAway(error, false) : error;
      }
    },
    counts: () => ({ ...counts, waiting: pool.waitingCount }),
    close: () => pool.end(),
  };
}

/** A statement or a wait for a lock that PostgreSQL itself ended at its deadline. */
const isOverrun = (error: unknown) => ['57014', '55P03'].includes(String((error as { code?: string })?.code));

function asAway(error: unknown, overrun: boolean): DatabaseAway {
  return error instanceof DatabaseAway ? error : new DatabaseAway(error, overrun ? 'busy' : 'away');
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
      exists (
        select 1 from pg_class c join pg_namespace n on n.oid = c.relnamespace
        where n.nspname = 'public' and c.relkind = 'r' and pg_get_userbyid(c.relowner) = current_user
      ) as owns
    from pg_roles where rolname = current_user`),
  );
  const row = result.rows[0] as { unsafe: boolean; owns: boolean } | undefined;
  if (!row || row.unsafe || row.owns) {
    throw new Error(
      'DATABASE_URL names a role that owns the tables or passes by row security; name a plain role there and the owner in MIGRATION_DATABASE_URL.',
    );
  }
}
