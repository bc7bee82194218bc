import { byName, type Names } from '../../measure/index.ts';
import type { SetBy } from '../../recipes/index.ts';
import type { Method } from '../../times/index.ts';

/**
 * One formula of a published entry: what a recipe that follows it may be made of. What it leaves open is open. Amounts
 * are as recipes state them, "4 lb", "5 c"; they count in proportion to the food itself.
 */
export interface Cover {
  /**
   * Produce it names, by ids of the library; without an amount as much as one likes. `main`: it is what the recipe is of;
   * the others may be less, never more for as much of it.
   */
  food: readonly CoverFood[];
  /** Any fruit that is safely acid by itself may be the food. */
  anyAcidFruit: boolean;
  /** Least acid, in pot or brine; empty where its acid goes in by the jar, or it needs none. */
  acid: readonly CoverLine[];
  /** Pieces in a brine: its strength counts. Otherwise acid and water are held against the food. */
  packed: boolean;
  /** Water at most beside that acid; `null` leaves it open, an empty text allows none. */
  water: string | null;
  /** Oil or butter at most; empty for none. */
  oil: string;
  /** Cook-type modified starch at most; empty for none. */
  starch: string;
  /** How it may be set; empty leaves it open. */
  setBy: readonly SetBy[];
  /** Least sweetener solids for each part of fruit, by weight; 0 leaves it open. */
  sugarForFruit: number;
  cut: readonly Method['cut'][];
  peel: readonly Method['peel'][];
  strain: readonly Method['strain'][];
}
/** Ingredients that may serve, and how much of them. */
export interface CoverLine {
  ids: readonly string[];
  amount: string;
}
/** Produce of a cover. */
export interface CoverFood extends CoverLine {
  main: boolean;
}

/**
 * What stands in for what, weight for weight: sweet for sweet, hot for hot, onion for onion. Common practice of the trade,
 * as the guide's salsas allow it (from memory).
 */
export const KINDS: readonly (readonly string[])[] = [
  ['bell-pepper', 'pimiento'],
  ['hot-pepper', 'jalapeno', 'habanero', 'long-green-chile'],
  ['onion', 'red-onion'],
  ['bottled-lemon', 'bottled-lime'],
  ['white-vinegar', 'white-vinegar-6', 'cider-vinegar', 'wine-vinegar', 'malt-vinegar'],
  ['tomato', 'cherry-tomato'],
  ['plum', 'damson', 'greengage'],
  ['raspberry', 'black-raspberry'],
];

/** `'snap-bean 4 lb'`, `'peach|nectarine'`: ids, then how much. */
const part = (text: string): CoverLine => {
  const [ids = '', ...amount] = text.split(' ');
  return {
    ids: [...new Set(ids.split('|').flatMap(id => KINDS.find(k => k.includes(id)) ?? [id]))],
    amount: amount.join(' '),
  };
};

interface More extends Partial<Omit<Cover, 'food' | 'acid'>> {
  acid?: string[];
  /** How many of the foods the recipe is of; one. */
  main?: number;
}
const OPEN: Omit<Cover, 'food'> = {
  anyAcidFruit: false,
  acid: [],
  packed: false,
  water: null,
  oil: '',
  starch: '',
  setBy: ['not set', 'nothing added'],
  sugarForFruit: 0,
  cut: [],
  peel: [],
  strain: [],
};
const of = (food: string[], { main = 1, acid = [], ...more }: More = {}): Cover => ({
  ...OPEN,
  food: food.map((text, i) => ({ ...part(text), main: i < main })),
  acid: acid.map(part),
  ...more,
});

/** Spreads of the guide: fruit that is acid by itself with half its weight of sugar or more (4 cups to 6 of crushed fruit is its least). */
const spread = (setBy: SetBy[], more: More = {}): Cover[] => [
  of([], { anyAcidFruit: true, sugarForFruit: 0.5, setBy, ...more }),
];
const PECTINS: SetBy[] = ['ordinary pectin', 'low-sugar pectin', 'calcium pectin'];
const JUICED = { cut: ['juice'], strain: ['strained'] } as const;
const HALVES = { cut: ['halved', 'sliced'] } as const;
const WHOLE = { cut: ['whole'] } as const;
/** Plain tomatoes: nothing but tomatoes, no liquid but the one they are packed in. */
const tomatoes = (more: More): Cover[] => [of(['tomato'], { peel: ['peeled'], ...more })];
const tomatoBase = (more: More = {}): Cover[] => [of(['tomato'], { water: '', ...more })];
const filling = (food: string, acid: string, starch: string, more: More = {}): Cover[] => [
  of([food], { acid: [acid], starch, setBy: ['modified starch'], cut: ['whole', 'sliced'], ...more }),
];
/** Pieces in a brine of so much acid to so much water. */
const packed = (food: string[], acid: string[], water: string, more: More = {}): Cover =>
  of(food, { acid, water, packed: true, ...more });
/** A pot of chopped food with its acid. */
const pot = (food: string[], acid: string[], water: string, more: More = {}): Cover =>
  of(food, { acid, water, cut: ['chopped', 'sliced', 'crushed'], ...more });

const BERRIES = 'blackberry|blueberry|currant-red|currant-black|gooseberry|huckleberry|loganberry|raspberry';
const BREAD_AND_BUTTER = ['cucumber 6 lb', 'onion 3 lb'];
const DILLS = { cut: ['whole', 'halved', 'sliced'] } as const;

/**
 * What each entry covers, recalled from memory from the recipes of the USDA Complete Guide to Home Canning (2015
 * revision), guides 2, 3, 6 and 7; the clean-jar form of an entry covers what the entry does. Dried spices, salt and sugar are flavour and stand in none of them.
 */
export const COVERS: Readonly<Names<readonly Cover[]>> = byName<readonly Cover[]>({
  'jam-no-pectin-5': spread(['nothing added']),
  'jam-pectin-5': spread(PECTINS),
  'jelly-no-pectin-5': spread(['nothing added'], JUICED),
  'jelly-pectin-5': spread(PECTINS, JUICED),
  'marmalade-5': spread(['nothing added', ...PECTINS]),
  'apple-butter': [of(['apple|crabapple'], { cut: ['puréed'], setBy: ['nothing added', 'not set'] })],
  'berry-syrup': [
    of([`${BERRIES}|strawberry|grape|sour-cherry|sweet-cherry`], { cut: ['juice', 'crushed', 'whole'] }),
  ],
  'apple-juice': [of(['apple'], { cut: ['juice'] })],
  'grape-juice': [of(['grape'], { cut: ['juice'] })],
  applesauce: [of(['apple'], { cut: ['puréed', 'crushed', 'chopped'] })],
  'fruit-puree': [of([], { anyAcidFruit: true, cut: ['puréed'] })],
  'apple-slices': [of(['apple'], { cut: ['sliced'], peel: ['peeled'] })],
  'apple-rings': [of(['apple 12 lb'], { cut: ['sliced'], peel: ['peeled'] })],
  'spiced-crabapples': [of(['crabapple 5 lb'], WHOLE)],
  'apricots-hot': [of(['apricot'], HALVES)],
  'apricots-raw': [of(['apricot'], HALVES)],
  'berries-hot': [of([BERRIES], WHOLE)],
  'berries-raw': [of([BERRIES], WHOLE)],
  'cherries-hot': [of(['sour-cherry|sweet-cherry'], WHOLE)],
  'cherries-raw': [of(['sour-cherry|sweet-cherry'], WHOLE)],
  figs: [of(['fig'], WHOLE)],
  'fruit-cocktail': [
    of(['peach|nectarine', 'pear', 'grape', 'sweet-cherry|sour-cherry'], {
      main: 4,
      cut: ['chopped', 'sliced', 'halved'],
    }),
  ],
  'citrus-sections': [of(['grapefruit|orange|tangerine'], { peel: ['peeled'] })],
  'grapes-hot': [of(['grape'], WHOLE)],
  'grapes-raw': [of(['grape'], WHOLE)],
  'peaches-hot': [of(['peach|nectarine'], HALVES)],
  'peaches-raw': [of(['peach|nectarine'], HALVES)],
  pears: [of(['pear'], { cut: ['halved'], peel: ['peeled'] })],
  pineapple: [of(['pineapple'], { cut: ['sliced', 'chopped'], peel: ['peeled'] })],
  'plums-hot': [of(['plum'], { cut: ['whole', 'halved'] })],
  'plums-raw': [of(['plum'], { cut: ['whole', 'halved'] })],
  rhubarb: [of(['rhubarb'], { cut: ['chopped', 'sliced', 'crushed', 'puréed'] })],
  'zucchini-pineapple': [
    of(['zucchini 16 c', 'pineapple-juice 46 floz'], {
      acid: ['bottled-lemon 1 1/2 c'],
      water: '',
      cut: ['chopped', 'sliced'],
    }),
  ],
  'apple-pie-filling': filling('apple 24 c', 'bottled-lemon 3/4 c', '1 1/2 c', { peel: ['peeled'] }),
  'blueberry-pie-filling': filling('blueberry 24 c', 'bottled-lemon 1/2 c', '2 1/4 c'),
  'cherry-pie-filling': filling('sour-cherry 24 c', 'bottled-lemon 1/2 c', '1 3/4 c'),
  'peach-pie-filling': filling('peach 24 c', 'bottled-lemon 1 3/4 c', '2 1/4 c', { peel: ['peeled'] }),
  'mango-salsa': [
    pot(
      ['green-mango 6 c', 'bell-pepper 1 1/2 c', 'onion 1/2 c', 'garlic 2 tsp', 'ginger 2 tsp'],
      ['cider-vinegar 1 1/4 c'],
      '1/2 c',
    ),
  ],
  'cranberry-salsa': [
    pot(['cranberry 12 c', 'red-onion 6 c', 'hot-pepper 4'], ['cider-vinegar 1 1/2 c'], '1 1/2 c', {
      cut: [],
    }),
  ],
  'cranberry-orange-chutney': [
    pot(
      ['cranberry 24 oz', 'onion 2 c', 'raisin 2 c', 'orange-juice 1 c', 'ginger 4 tsp'],
      ['white-vinegar 2 c'],
      '',
      { cut: [] },
    ),
  ],
  'mango-chutney': [
    pot(
      ['green-mango 11 c', 'onion 2 1/2 c', 'ginger 2 1/2 Tbsp', 'garlic 1 1/2 Tbsp', 'raisin 2 1/2 c'],
      ['white-vinegar 3 c'],
      '',
    ),
  ],

  'tomato-juice': tomatoBase({ cut: ['juice', 'puréed'] }),
  'tomato-vegetable-juice': [
    of(['tomato 22 lb', 'celery|onion|carrot|bell-pepper 3 c'], { water: '', cut: ['juice', 'puréed'] }),
  ],
  'tomatoes-crushed': tomatoBase({ cut: ['crushed', 'chopped'], peel: ['peeled'] }),
  'tomato-sauce': tomatoBase({ cut: ['puréed', 'juice'] }),
  'tomatoes-in-water': tomatoes({ cut: ['whole', 'halved'] }),
  'tomatoes-in-water-raw': tomatoes({ cut: ['whole', 'halved'] }),
  'tomatoes-in-juice': [
    of(['tomato', 'tomato-juice'], { main: 2, water: '', cut: ['whole', 'halved'], peel: ['peeled'] }),
  ],
  'tomatoes-in-juice-raw': [
    of(['tomato', 'tomato-juice'], { main: 2, water: '', cut: ['whole', 'halved'], peel: ['peeled'] }),
  ],
  'tomatoes-no-liquid': tomatoes({ cut: ['whole', 'halved'], water: '' }),
  'tomato-ketchup': [of(['tomato 24 lb', 'onion 3 c'], { acid: ['cider-vinegar 3 c'], water: '' })],
  'blender-ketchup': [
    of(['tomato 24 lb', 'onion 2 lb', 'bell-pepper 2 lb'], { acid: ['cider-vinegar 9 c'], water: '' }),
  ],
  'hot-tomato-pepper-sauce': [
    pot(['tomato 5 lb', 'hot-pepper 2 lb', 'onion 1 lb'], ['white-vinegar 1 c'], '', { peel: ['peeled'] }),
  ],
  'tomatillo-salsa': [
    pot(
      ['tomatillo|green-tomato 5 c', 'hot-pepper 2 c', 'onion 4 c', 'garlic 6 cloves'],
      ['bottled-lemon 1 c'],
      '',
    ),
  ],
  'tomato-salsa': [
    pot(['tomato 28 c', 'hot-pepper 4 1/2 c', 'onion 5 c', 'garlic 6 cloves'], ['bottled-lemon 2 c'], '', {
      peel: ['peeled'],
    }),
    pot(
      ['tomato 4 c', 'hot-pepper 2 1/2 c', 'onion 3/4 c', 'garlic 4 cloves', 'cilantro 1 Tbsp'],
      ['white-vinegar 2 c'],
      '',
      { peel: ['peeled'] },
    ),
  ],
  'taco-sauce': [
    pot(['tomato 32 c', 'hot-pepper 8', 'onion 5 c', 'garlic 2 cloves'], ['white-vinegar 2 1/2 c'], '', {
      peel: ['peeled'],
    }),
  ],

  'dill-pickles': [packed(['cucumber 8 lb', 'dill'], ['white-vinegar 6 c'], '8 c', DILLS)],
  'sweet-gherkins': [packed(['cucumber 7 lb'], ['white-vinegar 6 c'], '', WHOLE)],
  'fourteen-day-pickles': [
    packed(['cucumber 4 lb'], ['white-vinegar 4 c'], '', { cut: ['whole', 'sliced'] }),
  ],
  'quick-sweet-pickles-hot': [packed(['cucumber 8 lb'], ['white-vinegar 3 1/2 c'], '', { cut: ['sliced'] })],
  'quick-sweet-pickles-raw': [packed(['cucumber 8 lb'], ['white-vinegar 3 1/2 c'], '', { cut: ['sliced'] })],
  'bread-and-butter-pickles': [packed(BREAD_AND_BUTTER, ['white-vinegar 4 c'], '', { cut: ['sliced'] })],
  'less-sodium-dill': [
    packed(['cucumber 4 lb', 'onion 2', 'dill'], ['white-vinegar 6 c'], '', { cut: ['sliced'] }),
  ],
  'less-sodium-sweet': [packed(['cucumber 4 lb'], ['white-vinegar 1 2/3 c'], '', { cut: ['sliced'] })],
  'dilled-beans': [
    packed(['snap-bean 4 lb', 'garlic 8 cloves', 'dill'], ['white-vinegar 5 c'], '5 c', {
      cut: ['whole', 'chopped'],
    }),
  ],
  'three-bean-salad': [
    packed(
      ['snap-bean 3 c', 'kidney-bean|garbanzo 1 c', 'onion 1/2 c', 'celery 1/2 c', 'bell-pepper 1/2 c'],
      ['white-vinegar 1/2 c', 'bottled-lemon 1/4 c'],
      '1 1/4 c',
      { oil: '1/4 c' },
    ),
  ],
  beets: [
    packed(['beet 7 lb', 'onion 6'], ['white-vinegar 4 c'], '2 c', {
      peel: ['peeled'],
      cut: ['whole', 'halved', 'sliced', 'chopped'],
    }),
  ],
  carrots: [
    packed(['carrot 2 3/4 lb'], ['white-vinegar 5 1/2 c'], '1 c', {
      peel: ['peeled'],
      cut: ['whole', 'sliced', 'chopped'],
    }),
  ],
  cauliflower: [
    packed(['cauliflower|brussels-sprout 12 c', 'onion 2 c', 'bell-pepper 1 c'], ['white-vinegar 4 c'], '', {
      cut: ['whole', 'halved', 'chopped'],
    }),
  ],
  'jicama-slaw': [
    pot(
      ['jicama 4 c', 'chayote 4 c', 'bell-pepper 2 c', 'hot-pepper 2'],
      ['cider-vinegar 2 1/2 c'],
      '2 1/2 c',
      { main: 2, packed: true },
    ),
  ],
  'bread-and-butter-jicama': [
    packed(['jicama 14 c', 'onion 3 c', 'bell-pepper 1 c'], ['white-vinegar 4 c'], '', {
      cut: ['chopped', 'sliced'],
    }),
  ],
  'marinated-mushrooms': [
    packed(
      ['mushroom 7 lb', 'onion 1/2 c', 'bell-pepper 1/4 c', 'garlic 2 cloves'],
      ['white-vinegar 2 1/2 c', 'bottled-lemon 1/2 c'],
      '',
      { oil: '2 c', cut: ['whole'] },
    ),
  ],
  okra: [
    packed(['okra 7 lb', 'hot-pepper 9', 'garlic 9 cloves', 'dill'], ['white-vinegar 6 c'], '6 c', WHOLE),
  ],
  'pearl-onions': [
    packed(['pearl-onion 8 c'], ['white-vinegar 5 1/2 c'], '1 c', { ...WHOLE, peel: ['peeled'] }),
  ],
  'marinated-peppers': [
    packed(
      ['bell-pepper|hot-pepper 4 lb', 'onion 1/2 c', 'garlic 2 cloves', 'horseradish 2 Tbsp'],
      ['white-vinegar 2 c', 'bottled-lemon 1 c'],
      '',
      { oil: '1 c', peel: ['peeled'] },
    ),
  ],
  'bell-peppers': [
    packed(['bell-pepper 7 lb', 'garlic 9 cloves'], ['white-vinegar 3 c'], '3 c', {
      cut: ['sliced', 'halved', 'chopped'],
    }),
  ],
  'hot-peppers': [
    packed(['hot-pepper|bell-pepper 7 lb', 'garlic 2 cloves'], ['white-vinegar 5 c'], '1 c', DILLS),
  ],
  'jalapeno-rings': [packed(['jalapeno 3 lb'], ['cider-vinegar 7 1/2 c'], '1 3/4 c', { cut: ['sliced'] })],
  'yellow-pepper-rings': [packed(['hot-pepper 3 lb'], ['cider-vinegar 5 c'], '1 1/4 c', { cut: ['sliced'] })],
  'sweet-green-tomatoes': [
    packed(['green-tomato 10 lb', 'onion 2 c'], ['white-vinegar 4 c'], '', { cut: ['sliced'] }),
  ],
  'mixed-vegetables': [
    packed(
      [
        'cucumber 4 lb',
        'onion|pearl-onion 2 lb',
        'celery 4 c',
        'carrot 2 c',
        'bell-pepper 2 c',
        'cauliflower 2 c',
      ],
      ['white-vinegar 5 c'],
      '',
      { main: 6, cut: ['chopped', 'sliced'] },
    ),
  ],
  'bread-and-butter-zucchini': [
    packed(['zucchini 16 c', 'onion 4 c'], ['white-vinegar 4 c'], '', { cut: ['sliced'] }),
  ],
  piccalilli: [
    pot(
      ['green-tomato 6 c', 'cabbage 7 1/2 c', 'bell-pepper 3 c', 'onion 2 1/4 c'],
      ['white-vinegar 4 1/2 c'],
      '',
      { main: 2 },
    ),
  ],
  'pickle-relish': [pot(['cucumber 12 c', 'bell-pepper 6 c', 'onion 1 c'], ['white-vinegar 4 c'], '')],
  'corn-relish': [
    pot(['corn 10 c', 'bell-pepper 5 c', 'celery 2 1/2 c', 'onion 1 1/4 c'], ['white-vinegar 5 c'], '', {
      cut: [],
    }),
  ],
  'green-tomato-relish': [
    pot(['green-tomato 10 lb', 'bell-pepper 3 lb', 'onion 2 lb'], ['white-vinegar 4 c'], '4 c'),
  ],
  'pepper-onion-relish': [pot(['onion 6 c', 'bell-pepper 6 c'], ['white-vinegar 6 c'], '', { main: 2 })],
  'sauerkraut-hot': [of(['cabbage|red-cabbage'], { cut: ['sliced'] })],
  'sauerkraut-raw': [of(['cabbage|red-cabbage'], { cut: ['sliced'] })],
});
