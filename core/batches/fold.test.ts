import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { crushedTomatoes, plumJam } from '../../demo/recipes.ts';
import { PaperBatch } from '../../testing/builders.ts';
import { Device } from '../../testing/device.ts';
import { placed } from '../../testing/placed.ts';
import { assess } from '../checks/index.ts';
import { type BatchEvent, elapsedBetween, fold, lineMasses } from './index.ts';

const eight = [{ size: 'half-pint' as const, count: 8 }];
const jars = [1, 2, 3, 4, 5, 6, 7, 8];

describe('fold', () => {
  it('gives the same state for shuffled and doubled deliveries', () => {
    const batch = new PaperBatch(crushedTomatoes, [{ size: 'pint', count: 8 }]).cookWell().readPh(4.1);
    const wrong = batch.add('line.weighed', { lineId: 'tomatoes', mass_g: 500 });
    batch.wait(1).add('entry.corrected', {
      replaces: wrong.id,
      type: 'line.weighed',
      body: { lineId: 'tomatoes', mass_g: 5000 },
      occurredAt: null,
      reason: 'a nought was missing',
    });
    batch.add('jars.set_aside', { jars: [3], why: 'broken' });
    const expected = fold(batch.events);
    fc.assert(
      fc.property(
        fc.shuffledSubarray(batch.events, { minLength: batch.events.length }),
        fc.array(fc.nat(batch.events.length - 1), { maxLength: 30 }),
        (shuffled, again) => {
          expect(fold([...shuffled, ...again.map(i => batch.events[i] as BatchEvent)])).toEqual(expected);
        },
      ),
      { numRuns: 200 },
    );
  });

  it('never looks at what it is given twice, and does not change it', () => {
    const batch = new PaperBatch(plumJam, eight).cookWell();
    const before = JSON.stringify(batch.events);
    fold(batch.events);
    expect(JSON.stringify(batch.events)).toBe(before);
  });

  it('counts a load as processed only when its time was continuous and long enough', () => {
    const well = fold(new PaperBatch(plumJam, eight).cookWell().events);
    expect(well.loads[0]).toMatchObject({ phase: 'processed', required_s: 900, time_s: 900 });
    const early = new PaperBatch(plumJam, eight).drawAll().fill(jars);
    early.process(1, jars, 14.9);
    expect(fold(early.events).loads[0]).toMatchObject({ phase: 'short' });
    expect(fold(early.events).deviations.map(d => d.code)).toEqual(['short']);
  });

  it('voids the time when the boil is lost, and starts again from zero', () => {
    const batch = new PaperBatch(plumJam, eight).drawAll().fill(jars);
    const loadId = '00000000-0000-7000-8000-000000000001';
    batch.add('load.packed', { loadId, number: 1, jars, newLidLotId: null });
    batch.wait(5).add('load.boiling', { loadId });
    batch.wait(12).add('load.boil_lost', { loadId });
    expect(fold(batch.events).loads[0]).toMatchObject({ phase: 'boil lost', voided_s: [720] });
    batch.wait(3).add('load.boiling', { loadId });
    batch.wait(8).add('load.heat_off', { loadId });
    batch.add('load.lifted', { loadId });
    expect(fold(batch.events).loads[0]).toMatchObject({ phase: 'short', time_s: 480, voided_s: [720] });
    const good = batch.events.slice(0, -2);
    batch.events.splice(0, batch.events.length, ...good);
    batch.wait(8).add('load.heat_off', { loadId });
    batch.add('load.lifted', { loadId });
    expect(fold(batch.events).loads[0]).toMatchObject({ phase: 'processed', time_s: 960 });
  });

  it('counts a load lifted without a boil as short', () => {
    const batch = new PaperBatch(plumJam, eight).fill(jars);
    const loadId = '00000000-0000-7000-8000-000000000002';
    batch.add('load.packed', { loadId, number: 1, jars, newLidLotId: null });
    batch.wait(30).add('load.lifted', { loadId });
    expect(fold(batch.events).loads[0]).toMatchObject({ phase: 'short', time_s: 0 });
  });

  it('opens a deviation for facts that contradict: jars never filled, filled twice, in two loads, dosed without acid', () => {
    const batch = new PaperBatch(crushedTomatoes, [{ size: 'pint', count: 2 }]).fill([1, 2]);
    batch.fact('jars.filled', { size: 'pint', jars: [2], jarLotId: null, lidLotId: null });
    batch.fact('jars.pressed', { sealed: [9], failed: [] });
    batch.fact('load.packed', {
      loadId: '00000000-0000-7000-8000-000000000003',
      number: 1,
      jars: [1, 2],
      newLidLotId: null,
    });
    batch.fact('load.packed', {
      loadId: '00000000-0000-7000-8000-000000000004',
      number: 2,
      jars: [1],
      newLidLotId: null,
    });
    batch.fact('load.boiling', { loadId: '00000000-0000-7000-8000-000000000009' });
    batch.fact('dose.missed', { lineId: 'lemon', jars: [2] });
    expect(
      fold(batch.events)
        .deviations.map(d => d.code)
        .sort(),
    ).toEqual(['dose_missed', 'filled_twice', 'two_loads', 'unknown_jar', 'unknown_load']);
  });

  it('lets a corrected entry stand in the place of the first, and takes one back', () => {
    const batch = new PaperBatch(plumJam, eight);
    const first = batch.wait(1).add('line.weighed', { lineId: 'plums', mass_g: 900 });
    batch.wait(1).add('entry.corrected', {
      replaces: first.id,
      type: 'line.weighed',
      body: { lineId: 'plums', mass_g: 1900 },
      occurredAt: null,
      reason: 'misread',
    });
    expect(lineMasses(fold(batch.events)).find(m => m.line.id === 'plums')).toMatchObject({
      actual_g: 1900,
      basis: 'weighed',
    });
    batch.wait(1).add('entry.corrected', {
      replaces: first.id,
      type: 'line.weighed',
      body: null,
      occurredAt: null,
      reason: 'another batch',
    });
    expect(lineMasses(fold(batch.events)).find(m => m.line.id === 'plums')?.basis).toBe('planned');
  });

  it('does not let a correction touch a decision or change the kind of an entry', () => {
    const batch = new PaperBatch(plumJam, eight).drawAll();
    const draw = batch.events[1] as BatchEvent;
    batch.add('entry.corrected', {
      replaces: draw.id,
      type: 'note.written',
      body: { text: 'x' },
      occurredAt: null,
      reason: 'no',
    });
    expect(fold(batch.events).draws).toHaveLength(1);
  });
});

describe('time between entries', () => {
  const at = 1_700_000_000_000;
  it('goes by the page clock inside one session', () => {
    const d = new Device('p', at);
    expect(elapsedBetween(placed(d.stamp(at)), placed(d.stamp(at + 600_000)))).toMatchObject({
      time_s: 600,
      verified: true,
    });
  });
  it('is unverified where two clocks disagree by over 5 s, and then takes the shorter', () => {
    const d = new Device('p', at);
    const to = { ...d.stamp(at + 600_000), monotonic_ms: 590_000 };
    expect(elapsedBetween(placed(d.stamp(at)), placed(to))).toMatchObject({ time_s: 590, verified: false });
    expect(elapsedBetween(placed(d.stamp(at)), placed({ ...to, monotonic_ms: 596_000 })).verified).toBe(true);
  });
  it('is unverified across devices when an offset is unknown', () => {
    const known = new Device('p', at, 4000);
    const unknown = new Device('p', at, null);
    expect(elapsedBetween(placed(known.stamp(at)), placed(unknown.stamp(at + 600_000))).verified).toBe(false);
    expect(
      elapsedBetween(placed(known.stamp(at)), placed(new Device('q', at, -7000).stamp(at + 600_000))),
    ).toMatchObject({
      time_s: 600,
      verified: true,
    });
  });
  it('takes typed times as written', () => {
    const d = new Device('p', at);
    expect(elapsedBetween(placed(d.stamp(at, true)), placed(d.stamp(at + 60_000, true)))).toMatchObject({
      time_s: 60,
      verified: true,
    });
  });
  it('holds an unverified load until a person settles it with the minutes seen', () => {
    const batch = new PaperBatch(plumJam, eight, {}, null).drawAll().fill(jars);
    const loadId = '00000000-0000-7000-8000-000000000005';
    batch.add('load.packed', { loadId, number: 1, jars, newLidLotId: null });
    batch.add('load.boiling', { loadId });
    batch.wait(20);
    batch.device.pageSessionId = '00000000-0000-7000-8000-00000000000a';
    batch.add('load.lifted', { loadId });
    expect(fold(batch.events).loads[0]?.phase).toBe('unverified');
    const key = `time_unverified:${loadId}`;
    batch.wait(1);
    const short = batch.add('deviation.settled', { key, reason: 'oven clock', minutes: 9 });
    expect(fold(batch.events).loads[0]?.phase).toBe('short');
    batch.events.splice(batch.events.indexOf(short), 1);
    batch.add('deviation.settled', { key, reason: 'oven clock', minutes: 19 });
    expect(fold(batch.events).loads[0]?.phase).toBe('processed');
    expect(assess(batch.events).standing.gate.conditions.find(c => c.code === 'deviations')?.met).toBe(true);
  });
});
