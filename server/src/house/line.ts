import { retryable } from './problems.ts';

/** Longest a call stands in line before it is asked to come again. */
const PATIENCE_MS = 2000;

/** The end of each kitchen's line. */
const lines = new Map<string, Promise<void>>();

/**
 * Does what writes to one kitchen's record one call after the other. PostgreSQL would have them wait for the head's
 * lock; but each would hold a connection meanwhile, and a busy kitchen would leave none for those who only read. Calls
 * of other servers meet at the lock, as ever.
 *
 * @throws HttpProblem 503 after standing in line too long
 */
export async function inLine<T>(kitchenId: string, work: () => Promise<T>): Promise<T> {
  const before = lines.get(kitchenId) ?? Promise.resolve();
  let done: () => void = () => undefined;
  const mine = new Promise<void>(resolve => {
    done = resolve;
  });
  const end = before.then(() => mine);
  lines.set(kitchenId, end);
  void end.then(() => lines.get(kitchenId) === end && lines.delete(kitchenId));
  let timer: NodeJS.Timeout | undefined;
  const tired = new Promise<boolean>(resolve => {
    timer = setTimeout(() => resolve(true), PATIENCE_MS);
  });
  try {
    if (await Promise.race([before.then(() => false), tired]))
      throw retryable({
        code: 'busy',
        what: 'The kitchen has too much to do just now.',
        why: 'Others write to its record, one after the other.',
        next: 'Nothing was written. The same call sent again in a moment will do.',
      });
    return await work();
  } finally {
    clearTimeout(timer);
    done();
  }
}
