/** What a place says of a kind of food. A tested publication is no approval: `approved process` asks for one of its own. */
export const PLACE_RULES = ['allowed', 'approved process', 'not allowed'] as const;
/** Kinds of food a place may allow: the classes of the review, but for what is refused everywhere. */
export const PLACE_FOODS = ['fruit spread', 'acid food', 'acidified food', 'fermented food'] as const;
/** A kind of food ({@link PLACE_FOODS}). */
export type PlaceFood = (typeof PLACE_FOODS)[number];
/** What an owner ticks, point by point, after asking the authority. */
export const PLACE_POINTS = [
  'foods',
  'outlets',
  'ceiling',
  'training',
  'registration',
  'statement',
  'water',
  'insurance',
] as const;
/** Papers a kitchen keeps where it has them, whatever its place asks: once ticked they may run out like the others. */
export const KEPT_POINTS = ['water', 'insurance'] as const satisfies readonly (typeof PLACE_POINTS)[number][];
/** A point of a profile ({@link PLACE_POINTS}). */
export type PlacePoint = (typeof PLACE_POINTS)[number];
