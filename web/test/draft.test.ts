import { readNumber } from '@cocotte/core/measure';
import { libraryOf } from '@cocotte/core/ingredients';
import type { Recipe } from '@cocotte/core/recipes';
import { classOf } from '@cocotte/core/review';
import * as demo from '@cocotte/demo/recipes';
import { fieldText } from '@cocotte/core/measure';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  type Draft,
  type DraftLine,
  type DraftStep,
  draftOf,
  emptyDraft,
  newLine,
  newStep,
} from '../src/recipes/editor/draft.ts';
import { readDraft } from '../src/recipes/editor/read-draft.ts';
import { kitchenOf } from './browser.ts';

const LIBRARY = new Map(libraryOf([]).map(i => [i.id, i]));
const hint = (id: string | null) => (id === null ? {} : (LIBRARY.get(id) ?? {}));
const letter = demo.waxBeans.authority as Extract<Recipe['authority'], { grade: 'letter' }>;
/** The demo's recipes, and shapes it has none of. */
const RECIPES: Recipe[] = [
  ...Object.values(demo),
  {
    ...demo.waxBeans,
    authority: {
      ...letter,
      terms: {
        producer: 'Wrenfold Kitchen',
        site: '12 Mill Lane',
        pieceSize_mm: 12.7,
        perPint_g: 230,
        lines: [
          { lineId: 'beans', least_pct: null, most_pct: 60.5 },
          { lineId: 'vinegar', least_pct: 20, most_pct: null },
        ],
        thickener: 'xanthan gum to 0.3 %',
        oil: '',
        closure: 'lug cap',
        reviewOn: '2027-02-10',
      },
      process: {
        kind: 'hot-fill-hold',
        temp_C: 88,
        hold_min: 2.5,
        headspace_mm: 6.35,
        jarSizes: ['pint'],
      },
    },
  },
  {
    ...demo.waxBeans,
    authority: {
      ...letter,
      process: {
        kind: 'sea level',
        pack: 'raw',
        headspace_mm: 12.7,
        minutes: [{ jarSize: 'pint', minutes: 10 }],
      },
    },
  },
  {
    ...demo.plumJam,
    outlets: [
      { id: 'o', name: 'Syrup', share: 0.125, use: 'jars', jarSize: 'half-pint', entryId: 'berry-syrup' },
    ],
    steps: demo.plumJam.steps.map((s, i) => ({
      ...s,
      target:
        i === 3
          ? { kind: 'temperature', temp_C: 82.5, hold_min: 10 }
          : i === 5
            ? { kind: 'depth', depth_mm: 50.8 }
            : i === 4
              ? { kind: 'reduced', by: 1 / 3 }
              : i === 6
                ? { kind: 'volume', volume_mL: 2250 }
                : s.target,
      ...(i === 2 ? { separates: { part: 'juice', share: 0.375 }, mayStop_h: 12.5 } : {}),
    })),
  },
];

describe('the editor', () => {
  it.each([
    ['en-US', true],
    ['en-GB', false],
    ['de-DE', false],
    ['fr-FR', false],
  ] as const)('opened and kept without a change, a recipe is the same (%s)', (locale, imperial) => {
    for (const recipe of RECIPES) {
      const here = kitchenOf(locale, imperial);
      const { recipe: read, faults } = readDraft(draftOf(recipe, here, 0), here, recipe, hint);
      expect(faults, recipe.name).toEqual([]);
      expect(read, recipe.name).toEqual({ ...recipe, foodClass: classOf(recipe) });
    }
  });

  it('a figure in a field is read as what it was, in every locale', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('en-US', 'de-DE', 'fr-FR', 'en-IN', 'sv-SE'),
        fc.integer({ min: 0, max: 99_999_999 }),
        (locale, n) => {
          const value = n / 10_000;
          const read = readNumber(fieldText(value, locale), locale, { name: 'x', min: 0, max: 10_000 });
          expect(read.ok && read.value).toBeCloseTo(value, 9);
        },
      ),
    );
  });
});

describe('what cannot be read is said beside its field, all of it at once', () => {
  const US = kitchenOf('en-US', true);
  const open = (recipe: Recipe, here = US) => draftOf(recipe, here, 0);
  const faults = (draft: Draft, here = US) =>
    readDraft(draft, here, null, hint).faults.map(f => `${f.path} ${f.code}`);
  const withLine = (over: Partial<DraftLine>, recipe: Recipe = demo.plumJam): Draft => {
    const draft = open(recipe);
    return { ...draft, lines: draft.lines.map((l, i) => (i === 1 ? { ...l, ...over } : l)) };
  };
  const withStep = (over: Partial<DraftStep>): Draft => {
    const draft = open(demo.plumJam);
    return { ...draft, steps: draft.steps.map((s, i) => (i === 3 ? { ...s, ...over } : s)) };
  };

  it('an empty draft asks for what it needs', () => {
    const found = faults(emptyDraft(US, 0));
    for (const path of [
      'name missing',
      'lines[0].name no-ingredient',
      'lines[0].amount no-amount',
      'steps[0].text missing',
    ])
      expect(found).toContain(path);
  });

  it.each([
    ['amount', '', 'no-amount'],
    ['amount', '2 frobs', 'unknown-unit'],
    ['amount', '0 c', 'not-positive'],
    ['amount', '-2 c', ''],
    ['amount', 'some', ''],
    ['amount', '1,5 c', 'ambiguous-number'],
    ['keptShare', '101', 'too-large'],
    ['keptShare', '-1', 'too-small'],
    ['density_gPerMl', '0', 'too-small'],
    ['density_gPerMl', '5', 'too-large'],
    ['density_gPerMl', 'heavy', 'not-a-number'],
    ['trimYield', '0', 'too-small'],
    ['trimYield', '$5', 'currency-sign'],
    ['solids_pct', '120', 'too-large'],
    ['freshFactor', '0.5', 'too-small'],
    ['minStrength_pct', '90', 'too-large'],
    ['each_g', '-3', 'too-small'],
    ['bushel_g', '1', 'too-small'],
  ] as const)('a line with %s "%s"', (field, text, code) => {
    const found = faults(withLine({ [field]: text }));
    expect(found.filter(f => f.startsWith(`lines[1].${field} ${code}`))).toHaveLength(1);
  });

  it('an ounce of something poured is asked, and the answer is kept', () => {
    const juice = { ...withLine({ amount: '12 oz' }), lines: [] as DraftLine[] };
    const vinegar: DraftLine = {
      ...newLine('v'),
      name: 'White vinegar',
      ingredientId: 'white-vinegar',
      role: 'acid',
      amount: '12 oz',
      density_gPerMl: '1.01',
      minStrength_pct: '5',
    };
    const asked = readDraft({ ...juice, lines: [vinegar] }, US, null, hint);
    expect(asked.faults.map(f => f.code)).toContain('ambiguous');
    for (const unit of ['oz', 'floz'] as const) {
      const told = readDraft({ ...juice, lines: [{ ...vinegar, chosenUnit: unit }] }, US, null, hint);
      expect(told.recipe.lines[0]?.amount.unit).toBe(unit);
      expect(told.faults.map(f => f.path)).not.toContain('lines[0].amount');
    }
    // A choice that no longer fits what is typed is not taken.
    const grams = readDraft(
      { ...juice, lines: [{ ...vinegar, amount: '300 g', chosenUnit: 'floz' }] },
      US,
      null,
      hint,
    );
    expect(grams.recipe.lines[0]?.amount.unit).toBe('g');
  });

  it.each([
    [{ target: { kind: 'temperature', text: '300', hold: '' } }, 'target.text too-large'],
    [{ target: { kind: 'temperature', text: 'hot', hold: '' } }, 'target.text not-a-number'],
    [{ target: { kind: 'temperature', text: '190', hold: '-1' } }, 'target.hold too-small'],
    [{ target: { kind: 'time', text: '0', hold: '' } }, 'target.text too-small'],
    [{ target: { kind: 'volume', text: '3 lb', hold: '' } }, 'target.text not-a-volume'],
    [{ target: { kind: 'volume', text: '', hold: '' } }, 'target.text no-amount'],
    [{ target: { kind: 'depth', text: '400', hold: '' } }, 'target.text too-large'],
    [{ target: { kind: 'reduced', text: '100', hold: '' } }, 'target.text too-large'],
    [{ target: { kind: 'look', text: ' ', hold: '' } }, 'target.text missing'],
    [{ window: { from: '10', to: '4' } }, 'window window-backwards'],
    [{ window: { from: 'soon', to: '' } }, 'window.from not-a-number'],
    [{ attention: { kind: 'look in', every: '' } }, 'attention.every missing'],
    [{ mayStop_h: '0' }, 'mayStop_h too-small'],
    [{ separates: { part: 'juice', share: '100' } }, 'separates.share too-large'],
    [{ part: 'foam' }, 'part unknown-part'],
    [{ text: '' }, 'text missing'],
    [{ expects: '2 frobs' }, 'expects unknown-unit'],
    [{ adds: [{ lineId: 'water', share: 'half' }] }, 'adds.0.share not-a-number'],
  ] as [Partial<DraftStep>, string][])('a step with %j', (over, fault) =>
    expect(faults(withStep(over))).toContain(`steps[3].${fault}`),
  );

  it('a wait of one figure is that long, neither more nor less', () => {
    const { recipe } = readDraft(withStep({ window: { from: '12', to: '' } }), US, null, hint);
    expect(recipe.steps[3]?.window).toEqual({ from_min: 720, to_min: 720 });
  });

  it('reads temperatures and depths in the scale of the kitchen', () => {
    const at = (here: typeof US, over: Partial<DraftStep>) => {
      const draft = { ...emptyDraft(here, 0), steps: [{ ...newStep('s'), text: 'x', ...over }] };
      return readDraft(draft, here, null, hint).recipe.steps[0]?.target;
    };
    const DE = kitchenOf('de-DE', false);
    expect(at(US, { target: { kind: 'temperature', text: '194', hold: '' } })).toEqual({
      kind: 'temperature',
      temp_C: 90,
      hold_min: 0,
    });
    expect(at(DE, { target: { kind: 'temperature', text: '90,5', hold: '2,5' } })).toEqual({
      kind: 'temperature',
      temp_C: 90.5,
      hold_min: 2.5,
    });
    expect(at(US, { target: { kind: 'depth', text: '2', hold: '' } })).toEqual({
      kind: 'depth',
      depth_mm: 50.8,
    });
    expect(at(DE, { target: { kind: 'depth', text: '50', hold: '' } })).toEqual({
      kind: 'depth',
      depth_mm: 50,
    });
    expect(at(DE, { target: { kind: 'volume', text: '2,25 L', hold: '' } })).toEqual({
      kind: 'volume',
      volume_mL: 2250,
    });
  });

  it('a letter: its reference, its date, its limit, its minutes, its headspace', () => {
    const draft = open(demo.waxBeans);
    const letterFaults = (over: Partial<Draft>) => faults({ ...draft, ...over });
    expect(letterFaults({})).toEqual([]);
    expect(letterFaults({ reference: '', issuedOn: '', authority: ' ' })).toEqual([
      'authority.authority missing',
      'authority.reference missing',
      'authority.issuedOn missing',
    ]);
    // What stands in the field of a recipe that had no letter is read as it is written there.
    for (const locale of ['en-US', 'de-DE']) {
      const kitchen = kitchenOf(locale, true);
      const own = draftOf(demo.plumJam, kitchen, 0);
      expect(readNumber(own.maxPh, locale, { name: 'x' })).toMatchObject({ ok: true, value: 4.6 });
    }
    expect(letterFaults({ maxPh: '4.7' })).toEqual(['authority.maxPh too-large']);
    expect(letterFaults({ headspace_mm: '0' })).toContain('authority.process.headspace_mm too-small');
    expect(letterFaults({ headspace_mm: '2' })).toContain('authority.process.headspace_mm too-large');
    const minutes = (m: string[]) => letterFaults({ letter: [{ minutes: m, size: 'pint' }] });
    expect(minutes(['10', '15', ''])).toContain('letter.0.minutes.2 missing');
    expect(minutes(['10', '12.5', '20'])).toContain('letter.0.minutes.1 not-whole');
    expect(minutes(['10', '15', '12'])).toEqual(['letter[0] minutes-fall']);
    expect(minutes(['0', '15', '20'])).toContain('letter.0.minutes.0 too-small');
    expect(
      letterFaults({
        letter: [
          { minutes: ['10', '15', '20'], size: 'pint' },
          { minutes: ['5', '20', '25'], size: 'quart' },
        ],
      }),
    ).toEqual(['letter[1] larger-shorter']);
    expect(
      letterFaults({
        process: 'hot-fill-hold',
        temp_C: '150',
        hold_min: '0',
        terms: { ...open(demo.waxBeans).terms, closure: '' },
      }),
    ).toEqual([
      'authority.process.temp_C too-small',
      'authority.process.hold_min too-small',
      'authority.terms.closure no-closure',
    ]);
    const limits = (lines: Draft['terms']['lines'], over: Partial<Draft['terms']> = {}) =>
      letterFaults({ terms: { ...open(demo.waxBeans).terms, ...over, lines } });
    const of = (lineId: string, least_pct: string, most_pct: string) => ({ least_pct, most_pct, lineId });
    expect(limits([of('beans', '40', '60,5')])).toEqual([
      'authority.terms.lines[0].most_pct ambiguous-number',
    ]);
    expect(limits([of('beans', '60', '40'), of('beans', '', '50'), of('vinegar', '', '')])).toEqual([
      'authority.terms.lines[0].most_pct limit-crossed',
      'authority.terms.lines[1].lineId limit-of-nothing',
      'authority.terms.lines[2].most_pct limit-without-figure',
    ]);
    expect(limits([of('__proto__', '', '5')], { pieceSize_mm: '0', perPint_g: '900' })).toEqual([
      'authority.terms.pieceSize_mm too-small',
      'authority.terms.perPint_g too-large',
      'authority.terms.lines[0].lineId limit-of-nothing',
    ]);
  });

  it('a demo letter stays marked while it is that letter, and no other ever becomes one', () => {
    const demoOf = (over: Partial<Draft>, previous: Recipe | null) => {
      const { authority } = readDraft({ ...open(demo.waxBeans), ...over }, US, previous, hint).recipe;
      return authority.grade === 'letter' && authority.demo;
    };
    expect(demoOf({}, demo.waxBeans)).toBe(true);
    expect(demoOf({ reference: 'REAL-1' }, demo.waxBeans)).toBe(false);
    expect(demoOf({}, null)).toBe(false);
  });

  it('a publication takes its title, edition and part from the entry where they are left empty', () => {
    const draft = { ...open(demo.crushedTomatoes), title: '', edition: '', part: '', year: '' };
    const { recipe, faults: none } = readDraft(draft, US, null, hint);
    expect(none).toEqual([]);
    expect(recipe.authority).toMatchObject({
      title: 'USDA Complete Guide to Home Canning',
      edition: '2015 revision',
      year: 2015,
    });
    expect(faults({ ...draft, entryId: '' })).toEqual([
      'authority.entryId missing',
      'authority.title missing',
      'authority.edition missing',
      'authority.year missing',
      'authority.part missing',
    ]);
  });

  it('jars, outlets and packing', () => {
    const draft = open(demo.plumJam);
    expect(faults({ ...draft, makes: { ...draft.makes, count: '0' } })).toEqual(['makes.count too-small']);
    expect(faults({ ...draft, makes: { ...draft.makes, count: '2.5' } })).toEqual(['makes.count not-whole']);
    expect(faults({ ...draft, makes: { ...draft.makes, size: 'quart' } })).toEqual(['jars size-missing']);
    expect(faults({ ...draft, jars: draft.jars.map(j => ({ ...j, net: '-1' })) })).toContain(
      'jars[0].net too-small',
    );
    expect(faults({ ...draft, shelfLife_months: '24' })).toEqual(['shelfLife_months too-large']);
    expect(
      faults({
        ...draft,
        packed: true,
        packing: { perPint_g: '', pieceDensity_gPerMl: '9', spareShare: '300' },
      }),
    ).toEqual([
      'packing.perPint_g missing',
      'packing.pieceDensity_gPerMl too-large',
      'packing.spareShare too-large',
    ]);
    const outlet = { id: 'o', name: '', share: '120', use: 'jars', jarSize: '', entryId: '' } as const;
    expect(faults({ ...draft, outlets: [outlet] })).toEqual(
      expect.arrayContaining([
        'outlets[0].name missing',
        'outlets[0].share too-large',
        'outlets[0].jarSize outlet-jar',
      ]),
    );
  });

  it('a recipe comes out even where faults were found, so that the review keeps up', () => {
    const { recipe, faults: some } = readDraft(withLine({ amount: 'some' }), US, null, hint);
    expect(some.length).toBeGreaterThan(0);
    expect(recipe.lines).toHaveLength(4);
    expect(classOf(recipe)).toBe('fruit spread');
  });

  it('never throws, whatever is typed wherever', () => {
    const odd = fc.oneof(
      fc.string({ maxLength: 12 }),
      fc.constantFrom('', ' ', '0', '-1', '1/0', '½', '1e9', '٣', '1,2.3', '99999999999'),
    );
    const base = open(demo.currantJelly);
    const keys = Object.keys(base).filter(k => typeof base[k as keyof Draft] === 'string') as (keyof Draft)[];
    fc.assert(
      fc.property(odd, fc.constantFrom(...keys), fc.nat(2), fc.nat(7), (text, key, line, step) => {
        const draft = {
          ...base,
          ...(['product', 'setBy', 'grade', 'kind', 'time', 'process', 'pack'].includes(key)
            ? {}
            : { [key]: text }),
          lines: base.lines.map((l, i) =>
            i === line
              ? {
                  ...l,
                  amount: text,
                  density_gPerMl: text,
                  keptShare: text,
                  trimYield: text,
                  ratio: { ...l.ratio, per: l.ratio.of ? text : '' },
                }
              : l,
          ),
          steps: base.steps.map((s, i) =>
            i === step
              ? {
                  ...s,
                  window: { from: text, to: '' },
                  target: { ...s.target, text },
                  expects: text,
                  adds: [{ lineId: 'sugar', share: text }],
                }
              : s,
          ),
        } as Draft;
        for (const fault of readDraft(draft, US, null, hint).faults)
          expect(fault.what && fault.why && fault.next).toBeTruthy();
      }),
      { numRuns: 300 },
    );
  });
});
