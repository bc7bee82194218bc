import { type Amount, readAmount } from '@cocotte/core/measure';
import type { Line, Recipe } from '@cocotte/core/recipes';

/** The made-up kitchen's own recipes. Figures are invented but for the published facts their authority names. */
const amount = (text: string): Amount => {
  const read = readAmount(text, 'en-US');
  if (!read.ok) throw new Error(`${text}: ${read.fault.what}`);
  return read.value;
};

const CUP = 'common kitchen density, from memory';
const line = (id: string, name: string, role: Line['role'], text: string, more: Partial<Line> = {}): Line => ({
  id, name, preparation: '', role, amount: amount(text), where: 'pot', density_gPerMl: null, each_g: null, weightSource: '', trimYield: 1, labelName: name.toLowerCase(), subIngredients: '',
  allergens: [], minStrength_pct: null, safelyAcid: false, ...more,
});

export const plumJam: Recipe = {
  name: 'Red plum jam', code: 'RPJ', statementOfIdentity: 'Red plum jam', foodClass: 'fruit spread',
  authority: { grade: 'own', entryId: 'jam-no-pectin-10' },
  lines: [
    line('plums', 'Red plums', 'fruit', '4 1/2 lb', { preparation: 'stoned and quartered, skins on', density_gPerMl: 0.7, weightSource: 'weighed in this kitchen (invented)', trimYield: 0.92, labelName: 'plums', safelyAcid: true }),
    line('sugar', 'Sugar', 'sweetener', '7 c', { density_gPerMl: 0.845, weightSource: CUP, labelName: 'sugar' }),
    line('lemon', 'Bottled lemon juice', 'acid', '1/4 c', { density_gPerMl: 1.03, weightSource: CUP, labelName: 'lemon juice', subIngredients: 'lemon juice from concentrate, sulphites', allergens: ['sulphites'] }),
    line('water', 'Water', 'water', '1/2 c', { density_gPerMl: 1, weightSource: CUP, labelName: 'water' }),
  ],
  steps: [
    { id: 'open', kind: 'prepare', text: 'Open the kitchen: wash hands, surfaces and tools; wash jars and keep them hot', caution: '', target: { kind: 'none' }, window: null, lineIds: [] },
    { id: 'prepare', kind: 'prepare', text: 'Sort, wash, stone and quarter the plums; weigh them prepared', caution: '', target: { kind: 'none' }, window: null, lineIds: ['plums'] },
    { id: 'macerate', kind: 'rest', text: 'Plums stand in half the sugar', caution: '', target: { kind: 'none' }, window: { from_min: 240, to_min: 1080 }, lineIds: ['plums', 'sugar'] },
    { id: 'soften', kind: 'cook', text: 'Simmer with the water until the skins are soft', caution: '', target: { kind: 'look', text: 'the skins give way' }, window: null, lineIds: ['water'] },
    { id: 'boil', kind: 'cook', text: 'Add the rest of the sugar and the lemon juice; boil fast, stirring, to the gel point', caution: 'It spits and sticks: long sleeves, do not leave it.', target: { kind: 'gel point' }, window: null, lineIds: ['sugar', 'lemon'] },
    { id: 'fill', kind: 'fill', text: 'Skim; fill hot jars to 1/4 inch; free bubbles, wipe rims, lids fingertip tight', caution: 'Hot jam scalds: a cloth under the jars.', target: { kind: 'none' }, window: null, lineIds: [] },
    { id: 'process', kind: 'process', text: 'Into the canner; start the clock at the full boil', caution: '', target: { kind: 'none' }, window: null, lineIds: [] },
    { id: 'cool', kind: 'cool', text: 'Cool 12 to 24 hours out of the draught', caution: '', target: { kind: 'none' }, window: null, lineIds: [] },
  ],
  makes: { size: 'half-pint', count: 8 },
  jars: [{ size: 'half-pint', net: { kind: 'weight', oz: 10 } }, { size: 'quarter-pint', net: { kind: 'weight', oz: 4.5 } }],
  shelfLife_months: 12, readyAfter_days: 0,
  notes: 'Set without added pectin. Tart plums set sooner; watch from 214 °F on.',
};

export const waxBeans: Recipe = {
  name: 'Dilled wax beans', code: 'DWB', statementOfIdentity: 'Dilled wax beans', foodClass: 'acidified food',
  authority: {
    grade: 'letter', authority: 'Process desk of the made-up Alder Crossing Food School', reference: 'DEMO-WK-02', issuedOn: '2026-02-10', demo: true, headspace_mm: 12.7, pack: 'raw', maxPh: 4.4,
    minutes: [{ jarSize: 'pint', byAltitude: [{ upTo_ft: 1000, minutes: 10 }, { upTo_ft: 6000, minutes: 15 }, { upTo_ft: null, minutes: 20 }] }],
  },
  lines: [
    line('beans', 'Yellow wax beans', 'low-acid produce', '4 lb', { preparation: 'ends off, cut to jar length', density_gPerMl: 0.47, weightSource: 'weighed in this kitchen (invented)', trimYield: 0.88, labelName: 'wax beans' }),
    line('vinegar', 'White vinegar, 5 %', 'acid', '6 c', { where: 'brine', density_gPerMl: 1.01, weightSource: CUP, labelName: 'vinegar', minStrength_pct: 5 }),
    line('water', 'Water', 'water', '4 c', { where: 'brine', density_gPerMl: 1, weightSource: CUP, labelName: 'water' }),
    line('salt', 'Canning salt', 'salt', '1/3 c', { where: 'brine', density_gPerMl: 1.2, weightSource: CUP, labelName: 'salt' }),
    line('dill', 'Dill heads', 'spice', '1', { where: 'each jar', each_g: 6, weightSource: 'weighed in this kitchen (invented)', labelName: 'dill' }),
    line('garlic', 'Garlic cloves', 'spice', '1', { where: 'each jar', each_g: 4, weightSource: 'weighed in this kitchen (invented)', trimYield: 0.9, labelName: 'garlic' }),
    line('flakes', 'Hot pepper flakes', 'spice', '1/4 tsp', { where: 'each jar', density_gPerMl: 0.4, weightSource: CUP, labelName: 'hot pepper' }),
  ],
  steps: [
    { id: 'open', kind: 'prepare', text: 'Open the kitchen: wash hands, surfaces and tools; wash jars and keep them hot', caution: '', target: { kind: 'none' }, window: null, lineIds: [] },
    { id: 'prepare', kind: 'prepare', text: 'Wash, trim and cut the beans to jar length; weigh them prepared', caution: '', target: { kind: 'none' }, window: null, lineIds: ['beans'] },
    { id: 'brine', kind: 'acidify', text: 'Bring vinegar, water and salt to a boil', caution: 'Stainless or sound enamel only; mind the fumes.', target: { kind: 'look', text: 'it boils and the salt is gone' }, window: null, lineIds: ['vinegar', 'water', 'salt'] },
    { id: 'pack', kind: 'fill', text: 'Dill, garlic and flakes in each jar; beans upright and tight; hot brine to 1/2 inch; bubbles out, top up, wipe, lids fingertip tight', caution: 'Hot brine scalds.', target: { kind: 'none' }, window: null, lineIds: ['dill', 'garlic', 'flakes'] },
    { id: 'process', kind: 'process', text: 'Into the canner; start the clock at the full boil', caution: '', target: { kind: 'none' }, window: null, lineIds: [] },
    { id: 'cool', kind: 'cool', text: 'Cool 12 to 24 hours out of the draught', caution: '', target: { kind: 'none' }, window: null, lineIds: [] },
  ],
  makes: { size: 'pint', count: 8 },
  jars: [{ size: 'pint', net: { kind: 'volume', floz: 16 } }],
  shelfLife_months: 12, readyAfter_days: 21,
  notes: 'DEMO process letter: do not cook from this.',
};

export const crushedTomatoes: Recipe = {
  name: 'Crushed tomatoes', code: 'CRT', statementOfIdentity: 'Crushed tomatoes', foodClass: 'acidified food',
  authority: { grade: 'tested publication', title: 'USDA Complete Guide to Home Canning', edition: '2015 revision', part: 'guide 3, crushed tomatoes', checkedOn: '2026-03-02', fromMemory: true, entryId: 'tomatoes-crushed' },
  lines: [
    line('tomatoes', 'Tomatoes', 'fruit', '11 lb', { preparation: 'peeled, cored and quartered', density_gPerMl: 0.9, weightSource: CUP, trimYield: 0.85, labelName: 'tomatoes' }),
    line('lemon', 'Bottled lemon juice', 'acid', '1 Tbsp', { where: 'each jar', density_gPerMl: 1.03, weightSource: CUP, labelName: 'lemon juice', subIngredients: 'lemon juice from concentrate, sulphites', allergens: ['sulphites'] }),
  ],
  steps: [
    { id: 'open', kind: 'prepare', text: 'Open the kitchen: wash hands, surfaces and tools; wash jars and keep them hot', caution: '', target: { kind: 'none' }, window: null, lineIds: [] },
    { id: 'peel', kind: 'prepare', text: 'Scald, peel, core and quarter the tomatoes; none from dead or frosted vines', caution: 'Boiling water: lower them in with a spoon.', target: { kind: 'none' }, window: null, lineIds: ['tomatoes'] },
    { id: 'crush', kind: 'cook', text: 'Heat one sixth fast while crushing; add the rest, stirring; then boil gently', caution: '', target: { kind: 'time', minutes: 5 }, window: null, lineIds: ['tomatoes'] },
    { id: 'fill', kind: 'fill', text: 'Lemon juice into each jar first; hot tomatoes to 1/2 inch; bubbles out, wipe, lids fingertip tight', caution: 'Hot tomatoes scald.', target: { kind: 'none' }, window: null, lineIds: ['lemon'] },
    { id: 'process', kind: 'process', text: 'Into the canner under 2 inches of water; start the clock at the full boil', caution: '', target: { kind: 'none' }, window: null, lineIds: [] },
    { id: 'cool', kind: 'cool', text: 'Cool 12 to 24 hours out of the draught', caution: '', target: { kind: 'none' }, window: null, lineIds: [] },
  ],
  makes: { size: 'pint', count: 9 },
  jars: [{ size: 'pint', net: { kind: 'weight', oz: 15 } }, { size: 'quart', net: { kind: 'weight', oz: 31 } }],
  shelfLife_months: 12, readyAfter_days: 0,
  notes: 'The time, the acid and the headspace are the published ones; hold them against the book before cooking.',
};
