import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { waxBeans } from '../../demo/recipes.ts';
import { PaperBatch } from '../../testing/builders.ts';
import { readPage } from '../../testing/open-page.ts';
import { lineOf, withLines } from '../../testing/recipe-lines.ts';
import { fold } from '../batches/index.ts';
import { gate } from '../checks/index.ts';
import { Fraction, PLAIN_FIGURES } from '../measure/index.ts';
import {
  type Authority,
  knownMasses_g,
  type LetterTerms,
  noTerms,
  type Recipe,
  recipeFaults,
} from '../recipes/index.ts';
import {
  type Confirmation,
  formulaChanges,
  formulaOf,
  letterReminders,
  letterSays,
  pageDifferences,
  pageOf,
  reviewFaults,
  routeToSale,
  unprovenFault,
} from './index.ts';

/**
 * What a process authority's letter names and limits. What such letters say (producer, site, formula with its limits,
 * piece size, fill weight, highest pH, thickener, oil, closure, review date) is common practice of the trade, without a
 * source; the letters here are made up.
 */
type Letter = Extract<Authority, { grade: 'letter' }>;
const TERMS: LetterTerms = {
  ...noTerms(),
  producer: 'Somebody',
  site: '3 Some Lane',
};
const letterOf = (terms: Partial<LetterTerms>, over: Partial<Letter> = {}): Recipe => {
  const recipe: Recipe = {
    ...waxBeans,
    authority: {
      ...(waxBeans.authority as Letter),
      demo: false,
      limits: '',
      ...over,
      terms: { ...TERMS, ...terms },
    },
  };
  return { ...recipe, tested: { takenOn: '2026-02-10', ...formulaOf(recipe) } };
};
const US = { locale: 'en-US', measures: 'US', temperature: 'F' } as const;
const breaking = (recipe: Recipe) => formulaChanges(recipe).filter(c => c.breaks);
const codes = (recipe: Recipe) => breaking(recipe).map(c => c.code);
const share = (recipe: Recipe, id: string) => {
  const masses = knownMasses_g(recipe);
  const all = [...masses].reduce((sum, [, g]) => sum + g, 0);
  return ((masses.get(id) ?? 0) / all) * 100;
};
/** The recipe with so much of a line, times what it says. */
const times = (recipe: Recipe, id: string, factor: number): Recipe => ({
  ...recipe,
  lines: recipe.lines.map(l =>
    l.id === id
      ? {
          ...l,
          amount: { ...l.amount, value: String(new Fraction(l.amount.value).valueOf() * factor), text: 'x' },
        }
      : l,
  ),
});

describe('limits of its formula', () => {
  const beans = share(letterOf({}), 'beans');

  it('a line with a limit is held against it, the others against what was taken over', () => {
    const recipe = letterOf({ lines: [{ lineId: 'beans', least_pct: null, most_pct: beans + 5 }] });
    expect(codes(recipe)).toEqual([]);
    expect(codes(times(recipe, 'beans', 1.1))).toEqual([]);
    expect(codes(times(recipe, 'beans', 0.5))).toEqual([]);
    const more = breaking(times(recipe, 'beans', 1.6));
    expect(more.map(c => c.code)).toEqual(['letter-limit']);
    expect(more[0]?.what).toMatch(
      /^Yellow wax beans is \d+\.\d % of all that goes in; the letter allows \d+\.\d % at most\.$/,
    );
    // Without a limit, what was taken over stands.
    expect(codes(times(letterOf({}), 'beans', 1.1))).not.toEqual([]);
    // Another line is no freer for it.
    expect(codes(times(recipe, 'vinegar', 0.7))).not.toEqual([]);
  });

  it('a line that is gone is less than the least of it, and every scale keeps within', () => {
    const recipe = letterOf({ lines: [{ lineId: 'vinegar', least_pct: 20, most_pct: null }] });
    expect(codes(recipe)).toEqual([]);
    expect(codes({ ...recipe, lines: recipe.lines.filter(l => l.id !== 'vinegar') })).toContain(
      'letter-limit',
    );
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 40 }), n => {
        const scaled = recipe.lines.reduce(
          (r, l) => (l.where === 'each jar' ? r : times(r, l.id, n / 4)),
          recipe,
        );
        expect(codes({ ...scaled, makes: { ...scaled.makes, count: scaled.makes.count * (n / 4) } })).toEqual(
          [],
        );
      }),
    );
  });

  it('generated: it is covered exactly within its limits, whichever way they lie', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.2, max: 4, noNaN: true }),
        fc.double({ min: 1, max: 60, noNaN: true }),
        fc.double({ min: 1, max: 30, noNaN: true }),
        (factor, least, wide) => {
          const terms = [{ lineId: 'beans', least_pct: least, most_pct: least + wide }];
          const recipe = times(letterOf({ lines: terms }), 'beans', factor);
          const is = share(recipe, 'beans');
          const inside = is >= least * 0.99 && is <= (least + wide) * 1.01;
          expect(codes(recipe).includes('letter-limit')).toBe(!inside);
        },
      ),
    );
  });

  it('what nobody knows the weight of is said, and never counted as nothing', () => {
    const recipe = letterOf({ lines: [{ lineId: 'beans', least_pct: null, most_pct: 90 }] });
    const unknown = withLines(recipe, lineOf('Green peppers', '3', 'peppers', { each_g: null }));
    expect(codes(unknown)).toContain('limit-unknown');
  });

  it('a limit of a line that is not there, of no figure, or crossed, is a slip of whoever typed it', () => {
    const faults = (lines: LetterTerms['lines']) => recipeFaults(letterOf({ lines })).map(f => f.code);
    expect(faults([{ lineId: '__proto__', least_pct: 1, most_pct: 2 }])).toContain('limit-of-nothing');
    expect(faults([{ lineId: 'beans', least_pct: null, most_pct: null }])).toContain('limit-without-figure');
    expect(faults([{ lineId: 'beans', least_pct: 50, most_pct: 40 }])).toContain('limit-crossed');
  });

  it('what went in is held against it at the gate, whatever the plan was', () => {
    const recipe = letterOf({ lines: [{ lineId: 'beans', least_pct: null, most_pct: beans + 2 }] });
    const batch = new PaperBatch(recipe, [{ size: 'pint', count: 8 }]);
    const limits = () => gate(fold(batch.events)).conditions.find(c => c.code === 'letter-limits');
    expect(limits()).toMatchObject({
      met: false,
      evidence: 'Yellow wax beans: neither weighed nor drawn, and what was only planned proves nothing.',
    });
    batch.drawAll();
    expect(limits()?.met).toBe(true);
    batch.add('line.weighed', { lineId: 'beans', mass_g: 3000, outletId: null, potId: null });
    expect(limits()).toMatchObject({
      met: false,
      evidence: expect.stringMatching(/^Yellow wax beans is .* at most\.$/),
    });
  });
});

describe('pieces, thickener, oil', () => {
  it('more pieces in a pint than it allows, or nobody says how many, loses it', () => {
    const packing = waxBeans.packing as NonNullable<Recipe['packing']>;
    expect(codes(letterOf({ perPint_g: packing.perPint_g }))).toEqual([]);
    const tight = breaking(letterOf({ perPint_g: packing.perPint_g - 10 }));
    expect(tight.map(c => c.code)).toEqual(['fill-weight']);
    expect(tight[0]?.what).toContain(`${packing.perPint_g - 10} g`);
    expect(codes({ ...letterOf({ perPint_g: 200 }), packing: null })).toContain('fill-weight');
  });

  it('what it names may thicken, and nothing else; what it says is not in it is not named', () => {
    const thick = (terms: Partial<LetterTerms>, name: string) =>
      reviewFaults(withLines(letterOf(terms), lineOf(name, '4 g', 'gum', { role: 'other' })), PLAIN_FIGURES)
        .filter(f => f.level === 'refused')
        .map(f => f.code);
    expect(thick({}, 'Xanthan gum')).toEqual(['thickener']);
    expect(thick({ thickener: 'xanthan gum to 0.3 %' }, 'Xanthan gum')).toEqual([]);
    expect(thick({ thickener: 'xanthan gum' }, 'Wheat flour')).toEqual(['thickener']);
    expect(thick({ thickener: 'no xanthan' }, 'Xanthan gum')).toEqual(['thickener']);
    expect(thick({ oil: 'xanthan' }, 'Cornstarch')).toEqual(['thickener']);
    const oily = (terms: Partial<LetterTerms>) =>
      reviewFaults(
        withLines(letterOf(terms), lineOf('Olive oil', '1 tbsp', 'oil', { role: 'fat' })),
        PLAIN_FIGURES,
      )
        .filter(f => f.level === 'refused')
        .map(f => f.code);
    expect(oily({})).toContain('oil');
    expect(oily({ oil: 'olive oil to 2 %' })).toEqual([]);
  });

  it('reminds at the step it is about, in the units of the kitchen', () => {
    const recipe = letterOf({ pieceSize_mm: 12.7, perPint_g: 230, closure: 'lug caps' });
    expect(letterReminders(recipe, 'prepare', US)).toEqual(['pieces of 0.5 inch at most']);
    expect(letterReminders(recipe, 'prepare', { ...US, measures: 'metric' })).toEqual([
      'pieces of 13 mm at most',
    ]);
    expect(letterReminders(recipe, 'fill', US)).toEqual([
      '230 g of pieces in a pint at most',
      'closure: lug caps',
    ]);
    expect(letterReminders(recipe, 'cook', US)).toEqual([]);
    expect(letterSays(recipe, US)).toEqual([
      'written for Somebody, 3 Some Lane',
      'pieces of 0.5 inch at most',
      '230 g of pieces in a pint at most',
      'closure: lug caps',
    ]);
  });
});

describe('for whom, and until when', () => {
  const KITCHEN = { ...US, altitude_m: 716.28, demo: false };
  const confirmed = (recipe: Recipe, papers: string[] = ['p1']): Confirmation => ({
    id: 'c',
    subject: pageOf(recipe, KITCHEN.altitude_m, KITCHEN)?.subject ?? '',
    title: '',
    edition: '',
    page: '1',
    figures: (pageOf(recipe, KITCHEN.altitude_m, KITCHEN)?.figures ?? []).map(({ key, value }) => ({
      key,
      value,
    })),
    papers,
    demo: false,
    personId: 'p',
    confirmedAt: '2026-03-01T00:00:00.000Z',
  });
  const why = (recipe: Recipe, on = '2026-11-26', read = confirmed(recipe)) =>
    unprovenFault(recipe, KITCHEN, [], [read], on)?.what ?? null;

  it('a letter that names no producer, or no site, opens nothing', () => {
    for (const terms of [{ producer: '' }, { site: '  ' }]) {
      const recipe = letterOf(terms);
      expect(routeToSale(recipe)).toMatchObject({
        open: false,
        what: 'The letter names no producer, or no site.',
      });
    }
    expect(routeToSale(letterOf({})).open).toBe(true);
  });

  it('holds until it is to be looked at again, that day included', () => {
    const recipe = letterOf({ reviewOn: '2026-11-26' });
    expect(why(recipe, '2026-11-26')).toBeNull();
    expect(why(recipe, '2026-11-27')).toBe('Letter DEMO-WK-02 was to be looked at again by Nov 26, 2026.');
  });

  it('every one of its terms is read back, and again when one changes', () => {
    const terms: Partial<LetterTerms> = {
      pieceSize_mm: 12.7,
      perPint_g: 230,
      lines: [{ lineId: 'beans', least_pct: 10, most_pct: 90 }],
      thickener: 'xanthan gum',
      oil: 'olive oil',
      closure: 'lug caps',
      reviewOn: '2027-02-01',
    };
    const recipe = letterOf(terms, { limits: 'To be kept from frost.' });
    const page = pageOf(recipe, KITCHEN.altitude_m, KITCHEN);
    expect(page?.figures.map(f => [f.label, f.words ?? f.value])).toEqual([
      ['pints, 1,001 to 6,000 ft', 15],
      ['Headspace', 0.5],
      ['White vinegar, 5 %', 6],
      ['Water', 4],
      ['Dill heads in each pint', 1],
      ['Garlic cloves in each pint', 1],
      ['Highest pH', 4.4],
      ['Yellow wax beans, at least', 10],
      ['Yellow wax beans, at most', 90],
      ['Pieces, at most', 0.5],
      ['Pieces in a pint, at most', 230],
      ['Producer', 'Somebody'],
      ['Site', '3 Some Lane'],
      ['Thickener it allows', 'xanthan gum'],
      ['Oil it allows', 'olive oil'],
      ['Closure', 'lug caps'],
      ['What else it limits', 'To be kept from frost.'],
      ['To be looked at again by', 'Feb 1, 2027'],
    ]);
    expect(why(recipe)).toBeNull();
    const changes: Partial<LetterTerms>[] = [
      { producer: 'Somebody else' },
      { site: 'elsewhere' },
      { pieceSize_mm: 20 },
      { perPint_g: 235 },
      { lines: [{ lineId: 'beans', least_pct: 10, most_pct: 91 }] },
      { thickener: 'guar gum' },
      { oil: '' },
      { closure: 'two-piece lids' },
      { reviewOn: '2029-02-01' },
    ];
    for (const change of changes) {
      const changed = letterOf({ ...terms, ...change }, { limits: 'To be kept from frost.' });
      const fault = why(changed, '2026-11-26', confirmed(recipe));
      // What the letter no longer allows needs no reading.
      if ('oil' in change) expect(fault).toBeNull();
      else expect(fault).toMatch(/was confirmed without/);
    }
    const misread = pageDifferences(page as NonNullable<typeof page>, [
      ...(readPage(recipe, KITCHEN.altitude_m)?.figures ?? []).filter(f => !f.key.startsWith('producer')),
      { key: 'producer:Somebody', value: 0 },
    ]);
    expect(misread.map(d => d.words)).toEqual(['Somebody']);
  });

  it('words that differ only at their end are another term', () => {
    const long = 'To be kept from frost. '.repeat(20);
    const recipe = letterOf({}, { limits: `${long}Never in steam.` });
    expect(why(recipe)).toBeNull();
    expect(why(letterOf({}, { limits: `${long}In steam too.` }), '2026-11-26', confirmed(recipe))).toMatch(
      /was confirmed without/,
    );
  });

  it('was read back without the letter itself: read again', () => {
    const recipe = letterOf({});
    expect(why(recipe, '2026-11-26', confirmed(recipe, []))).toMatch(
      /was confirmed without the letter itself\.$/,
    );
  });
});
