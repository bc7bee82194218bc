import { type Figures, Fraction, PLAIN_FIGURES } from '../measure/index.ts';
import type { Line, Recipe } from '../recipes/index.ts';
import { authorityFault, formulaChanges, review } from '../review/index.ts';

/** What a change at the pot does: its authority covers it, leaves it free, or is lost by it. */
export interface AtThePot {
  answer: 'covered' | 'free' | 'costs';
  /** What changes, each with why; first what costs the authority. */
  says: { code: string; what: string; why: string }[];
  /** Names it may no longer bear on a label. */
  namesLost: string[];
}

/**
 * What a change in the middle of cooking does to set, acid, authority and label, beside the recipe as it stands: only what
 * it adds is told, so that what was wrong before is not laid at its door.
 *
 * @param recipe  the recipe that is cooked
 * @param change  the recipe as it would be
 * @example
 * atThePot(plumJam, recipe => recipe).answer; // 'covered'
 */
export function atThePot(
  recipe: Recipe,
  change: (recipe: Recipe) => Recipe,
  figures: Figures = PLAIN_FIGURES,
): AtThePot {
  const then = change(recipe);
  const before = new Set(formulaChanges(recipe, figures).map(c => `${c.code} ${c.what}`));
  const changes = formulaChanges(then, figures).filter(c => !before.has(`${c.code} ${c.what}`));
  const breaks = changes.filter(c => c.breaks);
  const had = authorityFault(recipe, figures);
  const has = authorityFault(then, figures);
  const lost = had === null && has !== null && breaks.length === 0 ? [{ code: 'authority', ...has }] : [];
  const [wasSeen, isSeen] = [review(recipe, figures), review(then, figures)];
  const known = new Set(wasSeen.faults.map(f => `${f.code} ${f.lineId ?? ''}`));
  const faults = isSeen.faults.filter(f => !known.has(`${f.code} ${f.lineId ?? ''}`));
  const truthful = new Set(isSeen.names.choices.filter(c => c.truthful).map(c => c.name));
  const costs = [...breaks, ...lost, ...faults.filter(f => f.level !== 'note')];
  const rest = [...changes.filter(c => !c.breaks), ...faults.filter(f => f.level === 'note')];
  const told = new Map([...costs, ...rest].map(c => [c.what, { code: c.code, what: c.what, why: c.why }]));
  return {
    answer: costs.length > 0 ? 'costs' : rest.length > 0 ? 'free' : 'covered',
    says: [...told.values()],
    namesLost: wasSeen.names.choices.filter(c => c.truthful && !truthful.has(c.name)).map(c => c.name),
  };
}

/**
 * A line with another weight of it, prepared.
 *
 * @param mass_g  grams at the scale of the recipe as written
 */
export function withMass(line: Line, mass_g: number): Line {
  const grams = new Fraction(Math.round(mass_g * 10), 10);
  return {
    ...line,
    basis: 'prepared',
    ratio: null,
    amount: {
      text: `${grams.toString()} g`,
      unit: 'g',
      value: grams.toFraction(),
      upTo: null,
      toTaste: false,
    },
  };
}
