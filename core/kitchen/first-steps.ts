import { HEIGHTS_FT } from './data/heights.ts';
import { USUAL_THINGS } from './data/equipment.ts';
import type { Kitchen } from './kitchen.ts';

/** What a new kitchen does first, in the order in which one needs the other. */
export const FIRST_STEPS = ['placed', 'equipment', 'recipe', 'shelf', 'rules', 'label', 'batch'] as const;
/** One of the first steps ({@link FIRST_STEPS}). */
export type FirstStep = (typeof FIRST_STEPS)[number];

/** What there is in a kitchen, as far as the first steps hang on it. */
export interface There {
  kitchen: Pick<Kitchen, 'placed' | 'pots' | 'canners' | 'jurisdiction' | 'makerName' | 'makerAddress'>;
  recipes: number;
  /** Ingredients it keeps; jars and lids come with the equipment. */
  items: number;
  batches: number;
}

/**
 * What of the first steps is still to be done; none once all of it is. A kitchen that cooks for its own table needs neither
 * rules nor label, and may leave them.
 */
export function firstSteps({ kitchen, recipes, items, batches }: There): FirstStep[] {
  const done: Record<FirstStep, boolean> = {
    placed: kitchen.placed,
    equipment: kitchen.pots.length > 0 && kitchen.canners.length > 0,
    recipe: recipes > 0,
    shelf: items > 0,
    rules: kitchen.jurisdiction.rules !== null,
    label: kitchen.makerName !== '' && kitchen.makerAddress !== '',
    batch: batches > 0,
  };
  return FIRST_STEPS.filter(s => !done[s]);
}

/**
 * Places of the list of heights whose name has what was typed, those that begin with it first.
 *
 * @param most  how many at most
 * @example findHeights('denv')[0]?.[1] // 5280
 */
export function findHeights(
  text: string,
  most = 8,
): readonly (readonly [place: string, height_ft: number])[] {
  const asked = text.trim().toLowerCase();
  if (asked === '') return [];
  const found = HEIGHTS_FT.filter(([place]) => place.toLowerCase().includes(asked));
  const begins = (place: string) => (place.toLowerCase().startsWith(asked) ? 0 : 1);
  return found.toSorted((a, b) => begins(a[0]) - begins(b[0])).slice(0, most);
}

/**
 * A kitchen's pots, canners and burners with usual ones added to them.
 *
 * @param ids  of the list of usual things
 * @param newId  makes the id of each
 */
export function withUsual<K extends Pick<Kitchen, 'pots' | 'canners' | 'costs'>>(
  kitchen: K,
  ids: ReadonlySet<string>,
  newId: () => string,
): K {
  const things = USUAL_THINGS.filter(t => ids.has(t.id)).map(t => t.thing);
  return {
    ...kitchen,
    pots: [...kitchen.pots, ...things.flatMap(t => (t.kind === 'pot' ? [{ id: newId(), ...t.pot }] : []))],
    canners: [
      ...kitchen.canners,
      ...things.flatMap(t => (t.kind === 'canner' ? [{ id: newId(), ...t.canner }] : [])),
    ],
    costs: {
      ...kitchen.costs,
      burners: [
        ...kitchen.costs.burners,
        ...things.flatMap(t =>
          t.kind === 'burner' ? [{ id: newId(), ...t.burner } as (typeof kitchen.costs.burners)[number]] : [],
        ),
      ],
    },
  };
}
