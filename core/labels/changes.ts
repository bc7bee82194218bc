import type { LabelContent } from '../batches/index.ts';
import { canonicalJson } from '../measure/index.ts';

/** Fields of a label by what they are called, in the order in which they stand. */
const NAMED: readonly (readonly [name: string, fields: readonly (keyof LabelContent)[]])[] = [
  ['the name', ['statementOfIdentity', 'notForSale']],
  ['the ingredients', ['ingredients']],
  ['the allergens', ['contains', 'emphasised']],
  ['the share of juice or fruit', ['shares']],
  ['the net contents', ['netContents']],
  ['the nutrition facts', ['nutrition']],
  ['the directions', ['directions', 'keeping']],
  ['the statement', ['statement']],
  ['your own words', ['words']],
  ['the maker', ['maker', 'address', 'registration']],
  ['the lot code', ['lotCode']],
  ['the dates', ['madeOn', 'bestBy', 'readyFrom']],
  ['the place', ['asks']],
];

/** What a label says otherwise than one that was printed: by name, with both texts where there are any. */
export function labelChanges(
  printed: LabelContent,
  now: LabelContent,
): { name: string; was: string; is: string }[] {
  return NAMED.flatMap(([name, fields]) => {
    // What was printed before places were kept with it says nothing of them.
    if (printed.place === null && fields.includes('asks')) return [];
    const other = fields.filter(f => canonicalJson(printed[f]) !== canonicalJson(now[f]));
    if (other.length === 0) return [];
    const text = (label: LabelContent) =>
      other.flatMap(f => (typeof label[f] === 'string' && label[f] !== '' ? [label[f]] : [])).join(', ');
    return [{ name, was: text(printed), is: text(now) }];
  });
}

/** Whether two labels say the same of what is read before printing: for jars of one lot, one size, the same words. */
export const sameLabel = (a: LabelContent, b: LabelContent): boolean => labelChanges(a, b).length === 0;
