import {
  acidKind,
  acidVolume_mL,
  asBottledLemon_mL,
  PICKLING_STRENGTH_PCT,
} from '../../ingredients/index.ts';
import { type Figures, numberText, shareText } from '../../measure/index.ts';
import { type Formula, type FormulaChange, free, lost } from './change.ts';
import { at, type Follows, followsOf, less, more, portion_g } from './portions.ts';

interface Acids {
  vinegar: number;
  juice: number;
  citric: number;
  /** All of them as millilitres of bottled lemon juice, by the exchange that is tested for plain tomatoes. */
  asLemon_mL: number;
}

/** Grams of the acids that count as a barrier and follow one thing. */
function acidsOf(formula: Formula, follows: Follows): Acids {
  const out: Acids = { vinegar: 0, juice: 0, citric: 0, asLemon_mL: 0 };
  for (const line of formula.lines) {
    if (followsOf(line) !== follows) continue;
    const kind = acidKind(line);
    if (kind === 'vinegar') out.vinegar += portion_g(line);
    else if (kind === 'bottled juice') out.juice += portion_g(line);
    else if (kind === 'citric acid') out.citric += portion_g(line);
    if (kind) out.asLemon_mL += asBottledLemon_mL(kind, acidVolume_mL(line) ?? 0);
  }
  return out;
}

/** The least strength any vinegar of a formula may have, percent; null without vinegar. */
function weakest(formula: Formula): number | null {
  const strengths = formula.lines
    .filter(l => acidKind(l) === 'vinegar')
    .map(l => l.minStrength_pct ?? PICKLING_STRENGTH_PCT);
  return strengths.length === 0 ? null : Math.min(...strengths);
}

/** Plain tomatoes take bottled juice, citric acid or vinegar in each jar, one for another. */
function isPlainTomatoes(formula: Formula): boolean {
  const acids = formula.lines.filter(l => acidKind(l) !== null);
  return (
    ['tomatoes', 'tomato sauce', 'juice'].includes(formula.product) &&
    acids.length > 0 &&
    acids.every(l => l.where === 'each jar')
  );
}

const lessAcid = (is: number, was: number, follows: Follows, figures: Figures): FormulaChange =>
  lost(
    'less-acid',
    follows === 'jar'
      ? `Less acid in each jar: ${shareText(is / was, figures)} of what was tested.`
      : `Less acid: ${shareText(is / was, figures)} of what the tested recipe has for its produce.`,
    'Acid is the barrier that was tested.',
    follows === 'jar'
      ? 'Put the acid of each jar back.'
      : 'Put the acid back, or take out produce in proportion.',
  );

/**
 * What a recipe did to the acid of a tested formula. Bottled juice may stand in for vinegar volume for volume, never
 * the other way; in plain tomatoes the three acids stand in for each other in each jar.
 *
 * @param scale  how many times the tested pot
 */
export function acidChanges(
  tested: Formula,
  recipe: Formula,
  scale: number,
  figures: Figures,
): FormulaChange[] {
  const out: FormulaChange[] = [];
  const then = weakest(tested);
  const now = weakest(recipe);
  if (then !== null && now !== null && now < then)
    out.push(
      lost(
        'weaker-vinegar',
        `Vinegar of ${numberText(now, figures)} % in place of ${numberText(then, figures)} %.`,
        'Weaker vinegar carries less acid into every piece.',
        `Ask for ${numberText(then, figures)} % again.`,
      ),
    );
  const plain = isPlainTomatoes(tested);
  for (const follows of ['pot', 'jar', 'measure'] as const) {
    const was = acidsOf(tested, follows);
    const scaled = (grams: number) => at({ follows, grams }, scale);
    const change = compare(
      {
        vinegar: scaled(was.vinegar),
        juice: scaled(was.juice),
        citric: scaled(was.citric),
        asLemon_mL: was.asLemon_mL,
      },
      acidsOf(recipe, follows),
      follows,
      plain,
      figures,
    );
    if (change) out.push(change);
  }
  return out;
}

function compare(
  then: Acids,
  now: Acids,
  follows: Follows,
  plainTomatoes: boolean,
  figures: Figures,
): FormulaChange | null {
  if (plainTomatoes && follows === 'jar')
    return less(now.asLemon_mL, then.asLemon_mL)
      ? lessAcid(now.asLemon_mL, then.asLemon_mL, follows, figures)
      : null;
  if (less(now.juice, then.juice))
    return more(now.vinegar, then.vinegar)
      ? lost(
          'vinegar-for-juice',
          'Vinegar in place of bottled lemon or lime juice.',
          'Vinegar is the weaker acid; it never takes the place of bottled juice (plain tomatoes excepted).',
          'Put the bottled juice back.',
        )
      : lessAcid(now.juice, then.juice, follows, figures);
  if (less(now.citric, then.citric)) return lessAcid(now.citric, then.citric, follows, figures);
  if (less(now.vinegar, then.vinegar)) {
    // Juice is the heavier by a fiftieth, so what is volume for volume is never less by weight.
    const instead = Math.max(0, now.juice - then.juice);
    return less(instead, then.vinegar - now.vinegar)
      ? lessAcid(now.vinegar + instead, then.vinegar, follows, figures)
      : free(
          'juice-for-vinegar',
          'Bottled juice in place of vinegar, volume for volume.',
          'It is the stronger acid; it tastes sharper.',
        );
  }
  return more(now.vinegar, then.vinegar) || more(now.juice, then.juice) || more(now.citric, then.citric)
    ? free('more-acid', 'More acid than the tested recipe.', 'Safe; it tastes sharper.')
    : null;
}
