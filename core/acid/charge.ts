/** The pH of a mixture of weak acids and bases, by its charge balance. */

import { WEAK_ACIDS, type WeakAcid } from './data/acids.ts';

/** A weak acid that a mixture may hold. */
export type AcidName = (typeof WEAK_ACIDS)[number]['name'];

/** How many acids there are: amounts are given in their order. */
export const ACID_COUNT = WEAK_ACIDS.length;
/** The place of an acid among the amounts. */
export const acidAt = (name: AcidName): number => WEAK_ACIDS.findIndex(a => a.name === name);
/** Grams in a mole of an acid. */
export const molarMass_g = (name: AcidName): number => WEAK_ACIDS[acidAt(name)]?.molar_g ?? 0;

/** What is dissolved in a kilogram of water. */
export interface Mixture {
  /** Moles of each acid, in the order of {@link acidAt}. */
  acids: ArrayLike<number>;
  /** Equivalents of strong cations less those of strong anions: what was neutralised already. */
  base_mol: number;
  /** Moles of salt, which shields charges and adds none. */
  salt_mol: number;
}

/** Constants of the n-th proton of each acid; 0 where it has none to give. */
const constants = (n: number) =>
  Float64Array.from(WEAK_ACIDS as readonly WeakAcid[], ({ pKa }) => {
    const found = pKa[n];
    return found === undefined ? 0 : 10 ** -found;
  });
const [K1, K2, K3] = [constants(0), constants(1), constants(2)];
const KW = 10 ** -13.995;
/** Of the Debye-Hückel limiting law in water at 25 °C. CRC Handbook, from memory. */
const DEBYE = 0.509;
/** Davies' own figure for the term that turns activities up again. Davies, Ion Association (1962), from memory. */
const DAVIES = 0.3;
/** Above it Davies' equation is no longer meant, mol/kg. */
const MOST_IONS = 0.5;
/** Halvings after which an answer is known to a millionth of a pH, and rounds after which its ions are. */
const MOST_STEPS = 40;
const MOST_ROUNDS = 8;
/** A thousandth of what a meter shows. */
const SETTLED_PH = 1e-5;
/** So small a difference of ions moves a pH by less than that. */
const SAME_IONS = 2e-5;

/** What {@link anionsOf} found: one thing, filled anew, because it is asked millions of times. */
const found = { charges: 0, variance: 0, shielding: 0 };

/**
 * What the acids have given off at an activity of hydrogen: their negative charges, how fast these change with the logarithm of it,
 * and their squares, which shield.
 *
 * @param g  what one charge's activity is divided by
 */
function anionsOf(acids: ArrayLike<number>, a: number, g: number): Readonly<typeof found> {
  const g3 = g * g * g;
  const g5 = g3 * g * g;
  let charges = 0;
  let variance = 0;
  let shielding = 0;
  for (let i = 0; i < acids.length; i++) {
    const c = acids[i] as number;
    if (c === 0) continue;
    const t1 = ((K1[i] as number) * g) / a;
    const t2 = (t1 * (K2[i] as number) * g3) / a;
    const t3 = (t2 * (K3[i] as number) * g5) / a;
    const all = 1 + t1 + t2 + t3;
    const mean = (t1 + 2 * t2 + 3 * t3) / all;
    const square = (t1 + 4 * t2 + 9 * t3) / all;
    charges += c * mean;
    variance += c * (square - mean * mean);
    shielding += c * square;
  }
  found.charges = charges;
  found.variance = variance;
  found.shielding = shielding;
  return found;
}

/** How much less active a single charge is among so many ions. */
function shieldedBy(ions: number): number {
  const root = Math.sqrt(ions);
  return Math.exp(Math.LN10 * DEBYE * (root / (1 + root) - DAVIES * ions));
}

/**
 * The pH at which charges balance: hydrogen and strong cations against hydroxide and the anions of every acid, with activities
 * after Davies. Newton's way, kept within what is known to hold the answer.
 *
 * @param start_ph  where the search begins: the answer of a mixture like it saves steps
 * @returns pH as a meter would read it, 0 to 14
 * @source Textbooks of analytical chemistry: exact treatment of acid-base equilibria; Davies 1962 (from memory)
 * @example
 * const acids = new Float64Array(ACID_COUNT);
 * acids[acidAt('acetic')] = 0.1;
 * phOf({ acids, base_mol: 0, salt_mol: 0 }).toFixed(2); // '2.88'
 */
export function phOf({ acids, base_mol, salt_mol }: Mixture, start_ph = 4): number {
  let ph = start_ph;
  let ions = Math.min(MOST_IONS, salt_mol + Math.abs(base_mol) * 0.8 + 0.001);
  // Charges shield each other, and the less they do the fewer there are: both are found in turn.
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const g = shieldedBy(ions);
    let low = 0;
    let high = 14;
    let strength = ions;
    let moved = Infinity;
    for (let step = 0; step < MOST_STEPS; step++) {
      const a = Math.exp(-Math.LN10 * ph);
      const h = a * g;
      const oh = (KW / a) * g;
      let charge = base_mol + h - oh;
      /** Of the charge, by the natural logarithm of the activity of hydrogen. */
      let slope = h + oh;
      let squares = h + oh;
      const { charges, variance, shielding } = anionsOf(acids, a, g);
      charge -= charges;
      slope += variance;
      squares += shielding;
      strength = salt_mol + 0.5 * (Math.max(0, base_mol) + squares);
      // Too much hydrogen: the pH lies higher.
      if (charge > 0) low = ph;
      else high = ph;
      const next = ph + charge / (slope * Math.LN10);
      // A step that does not shrink swings to and fro: halve instead.
      const newton = next > low && next < high && Math.abs(next - ph) < moved / 2;
      const to = newton ? next : (low + high) / 2;
      moved = Math.abs(to - ph);
      ph = to;
      if (moved < SETTLED_PH) break;
    }
    const next = Math.min(MOST_IONS, strength);
    if (Math.abs(next - ions) < SAME_IONS) break;
    ions = next;
  }
  return ph;
}

/**
 * Equivalents of strong base that have gone into a mixture which reads a pH: the charge of its acids there. It tells how much of
 * its own acid produce has neutralised, from its acid and its pH.
 *
 * @example
 * const acids = new Float64Array(ACID_COUNT);
 * acids[acidAt('citric')] = 0.02;
 * const base_mol = baseAt(acids, 4.3);
 * phOf({ acids, base_mol, salt_mol: 0 }).toFixed(2); // '4.30'
 */
export function baseAt(acids: ArrayLike<number>, ph: number): number {
  const a = 10 ** -ph;
  let ions = 0.05;
  let base = 0;
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const g = shieldedBy(ions);
    base = (KW / a) * g - a * g;
    let squares = (KW / a) * g + a * g;
    const { charges, shielding } = anionsOf(acids, a, g);
    base += charges;
    squares += shielding;
    const next = Math.min(MOST_IONS, 0.5 * (Math.max(0, base) + squares));
    if (Math.abs(next - ions) < SAME_IONS) break;
    ions = next;
  }
  return base;
}
