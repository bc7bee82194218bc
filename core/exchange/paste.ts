import type { NameIndex } from '../ingredients/index.ts';
import { factsOfText, productNamed, type TextFacts } from './paste-facts.ts';
import { namedOnly, type PastedLine, pastedLine } from './paste-lines.ts';
import { rowsOf } from './paste-rows.ts';
import { BULLET, NUMBERED, type PastedStep, pastedSteps } from './paste-steps.ts';

/** What a row of a pasted text was taken for. */
export type RowKind = 'title' | 'yield' | 'heading' | 'line' | 'step' | 'unread';

/** A pasted recipe, read row by row; what can mean two things waits for an answer. */
export interface Pasted {
  title: string;
  yieldText: string;
  lines: PastedLine[];
  steps: PastedStep[];
  /** What it says of the whole. */
  facts: TextFacts;
  /** Rows that were taken for neither. */
  unread: { number: number; text: string }[];
  /** What each row that says something was taken for, by its number. */
  rows: ReadonlyMap<number, RowKind>;
}

const SECTION_LINES =
  /^(?:(?:the\s+)?ingredients?|you(?:'ll| will)? need|what you need|shopping list)\b.{0,30}:?\s*$/i;
const SECTION_STEPS =
  /^(?:directions?|instructions?|method|steps?|procedure|preparation|how to (?:make|do) it|to make)\b[^\d.!]{0,20}:?\s*$/i;
const GROUP =
  /^(?:for (?:the|each)\b.{1,40}|(?:the\s+)?(?:brine|spices?|syrup|filling|vegetables?|fruit|each jar|per jar|in each jar|for each jar))\s*:?\s*$/i;
const YIELD = /^(?:yields?|makes?|servings?|serves|quantity)\b\s*:?\s*(.*)$/i;
/** Rows about the text itself. */
const ABOUT =
  /^(?:(?:prep|cook|total|active|ready|processing)(?:aration|ing)? time|source|from the kitchen|author|by|note|notes|tip|tips|tags?|category|course|difficulty|servings?|rating|printed|www\.|https?:)\b/i;

/**
 * Reads a recipe that was copied as plain text: a title, its ingredients, its steps, and what it says of the whole. Nothing
 * is dropped: what could not be read stands in `unread`, of a line or of the whole, for the person to settle.
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
  let title = '';
  let yieldText = '';
  const lines: PastedLine[] = [];
  const steps: PastedStep[] = [];
  const stepRows: { number: number; text: string }[] = [];
  const unread: Pasted['unread'] = [];
  const kinds = new Map<number, RowKind>();
  let section: 'start' | 'lines' | 'steps' = 'start';
  let group = '';
  const rows = rowsOf(text);
  const asStep = (number: number, row: string) => {
    section = 'steps';
    kinds.set(number, 'step');
    stepRows.push({ number, text: row });
    steps.push(...pastedSteps(number, row, newId));
  };
  const asLine = (line: PastedLine) => {
    section = 'lines';
    kinds.set(line.number, 'line');
    lines.push(line);
  };
  const asTitle = (number: number, row: string) => {
    kinds.set(number, 'title');
    title = row.replace(AFTER_TITLE, '').trim();
  };
  rows.forEach(({ number, text: row }, i) => {
    if (row === '') return;
    if (SECTION_LINES.test(row)) {
      section = 'lines';
      group = '';
      kinds.set(number, 'heading');
      return;
    }
    if (SECTION_STEPS.test(row)) {
      section = 'steps';
      kinds.set(number, 'heading');
      return;
    }
    if (YIELD.test(row) && !/ingredient/i.test(row) && row.length < 60) {
      yieldText = row;
      kinds.set(number, 'yield');
      return;
    }
    if (section !== 'steps' && GROUP.test(row)) {
      section = 'lines';
      group = row.replace(/:\s*$/, '').toLowerCase();
      kinds.set(number, 'heading');
      return;
    }
    const notRead = () => {
      unread.push({ number, text: row });
      kinds.set(number, 'unread');
    };
    if (title !== '' && ABOUT.test(row)) return notRead();
    if (section === 'steps') return asStep(number, row);
    const unmarked = row.replace(BULLET, '');
    const unnumbered = unmarked.replace(NUMBERED, '');
    const numbered = unnumbered !== unmarked;
    if (numbered && !startsWithFigure(unnumbered)) return asStep(number, row);
    const labelled = numbered ? unnumbered : unmarked;
    const bare = labelled.replace(LABEL, '');
    // A long sentence of what is done holds figures too.
    const sentence = isSentence(row) && !startsWithFigure(bare);
    const read = sentence && row.length > 60 ? null : pastedLine(number, bare, group, locale, index, newId);
    if (read && (section === 'lines' || read.faults.length === 0 || startsWithFigure(bare))) {
      if (
        section === 'start' &&
        title === '' &&
        i === 0 &&
        rows.length > 1 &&
        // "Apple pie filling (7 quarts)" is no apples; "7-day pickles", "Three berry jam" count nothing that is known.
        ((!startsWithFigure(bare) && (productNamed(bare) !== null || read.line.amount.unit === 'each')) ||
          (read.line.amount.unit === 'each' && read.faults.some(f => f.path === 'ingredientId')))
      )
        return asTitle(number, row);
      return asLine({ ...read, text: labelled });
    }
    if (section === 'start' && title === '') return asTitle(number, row);
    // A name that stands below its table.
    if (title === '' && productNamed(row) !== null && row.length < 80 && !isSentence(row))
      return asTitle(number, row);
    if (section === 'lines' && isSentence(row)) return asStep(number, row);
    if (section === 'lines') {
      const named = namedOnly(number, bare, group, index, newId);
      if (named) return asLine(named);
    }
    notRead();
  });
  const said = rows.filter(r => r.text !== '');
  return {
    title,
    yieldText,
    lines,
    steps,
    facts: factsOfText(title, said, stepRows, lines),
    unread,
    rows: kinds,
  };
}

/** "Acid: 2 Tbsp bottled lemon juice": a word before the amount that only sorts. */
const LABEL =
  /^(?:acid|fruit|sweetener|sugar|spices?|liquid|salt|brine|vegetables?|optional)\s*:\s+(?=[\d¼½¾⅓⅔⅛])(?=.*[a-z].*\s[a-z])/i;

/** What a title carries along: how much it makes, a colon. */
const AFTER_TITLE =
  /(?:\s*(?:[|,:]+|[-–—]{1,3})\s*(?:(?:(?:about )?\d+ )?(?:half[- ]?pints?|pints?|quarts?)\b.*)?(?:\b(?:makes|yields?)\b.*)?)$/i;
const startsWithFigure = (row: string) => /^\s*(?:[\d¼½¾⅓⅔⅛⅜⅝⅞]|(?:an?|one|half|two|three|six)\b)/i.test(row);
/** A sentence tells what to do: it ends with a full stop, or is long and begins with a verb. */
const isSentence = (row: string) =>
  (/[.!]$/.test(row) && row.split(/\s+/).length > 3) ||
  (row.length > 60 && (row.match(/[;.] /g)?.length ?? 0) > 1) ||
  /^(?:wash|combine|bring|add|stir|boil|simmer|pack|process|fill|pour|mix|heat|cook|remove|drain|soak|let|place|prepare|peel|chop|ladle|wipe|cover|measure|strain|cool|crush|skim|trim|cut|halve|slice|put|layer|work|sort|rinse|core|blanch|press|return|tie|mash|leave|shred|grate|dissolve|warm|quarter|set|sprinkle|saut[ée]|saute|use|make|divide|dip|grind|whisk|blend|scald|hull|pit|stem|discard|test|transfer|turn|reduce|keep|store|once|when|after|next|then|meanwhile|repeat|squeeze|beat|fold|spoon|tie|allow|line|spread|check|hold|skim|warm|toss|roast|arrange|return)\b(?!ed)/i.test(
    row,
  );
