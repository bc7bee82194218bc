import type { Found, Ingredient, NameIndex } from '../ingredients/index.ts';
import {
  type Amount,
  type AmountQuestion,
  type Fault,
  Fraction,
  amountText,
  readAmount,
  scanAmount,
  UNITS,
} from '../measure/index.ts';
import { measureNamed, missingWeight, unknownIngredient, unknownMeasure } from './paste-faults.ts';
import { type Line, lineFrom } from '../recipes/index.ts';

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
  /** What a line with a ratio is so much of: "juice", "pulp", or a line by its name; empty for none. */
  ratioOf: string;
  /** What is still missing: an amount that could not be read, an ingredient that is not in the library. */
  faults: Fault[];
}

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

const SAME_AGAIN =
  /^(\d[\d.,]*\s?(?:kg|g|ml|l|cl|dl|lit(?:er|re)s?|grams?))\s*(?:\/|\()\s*(?:\d[\d\s/.,½¼¾-]*\s?(?:lbs?|oz|pints?|fl\.? oz|cups?|quarts?)\.?\s*)+\)?\s+/i;

/** Such texts with the amount before the name; every other text as it is. */
function amountFirst(written: string, locale: string): string {
  // "1.5kg/3lb 5oz gooseberries", "1.5 kg (3 lb 5 oz) gooseberries": the same again in the other measures.
  const text = written.replace(SAME_AGAIN, '$1 ');
  const packed = PACKAGE_LAST.exec(text);
  if (packed) return `${packed[1]} (${packed[3]}) ${packed[2]}`;
  for (const pattern of AMOUNT_LAST) {
    const [, name = '', amount = '', rest = ''] = pattern.exec(text) ?? [];
    if (!name) continue;
    const jar = PER_SIZE.exec(amount)?.[0] ?? PER_JAR.exec(amount)?.[0] ?? '';
    const read = readAmount(amount.replace(jar, '').trim(), locale);
    // A bare number after words may be anything: "Pectin no. 3".
    if (read.ok && read.value.unit !== 'each')
      return `${amount.replace(jar, '').trim()} ${name} ${jar}${rest}`;
  }
  return text;
}

export function pastedLine(
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
  const { value, rest: after, loose, ask } = scanned;
  const ratio = ratioIn(after, locale);
  const rest = ratio ? after.replace(ratio.words, ' ').trim() : after;
  // "3 (15 oz) cans", "sugar (about 2 lb)": an amount in brackets after the name says the same again.
  const again = /^\(([^)]*\d[^)]*)\)\s*/.exec(rest);
  const bare = (again ? rest.slice(again[0].length) : rest)
    .replace(/^of\s+/i, '')
    .replace(PER_SIZE, '')
    .replace(PER_JAR, '')
    .replace(/[\s,]+$/, '');
  const { name, preparation } = splitName(bare.replace(TASTE, ''));
  if (name === '') return null;
  const { which, found } = whichOf(bare, name, text, value.unit, index);
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
  if (ratio) {
    line.ratio = { of: 'step', id: '', per: ratio.per };
    line.where = line.where === 'each jar' ? 'pot' : line.where;
  }
  const sized = packageAmount(line, again?.[1] ?? '', locale, found?.ingredient.liquid ?? false);
  line.amount = sized?.amount ?? line.amount;
  const unread =
    found && !found.exact ? leftOver(name, found) : (SECOND_FIGURE.exec(`${name} ${preparation}`)?.[0] ?? '');
  const measure = line.amount.unit === 'each' ? measureNamed(name) : null;
  return {
    number,
    text,
    line,
    unread,
    ratioOf: ratio?.of ?? '',
    ask: sized?.ask ?? ask,
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

/**
 * What a line is of. What stands after the name belongs to it where it says which: "peaches (white)", "peppers, hot"; so do
 * the words that the amount took: "12 whole cloves", "1 head dill", "3 sticks cinnamon".
 */
function whichOf(
  bare: string,
  name: string,
  text: string,
  unit: Amount['unit'],
  index: NameIndex,
): { which: Ingredient[]; found: Found | null } {
  const full = bare.replace(TASTE, '');
  const which = index.choices(full);
  const found = which.length > 0 ? null : (index.find(full) ?? index.find(name));
  const piece = UNITS[unit].dimension === 'count' && unit !== 'each' && unit !== 'package' ? unit : null;
  const whole = /^\s*[\d\s/¼½¾]*whole\b/i.test(text);
  if (!(which.length > 0 || (piece && found && found.ingredient.one_g[piece as 'stick'] === undefined)))
    return { which, found };
  for (const more of [whole ? `whole ${full}` : '', piece ? `${name} ${piece}` : '']) {
    const said = more === '' ? null : index.find(more);
    if (said?.exact) return { which: [], found: said };
  }
  return { which, found };
}

/** An ingredient without any amount, "salt to taste". */
export function namedOnly(
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
    ratioOf: '',
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

/**
 * "1 bottle (6 oz) liquid pectin": a package of another size than the usual one is so much of what is in it; null where the
 * usual one is meant.
 */
function packageAmount(
  { amount, each_g }: Line,
  stated: string,
  locale: string,
  liquid: boolean,
): { amount: Amount; ask: AmountQuestion | null } | null {
  if (amount.unit !== 'package' || stated === '') return null;
  const read = readAmount(stated.replace(/\s*(?:each|apiece)\s*$/i, ''), locale, { liquid });
  if (!read.ok || UNITS[read.value.unit].dimension === 'count') return null;
  const one_g = new Fraction(read.value.value).mul(UNITS[read.value.unit].factor).valueOf();
  if (each_g !== null && Math.abs(one_g / each_g - 1) < 0.06) return null;
  const times = (value: string) => new Fraction(value).mul(read.value.value);
  const inside = (unit: Amount['unit']): Amount => ({
    ...amount,
    text: amountText(times(amount.value), unit),
    unit,
    value: times(amount.value).toFraction(),
    upTo: amount.upTo === null ? null : times(amount.upTo).toFraction(),
  });
  return {
    amount: inside(read.value.unit),
    ask: read.ask && {
      ...read.ask,
      choices: read.ask.choices.map(c => ({ ...c, amount: inside(c.amount.unit) })),
    },
  };
}

/** A heading over some lines says where they go, and so may the line itself: "per quart", "in each jar". */
function placeBy(line: Line, group: string, said = ''): void {
  const text = `${group} ${line.preparation} ${said}`.toLowerCase();
  // "14 heads dill, 2 per jar": the second figure is that of a jar.
  const own =
    /(?:,|;|\()\s*(?:about )?(\d+(?:\/\d+)?|\d+ \d\/\d)\s*(?:per|in each|to each|for each|each)\s+(?:jar|pint|quart|half[- ]pint)/i.exec(
      said,
    )?.[1];
  if (own) {
    const value = own.split(' ').reduce((sum, part) => sum.add(part), new Fraction(0));
    line.amount = {
      ...line.amount,
      text: amountText(value, line.amount.unit),
      value: value.toFraction(),
      upTo: null,
    };
  }
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

/** "for each cup of juice", "to every pint of strained juice", "per cup of pulp": so much for each so much. */
const RATIO =
  /\b(?:for|to|per)\s+(?:each|every)?\s*((?:\d[\d\s/.,]*)?\s*(?:cups?|c\.?|pints?|quarts?|qts?|lit(?:er|re)s?|ml|lbs?|pounds?|kg|g)\b\.?)\s+(?:of\s+)?(?:the\s+)?((?:\w+\s+)?(?:juice|pulp|pur[ée]e|fruit|berries|liquid))\b/i;

/** A ratio that the words of a line say; null where they say none. */
function ratioIn(text: string, locale: string): { per: Amount; of: string; words: string } | null {
  const m = RATIO.exec(text);
  if (!m) return null;
  const amount = (m[1] as string).trim();
  const read = readAmount(/^\d/.test(amount) ? amount : `1 ${amount}`, locale);
  return read.ok
    ? {
        per: read.value,
        of: (m[2] as string).toLowerCase().replace(/^(?:strained|measured|the|prepared)\s+/, ''),
        words: m[0],
      }
    : null;
}

/** A second amount in what stands after the name, which no reading took up. */
const SECOND_FIGURE =
  /(?:^|[;,\s])\d[\d\s/.,½¼¾-]*(?:lbs?|pounds?|kg|g|oz|ounces|cups?|tbsp|tsp|quarts?|qts?|pints?|ml|heads?|cloves?)\b(?! (?:size|jar))[^,;]*/i;

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
