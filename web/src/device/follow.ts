import { type Moved, feed, readEvents } from '@cocotte/contract';
import { createParser } from 'eventsource-parser';
import { CallError, addressOf, call } from '../shell/call.ts';

/** Silence for so long means that the stream is dead: it shows that it lives every 20 s. */
const SILENT_MS = 50_000;
/** A stream that says nothing at first is held up on its way: then it is asked every few seconds instead. */
const FIRST_WORD_MS = 6000;
const POLL_MS = 5000;
/** After so long of asking the stream is tried again. */
const POLL_FOR_MS = 120_000;
const PAUSE_MS = { first: 400, longest: 5000 };
const NOTHING_AFTER = '999999999999999';

export interface FollowOpts {
  kitchenId: string;
  /** Name of the lock that lets one tab of a browser follow; null where each does so by itself. */
  lock: string | null;
  /** The kitchen has come so far. */
  onMoved: (moved: Moved) => Promise<void>;
  /** Whether the kitchen answers. */
  onReach: (reached: boolean) => void;
  /** The server says that nobody is signed in here, or not in this kitchen. */
  onDismissed: () => void;
  /** Asks for what is new. */
  look: () => Promise<void>;
}

const sleep = (ms: number, signal: AbortSignal) =>
  new Promise<void>(resolve => {
    const over = () => {
      clearTimeout(timer);
      window.removeEventListener('online', over);
      resolve();
    };
    const timer = setTimeout(over, ms);
    signal.addEventListener('abort', over);
    // Back on the net, nobody waits any longer.
    window.addEventListener('online', over);
  });

/** Nobody is signed in, or not in this kitchen: there is nothing to follow until somebody is. */
class Dismissed extends Error {}

/**
 * Follows a kitchen: by its stream, and where that cannot live, by asking every few seconds. Of a browser's tabs the one
 * that is looked at leads, and takes the lead from one that may be asleep.
 *
 * @returns ways to ask at once, and to end it
 */
export function follow(opts: FollowOpts): { look: () => void; stop: () => void } {
  const ended = new AbortController();
  let leading: AbortController | null = null;
  let wake: () => void = () => undefined;
  const { signal } = ended;

  const lead = async (): Promise<void> => {
    const mine = new AbortController();
    leading = mine;
    signal.addEventListener('abort', () => mine.abort());
    try {
      await run(opts, mine.signal);
    } finally {
      if (leading === mine) leading = null;
    }
  };

  const compete = async (name: string): Promise<void> => {
    let steal = document.visibilityState === 'visible';
    while (!signal.aborted) {
      const inLine = new AbortController();
      wake = () => inLine.abort();
      try {
        // oxlint-disable-next-line no-await-in-loop -- one after the other is what is meant
        await navigator.locks.request(name, steal ? { steal } : { signal: inLine.signal }, lead);
      } catch {
        // Another tab took the lead, or this one is looked at now and takes it.
        (leading as AbortController | null)?.abort();
      }
      steal = inLine.signal.aborted;
    }
  };

  const onVisible = () => {
    if (document.visibilityState === 'visible' && !leading) wake();
  };
  document.addEventListener('visibilitychange', onVisible);
  const { lock } = opts;
  // Web Locks need a protected page; without them each tab asks for itself, since a browser has few streams to give.
  if (lock !== null && navigator.locks) void compete(lock);
  else void poll(opts, signal, Infinity).catch(() => undefined);
  return {
    look: () => {
      if (leading || lock === null || !navigator.locks) opts.look().catch(() => undefined);
    },
    stop: () => {
      ended.abort();
      wake();
      document.removeEventListener('visibilitychange', onVisible);
    },
  };
}

/** Follows until it is told to stop, or is dismissed. */
async function run(opts: FollowOpts, signal: AbortSignal): Promise<void> {
  opts.look().catch(() => undefined);
  let pause_ms = PAUSE_MS.first;
  while (!signal.aborted) {
    let heard = false;
    try {
      const how = await listen(opts, signal, () => {
        heard = true;
      });
      if (how === 'ended') opts.onReach(false);
      if (how === 'held up') await poll(opts, signal, performance.now() + POLL_FOR_MS);
    } catch (error) {
      if (error instanceof Dismissed) {
        // Whoever reads the session finds out why; meanwhile it is asked seldom.
        pause_ms = PAUSE_MS.longest * 4;
        opts.onDismissed();
      }
    }
    if (heard) pause_ms = PAUSE_MS.first;
    await sleep(pause_ms, signal);
    pause_ms = Math.min(PAUSE_MS.longest, pause_ms * 1.7);
  }
}

/** Reads the stream to its end. */
async function listen(
  opts: FollowOpts,
  signal: AbortSignal,
  onWord: () => void,
): Promise<'ended' | 'held up'> {
  const stopping = new AbortController();
  const stop = () => stopping.abort();
  signal.addEventListener('abort', stop);
  // The device says itself that it is off the net: a stream may take long to find out.
  window.addEventListener('offline', stop);
  let spoken = false;
  let watch = setTimeout(stop, FIRST_WORD_MS);
  try {
    const response = await fetch(addressOf(feed, {}, {}, opts.kitchenId), {
      credentials: 'same-origin',
      signal: stopping.signal,
    });
    if (response.status === 401 || response.status === 403) throw new Dismissed();
    if (!response.ok || !response.body) return 'ended';
    if (!response.headers.get('content-type')?.startsWith('text/event-stream')) return 'held up';
    const parser = createParser({
      onEvent: ({ data }) => void opts.onMoved(JSON.parse(data) as Moved).catch(() => undefined),
    });
    const reader = response.body.pipeThrough(new TextDecoderStream()).getReader();
    for (;;) {
      const { done, value } = await reader.read();
      if (done) return 'ended';
      spoken = true;
      opts.onReach(true);
      onWord();
      clearTimeout(watch);
      watch = setTimeout(stop, SILENT_MS);
      parser.feed(value);
    }
  } catch (error) {
    if (error instanceof Dismissed) throw error;
    return !spoken && stopping.signal.aborted && !signal.aborted && navigator.onLine !== false
      ? 'held up'
      : 'ended';
  } finally {
    clearTimeout(watch);
    signal.removeEventListener('abort', stop);
    window.removeEventListener('offline', stop);
    stop();
  }
}

/** Asks every few seconds, until a moment of the monotonic clock. */
async function poll(opts: FollowOpts, signal: AbortSignal, until: number): Promise<void> {
  while (!signal.aborted && performance.now() < until) {
    try {
      const { moved } = await call(readEvents, {
        query: { after: NOTHING_AFTER },
        kitchenId: opts.kitchenId,
      });
      opts.onReach(true);
      await opts.onMoved(moved);
    } catch (error) {
      opts.onReach(false);
      const dismissed = error instanceof CallError && (error.status === 401 || error.status === 403);
      if (dismissed) opts.onDismissed();
      if (dismissed && Number.isFinite(until)) throw new Dismissed();
    }
    await sleep(POLL_MS, signal);
  }
}
