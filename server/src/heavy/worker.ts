import { move } from 'piscina';
import { TASKS, type Tasks } from './tasks.ts';

/** One task of a worker thread. Bytes are handed over, not copied. */
export default async function run({ task, data }: { task: keyof Tasks; data: never }): Promise<unknown> {
  const done = await (TASKS[task] as (given: never) => unknown)(data);
  return done instanceof Uint8Array ? move(done) : done;
}
