import { crushedTomatoes, waxBeans } from '@cocotte/demo/recipes';
import { emptyRecipe, type Recipe, type Step, stepFrom } from '@cocotte/core/recipes';
import { amountOf, lineOf } from '@cocotte/testing/recipe-lines';

/** Recipes of the journeys that the demo has not; figures are invented but for the published ones their authority names. */
const step = (id: string, kind: Step['kind'], text: string, more: Partial<Step> = {}): Step => ({
  ...stepFrom(id, kind, text),
  ...more,
});
const all = (...ids: string[]): Step['adds'] => ids.map(lineId => ({ lineId, share: '1' }));
const published = (part: string, entryId: string): Recipe['authority'] => ({
  ...(crushedTomatoes.authority as Extract<Recipe['authority'], { grade: 'tested publication' }>),
  part,
  time: { kind: 'entry', entryId },
});
const PROCESS = step('process', 'process', 'Into the canner; start the clock at the full boil');
const COOL = step('cool', 'cool', 'Cool 12 to 24 hours out of the draught', {
  window: { from_min: 720, to_min: 1440 },
});

/** Salted overnight, rinsed, chilled, measured: a relish of two days. */
export const relish: Recipe = {
  ...emptyRecipe(),
  name: 'Cucumber relish',
  code: 'CUR',
  statementOfIdentity: 'Cucumber relish',
  product: 'relish',
  foodClass: 'acidified food',
  method: { peel: 'skins on', cut: 'chopped', strain: 'unstrained', liquid: 'vinegar brine', pack: 'hot' },
  authority: published('guide 6, pickle relish', 'pickle-relish'),
  lines: [
    lineOf('cucumber', '12 c', 'cucumbers', { preparation: 'chopped' }),
    lineOf('bell-pepper', '6 c', 'peppers', { preparation: 'chopped' }),
    lineOf('onion', '1 c', 'onions', { preparation: 'chopped' }),
    lineOf('canning-salt', '3/4 c', 'salt', { where: 'soak', keptShare: 0.05 }),
    lineOf('water', '2 kg', 'rinse', { where: 'soak', keptShare: 0 }),
    lineOf('white-vinegar', '4 c', 'vinegar'),
    lineOf('sugar', '2 1/2 c', 'sugar'),
  ],
  steps: [
    step('soak', 'soak', 'Cucumbers in the salt', {
      window: { from_min: 480, to_min: 720 },
      attention: { kind: 'free' },
      adds: all('cucumbers', 'peppers', 'onions', 'salt'),
    }),
    step('rinse', 'soak', 'Rinse in cold water; drain', { adds: all('rinse') }),
    step('chill', 'rest', 'Chill the drained cucumbers', { window: { from_min: 60, to_min: 240 } }),
    step('drained', 'measure', 'Weigh them drained', { expects: amountOf('2100 g') }),
    step('boil', 'cook', 'Vinegar and sugar in; bring to a boil', {
      target: { kind: 'look', text: 'it boils' },
      adds: all('vinegar', 'sugar'),
    }),
    step('fill', 'fill', 'Fill hot jars to 1/2 inch; bubbles out, wipe, lids fingertip tight'),
    PROCESS,
    COOL,
  ],
  makes: { size: 'pint', count: 6 },
  jars: [{ size: 'pint', net: { kind: 'volume', floz: 16 } }],
};

/** Juice that drips from several bags and is sweetened by what came. */
export const grapeJuice: Recipe = {
  ...emptyRecipe(),
  name: 'Grape juice',
  code: 'GRJ',
  statementOfIdentity: 'Grape juice',
  product: 'juice',
  foodClass: 'acid food',
  method: { peel: 'either', cut: 'juice', strain: 'strained', liquid: 'none', pack: 'hot' },
  authority: published('guide 2, grape juice', 'grape-juice'),
  lines: [
    lineOf('Grapes', '20 kg', 'grapes', {
      ingredientId: 'grape',
      role: 'fruit',
      where: 'strained',
      keptShare: 0.6,
    }),
    lineOf('water', '4 kg', 'water', { where: 'strained', keptShare: 0.9 }),
    lineOf('sugar', '60-120 g, to taste', 'sugar', {
      ratio: { of: 'step', id: 'juice', per: amountOf('1 L') },
    }),
  ],
  steps: [
    step('soften', 'cook', 'Crush and simmer until the skins are soft', {
      target: { kind: 'look', text: 'the skins are soft' },
      adds: all('grapes', 'water'),
    }),
    step('strain', 'strain', 'Strain through wet bags; let it stand cold overnight', {
      window: { from_min: 240, to_min: 1440 },
      attention: { kind: 'free' },
    }),
    step('juice', 'measure', 'Measure the juice', { expects: amountOf('14 L') }),
    step('heat', 'cook', 'Sugar to taste; heat, stirring, until it is gone', {
      target: { kind: 'look', text: 'it boils' },
      adds: all('sugar'),
    }),
    step('fill', 'fill', 'Fill hot jars to 1/4 inch; wipe, lids fingertip tight'),
    PROCESS,
    COOL,
  ],
  makes: { size: 'quart', count: 14 },
  jars: [
    { size: 'quart', net: { kind: 'volume', floz: 32 } },
    { size: 'half-gallon', net: { kind: 'volume', floz: 64 } },
  ],
};

/** Peppers with what goes into each jar, and a brine of which some is left. */
export const hotPeppers: Recipe = {
  ...waxBeans,
  name: 'Hot peppers',
  code: 'HTP',
  statementOfIdentity: 'Pickled hot peppers',
  lines: waxBeans.lines.map(l =>
    l.id === 'beans'
      ? lineOf('Jalapeño peppers', '4 lb', 'beans', {
          ingredientId: 'jalapeno',
          role: 'low-acid produce',
          labelName: 'jalapeño peppers',
        })
      : l,
  ),
};
