import type { Balance, FlowKind, PlaceInPicture, Process, VesselId } from '@cocotte/core/balance';
import { jarCountText } from '@cocotte/core/jars';
import type { Kitchen } from '@cocotte/core/kitchen';
import { kitchenWeight, massText } from '@cocotte/core/measure';

/** What flows, in words. */
export const KIND_WORDS: Record<FlowKind, string> = {
  produce: 'fruit and produce',
  water: 'water',
  salt: 'salt',
  acid: 'acid',
  sweetener: 'sugar',
  other: 'spices and other',
};

const VESSEL_WORDS: Partial<Record<VesselId, string>> = {
  board: 'Prepared',
  soak: 'Soaked and drained',
  pot: 'In the pot',
  brine: 'Brine',
  'left over': 'Left over',
  'spare brine': 'Brine left over',
  trimmings: 'Trimmed away',
  drain: 'Poured away',
  cloth: 'Stays in the cloth',
  lifted: 'Lifted out',
  steam: 'Steam',
  wall: 'Sticks and foams',
  unaccounted: 'Not accounted for',
};

/** What a place is called. */
export function placeName(place: PlaceInPicture, process: Process, made: Pick<Balance, 'jars'>): string {
  if (place.vessel === null) {
    const names = place.lineIds.map(id => process.lines.find(l => l.line.id === id)?.line.name ?? '');
    return names.length > 2 ? `${names[0]} and ${names.length - 1} more` : names.join(', ');
  }
  if (place.vessel === 'jars') return made.jars.map(j => jarCountText(j.count, j.size)).join(', ') || 'Jars';
  if (place.vessel.startsWith('part:')) return place.vessel.slice('part:'.length);
  if (place.vessel.startsWith('outlet:')) {
    const id = place.vessel.slice('outlet:'.length);
    return process.recipe.outlets.find(o => o.id === id)?.name ?? 'Set aside';
  }
  // A pot that a part was put back into.
  return place.id === place.vessel ? (VESSEL_WORDS[place.vessel] ?? place.vessel) : 'Together again';
}

/** A weight in the kitchen's measures. */
export function weightIn(kitchen: Pick<Kitchen, 'measures' | 'locale'>, mass_g: number): string {
  return kitchen.measures === 'US' ? kitchenWeight(mass_g) : massText(mass_g, kitchen);
}
