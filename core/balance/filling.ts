import { jarSize, type JarSizeId } from '../jars/index.ts';
import { FILL, PACK } from './data/yields.ts';
import { addTo, type Contents, massIn, massOf, noParts, partsOf, pour, together } from './parts.ts';
import type { Process, ProcessJars, ProcessLine } from './process.ts';
import { density_gPerMl, HOT_OVER_COLD } from './volume.ts';

/** What stands in one jar of a size. */
export interface JarContents {
  size: JarSizeId;
  count: number;
  /** In one jar, by line. */
  each: Contents;
  /** The same of the jar that holds most pieces, and of the one that holds fewest; both are `each` where nothing is packed. */
  tightest: Contents;
  loosest: Contents;
  /** Pieces in one, and the liquid between them; 0 where nothing is packed. */
  pieces_g: number;
  gap_mL: number;
}

/** How the jars took it all. */
export interface Filling {
  /** Pints that were filled. */
  pints: number;
  /** A last jar that is not full: its share, 0 where all are. */
  part: { size: JarSizeId; share: number } | null;
  /** Of what the wanted jars hold, how much there is: below 1 they are not full. */
  enough: number;
  /** Brine that the gaps take, in grams and millilitres hot; what there is of it beside. */
  brineNeeded_mL: number;
  brineMade_mL: number;
}

/** What is filled, and by which figures. */
export interface FillFigures {
  process: Process;
  doses: readonly ProcessLine[];
  value: (id: string, otherwise: number) => number;
}

/** Millilitres that the doses of one jar take. */
function dosed(doses: readonly ProcessLine[], pints: number): { parts: Contents; room_mL: number } {
  const parts: Contents = new Map();
  let room_mL = 0;
  for (const { line, prepared_g } of doses) {
    const mass_g = prepared_g * pints;
    pour(parts, line.id, partsOf(line, mass_g));
    room_mL += mass_g / Math.max(0.9, line.density_gPerMl ?? 1);
  }
  return { parts, room_mL };
}

/** So many grams of a mixture, by its lines. */
function some(of: Contents, mass_g: number, into: Contents): void {
  const all = massIn(of);
  if (all === 0) return;
  const share = mass_g / all;
  for (const [id, parts] of of) {
    const moved = noParts();
    addTo(moved, parts, share);
    pour(into, id, moved);
  }
}

/**
 * Fills jars: a pot into their room below the headspace, pieces by weight with brine in the gaps.
 *
 * @param main  what is to be filled; it is only looked at
 * @returns what is in one jar of each size, and the shares of pot and brine that went
 */
export function fillJars(
  main: Contents,
  brine: Contents,
  figures: FillFigures,
): {
  jars: JarContents[];
  taken: number;
  brineTaken: number;
  /** Grams of `main` that all wanted jars hold. */
  wanted_g: number;
  summary: Filling;
} {
  const { process, doses, value } = figures;
  const { packing } = process.recipe;
  const there_g = massIn(main);
  const fill = value('fill', FILL.share);
  const mainParts = together(main);
  const hot = density_gPerMl(mainParts) * HOT_OVER_COLD;
  const brineParts = together(brine);
  const brineDensity = density_gPerMl(brineParts) * HOT_OVER_COLD;
  /** Grams of `main` that one jar takes, its gap, and its doses. */
  const one = (jar: ProcessJars, pack: number) => {
    const pints = jarSize(jar.size).pints.valueOf();
    const dose = dosed(doses, pints);
    const room_mL = Math.max(0, jar.fill_mL * fill - dose.room_mL);
    if (!packing) return { pints, dose, main_g: room_mL * hot, gap_mL: 0 };
    const perPint_g = process.perPint_g ?? packing.perPint_g;
    const main_g = perPint_g * pints * pack;
    return { pints, dose, main_g, gap_mL: room_mL - main_g / packing.pieceDensity_gPerMl };
  };
  const pack = value('pack', PACK.share);
  const counted = process.jars.some(j => j.count > 0);
  const takes = process.jars.map(jar => ({ jar, ...one(jar, pack) })).filter(t => t.main_g > 0);
  let left_g = there_g;
  const filled = takes.map(t => {
    const count = counted ? t.jar.count : Math.floor(left_g / t.main_g + 1e-9);
    left_g -= count * t.main_g;
    return { ...t, count };
  });
  const wanted_g = counted
    ? filled.reduce((sum, f) => sum + f.count * f.main_g, 0)
    : madeAsWritten(process, takes);
  const used_g = filled.reduce((sum, f) => sum + f.count * f.main_g, 0);
  const enough = used_g === 0 ? 1 : Math.min(1, there_g / used_g);
  const smallest = filled.at(-1);
  const part =
    smallest && left_g > smallest.main_g * 0.01
      ? { size: smallest.jar.size, share: Math.min(1, left_g / smallest.main_g) }
      : null;
  // Fewer pieces than planned leave larger gaps.
  const gapOf = (f: (typeof filled)[number], share: number) =>
    packing ? Math.max(0, f.gap_mL + (f.main_g * (1 - enough * share)) / packing.pieceDensity_gPerMl) : 0;
  const needed_mL = filled.reduce((sum, f) => sum + f.count * gapOf(f, 1), 0);
  const made_mL = massOf(brineParts) / brineDensity;
  const brineShare = needed_mL === 0 ? 0 : Math.min(1, made_mL / needed_mL);
  const [low, high] = [value('loosest', PACK.low), value('tightest', PACK.high)];
  const contents = (f: (typeof filled)[number], share: number): Contents => {
    const out: Contents = new Map();
    some(main, f.main_g * enough * share, out);
    some(brine, gapOf(f, share) * brineShare * brineDensity, out);
    for (const [id, parts] of f.dose.parts) pour(out, id, parts);
    return out;
  };
  const jars = filled
    .filter(f => f.count > 0)
    .map((f): JarContents => {
      const each = contents(f, 1);
      return {
        size: f.jar.size,
        count: f.count,
        each,
        tightest: packing ? contents(f, high) : each,
        loosest: packing ? contents(f, low) : each,
        pieces_g: packing ? f.main_g * enough : 0,
        gap_mL: packing ? f.gap_mL : 0,
      };
    });
  return {
    jars,
    taken: there_g === 0 ? 0 : Math.min(1, used_g / there_g),
    brineTaken: made_mL === 0 ? 0 : Math.min(1, needed_mL / made_mL),
    wanted_g,
    summary: {
      pints: filled.reduce((sum, f) => sum + f.count * f.pints, 0),
      part,
      enough,
      brineNeeded_mL: needed_mL,
      brineMade_mL: made_mL,
    },
  };
}

/** Grams that the jars of the recipe as written would hold at this scale, where no jar is named. */
function madeAsWritten(
  process: Process,
  takes: readonly { jar: ProcessJars; pints: number; main_g: number }[],
): number {
  const first = takes[0];
  return first ? (first.main_g / first.pints) * process.pints : 0;
}
