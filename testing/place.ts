import {
  type Jurisdiction,
  JURISDICTIONS,
  type JurisdictionProfile,
  noPlace,
  pointsOf,
} from '@cocotte/core/kitchen';

/** A kitchen that sells under the neutral sample, every point of it ticked. */
export function samplePlace(over: Partial<JurisdictionProfile> = {}): JurisdictionProfile {
  const rules = JURISDICTIONS.find(j => j.id === 'sample') as Jurisdiction;
  return {
    ...noPlace(),
    name: rules.name,
    statement: rules.statement,
    source: rules.source,
    confirmedOn: '2026-03-01',
    rules,
    points: pointsOf(rules).map(point => ({ point, tickedOn: '2026-03-01', renewsOn: null })),
    ...over,
  };
}
