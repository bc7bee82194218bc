import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import * as demo from '../demo/recipes.ts';
import { evidenceFaults } from '../core/acid/index.ts';
import { fold, readWhen } from '../core/batches/index.ts';
import { assess, summarise } from '../core/checks/index.ts';
import { forecast } from '../core/forecast/index.ts';
import { plainCosts } from '../core/kitchen/index.ts';
import { Fraction } from '../core/measure/index.ts';
import { eventWords, recordOf } from '../core/records/index.ts';
import { LINE_ROLES } from '../core/ingredients/index.ts';
import type { Line, Recipe } from '../core/recipes/index.ts';
import { authorityFault, formulaOf, processFor, review } from '../core/review/index.ts';
import { batchCost, drawFault, plainFacts } from '../core/stores/index.ts';
import { PaperBatch } from './builders.ts';

const GERMAN = {
  locale: 'de-DE',
  currency: 'EUR',
  zone: 'UTC',
  temperature: 'C',
  altitude: 'm',
  measures: 'metric',
  paper: 'A4',
} as const;
const RECIPES = Object.values(demo).filter((r): r is Recipe => 'lines' in r && 'authority' in r);

/** Keys whose text was written by somebody: a publication, a person, a program. */
const QUOTED = new Set(['source', 'id', 'text', 'at', 'stamp', 'receipt', 'band', 'rowId', 'edition', 'key']);

/** Sections of the law are names. */
const LAW = /21 CFR [\d.]+(?: and [\d.]+)*/g;

/** Sentences with a decimal point, which stands for thousands in this kitchen. */
function pointed(value: unknown, key = ''): string[] {
  if (typeof value === 'string')
    return !QUOTED.has(key) && /\d\.(?!\d{3}(?!\d))\d/.test(value.replaceAll(LAW, ''))
      ? [`${key}: ${value}`]
      : [];
  if (value === null || typeof value !== 'object') return [];
  return Object.entries(value).flatMap(([k, v]) => pointed(v, Array.isArray(value) ? key : k));
}

const amount = fc.integer({ min: 1, max: 4000 });
/** A recipe of the book, any of its lines changed. */
const changed = fc
  .record({
    recipe: fc.constantFrom(...RECIPES),
    lines: fc.array(
      fc.record({
        at: fc.nat(20),
        tenths: amount,
        role: fc.option(fc.constantFrom(...LINE_ROLES), { nil: undefined }),
        strength: fc.option(fc.integer({ min: 31, max: 79 }), { nil: undefined }),
        fresh: fc.option(fc.integer({ min: 11, max: 99 }), { nil: undefined }),
      }),
      { maxLength: 4 },
    ),
    taken: fc.boolean(),
  })
  .map(({ recipe, lines, taken }): Recipe => {
    const now = structuredClone(recipe);
    for (const { at, tenths, role, strength, fresh } of lines) {
      const line = now.lines[at % now.lines.length] as Line;
      line.amount = { ...line.amount, value: `${tenths}/10`, upTo: null };
      if (role) line.role = role;
      if (strength) line.minStrength_pct = strength / 10;
      if (fresh) line.freshFactor = fresh / 10;
    }
    return taken ? { ...now, tested: { takenOn: '2026-01-01', ...formulaOf(recipe) } } : now;
  });

describe('what is said to a kitchen that writes its decimals with a comma', () => {
  it('finds a point where there is one', () => {
    expect(pointed({ what: 'Salt is 2.10 % of it.' })).toHaveLength(1);
    expect(pointed({ what: 'Salt is 2,10 % of 1.200 g.', why: '21 CFR 114.80 and 114.90' })).toEqual([]);
  });

  it('reviews, refusals and routes', () => {
    let figures = 0;
    fc.assert(
      fc.property(changed, fc.double({ min: 0, max: 90, noNaN: true }), (recipe, solids_pct) => {
        const said = {
          review: review(recipe, GERMAN, solids_pct),
          fault: authorityFault(recipe, GERMAN),
          none: recipe.jars.map(j => processFor(recipe, j.size, 700.5, GERMAN)).filter(a => !a.ok),
        };
        figures += (JSON.stringify(said).match(/\d,\d/g) ?? []).length;
        // The line's own name and amount are as they were written.
        expect(pointed(said)).toEqual([]);
      }),
      { numRuns: 400 },
    );
    // Else nothing was looked at.
    expect(figures).toBeGreaterThan(400);
  });

  it('forecasts that cannot be', () => {
    const faults = RECIPES.flatMap(recipe =>
      [0.05, 0.5, 2].flatMap(volume => {
        const steps = recipe.steps.map(s =>
          s.kind === 'cook' ? { ...s, target: { kind: 'volume' as const, volume_mL: volume * 7234.5 } } : s,
        );
        const kitchen = {
          locale: 'de-DE',
          altitude_m: 716,
          thermometerError_C: 0,
          pot: null,
          pots: 1,
          headspace_mm: 6.35,
        };
        return forecast({ ...recipe, steps }, new Fraction(1), kitchen, ['pint']).faults;
      }),
    );
    expect(faults.length).toBeGreaterThan(4);
    expect(pointed(faults)).toEqual([]);
  });

  it('lots that may not serve', () => {
    const item = { kind: 'ingredient', name: 'Vinegar', use: 'vinegar', unit: 'mL' } as never;
    const lot = { label: 'A', strength_pct: 4.5, facts: plainFacts(), bestBy: '2026-01-31' };
    const line = { ...(demo.waxBeans.lines.find(l => l.id === 'vinegar') as Line), minStrength_pct: 5.5 };
    const use = { line, recipe: demo.waxBeans, purpose: 'sale' as const, today: '2026-02-02' };
    const ask = (quantity: string, of = lot) =>
      drawFault(item, of, { ...use, figures: GERMAN }, quantity, '1234.5');
    expect(ask('2.5')?.what).toBe('Lot A is 4,5 %, the recipe needs 5,5 %.');
    expect(ask('1300.25')?.what).toBe('Lot A holds 1234,5 mL of Vinegar, not 1300,25.');
    const made = { ...lot, strength_pct: 6, facts: plainFacts({ source: 'made here' }) };
    expect(ask('2.5', made)?.what).toBe('Lot A passed its keeping limit on 31. Jan. 2026.');
  });

  it('the gate, the record and the cost of a batch, whatever was read of it', () => {
    const kitchen = {
      ...GERMAN,
      name: 'K',
      altitude_m: 716.28,
      hourlyRate: '18.50',
      thermometerError_C: 0.25,
      costs: plainCosts,
    };
    let figures = 0;
    fc.assert(
      fc.property(
        fc.nat(RECIPES.length - 1),
        fc.integer({ min: 30, max: 60 }),
        fc.integer({ min: 150, max: 350 }),
        fc.integer({ min: 10, max: 40_000 }),
        (at, ph_tenths, temp_tenths, mass_tenths) => {
          const recipe = RECIPES[at] as Recipe;
          const size = recipe.makes.size;
          const batch = new PaperBatch(recipe, [{ size, count: 3 }], { kitchen });
          batch.fact('line.weighed', { lineId: recipe.lines[0]?.id ?? '', mass_g: mass_tenths / 10 });
          batch.fact('minutes.worked', { minutes: 12.5 });
          batch.cookWell().readPh(ph_tenths / 10, { temp_C: temp_tenths / 10, buffers: [7, 10] });
          const state = fold(batch.events);
          const said = {
            assessment: assess(batch.events).standing,
            summary: summarise(assess(batch.events)),
            readings: state.readings.map(r =>
              evidenceFaults(r, { ...readWhen(state, r), hours: 3.55 }, GERMAN),
            ),
            record: recordOf(batch.events).map(l => eventWords(l.event, recipe, GERMAN)),
            cost: batchCost(state)?.lines.map(l => l.detail),
          };
          figures += (JSON.stringify(said).match(/\d,\d/g) ?? []).length;
          expect(pointed(said)).toEqual([]);
        },
      ),
      { numRuns: 100 },
    );
    expect(figures).toBeGreaterThan(1000);
  });
});
