import type { JarSizeId } from '../jars/index.ts';
import { type Names, byName } from '../measure/index.ts';
import type { Line, Recipe } from '../recipes/index.ts';

/** How a figure is known, from the surest to the least sure. */
export const KNOWN = ['weighed', 'measured', 'drawn', 'planned'] as const;
/** How a figure is known ({@link KNOWN}). */
export type Known = (typeof KNOWN)[number];

/** A line with what goes in of it. */
export interface ProcessLine {
  line: Line;
  /** Grams prepared; for lines dosed by jar, in one pint. */
  prepared_g: number;
  known: Known;
}

/** So many jars of a size, and what each holds below its headspace. */
export interface ProcessJars {
  size: JarSizeId;
  count: number;
  fill_mL: number;
}

/** What is uncertain, with the value it is reckoned with and the tenth and ninetieth part of what it may be. */
export interface Uncertain {
  id: string;
  mid: number;
  low: number;
  high: number;
}

/**
 * A plan or what happened, ready to be reckoned: the same shape with other figures, so that one function knows what is in
 * the jar of both.
 */
export interface Process {
  recipe: Pick<Recipe, 'steps' | 'outlets' | 'packing' | 'makes' | 'product'>;
  lines: ProcessLine[];
  /** Jars to fill, largest first; a count of 0 lets the pot say how many. */
  jars: ProcessJars[];
  /** Pints that the recipe says it makes, at this scale. */
  pints: number;
  /** What was taken out of the pot before it was filled, by the id of its entry. */
  taken: { id: string; mass_g: number }[];
  /** What was measured at a step, or is expected there. */
  measures: Readonly<Names<{ quantity: number; unit: 'g' | 'mL'; known: Known }>>;
  kitchen: {
    altitude_m: number;
    thermometerError_C: number;
    /** Grams of water a minute that one pot boils off; null where no pot is chosen. */
    boilOff_gPerMin: number | null;
    /** Millilitres in a millimetre of depth; null where no pot is chosen. */
    mLPerMm: number | null;
    pots: number;
  };
  /** Pieces in a pint, where jars were packed otherwise than the recipe says. */
  perPint_g: number | null;
  /** What is uncertain of it. */
  uncertain: Uncertain[];
}

/** Values of what is uncertain, by id: those that are not named stand at their middle. */
export type Chosen = Readonly<Names<number>>;
/** Everything at its middle. */
export const AT_MIDDLE: Chosen = byName();
