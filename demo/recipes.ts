import { type Amount, readAmount } from '@cocotte/core/measure';
import { libraryOf } from '@cocotte/core/ingredients';
import {
  type Line,
  type Recipe,
  type Step,
  emptyRecipe,
  lineFrom,
  noTerms,
  stepFrom,
} from '@cocotte/core/recipes';

/** The made-up kitchen's own recipes. Figures are invented but for the published facts their authority names. */
const amount = (text: string): Amount => {
  const read = readAmount(text, 'en-US');
  if (!read.ok) throw new Error(`${text}: ${read.fault.what}`);
  return read.value;
};

const LIBRARY = new Map(libraryOf([]).map(i => [i.id, i]));
const WEIGHED = 'weighed in this kitchen (invented)';

/** A line with the library's facts; `more` says what this kitchen does otherwise. */
const line = (
  id: string,
  ingredientId: string | null,
  name: string,
  text: string,
  more: Partial<Line> = {},
): Line => {
  const ingredient = ingredientId === null ? null : LIBRARY.get(ingredientId);
  if (ingredient === undefined) throw new Error(`${ingredientId}: not in the library`);
  return { ...lineFrom(id, amount(text), name, ingredient, more.preparation), basis: 'prepared', ...more };
};

const step = (id: string, kind: Step['kind'], text: string, more: Partial<Step> = {}): Step => ({
  ...stepFrom(id, kind, text),
  ...more,
});
const all = (...ids: string[]): Step['adds'] => ids.map(lineId => ({ lineId, share: '1' }));

const OPEN = step(
  'open',
  'prepare',
  'Open the kitchen: wash hands, surfaces and tools; wash jars and keep them hot',
);
const PROCESS = step('process', 'process', 'Into the canner; start the clock at the full boil');
const COOL = step('cool', 'cool', 'Cool 12 to 24 hours out of the draught', {
  window: { from_min: 720, to_min: 1440 },
});
const FILL_SPREAD = step(
  'fill',
  'fill',
  'Skim; fill hot jars to 1/4 inch; free bubbles, wipe rims, lids fingertip tight',
  { caution: 'Hot jam scalds: a cloth under the jars.' },
);

export const plumJam: Recipe = {
  ...emptyRecipe(),
  name: 'Red plum jam',
  code: 'RPJ',
  statementOfIdentity: 'Red plum jam',
  product: 'jam',
  family: 'Stone fruit',
  tags: ['no pectin', 'summer'],
  foodClass: 'fruit spread',
  setBy: 'nothing added',
  method: { peel: 'skins on', cut: 'crushed', strain: 'unstrained', liquid: 'none', pack: 'hot' },
  authority: { grade: 'own', entryId: 'jam-no-pectin-10' },
  lines: [
    line('plums', 'plum', 'Red plums', '4 1/2 lb', {
      preparation: 'stoned and quartered, skins on',
      density_gPerMl: 0.7,
      weightSource: WEIGHED,
      trimYield: 0.92,
      labelName: 'plums',
    }),
    line('sugar', 'sugar', 'Sugar', '7 c'),
    line('lemon', 'bottled-lemon', 'Bottled lemon juice', '1/4 c'),
    line('water', 'water', 'Water', '1/2 c'),
  ],
  steps: [
    OPEN,
    step('prepare', 'prepare', 'Sort, wash, stone and quarter the plums; weigh them prepared', {
      adds: all('plums'),
    }),
    step('macerate', 'rest', 'Plums stand in half the sugar', {
      window: { from_min: 240, to_min: 1080 },
      mayStop_h: 18,
      adds: [{ lineId: 'sugar', share: '1/2' }],
    }),
    step('soften', 'cook', 'Simmer with the water until the skins are soft', {
      target: { kind: 'look', text: 'the skins give way' },
      attention: { kind: 'look in', every_min: 5 },
      adds: all('water'),
    }),
    step(
      'boil',
      'cook',
      'Add the rest of the sugar and the lemon juice; boil fast, stirring, to the gel point',
      {
        caution: 'It spits and sticks: long sleeves, do not leave it.',
        target: { kind: 'gel point' },
        adds: [{ lineId: 'sugar', share: '1/2' }, ...all('lemon')],
      },
    ),
    FILL_SPREAD,
    PROCESS,
    COOL,
  ],
  makes: { size: 'half-pint', count: 8 },
  jars: [
    { size: 'half-pint', net: { kind: 'weight', oz: 10 } },
    { size: 'quarter-pint', net: { kind: 'weight', oz: 4.5 } },
  ],
  notes: 'Set without added pectin. Tart plums set sooner; watch from 214 °F on.',
};

/** A variant of the plum jam; the seed names the recipe it varies. */
export const plumCardamomJam: Recipe = {
  ...plumJam,
  name: 'Plum and cardamom jam',
  code: 'PCJ',
  statementOfIdentity: 'Plum and cardamom jam',
  tags: ['no pectin', 'spiced'],
  lines: [
    ...plumJam.lines.map(l => (l.id === 'sugar' ? line('sugar', 'sugar', 'Sugar', '6 1/2 c') : l)),
    line('cardamom', 'cardamom', 'Ground cardamom', '3/4 tsp'),
  ],
  steps: plumJam.steps.map(s => (s.id === 'boil' ? { ...s, adds: [...s.adds, ...all('cardamom')] } : s)),
  notes: 'The red plum jam with less sugar and cardamom at the end.',
};

export const waxBeans: Recipe = {
  ...emptyRecipe(),
  name: 'Dilled wax beans',
  code: 'DWB',
  statementOfIdentity: 'Dilled wax beans',
  product: 'pickle',
  family: 'Pickles',
  tags: ['beans', 'vinegar'],
  foodClass: 'acidified food',
  method: { peel: 'skins on', cut: 'whole', strain: 'unstrained', liquid: 'vinegar brine', pack: 'raw' },
  authority: {
    grade: 'letter',
    authority: 'Process desk of the made-up Alder Crossing Food School',
    reference: 'DEMO-WK-02',
    issuedOn: '2026-02-10',
    demo: true,
    maxPh: 4.4,
    limits: 'Pints, raw pack, brine of 6 parts vinegar to 4 of water.',
    terms: {
      ...noTerms(),
      producer: 'Wrenfold Kitchen',
      site: '12 Mill Lane, Alder Crossing',
      closure: 'two-piece lids, new',
      perPint_g: 240,
    },
    process: {
      kind: 'boiling water',
      headspace_mm: 12.7,
      pack: 'raw',
      minutes: [
        {
          jarSize: 'pint',
          byAltitude: [
            { upTo_ft: 1000, minutes: 10 },
            { upTo_ft: 6000, minutes: 15 },
            { upTo_ft: null, minutes: 20 },
          ],
        },
      ],
    },
  },
  lines: [
    line('beans', 'snap-bean', 'Yellow wax beans', '4 lb', {
      preparation: 'ends off, cut to jar length',
      labelName: 'wax beans',
    }),
    line('vinegar', 'white-vinegar', 'White vinegar, 5 %', '6 c', { where: 'brine' }),
    line('water', 'water', 'Water', '4 c', { where: 'brine' }),
    line('salt', 'canning-salt', 'Canning salt', '1/3 c', { where: 'brine' }),
    line('dill', 'dill', 'Dill heads', '1', {
      where: 'each jar',
      each_g: 6,
      weightSource: WEIGHED,
      labelName: 'dill',
    }),
    line('garlic', 'garlic', 'Garlic cloves', '1', {
      where: 'each jar',
      each_g: 4,
      weightSource: WEIGHED,
      trimYield: 0.9,
    }),
    line('flakes', 'pepper-flakes', 'Hot pepper flakes', '1/4 tsp', {
      where: 'each jar',
      labelName: 'hot pepper',
    }),
  ],
  steps: [
    OPEN,
    step('prepare', 'prepare', 'Wash, trim and cut the beans to jar length; weigh them prepared', {
      adds: all('beans'),
    }),
    step('brine', 'acidify', 'Bring vinegar, water and salt to a boil', {
      caution: 'Stainless or sound enamel only; mind the fumes.',
      target: { kind: 'look', text: 'it boils and the salt is gone' },
      adds: all('vinegar', 'water', 'salt'),
    }),
    step(
      'pack',
      'fill',
      'Dill, garlic and flakes in each jar; beans upright and tight; hot brine to 1/2 inch; bubbles out, top up, wipe, lids fingertip tight',
      { caution: 'Hot brine scalds.', adds: all('dill', 'garlic', 'flakes') },
    ),
    PROCESS,
    COOL,
  ],
  makes: { size: 'pint', count: 8 },
  jars: [{ size: 'pint', net: { kind: 'volume', floz: 16 } }],
  packing: { perPint_g: 225, pieceDensity_gPerMl: 0.95, spareShare: 0.1 },
  readyAfter_days: 21,
  notes: 'DEMO process letter: do not cook from this.',
};

export const crushedTomatoes: Recipe = {
  ...emptyRecipe(),
  name: 'Crushed tomatoes',
  code: 'CRT',
  statementOfIdentity: 'Crushed tomatoes',
  product: 'tomatoes',
  family: 'Tomatoes',
  tags: ['pantry'],
  foodClass: 'acidified food',
  method: { peel: 'peeled', cut: 'crushed', strain: 'unstrained', liquid: 'none', pack: 'hot' },
  authority: {
    grade: 'tested publication',
    kind: 'publication',
    title: 'USDA Complete Guide to Home Canning',
    edition: '2015 revision',
    year: 2015,
    part: 'guide 3, crushed tomatoes',
    checkedOn: '2026-03-02',
    fromMemory: true,
    time: { kind: 'entry', entryId: 'tomatoes-crushed' },
  },
  lines: [
    line('tomatoes', 'tomato', 'Tomatoes', '11 lb', {
      preparation: 'peeled, cored and quartered',
      trimYield: 0.85,
    }),
    line('lemon', 'bottled-lemon', 'Bottled lemon juice', '1 Tbsp', { where: 'each jar' }),
  ],
  steps: [
    OPEN,
    step('peel', 'prepare', 'Scald, peel, core and quarter the tomatoes; none from dead or frosted vines', {
      caution: 'Boiling water: lower them in with a spoon.',
    }),
    step('crush', 'cook', 'Heat one sixth fast while crushing; add the rest, stirring; then boil gently', {
      target: { kind: 'time', minutes: 5 },
      adds: all('tomatoes'),
    }),
    step(
      'fill',
      'fill',
      'Lemon juice into each jar first; hot tomatoes to 1/2 inch; bubbles out, wipe, lids fingertip tight',
      { caution: 'Hot tomatoes scald.', adds: all('lemon') },
    ),
    { ...PROCESS, text: 'Into the canner under 2 inches of water; start the clock at the full boil' },
    COOL,
  ],
  makes: { size: 'pint', count: 9 },
  jars: [
    { size: 'pint', net: { kind: 'weight', oz: 15 } },
    { size: 'quart', net: { kind: 'weight', oz: 31 } },
  ],
  notes:
    'The time, the acid and the headspace are the published ones; hold them against the book before cooking.',
};

export const currantJelly: Recipe = {
  ...emptyRecipe(),
  name: 'Red currant jelly',
  code: 'RCJ',
  statementOfIdentity: 'Red currant jelly',
  product: 'jelly',
  family: 'Berries',
  tags: ['no pectin', 'clear'],
  foodClass: 'fruit spread',
  setBy: 'nothing added',
  method: { peel: 'either', cut: 'juice', strain: 'strained', liquid: 'none', pack: 'hot' },
  authority: { grade: 'own', entryId: 'jelly-no-pectin-10' },
  lines: [
    line('currants', 'currant-red', 'Red currants', '6 lb', {
      preparation: 'washed, on the stalk',
      where: 'strained',
      keptShare: 0.62,
    }),
    line('water', 'water', 'Water', '1 1/2 c', { where: 'strained', keptShare: 0.9 }),
    line('sugar', 'sugar', 'Sugar', '850 g', {
      ratio: { of: 'step', id: 'juice', per: amount('1 L') },
    }),
  ],
  steps: [
    OPEN,
    step('soften', 'cook', 'Crush and simmer until the currants have burst', {
      target: { kind: 'look', text: 'every berry has burst' },
      adds: all('currants', 'water'),
    }),
    step('strain', 'strain', 'Strain through a wet bag; do not press it for a clear jelly', {
      window: { from_min: 240, to_min: 900 },
      attention: { kind: 'free' },
      mayStop_h: 24,
    }),
    step('juice', 'measure', 'Measure the juice', { expects: amount('2 L') }),
    step('boil', 'cook', 'Sugar in, by the juice measured; boil fast to the gel point', {
      caution: 'It rises: never more than half a pot.',
      target: { kind: 'gel point' },
      adds: all('sugar'),
    }),
    FILL_SPREAD,
    PROCESS,
    COOL,
  ],
  makes: { size: 'half-pint', count: 9 },
  jars: [
    { size: 'half-pint', net: { kind: 'weight', oz: 10 } },
    { size: 'quarter-pint', net: { kind: 'weight', oz: 4.5 } },
  ],
  notes: 'Sugar follows the juice: 850 g for each litre.',
};

export const strawberryJam: Recipe = {
  ...emptyRecipe(),
  name: 'Strawberry jam with pectin',
  code: 'SJP',
  statementOfIdentity: 'Strawberry jam',
  product: 'jam',
  family: 'Berries',
  tags: ['pectin', 'summer'],
  foodClass: 'fruit spread',
  setBy: 'ordinary pectin',
  method: { peel: 'either', cut: 'crushed', strain: 'unstrained', liquid: 'none', pack: 'hot' },
  authority: {
    grade: 'tested publication',
    kind: 'leaflet',
    title: 'Leaflet of the made-up Hazelpan pectin (demo, do not cook from this)',
    edition: 'third printing',
    year: 2024,
    part: 'strawberry jam',
    checkedOn: '2026-05-20',
    fromMemory: false,
    time: { kind: 'entry', entryId: 'jam-pectin-10' },
  },
  lines: [
    line('strawberries', 'strawberry', 'Strawberries', '5 c', { preparation: 'crushed', form: 'crushed' }),
    line('pectin', 'pectin-powder', 'Powdered pectin', '1 package'),
    line('sugar', 'sugar', 'Sugar', '7 c'),
    line('butter', 'butter', 'Butter', '1/2 tsp', { preparation: 'against foam' }),
  ],
  steps: [
    OPEN,
    step('crush', 'prepare', 'Wash, hull and crush the strawberries one layer at a time', {
      adds: all('strawberries'),
    }),
    step('pectin', 'cook', 'Stir in the pectin; bring to a boil that stirring cannot stop', {
      target: { kind: 'look', text: 'a boil that stirring cannot stop' },
      adds: all('pectin', 'butter'),
    }),
    step('boil', 'cook', 'Sugar in at once; back to the full boil, and one minute of it', {
      target: { kind: 'time', minutes: 1 },
      adds: all('sugar'),
    }),
    FILL_SPREAD,
    PROCESS,
    COOL,
  ],
  makes: { size: 'half-pint', count: 8 },
  jars: [{ size: 'half-pint', net: { kind: 'weight', oz: 10 } }],
  notes: 'One package to a pot: it does not set when doubled.',
};

export const tomatoSalsa: Recipe = {
  ...emptyRecipe(),
  name: "Aunt Pell's tomato salsa",
  code: 'APS',
  statementOfIdentity: 'Tomato salsa',
  product: 'salsa',
  family: 'Tomatoes',
  tags: ['hot', 'trial'],
  foodClass: 'acidified food',
  method: { peel: 'peeled', cut: 'chopped', strain: 'unstrained', liquid: 'none', pack: 'hot' },
  authority: { grade: 'own', entryId: null },
  lines: [
    line('tomatoes', 'tomato', 'Tomatoes', '3 kg', { preparation: 'peeled, cored, chopped' }),
    line('onions', 'onion', 'Onions', '4 c', { preparation: 'chopped' }),
    line('peppers', 'jalapeno', 'Jalapeño peppers', '6', {
      preparation: 'seeded, chopped',
      basis: 'as bought',
    }),
    line('garlic', 'garlic', 'Garlic', '6 cloves', { preparation: 'minced', basis: 'as bought' }),
    line('lime', 'bottled-lime', 'Bottled lime juice', '1 c'),
    line('salt', 'canning-salt', 'Canning salt', '1-2 Tbsp, to taste'),
  ],
  steps: [
    OPEN,
    step('chop', 'prepare', 'Peel, core and chop the tomatoes; chop the rest', {
      caution: 'Gloves for hot peppers.',
      adds: all('tomatoes', 'onions', 'peppers', 'garlic'),
    }),
    step('cook', 'cook', 'Lime juice and salt in; simmer down', {
      target: { kind: 'volume', volume_mL: 3600 },
      attention: { kind: 'look in', every_min: 10 },
      adds: all('lime', 'salt'),
    }),
    { ...FILL_SPREAD, text: 'Fill hot jars to 1/2 inch; free bubbles, wipe rims, lids fingertip tight' },
    COOL,
  ],
  makes: { size: 'pint', count: 7 },
  jars: [{ size: 'pint', net: { kind: 'weight', oz: 16 } }],
  notes: 'Inherited. A trial until a process authority has seen it.',
};

export const sauerkraut: Recipe = {
  ...emptyRecipe(),
  name: 'Sauerkraut',
  code: 'SKR',
  statementOfIdentity: 'Sauerkraut',
  product: 'sauerkraut',
  family: 'Ferments',
  tags: ['autumn'],
  foodClass: 'fermented food',
  method: { peel: 'either', cut: 'sliced', strain: 'unstrained', liquid: 'salt brine', pack: 'hot' },
  authority: {
    grade: 'tested publication',
    kind: 'publication',
    title: 'USDA Complete Guide to Home Canning',
    edition: '2015 revision',
    year: 2015,
    part: 'guide 6, sauerkraut',
    checkedOn: '2026-03-02',
    fromMemory: true,
    time: { kind: 'entry', entryId: 'sauerkraut-hot' },
  },
  lines: [
    line('cabbage', 'cabbage', 'Cabbage', '25 lb', { preparation: 'cored and shredded' }),
    line('salt', 'canning-salt', 'Canning salt', '265 g'),
  ],
  steps: [
    OPEN,
    step(
      'shred',
      'prepare',
      'Shred the cabbage to the thickness of a coin; work the salt in, five pounds at a time',
      {
        adds: all('cabbage', 'salt'),
      },
    ),
    step('ferment', 'rest', 'Under its own brine, weighted and covered, at 70 to 75 °F; skim', {
      window: { from_min: 30240, to_min: 40320 },
      attention: { kind: 'look in', every_min: 2880 },
    }),
    step('boil', 'cook', 'Bring to a boil in its own liquid', { target: { kind: 'look', text: 'it boils' } }),
    step(
      'fill',
      'fill',
      'Fill hot jars with kraut and juice to 1/2 inch; bubbles out, wipe, lids fingertip tight',
      {
        caution: 'Hot juice scalds.',
      },
    ),
    PROCESS,
    COOL,
  ],
  makes: { size: 'quart', count: 11 },
  jars: [
    { size: 'quart', net: { kind: 'volume', floz: 32 } },
    { size: 'pint', net: { kind: 'volume', floz: 16 } },
  ],
  notes: 'Salt by weight, always.',
};
