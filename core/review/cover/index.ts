import { isLowAcid } from '../../ingredients/index.ts';
import { type Figures, numberText, PLAIN_FIGURES, shareText, under } from '../../measure/index.ts';
import type { Recipe } from '../../recipes/index.ts';
import { type ProcessEntry, processEntry } from '../../times/index.ts';
import { type FormulaChange, lost, sentence } from '../changes/change.ts';
import { more } from '../changes/portions.ts';
import { type Cover, type CoverFood, COVERS } from '../data/covers.ts';
import { followedEntry } from '../finding.ts';
import { acidFaults, doseFaults } from './acid.ts';
import { fatFaults, foodOf, methodFaults, setFaults, sugarFaults } from './made.ts';
import { beyondFree, coverGrams, isFood, named, shipped, sum, type Weighed, weigh } from './weighed.ts';

export { coverGrams } from './weighed.ts';

/**
 * What takes a recipe out of the published entry it follows: held against what the entry covers, from its first save,
 * whatever was taken over as tested. Each finding says what would bring it back. Nothing where it follows no entry.
 *
 * @param figures  whose figures its sentences are written in
 */
export function coverChanges(recipe: Recipe, figures: Figures = PLAIN_FIGURES): FormulaChange[] {
  const entry = processEntry(followedEntry(recipe) ?? '');
  const covers = entry && under(COVERS, entry.cleanFormOf ?? entry.id);
  if (!entry || !covers) return [];
  return best(recipe, covers, entry, figures)?.faults ?? [];
}

/** The formula of an entry that a recipe fits best, or undefined where the entry has none. */
export function fittingCover(recipe: Recipe, entry: ProcessEntry): Cover | undefined {
  return best(recipe, under(COVERS, entry.cleanFormOf ?? entry.id) ?? [], entry, PLAIN_FIGURES)?.cover;
}

/** Of several formulas of an entry the one that fits best is meant. */
function best(recipe: Recipe, covers: readonly Cover[], entry: ProcessEntry, figures: Figures) {
  const weighed = weigh(recipe);
  return covers
    .map(cover => ({ cover, faults: held(recipe, weighed, cover, entry, figures) }))
    .sort((a, b) => a.faults.length - b.faults.length)[0];
}

function held(
  recipe: Recipe,
  weighed: readonly Weighed[],
  cover: Cover,
  entry: ProcessEntry,
  figures: Figures,
): FormulaChange[] {
  const { fresh, liquid, share } = beyondFree(weighed);
  const foods = [...weighed.filter(isFood), ...fresh];
  const shares = new Map<CoverFood, Weighed[]>();
  const out: FormulaChange[] = [];
  for (const food of foods) {
    const place = placeOf(food, cover);
    if (place === null) out.push(strange(food, fresh.includes(food), share, entry, figures));
    else if (place !== 'any') shares.set(place, [...(shares.get(place) ?? []), food]);
  }
  for (const w of liquid)
    out.push(
      lost(
        'other',
        `${w.line.name}: more than a trace, and ${foodOf(entry)} has none.`,
        'Above one part in a hundred of the pot it is no spice any more; it thins the acid.',
        `Leave out ${w.line.name.toLowerCase()}, or use a trace.`,
      ),
    );
  const scale = scaleOf(shares);
  if (scale === null && foods.length > 0 && !cover.anyAcidFruit)
    out.push(
      lost(
        'food',
        `Nothing in it is what ${foodOf(entry)} is of.`,
        'The time was tested for that food.',
        'Choose the entry of this food.',
      ),
    );
  const times = scale ?? 1;
  for (const [food, parts] of shares)
    if (!food.main && food.amount && more(shareOf(food, parts), times))
      out.push(tooMuch(food, parts, times, cover, figures));
  out.push(
    ...acidFaults(weighed, cover, times, figures),
    ...doseFaults(recipe, entry, figures),
    ...fatFaults(weighed, cover, times, entry),
    ...setFaults(recipe, weighed, cover, times, entry),
    ...sugarFaults(weighed, foods, cover, figures),
    ...methodFaults(recipe.method, cover, entry),
  );
  return out;
}

/** Where a food belongs in a cover; null where it is none of it. */
function placeOf({ line, of }: Weighed, cover: Cover): CoverFood | 'any' | null {
  const place = of.length === 0 ? undefined : cover.food.find(food => of.every(i => food.ids.includes(i.id)));
  if (place) return place;
  if (!cover.anyAcidFruit) return null;
  const safe =
    of.length === 0
      ? line.role === 'fruit' && line.safelyAcid
      : of.every(i => i.role === 'fruit' && i.safelyAcid);
  return safe && !isLowAcid(line) ? 'any' : null;
}

const strange = (
  { line }: Weighed,
  isDried: boolean,
  share: number,
  entry: ProcessEntry,
  figures: Figures,
): FormulaChange =>
  isDried
    ? lost(
        'spice-as-fresh',
        `${line.name}: dried spices are ${shareText(share, figures)} of the pot, and ${foodOf(entry)} names no such produce.`,
        'To one part in a hundred they are free; above it dried peppers, garlic and onions count as fresh.',
        `Use less of ${line.name.toLowerCase()}.`,
      )
    : lost(
        'produce-added',
        `${line.name}: ${foodOf(entry)} names none.`,
        line.role === 'other'
          ? 'Nobody has said what it is, so its acid is unknown.'
          : 'Produce that was not tested with the rest dilutes the acid or slows the heat.',
        `Leave out ${line.name.toLowerCase()}, or follow a publication that tested it, with that publication's own time.`,
      );

/** How many times the amount of a cover there is of a food. */
const shareOf = (food: CoverFood, parts: readonly Weighed[]): number =>
  parts.reduce((total, w) => total + w.grams / coverGrams(food, w.of[0]?.id ?? ''), 0);

/** How many times the entry's formula a recipe is, by the food it is of; null where there is none of that. */
function scaleOf(shares: ReadonlyMap<CoverFood, Weighed[]>): number | null {
  const main = [...shares].filter(([food]) => food.main);
  if (main.length === 0) return null;
  const stated = main.filter(([food]) => food.amount);
  return stated.length === 0 ? 1 : Math.max(...stated.map(([food, parts]) => shareOf(food, parts)));
}

function tooMuch(
  food: CoverFood,
  parts: readonly Weighed[],
  scale: number,
  cover: Cover,
  figures: Figures,
): FormulaChange {
  const n = (value: number) => numberText(value, figures, 0);
  const main = cover.food.find(f => f.main) as CoverFood;
  const now_g = sum(parts);
  const most_g = (now_g / shareOf(food, parts)) * scale;
  const mainName = shipped(main.ids[0] ?? '')?.name.toLowerCase() ?? '';
  return lost(
    'more-low-acid',
    `${sentence(named(parts))}: ${n(now_g)} g; the entry has ${food.amount} for ${main.amount} of ${mainName}, here ${n(most_g)} g at most.`,
    'More low-acid produce for the same acid was not tested.',
    `Use ${n(Math.floor(most_g))} g of ${named(parts)}, together, or less.`,
  );
}
