import fc from 'fast-check';
import { afterEach, describe, expect, it } from 'vitest';
import { fold } from '../batches/index.ts';
import { gate, assess, summarise } from '../checks/index.ts';
import { readPasted } from '../exchange/index.ts';
import { nameIndex } from '../ingredients/index.ts';
import { fromCsv, fromJsonLd, toCsv } from '../exchange/index.ts';
import { emptyMapping, guessColumns, readTable, toReceipts } from '../stores/index.ts';
import { plumJam } from '../../demo/recipes.ts';
import { PaperBatch } from '../../testing/builders.ts';
import { byName, ofNames, readAmount, readNumber, under } from './index.ts';

/** Names that every plain object knows already, and some that it does not. */
const ODD = [
  '__proto__',
  'constructor',
  'toString',
  'hasOwnProperty',
  'valueOf',
  'prototype',
  '__defineGetter__',
  'isPrototypeOf',
];
const odd = fc.oneof(fc.constantFrom(...ODD), fc.string({ minLength: 1, maxLength: 12 }));

/** Whatever was done, the prototype that everything shares holds what it held. */
const before = Object.getOwnPropertyNames(Object.prototype).sort().join();
afterEach(() => {
  expect(Object.getOwnPropertyNames(Object.prototype).sort().join()).toBe(before);
  expect(({} as { started?: unknown }).started).toBeUndefined();
});

describe('a table by name', () => {
  it('holds what was put under a name, whatever the name, and nothing else', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(odd, fc.integer())), odd, (pairs, asked) => {
        const table = byName(pairs);
        const map = new Map(pairs);
        expect(table[asked]).toBe(map.get(asked));
        expect(Object.keys(table).sort()).toEqual([...map.keys()].sort());
        expect(under(JSON.parse(JSON.stringify(table)) as Record<string, number>, asked)).toBe(
          map.get(asked),
        );
        table[asked] = 7;
        expect(table[asked]).toBe(7);
      }),
    );
  });
  it('is not there for what is not there', () => {
    expect([under(null, 'x'), under(undefined, '__proto__'), under({}, 'constructor')]).toEqual([
      undefined,
      undefined,
      undefined,
    ]);
    expect(ofNames([['pint', 1]]).pint).toBe(1);
  });
});

describe('the record', () => {
  /** Every fact that names a step, a line or a burner, naming this. */
  const naming = (name: string) => {
    const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 4 }]);
    batch
      .fact('jars.filled', { size: 'half-pint', jars: [1, 2, 3, 4], jarLotId: null, lidLotId: null })
      .fact('step.started', { stepId: name })
      .fact('step.done', { stepId: name })
      .fact('measure.taken', { stepId: name, quantity: 3, unit: 'g' })
      .fact('line.weighed', { lineId: name, mass_g: 5 })
      .fact('dose.given', { lineId: name, jars: [1] })
      .fact('dose.missed', { lineId: name, jars: [2] })
      .fact('energy.used', { burnerId: name, minutes: 3 });
    return batch;
  };

  it('takes any name for a step, a line or a burner, and holds what names one that is not there', () => {
    fc.assert(
      fc.property(odd, name => {
        const batch = naming(name);
        const state = fold(batch.events);
        expect(state.steps[name]?.done).not.toBeNull();
        expect(state.weighed[name]?.mass_g).toBe(5);
        expect(state.measures[name]?.quantity).toBe(3);
        expect(state.jars.map(j => j.doses[name]?.is)).toEqual(['given', 'missed', undefined, undefined]);
        const codes = state.deviations.map(d => d.code);
        const books = state.books.map(b => b.key.split(':')[0]);
        expect(books.filter(c => c === 'unknown_step')).toHaveLength(3);
        expect(codes.filter(c => c === 'unknown_line')).toHaveLength(3);
        expect(books.filter(c => c === 'unknown_burner')).toHaveLength(1);
        expect(gate(state).releasable).toEqual([]);
        expect(summarise(assess(batch.events)).released).toBe(0);
        // Delivered twice and in another order it is the same.
        expect(fold([...batch.events].reverse().concat(batch.events))).toEqual(state);
      }),
      { numRuns: 60 },
    );
  });

  it('holds nothing for what the batch does have', () => {
    const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 4 }]);
    for (const step of plumJam.steps) batch.fact('step.done', { stepId: step.id });
    for (const line of plumJam.lines) batch.fact('line.weighed', { lineId: line.id, mass_g: 100 });
    expect(fold(batch.events).deviations.filter(d => d.code.startsWith('unknown_'))).toEqual([]);
  });

  it('settles such an entry with what was meant, and lets go once it is taken back', () => {
    const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 4 }]);
    const wrong = batch.add('step.done', { stepId: '__proto__' });
    const held = fold(batch.events).books.find(b => b.key.startsWith('unknown_step'));
    expect(held).toMatchObject({ settled: null });
    const settled = fold(
      batch.wait(1).fact('deviation.settled', { key: held?.key ?? '', reason: 'Stirred it.', minutes: null })
        .events,
    );
    expect(settled.books.find(b => b.key === held?.key)?.settled?.reason).toBe('Stirred it.');
    batch.wait(1).fact('entry.corrected', {
      replaces: wrong.id,
      type: 'step.done',
      body: null,
      occurredAt: null,
      reason: 'Another batch.',
    });
    expect(fold(batch.events).books.find(b => b.key === held?.key)).toBeUndefined();
  });
});

describe('every reader', () => {
  let n = 0;
  const newId = () => `id${n++}`;
  it('takes an odd name for a name', () => {
    fc.assert(
      fc.property(odd, name => {
        for (const text of [name, `2 ${name}`, `2 cups ${name}`, `${name}: 3 lb`, `1 ${name} of plums`])
          for (const read of [
            () => readAmount(text, 'en-US'),
            () => readNumber(text, 'en-US', { name: 'x', min: 0, max: 9 }),
            () => readPasted(text, 'en-US', nameIndex([]), newId),
          ])
            expect(read).not.toThrow();
      }),
      { numRuns: 200 },
    );
  });

  it('takes a file whose columns, rows and things bear one', () => {
    fc.assert(
      fc.property(odd, name => {
        const cell = `"${name.replaceAll('"', '""')}"`;
        const csv = `record,name,${cell}\r\n${cell},${cell},${cell}\r\nrecipe,${cell},1\r\n`;
        expect(() => fromCsv(csv)).not.toThrow();
        const recipe = JSON.stringify({
          '@type': 'Recipe',
          name,
          [name]: name,
          recipeIngredient: [`2 ${name}`],
        });
        expect(() => fromJsonLd(recipe, 'en-US', nameIndex([]), newId)).not.toThrow();
        const renamed = { ...plumJam, name: name.trim() || 'x', notes: name };
        const back = fromCsv(toCsv([renamed]));
        expect(back.ok ? (back.recipes[0] as { value: { notes: string } }).value.notes : '').toBe(name);
        const table = readTable(`${cell},day,item\r\n${cell},2026-11-01,${cell}\r\n`);
        const columns = { ...guessColumns(table.headings), price: name, [name]: name } as never;
        const names = byName([[name.toLowerCase(), name]]);
        expect(() =>
          toReceipts(table, { ...emptyMapping, columns, names }, [], '2026-11-25', newId),
        ).not.toThrow();
      }),
      { numRuns: 100 },
    );
  });
});
