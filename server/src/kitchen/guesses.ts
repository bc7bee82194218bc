import { createHash } from 'node:crypto';
import { type RateLimiterAbstract, RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible';
import type { Database } from '../house/database.ts';
import { problem } from '../house/problems.ts';

/**
 * How often a password may be tried. Counted in PostgreSQL, before the password is looked at, so that guesses made at
 * once, on however many servers, are counted one by one.
 */
export const LIMITS = {
  /** One account from one address. */
  minute: { points: 3, duration_s: 60 },
  day: { points: 20, duration_s: 86_400 },
  /** One address over all accounts. */
  address: { points: 30, duration_s: 900 },
  /** All addresses over all accounts. */
  all: { points: 300, duration_s: 900 },
  /** One account on a device on which somebody signed in to it before: counted by itself, whatever others do. */
  device: { points: 10, duration_s: 900 },
} as const;
type Limit = keyof typeof LIMITS;

/** Where a guess comes from, and at whom it is made. */
export interface Guess {
  email: string;
  address: string;
  /** The device's secret, where it is one that this account knows. */
  knownDevice: string | null;
}

/** Emails that nobody has do not stand in the table either. */
const keyOf = (...of: string[]) => createHash('sha256').update(JSON.stringify(of)).digest('hex');

function keysOf(guess: Guess): [limit: Limit, key: string][] {
  const email = guess.email.toLowerCase();
  if (guess.knownDevice) return [['device', keyOf(email, guess.knownDevice)]];
  const pair = keyOf(email, guess.address);
  return [
    ['minute', pair],
    ['day', pair],
    ['address', keyOf(guess.address)],
    ['all', 'all'],
  ];
}

/** Counts guesses before a password is weighed. */
export interface Guesses {
  /**
   * Counts a guess.
   *
   * @throws HttpProblem 429 with the seconds to wait, when there were too many
   */
  count(guess: Guess): Promise<void>;
  /** Takes back the one count of a guess that was right. What was guessed before, and for others, stays counted. */
  takeBack(guess: Guess): Promise<void>;
}

/** The counts of one database, shared by every server on it. */
export function guessesIn(database: Pick<Database, 'alone'>): Guesses {
  const storeClient = {
    query: (statement: { text: string; values?: unknown[] }) => database.alone(statement),
  };
  const limiters = new Map<Limit, RateLimiterAbstract>();
  for (const [name, { points, duration_s }] of Object.entries(LIMITS))
    limiters.set(
      name as Limit,
      new RateLimiterPostgres({
        storeClient,
        storeType: 'client',
        tableName: 'sign_in_counts',
        tableCreated: true,
        clearExpiredByTimeout: name === 'all',
        keyPrefix: name,
        points,
        duration: duration_s,
      }),
    );
  const of = (name: Limit) => limiters.get(name) as RateLimiterAbstract;
  return {
    async count(guess) {
      for (const [name, key] of keysOf(guess)) {
        try {
          await of(name).consume(key);
        } catch (error) {
          if (error instanceof RateLimiterRes) throw tooMany(error.msBeforeNext);
          throw error;
        }
      }
    },
    async takeBack(guess) {
      for (const [name, key] of keysOf(guess)) await of(name).reward(key);
    },
  };
}

function tooMany(wait_ms: number) {
  const wait_s = Math.max(1, Math.ceil(wait_ms / 1000));
  const words = wait_s < 120 ? `${wait_s} s` : `${Math.ceil(wait_s / 60)} minutes`;
  return Object.assign(
    problem(429, {
      code: 'slow-down',
      what: `Too many tries: wait ${words}.`,
      why: 'Guessing is made slow.',
      next: 'Wait, then try again. A device on which you signed in before is not held up by what others try.',
      path: 'password',
    }),
    { retry_s: wait_s },
  );
}
