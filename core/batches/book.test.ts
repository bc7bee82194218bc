import { describe, expect, it } from 'vitest';
import { currantJelly, plumJam, waxBeans } from '../../demo/recipes.ts';
import { PaperBatch } from '../../testing/builders.ts';
import { assess, gate, summarise } from '../checks/index.ts';
import { ingredientStatement } from '../labels/index.ts';
import { readAmount } from '../measure/index.ts';
import { libraryOf } from '../ingredients/index.ts';
import { type Line, type Recipe, emptyRecipe, lineFrom, noTerms, recipeFaults } from '../recipes/index.ts';
import { type BatchEvent, fold, lineMasses, recipeFromBatch } from './index.ts';

const LIBRARY = libraryOf([]);
const line = (id: string, ingredientId: string, text: string): Line => {
  const read = readAmount(text, 'en-US');
  if (!read.ok) throw new Error(read.fault.what);
  const ingredient = LIBRARY.find(i => i.id === ingredientId) ?? null;
  return { ...lineFrom(id, read.value, ingredient?.name ?? ingredientId, ingredient), basis: 'prepared' };
};
const codes = (events: BatchEvent[]) => fold(events).deviations.map(d => d.code);

describe('measured in the batch', () => {
  it('an amount that hangs on a measure follows what was measured', () => {
    const batch = new PaperBatch(currantJelly, [{ size: 'half-pint', count: 9 }]);
    const sugar = () => lineMasses(fold(batch.events)).find(m => m.line.id === 'sugar')?.planned_g;
    expect(sugar()).toBeCloseTo(1700, 6);
    batch.add('measure.taken', { stepId: 'juice', quantity: 1850, unit: 'mL' });
    expect(sugar()).toBeCloseTo(1572.5, 6);
    // A weight where a volume hangs on it settles nothing, and breaks nothing.
    batch.wait(1).add('measure.taken', { stepId: 'juice', quantity: 1850, unit: 'g' });
    expect(sugar()).toBeCloseTo(1700, 6);
  });

  it('the label goes by what stays in the food: strained off, lifted out, dipped', () => {
    const recipe: Recipe = {
      ...plumJam,
      lines: [
        ...plumJam.lines,
        { ...line('bag', 'cinnamon-stick', '3 sticks'), where: 'infused', keptShare: 0.05 },
        { ...line('dip', 'ascorbic-acid', '10 g'), where: 'dip', keptShare: 0 },
      ],
    };
    const statement = ingredientStatement(
      fold(new PaperBatch(recipe, [{ size: 'half-pint', count: 8 }]).events),
    );
    expect(statement).toMatch(/cinnamon$/);
    expect(statement).not.toMatch(/ascorbic/);
  });
});

describe('something that the recipe does not name', () => {
  it('holds a batch for good, but for salt and dried spice, which a person may settle', () => {
    const batch = new PaperBatch(waxBeans, [{ size: 'pint', count: 4 }]);
    batch.add('line.added', { line: line('onion', 'onion', '200 g') });
    batch.add('line.added', { line: line('salt2', 'canning-salt', '10 g') });
    const state = fold(batch.events);
    expect(state.deviations.map(d => [d.code, d.settles])).toEqual([
      ['line_added', null],
      ['line_added', 'reason'],
    ]);
    expect(
      gate(state)
        .conditions.filter(c => !c.met)
        .map(c => c.code),
    ).toEqual(expect.arrayContaining([expect.stringMatching(/^deviation:line_added/)]));
    expect(state.started?.recipe.lines.map(l => l.id)).toEqual(expect.arrayContaining(['onion', 'salt2']));
  });
});

describe('cooked first, written down afterwards', () => {
  it('becomes a recipe: weights, yield and how hot the pot was', () => {
    const sketch: Recipe = {
      ...emptyRecipe(),
      name: 'Quince thing',
      code: 'QUI',
      statementOfIdentity: 'Quince spread',
      sketch: true,
    };
    expect(recipeFaults(sketch)).toEqual([]);
    const batch = new PaperBatch(sketch, [{ size: 'half-pint', count: 6 }], {
      purpose: 'trial',
      factor: '1',
    });
    batch.add('line.added', { line: line('q', 'quince', '2 kg') });
    batch.add('line.weighed', { lineId: 'q', mass_g: 2000 });
    batch.add('line.weighed', { lineId: 'q', mass_g: 130 });
    batch.add('line.added', { line: line('s', 'sugar', '1200 g') });
    batch.add('line.weighed', { lineId: 's', mass_g: 1200 });
    batch.add('temperature.read', { where: 'pot', temp_C: 103.2 });
    batch.add('note.written', { text: 'Turned red after two hours.' });
    batch.add('jars.filled', { size: 'half-pint', jars: [1, 2, 3, 4, 5], jarLotId: null, lidLotId: null });
    const state = fold(batch.events);
    expect(state.deviations.map(d => d.code)).not.toContain('line_added');
    const recipe = recipeFromBatch(state);
    expect(recipe).toMatchObject({ sketch: false, makes: { size: 'half-pint', count: 5 } });
    expect(recipe.lines.map(l => [l.ingredientId, l.amount.text])).toEqual([
      ['quince', '2130 g'],
      ['sugar', '1200 g'],
    ]);
    expect(recipe.steps[0]).toMatchObject({ kind: 'cook', target: { kind: 'temperature', temp_C: 103.2 } });
    expect(recipe.notes).toMatch(/Turned red/);
    expect(recipeFaults(recipe)).toEqual([]);
  });
});

describe('yield', () => {
  it('stands beside what was foreseen, with the reasons', () => {
    const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 8 }], {
      expected: { pints: 3.9, final_g: 2400, solids_pct: 68, cook_min: 20, foreseen: true },
    });
    batch.add('jars.filled', {
      size: 'half-pint',
      jars: [1, 2, 3, 4, 5, 6, 7, 8],
      jarLotId: null,
      lidLotId: null,
    });
    batch.add('jars.set_aside', { jars: [8], why: 'part-filled' });
    batch.add('yield.explained', { reason: 'Boiled a little long.' });
    expect(summarise(assess(batch.events)).yield).toEqual({
      expected_pints: 3.9,
      foreseen: true,
      actual_pints: 3.5,
      reasons: ['Boiled a little long.'],
    });
  });
});

describe('a hot fill and hold', () => {
  it('is held until a jar was read at its temperature, and by the coldest jar', () => {
    const hot: Recipe = {
      ...waxBeans,
      method: { ...waxBeans.method, pack: 'hot' },
      authority: {
        ...(waxBeans.authority as Extract<Recipe['authority'], { grade: 'letter' }>),
        terms: { ...noTerms(), closure: 'lug cap' },
        process: {
          kind: 'hot-fill-hold',
          temp_C: 88,
          hold_min: 3,
          headspace_mm: 6,
          jarSizes: ['pint'],
        },
      },
    };
    const batch = new PaperBatch(hot, [{ size: 'pint', count: 2 }]);
    const condition = () => gate(fold(batch.events)).conditions.find(c => c.code === 'hot-fill');
    expect(condition()?.met).toBe(false);
    batch.add('temperature.read', { where: 'jar', temp_C: 89 });
    expect(condition()?.met).toBe(true);
    batch.add('temperature.read', { where: 'jar', temp_C: 86.5 });
    expect(condition()).toMatchObject({ met: false });
  });
});

describe('a batch from before this book', () => {
  it('is read as it was: its recipe and times brought to the present shape', () => {
    const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 8 }]);
    const first = batch.events[0] as BatchEvent<'batch.started'>;
    const old = structuredClone(first) as unknown as {
      body: Record<string, unknown> & { recipe: Record<string, unknown>; times: Record<string, unknown>[] };
    };
    const { heat: _h, pots: _p, expected: _e, ...body } = old.body;
    const {
      format: _f,
      product: _pr,
      family: _fa,
      tags: _t,
      variantOf: _v,
      setBy: _s,
      method: _m,
      tested: _te,
      outlets: _o,
      packing: _pa,
      sketch: _sk,
      ...recipe
    } = body.recipe as unknown as Recipe;
    const was = {
      ...recipe,
      steps: recipe.steps.map(
        ({ adds, attention: _a, mayStop_h: _ms, part: _pt, separates: _se, expects: _ex, ...s }) => ({
          ...s,
          lineIds: adds.map(a => a.lineId),
        }),
      ),
      lines: recipe.lines.map(
        ({
          id,
          name,
          preparation,
          role,
          amount,
          where,
          density_gPerMl,
          each_g,
          weightSource,
          trimYield,
          labelName,
          subIngredients,
          allergens,
          minStrength_pct,
          safelyAcid,
        }) => ({
          id,
          name,
          preparation,
          role,
          where,
          density_gPerMl,
          each_g,
          weightSource,
          trimYield,
          labelName,
          subIngredients,
          allergens,
          minStrength_pct,
          safelyAcid,
          amount: { text: amount.text, unit: amount.unit, value: amount.value },
        }),
      ),
    };
    const times = body.times.map(({ method: _mm, fill: _ff, ...t }) => t);
    const event = { ...first, body: { ...body, recipe: was, times } } as unknown as BatchEvent;
    const state = fold([event]);
    expect(state.started).toMatchObject({ heat: 'boiling water', expected: null, pots: { count: 1 } });
    expect(state.started?.recipe.format).toBe(3);
    expect(state.started?.times[0]?.method).toBe('boiling water');
    expect(lineMasses(state).map(m => Math.round(m.planned_g))).toEqual(
      lineMasses(fold([first])).map(m => Math.round(m.planned_g)),
    );
    expect(codes([event])).toEqual([]);
  });
});
