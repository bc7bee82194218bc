import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import {
  type BatchEvent,
  type Receipt,
  clockConfirmed,
  elapsedBetween,
  offsetAtStamping_ms,
  placeEntries,
  seqOf,
} from './index.ts';
import {
  LIVE_WITHIN_MS,
  MOVED_TOLERANCE_MS,
  OFFSET_AGE_MS,
  OFFSET_TOLERANCE_MS,
  offsetAtDelivery_ms,
} from './evidence.ts';

const T = Date.parse('2026-11-20T15:00:00.000Z');
const iso = (ms: number) => new Date(ms).toISOString();
const HOUR = 3_600_000;

/** An entry that happened at `at` by the world, made on a device and received as is said of it. */
interface Said {
  id?: string;
  type?: BatchEvent['type'];
  device?: string;
  counter?: number;
  /** What the device's clock showed. */
  wall_ms?: number;
  offset_ms?: number | null;
  age_ms?: number | null;
  typed_ms?: number;
  saw?: number;
  page?: string;
  page_ms?: number;
  /** Null while it waits. */
  seq?: number | null;
  arrived_ms?: number;
  sent_ms?: number | null;
}
let counter = 0;
function entry(said: Said = {}): BatchEvent {
  const wall_ms = said.wall_ms ?? T;
  const seq = said.seq === undefined ? 1 : said.seq;
  const arrived_ms = said.arrived_ms ?? wall_ms + 300;
  const receipt: Receipt | null =
    seq === null
      ? null
      : {
          seq,
          at: iso(arrived_ms),
          sentAt: said.sent_ms === null ? null : iso(said.sent_ms ?? arrived_ms - (said.offset_ms ?? 0)),
          signs: true,
        };
  return {
    id: said.id ?? randomUUID(),
    typeVersion: 1,
    personId: 'p',
    deviceId: said.device ?? 'd',
    deviceCounter: said.counter ?? counter++,
    wallClock: iso(wall_ms),
    monotonic_ms: said.page_ms ?? wall_ms - T,
    pageSessionId: said.page ?? 's',
    clockOffset_ms: said.offset_ms === undefined ? 0 : said.offset_ms,
    clockOffsetAge_ms: said.age_ms === undefined ? (said.offset_ms === null ? null : 1000) : said.age_ms,
    occurredAt: iso(said.typed_ms ?? wall_ms),
    typedInAfterwards: said.typed_ms !== undefined,
    basedOnSeq: said.saw ?? 0,
    kitchenId: 'k',
    batchId: 'b',
    type: said.type ?? 'note.written',
    body: { text: '' },
    receipt,
  } as unknown as BatchEvent;
}
const place = (...entries: BatchEvent[]) => placeEntries(entries);
const one = (said: Said = {}) => {
  const [placed] = place(entry(said));
  if (!placed) throw new Error('one entry is placed once');
  return { ...placed.trace, event: placed.event };
};

describe('the offset of a clock', () => {
  it.each([
    ['measured now', 5000, 0, 5000],
    ['measured a day ago to the millisecond', 5000, OFFSET_AGE_MS, 5000],
    ['measured longer ago', 5000, OFFSET_AGE_MS + 1, null],
    ['of nought is an offset', 0, 1000, 0],
    ['never measured', null, null, null],
    ['without an age', 5000, null, null],
    ['with an age before it was measured', 5000, -1, null],
    ['of some years, after a battery ran out', 20 * 365 * 24 * HOUR, 1000, 20 * 365 * 24 * HOUR],
    ['of centuries', 300 * 365.25 * 24 * HOUR, 1000, null],
    ['of centuries the other way', -300 * 365.25 * 24 * HOUR, 1000, null],
  ])('%s', (_, clockOffset_ms, clockOffsetAge_ms, expected) =>
    expect(offsetAtStamping_ms({ clockOffset_ms, clockOffsetAge_ms })).toBe(expected),
  );

  it('at delivery is what the server saw against what the device said', () => {
    expect(offsetAtDelivery_ms({ seq: 1, at: iso(T), sentAt: iso(T - 4000), signs: true })).toBe(4000);
    expect(offsetAtDelivery_ms({ seq: 1, at: iso(T), sentAt: null, signs: true })).toBeNull();
    expect(offsetAtDelivery_ms(null)).toBeNull();
  });

  it('is confirmed by a delivery that differs by no more than the way to the server takes', () => {
    const by = (ms: number) => clockConfirmed(entry({ arrived_ms: T + 300, sent_ms: T + 300 - ms }));
    expect([0, OFFSET_TOLERANCE_MS, -OFFSET_TOLERANCE_MS].map(by)).toEqual([true, true, true]);
    expect([OFFSET_TOLERANCE_MS + 1, -OFFSET_TOLERANCE_MS - 1].map(by)).toEqual([false, false]);
    expect(clockConfirmed(entry({ offset_ms: HOUR, wall_ms: T - HOUR, arrived_ms: T }))).toBe(true);
    expect(clockConfirmed(entry({ offset_ms: HOUR, arrived_ms: T, sent_ms: T + HOUR }))).toBe(false);
    expect(clockConfirmed(entry({ offset_ms: null }))).toBe(false);
    expect(clockConfirmed(entry({ sent_ms: null }))).toBe(false);
  });
});

describe('when an entry happened', () => {
  it('is by the device set right; by its offset at delivery where none was measured; by its clock while it waits', () => {
    expect(one({ wall_ms: T - 90_000, offset_ms: 90_000, arrived_ms: T + 300 }).at_ms).toBe(T);
    const unmeasured = { wall_ms: T - 90_000, offset_ms: null, arrived_ms: T + 1000, sent_ms: T - 89_000 };
    expect(one(unmeasured).at_ms).toBe(T);
    expect(one({ ...unmeasured, seq: null }).at_ms).toBe(T - 90_000);
  });

  it('is as typed, and a decision as it arrived, whatever its device says', () => {
    expect(one({ typed_ms: T - 5 * HOUR }).at_ms).toBe(T - 5 * HOUR);
    const decision = { type: 'jars.released' as const, wall_ms: T + 13 * HOUR, arrived_ms: T };
    expect(one(decision)).toMatchObject({ at_ms: T, known: 'live', doubtful: false });
    // One that was typed is of the time that was typed.
    expect(one({ ...decision, typed_ms: T - HOUR })).toMatchObject({ at_ms: T - HOUR, known: 'written up' });
  });

  it('is never after it arrived, nor after a later entry of its device arrived', () => {
    expect(one({ wall_ms: T + 13 * HOUR, arrived_ms: T })).toMatchObject({
      at_ms: T,
      doubtful: true,
      known: 'written up',
    });
    expect(one({ typed_ms: T + 1000, arrived_ms: T }).at_ms).toBe(T);
    const [early, late] = place(
      entry({ counter: 1, wall_ms: T, seq: 2, arrived_ms: T + HOUR }),
      entry({ counter: 2, wall_ms: T - HOUR, seq: 1, arrived_ms: T - HOUR }),
    );
    expect([early, late].map(p => p?.at_ms)).toEqual([T - HOUR, T - HOUR]);
    // What waits has no limit yet.
    expect(one({ wall_ms: T + 13 * HOUR, seq: null }).at_ms).toBe(T + 13 * HOUR);
  });

  it('is never before what its device had seen, unless it was typed', () => {
    const seen = entry({ device: 'other', seq: 4, arrived_ms: T });
    const later = entry({ device: 'other', seq: 6, arrived_ms: T + HOUR });
    const at = (said: Said) =>
      place(seen, later, entry({ id: 'x', seq: 9, arrived_ms: T + 2 * HOUR, ...said })).find(
        p => p.event.id === 'x',
      )?.at_ms;
    const slow = { wall_ms: T - 2 * HOUR };
    expect([3, 4, 5, 6, 100].map(saw => at({ ...slow, saw }))).toEqual([
      T - 2 * HOUR,
      T,
      T,
      T + HOUR,
      T + HOUR,
    ]);
    expect(at({ ...slow, saw: 6, typed_ms: T - 3 * HOUR })).toBe(T - 3 * HOUR);
    // It cannot have seen itself, nor what came after it.
    expect(at({ ...slow, seq: 5, saw: 100, arrived_ms: T + 60_000 })).toBe(T);
  });

  it('never runs backwards on one device, but for what was typed', () => {
    const [a, b, c] = [
      entry({ counter: 1, wall_ms: T, arrived_ms: T + HOUR, seq: 1 }),
      entry({ counter: 2, wall_ms: T - 600_000, arrived_ms: T + HOUR, seq: 2 }),
      entry({ counter: 3, wall_ms: T + 10, typed_ms: T - HOUR, arrived_ms: T + HOUR, seq: 3 }),
    ];
    const at = new Map(place(c, b, a).map(p => [p.event.id, p]));
    expect([a, b, c].map(e => at.get(e.id)?.at_ms)).toEqual([T, T, T - HOUR]);
    expect(at.get(b.id)?.trace.doubtful).toBe(true);
    // Of two that two pages counted alike, as they once could, the id decides.
    const twins = ['b', 'a'].map(id =>
      entry({ id, counter: 7, wall_ms: id === 'b' ? T : T + 60_000, arrived_ms: T + HOUR, seq: 1 }),
    );
    expect(new Map(place(...twins).map(p => [p.event.id, p.at_ms]))).toEqual(
      new Map([
        ['a', T + 60_000],
        ['b', T + 60_000],
      ]),
    );
    // Another device goes its own way.
    const other = entry({ device: 'other', counter: 9, wall_ms: T - 600_000, arrived_ms: T + HOUR, seq: 4 });
    expect(place(a, other).map(p => p.at_ms)).toEqual([T - 600_000, T]);
  });

  it('counts once, by the copy that arrived, however often it comes', () => {
    const waiting = entry({ id: 'x', seq: null });
    const arrived = { ...waiting, receipt: entry({ seq: 3 }).receipt } as BatchEvent;
    for (const order of [
      [waiting, arrived],
      [arrived, waiting],
      [arrived, arrived, waiting],
    ]) {
      const placed = place(...order);
      expect(placed).toHaveLength(1);
      expect(placed[0]?.event.receipt?.seq).toBe(3);
    }
    expect(seqOf(waiting)).toBeGreaterThan(seqOf(arrived));
  });
});

describe('how an entry is known', () => {
  it('entered at the time: it arrived within two minutes of happening, to the millisecond', () => {
    const after = (ms: number) => one({ arrived_ms: T + ms }).known;
    expect([0, LIVE_WITHIN_MS, LIVE_WITHIN_MS + 1].map(after)).toEqual(['live', 'live', 'queued']);
  });

  it('waiting while it is on its device, whatever it says', () => {
    for (const said of [{}, { typed_ms: T }, { offset_ms: null }])
      expect(one({ ...said, seq: null }).known).toBe('waiting');
  });

  it('doubtful where it had to be moved by more than five seconds', () => {
    const by = (ms: number) => one({ wall_ms: T + ms, arrived_ms: T }).doubtful;
    expect([MOVED_TOLERANCE_MS, MOVED_TOLERANCE_MS + 1].map(by)).toEqual([false, true]);
  });

  it('doubtful where its clock jumped between stamping and delivering, either way', () => {
    const by = (ms: number) => {
      const { doubtful, known } = one({ arrived_ms: T + 1000, sent_ms: T + 1000 - ms });
      return [doubtful, known];
    };
    expect(by(OFFSET_TOLERANCE_MS)).toEqual([false, 'live']);
    expect(by(OFFSET_TOLERANCE_MS + 1)).toEqual([true, 'written up']);
    expect(by(-OFFSET_TOLERANCE_MS - 1)).toEqual([true, 'written up']);
    // A decision and a typed time rest on no clock of a device.
    expect(one({ typed_ms: T, arrived_ms: T + 1000, sent_ms: T + HOUR }).doubtful).toBe(false);
    expect(one({ type: 'jars.released', arrived_ms: T + 1000, sent_ms: T + HOUR }).doubtful).toBe(false);
  });

  it('doubtful where it waited by a clock that nobody had measured; written up even where it did not', () => {
    const waited = (ms: number) => {
      const { doubtful, known } = one({ offset_ms: null, arrived_ms: T + ms, sent_ms: T + ms });
      return [doubtful, known];
    };
    expect(waited(LIVE_WITHIN_MS)).toEqual([false, 'written up']);
    expect(waited(LIVE_WITHIN_MS + 1)).toEqual([true, 'written up']);
    // From before receipts nobody said when it was sent.
    expect(one({ arrived_ms: T + HOUR, sent_ms: null })).toMatchObject({ doubtful: false, known: 'queued' });
  });

  it('between the bounds in which it can have happened, where its time is doubtful', () => {
    expect(one()).toMatchObject({ earliest_ms: T, latest_ms: T });
    const seen = entry({ device: 'other', seq: 1, arrived_ms: T - HOUR });
    const [, doubted] = place(
      seen,
      entry({ counter: 50, seq: 2, saw: 1, wall_ms: T, arrived_ms: T + HOUR, sent_ms: T + 5 * HOUR }),
    );
    expect(doubted?.trace).toMatchObject({
      at_ms: T,
      earliest_ms: T - HOUR,
      latest_ms: T + HOUR,
      doubtful: true,
    });
    // Where nothing bounds it, it may have been any time.
    expect(one({ arrived_ms: T + HOUR, sent_ms: T + 5 * HOUR }).earliest_ms).toBe(0);
  });
});

describe('the time between two entries', () => {
  const between = (from: Said, to: Said) => {
    const [a, b] = [entry({ counter: 1, id: 'a', ...from }), entry({ counter: 2, id: 'b', seq: 2, ...to })];
    const placed = new Map(place(a, b).map(p => [p.event.id, p]));
    return elapsedBetween(placed.get('a') as never, placed.get('b') as never);
  };
  const TEN = 600_000;

  it('is by the page where wall and page agree, to five seconds', () => {
    expect(between({}, { wall_ms: T + TEN, page_ms: TEN - 5000 })).toEqual({
      time_s: 595,
      verified: true,
      how: 'by the page clock',
    });
    expect(between({}, { wall_ms: T + TEN, page_ms: TEN + 5001 })).toMatchObject({
      time_s: 600,
      verified: false,
    });
  });

  it('is by the wall where the page slept and its clock was compared before and after', () => {
    const slept = between({}, { wall_ms: T + TEN, page_ms: 60_000 });
    expect(slept).toMatchObject({ time_s: 600, verified: true, how: expect.stringContaining('slept') });
    // Not where the page ran ahead of the wall, nor where nobody compared.
    expect(between({}, { wall_ms: T + TEN, page_ms: TEN + HOUR }).verified).toBe(false);
    for (const said of [{ sent_ms: null }, { offset_ms: null }, { sent_ms: T }] as Said[]) {
      expect(between({}, { wall_ms: T + TEN, page_ms: 60_000, ...said })).toMatchObject({
        time_s: 60,
        verified: false,
      });
      expect(
        between(
          { ...said, arrived_ms: T + HOUR },
          { wall_ms: T + TEN, arrived_ms: T + HOUR, page_ms: 60_000 },
        ).verified,
      ).toBe(false);
    }
  });

  it('between pages is by the instants, where both are known', () => {
    const other = { page: 'another', wall_ms: T + TEN };
    expect(between({}, other)).toEqual({
      time_s: 600,
      verified: true,
      how: 'by clocks compared with the kitchen',
    });
    expect(between({ typed_ms: T }, other)).toMatchObject({
      time_s: 600,
      verified: true,
      how: 'from times typed in afterwards',
    });
    expect(between({ offset_ms: null }, other)).toMatchObject({
      verified: false,
      how: expect.stringContaining('not yet compared'),
    });
    expect(between({}, { ...other, offset_ms: null })).toMatchObject({ verified: false });
    expect(between({}, { ...other, sent_ms: T + 9 * HOUR })).toMatchObject({
      verified: false,
      how: expect.stringContaining('jumped'),
    });
    expect(between({ typed_ms: T }, { ...other, sent_ms: T + 9 * HOUR })).toMatchObject({ verified: false });
    // A typed time on one page is no reading of its clock.
    expect(between({ typed_ms: T - TEN }, { wall_ms: T + TEN, page_ms: 0 })).toMatchObject({
      time_s: 1200,
      verified: true,
    });
  });
});
