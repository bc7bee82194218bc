import { feetFromMetres } from '../measure/index.ts';
import { spreadIdentity } from './identity.ts';
import { type JarSizeId, jarSize } from './jars.ts';
import { type MinutesByAltitude, type ProcessSource, processEntry } from './process-data.ts';
import type { Recipe } from './recipe.ts';

/** The heat step for one jar size in one kitchen, with what it rests on. Stored whole in the batch that uses it. */
export interface ScheduledTime {
  rowId: string;
  jarSize: JarSizeId;
  minutes: number;
  seaLevel_min: number;
  altitude_m: number;
  /** The band used, "1,001 to 6,000 ft". */
  band: string;
  pack: 'hot' | 'raw';
  headspace_mm: number;
  /** A sea-level time under 10 minutes keeps sterile jars at every altitude. Source: USDA Complete Guide (2015), guide 1; from memory. */
  jars: 'sterile' | 'clean';
  /** Set when a smaller jar takes the time of the next size up. */
  borrowedFrom: JarSizeId | null;
  source: ProcessSource;
}

export type ProcessAnswer =
  { ok: true; time: ScheduledTime } | { ok: false; what: string; why: string; next: string };

/** Altitudes the tables are used for. */
export const ALTITUDE_LIMIT_M = { min: -100, max: 3048 } as const;

/**
 * Which processing time covers this recipe in this jar at this altitude, or why none does.
 * A jar smaller than every row takes the next size up; a larger one is refused. An own recipe borrows no time, except
 * a fruit spread of safely acid fruit that meets its standard of identity (the published family time).
 */
export function processFor(recipe: Recipe, size: JarSizeId, altitude_m: number): ProcessAnswer {
  if (altitude_m < ALTITUDE_LIMIT_M.min || altitude_m > ALTITUDE_LIMIT_M.max) {
    return {
      ok: false,
      what: 'No processing time at this altitude.',
      why: 'The published tables end at 10,000 ft.',
      next: 'Check the altitude of the kitchen, or ask a process authority.',
    };
  }
  const basis = processBasis(recipe);
  if (!basis.ok) return basis;
  const wanted = jarSize(size).pints;
  const rows = [...basis.rows].sort((a, b) => jarSize(a.jarSize).pints.compare(jarSize(b.jarSize).pints));
  const row = rows.find(r => jarSize(r.jarSize).pints.compare(wanted) >= 0);
  if (!row) {
    const largest = rows.at(-1);
    return {
      ok: false,
      what: `No processing time for ${jarSize(size).plural}.`,
      why: `${basis.source.title}, ${basis.source.part}, goes up to ${largest ? jarSize(largest.jarSize).plural : 'no jar'}; heat takes longer to reach the middle of a larger one, and nobody has tested how long.`,
      next: `Use ${largest ? jarSize(largest.jarSize).plural : 'another entry'} or smaller.`,
    };
  }
  const { minutes, band } = minutesAt(row.byAltitude, altitude_m);
  const seaLevel_min = (row.byAltitude[0] as { minutes: number }).minutes;
  return {
    ok: true,
    time: {
      rowId: row.id,
      jarSize: size,
      minutes,
      seaLevel_min,
      altitude_m,
      band,
      pack: basis.pack,
      headspace_mm: basis.headspace_mm,
      jars: seaLevel_min >= 10 ? 'clean' : 'sterile',
      borrowedFrom: row.jarSize === size ? null : row.jarSize,
      source: basis.source,
    },
  };
}

interface Basis {
  ok: true;
  rows: { id: string; jarSize: JarSizeId; byAltitude: MinutesByAltitude }[];
  pack: 'hot' | 'raw';
  headspace_mm: number;
  source: ProcessSource;
}

function processBasis(recipe: Recipe): Basis | Extract<ProcessAnswer, { ok: false }> {
  const { authority } = recipe;
  if (authority.grade === 'letter') {
    return {
      ok: true,
      rows: authority.minutes.map(m => ({ id: `letter ${authority.reference}/${m.jarSize}`, ...m })),
      pack: authority.pack,
      headspace_mm: authority.headspace_mm,
      source: {
        title: `${authority.demo ? 'DEMO, do not cook from this. ' : ''}Letter of ${authority.authority}`,
        edition: authority.issuedOn,
        part: `reference ${authority.reference}`,
        fromMemory: false,
      },
    };
  }
  if (authority.grade === 'published, untested') {
    return {
      ok: false,
      what: 'This recipe has no processing time.',
      why: `"${authority.title}" was published without a tested process, and pH alone does not give a heat step.`,
      next: 'Cook it as a trial, or have a process authority set its process.',
    };
  }
  const entry = authority.entryId === null ? undefined : processEntry(authority.entryId);
  if (authority.grade === 'own') {
    if (recipe.foodClass !== 'fruit spread' || entry?.family !== 'fruit spread') {
      return {
        ok: false,
        what: 'An own recipe has no processing time to borrow.',
        why: 'Acidity stops one hazard and heat another; nobody has tested the heat for this mixture.',
        next: 'Cook it as a trial and send it to a process authority, or follow a tested recipe unchanged.',
      };
    }
    const identity = spreadIdentity(recipe);
    if (!identity.meets) {
      return {
        ok: false,
        what: 'The published time for fruit spreads does not cover this recipe.',
        why: identity.why,
        next: identity.next,
      };
    }
  }
  if (!entry) {
    return {
      ok: false,
      what: 'The entry this recipe follows is not in the tables.',
      why: 'Its time cannot be looked up.',
      next: 'Choose a published entry, or add the letter.',
    };
  }
  return {
    ok: true,
    rows: entry.rows,
    pack: entry.pack,
    headspace_mm: entry.headspace_mm,
    source: entry.source,
  };
}

/**
 * Minutes at an altitude. A band includes its top: 1,000 ft is the first band, 1,000.1 ft the second.
 *
 * @throws RangeError when the bands have no open end and the altitude lies above them
 */
export function minutesAt(bands: MinutesByAltitude, altitude_m: number): { minutes: number; band: string } {
  const altitude_ft = feetFromMetres(altitude_m);
  const feet = new Intl.NumberFormat('en-US');
  let below = 0;
  for (const band of bands) {
    if (band.upTo_ft === null)
      return {
        minutes: band.minutes,
        band: below === 0 ? 'every altitude' : `above ${feet.format(below)} ft`,
      };
    if (altitude_ft <= band.upTo_ft) {
      return {
        minutes: band.minutes,
        band: `${feet.format(below === 0 ? 0 : below + 1)} to ${feet.format(band.upTo_ft)} ft`,
      };
    }
    below = band.upTo_ft;
  }
  throw new RangeError('minutesAt: the altitude lies above the last band');
}

/** Inches of water over the lids: 2 where the time is over 30 minutes, else 1. Common practice. */
export function waterCover_in(minutes: number): 1 | 2 {
  return minutes > 30 ? 2 : 1;
}
