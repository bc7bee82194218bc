import { dayText, type Figures, type Habits, massText, MM_PER_INCH, numberText } from '../measure/index.ts';
import { knownMasses_g, type LetterTerms, type Line, type Recipe, type StepKind } from '../recipes/index.ts';
import { type FormulaChange, lost } from './changes/change.ts';

/** What a recipe's letter names beside its heat step; null where it rests on something else. */
export const termsOf = ({ authority }: Recipe): LetterTerms | null =>
  authority.grade === 'letter' ? authority.terms : null;

/** Lines that the letter sets limits for: these take the place of the amount that was taken over. */
export const limitedLines = (recipe: Recipe): ReadonlySet<string> =>
  new Set(termsOf(recipe)?.lines.map(l => l.lineId));

/** Scales and cups differ by so much of an amount; a limit is not passed by it. Our bound, from no source. */
const SCALES_DIFFER = 0.01;

/** A line of a letter's formula that lies outside of its limit, in per cent of all that goes in. */
export interface OutOfLimit {
  lineId: string;
  name: string;
  is_pct: number;
  limit: 'least' | 'most';
  limit_pct: number;
}

/**
 * Lines that lie outside of the limits a letter sets for them.
 *
 * @param grams  of each line, as planned or as it went in; a line that is not there weighs nothing
 */
export function outOfLimits(
  terms: LetterTerms,
  lines: readonly Pick<Line, 'id' | 'name' | 'where'>[],
  grams: (lineId: string) => number,
): OutOfLimit[] {
  const all_g = lines.reduce((sum, l) => sum + (l.where === 'dip' ? 0 : grams(l.id)), 0);
  return terms.lines.flatMap(({ lineId, least_pct, most_pct }): OutOfLimit[] => {
    const line = lines.find(l => l.id === lineId);
    const is_pct = all_g === 0 || !line ? 0 : (grams(lineId) / all_g) * 100;
    const fault = { lineId, name: line?.name ?? 'A line it names', is_pct };
    if (most_pct !== null && is_pct > most_pct * (1 + SCALES_DIFFER))
      return [{ ...fault, limit: 'most', limit_pct: most_pct }];
    if (least_pct !== null && is_pct < least_pct * (1 - SCALES_DIFFER))
      return [{ ...fault, limit: 'least', limit_pct: least_pct }];
    return [];
  });
}

/** A line outside of its limit, in words with both figures. */
export const limitText = (o: OutOfLimit, figures: Figures): string =>
  `${o.name} is ${numberText(o.is_pct, figures, 1)} % of all that goes in; the letter allows ${numberText(o.limit_pct, figures, 1)} % at ${o.limit}.`;

/**
 * Where a recipe leaves the limits its letter names: a line above or below its share, more pieces in a jar. What no scale
 * or cup tells the weight of cannot be held against a limit, and is said too.
 */
export function letterChanges(recipe: Recipe, figures: Figures): FormulaChange[] {
  const terms = termsOf(recipe);
  if (!terms) return [];
  const why = 'The process was set for what the letter names, within its limits.';
  const out: FormulaChange[] = [];
  if (terms.lines.length > 0) {
    const masses = knownMasses_g(recipe);
    const unknown = recipe.lines.filter(l => l.where !== 'dip' && !masses.has(l.id));
    if (unknown.length > 0)
      out.push(
        lost(
          'limit-unknown',
          `${unknown.map(l => l.name).join(', ')}: nobody knows what it weighs, and the letter's limits are shares by weight.`,
          why,
          'Enter what one, or a cup of it, weighs.',
        ),
      );
    else
      for (const o of outOfLimits(terms, recipe.lines, id => masses.get(id) ?? 0))
        out.push(
          lost(
            'letter-limit',
            limitText(o, figures),
            why,
            `Bring it to ${numberText(o.limit_pct, figures, 1)} % or ${o.limit === 'most' ? 'less' : 'more'}, or ask for a letter that covers it.`,
          ),
        );
  }
  if (terms.perPint_g !== null && recipe.method.liquid !== 'none') {
    const most = massText(terms.perPint_g, figures);
    if (recipe.packing === null)
      out.push(
        lost(
          'fill-weight',
          `The letter allows ${most} of pieces in a pint; the recipe does not say how many it packs.`,
          why,
          'Enter the pieces in a pint at the jars of the recipe.',
        ),
      );
    else if (recipe.packing.perPint_g > terms.perPint_g)
      out.push(
        lost(
          'fill-weight',
          `${massText(recipe.packing.perPint_g, figures)} of pieces in a pint; the letter allows ${most}.`,
          'A tighter jar holds less acid for its food.',
          `Pack ${most} or less.`,
        ),
      );
  }
  return out;
}

/** What a letter names that is minded at a step of this kind, in words: the size of pieces, their weight, the closure. */
export function letterReminders(
  recipe: Recipe,
  kind: StepKind,
  figures: Pick<Habits, 'locale' | 'measures'>,
): string[] {
  const terms = termsOf(recipe);
  if (!terms) return [];
  const out: string[] = [];
  if (kind === 'prepare' && terms.pieceSize_mm !== null)
    out.push(`pieces of ${lengthText(terms.pieceSize_mm, figures)} at most`);
  if (kind === 'fill') {
    if (terms.perPint_g !== null)
      out.push(`${massText(terms.perPint_g, figures)} of pieces in a pint at most`);
    if (terms.closure !== '') out.push(`closure: ${terms.closure}`);
  }
  return out;
}

/** All that a letter names beside its heat step, one by one: for whom, its limits, what it allows. */
export function letterSays(recipe: Recipe, figures: Pick<Habits, 'locale' | 'measures'>): string[] {
  const terms = termsOf(recipe);
  if (!terms || recipe.authority.grade !== 'letter') return [];
  const percent = (value: number) => `${numberText(Math.round(value * 100) / 100, figures)} %`;
  const limit = ({ lineId, least_pct, most_pct }: LetterTerms['lines'][number]) => {
    const of = recipe.lines.find(l => l.id === lineId)?.name ?? lineId;
    return `${of} ${[least_pct === null ? '' : `${percent(least_pct)} at least`, most_pct === null ? '' : `${percent(most_pct)} at most`].filter(Boolean).join(', ')} of all that goes in`;
  };
  return [
    terms.producer && `written for ${[terms.producer, terms.site].filter(Boolean).join(', ')}`,
    ...terms.lines.map(limit),
    ...letterReminders(recipe, 'prepare', figures),
    ...letterReminders(recipe, 'fill', figures),
    terms.thickener && `thickener: ${terms.thickener}`,
    terms.oil && `oil: ${terms.oil}`,
    terms.reviewOn && `to be looked at again by ${dayText(terms.reviewOn, figures)}`,
    recipe.authority.limits,
  ].flatMap(part => (part ? [part] : []));
}

/** A small length in the kitchen's own units. */
export const lengthText = (mm: number, figures: Pick<Habits, 'locale' | 'measures'>): string =>
  figures.measures === 'US'
    ? `${numberText(Math.round((mm / MM_PER_INCH) * 100) / 100, figures)} inch`
    : `${numberText(mm, figures, 0)} mm`;

/** A letter that names no producer was written for nobody, as far as anybody can tell. */
export const lacksProducer = ({ authority }: Recipe): boolean =>
  authority.grade === 'letter' &&
  !authority.demo &&
  (authority.terms.producer.trim() === '' || authority.terms.site.trim() === '');
