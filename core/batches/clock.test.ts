import { randomUUID } from 'node:crypto';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plumJam } from '../../demo/recipes.ts';
import { PaperBatch, START_MS } from '../../testing/builders.ts';
import { Device } from '../../testing/device.ts';
import { type BatchEvent, FORGOTTEN_REST_S, type LoadState, fold, inOrder } from './index.ts';

const two = [{ size: 'half-pint' as const, count: 2 }];
/** Seconds a load of plum jam boils at 2,350 ft. */
const NEEDED_S = 15 * 60;

/** Two jars packed as load 1, at the canner and cold. */
function packed(): { batch: PaperBatch; loadId: string } {
  const batch = new PaperBatch(plumJam, two).drawAll().fill([1, 2]);
  const loadId = randomUUID();
  batch.fact('load.packed', { loadId, number: 1, jars: [1, 2], newLidLotId: null });
  return { batch, loadId };
}

const load = (batch: PaperBatch): LoadState => fold(batch.events).loads[0] as LoadState;
const deviations = (batch: PaperBatch) => fold(batch.events).deviations;

describe('the clock of a load', () => {
  it('goes through its phases, and says in each what is known of its time', () => {
    const { batch, loadId } = packed();
    expect(load(batch)).toMatchObject({
      phase: 'packed',
      jars: [1, 2],
      required_s: NEEDED_S,
      boilingSince: null,
      time_s: null,
      timeHow: '',
      voided_s: [],
    });
    batch.wait(5).fact('load.boiling', { loadId });
    expect(load(batch)).toMatchObject({ phase: 'boiling', time_s: null, heatOff: null });
    expect(load(batch).boilingSince?.at_ms).toBe(batch.now_ms);
    batch.wait(4).fact('load.boil_lost', { loadId });
    expect(load(batch)).toMatchObject({ phase: 'boil lost', boilingSince: null, voided_s: [240] });
    batch.wait(2).fact('load.boiling', { loadId });
    batch.wait(15).fact('load.heat_off', { loadId });
    expect(load(batch)).toMatchObject({
      phase: 'resting',
      time_s: NEEDED_S,
      timeHow: 'by the page clock',
      lifted: null,
    });
    expect(load(batch).heatOff?.at_ms).toBe(batch.now_ms);
    batch.wait(5).fact('load.lifted', { loadId });
    expect(load(batch)).toMatchObject({ phase: 'processed', time_s: NEEDED_S });
    expect(load(batch).lifted?.at_ms).toBe(batch.now_ms);
    expect(deviations(batch)).toEqual([]);
  });

  it('counts up to the heat going off, not to lifting', () => {
    const { batch, loadId } = packed();
    batch.fact('load.boiling', { loadId }).wait(10).fact('load.heat_off', { loadId });
    batch.wait(60).fact('load.lifted', { loadId });
    expect(load(batch)).toMatchObject({ phase: 'short', time_s: 600 });
  });

  it('takes the longest rest off where nobody recorded the heat going off', () => {
    for (const [lifted_min, phase] of [
      [24, 'short'],
      [25, 'processed'],
    ] as const) {
      const { batch, loadId } = packed();
      batch.fact('load.boiling', { loadId }).wait(lifted_min).fact('load.lifted', { loadId });
      expect(load(batch)).toMatchObject({
        phase,
        time_s: lifted_min * 60 - FORGOTTEN_REST_S,
        heatOff: null,
        timeHow: 'by the page clock; when the heat went off was not entered, 10 min are taken off',
      });
    }
    const { batch, loadId } = packed();
    batch.fact('load.boiling', { loadId }).wait(3).fact('load.lifted', { loadId });
    expect(load(batch).time_s).toBe(0);
  });

  it('the first end counts: whatever comes after it holds the jars and names both entries', () => {
    for (const [type, code, what] of [
      ['load.heat_off', 'second_end', '"heat off" was entered, after "heat off" of the same load.'],
      ['load.boiling', 'after_end', 'a full boil was entered, after "heat off" of the same load.'],
      ['load.boil_lost', 'after_end', 'a lost boil was entered, after "heat off" of the same load.'],
    ] as const) {
      const { batch, loadId } = packed();
      batch.fact('load.boiling', { loadId }).wait(10).fact('load.heat_off', { loadId });
      const second = batch.wait(30).add(type, { loadId });
      batch.wait(5).fact('load.lifted', { loadId });
      expect(load(batch)).toMatchObject({ phase: 'short', time_s: 600, echoes: [] });
      expect(deviations(batch).map(d => [d.key, d.code, d.what, d.settles, d.jars])).toContainEqual([
        `${code}:${second.id}`,
        code,
        `Load 1 (jars 1, 2): ${what}`,
        null,
        [1, 2],
      ]);
    }
  });

  it('a second end by a device that had not seen the first is an echo, and says nothing new', () => {
    const { batch, loadId } = packed();
    const other = new Device(randomUUID(), START_MS);
    const boiling = batch.add('load.boiling', { loadId });
    batch.wait(16);
    const first = batch.add('load.heat_off', { loadId });
    const echo = batch
      .wait(3)
      .add('load.heat_off', { loadId }, { device: other, saw: boiling.receipt?.seq ?? 0 });
    batch.wait(2).fact('load.lifted', { loadId });
    expect(load(batch)).toMatchObject({ phase: 'processed', time_s: 960 });
    expect(load(batch).heatOff?.eventId).toBe(first.id);
    expect(load(batch).echoes.map(t => t.eventId)).toEqual([echo.id]);
    expect(deviations(batch)).toEqual([]);
    // One that had seen it says something else.
    const seen = first.receipt?.seq ?? 0;
    batch.wait(1).add('load.heat_off', { loadId }, { device: other, saw: seen });
    expect(deviations(batch).map(d => d.code)).toEqual(['after_lift']);
  });

  it('a lost boil without a boil voids nothing, and holds the jars until somebody says what it was', () => {
    const { batch, loadId } = packed();
    batch.fact('load.boil_lost', { loadId });
    expect(load(batch)).toMatchObject({ phase: 'packed', voided_s: [] });
    expect(deviations(batch).map(d => [d.code, d.what])).toEqual([
      ['lost_outside', 'Load 1 (jars 1, 2): a lost boil was entered, and no boil before it.'],
    ]);
  });

  it('heat off without a boil is no time, and says so', () => {
    const { batch, loadId } = packed();
    batch.fact('load.heat_off', { loadId });
    expect(load(batch)).toMatchObject({ phase: 'resting', time_s: 0, timeHow: 'no full boil was recorded' });
    expect(deviations(batch).map(d => [d.code, d.what])).toEqual([
      ['short', 'Load 1 (jars 1, 2) boiled 0 min of 15 min.'],
    ]);
  });

  it('lifted twice keeps the first lifting, from which jars cool', () => {
    const { batch, loadId } = packed();
    batch.fact('load.boiling', { loadId }).wait(15).fact('load.heat_off', { loadId });
    batch.wait(5).fact('load.lifted', { loadId });
    const first_ms = batch.now_ms;
    batch.wait(60).fact('load.lifted', { loadId });
    expect(load(batch).lifted?.at_ms).toBe(first_ms);
    expect(load(batch).phase).toBe('processed');
    batch.fact('load.heat_off', { loadId });
    expect(deviations(batch).map(d => [d.code, d.settles])).toEqual([
      ['second_end', null],
      ['after_lift', null],
    ]);
  });

  it('forgives half a second, which is what a tap takes, and no more', () => {
    for (const [short_s, phase] of [
      [0, 'processed'],
      [0.5, 'processed'],
      [0.501, 'short'],
      [1, 'short'],
    ] as const) {
      const { batch, loadId } = packed();
      batch.fact('load.boiling', { loadId });
      batch.wait(15 - short_s / 60).fact('load.heat_off', { loadId });
      batch.wait(5).fact('load.lifted', { loadId });
      expect([short_s, load(batch).phase]).toEqual([short_s, phase]);
    }
  });

  it('whatever is pressed at the stove, only unbroken minutes of the last boil count', () => {
    const taps = fc.array(
      fc.record({
        kind: fc.constantFrom('load.boiling', 'load.boil_lost', 'load.heat_off' as const),
        after_min: fc.integer({ min: 0, max: 20 }),
      }),
      { maxLength: 8 },
    );
    fc.assert(
      fc.property(taps, fc.integer({ min: 0, max: 20 }), (pressed, last_min) => {
        const { batch, loadId } = packed();
        // The rule, told apart from the code: the last boil before the first end, to that end.
        let since: number | null = null;
        let counted: number | null = null;
        let odd = 0;
        for (const { kind, after_min } of pressed) {
          batch.wait(after_min).fact(kind, { loadId });
          if (counted !== null) odd++;
          else if (kind === 'load.heat_off') counted = since === null ? 0 : batch.now_ms - since;
          else if (kind === 'load.boiling') since = batch.now_ms;
          else if (since === null) odd++;
          else since = null;
        }
        batch.wait(last_min).fact('load.lifted', { loadId });
        if (counted === null)
          counted = since === null ? 0 : Math.max(0, batch.now_ms - since - FORGOTTEN_REST_S * 1000);
        expect(load(batch).time_s).toBeCloseTo(counted / 1000, 6);
        expect(load(batch).phase).toBe(counted / 1000 >= NEEDED_S ? 'processed' : 'short');
        expect(deviations(batch).filter(d => d.code !== 'short')).toHaveLength(odd);
      }),
      { numRuns: 150 },
    );
  });
});

describe('what contradicts itself at the canner', () => {
  it('a load packed twice keeps the first jars; the second entry holds its own', () => {
    const { batch, loadId } = packed();
    batch.fact('jars.filled', { size: 'half-pint', jars: [3], jarLotId: null, lidLotId: null });
    batch.fact('load.packed', { loadId, number: 2, jars: [3], newLidLotId: null });
    expect(fold(batch.events).loads).toHaveLength(1);
    expect(load(batch)).toMatchObject({ number: 1, jars: [1, 2] });
    expect(fold(batch.events).jars.map(j => j.loadIds.length)).toEqual([1, 1, 0]);
    expect(deviations(batch)).toMatchObject([
      {
        key: `packed_twice:${batch.events.at(-1)?.id}`,
        code: 'packed_twice',
        jars: [3],
        what: 'Load 2 was recorded as packed twice.',
        settles: null,
        loadId: null,
      },
    ]);
  });

  it('a load of jars nobody filled has no jars, no time, and says which were never filled', () => {
    const batch = new PaperBatch(plumJam, two).fill([1]);
    const loadId = randomUUID();
    batch.fact('load.packed', { loadId, number: 1, jars: [7, 8, 9], newLidLotId: randomUUID() });
    batch.fact('load.boiling', { loadId }).wait(30).fact('load.heat_off', { loadId });
    expect(load(batch)).toMatchObject({ jars: [], required_s: null, phase: 'resting' });
    batch.fact('load.lifted', { loadId });
    expect(load(batch)).toMatchObject({ jars: [], required_s: null, phase: 'no time' });
    expect(deviations(batch).map(d => [d.code, d.what, d.settles])).toEqual([
      ['unknown_jar', 'Jar 7-9 was put in the canner but never recorded as filled.', null],
      ['no_time', 'Load 1 holds a jar with no processing time.', null],
    ]);
    expect(fold(batch.events).jars[0]?.lidLotId).toBe(batch.lidLotId);
  });

  it('some jars unknown: the load is judged by those that are there', () => {
    const batch = new PaperBatch(plumJam, two).fill([1, 2]);
    const loadId = batch.process(1, [1, 2, 3], 15);
    expect(load(batch)).toMatchObject({ id: loadId, jars: [1, 2], phase: 'processed' });
    expect(deviations(batch).map(d => d.code)).toEqual(['unknown_jar']);
  });

  it('a load timed and never packed is told apart by its entry, and changes no other load', () => {
    const { batch, loadId } = packed();
    const stray = randomUUID();
    batch.fact('load.boiling', { loadId: stray }).wait(30).fact('load.lifted', { loadId: stray });
    expect(load(batch)).toMatchObject({ id: loadId, phase: 'packed' });
    expect(deviations(batch).map(d => [d.key, d.settles])).toEqual(
      batch.events.slice(-2).map(e => [`unknown_load:${e.id}`, null]),
    );
  });

  it('a jar in a second load before the first was lifted holds that jar alone', () => {
    const { batch, loadId } = packed();
    const second = randomUUID();
    batch.fact('load.packed', { loadId: second, number: 2, jars: [2], newLidLotId: null });
    expect(deviations(batch)).toMatchObject([
      {
        key: `two_loads:2:${second}`,
        code: 'two_loads',
        jars: [2],
        what: 'Jar 2 is in load 1 and load 2 at once.',
        settles: null,
      },
    ]);
    // Lifting the first later does not undo that the jar went into the second before.
    batch.fact('load.boiling', { loadId }).wait(25).fact('load.lifted', { loadId });
    expect(deviations(batch).map(d => d.code)).toEqual(['two_loads']);
  });

  it('a jar goes into a second load once the first is lifted', () => {
    const { batch, loadId } = packed();
    batch
      .fact('load.boiling', { loadId })
      .wait(15)
      .fact('load.heat_off', { loadId })
      .fact('load.lifted', { loadId });
    batch.fact('load.packed', { loadId: randomUUID(), number: 2, jars: [2], newLidLotId: null });
    expect(deviations(batch)).toEqual([]);
  });

  it('a jar in three loads is held for each that stood in the way', () => {
    const batch = new PaperBatch(plumJam, two).fill([1, 2]);
    for (const number of [1, 2, 3])
      batch.fact('load.packed', { loadId: randomUUID(), number, jars: [1], newLidLotId: null });
    expect(deviations(batch).map(d => d.what)).toEqual([
      'Jar 1 is in load 1 and load 2 at once.',
      'Jar 1 is in load 2 and load 3 at once.',
    ]);
  });

  it('loads are listed by their number, whatever order they were packed in', () => {
    const batch = new PaperBatch(plumJam, two).fill([1, 2]);
    for (const [number, jar] of [
      [3, 1],
      [1, 2],
    ] as const)
      batch.fact('load.packed', { loadId: randomUUID(), number, jars: [jar], newLidLotId: null });
    const same = ['00000000-0000-7000-8000-00000000000b', '00000000-0000-7000-8000-00000000000a'];
    for (const loadId of same) batch.fact('load.packed', { loadId, number: 2, jars: [2], newLidLotId: null });
    const loads = fold(batch.events).loads;
    expect(loads.map(l => l.number)).toEqual([1, 2, 2, 3]);
    expect(loads.slice(1, 3).map(l => l.id)).toEqual([...same].reverse());
  });
});

describe('a time that two clocks do not agree on', () => {
  const unverified = () => {
    const batch = new PaperBatch(plumJam, two, {}, null).drawAll().fill([1, 2]);
    const loadId = randomUUID();
    batch.fact('load.packed', { loadId, number: 1, jars: [1, 2], newLidLotId: null });
    batch.fact('load.boiling', { loadId }).wait(20);
    batch.device.pageSessionId = randomUUID();
    batch.fact('load.heat_off', { loadId }).wait(5).fact('load.lifted', { loadId }).wait(1);
    return { batch, loadId, key: `time_unverified:${loadId}` };
  };

  it('is settled only under its own key, and only with minutes', () => {
    const { batch, key } = unverified();
    const settle = (of: string, minutes: number | null) =>
      batch.add('deviation.settled', { key: of, reason: 'the oven clock', minutes });
    settle(`time_unverified:${randomUUID()}`, 30);
    expect(load(batch).phase).toBe('unverified');
    expect(deviations(batch)[0]?.settled).toBeNull();
    settle(key, null);
    expect(load(batch).phase).toBe('unverified');
    batch.add('deviation.settled', { key, reason: 'may not sign', minutes: 15 }, { signs: false });
    batch.add('deviation.settled', { key, reason: 'still on its device', minutes: 15 }, { waits: true });
    expect(load(batch).phase).toBe('unverified');
    settle(key, 15);
    expect(load(batch)).toMatchObject({
      phase: 'processed',
      time_s: 900,
      timeHow: 'settled by a person, by another clock',
    });
    expect(deviations(batch)).toMatchObject([
      { key, code: 'time_unverified', settles: 'minutes', settled: { reason: 'the oven clock' } },
    ]);
  });

  it('is not settled by what came before the load ended, and of several the first stands', () => {
    const batch = new PaperBatch(plumJam, two, {}, null).drawAll().fill([1, 2]);
    const loadId = randomUUID();
    const key = `time_unverified:${loadId}`;
    const settle = (minutes: number, typed = false, ago_min = 0) =>
      batch.add('deviation.settled', { key, reason: `${minutes} min`, minutes }, { typed, ago_min });
    batch.fact('load.packed', { loadId, number: 1, jars: [1, 2], newLidLotId: null });
    settle(1440);
    batch.fact('load.boiling', { loadId }).wait(20);
    batch.device.pageSessionId = randomUUID();
    batch.fact('load.heat_off', { loadId }).wait(5).fact('load.lifted', { loadId });
    expect(load(batch).phase).toBe('unverified');
    settle(1440, true, 60);
    expect(load(batch).phase).toBe('unverified');
    batch.wait(1);
    settle(14);
    settle(20);
    expect(load(batch)).toMatchObject({ phase: 'short', time_s: 14 * 60 });
  });

  it('settled with too few minutes is short, and that cannot be settled', () => {
    const { batch, key, loadId } = unverified();
    batch.add('deviation.settled', { key, reason: 'the oven clock', minutes: 14 });
    expect(load(batch)).toMatchObject({ phase: 'short', time_s: 840 });
    batch.add('deviation.settled', { key: `short:${loadId}`, reason: 'it looked fine', minutes: 15 });
    const short = deviations(batch).find(d => d.code === 'short');
    expect(short).toMatchObject({ settled: null, settles: null, loadId });
  });

  it('says so while it rests, and stays unverified until it was settled', () => {
    const batch = new PaperBatch(plumJam, two, {}, null).drawAll().fill([1, 2]);
    const loadId = randomUUID();
    batch.fact('load.packed', { loadId, number: 1, jars: [1, 2], newLidLotId: null });
    batch.fact('load.boiling', { loadId }).wait(20);
    batch.device.pageSessionId = randomUUID();
    batch.fact('load.heat_off', { loadId });
    expect(load(batch).phase).toBe('resting');
    expect(deviations(batch).map(d => d.what)).toEqual([
      'The time of load 1 (jars 1, 2) is unverified: the device had not yet compared its clock with the kitchen.',
    ]);
  });
});

describe('the order of a record', () => {
  const at = (at_ms: number, deviceCounter: number, id: string, seq: number | null = 1) => ({
    at_ms,
    event: { deviceCounter, id, receipt: seq === null ? null : { seq } } as BatchEvent,
  });

  it("is by instant, then by the server's number, what waits last, then by the device counter, then by id", () => {
    expect(inOrder(at(2, 9, 'z', 4), at(2, 0, 'a', 5))).toBeLessThan(0);
    expect(inOrder(at(2, 0, 'a', null), at(2, 9, 'z', 5))).toBeGreaterThan(0);
    expect(inOrder(at(1, 9, 'z'), at(2, 0, 'a'))).toBeLessThan(0);
    expect(inOrder(at(2, 1, 'z'), at(2, 2, 'a'))).toBeLessThan(0);
    expect(inOrder(at(2, 2, 'a'), at(2, 2, 'b'))).toBeLessThan(0);
    expect(inOrder(at(2, 2, 'b'), at(2, 2, 'a'))).toBeGreaterThan(0);
    expect(inOrder(at(2, 2, 'a'), at(2, 2, 'a'))).toBe(0);
  });

  it('is a total order: sorting any arrangement of the same entries gives one record', () => {
    const entry = fc.record({
      at_ms: fc.integer({ min: 0, max: 3 }),
      deviceCounter: fc.integer({ min: 0, max: 2 }),
      id: fc.uuid(),
    });
    fc.assert(
      fc.property(fc.uniqueArray(entry, { selector: e => e.id, maxLength: 12 }), entries => {
        const rows = entries.map(e => at(e.at_ms, e.deviceCounter, e.id));
        const ids = (list: typeof rows) => [...list].sort(inOrder).map(r => r.event.id);
        expect(ids([...rows].reverse())).toEqual(ids(rows));
        for (const a of rows)
          for (const b of rows) expect(Math.sign(inOrder(a, b))).toBe(-Math.sign(inOrder(b, a)) + 0);
      }),
    );
  });

  it('two entries of one instant on one device stand as they were pressed: boil, then lost', () => {
    const { batch, loadId } = packed();
    batch.fact('load.boiling', { loadId }).fact('load.boil_lost', { loadId });
    expect(load(batch)).toMatchObject({ phase: 'boil lost', voided_s: [0] });
  });

  it('two devices are ordered by clocks set right, not by what they show', () => {
    const { batch, loadId } = packed();
    // Its clock is an hour behind, and the server has told it so.
    const slow = new Device(randomUUID(), START_MS, 3_600_000);
    batch.wait(1).add('load.boiling', { loadId }, { device: slow });
    batch.wait(10).add('load.boil_lost', { loadId });
    expect(load(batch)).toMatchObject({ phase: 'boil lost', voided_s: [600] });
  });
});
