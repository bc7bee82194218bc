import { MM_PER_INCH, feetFromMetres } from '../measure/index.ts';
import { ALTITUDE_LIMIT_M } from './altitude-limit.ts';
import { authorityFault } from './authority.ts';
import { type JarSizeId, jarSize } from './jars.ts';
import { type MinutesByAltitude, type ProcessSource, processEntry } from './process-entry.ts';
import type { Recipe, SeaLevelTime } from './recipe.ts';

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

export interface ProcessRefusal {
  ok: false;
  what: string;
  why: string;
  next: string;
}
export type ProcessAnswer = { ok: true; time: ScheduledTime } | ProcessRefusal;

const refusal = (what: string, why: string, next: string): ProcessRefusal => ({ ok: false, what, why, next });

/**
 * Which processing time covers this recipe in this jar at this altitude, or why none does.
 * A jar smaller than every row takes the next size up; a larger one is refused. A recipe that its authority no longer
 * covers, and an own recipe, borrow no time, except a fruit spread of safely acid fruit that meets its standard of
 * identity (the published family time).
 */
export function processFor(recipe: Recipe, size: JarSizeId, altitude_m: number): ProcessAnswer {
  if (altitude_m < ALTITUDE_LIMIT_M.min || altitude_m > ALTITUDE_LIMIT_M.max) {
    return refusal(
      'No processing time at this altitude.',
      'The published tables end at 10,000 ft.',
      'Check the altitude of the kitchen, or ask a process authority.',
    );
  }
  const basis = processBasis(recipe);
  if (!basis.ok) return basis;
  return timeFrom(basis, size, altitude_m);
}

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
interface Basis {
  ok: true;
  method: ScheduledTime['method'];
  rows: Row[];
  pack: 'hot' | 'raw';
  headspace_mm: number;
  fill: ScheduledTime['fill'];
  source: ProcessSource;
}

function timeFrom(basis: Basis, size: JarSizeId, altitude_m: number): ProcessAnswer {
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

function processBasis(recipe: Recipe): Basis | ProcessRefusal {
  const fault = authorityFault(recipe);
  if (fault) return refusal(fault.what, fault.why, fault.next);
  const { authority } = recipe;
  if (authority.grade === 'letter') {
    const source: ProcessSource = {
      title: `${authority.demo ? 'DEMO, do not cook from this. ' : ''}Letter of ${authority.authority}`,
      edition: authority.issuedOn,
      part: `reference ${authority.reference}`,
      fromMemory: false,
    };
    const { process } = authority;
    const name = `letter ${authority.reference}`;
    if (process.kind === 'sea level') return seaLevelBasis(process, name, source);
    if (process.kind === 'hot-fill-hold') {
      const held = { minutes: process.hold_min, band: 'every altitude, by temperature' };
      return {
        ok: true,
        method: 'hot-fill-hold',
        rows: process.jarSizes.map(size => ({
          id: `${name}/${size}`,
          jarSize: size,
          at: () => held,
          seaLevel_min: process.hold_min,
        })),
        pack: 'hot',
        headspace_mm: process.headspace_mm,
        fill: { temp_C: process.temp_C, closure: process.closure },
        source,
      };
    }
    return {
      ok: true,
      method: 'boiling water',
      rows: process.minutes.map(m => banded(`${name}/${m.jarSize}`, m.jarSize, m.byAltitude)),
      pack: process.pack,
      headspace_mm: process.headspace_mm,
      fill: null,
      source,
    };
  }
  if (authority.grade === 'tested publication' && authority.time.kind === 'sea level') {
    const { title, edition, part, fromMemory } = authority;
    return seaLevelBasis(authority.time, title, { title, edition, part, fromMemory });
  }
  const entryId =
    authority.grade === 'tested publication' && authority.time.kind === 'entry'
      ? authority.time.entryId
      : authority.grade === 'own'
        ? (authority.entryId ?? '')
        : '';
  return entryBasis(entryId);
}

function entryBasis(entryId: string): Basis | ProcessRefusal {
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

function banded(id: string, size: JarSizeId, byAltitude: MinutesByAltitude): Row {
  return {
    id,
    jarSize: size,
    at: altitude_m => minutesAt(byAltitude, altitude_m),
    seaLevel_min: (byAltitude[0] as { minutes: number }).minutes,
  };
}

function seaLevelBasis(time: SeaLevelTime, name: string, source: ProcessSource): Basis {
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

/**
 * Minutes at an altitude where an authority gives only a sea-level time: the longer of two rules of the trade, and
 * which it was. One adds a minute for each started thousand feet (two where the time is over 20 minutes); the other
 * climbs the published bands, +5 above 1,000 ft, +10 above 3,000, +15 above 6,000. Common practice, from memory.
 */
export function fromSeaLevel(seaLevel_min: number, altitude_m: number): { minutes: number; rule: string } {
  const altitude_ft = feetFromMetres(altitude_m);
  const byThousand = Math.max(0, Math.ceil(altitude_ft / 1000)) * (seaLevel_min > 20 ? 2 : 1);
  const byBand = altitude_ft > 6000 ? 15 : altitude_ft > 3000 ? 10 : altitude_ft > 1000 ? 5 : 0;
  if (byThousand > byBand)
    return {
      minutes: seaLevel_min + byThousand,
      rule: `sea-level time, +${byThousand} by the rule of ${seaLevel_min > 20 ? 'two minutes' : 'one minute'} for each started 1,000 ft`,
    };
  return {
    minutes: seaLevel_min + byBand,
    rule:
      byBand === 0 ? 'sea-level time, up to 1,000 ft' : `sea-level time, +${byBand} by the ladder of bands`,
  };
}

/**
 * Minutes at an altitude. A band includes its top: 1,000 ft is the first band, 1,000.1 ft the second.
 *
 * @returns null when the bands have no open end and the altitude lies above them
 */
export function minutesAt(
  bands: MinutesByAltitude,
  altitude_m: number,
): { minutes: number; band: string } | null {
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
  return null;
}

/** Inches of water over the lids: 2 where the time is over 30 minutes, else 1. Common practice. */
export function waterCover_in(minutes: number): 1 | 2 {
  return minutes > 30 ? 2 : 1;
}

/** Longest time an atmospheric steam canner may run, after the altitude addition. Source: university research on steam canning; from memory. */
export const STEAM_LIMIT_MIN = 45;

/** Whether a time may be run in an atmospheric steam canner instead of boiling water; if not, why. */
export function steamFault(time: Pick<ScheduledTime, 'method' | 'minutes' | 'jarSize'>): string | null {
  if (time.method !== 'boiling water') return 'The letter sets a hot fill and hold, no canner.';
  const { pints } = jarSize(time.jarSize);
  if (pints.compare(jarSize('half-pint').pints) < 0 || pints.compare(jarSize('quart').pints) > 0)
    return 'Steam was tested from half-pints to quarts.';
  if (time.minutes > STEAM_LIMIT_MIN)
    return `${time.minutes} minutes is over the ${STEAM_LIMIT_MIN} that steam was tested for: the water would boil away.`;
  return null;
}

/** Minutes empty jars are boiled to be sterile: 10, and one more for each started 1,000 ft. Source: USDA Complete Guide (2015), guide 1; from memory. */
export function sterilise_min(altitude_m: number): number {
  const altitude_ft = feetFromMetres(altitude_m);
  return 10 + (altitude_ft > 1000 ? Math.ceil(altitude_ft / 1000) : 0);
}

/** A headspace in inches, for showing. */
export const headspaceInches = (headspace_mm: number): number => headspace_mm / MM_PER_INCH;
