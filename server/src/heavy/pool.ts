import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import pLimit from 'p-limit';
import { Piscina } from 'piscina';
import { retryable } from '../house/problems.ts';
import type { Tasks } from './tasks.ts';

/**
 * Work that would hold up every other call: drawing papers, reading large imports. It is done in worker threads of
 * their own, from plain data and to plain data; they hold no connection and know no kitchen.
 */
const THREADS = 2;
/** Tasks that wait at most; whoever comes later is asked to come again. */
const QUEUE = 24;
/** A second thread that has had nothing to do for so long ends, and its memory with it; the first one stays ready. */
const IDLE_MS = 20_000;
/** Longest a call may take that waits for a thread: one may have to start, and have others' work before it. */
export const THREAD_PATIENCE_MS = 15_000;

/** The built worker: beside the bundle this runs in, or where a build left it. */
function workerFile(): string {
  const places = ['./heavy.mjs', '../heavy.mjs', '../server/heavy.mjs', '../../../dist/server/heavy.mjs'];
  const found = places.map(p => fileURLToPath(new URL(p, import.meta.url))).find(existsSync);
  if (!found) throw new Error('The worker is not built; run npm run build.');
  return found;
}

let pool: Piscina | null = null;
const opened = (): Piscina =>
  (pool ??= new Piscina({
    filename: workerFile(),
    minThreads: 1,
    maxThreads: THREADS,
    maxQueue: QUEUE,
    idleTimeout: IDLE_MS,
    resourceLimits: { maxOldGenerationSizeMb: 160, maxYoungGenerationSizeMb: 16 },
  }));

/** Starts the first thread before anybody waits for it. */
export function warmHeavy(): void {
  opened();
}

/**
 * Does a task in a worker thread.
 *
 * @param data  what crosses over: plain data, copied
 * @throws HttpProblem 503 when too many tasks wait; what the task itself throws comes over as an Error of its kind
 */
export async function heavy<K extends keyof Tasks>(
  task: K,
  data: Parameters<Tasks[K]>[0],
): Promise<Awaited<ReturnType<Tasks[K]>>> {
  try {
    return (await opened().run({ task, data })) as Awaited<ReturnType<Tasks[K]>>;
  } catch (error) {
    if (error instanceof Error && /queue is at limit/i.test(error.message)) throw tooMany();
    throw error;
  }
}

function tooMany() {
  return retryable({
    code: 'busy',
    what: 'Too many papers and files are being made just now.',
    why: 'They are made one after the other, so that the kitchen goes on meanwhile.',
    next: 'Try again in a moment.',
  });
}

/** Papers are read and drawn one after the other: so many read at once would hold up the other calls by their reading. */
const oneByOne = pLimit(1);

/**
 * Does what makes a paper when its turn has come, from reading on.
 *
 * @throws HttpProblem 503 when too many wait
 */
export async function inTurn<T>(work: () => Promise<T>): Promise<T> {
  if (oneByOne.pendingCount >= QUEUE) throw tooMany();
  return oneByOne(work);
}

/** Ends the threads. */
export async function closeHeavy(): Promise<void> {
  const ending = pool;
  pool = null;
  await ending?.destroy();
}
