import { type Figures, shareText } from '../../measure/index.ts';
import type { Recipe } from '../../recipes/index.ts';
import type { Method, ProcessEntry } from '../../times/index.ts';
import { type FormulaChange, lost, sentence } from '../changes/change.ts';
import { METHOD_WORDS } from '../changes/method.ts';
import { less, more } from '../changes/portions.ts';
import type { Cover } from '../data/covers.ts';
import { FREE_BUTTER_G } from '../finding.ts';
import { coverGrams, named, sum, type Weighed } from './weighed.ts';

/** What an entry is for, without its jars. */
export const foodOf = (entry: ProcessEntry): string => entry.product.replace(/, (?:clean|sterile) jars$/, '');

/** Oil and butter against a formula. */
export function fatFaults(
  weighed: readonly Weighed[],
  cover: Cover,
  scale: number,
  entry: ProcessEntry,
): FormulaChange[] {
  const fats = weighed.filter(w => w.line.role === 'fat' || w.of.some(i => i.role === 'fat'));
  const butter = fats.filter(w => /butter/i.test(w.line.name));
  const rest = fats.filter(w => !butter.includes(w));
  const most_g = cover.oil === '' ? 0 : coverGrams({ ids: ['oil'], amount: cover.oil }, 'oil') * scale;
  const there = [...(sum(butter) > FREE_BUTTER_G ? butter : []), ...rest];
  if (there.length === 0 || (rest.length === there.length && most_g > 0 && !more(sum(rest), most_g)))
    return [];
  return [
    lost(
      'oil',
      most_g > 0
        ? `${sentence(named(there))}: more than ${foodOf(entry)} has.`
        : `${sentence(named(there))}: ${foodOf(entry)} has no fat in it.`,
      'Fat shields what is in it from acid and heat.',
      most_g > 0 ? `Go back to ${cover.oil} for the entry's amounts.` : `Leave out ${named(there)}.`,
    ),
  ];
}

/** Starch, pectin and the way it sets. */
export function setFaults(
  recipe: Recipe,
  weighed: readonly Weighed[],
  cover: Cover,
  scale: number,
  entry: ProcessEntry,
): FormulaChange[] {
  const sets = weighed.filter(w => w.line.role === 'set' || w.of.some(i => i.role === 'set'));
  const starch = sets.filter(w => w.of.some(i => i.set === 'modified starch'));
  const pectin = sets.filter(w => !starch.includes(w));
  const out: FormulaChange[] = [];
  const thick = (what: string, next: string) =>
    out.push(lost('thickening', what, 'What is thicker lets the heat in more slowly.', next));
  const takesPectin = cover.setBy.some(s => s.endsWith('pectin'));
  if (pectin.length > 0 && !takesPectin)
    thick(`${sentence(named(pectin))}: ${foodOf(entry)} is not set with it.`, `Leave out ${named(pectin)}.`);
  const most_g =
    cover.starch === ''
      ? 0
      : coverGrams({ ids: ['canning-starch'], amount: cover.starch }, 'canning-starch') * scale;
  if (starch.length > 0 && more(sum(starch), most_g))
    thick(
      most_g === 0
        ? `${sentence(named(starch))}: ${foodOf(entry)} has none.`
        : `${sentence(named(starch))}: more than the tested amount.`,
      most_g === 0
        ? `Leave out ${named(starch)}.`
        : `Go back to ${cover.starch} for ${cover.food[0]?.amount ?? ''} of fruit.`,
    );
  if (out.length === 0 && cover.setBy.length > 0 && !cover.setBy.includes(recipe.setBy))
    thick(
      `Set by ${recipe.setBy}; ${foodOf(entry)} is ${cover.setBy.map(s => (s === 'not set' ? s : `set by ${s}`)).join(' or ')}.`,
      `Set it by ${cover.setBy.filter(s => s !== 'not set').join(' or ') || 'nothing'}, or choose the entry for this set.`,
    );
  return out;
}

/** Sugar of a spread, which keeps it. */
export function sugarFaults(
  weighed: readonly Weighed[],
  foods: readonly Weighed[],
  cover: Cover,
  figures: Figures,
): FormulaChange[] {
  if (cover.sugarForFruit === 0) return [];
  const fruit = sum(foods);
  const sugar = weighed
    .filter(w => w.line.role === 'sweetener')
    .reduce((total, { line, grams }) => total + (grams * (line.solids_pct || 100)) / 100, 0);
  if (fruit === 0 || !less(sugar, fruit * cover.sugarForFruit)) return [];
  return [
    lost(
      'reduced-sugar',
      `Sugar is ${shareText(sugar / fruit, figures)} of the fruit; the spreads this time was published for have ${shareText(cover.sugarForFruit, figures)} or more.`,
      'Its sugar keeps a spread; a reduced-sugar spread inherits no jam time.',
      'Put more sugar, or follow a tested recipe with less.',
    ),
  ];
}

const COVERED = ['peel', 'cut', 'strain'] as const;

/** Cut, peel and straining. */
export function methodFaults(method: Method, cover: Cover, entry: ProcessEntry): FormulaChange[] {
  return COVERED.flatMap(key => {
    const allowed: readonly string[] = cover[key];
    const now = method[key];
    if (allowed.length === 0 || allowed.includes(now)) return [];
    const [code, name, why] = METHOD_WORDS[key];
    return [
      lost(
        now === 'puréed' ? 'pureed' : code,
        `${name}: ${now}; ${foodOf(entry)} is ${allowed.join(' or ')}.`,
        why,
        `Make it ${allowed.join(' or ')}.`,
      ),
    ];
  });
}
