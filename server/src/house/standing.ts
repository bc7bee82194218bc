import pg from 'pg';
import { log } from './log.ts';

/** The advisory lock that says a server works on this database. Servers share it; whoever replaces the database wants it alone. */
export const PRESENCE_LOCK = 4_600_002;
const AGAIN_MS = 500;
/** Words said within this time go in one journey, each once. */
const GATHER_MS = 15;

/** The one connection a server holds outside its pool: by it the server is known to be there, and hears other servers. */
export interface Standing {
  /** Hears what other servers say on a channel. */
  listen(channel: string, hear: (word: string) => void): void;
  /** Says a word to every server. It may be lost: nobody waits for it. */
  say(channel: string, word: string): void;
  /** Is called when the connection was lost and stands again. */
  onBack(hear: () => void): void;
  /** Lets go of it. */
  leave(): Promise<void>;
}

/**
 * Holds the presence lock for as long as the server runs, on a connection of its own; takes it again when that is lost. A
 * server that is idle is seen by it too.
 */
export function holdStanding(url: string): Standing {
  const ears = new Map<string, (word: string) => void>();
  const back: (() => void)[] = [];
  const unsaid = new Set<string>();
  let over = false;
  let client: pg.Client | null = null;
  let stands = false;
  let timer: NodeJS.Timeout | undefined;
  let gathering: NodeJS.Timeout | undefined;

  const hold = async (before: boolean): Promise<void> => {
    const mine = new pg.Client({
      connectionString: url,
      application_name: 'cocotte server',
      connectionTimeoutMillis: 2000,
      keepAlive: true,
    });
    client = mine;
    let lost = false;
    const again = () => {
      stands = false;
      if (over || lost) return;
      lost = true;
      timer = setTimeout(() => void hold(true), AGAIN_MS);
    };
    mine.on('error', again);
    mine.on('end', again);
    mine.on('notification', ({ channel, payload = '', processId }) => {
      if (processId !== (mine as unknown as { processID: number }).processID) ears.get(channel)?.(payload);
    });
    try {
      await mine.connect();
      // A word is said, not kept: its transaction need not wait for the disk.
      await mine.query('set synchronous_commit = off');
      await mine.query('select pg_advisory_lock_shared($1)', [PRESENCE_LOCK]);
      for (const channel of ears.keys()) await mine.query(`listen ${pg.escapeIdentifier(channel)}`);
      stands = true;
      if (before) for (const hear of back) hear();
    } catch (error) {
      log.warn({ error: (error as Error).message }, 'the database does not know of this server yet');
      mine.end().catch(() => undefined);
      again();
    }
  };

  const speak = (): void => {
    gathering = undefined;
    const words = [...unsaid].map(w => JSON.parse(w) as [channel: string, word: string]);
    unsaid.clear();
    if (!stands || words.length === 0) return;
    client
      ?.query('select pg_notify(c, w) from unnest($1::text[], $2::text[]) as said (c, w)', [
        words.map(([channel]) => channel),
        words.map(([, word]) => word),
      ])
      .catch(() => undefined);
  };

  // Whoever made it says first what they want to hear.
  const first = Promise.resolve().then(() => hold(false));
  return {
    listen: (channel, hear) => void ears.set(channel, hear),
    say(channel, word) {
      unsaid.add(JSON.stringify([channel, word]));
      gathering ??= setTimeout(speak, GATHER_MS);
    },
    onBack: hear => void back.push(hear),
    async leave() {
      over = true;
      clearTimeout(timer);
      clearTimeout(gathering);
      await first;
      await client?.end().catch(() => undefined);
    },
  };
}
