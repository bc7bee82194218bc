import type { JarSizeId } from '../jars/index.ts';
import { type JurisdictionProfile, placeFault } from '../kitchen/index.ts';
import type { Day, Figures } from '../measure/index.ts';
import type { Recipe } from '../recipes/index.ts';
import { routeToSale } from './authority.ts';
import { type Confirmation, unprovenFault } from './page.ts';
import { processFor } from './process-for.ts';
import { reviewFaults } from './rules.ts';

/** Why a recipe may not be cooked for a purpose, and what would open it. */
export interface PurposeFault {
  code: 'refused-food' | 'no-route' | 'no-time' | 'page-unconfirmed' | 'place';
  what: string;
  why: string;
  next: string;
  /** The jar size it is about, where it is about one. */
  size: JarSizeId | null;
}

/** What is asked about a recipe before anything is lit. */
export interface PurposeQuestion {
  kitchen: Figures & { altitude_m: number; demo: boolean; jurisdiction: JurisdictionProfile };
  /** Jars that are wanted. */
  sizes: readonly JarSizeId[];
  /** Pages its owners confirmed. */
  confirmations: readonly Confirmation[];
  today: Day;
}

/**
 * For each purpose why a recipe may not be cooked for it; null where it may. For sale both keys have to turn: a process that
 * covers the food and was read off its page, and a place that allows it. As a gift, and for home, its jars need a time,
 * unless all of it is acid by itself or it is for the freezer or the table: such jars stand in the refrigerator. A trial may
 * always be cooked, and nothing of it is ever released.
 */
export function purposeFaults(
  recipe: Recipe,
  { kitchen, sizes, confirmations, today }: PurposeQuestion,
): { [K in 'sale' | 'home' | 'gift' | 'trial']: PurposeFault | null } {
  const answers = sizes.map(size => ({
    size,
    answer: processFor(recipe, size, kitchen.altitude_m, kitchen),
  }));
  const times = answers.flatMap(({ answer }) => (answer.ok ? [answer.time] : []));
  const noTime = answers.flatMap(({ size, answer }): PurposeFault[] =>
    answer.ok ? [] : [{ code: 'no-time', what: answer.what, why: answer.why, next: answer.next, size }],
  )[0];
  const refusal = reviewFaults(recipe, kitchen).find(f => f.level === 'refused');
  const refused: PurposeFault | null = refusal
    ? {
        code: 'refused-food',
        what: refusal.what,
        why: `${refusal.why} ${refusal.source}.`,
        next: `${refusal.next} It may be cooked for the freezer or the table.`,
        size: null,
      }
    : null;
  const sale = (): PurposeFault | null => {
    if (refused) return refused;
    const route = routeToSale(recipe, kitchen);
    if (!route.open)
      return {
        code: 'no-route',
        what: route.what,
        why: route.why,
        next: route.next || 'Cook it for home, as a gift or as a trial.',
        size: null,
      };
    if (noTime) return noTime;
    const unproven = unprovenFault(recipe, kitchen, times, confirmations, today);
    if (unproven) return { code: 'page-unconfirmed', ...unproven, size: null };
    const place = placeFault(
      kitchen.jurisdiction,
      { foodClass: recipe.foodClass, hasLetter: recipe.authority.grade === 'letter' },
      today,
      kitchen,
    );
    return place && { code: 'place', ...place, size: null };
  };
  // A size its authority has no time for is a slip in a recipe that has one; without any the jars go to the refrigerator.
  const coversNone = times.length === 0;
  const acidByItself = recipe.foodClass === 'fruit spread' || recipe.foodClass === 'acid food';
  // What was not written down yet is nobody knows what.
  const coldKept = coversNone && !recipe.sketch && (refused !== null || acidByItself);
  return {
    sale: sale(),
    gift: refused ?? noTime ?? null,
    home: coldKept ? null : (noTime ?? null),
    trial: coversNone ? null : (noTime ?? null),
  };
}
