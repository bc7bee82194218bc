import { readFileSync } from 'node:fs';

/** The one source of the present instant. SQL never asks for it. */
export interface Clock {
  /** Milliseconds since the epoch, UTC. */
  now_ms(): number;
}

/** The machine's own clock. */
export const systemClock: Clock = { now_ms: () => Date.now() };

/**
 * A clock that runs ahead by the milliseconds written in a file, read at each call, so that tests move days and a
 * restart does not lose them. A missing or empty file is no offset.
 */
export function fileClock(path: string): Clock {
  return {
    now_ms() {
      let offset = 0;
      try {
        offset = Number(readFileSync(path, 'utf8').trim() || '0');
      } catch {
        offset = 0;
      }
      return Date.now() + (Number.isFinite(offset) ? offset : 0);
    },
  };
}

/**
 * The clock named by the environment. The test clock is refused on any but the private cluster: a kitchen's record
 * must not be dated by a file.
 *
 * @throws Error when a test clock is named together with a database of somebody else's
 */
export function clockFromEnvironment(env: NodeJS.ProcessEnv): Clock {
  const path = env.COCOTTE_TEST_CLOCK_FILE;
  if (!path) return systemClock;
  if (env.COCOTTE_PRIVATE_CLUSTER !== 'yes')
    throw new Error('A test clock is refused: this database is not the private cluster.');
  return fileClock(path);
}
