import type { NameIndex } from '../ingredients/index.ts';
import { type AmountQuestion, type Fault, scanAmount } from '../measure/index.ts';
import { type Line, lineFrom, type Step, stepFrom, type StepKind } from '../recipes/index.ts';

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
  /** What is still missing: an amount that could not be read, an ingredient that is not in the library. */
  faults: Fault[];
}

/** A step as it was read from pasted text, with its number there. */
export interface PastedStep {
  number: number;
  text: string;
  step: Step;
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

const BULLET = /^\s*(?:[-*\u2022\u2013\u2014\u25a2\u25a1\u25e6\u00b7]|\[\s?\])\s+/;
const NUMBERED = /^\s*(?:step\s*)?\d{1,2}\s*[.):]\s+/i;
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
        looksLikeTitle(bare, rows, i)
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

function pastedLine(
  number: number,
  text: string,
  group: string,
  locale: string,
  index: NameIndex,
  newId: () => string,
): PastedLine | null {
  const hinted = index.find(text.replace(/^[\d\s/.,¼½¾⅓⅔⅛⅜⅝⅞-]+/, ''))?.ingredient;
  const scanned = scanAmount(text, locale, {
    liquid: hinted?.liquid ?? false,
    dryPint: hinted?.dryPint ?? false,
  });
  if (!scanned) return null;
  if ('fault' in scanned) {
    const named = namedOnly(number, text, group, index, newId);
    return named ? { ...named, faults: [scanned.fault] } : null;
  }
  const { value, rest, loose, ask } = scanned;
  // "3 (15 oz) cans", "sugar (about 2 lb)": an amount in brackets after the name says the same again.
  const again = /^\(([^)]*\d[^)]*)\)\s*/.exec(rest);
  const bare = (again ? rest.slice(again[0].length) : rest).replace(/^of\s+/i, '');
  const { name, preparation } = splitName(bare.replace(TASTE, ''));
  if (name === '') return null;
  const found = index.find(name) ?? index.find(bare);
  const words = [loose, preparation, again ? `(${again[1]})` : ''].filter(Boolean).join(', ');
  const line = lineFrom(newId(), value, name.slice(0, 80), found?.ingredient ?? null, words.slice(0, 160));
  placeBy(line, group);
  return {
    number,
    text,
    line,
    unread: found && !found.exact ? leftOver(name, found.ingredient.name, found.ingredient.aliases) : '',
    ask,
    faults: found ? missingWeight(line) : [unknownIngredient(name)],
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
  const found = index.find(name);
  if (!found) return null;
  const amount = { text: '1', unit: 'each' as const, value: '1', upTo: null, toTaste: TASTE.test(text) };
  const line = lineFrom(newId(), amount, name.slice(0, 80), found.ingredient, preparation);
  placeBy(line, group);
  return {
    number,
    text,
    line,
    unread: '',
    ask: null,
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

/** A heading over some lines says where they go. */
function placeBy(line: Line, group: string): void {
  const text = `${group} ${line.preparation}`.toLowerCase();
  if (/each jar|per jar/.test(text)) line.where = 'each jar';
  else if (/brine/.test(group)) line.where = 'brine';
  else if (/spice bag|cheesecloth/.test(text)) {
    line.where = 'infused';
    line.keptShare = 0.05;
  }
}

function missingWeight(line: Line): Fault[] {
  const unit = line.amount.unit;
  const counted = line.each_g === null && COUNTS.has(unit);
  const poured = line.density_gPerMl === null && VOLUMES.has(unit);
  if (!counted && !poured) return [];
  return [
    {
      path: counted ? 'each_g' : 'density_gPerMl',
      code: counted ? 'weight-of-one-missing' : 'density-missing',
      what: counted
        ? `What one ${line.name} weighs is not known.`
        : `What a cup of ${line.name} weighs is not known.`,
      why: 'Weight, cost and label follow from it.',
      next: counted ? 'Weigh one and enter its grams.' : 'Weigh one cup and enter its grams.',
    },
  ];
}
const COUNTS = new Set([
  'each',
  'small',
  'large',
  'clove',
  'head',
  'stalk',
  'sprig',
  'leaf',
  'stick',
  'bunch',
  'slice',
  'ear',
  'package',
]);
const VOLUMES = new Set([
  'tsp',
  'tbsp',
  'cup',
  'floz',
  'pint',
  'quart',
  'gallon',
  'mL',
  'L',
  'dash',
  'pinch',
  'drop',
  'dry pint',
  'dry quart',
]);

function unknownIngredient(name: string): Fault {
  return {
    path: 'ingredientId',
    code: 'unknown-ingredient',
    what: `"${name}" is not in the library.`,
    why: 'Its weight, its acidity and its allergens are not known.',
    next: 'Choose the ingredient it is, or enter its role and weight by hand.',
  };
}

/** Words of a name that the ingredient found does not account for. */
function leftOver(name: string, ...known: [string, string[]]): string {
  const said = new Set([known[0], ...known[1]].flatMap(k => k.toLowerCase().split(/[^a-z0-9%]+/)));
  const stem = (w: string) => w.replace(/(?:es|s)$/, '');
  const stems = new Set([...said].map(stem));
  return name
    .split(/\s+/)
    .filter(w => !stems.has(stem(w.toLowerCase().replaceAll(/[^a-z0-9%]/g, ''))))
    .join(' ');
}

const STEP_LENGTH = 600;
/** A step longer than a step may be is cut between sentences. */
function inParts(row: string): string[] {
  if (row.length <= STEP_LENGTH) return [row];
  const parts = [''];
  for (const sentence of row.split(/(?<=[.!;])\s+/).flatMap(s => s.match(/.{1,600}/gs) ?? [])) {
    const last = parts.at(-1) as string;
    if (`${last} ${sentence}`.length > STEP_LENGTH) parts.push(sentence);
    else parts[parts.length - 1] = `${last} ${sentence}`.trim();
  }
  return parts;
}

const KINDS: [RegExp, StepKind][] = [
  [/\bprocess\b|water[- ]bath|canner|boiling water for \d+/i, 'process'],
  [/\b(?:fill|ladle|pack)\b.*\bjars?\b|\binto (?:hot |sterile |clean |sterilized )?jars\b/i, 'fill'],
  [/\b(?:strain|drip|jelly bag|through (?:a )?(?:cheese)?cloth)\b/i, 'strain'],
  [/\bovernight\b|\blet (?:it )?(?:stand|sit|rest)\b|\bmacerate\b/i, 'rest'],
  [/\bsoak\b|\bcover with (?:cold |ice )?(?:salt|water|brine)/i, 'soak'],
  [/\bcool\b(?! water).*\b(?:hours?|h|overnight)\b|\blet (?:jars )?cool\b/i, 'cool'],
  [/\bmeasure (?:the )?(?:juice|pulp)\b/i, 'measure'],
  [/\b(?:boil|simmer|cook|heat|reduce|gel)\b/i, 'cook'],
];

function pastedStep(number: number, row: string, newId: () => string): PastedStep {
  const text = row.replace(BULLET, '').replace(NUMBERED, '').slice(0, STEP_LENGTH);
  const kind = KINDS.find(([pattern]) => pattern.test(text))?.[1] ?? 'prepare';
  const step = stepFrom(newId(), kind, text);
  const wait = /(\d+)\s*(?:to|-|–)\s*(\d+)\s*(hours?|hrs?|h|minutes?|min)\b/i.exec(text);
  const held = /(\d+(?:\.\d+)?)\s*(hours?|hrs?|h|minutes?|min)\b/i.exec(text);
  const minutes = (n: string, unit: string) => Number(n) * (/^h/i.test(unit) ? 60 : 1);
  if ((kind === 'soak' || kind === 'rest' || kind === 'cool') && wait)
    step.window = {
      from_min: minutes(wait[1] as string, wait[3] as string),
      to_min: minutes(wait[2] as string, wait[3] as string),
    };
  else if ((kind === 'soak' || kind === 'rest' || kind === 'cool') && held)
    step.window = {
      from_min: minutes(held[1] as string, held[2] as string),
      to_min: minutes(held[1] as string, held[2] as string) * 1.5,
    };
  else if (kind === 'cook' && /\bgel(?:l?ing)? point\b|sheets? (?:off|from)/i.test(text))
    step.target = { kind: 'gel point' };
  else if (kind === 'cook' && held)
    step.target = { kind: 'time', minutes: minutes(held[1] as string, held[2] as string) };
  return { number, text: row, step };
}
