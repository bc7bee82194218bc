import { fromSeaLevel, minutesAt, type MinutesByAltitude } from '../heat/index.ts';
import { jarSize, type JarSizeId } from '../jars/index.ts';
import { MM_PER_INCH } from '../measure/index.ts';
import type { SeaLevelTime } from './basis.ts';
import { processEntry } from './entries.ts';
import type { ProcessSource } from './entry.ts';

/** The heat step for one jar size in one kitchen, with what it rests on. Stored whole in the batch that uses it. */
export interface ScheduledTime {
  rowId: string;
  /** `hot-fill-hold` has no water: its minutes are the hold at or above the fill temperature. */
  method: 'boiling water' | 'hot-fill-hold';
  jarSize: JarSizeId;
  minutes: number;
  seaLevel_min: number;
  altitude_m: number;
  /** The band or rule used, "1,001 to 6,000 ft". */
  band: string;
  pack: 'hot' | 'raw';
  headspace_mm: number;
  /** A sea-level time under 10 minutes keeps sterile jars at every altitude. Source: USDA Complete Guide (2015), guide 1; from memory. */
  jars: 'sterile' | 'clean';
  /** Set when a smaller jar takes the time of the next size up. */
  borrowedFrom: JarSizeId | null;
  /** For hot-fill-hold: least temperature at filling, and the closure. */
  fill: { temp_C: number; closure: string } | null;
  source: ProcessSource;
}

/** Why there is no time, and what would bring one. */
export interface ProcessRefusal {
  ok: false;
  what: string;
  why: string;
  next: string;
}
/** A time, or why there is none. Never a guess between two. */
export type ProcessAnswer = { ok: true; time: ScheduledTime } | ProcessRefusal;

/** A refusal in its three sentences. */
export const refusal = (what: string, why: string, next: string): ProcessRefusal => ({
  ok: false,
  what,
  why,
  next,
});

/** The same for one published entry alone, as for another outlet of the pot. */
export function processByEntry(entryId: string, size: JarSizeId, altitude_m: number): ProcessAnswer {
  const basis = entryBasis(entryId);
  return basis.ok ? timeFrom(basis, size, altitude_m) : basis;
}

interface Row {
  id: string;
  jarSize: JarSizeId;
  /** Null above the last band. */
  at: (altitude_m: number) => { minutes: number; band: string } | null;
  seaLevel_min: number;
}
/** Rows of minutes by jar size, of whatever authority, to take a time from. */
export interface Basis {
  ok: true;
  method: ScheduledTime['method'];
  rows: Row[];
  pack: 'hot' | 'raw';
  headspace_mm: number;
  fill: ScheduledTime['fill'];
  source: ProcessSource;
}

/**
 * The time of a jar size at an altitude: from its own row, else from the next larger jar, whose heat takes longest
 * to arrive; never from a smaller one.
 */
export function timeFrom(basis: Basis, size: JarSizeId, altitude_m: number): ProcessAnswer {
  const wanted = jarSize(size).pints;
  const rows = [...basis.rows].sort((a, b) => jarSize(a.jarSize).pints.compare(jarSize(b.jarSize).pints));
  const row = rows.find(r => jarSize(r.jarSize).pints.compare(wanted) >= 0);
  if (!row) {
    const largest = rows.at(-1);
    return refusal(
      `No processing time for ${jarSize(size).plural}.`,
      `${basis.source.title}, ${basis.source.part}, goes up to ${largest ? jarSize(largest.jarSize).plural : 'no jar'}; heat takes longer to reach the middle of a larger one, and nobody has tested how long.`,
      `Use ${largest ? jarSize(largest.jarSize).plural : 'another entry'} or smaller.`,
    );
  }
  const found = row.at(altitude_m);
  if (!found)
    return refusal(
      'No processing time at this altitude.',
      `${basis.source.title}, ${basis.source.part}, ends below it.`,
      'Ask the process authority for this altitude.',
    );
  const { minutes, band } = found;
  return {
    ok: true,
    time: {
      rowId: row.id,
      method: basis.method,
      jarSize: size,
      minutes,
      seaLevel_min: row.seaLevel_min,
      altitude_m,
      band,
      pack: basis.pack,
      headspace_mm: basis.headspace_mm,
      jars: basis.method === 'hot-fill-hold' || row.seaLevel_min < 10 ? 'sterile' : 'clean',
      borrowedFrom: row.jarSize === size ? null : row.jarSize,
      fill: basis.fill,
      source: basis.source,
    },
  };
}

/** The rows of a published entry. */
export function entryBasis(entryId: string): Basis | ProcessRefusal {
  const entry = processEntry(entryId);
  if (!entry)
    return refusal(
      'The entry this recipe follows is not in the tables.',
      'Its time cannot be looked up.',
      'Choose a published entry, or add the letter.',
    );
  return {
    ok: true,
    method: 'boiling water',
    rows: entry.rows.map(r => banded(r.id, r.jarSize, r.byAltitude)),
    pack: entry.pack,
    headspace_mm: entry.headspace_mm,
    fill: null,
    source: entry.source,
  };
}

/** A row whose minutes go by altitude bands. */
export function banded(id: string, size: JarSizeId, byAltitude: MinutesByAltitude): Row {
  return {
    id,
    jarSize: size,
    at: altitude_m => minutesAt(byAltitude, altitude_m),
    seaLevel_min: (byAltitude[0] as { minutes: number }).minutes,
  };
}

/** Rows of sea-level times, with altitude added by the rules of the trade. */
export function seaLevelBasis(time: SeaLevelTime, name: string, source: ProcessSource): Basis {
  return {
    ok: true,
    method: 'boiling water',
    rows: time.minutes.map(m => ({
      id: `${name}/${m.jarSize}`,
      jarSize: m.jarSize,
      at: altitude_m => {
        const { minutes, rule } = fromSeaLevel(m.minutes, altitude_m);
        return { minutes, band: rule };
      },
      seaLevel_min: m.minutes,
    })),
    pack: time.pack,
    headspace_mm: time.headspace_mm,
    fill: null,
    source,
  };
}

/** Water over the lids in mm: 2 inches where the time is over 30 minutes, else 1. Common practice. */
export const waterCover_mm = (minutes: number): number => (minutes > 30 ? 2 : 1) * MM_PER_INCH;

/** How warm the water is when the jars go in, in °C, so that glass does not crack: by how they are packed. Common practice. */
export const START_WATER_C = { raw: 60, hot: 82 } as const;

/** A time stored before hot fills were known is one in boiling water. */
export function upgradeTime(stored: ScheduledTime): ScheduledTime {
  return (stored as Partial<ScheduledTime>).method === undefined
    ? { ...stored, method: 'boiling water', fill: null }
    : stored;
}
