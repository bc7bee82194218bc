import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { crushedTomatoes, currantJelly, plumJam, waxBeans } from '../../demo/recipes.ts';
import { PaperBatch } from '../../testing/builders.ts';
import { recipeFaults } from '../recipes/index.ts';
import { type DrawnLot, fold, lineMasses, recipeFromBatch } from './index.ts';

const jamBatch = (count = 8) => new PaperBatch(plumJam, [{ size: 'half-pint', count }]);
const mass = (batch: PaperBatch, lineId: string) =>
  lineMasses(fold(batch.events)).find(m => m.line.id === lineId);

/** A draw of one lot for a line. */
function drawn(
  batch: PaperBatch,
  lineId: string | null,
  mass_g: number | null,
  trimYield: number | null = null,
): void {
  const lot: DrawnLot = {
    lotId: 'l',
    itemId: 'i',
    kind: 'ingredient',
    name: 'x',
    lotLabel: 'L-1',
    lineId,
    jarSize: null,
    quantity: '1',
    unit: 'g',
    unitCost: '0.01',
    mass_g,
    trimYield,
    labelName: '',
    subIngredients: '',
    allergens: [],
  };
  batch.add('lot.drawn', { lots: [lot] });
}

describe('what went in', () => {
  it('is as planned, until it was drawn, until it was weighed', () => {
    const batch = jamBatch();
    // 4 1/2 lb as written; 1 lb is 453.59237 g by definition.
    expect(mass(batch, 'plums')).toMatchObject({ basis: 'planned' });
    expect(mass(batch, 'plums')?.actual_g).toBeCloseTo(4.5 * 453.59237, 6);
    drawn(batch, 'plums', 2000);
    drawn(batch, 'plums', 200);
    // Drawn as bought; what is trimmed off does not go in.
    expect(mass(batch, 'plums')).toMatchObject({ basis: 'drawn' });
    expect(mass(batch, 'plums')?.actual_g).toBeCloseTo(2200 * 0.92, 6);
    batch.fact('line.weighed', { lineId: 'plums', mass_g: 1000 });
    batch.fact('line.weighed', { lineId: 'plums', mass_g: 990 });
    expect(mass(batch, 'plums')).toMatchObject({ basis: 'weighed', actual_g: 1990 });
    expect(mass(batch, 'plums')?.planned_g).toBeCloseTo(4.5 * 453.59237, 6);
  });

  it('a draw that says nothing of its mass, or of its line, is no weight', () => {
    const batch = jamBatch();
    drawn(batch, 'plums', null);
    drawn(batch, null, 500);
    expect(mass(batch, 'plums')?.basis).toBe('planned');
  });

  it('weighed as nothing is nothing, not what was planned', () =>
    expect(mass(jamBatch().fact('line.weighed', { lineId: 'lemon', mass_g: 0 }), 'lemon')).toMatchObject({
      actual_g: 0,
      basis: 'weighed',
    }));

  it('stays in the food by its share: strained off in part, dipped not at all', () => {
    const batch = new PaperBatch(currantJelly, [{ size: 'half-pint', count: 9 }]);
    batch.fact('line.weighed', { lineId: 'currants', mass_g: 1000 });
    expect(mass(batch, 'currants')).toMatchObject({ actual_g: 1000 });
    const dipped = {
      ...plumJam,
      lines: plumJam.lines.map(l => (l.id === 'lemon' ? { ...l, where: 'dip' as const } : l)),
    };
    const dip = new PaperBatch(dipped, [{ size: 'half-pint', count: 8 }]);
    dip.fact('line.weighed', { lineId: 'lemon', mass_g: 300 });
    expect(mass(dip, 'lemon')).toMatchObject({ actual_g: 300 });
  });

  it('grows with the jars it is made for, line by line', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 40 }), count => {
        const batch = fold(jamBatch(count).events);
        const written = fold(jamBatch(8).events);
        const of = (state: typeof batch) => lineMasses(state).map(m => m.planned_g);
        of(batch).forEach((g, i) => expect(g).toBeCloseTo(((of(written)[i] as number) * count) / 8, 6));
      }),
      { numRuns: 30 },
    );
  });

  it('in each jar goes by the jars: a quart takes twice a pint', () => {
    const lemon = (size: 'pint' | 'quart') =>
      mass(new PaperBatch(crushedTomatoes, [{ size, count: 3 }]), 'lemon')?.planned_g as number;
    expect(lemon('quart')).toBeCloseTo(2 * lemon('pint'), 6);
  });

  it('cannot be told of a batch that was never started', () => {
    expect(() => lineMasses(fold([]))).toThrow(/has not been started/);
    expect(() => recipeFromBatch(fold([]))).toThrow(/has not been started/);
  });
});

describe('a recipe written down from a batch', () => {
  it('has what was weighed, to a tenth of a gram, and leaves what was not as it is written', () => {
    const batch = jamBatch().fact('line.weighed', { lineId: 'plums', mass_g: 1987.654 });
    const lines = recipeFromBatch(fold(batch.events)).lines;
    expect(lines.find(l => l.id === 'plums')).toMatchObject({
      basis: 'prepared',
      ratio: null,
      amount: { text: '1987.7 g', unit: 'g', value: '19877/10', upTo: null, toTaste: false },
    });
    expect(lines.find(l => l.id === 'sugar')?.amount).toEqual(
      plumJam.lines.find(l => l.id === 'sugar')?.amount,
    );
  });

  it('makes what was filled, in the size most went into; a part-filled jar does not count', () => {
    const fill = (batch: PaperBatch, size: 'half-pint' | 'quarter-pint' | 'pint', jars: number[]) =>
      batch.fact('jars.filled', { size, jars, jarLotId: null, lidLotId: null });
    const batch = jamBatch();
    expect(recipeFromBatch(fold(batch.events)).makes).toEqual(plumJam.makes);
    fill(batch, 'half-pint', [1, 2, 3, 4, 5]);
    fill(batch, 'quarter-pint', [6, 7]);
    // Five half-pints and two quarter-pints are six half-pints.
    expect(recipeFromBatch(fold(batch.events)).makes).toEqual({ size: 'half-pint', count: 6 });
    batch.fact('jars.set_aside', { jars: [7], why: 'part-filled' });
    expect(recipeFromBatch(fold(batch.events)).makes).toEqual({ size: 'half-pint', count: 5 });
    // More glass beats more jars.
    fill(batch, 'pint', [8, 9, 10]);
    expect(recipeFromBatch(fold(batch.events)).makes).toEqual({ size: 'pint', count: 5 });
    batch.fact('jars.set_aside', { jars: [8], why: 'broken' });
    expect(recipeFromBatch(fold(batch.events)).makes.count).toBe(5);
  });

  it('of less than one jar still makes one', () => {
    const batch = jamBatch().fact('jars.filled', {
      size: 'half-pint',
      jars: [1],
      jarLotId: null,
      lidLotId: null,
    });
    expect(recipeFromBatch(fold(batch.events)).makes).toEqual({ size: 'half-pint', count: 1 });
  });

  it('keeps its steps and gains its notes; what no step adds is added by the first that cooks', () => {
    const loose = {
      ...waxBeans,
      steps: waxBeans.steps.map(s => ({ ...s, adds: s.adds.filter(a => a.lineId !== 'beans') })),
    };
    const batch = new PaperBatch(loose, [{ size: 'pint', count: 4 }]);
    batch.fact('note.written', { text: 'Good colour.' }).fact('note.written', { text: 'A little salt.' });
    const recipe = recipeFromBatch(fold(batch.events));
    expect(recipe.notes).toBe(`${waxBeans.notes}\nGood colour.\nA little salt.`);
    expect(recipe.steps.map(s => s.id)).toEqual(waxBeans.steps.map(s => s.id));
    const first = recipe.steps.findIndex(s => s.kind === 'cook' || s.kind === 'prepare');
    expect(recipe.steps[first]?.adds).toContainEqual({ lineId: 'beans', share: '1' });
    const adding = recipe.steps.flatMap(s => s.adds).filter(a => a.lineId === 'beans');
    expect(adding).toEqual([{ lineId: 'beans', share: '1' }]);
    expect(recipeFaults(recipe)).toEqual([]);
  });

  it('what no step adds goes into the first that prepares or cooks, wherever that stands', () => {
    const [boil, fill] = ['cook', 'fill'].map(kind => plumJam.steps.find(s => s.kind === kind)) as [
      (typeof plumJam.steps)[number],
      (typeof plumJam.steps)[number],
    ];
    const bare = { ...plumJam, notes: '', steps: [fill, { ...boil, adds: [] }] };
    const made = recipeFromBatch(fold(new PaperBatch(bare, [{ size: 'half-pint', count: 8 }]).events));
    expect(made.steps.map(s => s.adds.length)).toEqual([0, plumJam.lines.length]);
    const prepared = { ...bare, steps: [fill, { ...boil, kind: 'prepare' as const, adds: [] }] };
    const again = new PaperBatch(prepared, [{ size: 'half-pint', count: 8 }]);
    again.fact('note.written', { text: 'Good.' });
    expect(recipeFromBatch(fold(again.events)).steps[1]?.adds).toHaveLength(plumJam.lines.length);
    expect(recipeFromBatch(fold(again.events)).notes).toBe('Good.');
    const neither = { ...bare, steps: [fill] };
    const last = recipeFromBatch(fold(new PaperBatch(neither, [{ size: 'half-pint', count: 8 }]).events));
    expect(last.steps[0]?.adds).toHaveLength(plumJam.lines.length);
  });

  it('a sketch gets the steps of the trade; how hot the pot was, where it was read', () => {
    const sketch = { ...plumJam, sketch: true, steps: [] };
    const batch = new PaperBatch(sketch, [{ size: 'half-pint', count: 8 }]);
    const steps = () => recipeFromBatch(fold(batch.events)).steps;
    expect(steps().map(s => s.kind)).toEqual(['cook', 'fill', 'process', 'cool']);
    expect(steps()[0]?.target).toEqual({ kind: 'none' });
    batch.fact('temperature.read', { where: 'canner', temp_C: 100 });
    expect(steps()[0]?.target).toEqual({ kind: 'none' });
    batch.fact('temperature.read', { where: 'pot', temp_C: 99.96 });
    batch.fact('temperature.read', { where: 'pot', temp_C: 104.44 });
    expect(steps()[0]?.target).toEqual({ kind: 'temperature', temp_C: 104.4, hold_min: 0 });
    expect(steps()[0]?.adds.map(a => a.lineId)).toEqual(plumJam.lines.map(l => l.id));
  });

  it('holds no more notes than a recipe may', () => {
    const batch = jamBatch();
    for (let i = 0; i < 5; i++) batch.fact('note.written', { text: 'x'.repeat(1000) });
    expect(recipeFromBatch(fold(batch.events)).notes).toHaveLength(4000);
  });
});

describe('several lots and forms for one line', () => {
  it('each counts with its own waste, one that says none with that of its line', () => {
    const batch = jamBatch();
    drawn(batch, 'plums', 1000);
    drawn(batch, 'plums', 500, 1);
    expect(mass(batch, 'plums')?.drawn_g).toBeCloseTo(1000 * 0.92 + 500, 6);
    expect(mass(batch, 'plums')?.basis).toBe('drawn');
  });
});
