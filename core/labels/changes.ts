import type { BatchState, LabelContent } from '../batches/index.ts';
import type { JarSizeId } from '../jars/index.ts';
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

/** Whether two labels of a batch say the same of what is read before printing: but for the code, which leads back to it. */
export const sameLabel = (a: LabelContent, b: LabelContent): boolean =>
  labelChanges({ ...a, lotCode: b.lotCode }, b).length === 0;

/** A print whose labels are on jars that are still for sale, and say something else than they would today. */
export interface OutOfDate {
  printId: string;
  lotCode: string;
  jars: number[];
  changes: { name: string; was: string; is: string }[];
}

/**
 * Prints of a batch that are out of date, the newest first: of each jar its last label counts.
 *
 * @param released  jars that are for sale
 * @param now  what the label of jars would say today; null where it cannot be made
 */
export function outOfDatePrints(
  state: Pick<BatchState, 'labels'>,
  released: readonly number[],
  now: (size: JarSizeId, jars: readonly number[]) => LabelContent | null,
): OutOfDate[] {
  const seen = new Set<number>();
  return state.labels.toReversed().flatMap(print => {
    const jars = print.jars.filter(n => released.includes(n) && !seen.has(n));
    print.jars.forEach(n => seen.add(n));
    const today = jars.length > 0 ? now(print.size, jars) : null;
    const changes = today ? labelChanges(print.label, today) : [];
    return changes.length === 0
      ? []
      : [{ printId: print.eventId, lotCode: print.label.lotCode, jars, changes }];
  });
}
