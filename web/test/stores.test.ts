import { plumJam, waxBeans } from '@cocotte/demo/recipes';
import { PaperBatch } from '@cocotte/testing/builders';
import { fold } from '@cocotte/core/batches';
import { type Item, type Lot, type ShelfItem, plainFacts, upgradeItem } from '@cocotte/core/stores';
import type { Kitchen } from '@cocotte/core/kitchen';
import { beforeEach, describe, expect, it } from 'vitest';
import { batchNeeds, drawingOf, needBy, needText, othersFor } from '../src/batches/draws.ts';
import {
  type SettingsTexts,
  newCanner,
  settingsOf,
  settingsShape,
  settingsTexts,
} from '../src/kitchen/settings-form.ts';
import { readShape, readersOf } from '../src/kit/readers.ts';
import { firstWanted, foresee, planOf, scaledOrNull } from '../src/recipes/sheet/plan.ts';
import { figuresOf, minutesFor } from '../src/stores/costs/figures.ts';
import { rescaledFigures } from '../src/stores/costs/what-if-figures.ts';
import { keepTicks, readTicks, tickOf } from '../src/stores/planning/shopping-kept.ts';
import { kept, newLine, newReceipt, readReceipt } from '../src/stores/receipts/draft.ts';
import { stockText, unitCostText } from '../src/stores/words.ts';
import { kitchenOf, standInStorage } from './browser.ts';

beforeEach(() => standInStorage());

const kitchen = kitchenOf('en-US', true, {
  pots: [{ id: 'pan', name: 'Pan', capacity_mL: 9000, diameter_mm: 380, boilOff_gPerMin: 60 }],
  canners: [{ id: 'c', name: 'Canner', kind: 'boiling water', holds: { 'half-pint': 8, pint: 7 } }],
});
const lot = (over: Partial<Lot>): Lot => ({
  id: over.label ?? 'lot',
  itemId: 'i',
  label: 'L',
  supplier: '',
  receivedOn: '2026-05-01',
  bestBy: null,
  unitCost: '0.01',
  onHand: '1000',
  strength_pct: null,
  openedOn: null,
  receiptId: null,
  facts: plainFacts(),
  ...over,
});
const shelf = (over: Partial<Item> & Pick<Item, 'id' | 'name'>, ...lots: Partial<Lot>[]): ShelfItem => ({
  item: upgradeItem({
    kind: 'ingredient',
    unit: 'g',
    unit_g: 1,
    labelName: over.name.toLowerCase(),
    ...over,
  }),
  lots: lots.map(lot),
  lastCost: '0.01',
  average: null,
  reserved: '0',
});

describe('drawing without choosing', () => {
  const vinegar = shelf(
    {
      id: 'v',
      name: 'White vinegar',
      ingredientId: 'white-vinegar',
      unit: 'mL',
      unit_g: 1.01,
      use: 'vinegar',
    },
    { label: 'WEAK', strength_pct: 4, openedOn: '2026-05-02', receivedOn: '2026-04-01' },
    { label: 'OPEN', strength_pct: 5, openedOn: '2026-05-03', onHand: '300' },
    { label: 'NEXT', strength_pct: 5, receivedOn: '2026-05-09' },
  );
  const batch = new PaperBatch(waxBeans, [{ size: 'pint', count: 4 }]);
  const needs = batchNeeds(fold(batch.events), [vinegar]);
  const need = needs.find(n => n.key === 'vinegar');
  const use = { line: null, recipe: waxBeans, purpose: 'sale' as const, today: '2026-05-10' };
  const draw = (text: string, chosen = '') => {
    if (!need) throw new Error('the recipe has no vinegar');
    return drawingOf(need, text, kitchen, use, chosen);
  };

  it('empties the open container before the next, and passes over what may not serve', () => {
    const got = draw('500');
    expect(got.ok && got.value.lots.map(l => [l.label, l.quantity])).toEqual([
      ['OPEN', '300'],
      ['NEXT', '200'],
    ]);
    expect(got.ok && got.value.skipped).toEqual([
      { label: 'WEAK', why: 'Lot WEAK is 4 %, the recipe needs 5 %.' },
    ]);
  });
  it('takes one lot alone where somebody chose it, whatever the server will say of it', () => {
    const got = draw('50', 'WEAK');
    expect(got.ok && got.value.lots).toEqual([{ lotId: 'WEAK', label: 'WEAK', quantity: '50' }]);
  });
  it('says what the shelf holds where that is too little, and why a lot was passed over', () => {
    const got = draw('1,400');
    expect(!got.ok && got.fault).toMatchObject({
      code: 'more-than-shelf',
      what: 'The shelf holds 1,300 mL of White vinegar that may serve here, not 1,400 mL.',
    });
    const there = drawingOf(need as never, '1.400', { ...kitchen, locale: 'de-DE' }, use, '');
    expect(!there.ok && there.fault.what).toBe(
      'The shelf holds 1.300 mL of White vinegar that may serve here, not 1.400 mL.',
    );
    expect(!got.ok && got.fault.why).toContain('WEAK');
    expect(draw('$5').ok).toBe(false);
  });
  it('asks for what the recipe asks, in the unit of the item, and for nothing where there is no item', () => {
    expect(need && Number(needText(need, 'en-US'))).toBeGreaterThan(500);
    expect(needText(needs.find(n => n.key === 'beans') as never, 'en-US')).toBe('');
    expect(needs.map(n => n.title)).toContain('Lids');
  });
});

describe('a line drawn from whatever may serve it', () => {
  const use = { line: null, recipe: waxBeans, purpose: 'home', today: '2026-11-20' } as const;
  const store = [
    shelf({ id: 'wax', name: 'Wax beans', ingredientId: 'snap-bean', use: 'produce' }, { label: 'FRESH' }),
    shelf({ id: 'canned', name: 'Beans in cans', ingredientId: 'kidney-bean' }, { label: 'CAN' }),
    shelf(
      { id: 'mould', name: 'Old beans', use: 'produce' },
      { label: 'BAD', facts: plainFacts({ condition: 'mouldy' }) },
    ),
    shelf({ id: 'salt', name: 'Canning salt', use: 'salt' }, { label: 'SA' }),
    shelf({ id: 'sugar', name: 'Sugar' }, { label: 'SU' }),
    shelf({ id: 'garden', name: 'From the garden', use: 'produce' }, { label: 'GA' }),
    shelf({ id: 'gone', name: 'Green beans', use: 'produce' }),
    shelf(
      { id: 'pt', name: 'Pint jars', kind: 'jar', unit: 'each', unit_g: null, jarSize: 'pint' },
      { label: 'PT' },
    ),
    shelf(
      { id: 'pt2', name: 'Other pints', kind: 'jar', unit: 'each', unit_g: null, jarSize: 'pint' },
      { label: 'P2' },
    ),
    shelf(
      { id: 'hp', name: 'Half-pints', kind: 'jar', unit: 'each', unit_g: null, jarSize: 'half-pint' },
      { label: 'HP' },
    ),
  ];
  const needs = batchNeeds(fold(new PaperBatch(waxBeans, [{ size: 'pint', count: 7 }]).events), store);
  const others = (title: RegExp) => {
    const need = needs.find(n => title.test(n.title));
    if (!need) throw new Error(`${title}`);
    return othersFor(need, store, use, kitchen).map(s => s.item.id);
  };

  it('produce by produce, fresh or canned, and never by salt, sugar, or what may not go in', () => {
    expect(others(/wax beans/i)).toEqual(expect.arrayContaining(['canned', 'garden']));
    for (const id of ['salt', 'sugar', 'mould', 'gone', 'pt']) expect(others(/wax beans/i)).not.toContain(id);
    expect(others(/salt/i)).not.toContain('sugar');
  });

  it('jars by jars of their size', () => expect(others(/^Jars/)).toEqual(['pt2']));

  it('in the unit of what serves it', () => {
    const need = needs.find(n => /wax beans/i.test(n.title));
    const other = shelf({ id: 'x', name: 'X', unit: 'mL', unit_g: 0.5 }, {});
    expect(need && needBy(need, other).quantity).toBeCloseTo((need?.quantity ?? 0) * 2, 6);
  });
});

describe('a receipt while it is typed', () => {
  const sugar = upgradeItem({ id: 'sugar', kind: 'ingredient', name: 'Sugar', unit: 'g', unit_g: 1 });
  const filled = () => ({
    ...newReceipt('2026-05-01'),
    supplier: 'Depot',
    lines: [
      { ...newLine(), itemId: 'sugar', quantity: '5', unit: 'lb' as const, price: '4.10', label: 'SU-1' },
    ],
  });
  it('is read by the locale of the kitchen', () => {
    const read = readReceipt(filled(), [sugar], readersOf(kitchen));
    expect(read.ok && read.value.lines[0]).toMatchObject({
      packages: '1',
      quantity: '5',
      price: '4.1',
      discount: '0',
    });
    const german = { ...filled(), tax: '1,50' };
    const comma = readReceipt(
      { ...german, lines: german.lines.map(l => ({ ...l, price: '4,10' })) },
      [sugar],
      readersOf({ ...kitchen, locale: 'de-DE' }),
    );
    expect(comma.ok && [comma.value.tax, comma.value.lines[0]?.price]).toEqual(['1.5', '4.1']);
  });
  it('says every fault by its path', () => {
    const read = readReceipt({ ...newReceipt(''), tax: '$1' }, [sugar], readersOf(kitchen));
    expect(!read.ok && read.faults.map(f => `${f.path} ${f.code}`).sort()).toEqual([
      'day missing',
      'lines.0.itemId missing',
      'lines.0.price missing',
      'lines.0.quantity missing',
      'lines.0.unit missing',
      'supplier missing',
      'tax currency-sign',
    ]);
  });
  it('outlives a reload, until it is recorded', () => {
    expect(kept.read()).toBeNull();
    const texts = filled();
    kept.write(texts);
    expect(kept.read()).toEqual(texts);
    kept.drop();
    expect(kept.read()).toBeNull();
  });
});

describe('the shopping list on a device', () => {
  const line = {
    itemId: null,
    name: 'Beans',
    unit: 'g' as const,
    needed: '5',
    onHand: '0',
    missing: '5',
    packages: [],
    buy: '5',
    cost: null,
    orderBy: null,
    uses: [],
  };
  it('is kept with its ticks for its own kitchen, and a tick ends when more is asked for', () => {
    keepTicks('k', [tickOf(line)]);
    expect(readTicks('k')).toEqual(['Beans 5']);
    expect(readTicks('another')).toEqual([]);
    expect(tickOf({ ...line, missing: '6' })).not.toBe(tickOf(line));
  });
});

describe('the settings of a kitchen', () => {
  const whole = kitchenOf('en-US', true, {
    altitude_m: 716.28,
    thermometerError_C: 0.5,
    hourlyRate: '18.5',
    pots: [{ id: 'pan', name: 'Pan', capacity_mL: 9463.52946, diameter_mm: 381, boilOff_gPerMin: 60.5 }],
    canners: [{ id: 'c', name: 'Canner', kind: 'boiling water', holds: { 'half-pint': 8, pint: 7 } }],
    jurisdiction: {
      name: 'County',
      statement: 'Made here.',
      source: 'a letter',
      confirmedOn: '2026-03-01',
      rules: null,
      points: [],
      number: '',
    },
    costs: {
      ...kitchen.costs,
      burners: [
        { id: 'a', name: 'Hob', kind: 'electric', power_W: 2200 },
        { id: 'b', name: 'Yard', kind: 'gas', use_gPerHour: 400.5, itemId: 'gas' },
      ],
      rates: [{ personId: 'p', hourlyRate: '16.5' }],
      overhead: { perBatch: '0.75', perJar: '0.02', perMonth: '46', batchesPerMonth: 9 },
    },
  });
  const read = (here: Kitchen, over: Partial<SettingsTexts> = {}) => {
    const typed = { ...settingsTexts(here, ['p', 'q']), ...over };
    const found = readShape(settingsShape(here), typed);
    return found.ok
      ? { faults: [], settings: settingsOf({ ...typed, ...found.value }, typed, here, 0) }
      : { faults: found.faults, settings: null };
  };
  it('come back from their fields as they were, in every locale and in both sets of measures', () => {
    for (const locale of ['en-US', 'de-DE', 'fr-FR'])
      for (const [altitude, measures, temperature] of [
        ['ft', 'US', 'F'],
        ['m', 'metric', 'C'],
        // A kitchen may think of its altitude in metres and of its pots in quarts.
        ['m', 'US', 'F'],
      ] as const) {
        const here: Kitchen = { ...whole, locale, altitude, measures, temperature };
        const { faults, settings } = read(here);
        expect(faults).toEqual([]);
        expect(settings?.costs).toEqual(here.costs);
        expect(settings?.canners).toEqual(here.canners);
        expect(settings?.jurisdiction).toEqual(here.jurisdiction);
        expect(settings?.altitude_m).toBeCloseTo(here.altitude_m, 0);
        expect(settings?.thermometerError_C).toBeCloseTo(0.5, 9);
        expect(settings?.pots[0]?.capacity_mL).toBeCloseTo(whole.pots[0]?.capacity_mL ?? 0, -2);
        expect(settings?.pots[0]?.diameter_mm).toBeCloseTo(381, 9);
      }
  });
  it('ask for a pot in the measures of the kitchen, whatever its altitude is told in', () => {
    const metric = settingsTexts({ ...whole, altitude: 'ft', measures: 'metric' }, []);
    expect(metric.pots[0]).toMatchObject({ capacity_mL: '9.46', diameter_mm: '38.1' });
    const us = settingsTexts({ ...whole, altitude: 'm', measures: 'US' }, []);
    expect(us.pots[0]).toMatchObject({ capacity_mL: '10', diameter_mm: '15' });
  });
  it('where nobody entered the place, nothing stands there that could be saved by mistake', () => {
    const { faults } = read({ ...whole, placed: false });
    expect(faults.map(f => f.path)).toEqual(['altitude_m']);
  });
  it('tell each slip beside its field', () => {
    const { faults } = read(whole, {
      margin_pct: '100',
      fee: '$3',
      batchesPerMonth: '0',
      altitude_m: '11,000',
      rates: [{ personId: 'p', hourlyRate: 'x' }],
      burners: [{ id: 'a', name: ' ', kind: 'electric', use: '2' }],
      canners: [{ ...newCanner('c'), holds: { ...newCanner('c').holds, pint: '7.5' } }],
    });
    expect(faults.map(f => f.path).sort()).toEqual([
      'altitude_m',
      'batchesPerMonth',
      'burners.0.name',
      'burners.0.use',
      'canners.0.holds.pint',
      'canners.0.name',
      'fee',
      'margin_pct',
      'rates.0.hourlyRate',
    ]);
  });
});

describe('figures of a plan', () => {
  const wanted = firstWanted(plumJam, kitchen);
  const plan = planOf(plumJam, wanted, kitchen);
  const foreseen = foresee(plumJam, plan, kitchen);
  const scaled = scaledOrNull(plumJam, plan);
  const past = (minutes: number) => ({
    batchId: 'b',
    lotCode: '',
    madeOn: '2026-05-01',
    minutes,
    sheet: {} as never,
  });
  it('take the minutes of past batches where there are any, else those of the steps', () => {
    expect(minutesFor(plumJam, plan, foreseen, kitchen, [past(100), past(140), past(0)])).toMatchObject({
      attended: 120,
      from: 'the mean of 2 past batches',
    });
    const first = minutesFor(plumJam, plan, foreseen, kitchen, []);
    expect(first.attended).toBeGreaterThan(20);
    expect(first.from).toContain('the steps');
    // One load of 8: coming up and the processing time, after the cooking.
    expect(first.burner).toBeGreaterThan(30);
  });
  it('are scaled anew for a smaller jar and one load more', () => {
    if (!scaled) throw new Error('the jam can be weighed');
    const base = figuresOf(plumJam, scaled, plan.jars, [], kitchen, {
      attended: 100,
      kitchen: 20,
      burner: 60,
    });
    const [smaller, load] = rescaledFigures(plumJam, plan, kitchen, base);
    expect(smaller?.figures?.jars).toEqual([{ size: 'quarter-pint', count: 16 }]);
    expect(load?.figures?.jars).toEqual([{ size: 'half-pint', count: 16 }]);
    expect(load?.figures?.minutes).toBe(150);
  });
});

describe('words of the shelf', () => {
  it('are kilograms and litres where grams are many', () => {
    expect([
      stockText('1500', { unit: 'g' }, kitchen),
      stockText('999.5', { unit: 'mL' }, kitchen),
      stockText('12', { unit: 'each' }, kitchen),
    ]).toEqual(['1.50 kg', '999.5 mL', '12']);
    expect([
      unitCostText('0.0031', { unit: 'g' }, kitchen),
      unitCostText('0.92', { unit: 'each' }, kitchen),
    ]).toEqual(['$3.10 a kg', '$0.92']);
  });
});
