import type { Line } from '../recipes/index.ts';
import { AFTER_SALT, DRAWS_WATER_PCT, SALT_UPTAKE, type Yield } from './data/yields.ts';
import { addTo, type Contents, type Parts, type Shares, massOf, noParts } from './parts.ts';

/** Nothing is pressed drier than this share of what it weighed: a smaller weight is no weight of it. Our bound, from no source. */
const LEAST_DRAINED = 0.4;

type Value = (id: string, otherwise: number) => number;

/** What is left of produce after salt drew its water, by the produce there is most of. */
export function afterSalt(lines: readonly Line[]): Yield {
  const names = lines.map(l => l.name).join(' ');
  if (/cabbage|slaw|kraut/i.test(names)) return AFTER_SALT.cabbage;
  return /cucumber|courgette|zucchini/i.test(names) ? AFTER_SALT.cucumber : AFTER_SALT.other;
}

/**
 * What a drained soak pours away. Salt, and whatever else dissolves, comes to stand evenly in the water of produce and
 * soak; salt draws water out of the produce, plain water takes none. What is drained weighs what was weighed, or what
 * practice leaves.
 *
 * @param drained_g  grams weighed after draining, or null
 * @returns shares that leave, by line
 */
export function drained(
  contents: Contents,
  lineOf: (id: string) => Line,
  drained_g: number | null,
  value: Value,
): (line: Line) => Shares {
  const pieces = noParts();
  const liquid = noParts();
  const lines: Line[] = [];
  for (const [id, parts] of contents) {
    const line = lineOf(id);
    if (line.where !== 'soak') lines.push(line);
    addTo(line.where === 'soak' ? liquid : pieces, parts);
  }
  const all_g = massOf(pieces) + massOf(liquid);
  const salt_pct = ((pieces.salt_g + liquid.salt_g) / all_g) * 100;
  const left =
    liquid.salt_g > 0 && salt_pct >= DRAWS_WATER_PCT ? value('after salt', afterSalt(lines).share) : 1;
  const keep_g = Math.min(
    all_g,
    Math.max(massOf(pieces) * LEAST_DRAINED, drained_g ?? massOf(pieces) * left),
  );
  // Fibre stays; the rest of what is kept is liquid, and of what dissolved as much as stands in that liquid.
  const insoluble_g = pieces.insoluble_g + liquid.insoluble_g;
  const liquid_g = all_g - insoluble_g;
  const kept = liquid_g === 0 ? 0 : Math.max(0, Math.min(1, (keep_g - insoluble_g) / liquid_g));
  const uptake = value('salt uptake', SALT_UPTAKE.share);
  const inPieces = 1 - uptake * (1 - kept);
  const inSoak = uptake * kept;
  const dissolved_g = solutes(pieces) * inPieces + solutes(liquid) * inSoak;
  const water_g = pieces.water_g + liquid.water_g;
  const water = water_g === 0 ? 0 : Math.max(0, Math.min(1, (keep_g - insoluble_g - dissolved_g) / water_g));
  return line => {
    const solved = 1 - (line.where === 'soak' ? inSoak : inPieces);
    return { water_g: 1 - water, sugar_g: solved, salt_g: solved, soluble_g: solved, acid_g: solved };
  };
}

const solutes = (p: Parts) => p.sugar_g + p.salt_g + p.soluble_g + p.acid_g;
