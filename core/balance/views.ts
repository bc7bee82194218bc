import type { Balance } from './made.ts';
import type { JarContents } from './filling.ts';
import { AS_ACETIC, type Contents, acidOf, isBarrier, massIn, massOf } from './parts.ts';
import { KNOWN, type Known, type Process } from './process.ts';

/** Acid of a mixture, in grams. */
export interface AcidIn {
  acetic_g: number;
  citric_g: number;
  /** All of it as the acetic acid that neutralises as much. */
  asAcetic_g: number;
  /** The same of what counts where acid is the barrier. */
  barrier_g: number;
}

/** Acid of what is in a vessel, by kind. */
export function acidIn(process: Pick<Process, 'lines'>, contents: Contents): AcidIn {
  const out: AcidIn = { acetic_g: 0, citric_g: 0, asAcetic_g: 0, barrier_g: 0 };
  for (const { line } of process.lines) {
    const acid = acidOf(line);
    const acid_g = contents.get(line.id)?.acid_g ?? 0;
    if (!acid || acid_g === 0) continue;
    if (acid === 'acetic') out.acetic_g += acid_g;
    else out.citric_g += acid_g;
    out.asAcetic_g += acid_g * AS_ACETIC[acid];
    if (isBarrier(line)) out.barrier_g += acid_g * AS_ACETIC[acid];
  }
  return out;
}

/** Grams of barrier acid, as acetic, in 100 g of what is in a vessel. */
export function barrierIn100_g(process: Pick<Process, 'lines'>, contents: Contents): number {
  const all_g = massIn(contents);
  return all_g === 0 ? 0 : (acidIn(process, contents).barrier_g / all_g) * 100;
}

/** The jar with least barrier acid in 100 g, tightest ones included; null where none is filled. */
export function weakestJar(
  process: Pick<Process, 'lines'>,
  made: Pick<Balance, 'jars'>,
): { jar: JarContents; in100_g: number; average_g: number } | null {
  let weakest: { jar: JarContents; in100_g: number; average_g: number } | null = null;
  for (const jar of made.jars) {
    const average_g = barrierIn100_g(process, jar.each);
    const in100_g = Math.min(
      average_g,
      barrierIn100_g(process, jar.tightest),
      barrierIn100_g(process, jar.loosest),
    );
    if (!weakest || in100_g < weakest.in100_g) weakest = { jar, in100_g, average_g };
  }
  return weakest;
}

/**
 * Grams of each line that were added and reached the jars, for the order of a label: water that boiled off counts as
 * having come along, so that it does not put the fruit behind the sugar.
 */
export function reachedJars_g(made: Pick<Balance, 'vessels'>): Map<string, number> {
  const jars = made.vessels.get('jars') ?? new Map();
  const steam = made.vessels.get('steam') ?? new Map();
  const out = new Map<string, number>();
  for (const [id, parts] of jars as Contents) {
    const inJars_g = massOf(parts);
    let there_g = inJars_g;
    for (const [vessel, contents] of made.vessels)
      if (vessel === 'wall' || vessel === 'left over' || vessel.startsWith('outlet:')) {
        const there = contents.get(id);
        if (there) there_g += massOf(there);
      }
    const off = (steam as Contents).get(id);
    out.set(id, inJars_g + (off ? massOf(off) * (there_g === 0 ? 0 : inJars_g / there_g) : 0));
  }
  return out;
}

/** Net grams of one jar of each size. */
export function netOfJars_g(made: Pick<Balance, 'jars'>): Map<JarContents['size'], number> {
  return new Map(made.jars.map(j => [j.size, massIn(j.each)]));
}

/**
 * How surely it is known what is in a vessel: as the least surely known of what is more than a trace in it. Water is
 * nobody's to weigh.
 */
export function knownOf(process: Pick<Process, 'lines'>, contents: Contents): Known {
  const all_g = massIn(contents);
  let worst = 0;
  for (const { line, known } of process.lines) {
    const parts = contents.get(line.id);
    if (!parts || line.role === 'water' || massOf(parts) < all_g * TRACE) continue;
    worst = Math.max(worst, KNOWN.indexOf(known));
  }
  return KNOWN[worst] as Known;
}

/** Less than so much of a mixture is a trace. */
const TRACE = 0.01;
