import { randomUUID } from 'node:crypto';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { crushedTomatoes, plumJam } from '../../demo/recipes.ts';
import { PaperBatch, START_MS } from '../../testing/builders.ts';
import { Device } from '../../testing/device.ts';
import { placed } from '../../testing/placed.ts';
import { lineFrom } from '../recipes/index.ts';
import { type BatchEvent, DECISION_TYPES, elapsedBetween, fold, isDecision } from './index.ts';

const MINUTE = 60_000;
const jam = () => new PaperBatch(plumJam, [{ size: 'half-pint', count: 8 }]);
const tomatoes = () => new PaperBatch(crushedTomatoes, [{ size: 'pint', count: 4 }]);
const codes = (batch: PaperBatch) => fold(batch.events).deviations.map(d => d.code);

describe('what is entered', () => {
  it('weights add up, a measure is replaced by the next, a step begins and ends once', () => {
    const batch = jam();
    batch.fact('line.weighed', { lineId: 'sugar', mass_g: 700 }).wait(1);
    batch.fact('line.weighed', { lineId: 'sugar', mass_g: 650.5 });
    batch.fact('step.started', { stepId: 'boil' }).wait(5).fact('step.started', { stepId: 'boil' });
    batch.fact('step.done', { stepId: 'boil' }).wait(5).fact('step.done', { stepId: 'boil' });
    batch.fact('measure.taken', { stepId: 'boil', quantity: 2, unit: 'mL' }).wait(1);
    batch.fact('measure.taken', { stepId: 'boil', quantity: 3, unit: 'g' });
    const state = fold(batch.events);
    expect(state.weighed['sugar']).toMatchObject({ mass_g: 1350.5 });
    expect(state.weighed['sugar']?.by.at_ms).toBe(START_MS + MINUTE);
    expect(state.measures['boil']).toMatchObject({ quantity: 3, unit: 'g' });
    expect(state.steps['boil']?.started?.at_ms).toBe(START_MS + MINUTE);
    expect(state.steps['boil']?.done?.at_ms).toBe(START_MS + 6 * MINUTE);
    expect(state.deviations).toEqual([]);
  });

  it('every fact has its place, its person, its instant, and whether it was typed in afterwards', () => {
    const batch = jam().fill([1, 2, 3]);
    const other = randomUUID();
    batch.wait(1).fact('minutes.worked', { minutes: 30 });
    batch.wait(1).fact('kitchen.worked', { minutes: 20 });
    batch.wait(1).fact('minutes.shared', { minutes: 10, with: [other] });
    batch.fact('energy.used', { burnerId: 'front', minutes: 12 });
    batch.fact('note.written', { text: 'It set early.' });
    batch.fact('yield.explained', { reason: 'tasted' });
    batch.add('temperature.read', { where: 'pot', temp_C: 102 }, { typed: true });
    batch.add('lots.returned', {
      lots: [{ lotId: other, quantity: '2', unitCost: '0.1' }],
      reason: 'not needed',
    });
    batch.add('jars.taken', { jars: [3], lotId: other, label: 'JAM', unitCost: '1' });
    const state = fold(batch.events);
    expect(state.minutes.map(m => [m.kind, m.minutes, m.with])).toEqual([
      ['batch', 30, []],
      ['kitchen', 20, []],
      ['batch', 10, [other]],
    ]);
    expect(state.energy).toMatchObject([{ burnerId: 'front', minutes: 12 }]);
    expect(state.notes).toMatchObject([{ text: 'It set early.', by: { known: 'live' } }]);
    expect(state.yieldReasons).toMatchObject([{ reason: 'tasted' }]);
    expect(state.temperatures).toMatchObject([
      {
        where: 'pot',
        temp_C: 102,
        by: { known: 'written up', personId: batch.device.personId, at_ms: batch.now_ms },
      },
    ]);
    expect(state.returns).toMatchObject([{ reason: 'not needed', lots: [{ lotId: other, quantity: '2' }] }]);
    expect(state.taken).toMatchObject([{ jars: [3], lotId: other }]);
    expect(state.jars[2]?.setAside).toMatchObject({ why: 'used in the kitchen' });
    // The kitchen of this test has no burner: a matter of the books, that holds no jar.
    expect(state.deviations).toEqual([]);
    expect(state.books.map(b => b.key.split(':')[0])).toEqual(['unknown_burner']);
  });

  it('a jar set aside stays so for the first reason, and a press of it changes nothing about that', () => {
    const batch = jam().cookWell();
    batch.fact('jars.set_aside', { jars: [2], why: 'broken' });
    batch.wait(1).fact('jars.set_aside', { jars: [2], why: 'gifted' });
    batch.wait(1).fact('jars.pressed', { sealed: [2], failed: [] });
    expect(fold(batch.events).jars[1]?.setAside?.why).toBe('broken');
  });

  it('filled twice keeps the first filling, and holds the jar', () => {
    const batch = jam().fill([1, 2]);
    batch.fact('jars.filled', { size: 'pint', jars: [2, 3], jarLotId: null, lidLotId: null });
    const state = fold(batch.events);
    expect(state.jars.map(j => [j.number, j.size, j.lidLotId])).toEqual([
      [1, 'half-pint', batch.lidLotId],
      [2, 'half-pint', batch.lidLotId],
      [3, 'pint', null],
    ]);
    expect(state.deviations).toMatchObject([
      { code: 'filled_twice', jars: [2], what: 'Jar 2 was recorded as filled twice.', settles: null },
    ]);
  });

  it('jars are listed by their number, however they were filled', () => {
    const batch = jam().fill([7, 2]).fill([5]);
    expect(fold(batch.events).jars.map(j => j.number)).toEqual([2, 5, 7]);
  });

  it('each kind of entry says what it did with a jar that was never filled', () => {
    const unknown: [(b: PaperBatch) => unknown, string][] = [
      [b => b.fact('dose.given', { lineId: 'lemon', jars: [9] }), 'Jar 9 was dosed'],
      [b => b.fact('dose.missed', { lineId: 'lemon', jars: [9] }), 'Jar 9 was named'],
      [b => b.fact('jars.set_aside', { jars: [8, 9], why: 'broken' }), 'Jar 8, 9 was set aside'],
      [b => b.add('jars.taken', { jars: [9], lotId: 'l', label: '', unitCost: '0' }), 'Jar 9 was taken'],
      [b => b.fact('jars.pressed', { sealed: [], failed: [9] }), 'Jar 9 was pressed'],
      [b => b.readPh(3.9, { jar: 9 }), 'Jar 9 was measured'],
    ];
    for (const [enter, what] of unknown) {
      const batch = tomatoes().fill([1]);
      enter(batch);
      expect(fold(batch.events).deviations).toMatchObject([
        { code: 'unknown_jar', jars: [], what: `${what} but never recorded as filled.`, settles: null },
      ]);
    }
  });

  it('a dose that was missed opens a deviation for acid, and none for spice', () => {
    const spiced = {
      ...crushedTomatoes,
      lines: [
        ...crushedTomatoes.lines,
        {
          ...(crushedTomatoes.lines[1] as (typeof crushedTomatoes.lines)[number]),
          id: 'basil',
          name: 'Basil',
          role: 'spice' as const,
        },
      ],
    };
    const batch = new PaperBatch(spiced, [{ size: 'pint', count: 2 }]).fill([1, 2]);
    batch.fact('dose.missed', { lineId: 'basil', jars: [1] });
    expect(codes(batch)).toEqual([]);
    batch.fact('dose.missed', { lineId: 'lemon', jars: [1, 2] });
    expect(fold(batch.events).deviations.map(d => [d.key, d.what])).toEqual([
      ['dose_missed:lemon:1', 'Jar 1 was closed without its Bottled lemon juice.'],
      ['dose_missed:lemon:2', 'Jar 2 was closed without its Bottled lemon juice.'],
    ]);
  });

  it('names nobody foresaw open a deviation or a note each and break nothing', () => {
    for (const name of ['__proto__', 'constructor', 'toString', '', 'x'.repeat(300)]) {
      const batch = jam();
      batch.fact('step.started', { stepId: name }).fact('step.done', { stepId: name });
      batch.fact('line.weighed', { lineId: name, mass_g: 1 });
      batch.fact('measure.taken', { stepId: name, quantity: 1, unit: 'g' });
      const state = fold(batch.events);
      expect(state.deviations.map(d => d.code)).toEqual(['unknown_line']);
      expect(state.deviations.every(d => d.what.length < 130 && d.settles === null)).toBe(true);
      expect(state.books.map(b => b.key.split(':')[0])).toEqual(Array(3).fill('unknown_step'));
      expect(Object.keys(state.steps)).toEqual([name]);
    }
  });

  it('a line added while cooking stands once among the lines, however often it is entered', () => {
    const batch = jam();
    const line = lineFrom(
      'extra',
      (plumJam.lines[0] as (typeof plumJam.lines)[number]).amount,
      'Extra',
      null,
    );
    batch.fact('line.added', { line }).fact('line.added', { line });
    batch.fact('line.added', { line: { ...line, id: 'plums', name: 'Not these' } });
    const state = fold(batch.events);
    expect(state.started?.recipe.lines.map(l => l.name)).toEqual([
      ...plumJam.lines.map(l => l.name),
      'Extra',
    ]);
    expect(state.added).toHaveLength(3);
    expect(codes(batch)).toEqual(['line_added', 'line_added', 'line_added']);
  });
});

describe('what may be settled of what was added', () => {
  it('is salt and a little of what is dried; anything else holds the batch for good', () => {
    const little = {
      ...(plumJam.lines[0] as (typeof plumJam.lines)[number]).amount,
      text: '1 g',
      unit: 'g',
      value: '1',
    } as const;
    const base = lineFrom('x', little, 'It', null);
    for (const [over, settles] of [
      [{ role: 'salt', freshFactor: 1 }, 'reason'],
      [{ role: 'spice', freshFactor: 3 }, 'reason'],
      [{ role: 'spice', freshFactor: 1 }, null],
      [{ role: 'fruit', freshFactor: 3 }, null],
      [{ role: 'low-acid produce', freshFactor: 1 }, null],
      [{ role: 'spice', freshFactor: 3, name: 'Garlic in oil' }, null],
      [{ role: 'spice', freshFactor: 3, amount: { ...little, text: '5 kg', unit: 'kg', value: '5' } }, null],
      [{ role: 'salt', freshFactor: 1, amount: { ...little, text: '1 kg', unit: 'kg', value: '1' } }, null],
    ] as const) {
      const batch = jam().fact('line.added', { line: { ...base, ...over } as typeof base });
      expect([over, fold(batch.events).deviations[0]?.settles]).toEqual([over, settles]);
    }
    // What it says it is and what was weighed of it are two things.
    const weighed = jam().fact('line.added', { line: { ...base, role: 'spice', freshFactor: 3 } });
    weighed.fact('line.weighed', { lineId: 'x', mass_g: 5000 });
    expect(fold(weighed.events).deviations[0]?.settles).toBeNull();
  });

  it('is settled by a reason alone, by somebody who may sign, once it has gone in', () => {
    const little = {
      ...(plumJam.lines[0] as (typeof plumJam.lines)[number]).amount,
      text: '1 g',
      unit: 'g',
      value: '1',
    } as const;
    const line = { ...lineFrom('x', little, 'Dried thyme', null), role: 'spice', freshFactor: 3 } as const;
    const batch = jam();
    const added = batch.wait(1).add('line.added', { line });
    const key = `line_added:${added.id}`;
    const settled = () => fold(batch.events).deviations[0]?.settled;
    batch.wait(1).add('deviation.settled', { key, reason: 'a pinch', minutes: null }, { signs: false });
    expect(settled()).toBeNull();
    batch.add('deviation.settled', { key, reason: 'before it', minutes: null }, { typed: true, ago_min: 60 });
    expect(settled()).toBeNull();
    batch.add('deviation.settled', { key, reason: 'a pinch', minutes: null });
    expect(settled()).toMatchObject({ reason: 'a pinch' });
  });
});

describe('a burner', () => {
  it('of this kitchen may be named; one of another may not, in a sketch neither', () => {
    const started = fold(jam().events).started as NonNullable<ReturnType<typeof fold>['started']>;
    const burners = [{ id: 'front', name: 'Front', kind: 'electric' as const, power_W: 1800 }];
    const kitchen = { ...started.kitchen, costs: { ...started.kitchen.costs, burners } };
    for (const sketch of [false, true]) {
      const batch = new PaperBatch({ ...plumJam, sketch }, [{ size: 'half-pint', count: 8 }], {
        kitchen,
      });
      batch.fact('energy.used', { burnerId: 'front', minutes: 5 });
      expect(codes(batch)).toEqual([]);
      batch.fact('step.started', { stepId: 'unheard of' });
      const books = () => fold(batch.events).books.map(b => b.key.split(':')[0]);
      expect(books()).toEqual(sketch ? [] : ['unknown_step']);
      batch.fact('energy.used', { burnerId: 'back', minutes: 5 });
      expect(books().at(-1)).toBe('unknown_burner');
    }
  });
});

describe('corrections', () => {
  const correct = (
    batch: PaperBatch,
    original: BatchEvent,
    body: object | null,
    occurredAt: string | null = null,
  ) =>
    batch.wait(1).add('entry.corrected', {
      replaces: original.id,
      type: original.type as 'note.written',
      body: body as { text: string } | null,
      occurredAt,
      reason: 'a slip',
    });

  it('of a time moves the entry to where it belongs, and marks it as typed', () => {
    const batch = jam().fill([1, 2]);
    const loadId = randomUUID();
    batch.fact('load.packed', { loadId, number: 1, jars: [1, 2], newLidLotId: null });
    batch.wait(10);
    const late = batch.add('load.boiling', { loadId });
    const boiled_ms = batch.now_ms - 6 * MINUTE;
    batch.wait(10).fact('load.heat_off', { loadId }).fact('load.lifted', { loadId });
    expect(fold(batch.events).loads[0]).toMatchObject({ phase: 'short', time_s: 600 });
    const fix = correct(batch, late, { loadId }, new Date(boiled_ms).toISOString());
    const state = fold(batch.events);
    expect(state.loads[0]).toMatchObject({
      phase: 'processed',
      time_s: 16 * 60,
      timeHow: 'from times typed in afterwards',
    });
    expect(state.loads[0]?.boilingSince).toMatchObject({
      at_ms: boiled_ms,
      known: 'written up',
      corrected: true,
      eventId: late.id,
    });
    expect(state.amendments[late.id]).toMatchObject({ standing: fix.id, was: { type: 'load.boiling' } });
  });

  it('of a time puts the entry among the others anew, earlier or later', () => {
    const batch = jam();
    const notes = ['one', 'two', 'three'].map(text => batch.wait(10).add('note.written', { text }));
    const texts = () => fold(batch.events).notes.map(n => n.text);
    expect(texts()).toEqual(['one', 'two', 'three']);
    const at = (minutes: number) => new Date(START_MS + minutes * MINUTE).toISOString();
    correct(batch, notes[2] as BatchEvent, { text: 'three' }, at(5));
    expect(texts()).toEqual(['three', 'one', 'two']);
    // Nothing happened after it arrived: the first note came at ten minutes, and lies no later, whatever is typed.
    correct(batch, notes[0] as BatchEvent, { text: 'one' }, at(25));
    expect(texts()).toEqual(['three', 'one', 'two']);
    correct(batch, notes[1] as BatchEvent, { text: 'two' }, '2099-01-01T00:00:00.000Z');
    expect(texts()).toEqual(['three', 'one', 'two']);
    correct(batch, notes[1] as BatchEvent, { text: 'two' }, at(1));
    expect(texts()).toEqual(['two', 'three', 'one']);
  });

  it('the last one counts; each names what it replaced', () => {
    const batch = jam();
    const note = batch.add('note.written', { text: 'one' });
    correct(batch, note, { text: 'two' });
    const last = correct(batch, note, { text: 'three' });
    expect(fold(batch.events).notes.map(n => n.text)).toEqual(['three']);
    expect(fold(batch.events).amendments[note.id]?.standing).toBe(last.id);
    correct(batch, note, null);
    expect(fold(batch.events).notes).toEqual([]);
  });

  it('may arrive before what they correct', () => {
    const batch = jam();
    const note = batch.add('note.written', { text: 'one' });
    correct(batch, note, { text: 'two' });
    const [started, first, fix] = batch.events as [BatchEvent, BatchEvent, BatchEvent];
    expect(fold([started, fix]).notes).toEqual([]);
    expect(fold([fix, first, started]).notes.map(n => n.text)).toEqual(['two']);
  });

  it('touch no decision, whatever kind they say they are of', () => {
    for (const type of DECISION_TYPES) expect(isDecision(type)).toBe(true);
    expect(isDecision('note.written')).toBe(false);
    const batch = jam().cookWell();
    batch.add('jars.released', { jars: [1], evidence: [] });
    const released = batch.events.at(-1) as BatchEvent;
    correct(batch, released, null);
    expect(fold(batch.events).releases).toHaveLength(1);
    expect(fold(batch.events).amendments).toEqual({});
  });
});

describe('the time between entries', () => {
  it('time between two entries is never more than any of its clocks says', () => {
    const clock = fc.record({
      wall_ms: fc.integer({ min: 0, max: 7_200_000 }),
      page_ms: fc.integer({ min: 0, max: 7_200_000 }),
    });
    fc.assert(
      fc.property(clock, clock, (a, b) => {
        const stamp = new Device('p', START_MS).stamp(START_MS);
        const at = ({ wall_ms, page_ms }: typeof a) => ({
          ...stamp,
          wallClock: new Date(START_MS + wall_ms).toISOString(),
          monotonic_ms: page_ms,
        });
        const got = elapsedBetween(placed(at(a)), placed(at(b)));
        const page_s = (b.page_ms - a.page_ms) / 1000;
        const wall_s = (b.wall_ms - a.wall_ms) / 1000;
        expect(got.verified).toBe(Math.abs(page_s - wall_s) <= 5);
        expect(got.time_s).toBeCloseTo(got.verified ? page_s : Math.min(page_s, wall_s), 6);
        if (!got.verified)
          expect(got.how).toBe(`two clocks disagree by ${Math.round(Math.abs(page_s - wall_s))} s`);
      }),
    );
  });
});
