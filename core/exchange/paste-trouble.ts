import { type Fault, numberText, PLAIN_FIGURES } from '../measure/index.ts';
import type { Pasted } from './paste.ts';

/** Rows that one recipe hardly has. Our bound, from no source. */
const MANY_ROWS = 150;

/**
 * What a text is where it is no recipe of this book, or where most of it could not be read: said at once, beside it.
 *
 * @returns null where it reads as a recipe, or where nothing stands there
 */
export function textTrouble(text: string, read: Pasted): Fault | null {
  const rows = text.split(/\r\n|\r|\n/).filter(r => r.trim() !== '');
  if (rows.length === 0) return null;
  const fault = (code: string, what: string, why: string, next: string): Fault => ({
    path: 'text',
    code,
    what,
    why,
    next,
  });
  if (/^\s*[[{][\s\S]*[\]}]\s*$/.test(text) && /"\w+"\s*:/.test(text))
    return fault(
      'is-a-file',
      'This is what stands in a file, not a recipe as one reads it.',
      'Its fields would be read as ingredients.',
      'Bring it in as a file, or paste the recipe as text.',
    );
  const strange = read.lines.filter(l => l.faults.some(f => f.code === 'unknown-ingredient')).length;
  if (read.lines.length >= 3 && strange / read.lines.length > 0.6)
    return fault(
      'unknown-words',
      `${strange} of ${read.lines.length} ingredients are in no list here.`,
      'The text may be in another language: names, units and steps are read in English only.',
      'Choose each ingredient beside its row, or paste it in English.',
    );
  if (read.lines.length === 0)
    return fault(
      'no-ingredients',
      rows.length === 1 ? 'No ingredient was read.' : `No ingredient was read in these ${rows.length} rows.`,
      'An ingredient is a row with its amount: "4 lb plums".',
      'Write the ingredients one to a row, then what is done.',
    );
  if (rows.length > MANY_ROWS)
    return fault(
      'many-rows',
      `${numberText(rows.length, PLAIN_FIGURES, 0)} rows are more than one recipe has.`,
      'Of several recipes in one text, one would be made.',
      'Leave the rows of one recipe, and take out the rest.',
    );
  if (read.facts.pressure !== null)
    return fault(
      'pressure',
      `Row ${read.facts.pressure} puts it into a pressure canner.`,
      'That is for low-acid food, which boiling water does not make safe; this book has no time for it.',
      'It can be cooked for the freezer or the table, or taken from an entry for boiling water.',
    );
  return null;
}
