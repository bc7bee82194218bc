import { describe, expect, it } from 'vitest';
import { plumJam } from '../../demo/recipes.ts';
import { PaperBatch } from '../../testing/builders.ts';
import type { Known, Trace } from './evidence.ts';
import { fold } from './fold.ts';
import { orderDeviations, tooLate } from './order.ts';
import type { JarState, LoadState } from './state.ts';

const trace = (at_s: number, known: Known = 'live', spread_s = 0): Trace => ({
  eventId: `${at_s}`,
  personId: 'p',
  at_ms: at_s * 1000,
  known,
  doubtful: false,
  earliest_ms: (at_s - spread_s) * 1000,
  latest_ms: (at_s + spread_s) * 1000,
  corrected: false,
});

/** The loads and jars of a real batch, their times put where a test wants them. */
const state = fold(
  (() => {
    const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 4 }]).drawAll();
    batch.fill([1, 2, 3, 4]);
    batch.process(1, [1, 2], 15);
    batch.process(2, [3, 4], 15);
    return batch.events;
  })(),
);
const jar = (number: number, over: Partial<JarState>): JarState => ({
  ...(state.jars.find(j => j.number === number) as JarState),
  filled: trace(0),
  ...over,
});
const load = (number: number, over: Partial<LoadState>): LoadState => ({
  ...(state.loads.find(l => l.number === number) as LoadState),
  packed: trace(100),
  boilingSince: trace(700),
  lifted: trace(2000),
  ...over,
});
const said = (jars: JarState[], ...loads: LoadState[]) =>
  orderDeviations(jars, loads).map(d => `${d.code} ${d.jars?.join()}`);

describe('the order of filling, packing, boiling and lifting', () => {
  it('is right where each comes after the one before', () =>
    expect(said([jar(1, {}), jar(3, {})], load(1, {}), load(2, {}))).toEqual([]));

  it.each<[string, Trace, Trace, boolean]>([
    ['to five seconds between clocks', trace(105), trace(100), false],
    ['and not more', trace(105.001), trace(100), true],
    ['to a minute where one was typed', trace(160, 'written up'), trace(100), false],
    ['or the other', trace(160), trace(100, 'written up'), false],
    ['and not more than a minute', trace(160.001, 'written up'), trace(100), true],
    ['what may have been later holds, whatever is likelier', trace(90, 'queued', 20), trace(100), true],
    ['or the other earlier', trace(90), trace(100, 'queued', 20), true],
  ])('is read %s', (_, later, earlier, wrong) => {
    const filled = [jar(1, { filled: later }), jar(3, { filled: later })];
    // Only the jars of that load are named.
    expect(said(filled, load(1, { packed: earlier }))).toEqual(wrong ? ['filled_after 1'] : []);
    expect(said([], load(1, { packed: later, boilingSince: earlier }))).toEqual(
      wrong ? ['packed_late 1,2'] : [],
    );
    expect(tooLate(later, filled[0] as JarState, [load(1, { packed: earlier })])).toBe(wrong);
    const twice = jar(1, { loadIds: [load(1, {}).id, load(2, {}).id] });
    expect(said([twice], load(1, { lifted: later }), load(2, { packed: earlier }))).toEqual(
      wrong ? ['two_loads 1'] : [],
    );
  });

  it('a load that was never lifted keeps its jars', () => {
    const [one, two] = [load(1, { lifted: null }), load(2, { packed: trace(90_000), boilingSince: null })];
    expect(said([jar(1, { loadIds: [one.id, two.id] })], one, two)).toEqual(['two_loads 1']);
    expect(said([jar(1, { loadIds: [one.id] })], one, two)).toEqual([]);
  });

  it('names each pair of loads a jar is in, in their order', () => {
    const [one, two] = [load(1, { lifted: null }), load(2, { lifted: null })];
    const three = { ...load(1, { number: 3, packed: trace(100) }), id: 'three' };
    const found = orderDeviations([jar(1, { loadIds: [one.id, two.id, 'three'] })], [one, two, three]);
    expect(found.map(d => d.what)).toEqual([
      'Jar 1 is in load 1 and load 2 at once.',
      'Jar 1 is in load 2 and load 3 at once.',
    ]);
    expect(new Set(found.map(d => d.key)).size).toBe(2);
  });

  it('nothing is too late for a jar that is in no load', () =>
    expect(tooLate(trace(9000), jar(1, { loadIds: [] }), [load(1, {})])).toBe(false));
});
