import { Decimal } from '../measure/index.ts';
import type { PlaceLabel } from '../kitchen/index.ts';
import type { NetContents } from '../recipes/index.ts';
import { GRAMS_PER_OUNCE, ML_PER_FLUID_OUNCE } from './factors.ts';

/** How net contents are written: ounces, pounds and ounces from a pound on, both; or the metric figure first. */
export const NET_FORMS = ['ounces', 'pounds and ounces', 'both', 'metric first'] as const;
/** One of them. */
export type NetForm = (typeof NET_FORMS)[number];

/** What is declared, in its metric unit, never more than it is: rounded down. */
export function netAmount(net: NetContents): { unit: 'g' | 'mL'; amount: number } {
  return net.kind === 'weight'
    ? { unit: 'g', amount: new Decimal(net.oz).times(GRAMS_PER_OUNCE).floor().toNumber() }
    : { unit: 'mL', amount: new Decimal(net.floz).times(ML_PER_FLUID_OUNCE).floor().toNumber() };
}

/**
 * Net contents as a label says them, rounded down so that neither system overstates.
 *
 * Source: NIST Handbook 130, packaging and labeling; 21 CFR 101.7; Directive 76/211/EEC (all from memory).
 */
export function netContentsText(
  net: NetContents,
  form: NetForm = 'both',
  rules: PlaceLabel['rules'] = 'US',
): string {
  const { unit, amount } = netAmount(net);
  if (rules === 'EU') return `${amount} ${unit === 'mL' ? 'ml' : 'g'}`;
  const metric = `${amount} ${unit}`;
  const common = commonText(net, form);
  const lead = net.kind === 'weight' ? 'Net Wt ' : '';
  return form === 'metric first'
    ? `${lead}${metric} (${common})`
    : `${lead}${common} ${form === 'both' ? metric : `(${metric})`}`;
}

function commonText(net: NetContents, form: NetForm): string {
  if (net.kind === 'volume') {
    const named: Record<number, string> = { 8: '1/2 pt', 16: '1 pt', 32: '1 qt', 64: '1/2 gal' };
    const name = named[net.floz];
    if (name === undefined || form === 'ounces' || form === 'metric first') return `${net.floz} fl oz`;
    return form === 'both' ? `${net.floz} fl oz (${name})` : name;
  }
  if (net.oz < 16 || form === 'ounces' || form === 'metric first') return `${net.oz} oz`;
  const lb = Math.floor(net.oz / 16);
  const rest = new Decimal(net.oz).minus(lb * 16);
  const pounds = rest.isZero() ? `${lb} lb` : `${lb} lb ${rest.toFixed()} oz`;
  return form === 'both' ? `${net.oz} oz (${pounds})` : pounds;
}
