/**
 * What is left of food by how it is worked, with the range between a careful and a wasteful hand: the tenth to the
 * ninetieth part of kitchens. Common practice, from memory, but where a source is named.
 */
export interface Yield {
  share: number;
  low: number;
  high: number;
  source: string;
}

/** Ways to part juice or pulp from what is thrown away. */
export type Separator = 'jelly bag, dripped' | 'jelly bag, squeezed' | 'food mill' | 'sieve' | 'blender';

const PRACTICE = 'common practice, from memory';

/**
 * Juice or pulp over prepared fruit. The mill and the sieve fit USDA Complete Guide (2015), guide 3: about 3 1/4 lb of
 * tomatoes to a quart of juice, 5 lb of thin and 6 1/2 lb of thick sauce; from memory.
 */
export const SEPARATORS: Readonly<Record<Separator, Yield>> = {
  'jelly bag, dripped': { share: 0.62, low: 0.52, high: 0.7, source: PRACTICE },
  'jelly bag, squeezed': { share: 0.72, low: 0.64, high: 0.8, source: PRACTICE },
  'food mill': { share: 0.78, low: 0.7, high: 0.85, source: PRACTICE },
  sieve: { share: 0.72, low: 0.62, high: 0.8, source: PRACTICE },
  blender: { share: 0.96, low: 0.93, high: 0.99, source: PRACTICE },
};

/** Produce after salt has drawn its water and it was drained or pressed, over what went in. */
export const AFTER_SALT: Readonly<Record<'cabbage' | 'cucumber' | 'other', Yield>> = {
  cabbage: { share: 0.75, low: 0.7, high: 0.82, source: PRACTICE },
  cucumber: { share: 0.68, low: 0.6, high: 0.75, source: PRACTICE },
  other: { share: 0.85, low: 0.75, high: 0.95, source: PRACTICE },
};

/** How far salt comes to stand evenly in pieces and water by the end of a soak. From memory. */
export const SALT_UPTAKE: Yield = { share: 0.9, low: 0.6, high: 1, source: PRACTICE };

/** Salt to a hundred of produce and water below which a soak draws nothing worth weighing. From memory. */
export const DRAWS_WATER_PCT = 1;

/** What sticks to pot and ladle and goes with the foam, of what is filled. From memory. */
export const STAYS_IN_POT: Yield = { share: 0.015, low: 0.005, high: 0.035, source: PRACTICE };

/** How closely a fill meets its headspace. From memory. */
export const FILL: Yield = { share: 1, low: 0.97, high: 1.02, source: PRACTICE };

/** Pieces in the loosest and the tightest jar of a pack, over what its recipe says. From memory. */
export const PACK: Yield = { share: 1, low: 0.9, high: 1.1, source: PRACTICE };

/** Water that a kitchen's pot boils off, over its rate. From memory. */
export const BOIL_OFF: Yield = { share: 1, low: 0.75, high: 1.25, source: PRACTICE };

/** Where the end is judged by eye, the pot ends within this of what its jars hold. From memory. */
export const BY_EYE: Yield = { share: 1, low: 0.9, high: 1.12, source: PRACTICE };

/** Range of a share that trimming leaves, of what is cut away. From memory. */
export const TRIM_SPREAD = 0.35;

/** Range of a share that a cloth lets through, where its way is not in the list. From memory. */
export const CLOTH_SPREAD = 0.13;
