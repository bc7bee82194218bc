import { acidKind, isLowAcid, isLowAcidByLibrary, PICKLING_STRENGTH_PCT } from '../ingredients/index.ts';
import { PH_LIMIT } from '../acid/index.ts';
import { type Figures, Fraction, mixedText, MM_PER_INCH, numberText } from '../measure/index.ts';
import { looseAmounts, type Recipe } from '../recipes/index.ts';
import { type AcidDose, type ProcessEntry, processEntry } from '../times/index.ts';
import { followedEntry, GUIDE, type ReviewFault } from './finding.ts';

const followed = (recipe: Recipe): ProcessEntry | undefined => processEntry(followedEntry(recipe) ?? '');

/** What an entry takes as acid in each pint, in kitchen measures: from the entry, never scaled from what a line has. */
function doses({ bottledLemon_tbsp, citricAcid_tsp, vinegar_tbsp }: AcidDose, figures: Figures): string {
  const spoons = (value: number, unit: string) => `${mixedText(value, true)} ${unit}`;
  const all = [
    `${spoons(bottledLemon_tbsp, 'Tbsp')} of bottled lemon juice`,
    `${spoons(citricAcid_tsp, 'tsp')} of citric acid`,
    ...(vinegar_tbsp === null
      ? []
      : [`${spoons(vinegar_tbsp, 'Tbsp')} of ${numberText(PICKLING_STRENGTH_PCT, figures)} % vinegar`]),
  ];
  return `in each pint ${all.slice(0, -1).join(', ')} or ${all.at(-1)}`;
}

/** A headspace that the words of a step name, in inches: "to 1/2 inch". */
const HEADSPACE = /(\d+(?:\s+\d+)?(?:\s*\/\s*\d+)?|\d+\.\d+)[\s-]*(?:inch|in\b|")/i;

function headspaceIn(text: string): number | null {
  const found = HEADSPACE.exec(text)?.[1];
  if (found === undefined) return null;
  try {
    return new Fraction(found.replaceAll(/\s*\/\s*/g, '/')).valueOf() * MM_PER_INCH;
  } catch {
    return null;
  }
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
    const dose = line.where === 'each jar' ? followed(recipe)?.acidInEachPint : null;
    if (kind !== null && dose)
      note(
        'acid-equivalent',
        line.id,
        `${line.name}: the entry takes ${doses(dose, figures)}; a quart twice as much.`,
        'Each of them may take the place of another, in each jar.',
        GUIDE(3),
      );
    else if ((kind === 'vinegar' || kind === 'bottled juice') && recipe.lines.some(isLowAcid))
      note(
        'acid-equivalent',
        line.id,
        `${line.name}: ${kind === 'vinegar' ? 'bottled lemon or lime juice may take its place, volume for volume; never the other way' : 'vinegar may not take its place'}.`,
        'Vinegar is the weaker acid.',
        GUIDE(6),
      );
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
  const entry = followed(recipe);
  for (const step of recipe.steps) {
    for (const loose of looseAmounts(recipe, step))
      note(
        'figure-in-step',
        loose.lineId,
        `"${loose.words}" in a step stays as it is when the batch grows.`,
        `Written {${recipe.lines.find(l => l.id === loose.lineId)?.name ?? ''}} it shows the amount of its line, at every scale.`,
        'Common practice',
      );
    const said = step.kind === 'fill' ? headspaceIn(step.text) : null;
    if (entry && said !== null && Math.abs(said - entry.headspace_mm) > 0.5)
      note(
        'headspace-in-step',
        null,
        `"${step.text.slice(0, 60)}": ${mixedText(said / MM_PER_INCH, true)} inch, where the entry has ${mixedText(entry.headspace_mm / MM_PER_INCH, true)}.`,
        'Headspace was tested with the time: too little lets the jar leak, too much leaves air.',
        entry.source.fromMemory
          ? `${entry.source.title}, ${entry.source.part} (from memory)`
          : entry.source.title,
      );
  }
  return out;
}
