/** Products a time is published or set for; a time of one is never lent to another. */
export const PRODUCTS = [
  'jam',
  'preserves',
  'jelly',
  'fruit butter',
  'marmalade',
  'fruit spread',
  'syrup',
  'juice',
  'purée',
  'fruit in liquid',
  'pie filling',
  'tomatoes',
  'tomato sauce',
  'ketchup',
  'salsa',
  'chutney',
  'relish',
  'pickle',
  'sauerkraut',
  'other',
] as const;
/** A product ({@link PRODUCTS}). */
export type Product = (typeof PRODUCTS)[number];
/** Products that sugar sets and keeps. */
export const SPREADS: readonly Product[] = [
  'jam',
  'preserves',
  'jelly',
  'fruit butter',
  'marmalade',
  'fruit spread',
];

/** How a product is made, as far as its authority hangs on it. */
export interface Method {
  peel: 'peeled' | 'skins on' | 'either';
  cut: 'whole' | 'halved' | 'sliced' | 'chopped' | 'crushed' | 'puréed' | 'juice';
  strain: 'strained' | 'unstrained';
  /** What covers the pieces. */
  liquid: 'none' | 'water' | 'juice' | 'syrup' | 'vinegar brine' | 'salt brine';
  pack: 'hot' | 'raw';
}
/** How a product is prepared, one choice of each: an entry covers some of them. */
export const METHOD_CHOICES = {
  peel: ['peeled', 'skins on', 'either'],
  cut: ['whole', 'halved', 'sliced', 'chopped', 'crushed', 'puréed', 'juice'],
  strain: ['strained', 'unstrained'],
  liquid: ['none', 'water', 'juice', 'syrup', 'vinegar brine', 'salt brine'],
  pack: ['hot', 'raw'],
} as const satisfies { [K in keyof Method]: readonly Method[K][] };
