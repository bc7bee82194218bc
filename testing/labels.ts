import {
  type EventBodies,
  LABEL_READS,
  type LabelContent,
  lotCodes,
  type LotPattern,
  type Stamp,
  USUAL_LOT_PATTERN,
} from '@cocotte/core/batches';
import { bodyOf, type JarSizeId } from '@cocotte/core/jars';
import { PLAIN_LABEL } from '@cocotte/core/kitchen';
import { LABEL_STOCKS, PLAIN_LOOK } from '@cocotte/core/labels';

/** A label of pickled beans that says all that is asked. */
export const SAMPLE_LABEL: LabelContent = {
  statementOfIdentity: 'Pickled wax beans',
  ingredients: 'wax beans, vinegar, water, salt, dill, garlic',
  emphasised: [],
  contains: '',
  shares: '',
  netContents: '16 fl oz (1 pt) 473 mL',
  net: { unit: 'mL', amount: 473 },
  maker: 'Test Kitchen',
  address: '1 Road, Town',
  registration: '',
  lotCode: 'DWB-26328-2K',
  madeOn: '2026-11-24',
  bestBy: '2027-11-24',
  readyFrom: '2026-12-15',
  directions: 'Refrigerate after opening.',
  keeping: '',
  statement: 'Made in a home kitchen that is not inspected.',
  words: '',
  nutrition: '',
  notForSale: false,
  locale: 'en-US',
  place: null,
  asks: PLAIN_LABEL,
};

/** What a kitchen prints labels on before anybody said otherwise. */
export const PLAIN_SETTINGS = {
  stocks: [],
  offset_mm: { x: 0, y: 0 },
  lots: USUAL_LOT_PATTERN,
  pagesAt: '',
};

/** A print on the first stock that ships, plainly. */
export const printed = (
  size: JarSizeId,
  label: LabelContent = SAMPLE_LABEL,
): Omit<EventBodies['labels.printed'], 'jars'> => ({
  size,
  design: 'one panel',
  stock: LABEL_STOCKS[0] as (typeof LABEL_STOCKS)[number],
  look: PLAIN_LOOK,
  container: bodyOf(size),
  codes: [{ kind: 'QR', says: label.lotCode }],
  start: 0,
  spares: 0,
  label,
  read: [...LABEL_READS],
});

/** A call that prints labels of jars, read against the batch. */
export const toPrint = (jars: number[], size: JarSizeId, stamp: Stamp) => ({
  jars,
  size,
  setupVersion: 0,
  start: 0,
  spares: 0,
  read: [...LABEL_READS],
  stamp,
});

/** The nth lot code of a product and a day, 1 for the first. */
export function nthLotCode(
  product: string,
  day: string,
  nth: number,
  pattern: LotPattern = USUAL_LOT_PATTERN,
): string {
  const codes = lotCodes(pattern, product, day);
  let code = codes.next().value;
  for (let n = 1; n < nth; n++) code = codes.next().value;
  return code;
}
