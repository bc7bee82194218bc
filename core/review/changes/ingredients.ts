import { acidKind, isLowAcid, type LineRole } from '../../ingredients/index.ts';
import { type Figures, shareText } from '../../measure/index.ts';
import type { Line } from '../../recipes/index.ts';
import { SPREADS } from '../../times/index.ts';
import { FREE_BUTTER_G } from '../finding.ts';
import { type Formula, type FormulaChange, free, lost } from './change.ts';
import { at, less, more, type Portion, portionsOf } from './portions.ts';

/** One ingredient whose amount is not what was tested. */
interface Moved {
  line: Line;
  /** It was in the tested formula. */
  known: boolean;
  /** It is in the recipe. */
  there: boolean;
  up: boolean;
  now_g: number;
  what: string;
  back: string;
}

/** A line counts as what the library knows it to be, whatever role it was given. */
function roleOf(line: Line): LineRole {
  return line.role !== 'fruit' && isLowAcid(line) ? 'low-acid produce' : line.role;
}

/**
 * Every ingredient that was added, taken out, or is more or less than what was tested; acids are judged together,
 * elsewhere.
 *
 * @param scale  how many times the tested pot
 */
export function ingredientChanges(
  tested: Formula,
  recipe: Formula,
  scale: number,
  figures: Figures,
): FormulaChange[] {
  const then = portionsOf(tested);
  const now = portionsOf(recipe);
  const out: FormulaChange[] = [];
  for (const key of new Set([...then.keys(), ...now.keys()])) {
    const moved = movedOf(then.get(key), now.get(key), scale, figures);
    const change = moved && judge(moved, tested);
    if (change) out.push(change);
  }
  return out;
}

function movedOf(
  then: Portion | undefined,
  now: Portion | undefined,
  scale: number,
  figures: Figures,
): Moved | null {
  const portion = now ?? then;
  if (!portion) return null;
  const then_g = then ? at(then, scale) : 0;
  const now_g = now?.grams ?? 0;
  // What cannot be weighed yet is still there: its coming and going count, its amount does not.
  const up = now !== undefined && (then === undefined || more(now_g, then_g));
  const down = then !== undefined && (now === undefined || less(now_g, then_g));
  if (!up && !down) return null;
  const where = portion.follows === 'jar' ? ' in each jar' : '';
  const how = !then
    ? 'added'
    : !now
      ? 'taken out'
      : `${up ? 'more' : 'less'} of it (${shareText(now_g / then_g, figures)} of what was tested)`;
  const name = portion.line.name.toLowerCase();
  return {
    line: portion.line,
    known: then !== undefined,
    there: now !== undefined,
    up,
    now_g,
    what: `${portion.line.name}${where}: ${how}.`,
    back: then ? `Go back to the tested amount of ${name}${where}.` : `Leave out ${name}${where}.`,
  };
}

const HERBS =
  /herb|dill|basil|cilantro|coriander|parsley|mint|garlic|rosemary|thyme|sage|tarragon|oregano|chive/i;

function judge({ line, known, there, up, now_g, what, back }: Moved, tested: Formula): FormulaChange | null {
  const spread = SPREADS.includes(tested.product);
  switch (roleOf(line)) {
    case 'spice':
      return line.name.toLowerCase().startsWith('fresh')
        ? lost('fresh-herb', what, 'Fresh herbs are low-acid produce.', back)
        : free('spice', what, 'Dried spices are free.');
    case 'salt':
      return tested.product === 'sauerkraut'
        ? lost('salt-in-ferment', what, 'In a ferment the salt is the process.', back)
        : free('salt', what, 'Salt is flavour here.');
    case 'sweetener':
      return spread
        ? lost(
            'sugar-in-spread',
            what,
            'In a spread the sugar sets it, keeps it and gives it its name.',
            back,
          )
        : free('sugar', what, 'Sugar is flavour here.');
    case 'low-acid produce':
      if (!known)
        return lost(
          HERBS.test(line.name) ? 'fresh-herb' : 'produce-added',
          what,
          'Low-acid produce dilutes the acid, and nobody has tested the mixture.',
          back,
        );
      if (up) return lost('more-low-acid', what, 'More low-acid produce for the same acid.', back);
      return free(
        'less-low-acid',
        what,
        there
          ? 'Less low-acid produce leaves more acid for the rest.'
          : 'Leaving out low-acid produce leaves more acid for the rest.',
      );
    case 'fruit':
      return lost(
        known ? 'fruit-changed' : 'fruit-added',
        what,
        'The fruit and its share belong to what was tested.',
        back,
      );
    case 'water':
      return up && !spread
        ? lost('diluted', what, 'Water thins the acid.', back)
        : free('water', what, 'It boils away, or leaves more acid for the rest.');
    case 'set':
      return lost('thickening', what, 'A thickener or another set slows the heat on its way in.', back);
    case 'fat':
      return /butter/i.test(line.name) && now_g <= FREE_BUTTER_G
        ? free(
            'butter',
            what,
            'Half a teaspoon of butter against foam is free; it is an allergen on the label.',
          )
        : lost('oil', what, 'Fat shields what is in it from acid and heat.', back);
    case 'acid':
      return acidKind(line) === null
        ? lost('other', what, 'It is no acid whose strength is known, and no part of what was tested.', back)
        : null;
    case 'other':
      return lost('other', what, 'It is no part of what was tested.', back);
  }
}
