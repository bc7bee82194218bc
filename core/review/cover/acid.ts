import { PH_LIMIT } from '../../acid/index.ts';
import { acidKind, acidVolume_mL, asBottledLemon_mL } from '../../ingredients/index.ts';
import { amountMiddle, type Figures, Fraction, numberText, shareText, UNITS } from '../../measure/index.ts';
import type { Recipe } from '../../recipes/index.ts';
import type { ProcessEntry } from '../../times/index.ts';
import { type FormulaChange, lost } from '../changes/change.ts';
import { less, more } from '../changes/portions.ts';
import type { Cover } from '../data/covers.ts';
import { coverGrams, sum, type Weighed } from './weighed.ts';

/** Grams of acid that counts as a barrier in pot or brine; the lower end of a range counts. */
function acids(weighed: readonly Weighed[]): { vinegar: number; juice: number } {
  const grams = (kind: string) =>
    weighed
      .filter(w => w.line.where !== 'each jar' && acidKind(w.line) === kind)
      .reduce((total, { line, grams: g }) => {
        const middle = amountMiddle(line.amount).valueOf();
        return total + (middle > 0 ? (g * new Fraction(line.amount.value).valueOf()) / middle : g);
      }, 0);
  return { vinegar: grams('vinegar'), juice: grams('bottled juice') };
}

/** Acid and water of pot or brine, held against a formula. */
export function acidFaults(
  weighed: readonly Weighed[],
  cover: Cover,
  scale: number,
  figures: Figures,
): FormulaChange[] {
  const water = sum(weighed.filter(w => w.line.role === 'water' && w.line.where !== 'each jar'));
  const dilutes = (most: number) =>
    cover.water !== null && more(water, most)
      ? [
          lost(
            'diluted',
            most === 0
              ? 'Water: the entry has none.'
              : `Water: ${shareText(water / most, figures)} of what the entry has.`,
            'Water thins the acid, and what is thinner heats another way.',
            most === 0 ? 'Leave out the water.' : 'Go back to the water of the entry.',
          ),
        ]
      : [];
  const water_g = cover.water ? coverGrams({ ids: ['water'], amount: cover.water }, 'water') : 0;
  if (cover.acid.length === 0) return dilutes(water_g * scale);
  const now = acids(weighed);
  const then = { vinegar: 0, juice: 0 };
  for (const part of cover.acid) {
    const grams = coverGrams(part, part.ids[0] ?? '');
    if (part.ids.some(id => id.startsWith('bottled'))) then.juice += grams;
    else then.vinegar += grams;
  }
  const judge = (is: typeof now, was: typeof now, say: (is: number, was: number) => FormulaChange) => {
    if (less(is.juice, was.juice))
      return is.vinegar > was.vinegar
        ? [
            lost(
              'vinegar-for-juice',
              'Vinegar in place of bottled lemon or lime juice.',
              'Vinegar is the weaker acid; it never takes the place of bottled juice (plain tomatoes excepted).',
              'Put the bottled juice back.',
            ),
          ]
        : [say(is.juice, was.juice)];
    const all = is.vinegar + is.juice;
    const asked = was.vinegar + was.juice;
    return less(all, asked) ? [say(all, asked)] : [];
  };
  if (cover.packed) {
    const liquid = now.vinegar + now.juice + water;
    const entire = then.vinegar + then.juice + water_g;
    const part = (grams: number, whole: number) => (whole === 0 ? 0 : grams / whole);
    return judge(
      { vinegar: part(now.vinegar, liquid), juice: part(now.juice, liquid) },
      { vinegar: part(then.vinegar, entire), juice: part(then.juice, entire) },
      (is, was) =>
        lost(
          'weaker-brine',
          `The brine is ${shareText(is, figures)} acid and the rest water; the entry's is ${shareText(was, figures)}.`,
          'A weaker brine leaves less acid in every piece.',
          `Put more vinegar or less water: ${shareText(was, figures)} of the brine or more.`,
        ),
    );
  }
  return [
    ...judge(now, { vinegar: then.vinegar * scale, juice: then.juice * scale }, (is, was) =>
      lost(
        'less-acid',
        `Less acid: ${shareText(is / was, figures)} of what the entry has for this much food.`,
        'Acid is the barrier that was tested.',
        `Put ${numberText(Math.ceil(was), figures, 0)} g in, or take out produce in proportion.`,
      ),
    ),
    ...dilutes(water_g * scale),
  ];
}

/** The acid an entry wants in each jar; bottled juice, citric acid and vinegar stand in for each other where it says so. */
export function doseFaults(recipe: Recipe, entry: ProcessEntry, figures: Figures): FormulaChange[] {
  const dose = entry.acidInEachPint;
  if (!dose) return [];
  const tbsp_mL = UNITS.tbsp.factor.valueOf();
  const wanted_mL = dose.bottledLemon_tbsp * tbsp_mL;
  const there_mL = recipe.lines
    .filter(l => l.where === 'each jar' && !l.ratio)
    .reduce((total, line) => {
      const kind = acidKind(line);
      if (kind === null || (kind === 'vinegar' && dose.vinegar_tbsp === null)) return total;
      return total + asBottledLemon_mL(kind, acidVolume_mL(line) ?? 0);
    }, 0);
  if (!less(there_mL, wanted_mL)) return [];
  const n = (value: number) => numberText(value, figures);
  const also = dose.vinegar_tbsp === null ? '' : `, or ${n(dose.vinegar_tbsp)} tablespoons of 5 % vinegar`;
  return [
    lost(
      'less-acid',
      there_mL === 0
        ? 'No acid goes into each jar.'
        : `Acid in each jar: ${shareText(there_mL / wanted_mL, figures)} of what the entry wants.`,
      `Tomatoes, figs and the like lie about ${n(PH_LIMIT)} and may lie above; the dose in each jar makes sure of it.`,
      `In each pint ${n(dose.bottledLemon_tbsp)} tablespoon of bottled lemon juice or ${n(dose.citricAcid_tsp)} teaspoon of citric acid${also}; a quart takes twice as much.`,
    ),
  ];
}
