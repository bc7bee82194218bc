import {
  type AcidKind,
  PICKLING_STRENGTH_PCT,
  BOTTLED_JUICE_PCT,
  acidKind,
  countsAsBarrier,
} from '../ingredients/index.ts';
import type { Line } from '../recipes/index.ts';

/** What a line is made of, in grams. Together they are its mass. */
export interface Parts {
  water_g: number;
  /** Sugar that was added: of sweeteners, and of fruit that was bought sugared. */
  sugar_g: number;
  salt_g: number;
  /** All else that dissolves: the sugars of fruit, pectin. */
  soluble_g: number;
  insoluble_g: number;
  /** Acid of a line that is there for its acid. What fruit has of its own is not reckoned: nobody measured it. */
  acid_g: number;
}

/** Names of the parts, in the order in which they are told. */
export const PART_NAMES = ['water_g', 'sugar_g', 'salt_g', 'soluble_g', 'insoluble_g', 'acid_g'] as const;

/** Nothing of anything. */
export const noParts = (): Parts => ({
  water_g: 0,
  sugar_g: 0,
  salt_g: 0,
  soluble_g: 0,
  insoluble_g: 0,
  acid_g: 0,
});

/** Grams of all parts together. */
export function massOf(p: Parts): number {
  return p.water_g + p.sugar_g + p.salt_g + p.soluble_g + p.insoluble_g + p.acid_g;
}

/** The acids that lines bring. */
export type AddedAcid = 'acetic' | 'citric';

/** What is read off a line once: a slider asks for it at every move. */
interface LineFacts {
  composition: Parts;
  acid: AddedAcid | null;
  barrier: boolean;
}
const facts = new WeakMap<Line, LineFacts>();
function factsOf(line: Line): LineFacts {
  const known = facts.get(line);
  if (known) return known;
  const kind = acidKind(line);
  const made: LineFacts = {
    composition: composed(line, kind),
    acid: kind === null || kind === 'unlabelled vinegar' ? null : kind === 'vinegar' ? 'acetic' : 'citric',
    barrier: countsAsBarrier(line),
  };
  facts.set(line, made);
  return made;
}

/** Which acid a line brings; null where it brings none whose strength is known. */
export const acidOf = (line: Line): AddedAcid | null => factsOf(line).acid;

/** Whether the acid of a line counts where acid is the barrier: bottled juice, citric acid, labelled vinegar. */
export const isBarrier = (line: Line): boolean => factsOf(line).barrier;

/**
 * What one gram of a line, as prepared, is made of: from the line's own facts alone, so that an old batch never changes.
 *
 * @returns parts that together are 1; they are shared, and not to be changed
 */
export const compositionOf = (line: Line): Readonly<Parts> => factsOf(line).composition;

/** Grams of acetic acid that neutralise as much as a gram of each acid does: by molar mass and acid groups. */
export const AS_ACETIC: Readonly<Record<AddedAcid, number>> = {
  acetic: 1,
  // CRC Handbook: 60.05 g/mol, one group; 192.12 g/mol, three groups.
  citric: (60.05 * 3) / 192.12,
};

/** What neither dissolves nor is water, by what a line is: fibre, skins, seeds. Common food-composition figures, from memory. */
const INSOLUBLE: Partial<Record<Line['role'], number>> = {
  fruit: 0.02,
  'low-acid produce': 0.025,
  spice: 0.85,
  fat: 0.84,
};

function composed(line: Line, kind: AcidKind | null): Parts {
  const parts = noParts();
  const solids = Math.min(1, Math.max(0, line.solids_pct / 100));
  switch (line.role) {
    case 'water':
      parts.water_g = 1;
      return parts;
    case 'salt':
      parts.salt_g = 1;
      return parts;
    case 'sweetener':
      parts.sugar_g = solids || 1;
      parts.water_g = 1 - parts.sugar_g;
      return parts;
    case 'acid': {
      if (kind === 'citric acid') parts.acid_g = 1;
      else if (kind === 'vinegar') parts.acid_g = (line.minStrength_pct ?? PICKLING_STRENGTH_PCT) / 100;
      else if (kind === 'bottled juice' || kind === 'fresh juice') parts.acid_g = BOTTLED_JUICE_PCT / 100;
      parts.soluble_g = Math.max(0, Math.min(solids, 1) - parts.acid_g);
      parts.water_g = Math.max(0, 1 - parts.acid_g - parts.soluble_g);
      return parts;
    }
    case 'set':
      parts.soluble_g = solids || 0.9;
      parts.water_g = 1 - parts.soluble_g;
      return parts;
    case 'fruit':
    case 'low-acid produce':
    case 'spice':
    case 'fat':
    case 'other': {
      parts.sugar_g = Math.min(1, line.addedSugar_pct / 100);
      parts.soluble_g = Math.max(0, Math.min(solids, 1) - parts.sugar_g);
      const left = 1 - parts.sugar_g - parts.soluble_g;
      parts.insoluble_g = Math.min(left, INSOLUBLE[line.role] ?? 0);
      parts.water_g = left - parts.insoluble_g;
      return parts;
    }
  }
}

/** What is in a vessel: the parts of each line in it, by the line's id. */
export type Contents = Map<string, Parts>;

/** A share of each part, by its name; parts that are not named do not move. */
export type Shares = Partial<Record<keyof Parts, number>>;

/** The same share of every part. */
export const evenly = (share: number): Shares => ({
  water_g: share,
  sugar_g: share,
  salt_g: share,
  soluble_g: share,
  insoluble_g: share,
  acid_g: share,
});

/** So many grams of what a line is made of. */
export function partsOf(line: Line, mass_g: number): Parts {
  const c = compositionOf(line);
  return {
    water_g: c.water_g * mass_g,
    sugar_g: c.sugar_g * mass_g,
    salt_g: c.salt_g * mass_g,
    soluble_g: c.soluble_g * mass_g,
    insoluble_g: c.insoluble_g * mass_g,
    acid_g: c.acid_g * mass_g,
  };
}

/** Adds parts to others; each part by its name, because that is several times faster than by a list of names. */
export function addTo(sum: Parts, parts: Parts, times = 1): void {
  sum.water_g += parts.water_g * times;
  sum.sugar_g += parts.sugar_g * times;
  sum.salt_g += parts.salt_g * times;
  sum.soluble_g += parts.soluble_g * times;
  sum.insoluble_g += parts.insoluble_g * times;
  sum.acid_g += parts.acid_g * times;
}

/** Adds parts to what is there of a line. */
export function pour(into: Contents, lineId: string, parts: Parts): void {
  const there = into.get(lineId);
  if (there) addTo(there, parts);
  else into.set(lineId, { ...parts });
}

/** Takes shares of what is there of a line away from it, and gives what was taken. */
export function take(there: Parts, shares: Shares): Parts {
  const taken = {
    water_g: there.water_g * (shares.water_g ?? 0),
    sugar_g: there.sugar_g * (shares.sugar_g ?? 0),
    salt_g: there.salt_g * (shares.salt_g ?? 0),
    soluble_g: there.soluble_g * (shares.soluble_g ?? 0),
    insoluble_g: there.insoluble_g * (shares.insoluble_g ?? 0),
    acid_g: there.acid_g * (shares.acid_g ?? 0),
  };
  addTo(there, taken, -1);
  return taken;
}

/** Grams of all that is in a vessel. */
export function massIn(contents: Contents): number {
  let sum = 0;
  for (const parts of contents.values()) sum += massOf(parts);
  return sum;
}

/** All lines of a vessel together. */
export function together(contents: Contents): Parts {
  const sum = noParts();
  for (const parts of contents.values()) addTo(sum, parts);
  return sum;
}

/** Soluble solids of so much, in grams: what a refractometer would see. */
export function solubleOf(p: Parts): number {
  return p.sugar_g + p.salt_g + p.soluble_g + p.acid_g;
}
