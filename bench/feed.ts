import { readFileSync } from 'node:fs';
import { performance } from 'node:perf_hooks';
import { Device } from '@cocotte/testing/device';
import { Listener } from '@cocotte/testing/listener';
import { type Kitchen, serve } from './kitchens.ts';
import { ask, inside } from './load.ts';
import { ms, percentile, ratio, say, tiny } from './say.ts';

const LISTENING = tiny ? 10 : 100;
const OPEN = tiny ? 20 : 200;
const ROUNDS = tiny ? 3 : 40;

const rss_MB = (pid: number | undefined) =>
  Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1]) / 1024;

/** How long an entry takes to every device that follows the kitchen, and what open streams cost the server. */
export async function feeds(kitchen: Kitchen): Promise<void> {
  const server = await serve(kitchen);
  const device = new Device(kitchen.personId, Date.now());
  const follow = (n: number) =>
    Promise.all(
      Array.from({ length: n }, () =>
        Listener.open(
          `http://127.0.0.1:${server.port}${inside(kitchen, '/feed')}`,
          `cocotte_session=${kitchen.token}`,
        ),
      ),
    );
  const far = (l: Listener) => l.told.at(-1)?.seq ?? -1;
  /** From the tap's call to the last who hears of it, ms; how long its own answer took. */
  const round = async (listeners: Listener[]): Promise<{ heard: number; answered: number }> => {
    const before = Math.max(...listeners.map(far));
    const began = performance.now();
    const fact = device.fact(Date.now(), 'note.written', { text: 'x' });
    const hearing = Promise.all(listeners.map(l => l.until(m => far(m) > before))).then(
      () => performance.now() - began,
    );
    const told = await ask(
      server.port,
      kitchen.token,
      inside(kitchen, `/batches/${kitchen.batchId}/events`),
      JSON.stringify({ events: [fact] }),
    );
    if (told.status !== 200) throw new Error(`an entry was answered ${told.status}`);
    return { heard: await hearing, answered: told.took_ms };
  };
  const rest_MB = rss_MB(server.child.pid);
  const open = await follow(OPEN);
  await Promise.all(open.map(l => l.until(m => m.told.length > 0)));
  const with_MB = rss_MB(server.child.pid);
  for (const l of open.splice(LISTENING)) l.stop();
  const one = open.slice(0, 1);
  await round(open);
  const few: number[] = [];
  const many: number[] = [];
  const answers: number[] = [];
  for (let i = 0; i < ROUNDS; i++) {
    few.push((await round(one)).heard);
    await Promise.all(open.map(l => l.until(m => far(m) >= far(one[0] as Listener))));
    const { heard, answered } = await round(open);
    many.push(heard);
    answers.push(answered);
  }
  for (const l of open) l.stop();
  await server.stop();
  say(
    `\nAn entry to ${LISTENING} devices that listen: p95 ${ms(percentile(many, 0.95))}, median ${ms(percentile(many, 0.5))} (target under 500 ms); floor, to one of them: p95 ${ms(percentile(few, 0.95))}, median ${ms(percentile(few, 0.5))}; its own answer: median ${ms(percentile(answers, 0.5))}`,
  );
  ratio(
    `an entry to ${LISTENING} devices over one, medians`,
    percentile(many, 0.5) / percentile(few, 0.5),
    5,
  );
  say(
    `${OPEN} open streams: ${(with_MB - rest_MB).toFixed(0)} MB more (target under 100), at ${with_MB.toFixed(0)} MB in all`,
  );
}
