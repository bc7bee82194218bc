import type { LineRole } from '../ingredients/index.ts';
import type { Balance, VesselId } from './made.ts';
import { type Contents, massIn, massOf } from './parts.ts';
import type { Process } from './process.ts';

/** What a flow is of, for its colour: what the line is for, or steam. */
export type FlowKind = 'produce' | 'water' | 'salt' | 'acid' | 'sweetener' | 'other';

/** A place that food comes from, stands in or goes to. */
export interface PlaceInPicture {
  id: string;
  /** Null for what comes in. */
  vessel: VesselId | null;
  /** Lines that come in together, in the order of their weight; empty for a vessel. */
  lineIds: string[];
  mass_g: number;
}

/** So much of a kind that goes from one place to another. */
export interface FlowInPicture {
  from: string;
  to: string;
  kind: FlowKind;
  mass_g: number;
}

/** A balance to look at: places in the order in which food comes to them, and what flows between. */
export interface BalancePicture {
  places: PlaceInPicture[];
  flows: FlowInPicture[];
}

const KIND: Partial<Record<LineRole, FlowKind>> = {
  fruit: 'produce',
  'low-acid produce': 'produce',
  water: 'water',
  salt: 'salt',
  acid: 'acid',
  sweetener: 'sweetener',
};

/** Lines that are less than this of everything, and go the same way, come in together. */
const SMALL = 0.03;
/** Flows of less than this of everything are no wider than a hair, and are left to the table. */
const HAIR = 0.0005;

/**
 * Draws a balance together: flows of all steps between two places as one for each kind; small lines that go the same way
 * as one place; a pot that a part is blended back into as a place of its own, so that nothing runs in a circle.
 *
 * @returns flows that together leave every place as they came to it, but for what is left out as a hair
 */
export function pictureOf(process: Pick<Process, 'lines'>, made: Pick<Balance, 'flows'>): BalancePicture {
  const roles = new Map(process.lines.map(l => [l.line.id, l.line.role]));
  const all_g = made.flows.reduce(
    (sum, f) => (f.from.startsWith('line:') ? sum + massIn(f.contents) : sum),
    0,
  );
  const sources = grouped(made, all_g);
  /** The place a vessel stands for now, and what is in it. */
  const now = new Map<VesselId, { id: string; contents: Map<string, number> }>();
  /** Places from which a part was taken that has not come back. */
  const upstream = new Map<VesselId, Set<string>>();
  const places = new Map<string, PlaceInPicture>();
  const flows = new Map<string, FlowInPicture>();
  const flow = (from: string, to: string, lineId: string, mass_g: number, steam: boolean) => {
    const kind = steam ? 'water' : (KIND[roles.get(lineId) ?? 'other'] ?? 'other');
    const key = `${from}\u0000${to}\u0000${kind}`;
    const there = flows.get(key);
    if (there) there.mass_g += mass_g;
    else flows.set(key, { from, to, kind, mass_g });
  };
  const placeOf = (vessel: VesselId) => {
    const there = now.get(vessel);
    if (there) return there;
    const fresh = { id: vessel as string, contents: new Map<string, number>() };
    now.set(vessel, fresh);
    return fresh;
  };
  let again = 0;
  for (const { from, to, contents } of made.flows) {
    let target = placeOf(to);
    const fromLine = from.startsWith('line:');
    const source = fromLine ? null : placeOf(from);
    // What comes back to a place it was taken from goes into a new one, with all that is left there.
    if (source && upstream.get(from)?.has(target.id)) {
      again += 1;
      const next = { id: `${to} ${again}`, contents: new Map<string, number>() };
      for (const [lineId, mass_g] of target.contents) {
        if (mass_g <= 0) continue;
        flow(target.id, next.id, lineId, mass_g, false);
        next.contents.set(lineId, mass_g);
      }
      now.set(to, next);
      target = next;
    }
    if (source) {
      const before = upstream.get(to) ?? new Set<string>();
      before.add(source.id);
      for (const id of upstream.get(from) ?? []) before.add(id);
      upstream.set(to, before);
    }
    for (const [lineId, parts] of contents) {
      const mass_g = massOf(parts);
      if (source) source.contents.set(lineId, (source.contents.get(lineId) ?? 0) - mass_g);
      target.contents.set(lineId, (target.contents.get(lineId) ?? 0) + mass_g);
      flow(
        fromLine ? (sources.get(lineId) as string) : (source as { id: string }).id,
        target.id,
        lineId,
        mass_g,
        to === 'steam',
      );
    }
  }
  const kept = [...flows.values()].filter(f => f.mass_g > all_g * HAIR);
  const lineIds = new Map<string, string[]>();
  for (const [lineId, id] of sources) lineIds.set(id, [...(lineIds.get(id) ?? []), lineId]);
  for (const { from, to } of kept)
    for (const id of [from, to])
      if (!places.has(id)) {
        const into = kept.filter(f => f.to === id).reduce((sum, f) => sum + f.mass_g, 0);
        const out = kept.filter(f => f.from === id).reduce((sum, f) => sum + f.mass_g, 0);
        places.set(id, {
          id,
          vessel: lineIds.has(id) ? null : (id.replace(/ \d+$/, '') as VesselId),
          lineIds: lineIds.get(id) ?? [],
          mass_g: Math.max(into, out),
        });
      }
  return { places: [...places.values()], flows: kept };
}

/** Where each line comes in: by itself, or with other small ones that go the same way. */
function grouped(made: Pick<Balance, 'flows'>, all_g: number): Map<string, string> {
  const mass = new Map<string, number>();
  const goes = new Map<string, Set<VesselId>>();
  for (const { from, to, contents } of made.flows) {
    if (!from.startsWith('line:')) continue;
    for (const [lineId, parts] of contents as Contents) {
      mass.set(lineId, (mass.get(lineId) ?? 0) + massOf(parts));
      if (to !== 'trimmings') goes.set(lineId, (goes.get(lineId) ?? new Set()).add(to));
    }
  }
  const byMass = [...mass].sort((a, b) => b[1] - a[1]);
  return new Map(
    byMass.map(([lineId, mass_g]) => [
      lineId,
      mass_g >= all_g * SMALL ? `in ${lineId}` : `small ${[...(goes.get(lineId) ?? [])].sort().join(' ')}`,
    ]),
  );
}
