import 'fake-indexeddb/auto';
import type { BatchView, EventsPage, Moved } from '@cocotte/contract';
import type { SequencedEvent } from '@cocotte/core/batches';
import fc from 'fast-check';
import { IDBFactory } from 'fake-indexeddb';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { type Held, withPage, withView } from '../src/device/held.ts';
import { standInStorage } from './browser.ts';

/** An entry of a kitchen's record, as little of it as a device looks at. */
const entryOf = (seq: number, batchId: string, first: boolean): SequencedEvent =>
  ({
    id: `${batchId}-${seq}`,
    batchId,
    type: first ? 'batch.started' : 'note.written',
    receipt: { seq },
  }) as unknown as SequencedEvent;

/** A record over some batches: which batch each entry belongs to, by its number from 1. */
function recordOf(batches: readonly number[]): SequencedEvent[] {
  const begun = new Set<number>();
  return batches.map((b, i) => {
    const first = !begun.has(b);
    begun.add(b);
    return entryOf(i + 1, `b${b}`, first);
  });
}
const viewOf = (record: readonly SequencedEvent[], id: string): BatchView => {
  const events = record.filter(e => e.batchId === id);
  return { id, events, people: {}, lastSeq: events.at(-1)?.receipt.seq ?? 0 };
};
const pageOf = (record: readonly SequencedEvent[], after: number, size: number): EventsPage => {
  const events = record.filter(e => e.receipt.seq > after).slice(0, size);
  const moved = { seq: record.length, recipes: 0, stock: 0, settings: 0 };
  return { events, people: {}, more: record.length > after + events.length, moved };
};

describe('records that are held', () => {
  it('come to the same, however they are cut into pages and whatever is read beside them', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 4 }), { maxLength: 60 }),
        fc.integer({ min: 0, max: 60 }),
        fc.array(fc.record({ size: fc.integer({ min: 1, max: 9 }), aside: fc.integer({ min: 0, max: 4 }) }), {
          minLength: 80,
          maxLength: 80,
        }),
        (batches, before, steps) => {
          const record = recordOf(batches);
          const from = Math.min(before, record.length);
          let held: Held = new Map();
          // A device that begins late read the batches that were there then.
          for (const id of new Set(record.slice(0, from).map(e => e.batchId)))
            held = withView(held, viewOf(record.slice(0, from), id));
          let seq = from;
          for (const { size, aside } of steps) {
            // Now and then a batch is read whole, or an answer comes that is older than what is held.
            const upTo = record.slice(0, aside % 2 === 0 ? record.length : seq);
            const other = viewOf(upTo, `b${aside}`);
            if (other.events.length > 0) held = withView(held, other);
            const page = pageOf(record, seq, size);
            const next = withPage(held, page);
            expect(next.unread).toEqual([]);
            held = next.held;
            // The same page once more changes nothing.
            expect(withPage(held, page).held).toBe(held);
            seq = page.events.at(-1)?.receipt.seq ?? seq;
          }
          for (const id of new Set(record.map(e => e.batchId)))
            expect(held.get(id)).toEqual(viewOf(record, id));
        },
      ),
      { numRuns: 200 },
    );
  });

  it('what belongs to a batch that is not held is to be read, and nothing older overwrites newer', () => {
    const record = recordOf([1, 2, 1, 2, 2]);
    const { held, unread, grown } = withPage(new Map(), pageOf(record, 2, 9));
    expect([...held.keys()]).toEqual([]);
    expect([unread, grown]).toEqual([['b1', 'b2'], []]);
    const newer = withView(held, viewOf(record, 'b2'));
    expect(withView(newer, viewOf(record.slice(0, 4), 'b2'))).toBe(newer);
  });
});

type Records = (typeof import('../src/device/records.ts'))['records'];

describe('what a device holds of a kitchen', () => {
  let record: SequencedEvent[];
  let moved: Moved;
  let away: boolean;
  let turned: number;
  let asked: string[];
  let records: Records;
  let call: (typeof import('../src/shell/call.ts'))['call'];
  const changed: string[] = [];

  const settle = async (done: () => boolean) => {
    for (let i = 0; i < 400 && !done(); i++) await vi.advanceTimersByTimeAsync(50);
    expect(done()).toBe(true);
  };
  const open = (person = 'me') => records.open('k', person, what => changed.push(...what));
  const seqs = (id: string) =>
    records
      .view()
      .held.get(id)
      ?.events.map(e => e.receipt.seq);
  async function openPage(): Promise<void> {
    vi.resetModules();
    ({ records } = await import('../src/device/records.ts'));
    ({ call } = await import('../src/shell/call.ts'));
  }
  const grow = (...batches: number[]) => {
    const all = [...record.map(e => Number(e.batchId.slice(1))), ...batches];
    record = recordOf(all);
    moved = { ...moved, seq: record.length };
  };

  beforeEach(async () => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });
    standInStorage();
    vi.stubGlobal('indexedDB', new IDBFactory());
    vi.stubGlobal('navigator', {});
    vi.stubGlobal('document', {
      visibilityState: 'visible',
      addEventListener: () => undefined,
      removeEventListener: () => undefined,
    });
    Reflect.deleteProperty(globalThis, 'BroadcastChannel');
    record = recordOf([1, 1, 2]);
    moved = { seq: 3, recipes: 0, stock: 0, settings: 0 };
    away = false;
    turned = 200;
    asked = [];
    changed.length = 0;
    vi.stubGlobal('fetch', (url: string) => {
      asked.push(url);
      if (away) return Promise.reject(new TypeError('failed to fetch'));
      if (turned !== 200)
        return Promise.resolve(
          new Response(JSON.stringify({ code: 'sign-in', errors: [] }), { status: turned }),
        );
      const [path = '', query = ''] = url.split('?');
      const tail = path.split('/').slice(4).join('/');
      const after = Number(new URLSearchParams(query).get('after') ?? 0);
      const reply =
        tail === 'events'
          ? { ...pageOf(record, after, 2), moved }
          : tail === 'today'
            ? { batches: [{ id: 'b2' }] }
            : tail.startsWith('batches/')
              ? viewOf(record, tail.slice('batches/'.length))
              : { items: [moved.stock] };
      return Promise.resolve(new Response(JSON.stringify(reply)));
    });
    vi.stubGlobal('window', new EventTarget());
    await openPage();
  });
  afterEach(() => {
    records.close();
    vi.useRealTimers();
    vi.unstubAllGlobals();
  });

  it('begins with the open batches, goes on from there, and reads what it lacks when it is added to', async () => {
    open();
    await settle(() => records.view().ready);
    expect([...records.view().held.keys()]).toEqual(['b2']);
    grow(2, 3, 3, 2);
    await settle(() => seqs('b3')?.length === 2);
    expect(seqs('b2')).toEqual([3, 4, 7]);
    // Somebody adds to a batch that was long finished.
    grow(1);
    await settle(() => seqs('b1')?.length === 3);
    expect(seqs('b1')).toEqual([1, 2, 8]);
  });

  it('is there before anybody answers, after a reload and without a connection', async () => {
    open();
    await settle(() => records.view().ready && records.view().reached);
    grow(2, 2);
    await settle(() => seqs('b2')?.length === 3);
    records.close();
    away = true;
    await openPage();
    expect(records.view().held.size).toBe(0);
    open();
    await settle(() => records.view().ready);
    expect(seqs('b2')).toEqual([3, 4, 5]);
    expect(records.view().reached).toBe(false);
    // Back again: only what is new is asked for.
    away = false;
    asked = [];
    grow(2);
    await settle(() => seqs('b2')?.length === 4);
    expect(asked.filter(a => a.includes('/today') || a.includes('/batches/'))).toEqual([]);
    expect(records.view().reached).toBe(true);
  });

  it('tells what else moved, and gives what was seen last while nobody answers', async () => {
    const { listItems } = await import('@cocotte/contract');
    const { enterTabKitchen } = await import('../src/shell/tab-kitchen.ts');
    enterTabKitchen('k');
    open();
    await settle(() => records.view().ready);
    expect(await call(listItems)).toEqual({ items: [0] });
    moved = { ...moved, stock: 1 };
    await settle(() => changed.includes('stock'));
    expect(changed).not.toContain('recipes');
    expect(await call(listItems)).toEqual({ items: [1] });
    away = true;
    expect(await call(listItems)).toEqual({ items: [1] });
    const { readKitchen } = await import('@cocotte/contract');
    await expect(call(readKitchen)).rejects.toThrow();
  });

  it('has the session read anew where the server says that nobody is signed in', async () => {
    open();
    await settle(() => records.view().ready);
    changed.length = 0;
    turned = 401;
    await settle(() => changed.includes('settings'));
    turned = 200;
    grow(2);
    await settle(() => seqs('b2')?.length === 2);
  });

  it('is each person’s own, and nothing late is written back after it was let go', async () => {
    open();
    await settle(() => records.view().ready);
    const late = viewOf(recordOf([9]), 'b9');
    const { eraseKept } = await import('../src/device/store.ts');
    records.close();
    await records.hold(late);
    await eraseKept();
    expect((await indexedDB.databases()).filter(d => d.name?.startsWith('cocotte-kept'))).toEqual([]);
    away = true;
    open('somebody else');
    await vi.advanceTimersByTimeAsync(2000);
    expect(records.view()).toMatchObject({ ready: false, reached: false });
    expect(records.view().held.size).toBe(0);
  });

  it('goes on without a store, and says that nothing is kept', async () => {
    vi.stubGlobal('indexedDB', {
      open: () => {
        throw new Error('denied');
      },
    });
    await openPage();
    open();
    await settle(() => records.view().ready);
    expect(records.view().keepsNothing).toBe(true);
    expect(seqs('b2')).toEqual([3]);
  });
});
