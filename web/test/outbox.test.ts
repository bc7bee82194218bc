import 'fake-indexeddb/auto';
import type { FactEntry } from '@cocotte/contract';
import { IDBFactory } from 'fake-indexeddb';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { standInStorage } from './browser.ts';

type DeviceCount = Parameters<Parameters<Outbox['add']>[2][number]>[0];
type Outbox = (typeof import('../src/outbox/outbox.ts'))['outbox'];
const ME = ['me'];
const problem = (status: number, code: string) => ({
  status,
  body: { code, errors: [{ path: 'events[0]', code, what: 'Refused.', why: 'So.', next: 'Mend it.' }] },
});

/** Answers of the server, in their order; the last one goes on for ever. */
let answers: ({ status: number; body?: object; refuses?: string[]; later?: string[] } | 'nobody')[] = [];
let sent: { kitchen: string; batch: string; person: string; ids: string[]; body: Record<string, unknown> }[] =
  [];
let outbox: Outbox;

const entry =
  (id: string, personId = 'me') =>
  (device: DeviceCount): FactEntry =>
    ({ id, personId, ...device, type: 'note.written', body: { text: id } }) as unknown as FactEntry;
const waitingIds = () => outbox.view().waiting.map(w => w.entry.id);
const settle = async (done: () => boolean) => {
  for (let i = 0; i < 400 && !done(); i++) await vi.advanceTimersByTimeAsync(50);
  expect(done()).toBe(true);
};

/** A page session of its own: a module that was never loaded before, over the store that is there. */
async function openPage(): Promise<void> {
  vi.resetModules();
  ({ outbox } = await import('../src/outbox/outbox.ts'));
}

beforeEach(async () => {
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });
  standInStorage();
  vi.stubGlobal('indexedDB', new IDBFactory());
  vi.stubGlobal('navigator', {});
  vi.stubGlobal('BroadcastChannel', undefined);
  Reflect.deleteProperty(globalThis, 'BroadcastChannel');
  answers = [];
  sent = [];
  vi.stubGlobal('fetch', (url: string, init: RequestInit) => {
    const body = JSON.parse(String(init.body)) as { events: { id: string }[] };
    const { events } = body;
    const [, , , kitchen = '', , batch = ''] = url.split('/');
    const person = (init.headers as Record<string, string>)['cocotte-person'] ?? '';
    sent.push({ kitchen, batch, person, ids: events.map(e => e.id), body });
    const answer = answers.length > 1 ? answers.shift() : answers[0];
    if (answer === 'nobody') return Promise.reject(new TypeError('failed to fetch'));
    const { status = 200, refuses = [], later = [] } = answer ?? {};
    const kept = {
      answers: events.map(({ id }, i) =>
        refuses.includes(id)
          ? { id, outcome: 'refused', seq: null, faults: problem(422, 'invalid').body.errors }
          : later.includes(id)
            ? { id, outcome: 'later', seq: null, faults: [] }
            : { id, outcome: 'kept', seq: i + 1, faults: [] },
      ),
      lastSeq: events.length,
    };
    return Promise.resolve(new Response(JSON.stringify(answer?.body ?? kept), { status }));
  });
  await openPage();
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

/** Locks of one browser: whoever asks for a name waits for whoever has it. */
function browserLocks() {
  const last = new Map<string, Promise<unknown>>();
  const held = new Map<string, number>();
  let most = 0;
  return {
    most: () => most,
    idle: () => [...held.values()].every(n => n === 0),
    request: (name: string, work: () => Promise<unknown>) => {
      const turn = (last.get(name) ?? Promise.resolve()).then(async () => {
        held.set(name, (held.get(name) ?? 0) + 1);
        most = Math.max(most, held.get(name) ?? 0);
        try {
          return await work();
        } finally {
          held.set(name, (held.get(name) ?? 0) - 1);
        }
      });
      last.set(
        name,
        turn.catch(() => undefined),
      );
      return turn;
    },
  };
}

/** A channel between the tabs of one browser: each hears the others, and not itself. */
class Channel {
  private static readonly open = new Set<Channel>();
  onmessage: ((e: { data: unknown }) => void) | null = null;
  private readonly heard: ((e: { data: unknown }) => void)[] = [];
  constructor(readonly name: string) {
    Channel.open.add(this);
  }
  postMessage(data: unknown): void {
    for (const other of Channel.open)
      if (other !== this && other.name === this.name)
        queueMicrotask(() => {
          other.onmessage?.({ data });
          for (const hear of other.heard) hear({ data });
        });
  }
  addEventListener(_type: string, hear: (e: { data: unknown }) => void): void {
    this.heard.push(hear);
  }
  close(): void {
    Channel.open.delete(this);
  }
}

describe('two tabs of one browser', () => {
  it('deliver one after the other, each entry once; a poison entry and somebody who left hold up neither', async () => {
    const locks = browserLocks();
    vi.stubGlobal('navigator', { locks });
    vi.stubGlobal('BroadcastChannel', Channel);
    await openPage();
    const one = outbox;
    await openPage();
    const other = outbox;
    expect(other).not.toBe(one);
    await one.open(ME, () => undefined);
    // The person was changed in the second tab: what the first one enters still goes in its own name.
    await other.open(['you'], () => undefined);
    answers = [{ status: 200, refuses: ['poison'] }];
    await Promise.all([
      one.add('k', 'b1', [entry('1'), entry('poison'), entry('2')]),
      other.add('k', 'b1', [entry('a', 'you'), entry('b', 'you')]),
      one.add('k', 'b2', [entry('3')]),
      other.add('k2', 'b3', [entry('c', 'you')]),
    ]);
    await settle(() => one.view().waiting.length === 1 && other.view().waiting.length === 0);
    const taken = sent.flatMap(s => s.ids.map(id => [s.kitchen, s.batch, s.person || 'me', id].join(' ')));
    expect([...new Set(taken)].sort()).toEqual(
      [
        'k b1 me 1',
        'k b1 me 2',
        'k b1 me poison',
        'k b2 me 3',
        'k b1 you a',
        'k b1 you b',
        'k2 b3 you c',
      ].sort(),
    );
    await settle(locks.idle);
    await vi.advanceTimersByTimeAsync(1000);
    // One at a time, and none a second time.
    expect(locks.most()).toBe(1);
    expect(taken).toHaveLength(new Set(taken).size);
    expect(one.view().waiting.map(w => [w.entry.id, w.refused?.[0]?.code])).toEqual([['poison', 'invalid']]);
  });
});

describe('the outbox', () => {
  it('delivers what is added, in its order, and lets go of it', async () => {
    const arrived: string[] = [];
    await outbox.open(ME, batch => arrived.push(batch));
    await outbox.add('k', 'b1', [entry('1'), entry('2')]);
    await settle(() => outbox.view().waiting.length === 0);
    expect(sent).toMatchObject([
      { kitchen: 'k', batch: 'b1', ids: ['1', '2'], body: { personId: 'me', kitchenId: 'k' } },
    ]);
    expect(Date.parse(String(sent[0]?.body.sentAt))).toBeCloseTo(Date.now(), -4);
    expect(arrived).toEqual(['b1']);
    expect(outbox.view().sent.map(w => w.entry.id)).toEqual(['1', '2']);
  });

  it('keeps what nobody took, says so, and goes on when somebody is there again', async () => {
    answers = ['nobody', 'nobody', { status: 503, body: { code: 'away', errors: [] } }, { status: 200 }];
    await outbox.open(ME, () => undefined);
    await outbox.add('k', 'b1', [entry('1')]);
    await settle(() => outbox.view().away);
    expect(waitingIds()).toEqual(['1']);
    await settle(() => outbox.view().waiting.length === 0);
    expect(outbox.view().away).toBe(false);
    expect(sent.map(s => s.ids)).toEqual([['1'], ['1'], ['1'], ['1']]);
  });

  it('loses nothing over a reload', async () => {
    answers = ['nobody'];
    await outbox.open(ME, () => undefined);
    await outbox.add('k', 'b1', [entry('1'), entry('2')]);
    await settle(() => outbox.view().away);
    await openPage();
    expect(outbox.view().waiting).toEqual([]);
    answers = [];
    sent = [];
    await outbox.open(ME, () => undefined);
    await settle(() => outbox.view().waiting.length === 0);
    expect(sent.flatMap(s => s.ids)).toEqual(expect.arrayContaining(['1', '2']));
  });

  it('one entry that is refused is marked with its faults and does not hold the others', async () => {
    answers = [{ status: 200, refuses: ['bad'] }];
    await outbox.open(ME, () => undefined);
    await outbox.add('k', 'b1', [entry('good'), entry('bad'), entry('also good')]);
    await settle(() => outbox.view().sent.length === 2 && outbox.view().waiting.length === 1);
    expect(sent).toHaveLength(1);
    expect(outbox.view().waiting.map(w => [w.entry.id, w.refused?.[0]?.code])).toEqual([['bad', 'invalid']]);
    const [bad] = outbox.view().waiting;
    await outbox.discard(bad?.key ?? -1);
    expect(outbox.view().waiting).toEqual([]);
  });

  it('what the server cannot read yet waits for a newer one, and does not hold what was taken', async () => {
    answers = [{ status: 200, later: ['new'] }, { status: 200, later: ['new'] }, { status: 200 }];
    await outbox.open(ME, () => undefined);
    await outbox.add('k', 'b1', [entry('old'), entry('new')]);
    await settle(() => outbox.view().waiting.length === 0);
    expect(sent.map(s => s.ids)).toEqual([['old', 'new'], ['new'], ['new']]);
  });

  it.each([400, 403, 404, 409, 422, 429, 500])(
    'a %i of a whole delivery refuses no entry: it waits, is said, and holds no other batch',
    async status => {
      answers = [problem(status, 'not-now'), { status: 200 }, problem(status, 'not-now'), { status: 200 }];
      await outbox.open(ME, () => undefined);
      await outbox.add('k', 'b1', [entry('1'), entry('2')]);
      await outbox.add('k', 'b2', [entry('3')]);
      await settle(() => outbox.view().stalled.length > 0 || outbox.view().away);
      await settle(() => outbox.view().waiting.length === 0);
      expect(
        outbox
          .view()
          .sent.map(w => w.entry.id)
          .sort(),
      ).toEqual(['1', '2', '3']);
      expect(outbox.view().stalled).toEqual([]);
    },
  );

  it('waits for its person when nobody is signed in any more', async () => {
    answers = [problem(401, 'sign-in')];
    await outbox.open(ME, () => undefined);
    await outbox.add('k', 'b1', [entry('1')]);
    await settle(() => sent.length > 0);
    await vi.advanceTimersByTimeAsync(20_000);
    expect(sent).toHaveLength(1);
    expect(waitingIds()).toEqual(['1']);
    answers = [];
    await outbox.open(ME, () => undefined);
    await settle(() => outbox.view().waiting.length === 0);
  });

  it('sends what this person entered to the kitchen it was entered in; what is others waits for them', async () => {
    await outbox.open(ME, () => undefined);
    await outbox.add('k', 'b1', [entry('mine')]);
    await outbox.add('another kitchen', 'b2', [entry('there')]);
    await settle(() => sent.length === 2 && outbox.view().waiting.length === 0);
    expect(sent.map(s => [s.kitchen, s.person, ...s.ids])).toEqual([
      ['k', 'me', 'mine'],
      ['another%20kitchen', 'me', 'there'],
    ]);
  });

  it('delivers what others left here in their name, unseen; what may not be delivered for them waits', async () => {
    answers = [problem(403, 'not-here'), { status: 200 }];
    await outbox.open(ME, () => undefined);
    await outbox.add('k', 'b1', [entry('theirs', 'somebody else')]);
    await settle(() => sent.length === 1);
    // It is not asked for again and again; nobody sees it, and it holds up nothing else.
    await vi.advanceTimersByTimeAsync(60_000);
    expect(sent).toHaveLength(1);
    expect(waitingIds()).toEqual([]);
    expect(outbox.view().stalled).toEqual([]);
    answers = [{ status: 200 }, problem(401, 'sign-in')];
    await outbox.add('k', 'b1', [entry('mine')]);
    await settle(() => sent.length >= 3);
    expect(sent.slice(1).map(s => [s.person, ...s.ids])).toEqual([
      ['somebody else', 'theirs'],
      ['me', 'mine'],
    ]);
    expect(outbox.view().sent).toEqual([]);
    expect(waitingIds()).toEqual(['mine']);
    // Both stand at the device now: each sees what the other entered here.
    answers = [];
    await outbox.open(['me', 'somebody else'], () => undefined);
    await settle(() => outbox.view().waiting.length === 0);
    await outbox.add('k', 'b1', [entry('of both', 'somebody else')]);
    await settle(() => outbox.view().sent.length === 2);
  });

  it('goes batch by batch in turn, a hundred at a time', async () => {
    answers = ['nobody', { status: 200 }];
    await outbox.open(ME, () => undefined);
    await outbox.add(
      'k',
      'b1',
      Array.from({ length: 130 }, (_, i) => entry(`a${i}`)),
    );
    await outbox.add('k', 'b2', [entry('b')]);
    await settle(() => outbox.view().waiting.length === 0);
    expect(sent.slice(1).map(s => [s.batch, s.ids.length])).toEqual([
      ['b1', 100],
      ['b2', 1],
      ['b1', 30],
    ]);
  });

  it('tells whoever listens, and nobody who has stopped', async () => {
    let told = 0;
    const stop = outbox.subscribe(() => told++);
    await outbox.open(ME, () => undefined);
    await outbox.add('k', 'b1', [entry('1')]);
    await settle(() => outbox.view().waiting.length === 0);
    expect(told).toBeGreaterThan(1);
    stop();
    const before = told;
    await outbox.add('k', 'b1', [entry('2')]);
    await settle(() => outbox.view().waiting.length === 0);
    expect(told).toBe(before);
  });
});

describe('a browser that keeps nothing', () => {
  beforeEach(async () => {
    vi.stubGlobal('indexedDB', {
      open: () => {
        throw new Error('denied');
      },
    });
    await openPage();
    await outbox.open(ME, () => undefined);
  });

  it('sends entries straight to the kitchen, each with a count of its own', async () => {
    expect(await outbox.add('k', 'b1', [entry('1'), entry('2')])).toHaveLength(2);
    expect(await outbox.add('k', 'b1', [entry('3')])).toHaveLength(1);
    expect(sent.map(s => s.ids)).toEqual([['1', '2'], ['3']]);
    const made = outbox.view().sent.map(w => w.entry);
    expect(made.map(e => e.deviceCounter)).toEqual([1, 2, 3]);
    expect(new Set(made.map(e => e.deviceId)).size).toBe(1);
    expect(outbox.view().unkept).toEqual([]);
  });

  it('says what was neither kept nor taken, until that was read', async () => {
    answers = ['nobody'];
    const adding = outbox.add('k', 'b1', [entry('1')]);
    await vi.advanceTimersByTimeAsync(5000);
    expect(await adding).toBeNull();
    expect(outbox.view().unkept.map(f => f.code)).toEqual(['not-kept', 'no-answer']);
    outbox.readUnkept();
    expect(outbox.view().unkept).toEqual([]);
    answers = [{ status: 200, refuses: ['bad'] }];
    expect(await outbox.add('k', 'b1', [entry('good'), entry('bad')])).toBeNull();
    expect(outbox.view().unkept.map(f => f.code)).toEqual(['invalid']);
    expect(outbox.view().sent.map(w => w.entry.id)).toEqual(['good']);
  });
});

describe('the envelope of an entry', () => {
  const opened = async () => ({
    ...(await import('../src/outbox/stamp.ts')),
    ...(await import('../src/outbox/store.ts')),
  });

  it('counts the entries of this device, names it for good, and says when they happened', async () => {
    const { makeStamp, draw } = await opened();
    const first = makeStamp('note.written', 'me', null, 7, await draw());
    const typed = makeStamp('jars.filled', 'me', Date.UTC(2026, 10, 20, 8), 8, await draw());
    expect(first).toMatchObject({
      personId: 'me',
      deviceCounter: 1,
      typedInAfterwards: false,
      basedOnSeq: 7,
      typeVersion: 1,
    });
    expect(first.occurredAt).toBe(first.wallClock);
    expect(typed).toMatchObject({
      deviceCounter: 2,
      typedInAfterwards: true,
      typeVersion: 4,
      occurredAt: '2026-11-20T08:00:00.000Z',
    });
    expect(typed.deviceId).toBe(first.deviceId);
    expect(typed.pageSessionId).toBe(first.pageSessionId);
    expect(typed.id).not.toBe(first.id);
    vi.resetModules();
    const page = await opened();
    const again = page.makeStamp('note.written', 'me', null, 9, await page.draw());
    expect(again.deviceId).toBe(first.deviceId);
    expect(again.deviceCounter).toBe(3);
    expect(again.pageSessionId).not.toBe(first.pageSessionId);
  });

  it('has a count of its own for every entry, however many pages make them at once', async () => {
    const one = await opened();
    vi.resetModules();
    const other = await opened();
    const made = await Promise.all(
      Array.from({ length: 20 }, (_, i) =>
        (i % 2 === 0 ? one : other).keep('k', 'b', [entry(`${i}a`), entry(`${i}b`)]),
      ),
    );
    const counts = [...made.flat().map(w => w.entry.deviceCounter), (await one.draw()).deviceCounter];
    expect(counts.sort((a, b) => a - b)).toEqual(Array.from({ length: 41 }, (_, i) => i + 1));
    expect(new Set(made.flat().map(w => w.entry.deviceId)).size).toBe(1);
    // What was counted was kept.
    expect((await one.waiting()).map(w => w.entry.deviceCounter).sort((a, b) => a - b)).toEqual(
      Array.from({ length: 40 }, (_, i) => i + 1),
    );
  });

  it('goes on counting where builds before this one had left off', async () => {
    localStorage.setItem('cocotte.device', 'the same device');
    localStorage.setItem('cocotte.counter', '41');
    const { draw } = await opened();
    expect(await draw()).toEqual({ deviceId: 'the same device', deviceCounter: 42 });
  });

  it('knows no offset before the server has answered, and its age afterwards', async () => {
    const { makeStamp, draw } = await opened();
    const stamp = async () => makeStamp('note.written', 'me', null, 0, await draw());
    expect(await stamp()).toMatchObject({ clockOffset_ms: null, clockOffsetAge_ms: null });
    const { learnOffset, kitchenNow } = await import('../src/shell/clock.ts');
    const now = Date.now();
    learnOffset(now + 60_000, { mono_ms: performance.now(), wall_ms: now });
    expect(Math.abs(((await stamp()).clockOffset_ms ?? 0) - 60_000)).toBeLessThan(50);
    expect(kitchenNow() - Date.now()).toBeGreaterThan(59_000);
  });
});
