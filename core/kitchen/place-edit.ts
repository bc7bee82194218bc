import { canonicalJson } from '../measure/index.ts';
import type { Jurisdiction } from './jurisdiction.ts';
import { PLACE_POINTS, type PlacePoint } from './place-words.ts';

/** What of a place is ticked under each point. */
const saidUnder = (rules: Jurisdiction): Record<PlacePoint, unknown> => ({
  foods: [rules.foods, rules.phLimit],
  outlets: rules.outlets,
  ceiling: rules.ceiling,
  training: rules.training,
  registration: [rules.registration, rules.label.number, rules.label.maker],
  statement: [rules.statement, rules.label.statement_pt, rules.label.madeOn, rules.label.rules],
  water: null,
  insurance: null,
});

/** Points of which two versions of a place say something else: each is asked of the authority and ticked anew. */
export function changedPoints(before: Jurisdiction, now: Jurisdiction): PlacePoint[] {
  const [was, is] = [saidUnder(before), saidUnder(now)];
  return PLACE_POINTS.filter(p => canonicalJson(was[p]) !== canonicalJson(is[p]));
}

/** A place as its owner changed it: a version of its own after the one it was made from. */
export const editedPlace = (
  from: Jurisdiction,
  changes: Partial<Omit<Jurisdiction, 'id' | 'version' | 'edited'>>,
): Jurisdiction => ({ ...from, ...changes, version: from.version + 1, edited: true });
