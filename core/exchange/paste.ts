import type { Found, Ingredient, NameIndex } from '../ingredients/index.ts';
import {
  type AmountQuestion,
  type Fault,
  Fraction,
  amountText,
  readAmount,
  scanAmount,
} from '../measure/index.ts';
import { measureNamed, missingWeight, unknownIngredient, unknownMeasure } from './paste-faults.ts';
import { type Line, lineFrom } from '../recipes/index.ts';
import { BULLET, inParts, NUMBERED, type PastedStep, pastedStep } from './paste-steps.ts';

/** One pasted line that was read as an ingredient, to be confirmed. */
export interface PastedLine {
  /** Line of the pasted text, from 1. */
  number: number;
  text: string;
  line: Line;
  /** Words of the line that no reading took up; shown, and kept in the preparation. */
  unread: string;
  /** Two readings of the amount, to choose between. */
  ask: AmountQuestion | null;
  /** What the name could mean where it could be several things; empty where it is plain. */
  which: Ingredient[];
  /** What is still missing: an amount that could not be read, an ingredient that is not in the library. */
  faults: Fault[];
}

/** A pasted recipe, read line by line; what can mean two things waits for an answer. */
export interface Pasted {
  title: string;
  yieldText: string;
  lines: PastedLine[];
  steps: PastedStep[];
  /** Lines that were taken for neither. */
  unread: { number: number; text: string }[];
}

const SECTION_LINES =
  /^(?:(?:the\s+)?ingredients?|you(?:'ll| will)? need|what you need|shopping list)\b.{0,30}:?\s*$/i;
const SECTION_STEPS =
  /^(?:directions?|instructions?|method|steps?|procedure|preparation|how to (?:make|do) it|to make)\b[^\d.!]{0,20}:?\s*$/i;
const GROUP =
  /^(?:for (?:the|each)\b.{1,40}|(?:the\s+)?(?:brine|spices?|syrup|filling|vegetables?|fruit|each jar|per jar))\s*:?\s*$/i;
const YIELD = /^(?:yields?|makes?|servings?|serves)\b\s*:?\s*(.*)$/i;

/**
 * Reads a recipe that was copied as plain text: a title, its ingredients, its steps. Nothing is dropped: what could not
 * be read stands in `unread`, of a line or of the whole, for the person to settle.
 *
 * @param text  as pasted; any line ends
 * @param locale  the kitchen's, for figures
 * @param index  names of the kitchen's library
 * @param newId  makes the id of each line and step
 * @example
 * const index = nameIndex(libraryOf([]));
 * readPasted('Plum jam\n\n4 c sugar', 'en-US', index, () => 'id').title; // 'Plum jam'
 */
export function readPasted(text: string, locale: string, index: NameIndex, newId: () => string): Pasted {
  const out: Pasted = { title: '', yieldText: '', lines: [], steps: [], unread: [] };
  let section: 'start' | 'lines' | 'steps' = 'start';
  let group = '';
  const rows = text.split(/\r\n|\r|\n/);
  rows.forEach((raw, i) => {
    const number = i + 1;
    const row = raw.trim();
    if (row === '') return;
    if (SECTION_LINES.test(row)) {
      section = 'lines';
      group = '';
      return;
    }
    if (SECTION_STEPS.test(row)) {
      section = 'steps';
      return;
    }
    const yields = section === 'steps' ? null : YIELD.exec(row);
    if (yields && !/ingredient/i.test(row)) {
      out.yieldText = row;
      return;
    }
    if (section !== 'steps' && GROUP.test(row)) {
      section = 'lines';
      group = row.replace(/:\s*$/, '').toLowerCase();
      return;
    }
    if (section === 'steps') {
      for (const part of inParts(row)) out.steps.push(pastedStep(number, part, newId));
      return;
    }
    const unmarked = row.replace(BULLET, '');
    const unnumbered = unmarked.replace(NUMBERED, '');
    const numbered = unnumbered !== unmarked;
    if (numbered && !startsWithFigure(unnumbered)) {
      section = 'steps';
      for (const part of inParts(row)) out.steps.push(pastedStep(number, part, newId));
      return;
    }
    const bare = numbered ? unnumbered : unmarked;
    const read = pastedLine(number, bare, group, locale, index, newId);
    if (read && (section === 'lines' || read.faults.length === 0 || startsWithFigure(bare))) {
      if (
        section === 'start' &&
        out.title === '' &&
        read.line.amount.unit === 'each' &&
        // "7-day pickles", "Three berry jam": a number of nothing that is known.
        (looksLikeTitle(bare, rows, i) ||
          (i === 0 && rows.length > 1 && read.faults.some(f => f.path === 'ingredientId')))
      ) {
        out.title = row;
        return;
      }
      section = 'lines';
      out.lines.push(read);
      return;
    }
    if (section === 'start' && out.title === '') {
      out.title = row.replace(/^#+\s*/, '');
      return;
    }
    if (section === 'lines' && isSentence(row)) {
      section = 'steps';
      for (const part of inParts(row)) out.steps.push(pastedStep(number, part, newId));
      return;
    }
    if (section === 'lines') {
      const named = namedOnly(number, bare, group, index, newId);
      if (named) {
        out.lines.push(named);
        return;
      }
    }
    out.unread.push({ number, text: row });
  });
  return out;
}

const startsWithFigure = (row: string) => /^\s*(?:[\d¼½¾⅓⅔⅛⅜⅝⅞]|(?:an?|one|half|two|three)\b)/i.test(row);
/** A first line such as "Seven-day pickles" counts nothing; a title stands before the ingredients. */
const looksLikeTitle = (row: string, rows: string[], i: number) =>
  i === 0 && !startsWithFigure(row) && rows.length > 1;
/** A sentence tells what to do: it ends with a full stop, or is long and begins with a verb. */
const isSentence = (row: string) =>
  (/[.!]$/.test(row) && row.split(/\s+/).length > 3) ||
  /^(?:wash|combine|bring|add|stir|boil|simmer|pack|process|fill|pour|mix|heat|cook|remove|drain|soak|let|place|prepare|peel|chop|ladle|wipe|cover|measure|strain|cool|crush|skim)\b/i.test(
    row,
  );

const TASTE = /(?:,|\()?\s*(?:or\s+)?(?:more\s+)?\bto taste\b\)?/i;

/** Where people write the amount after the name: "Sugar (4 cups)", "plums, 4 lb, pitted", "Plums - 4 lb", "plums 4 lb". */
const AMOUNT_LAST = [
  /^([^\d(,:]+?)\s*\(([^()]*\d[^()]*)\)()\s*$/,
  /^([^\d,:(]+?)\s*[,:]\s*(\d[^,]*?)\s*(,.*)?$/,
  /^([^\d,:(]+?)\s+(?:[-–—]\s+)?(\d[^,]*?)\s*(,.*)?$/,
];
/** "1 can green chiles (4 oz)": what one package holds, said at the end. */
const PACKAGE_LAST =
  /^(\d+)\s+((?:cans?|tins?|jars?|boxes|box|packages?|pkgs?\.?)\s.+?)\s*\(([\d./ ]+(?:oz|g|lb)\.?)(?: each)?\)\s*$/i;

/** Such texts with the amount before the name; every other text as it is. */
function amountFirst(text: string, locale: string): string {
  const packed = PACKAGE_LAST.exec(text);
  if (packed) return `${packed[1]} (${packed[3]}) ${packed[2]}`;
  for (const pattern of AMOUNT_LAST) {
    const [, name = '', amount = '', rest = ''] = pattern.exec(text) ?? [];
    const read = name ? readAmount(amount, locale) : null;
    // A bare number after words may be anything: "Pectin no. 3".
    if (read?.ok && read.value.unit !== 'each') return `${amount} ${name}${rest}`;
  }
  return text;
}

function pastedLine(
  number: number,
  text: string,
  group: string,
  locale: string,
  index: NameIndex,
  newId: () => string,
): PastedLine | null {
  const named = text.replace(/^[\d\s/.,¼½¾⅓⅔⅛⅜⅝⅞-]+/, '');
  const hinted = index.find(named)?.ingredient ?? index.choices(named).find(i => i.liquid || i.dryPint);
  const scanned = scanAmount(amountFirst(text, locale), locale, {
    liquid: hinted?.liquid ?? false,
    dryPint: hinted?.dryPint ?? false,
  });
  if (!scanned) return null;
  if ('fault' in scanned) {
    const alone = namedOnly(number, text, group, index, newId);
    return alone ? { ...alone, faults: [scanned.fault] } : null;
  }
  const { value, rest, loose, ask } = scanned;
  // "3 (15 oz) cans", "sugar (about 2 lb)": an amount in brackets after the name says the same again.
  const again = /^\(([^)]*\d[^)]*)\)\s*/.exec(rest);
  const bare = (again ? rest.slice(again[0].length) : rest)
    .replace(/^of\s+/i, '')
    .replace(PER_SIZE, '')
    .replace(PER_JAR, '')
    .replace(/[\s,]+$/, '');
  const { name, preparation } = splitName(bare.replace(TASTE, ''));
  if (name === '') return null;
  // What stands after the name belongs to it where it says which: "peaches (white)", "peppers, hot".
  const full = bare.replace(TASTE, '');
  const which = index.choices(full);
  const found = which.length > 0 ? null : (index.find(full) ?? index.find(name));
  const words = [loose, preparation, again ? `(${again[1]})` : ''].filter(Boolean).join(', ');
  // "2 cinnamon sticks", "3 garlic cloves": the piece is named after the thing.
  const piece = value.unit === 'each' && /\b(stick|clove|head|stalk|ear)s?$/i.exec(name)?.[1]?.toLowerCase();
  const counted = piece && found?.ingredient.one_g[piece as 'stick'] ? (piece as 'stick') : null;
  const line = lineFrom(
    newId(),
    counted ? { ...value, unit: counted } : value,
    name.slice(0, 80),
    found?.ingredient ?? null,
    words.slice(0, 160),
  );
  placeBy(line, group, text);
  const unread = found && !found.exact ? leftOver(name, found) : '';
  const measure = line.amount.unit === 'each' ? measureNamed(name) : null;
  return {
    number,
    text,
    line,
    unread,
    ask,
    which,
    faults: measure
      ? [unknownMeasure(measure)]
      : found
        ? missingWeight(line)
        : which.length > 0
          ? []
          : [unknownIngredient(name)],
  };
}

/** An ingredient without any amount, "salt to taste". */
function namedOnly(
  number: number,
  text: string,
  group: string,
  index: NameIndex,
  newId: () => string,
): PastedLine | null {
  const { name, preparation } = splitName(text.replace(TASTE, ''));
  const which = index.choices(name);
  const found = index.find(name);
  if (!found && which.length === 0) return null;
  const amount = { text: '1', unit: 'each' as const, value: '1', upTo: null, toTaste: TASTE.test(text) };
  const line = lineFrom(newId(), amount, name.slice(0, 80), found?.ingredient ?? null, preparation);
  placeBy(line, group);
  return {
    number,
    text,
    line,
    unread: '',
    ask: null,
    which,
    faults: [
      {
        path: 'amount',
        code: 'no-amount',
        what: `"${text}" has no amount.`,
        why: 'Scaling, cost and label need one.',
        next: 'Type an amount, or a range for what is added to taste.',
      },
    ],
  };
}

function splitName(text: string): { name: string; preparation: string } {
  const tidy = text.replace(/\s+/g, ' ').trim();
  const bracket = /^([^,(]+?)\s*\(([^)]*)\)\s*,?\s*(.*)$/.exec(tidy);
  if (bracket)
    return {
      name: (bracket[1] as string).trim(),
      preparation: [bracket[2], bracket[3]].filter(Boolean).join(', '),
    };
  const comma = /,(?!\s*\d+\s*%)/.exec(tidy);
  const dash = / [–—-] /.exec(tidy);
  const cut = comma?.index ?? dash?.index ?? -1;
  if (cut < 0) return { name: tidy, preparation: '' };
  return { name: tidy.slice(0, cut).trim(), preparation: tidy.slice(cut).replace(/^[,\s–—-]+/, '') };
}

const PER_SIZE = /\b(?:per|for each|to each|in each|each)\s+(half[- ]pint|pint|quart)(?:\s+jars?)?\b/i;
const PER_JAR = /\b(?:per|for each|to each|in each|each)\s+jar\b/i;
/** Jars of a size against the pint, in which a line of each jar is stated. */
const PINTS = { 'half-pint': '1/2', pint: '1', quart: '2' };

/** A heading over some lines says where they go, and so may the line itself: "per quart", "in each jar". */
function placeBy(line: Line, group: string, said = ''): void {
  const text = `${group} ${line.preparation} ${said}`.toLowerCase();
  const size = PER_SIZE.exec(text)?.[1]?.replace(' ', '-') as keyof typeof PINTS | undefined;
  if (size) {
    const inPint = (value: string) => new Fraction(value).div(PINTS[size]).toFraction();
    line.where = 'each jar';
    line.amount = {
      ...line.amount,
      value: inPint(line.amount.value),
      upTo: line.amount.upTo === null ? null : inPint(line.amount.upTo),
      text:
        size === 'pint'
          ? line.amount.text
          : amountText(new Fraction(inPint(line.amount.value)), line.amount.unit),
    };
  } else if (PER_JAR.test(text)) line.where = 'each jar';
  else if (/brine/.test(group)) line.where = 'brine';
  else if (/spice bag|cheesecloth/.test(text)) {
    line.where = 'infused';
    line.keptShare = 0.05;
  }
}

/** Words of a name, as they were written, that were not understood. */
function leftOver(name: string, found: Found): string {
  const left = new Set(found.left);
  const bare = (word: string) =>
    word
      .toLowerCase()
      .normalize('NFD')
      .replaceAll(/[^a-z0-9]/g, '')
      .replace(/(?:es|s)$/, '');
  const stems = new Set([...left].map(bare));
  return name
    .split(/\s+/)
    .filter(w => stems.has(bare(w)))
    .join(' ');
}
