import type { LabelContent } from '../../batches/index.ts';
import type { Day } from '../../measure/index.ts';
import { setText, type Span } from '../../typeset/index.ts';

/** What stands on a label, by itself. */
export type LabelField =
  | 'identity'
  | 'notForSale'
  | 'ingredients'
  | 'contains'
  | 'shares'
  | 'nutrition'
  | 'directions'
  | 'keeping'
  | 'statement'
  | 'words'
  | 'maker'
  | 'lot'
  | 'net';

/** A blank at which no line ends. */
const NO_BREAK = '\u00A0';
/** A quantity stays with its unit: lines end before figures and brackets only. */
const unbrokenNet = (text: string) => text.replaceAll(/ (?![(\d])/g, NO_BREAK);

/** A sentence ends with its stop. */
const stopped = (text: string) => (/[.!?]$/.test(text) ? text : `${text}.`);

/** Spans of a text in which some words are bold: allergens, where the place wants them to stand out. */
function emphasised(text: string, bold: readonly string[]): Span[] {
  if (bold.length === 0) return [{ text, face: 'plain' }];
  const found = new RegExp(
    `(${bold.map(w => w.replaceAll(/[.*+?^${}()|[\]\\]/g, String.raw`\$&`)).join('|')})`,
    'giu',
  );
  return text
    .split(found)
    .filter(part => part !== '')
    .map(part => ({
      text: part,
      face: bold.some(w => w.toLowerCase() === part.toLowerCase()) ? ('bold' as const) : ('plain' as const),
    }));
}

/**
 * The words of each field of a label, as they are set; what is empty is left out.
 *
 * @param day  a day in the words of the label's place
 */
export function labelFields(label: LabelContent, day: (day: Day) => string): Map<LabelField, Span[]> {
  const fields = new Map<LabelField, Span[]>();
  const whole = (of: Day) => day(of).replaceAll(' ', NO_BREAK);
  const put = (field: LabelField, spans: Span[]) => {
    const set = spans.map(s => ({ ...s, text: s.text.normalize('NFC') }));
    if (set.some(s => setText(s.text) !== '')) fields.set(field, set);
  };
  const one = (field: LabelField, text: string, face: Span['face'] = 'plain') =>
    text !== '' && put(field, [{ text, face }]);
  const metric = label.asks.rules === 'EU';
  one('identity', label.statementOfIdentity, 'heading');
  one('notForSale', label.notForSale ? 'Not for sale' : '', 'bold');
  if (label.ingredients !== '')
    put('ingredients', emphasised(`Ingredients: ${stopped(label.ingredients)}`, label.emphasised));
  one('contains', label.contains === '' ? '' : `Contains: ${stopped(label.contains)}`, 'bold');
  one('shares', label.shares);
  one('nutrition', label.nutrition);
  one('directions', label.directions);
  one('keeping', label.keeping);
  one('statement', label.statement);
  one('words', label.words);
  const from = [label.maker, label.address, label.registration].filter(t => t !== '').join(', ');
  one('maker', from);
  put('lot', [
    { text: `${metric ? 'L' : 'Lot '}${label.lotCode}`, face: 'bold' },
    {
      text: [
        ' ',
        `Made ${whole(label.madeOn)}`,
        ` · ${metric ? 'Best before' : 'Best by'} ${whole(label.bestBy)}`,
        label.readyFrom === null ? '' : ` · Best from ${whole(label.readyFrom)}`,
      ].join(''),
      face: 'plain',
    },
  ]);
  one('net', unbrokenNet(label.netContents), 'bold');
  return fields;
}
