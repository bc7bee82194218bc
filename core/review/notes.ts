import { acidKind, isLowAcid, isLowAcidByLibrary, replaceAcid } from '../ingredients/index.ts';
import { PH_LIMIT } from '../acid/index.ts';
import { amountMiddle, type Figures, kitchenVolume, numberText, UNITS } from '../measure/index.ts';
import type { Line, Recipe } from '../recipes/index.ts';
import { processEntry } from '../times/index.ts';
import { followedEntry, GUIDE, type ReviewFault } from './finding.ts';

const followedDose = (recipe: Recipe): boolean => {
  const entryId = followedEntry(recipe);
  return entryId !== null && (processEntry(entryId)?.acidInEachPint ?? null) !== null;
};

/** What may stand in for the dose of a line in each jar of plain tomatoes, in kitchen measures for a pint. */
function equivalents(line: Line): string {
  const kind = acidKind(line);
  const unit = UNITS[line.amount.unit];
  if (
    unit.dimension !== 'volume' ||
    (kind !== 'vinegar' && kind !== 'bottled juice' && kind !== 'citric acid')
  )
    return '';
  const mL = amountMiddle(line.amount).mul(unit.factor).valueOf();
  const others = (['bottled juice', 'citric acid', 'vinegar'] as const).filter(k => k !== kind);
  return others
    .map(other => {
      const answer = replaceAcid(kind, other, mL, true);
      return answer.ok
        ? `${kitchenVolume(answer.volume_mL).text} of ${other === 'bottled juice' ? 'bottled lemon juice' : other === 'vinegar' ? '5 % vinegar' : 'citric acid'}`
        : '';
    })
    .filter(Boolean)
    .join(' or ')
    .concat(' may take its place in a pint');
}

/** What is worth knowing and keeps nothing back. */
export function notes(recipe: Recipe, figures: Figures): ReviewFault[] {
  const out: ReviewFault[] = [];
  const note = (code: string, lineId: string | null, what: string, why: string, source: string) =>
    out.push({ code, level: 'note', lineId, what, why, next: '', source });
  for (const line of recipe.lines) {
    if (line.where === 'dip') continue;
    if (line.role === 'fruit' && !line.safelyAcid)
      note(
        'unsafe-fruit',
        line.id,
        `${line.name}: not safely acid by itself.`,
        `Figs, Asian pears, white peaches, elderberries, ripe mango, papaya, banana, melon, persimmon, dates, coconut and tomatoes may lie above ${numberText(PH_LIMIT, figures)}.`,
        'FDA, Approximate pH of Foods (from memory)',
      );
    if (
      isLowAcidByLibrary(line) &&
      !(line.role === 'low-acid produce' || (line.role === 'fruit' && !line.safelyAcid))
    )
      note(
        'low-acid-by-library',
        line.id,
        `${line.name}: low-acid by the library, whatever its role says here.`,
        'It counts as low-acid produce in this review.',
        'FDA, Approximate pH of Foods (from memory)',
      );
    if (line.freshFactor > 1 && isLowAcid(line))
      note(
        'dried-as-fresh',
        line.id,
        `${line.name}: counts as ${numberText(line.freshFactor, figures)} times its weight of fresh produce.`,
        'Dried produce takes up water in the jar and is low in acid again.',
        'Common practice',
      );
    if (acidKind(line) === 'fresh juice' && !recipe.lines.some(isLowAcid))
      note(
        'fresh-juice-flavour',
        line.id,
        `${line.name}: for set and taste.`,
        'Fine in fruit that is acid by itself; it does not count as a barrier.',
        'Common practice',
      );
    const kind = acidKind(line);
    if ((kind === 'vinegar' || kind === 'bottled juice') && recipe.lines.some(isLowAcid)) {
      const plain = line.where === 'each jar' && followedDose(recipe);
      note(
        'acid-equivalent',
        line.id,
        `${line.name}: ${plain ? equivalents(line) : kind === 'vinegar' ? 'bottled lemon or lime juice may take its place, volume for volume; never the other way' : 'vinegar may not take its place'}.`,
        plain ? 'Plain tomatoes take any of the three in each jar.' : 'Vinegar is the weaker acid.',
        plain ? GUIDE(3) : GUIDE(6),
      );
    }
    if (line.role === 'sweetener' && /brown|molasses|muscovado/i.test(line.name))
      note(
        'colour',
        line.id,
        `${line.name}: darkens the colour.`,
        'A variant, not a fault.',
        'Common practice',
      );
    if (
      line.role === 'spice' &&
      /\bground\b|powder/i.test(line.name) &&
      recipe.method.liquid === 'vinegar brine'
    )
      note(
        'cloud',
        line.id,
        `${line.name}: clouds the brine.`,
        'Whole spice keeps it clear.',
        'Common practice',
      );
    if (line.role === 'fat' && line.allergens.length > 0)
      note(
        'butter-allergen',
        line.id,
        `${line.name}: an allergen on the label.`,
        `It brings ${line.allergens.join(', ')}, which the label has to name.`,
        'FALCPA (from memory)',
      );
  }
  return out;
}
