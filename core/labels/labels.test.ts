import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { crushedTomatoes, plumJam, waxBeans } from '../../demo/recipes.ts';
import { PaperBatch } from '../../testing/builders.ts';
import { withAmount } from '../../testing/recipe-lines.ts';
import { fold } from '../batches/index.ts';
import type { JarSizeId } from '../jars/index.ts';
import type { Recipe } from '../recipes/index.ts';
import {
  allergensOf,
  ingredientStatement,
  labelContent,
  type LabelSetup,
  labelSpelling,
  plainSetup,
  netContentsText,
  truthfulName,
} from './index.ts';

const kitchen = {
  locale: 'en-US',
  makerName: 'Test Kitchen',
  makerAddress: '1 Road, Town',
  jurisdiction: {
    name: 'x',
    statement: 'Made at home.',
    source: 'x',
    confirmedOn: '2026-01-01',
    rules: null,
    points: [],
    number: '',
  },
};

describe('label', () => {
  it('orders ingredients by the weight that went in (21 CFR 101.4, from memory)', () => {
    const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 8 }]).drawAll();
    batch.fact('line.weighed', { lineId: 'plums', mass_g: 2041 });
    batch.fact('line.weighed', { lineId: 'sugar', mass_g: 1400 });
    // Water and lemon juice were drawn without a mass and count as planned: 118 g and 61 g.
    expect(ingredientStatement(fold(batch.events))).toBe(
      'plums, sugar, water, lemon juice (lemon juice from concentrate, sulphites)',
    );
    batch.fact('line.weighed', { lineId: 'sugar', mass_g: 1400 });
    expect(ingredientStatement(fold(batch.events)).startsWith('sugar, plums')).toBe(true);
  });
  it('counts what is in the jar: brine left in the pot and a soak that is poured away do not put salt before dill', () => {
    const batch = new PaperBatch(waxBeans, [{ size: 'pint', count: 8 }]).drawAll();
    // Twice the brine is made, and as much of it is left over: the jars hold the same.
    const twice = new PaperBatch(waxBeans, [{ size: 'pint', count: 8 }]);
    for (const [lineId, mass_g] of [
      ['vinegar', 2868],
      ['water', 1893],
      ['salt', 192],
    ] as const)
      twice.fact('line.weighed', { lineId, mass_g });
    expect(ingredientStatement(fold(batch.events))).toMatch(/^wax beans, .*vinegar.*, water, .*dill/);
    expect(ingredientStatement(fold(twice.drawAll().events))).toBe(ingredientStatement(fold(batch.events)));
    const soaked = {
      ...waxBeans,
      lines: waxBeans.lines.map(l => (l.id === 'salt' ? { ...l, where: 'dip' as const } : l)),
    };
    const dipped = new PaperBatch(soaked, [{ size: 'pint', count: 8 }]).drawAll();
    expect(ingredientStatement(fold(dipped.events))).not.toMatch(/\bsalt\b/);
  });
  it('gives directions where a food needs them', () => {
    const of = (recipe: Recipe, size: JarSizeId, setup: Partial<LabelSetup> = {}) => {
      const made = labelContent(
        fold(new PaperBatch(recipe, [{ size, count: 2 }]).drawAll().events),
        kitchen,
        { ...plainSetup('letter-10'), ...setup },
        size,
      );
      return made.ok ? made.label.directions : 'faulty';
    };
    expect(of(waxBeans, 'pint')).toBe('Refrigerate after opening.');
    expect(of(plumJam, 'half-pint')).toBe('');
    // What settles is shaken: juice that went through no cloth by itself, anything else where its maker says so.
    const juice = (over: object) => ({ ...crushedTomatoes, product: 'juice' as const, ...over });
    const cloudy = juice({ method: { ...crushedTomatoes.method, strain: 'unstrained' } });
    expect(of(cloudy, 'pint')).toBe('Shake before use. Refrigerate after opening.');
    const clear = juice({ method: { ...crushedTomatoes.method, strain: 'strained' } });
    expect(of(clear, 'pint')).toBe('Refrigerate after opening.');
    expect(of(waxBeans, 'pint', { shake: true })).toBe('Shake before use. Refrigerate after opening.');
    // A concentrate wants to be told with how much water it is diluted.
    const concentrate = { ...cloudy, name: 'Tomato juice concentrate' };
    expect(of(concentrate, 'pint')).toBe('faulty');
    expect(of(concentrate, 'pint', { diluteParts: 2.5 })).toBe(
      'Dilute one part with 2.5 parts of water. Shake before use. Refrigerate after opening.',
    );
  });
  it('takes the truthful name where too little fruit went in for the recipe’s own', () => {
    const named = (fruit_g: number, sugar_g: number) => {
      const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 8 }]);
      batch.fact('line.weighed', { lineId: 'plums', mass_g: fruit_g });
      batch.fact('line.weighed', { lineId: 'sugar', mass_g: sugar_g });
      const made = labelContent(fold(batch.drawAll().events), kitchen, plainSetup('letter-10'), 'half-pint');
      if (!made.ok) throw new Error(made.faults[0]?.what);
      return {
        name: made.label.statementOfIdentity,
        why: made.rules.find(r => r.what === 'A name it may bear')?.shown,
      };
    };
    expect(named(2041, 1400)).toEqual({ name: 'Red plum jam', why: undefined });
    const thin = named(900, 1400);
    expect(thin.name).toBe('Red plum fruit spread');
    expect(thin.why).toMatch(/^39\.1 parts of fruit .* So the label calls it Red plum fruit spread\.$/);
    // By cups nobody knows it to a part; a weight does.
    const cups = new PaperBatch(withAmount(plumJam, 'sugar', '2430 g'), [{ size: 'half-pint', count: 8 }]);
    expect(truthfulName(fold(cups.drawAll().events), kitchen).name).toBe('Red plum jam');
    const weighed = new PaperBatch(withAmount(plumJam, 'sugar', '2600 g'), [{ size: 'half-pint', count: 8 }]);
    for (const [lineId, mass_g] of [
      ['plums', 2041],
      ['sugar', 2560],
    ] as const)
      weighed.fact('line.weighed', { lineId, mass_g });
    expect(truthfulName(fold(weighed.drawAll().events), kitchen).name).toBe('Red plum fruit spread');
  });
  it('states no more than a jar can hold', () => {
    const over = {
      ...plumJam,
      jars: [{ size: 'half-pint' as const, net: { kind: 'weight' as const, oz: 14 } }],
    };
    const made = labelContent(
      fold(new PaperBatch(over, [{ size: 'half-pint', count: 2 }]).drawAll().events),
      kitchen,
      plainSetup('letter-10'),
      'half-pint',
    );
    expect(made.ok).toBe(false);
    expect(made.ok ? [] : made.faults.map(f => f.what)).toEqual(['The label states more than a jar holds.']);
  });
  it('declares allergens from lots and lines', () => {
    expect(
      allergensOf(fold(new PaperBatch(crushedTomatoes, [{ size: 'pint', count: 2 }]).drawAll().events)),
    ).toEqual(['sulphites']);
    expect(
      allergensOf(fold(new PaperBatch(waxBeans, [{ size: 'pint', count: 2 }]).drawAll().events)),
    ).toEqual([]);
  });
  it('states net contents in both systems and never overstates (NIST Handbook 130, from memory)', () => {
    expect(netContentsText({ kind: 'weight', oz: 10 })).toBe('Net Wt 10 oz 283 g');
    expect(netContentsText({ kind: 'weight', oz: 31 })).toBe('Net Wt 31 oz (1 lb 15 oz) 878 g');
    expect(netContentsText({ kind: 'volume', floz: 16 })).toBe('16 fl oz (1 pt) 473 mL');
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 200 }), oz => {
        expect(Number(/(\d+) g$/.exec(netContentsText({ kind: 'weight', oz }))?.[1])).toBeLessThanOrEqual(
          oz * 28.349523125,
        );
      }),
    );
  });
  it('says what is missing, and where to mend it', () => {
    const state = fold(new PaperBatch(waxBeans, [{ size: 'pint', count: 2 }]).drawAll().events);
    const good = labelContent(state, kitchen, plainSetup('letter-10'), 'pint');
    expect(good).toMatchObject({
      ok: true,
      label: { bestBy: '2027-11-20', readyFrom: '2026-12-11', notForSale: false },
    });
    const bad = labelContent(
      state,
      {
        ...kitchen,
        makerName: '',
        jurisdiction: { ...kitchen.jurisdiction, statement: '', confirmedOn: null },
      },
      plainSetup('letter-10'),
      'pint',
    );
    expect(bad.ok ? [] : bad.faults.map(f => f.what)).toEqual([
      'The label has no maker.',
      "The label has no jurisdiction's statement.",
    ]);
    expect(labelContent(state, kitchen, plainSetup('letter-10'), 'quart').ok).toBe(false);
  });
  it('counts the shelf life in months from the day of the batch, as the recipe has it', () => {
    const until = (shelfLife_months: number, madeOn = '2026-11-20') => {
      const batch = new PaperBatch({ ...waxBeans, shelfLife_months }, [{ size: 'pint', count: 2 }], {
        madeOn,
      });
      const got = labelContent(fold(batch.drawAll().events), kitchen, plainSetup('letter-10'), 'pint');
      return got.ok ? got.label.bestBy : got.faults;
    };
    expect([until(1), until(6), until(18)]).toEqual(['2026-12-20', '2027-05-20', '2028-05-20']);
    expect(until(6, '2026-08-31')).toBe('2027-02-28');
  });
});

describe('the spelling of the place', () => {
  it('is American on a label of the United States, and ours elsewhere', () => {
    expect(labelSpelling('Contains: sulphites; flavouring, iodised salt, colour', 'en-US')).toBe(
      'Contains: sulfites; flavoring, iodized salt, color',
    );
    expect(labelSpelling('sulphites', 'en-GB')).toBe('sulphites');
    const state = fold(new PaperBatch(plumJam, [{ size: 'half-pint', count: 8 }]).drawAll().events);
    const told = (locale: string) => {
      const made = labelContent(state, { ...kitchen, locale }, plainSetup('letter-10'), 'half-pint');
      return made.ok ? `${made.label.contains} ${made.label.ingredients}` : '';
    };
    expect(told('en-US')).toContain('sulfites');
    expect(told('en-US')).not.toContain('sulph');
    expect(told('en-GB')).toContain('sulphites');
  });
});
