import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { crushedTomatoes } from '../../demo/recipes.ts';
import { type Entering, PaperBatch, START_MS } from '../../testing/builders.ts';
import { Device } from '../../testing/device.ts';
import { type BatchEvent, type EventType, SLIP_MS, fold, retyped } from './index.ts';
import { printed } from '../../testing/labels.ts';

const loadId = '00000000-0000-7000-8000-000000000001';
const MINUTE = 60_000;

/** Two jars at the canner; each entry by name. */
function kitchen(): { batch: PaperBatch; of: (type: EventType) => BatchEvent } {
  const batch = new PaperBatch(crushedTomatoes, [{ size: 'pint', count: 4 }]).drawAll().fill([1, 2]);
  batch.add('temperature.read', { where: 'pot', temp_C: 95 });
  batch.add('temperature.read', { where: 'jar', temp_C: 85 });
  batch.wait(1).add('load.packed', { loadId, number: 1, jars: [1, 2], newLidLotId: null, heat: 'steam' });
  batch.wait(9).add('load.boiling', { loadId });
  batch.wait(12).add('load.boil_lost', { loadId });
  batch.wait(3).add('load.heat_off', { loadId });
  batch.wait(5).add('load.lifted', { loadId });
  batch.add('dose.missed', { lineId: 'lemon', jars: [2] });
  batch.wait(13 * 60).add('jars.pressed', { sealed: [1], failed: [2] });
  batch.wait(13 * 60).readPh(4.9);
  batch.fact('line.weighed', { lineId: 'tomatoes', mass_g: 900 }).fact('note.written', { text: 'x' });
  return {
    batch,
    of: type => batch.events.find(e => e.type === type) as BatchEvent,
  };
}

function correct(
  batch: PaperBatch,
  original: BatchEvent,
  change: { body?: object | null; moved_min?: number; reason?: string },
  entering: Entering = {},
): BatchEvent {
  const at_ms = Date.parse(original.occurredAt);
  return batch.add(
    'entry.corrected',
    {
      replaces: original.id,
      type: original.type as 'note.written',
      body: (change.body === undefined ? original.body : change.body) as { text: string } | null,
      occurredAt:
        change.moved_min === undefined ? null : new Date(at_ms + change.moved_min * MINUTE).toISOString(),
      reason: change.reason ?? 'looked again',
    },
    entering,
  );
}
const told = (batch: PaperBatch, original: BatchEvent) => fold(batch.events).amendments[original.id];
const counts = (batch: PaperBatch, original: BatchEvent) =>
  told(batch, original)?.corrections.map(c => c.counts) ?? [];
const unsigned: Entering = { signs: false };

describe('a correction that makes the evidence of safety better', () => {
  const better: [EventType, string, Parameters<typeof correct>[2]][] = [
    ['ph.read', 'a reading above the limit, taken back', { body: null }],
    ['ph.read', 'a reading above the limit, lower', { body: { jar: 1, ph: 4.8 } }],
    ['ph.read', 'a reading moved to another time', { moved_min: -60 }],
    ['load.boil_lost', 'a lost boil, taken back', { body: null }],
    ['load.boil_lost', 'a lost boil, moved earlier', { moved_min: -11 }],
    ['load.boil_lost', 'a lost boil, moved later', { moved_min: 11 }],
    ['load.boiling', 'a boil, moved earlier', { moved_min: -5 }],
    ['load.boiling', 'a boil, taken back where another came before', { body: null }],
    ['load.heat_off', 'an end, moved later', { moved_min: 5 }],
    ['load.heat_off', 'an end, taken back', { body: null }],
    ['load.lifted', 'a lifting, moved earlier', { moved_min: -60 }],
    ['load.lifted', 'a lifting, moved later', { moved_min: 60 }],
    ['jars.pressed', 'a failed press, taken back', { body: null }],
    ['jars.pressed', 'a failed jar, now sealed', { body: { sealed: [1, 2], failed: [] } }],
    ['jars.pressed', 'a failed jar, now another', { body: { sealed: [2], failed: [1] } }],
    ['jars.pressed', 'a press, moved later', { moved_min: 5 }],
    ['dose.missed', 'a missed dose, taken back', { body: null }],
    ['dose.missed', 'a missed dose, of another jar', { body: { lineId: 'lemon', jars: [1] } }],
    ['temperature.read', 'a temperature, higher', { body: { where: 'pot', temp_C: 96 } }],
    ['temperature.read', 'a temperature, elsewhere', { body: { where: 'jar', temp_C: 95 } }],
    ['temperature.read', 'a temperature, earlier', { moved_min: -5 }],
    ['load.packed', 'a load with a jar more', { body: { jars: [1, 2, 3] } }],
    ['load.packed', 'a load in steam, now in water', { body: { heat: 'boiling water' } }],
    ['load.packed', 'a load, packed before its boil', { moved_min: -20 }],
    [
      'load.packed',
      'a load with new lids',
      { body: { newLidLotId: '00000000-0000-7000-8000-000000000009' } },
    ],
    ['dose.given', 'a dose in a jar more', { body: { jars: [1, 2, 3] } }],
    ['dose.given', 'a dose of something else', { body: { lineId: 'salt' } }],
    ['dose.given', 'a dose, given earlier', { moved_min: -20 }],
    ['jars.filled', 'a filling, moved later', { moved_min: 20 }],
    ['jars.pressed', 'one of two that failed, now sealed', { body: { sealed: [1], failed: [] } }],
  ];
  it.each(better)('%s: %s takes a signature', (type, _, change) => {
    const { batch, of } = kitchen();
    const original = of(type);
    const body = change.body ? { ...original.body, ...change.body } : change.body;
    const said = change.body === undefined ? change : { ...change, body: body as object | null };
    const by = correct(batch.wait(10), original, said, unsigned);
    expect(told(batch, original)).toMatchObject({
      standing: null,
      was: { type, body: original.body },
      corrections: [
        { correctionId: by.id, counts: false, slip: false, signed: false, reason: 'looked again' },
      ],
    });
    const signed = kitchen();
    correct(signed.batch.wait(10), signed.of(type), said);
    expect(counts(signed.batch, signed.of(type))).toEqual([true]);
  });

  const other: [EventType, string, Parameters<typeof correct>[2]][] = [
    ['ph.read', 'a reading, higher still', { body: { ph: 5.2 } }],
    ['ph.read', 'a reading, of another jar', { body: { jar: 2 } }],
    ['load.boiling', 'a boil, moved later', { moved_min: 2 }],
    ['load.heat_off', 'an end, moved earlier', { moved_min: -2 }],
    ['jars.pressed', 'one more that failed', { body: { sealed: [], failed: [1, 2] } }],
    ['jars.pressed', 'a press, moved earlier', { moved_min: -60 }],
    ['dose.missed', 'one more that was missed', { body: { jars: [1, 2] } }],
    ['temperature.read', 'a temperature, lower', { body: { temp_C: 90 } }],
    ['temperature.read', 'a pot that was not read at all', { body: null }],
    ['line.weighed', 'a weight', { body: { mass_g: 1900 } }],
    ['note.written', 'a note', { body: null }],
    ['jars.filled', 'a count of jars', { body: null }],
    ['load.packed', 'a load with a jar fewer', { body: { jars: [1] } }],
    ['load.packed', 'a load, said again', {}],
    ['dose.given', 'a dose in a jar fewer', { body: { jars: [1] } }],
    ['dose.given', 'a dose, taken back', { body: null }],
    ['jars.filled', 'a count of jars, another lot', { body: { jarLotId: null } }],
    ['load.boil_lost', 'a lost boil, said again', {}],
    ['load.boiling', 'a boil, said again', {}],
    ['load.heat_off', 'an end, said again', {}],
    ['load.lifted', 'a lifting, said again', {}],
    ['jars.pressed', 'a press, said again', {}],
    ['temperature.read', 'a temperature, said again', {}],
  ];
  it.each(other)('%s: %s takes none', (type, _, change) => {
    const { batch, of } = kitchen();
    const original = of(type);
    const said = change.body ? { ...change, body: { ...original.body, ...change.body } } : change;
    const by = correct(batch.wait(10), original, said, unsigned);
    expect(told(batch, original)).toMatchObject({
      standing: by.id,
      corrections: [{ counts: true, slip: false }],
    });
  });

  it('a reading below the limit may be lowered, and one that did not count may not be made to', () => {
    const { batch } = kitchen();
    const read = (over: object) => batch.readPh(4.1, over).events.at(-1) as BatchEvent<'ph.read'>;
    const low = read({});
    correct(batch.wait(10), low, { body: { ...low.body, ph: 3.9 } }, unsigned);
    expect(counts(batch, low)).toEqual([true]);
    const hot = read({ temp_C: 45 });
    correct(batch.wait(10), hot, { body: { ...hot.body, temp_C: 24 } }, unsigned);
    expect(counts(batch, hot)).toEqual([false]);
    const warm = read({});
    correct(batch.wait(10), warm, { body: { ...warm.body, temp_C: 45 } }, unsigned);
    expect(counts(batch, warm)).toEqual([true]);
    correct(batch.wait(10), low, { body: null }, unsigned);
    expect(counts(batch, low)).toEqual([true, true]);
  });

  it('of a reading is above the limit of this batch, and at the limit itself there is nothing to better', () => {
    const strict = new PaperBatch(crushedTomatoes, [{ size: 'pint', count: 4 }], { phLimit: 4.2 }).drawAll();
    const between = strict.readPh(4.4).events.at(-1) as BatchEvent;
    correct(strict.wait(10), between, { body: null }, unsigned);
    expect(counts(strict, between)).toEqual([false]);
    const { batch } = kitchen();
    const at = batch.readPh(4.6).events.at(-1) as BatchEvent<'ph.read'>;
    correct(batch.wait(10), at, { body: { ...at.body, ph: 4.5 } }, unsigned);
    correct(batch.wait(10), at, { body: null }, unsigned);
    expect(counts(batch, at)).toEqual([true, true]);
  });

  it('of two failed jars one is enough, and a jar that was read is no pot that was not', () => {
    const { batch } = kitchen();
    const press = batch.add('jars.pressed', { sealed: [], failed: [1, 2] });
    correct(batch.wait(10), press, { body: { sealed: [1], failed: [2], how: 'pressed' } }, unsigned);
    expect(counts(batch, press)).toEqual([false]);
    const jar = batch.add('temperature.read', { where: 'jar', temp_C: 60 });
    correct(batch.wait(10), jar, { body: null }, unsigned);
    expect(counts(batch, jar)).toEqual([false]);
    const missed = batch.add('dose.missed', { lineId: 'lemon', jars: [1, 2] });
    correct(batch.wait(10), missed, { body: { lineId: 'lemon', jars: [2] } }, unsigned);
    expect(counts(batch, missed)).toEqual([false]);
  });

  it('a lifting that ended its load may not be taken back by anybody, whatever ended other loads', () => {
    const { batch } = kitchen();
    const other = '00000000-0000-7000-8000-000000000002';
    batch.fill([3]).add('load.packed', { loadId: other, number: 2, jars: [3], newLidLotId: null });
    batch.wait(9).add('load.boiling', { loadId: other });
    const end = batch.wait(50).add('load.lifted', { loadId: other });
    correct(batch.wait(10), end, { body: null }, unsigned);
    expect(counts(batch, end)).toEqual([false]);
    const off = batch.add('load.heat_off', { loadId: other });
    correct(batch.wait(10), off, { body: null }, unsigned);
    expect(counts(batch, off)).toEqual([true]);
  });

  it('a second end may be taken back by anybody, the first may not', () => {
    const { batch, of } = kitchen();
    const second = batch.add('load.heat_off', { loadId });
    correct(batch.wait(10), second, { body: null }, unsigned);
    expect(counts(batch, second)).toEqual([true]);
    correct(batch, of('load.lifted'), { body: null }, unsigned);
    expect(counts(batch, of('load.lifted'))).toEqual([true]);
    correct(batch, of('load.heat_off'), { body: null }, unsigned);
    expect(counts(batch, of('load.heat_off'))).toEqual([false]);
  });

  it('is held against every version that stood before it, not against the last alone', () => {
    const { batch, of } = kitchen();
    const missed = of('dose.missed');
    correct(batch.wait(10), missed, { body: { lineId: 'lemon', jars: [1, 2] } }, unsigned);
    correct(batch.wait(10), missed, { body: { lineId: 'lemon', jars: [2] } }, unsigned);
    expect(counts(batch, missed)).toEqual([true, false]);
    // What was taken back and comes again is new evidence.
    const note = of('temperature.read');
    correct(batch.wait(10), note, { body: null }, unsigned);
    correct(batch.wait(10), note, {}, unsigned);
    expect(counts(batch, note)).toEqual([true, false]);
  });

  it('counts once somebody who may sign it does: a signature that arrived, of that correction', () => {
    const { batch, of } = kitchen();
    const lost = of('load.boil_lost');
    const by = correct(batch.wait(10), lost, { body: null }, unsigned);
    batch.add('correction.signed', { correctionId: randomUUID() });
    batch.add('correction.signed', { correctionId: by.id }, { waits: true });
    batch.add('correction.signed', { correctionId: by.id }, unsigned);
    expect(counts(batch, lost)).toEqual([false]);
    batch.add('correction.signed', { correctionId: by.id });
    expect(told(batch, lost)).toMatchObject({
      standing: by.id,
      corrections: [{ counts: true, signed: true }],
    });
    expect(fold(batch.events).loads[0]?.voided_s).toEqual([]);
  });

  it('waits for its arrival, whoever makes it', () => {
    const { batch, of } = kitchen();
    correct(batch.wait(10), of('load.boil_lost'), { body: null }, { waits: true });
    expect(counts(batch, of('load.boil_lost'))).toEqual([false]);
    const note = of('note.written');
    correct(batch, note, { body: { text: 'y' } }, { waits: true });
    expect(fold(batch.events).notes.map(n => n.text)).toEqual(['y']);
  });
});

describe('which correction counts', () => {
  it("is the one with the server's greatest number, whatever dates they carry and in whatever order they come", () => {
    const { batch, of } = kitchen();
    const note = of('note.written');
    const texts = ['one', 'two', 'three'];
    const made = texts.map((text, i) =>
      correct(batch.wait(1), note, { body: { text }, moved_min: i === 0 ? 5000 : -i }),
    );
    for (const events of [batch.events, batch.events.toReversed()])
      expect(fold(events).notes.map(n => n.text)).toEqual(['three']);
    expect(told(batch, note)?.corrections.map(c => c.correctionId)).toEqual(made.map(m => m.id));
  });

  it('is not the one that says it is the latest: the number decides, and while they wait the count of the device', () => {
    const { batch, of } = kitchen();
    const note = of('note.written');
    correct(batch.wait(10), note, { body: { text: 'first' } });
    // The second arrived later, and says it was made before the first.
    correct(batch.wait(10), note, { body: { text: 'second' } }, { typed: true, ago_min: 15 });
    expect(fold(batch.events).notes.map(n => n.text)).toEqual(['second']);
    correct(batch.wait(10), note, { body: { text: 'third' } }, { waits: true });
    correct(batch.wait(-5), note, { body: { text: 'fourth' } }, { waits: true, typed: true });
    expect(fold(batch.events).notes.map(n => n.text)).toEqual(['fourth']);
  });

  it('of an entry that still waits leaves it waiting, whatever time is typed', () => {
    const { batch } = kitchen();
    const waiting = batch.add('temperature.read', { where: 'pot', temp_C: 70 }, { waits: true });
    correct(
      batch.wait(10),
      waiting,
      { body: { ...waiting.body, temp_C: 69 }, moved_min: 3 },
      { waits: true },
    );
    expect(fold(batch.events).temperatures.find(t => t.by.eventId === waiting.id)).toMatchObject({
      temp_C: 69,
      by: { known: 'waiting', doubtful: false, corrected: true },
    });
  });

  it('is none of what is there no longer, of a decision, or of another kind', () => {
    const { batch, of } = kitchen();
    const before = JSON.stringify(fold(batch.events).weighed);
    batch.add('entry.corrected', {
      replaces: of('line.weighed').id,
      type: 'note.written',
      body: { text: 'z' },
      occurredAt: null,
      reason: 'no',
    });
    batch.add('entry.corrected', {
      replaces: of('lot.drawn').id,
      type: 'note.written',
      body: null,
      occurredAt: null,
      reason: 'no',
    });
    batch.add('entry.corrected', {
      replaces: randomUUID(),
      type: 'note.written',
      body: null,
      occurredAt: null,
      reason: 'no',
    });
    const state = fold(batch.events);
    expect(JSON.stringify(state.weighed)).toBe(before);
    expect(state.draws).toHaveLength(1);
    expect(Object.keys(state.amendments)).toEqual([]);
  });

  it('marks what stands as corrected, and moves no time past its arrival', () => {
    const { batch, of } = kitchen();
    const boiling = of('load.boiling');
    correct(batch.wait(10), boiling, { moved_min: -4 });
    const since = () => fold(batch.events).loads[0];
    // The boil that was lost is what stands of the load's run; its void is by the new time.
    expect(since()?.voided_s).toEqual([16 * 60]);
    correct(batch.wait(10), boiling, { moved_min: 60 * 24 * 365 });
    expect(since()?.voided_s).toEqual([12 * 60]);
    correct(batch.wait(10), of('temperature.read'), { body: { ...of('temperature.read').body, temp_C: 80 } });
    expect(fold(batch.events).temperatures.map(t => [t.temp_C, t.by.corrected])).toEqual([
      [80, true],
      [85, false],
    ]);
  });
});

describe('a slip', () => {
  const slip = (
    after_ms: number,
    entering: Entering = {},
    between: (b: PaperBatch) => unknown = () => undefined,
    type: EventType = 'jars.pressed',
  ) => {
    const { batch } = kitchen();
    const original = batch.events.findLast(e => e.type === type) as BatchEvent;
    const fresh = batch.wait(1).add(type as 'note.written', original.body as { text: string }, unsigned);
    between(batch);
    batch.now_ms += after_ms;
    correct(batch, fresh, { body: null }, { signs: false, ...entering });
    return told(batch, fresh)?.corrections[0];
  };

  it('is undone within two minutes, to the millisecond', () => {
    expect(slip(SLIP_MS)).toMatchObject({ counts: true, slip: true });
    expect(slip(SLIP_MS + 1)).toMatchObject({ counts: false, slip: false });
    expect(slip(0)?.slip).toBe(true);
  });

  it('by the same person, at once and not from paper', () => {
    expect(slip(1000, { device: new Device(randomUUID(), START_MS) })?.slip).toBe(false);
    expect(slip(1000, { typed: true })?.slip).toBe(false);
    // By a clock that cannot have been right it is none.
    expect(slip(1000, { sentOffset_ms: 13 * 3_600_000 })?.slip).toBe(false);
  });

  it('with nothing built on it', () => {
    const built: ((b: PaperBatch) => unknown)[] = [
      b => b.add('jars.released', { jars: [1], evidence: [] }),
      b => b.add('jars.taken', { jars: [2], lotId: randomUUID(), label: 'x', unitCost: '0' }),
      b => b.add('labels.printed', { jars: [1], ...printed('pint') }),
      b => b.add('deviation.settled', { key: `x:${b.events.at(-1)?.id}`, reason: 'so', minutes: null }),
    ];
    for (const between of built) expect(slip(1000, {}, between)?.slip).toBe(false);
    const apart: ((b: PaperBatch) => unknown)[] = [
      b => b.add('jars.released', { jars: [3], evidence: [] }),
      b => b.add('note.written', { text: 'meanwhile' }),
      b => b.add('deviation.settled', { key: 'x:y', reason: 'so', minutes: null }),
      b => b.add('load.lifted', { loadId: randomUUID() }),
    ];
    for (const between of apart) expect(slip(1000, {}, between)?.slip).toBe(true);
    // One of its jars is enough; a load has no jars of its own, so that any release is built on it.
    expect(slip(1000, {}, b => b.add('jars.released', { jars: [1, 3], evidence: [] }))?.slip).toBe(false);
    expect(
      slip(1000, {}, b => b.add('jars.released', { jars: [4], evidence: [] }), 'load.boil_lost')?.slip,
    ).toBe(false);
    const settled = (key: string) => (b: PaperBatch) =>
      b.add('deviation.settled', { key, reason: 'so', minutes: 15 });
    expect(slip(1000, {}, settled(`time_unverified:${loadId}`), 'load.boil_lost')?.slip).toBe(false);
    expect(slip(1000, {}, settled('time_unverified:another'), 'load.boil_lost')?.slip).toBe(true);
    // A load that went on is built on what was entered of it.
    expect(slip(1000, {}, b => b.add('load.lifted', { loadId }), 'load.boil_lost')?.slip).toBe(false);
    expect(slip(1000, {}, b => b.add('load.lifted', { loadId: randomUUID() }), 'load.boil_lost')?.slip).toBe(
      true,
    );
  });

  it('leaves no mark on what stands', () => {
    const { batch } = kitchen();
    const read = batch.wait(1).readPh(4.1).events.at(-1) as BatchEvent<'ph.read'>;
    batch.now_ms += 30_000;
    correct(batch, read, { body: { ...read.body, ph: 4.2 } });
    expect(fold(batch.events).readings.at(-1)).toMatchObject({ ph: 4.2, by: { corrected: false } });
    batch.wait(60);
    correct(batch, read, { body: { ...read.body, ph: 4.3 } });
    expect(fold(batch.events).readings.at(-1)).toMatchObject({ ph: 4.3, by: { corrected: true } });
  });
});

it('a figure that is typed anew was shown by no instrument; one that stays keeps its own', () => {
  const read = { where: 'pot', temp_C: 104, instrumentId: 'probe-1', checked: { at: 'then', off: 0.4 } };
  expect(retyped(read, { ...read, temp_C: 99 })).toEqual({
    ...read,
    temp_C: 99,
    instrumentId: null,
    checked: null,
  });
  expect(retyped(read, { ...read, where: 'jar' })).toEqual({ ...read, where: 'jar' });
  expect(retyped({ minutes: 5 }, { minutes: 7 })).toEqual({ minutes: 7 });
});
