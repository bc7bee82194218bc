import pg from 'pg';
import { log } from './log.ts';

/** The advisory lock that says a server works on this database. Servers share it; whoever replaces the database wants it alone. */
export const PRESENCE_LOCK = 4_600_002;
const AGAIN_MS = 500;

/**
 * Holds the lock for as long as the server runs, on a connection of its own; takes it again when that is lost. A server
 * that is idle is seen by it too.
 *
 * @returns lets go of it
 */
export function holdPresence(url: string): () => Promise<void> {
  let over = false;
  let client: pg.Client | null = null;
  let timer: NodeJS.Timeout | undefined;
  const hold = async (): Promise<void> => {
    const mine = new pg.Client({
      connectionString: url,
      application_name: 'cocotte server',
      connectionTimeoutMillis: 2000,
      keepAlive: true,
    });
    client = mine;
    let lost = false;
    const again = () => {
      if (over || lost) return;
      lost = true;
      timer = setTimeout(() => void hold(), AGAIN_MS);
    };
    mine.on('error', again);
    mine.on('end', again);
    try {
      await mine.connect();
      await mine.query('select pg_advisory_lock_shared($1)', [PRESENCE_LOCK]);
    } catch (error) {
      log.warn({ error: (error as Error).message }, 'the database does not know of this server yet');
      mine.end().catch(() => undefined);
      again();
    }
  };
  const first = hold();
  return async () => {
    over = true;
    clearTimeout(timer);
    await first;
    await client?.end().catch(() => undefined);
  };
}
