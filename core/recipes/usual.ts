import type { JarSizeId } from '../jars/index.ts';
import { type Method, type Product, SPREADS } from '../times/index.ts';
import type { SetBy } from './recipe.ts';

/** What a recipe of a kind begins with while nobody said otherwise. Common practice of the trade. */
export interface Usual {
  setBy: SetBy;
  method: Method;
  size: JarSizeId;
  readyAfter_days: number;
  /** Its pieces lie in a liquid. */
  covered: boolean;
  /** What sets it is a choice; of other kinds nothing does. */
  sets: boolean;
}

const PLAIN: Method = { peel: 'either', cut: 'chopped', strain: 'unstrained', liquid: 'none', pack: 'hot' };
const MORE: Partial<Record<Product, Partial<Omit<Usual, 'method'>> & { method?: Partial<Method> }>> = {
  jam: { method: { cut: 'crushed' } },
  preserves: { method: { cut: 'whole' } },
  jelly: { method: { cut: 'juice', strain: 'strained' } },
  'fruit butter': { method: { cut: 'puréed', strain: 'strained' } },
  marmalade: { method: { cut: 'sliced' } },
  syrup: { method: { cut: 'juice', strain: 'strained' } },
  juice: { method: { cut: 'juice', strain: 'strained' }, size: 'quart' },
  purée: { method: { cut: 'puréed' } },
  'fruit in liquid': {
    method: { cut: 'halved', peel: 'peeled', liquid: 'syrup' },
    covered: true,
    size: 'quart',
  },
  'pie filling': {
    setBy: 'modified starch',
    method: { cut: 'sliced', peel: 'peeled' },
    size: 'quart',
    sets: true,
  },
  tomatoes: { method: { cut: 'whole', peel: 'peeled', liquid: 'water' }, covered: true, size: 'quart' },
  'tomato sauce': { method: { cut: 'puréed', strain: 'strained' } },
  ketchup: { method: { cut: 'puréed', peel: 'peeled' } },
  salsa: { method: { peel: 'peeled' } },
  chutney: { readyAfter_days: 28 },
  pickle: {
    method: { cut: 'sliced', liquid: 'vinegar brine', pack: 'raw' },
    covered: true,
    readyAfter_days: 28,
  },
  sauerkraut: { method: { cut: 'sliced', liquid: 'salt brine' } },
};

/**
 * What a recipe of a kind usually is: how it is cut and packed, what sets it, its jars.
 *
 * @example usualOf('jelly').method.strain // 'strained'
 */
export function usualOf(product: Product): Usual {
  const { method = {}, ...more } = MORE[product] ?? {};
  const spread = SPREADS.includes(product);
  return {
    setBy: spread ? 'nothing added' : 'not set',
    size: spread || product === 'syrup' ? 'half-pint' : 'pint',
    readyAfter_days: 0,
    covered: false,
    sets: spread,
    ...more,
    method: { ...PLAIN, ...method },
  };
}
