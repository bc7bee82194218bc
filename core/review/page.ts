import { jarSize } from '../jars/index.ts';
import {
  type Day,
  dayText,
  fahrenheit,
  type Figures,
  Fraction,
  type Habits,
  MM_PER_INCH,
  numberText,
  PLAIN_FIGURES,
  readAmount,
  UNITS,
} from '../measure/index.ts';
import type { Authority, Recipe } from '../recipes/index.ts';
import { type ProcessEntry, processEntry, timeFrom, type ScheduledTime } from '../times/index.ts';
import { fittingCover } from './cover/index.ts';
import { limitedLines } from './letter.ts';
import { processBasis } from './process-for.ts';

/** One figure that is read off the open page and held against what the program has of it. */
export interface PageFigure {
  /** What it is a figure of: `minutes:<row>`, `headspace`, `acid:<what>`. */
  key: string;
  label: string;
  unit: string;
  value: number;
  /** Words the page says instead of a figure: they are there or not, and its value is 1. */
  words: string | null;
}

/** A page that its owner opens: what it is called, and the figures that count here. */
export interface Page {
  /** What is confirmed: an entry of the tables, a publication of its own, a letter. */
  subject: string;
  title: string;
  edition: string;
  part: string;
  figures: PageFigure[];
  /** Whoever confirms it has the paper itself here: a letter is no book that others have too. */
  asksPaper: boolean;
}

/** A page as somebody confirmed it: who, when, from which copy, and what was typed. */
export interface Confirmation {
  id: string;
  subject: string;
  title: string;
  edition: string;
  page: string;
  figures: { key: string; value: number }[];
  /** Papers that lay beside it: pictures of the page, the letter itself. */
  papers: string[];
  /** Confirmed for the made-up kitchen: no page was open. */
  demo: boolean;
  personId: string;
  confirmedAt: string;
}

/** In what figures and units a page is read off; a letter gives its own in either. */
type Reader = Figures & Partial<Pick<Habits, 'temperature' | 'measures'>>;

/** Figures that differ by less are one: "1 2/3" and 1.67. */
const SAME = 0.01;
/** Nor by more than this, however large they are. */
const MOST_APART = 0.25;
const same = (a: number, b: number): boolean =>
  Math.abs(a - b) <= Math.min(MOST_APART, SAME * Math.max(1, Math.abs(b)));

/**
 * The page a recipe's heat step stands on, with the figures its owner has to read off it: minutes of each jar at this
 * altitude, headspace, and the acid the entry or the letter sets.
 *
 * @returns null where there is nothing to open: an authority that has no time for it
 */
export function pageOf(recipe: Recipe, altitude_m: number, figures: Reader = PLAIN_FIGURES): Page | null {
  const basis = processBasis(recipe, figures);
  if (!basis.ok) return null;
  const times = basis.rows.flatMap(row => {
    const answer = timeFrom(basis, row.jarSize, altitude_m);
    return answer.ok ? [answer.time] : [];
  });
  const { authority } = recipe;
  const entry = processEntry(entryIdOf(authority));
  return {
    subject: subjectOf(authority),
    asksPaper: authority.grade === 'letter' && !authority.demo,
    title: basis.source.title,
    edition: basis.source.edition,
    part: basis.source.part,
    figures: [
      ...times.map(time => minutesOf(time)),
      figureOf('headspace', 'Headspace', 'inches', basis.headspace_mm / MM_PER_INCH),
      ...(entry ? acidOf(entry, recipe) : formulaOn(recipe)),
      ...(authority.grade === 'letter'
        ? [figureOf('acid:pH', 'Highest pH', '', authority.maxPh), ...termsOn(recipe, figures)]
        : []),
    ],
  };
}

const figureOf = (key: string, label: string, unit: string, value: number): PageFigure => ({
  key,
  label,
  unit,
  value,
  words: null,
});
const wordsOf = (key: string, label: string, words: string): PageFigure[] =>
  words.trim() === '' ? [] : [{ key: `${key}:${words}`, label, unit: '', value: 1, words: words.trim() }];

const minutesOf = (time: ScheduledTime): PageFigure =>
  figureOf(`minutes:${time.rowId}`, `${jarSize(time.jarSize).plural}, ${time.band}`, 'minutes', time.minutes);

/** What a letter names beside its heat step: figures to be typed, words to be found in it. */
function termsOn(recipe: Recipe, figures: Reader): PageFigure[] {
  if (recipe.authority.grade !== 'letter') return [];
  const { terms, process, limits } = recipe.authority;
  const out: PageFigure[] = [];
  if (process.kind === 'hot-fill-hold')
    out.push(
      figures.temperature === 'F'
        ? figureOf('fill temperature:F', 'Filled at, at least', '°F', fahrenheit(process.temp_C))
        : figureOf('fill temperature:C', 'Filled at, at least', '°C', process.temp_C),
    );
  for (const { lineId, least_pct, most_pct } of terms.lines) {
    const name = recipe.lines.find(l => l.id === lineId)?.name ?? lineId;
    if (least_pct !== null) out.push(figureOf(`least:${lineId}`, `${name}, at least`, '% of all', least_pct));
    if (most_pct !== null) out.push(figureOf(`most:${lineId}`, `${name}, at most`, '% of all', most_pct));
  }
  if (terms.pieceSize_mm !== null)
    out.push(
      figures.measures === 'metric'
        ? figureOf('piece size:mm', 'Pieces, at most', 'mm', terms.pieceSize_mm)
        : figureOf('piece size:inches', 'Pieces, at most', 'inches', terms.pieceSize_mm / MM_PER_INCH),
    );
  if (terms.perPint_g !== null)
    out.push(figureOf('fill weight', 'Pieces in a pint, at most', 'g', terms.perPint_g));
  return [
    ...out,
    ...wordsOf('producer', 'Producer', terms.producer),
    ...wordsOf('site', 'Site', terms.site),
    ...wordsOf('thickener', 'Thickener it allows', terms.thickener),
    ...wordsOf('oil', 'Oil it allows', terms.oil),
    ...wordsOf('closure', 'Closure', terms.closure),
    ...wordsOf('limits', 'What else it limits', limits),
    ...wordsOf('review', 'To be looked at again by', terms.reviewOn ? dayText(terms.reviewOn, figures) : ''),
  ];
}

const entryIdOf = (authority: Authority): string =>
  authority.grade === 'own'
    ? (authority.entryId ?? '')
    : authority.grade === 'tested publication' && authority.time.kind === 'entry'
      ? authority.time.entryId
      : '';

function subjectOf(authority: Authority): string {
  const entryId = entryIdOf(authority);
  if (entryId) return `entry:${entryId}`;
  switch (authority.grade) {
    case 'letter':
      return `letter:${[authority.authority, authority.reference, authority.issuedOn].join(' | ')}`;
    case 'tested publication':
      return `publication:${[authority.title, authority.edition, authority.part].join(' | ')}`;
    default:
      return '';
  }
}

/**
 * The formula of a letter, or of a publication with a time of its own, which no table knows: what was taken over from it is
 * read back line by line, and again when it is taken over anew.
 */
function formulaOn(recipe: Recipe): PageFigure[] {
  const limited = limitedLines(recipe);
  const lines = (recipe.tested?.lines ?? recipe.lines).filter(
    l => l.where !== 'dip' && l.role !== 'spice' && l.role !== 'salt' && !limited.has(l.id),
  );
  return lines.map(({ id, name, amount, where }) =>
    figureOf(
      `line:${id}:${amount.value}:${amount.unit}`,
      `${name}${where === 'each jar' ? ' in each pint' : ''}`,
      UNITS[amount.unit].symbol,
      new Fraction(amount.value).valueOf(),
    ),
  );
}

/** The acid of an entry as its page prints it: a dose in each pint, or acid and water of the formula that is followed. */
function acidOf(entry: ProcessEntry, recipe: Recipe): PageFigure[] {
  const dose = entry.acidInEachPint;
  if (dose)
    return [
      figureOf('acid:each pint', 'Bottled lemon juice in each pint', 'tablespoons', dose.bottledLemon_tbsp),
    ];
  if (recipe.authority.grade === 'own') return [];
  const cover = fittingCover(recipe, entry);
  if (!cover || cover.acid.length === 0) return [];
  const parts = cover.acid.map(part => ({
    name: part.ids.some(id => id.startsWith('bottled')) ? 'Bottled lemon or lime juice' : 'Vinegar of 5 %',
    amount: part.amount,
  }));
  if (cover.water) parts.push({ name: 'Water beside it', amount: cover.water });
  return parts.flatMap(({ name, amount }) => {
    const read = readAmount(amount, 'en-US');
    if (!read.ok) return [];
    return [
      figureOf(
        // Two formulas of one entry are two pages.
        `acid:${name.toLowerCase()}:${amount}`,
        `${name}, in its recipe`,
        UNITS[read.value.unit].symbol,
        new Fraction(read.value.value).valueOf(),
      ),
    ];
  });
}

/**
 * Why the heat step of a recipe may not be used for sale in a kitchen, before anything is lit: the first of the two keys.
 *
 * @param times  of the jars that are wanted
 * @param today  by the kitchen's zone: a letter holds until it is to be looked at again
 */
export function unprovenFault(
  recipe: Recipe,
  kitchen: Reader & { altitude_m: number; demo: boolean },
  times: readonly ScheduledTime[],
  confirmations: readonly Confirmation[],
  today: Day,
): PageFault | null {
  const { authority } = recipe;
  if (authority.grade === 'letter' && authority.demo && !kitchen.demo)
    return {
      what: `Letter ${authority.reference} is a demo letter.`,
      why: 'It was made up for the demo kitchen: nobody has tested what it says.',
      next: 'Enter the letter your own process authority wrote.',
    };
  const reviewOn = authority.grade === 'letter' ? authority.terms.reviewOn : null;
  if (authority.grade === 'letter' && reviewOn !== null && reviewOn < today)
    return {
      what: `Letter ${authority.reference} was to be looked at again by ${dayText(reviewOn, kitchen)}.`,
      why: 'A process authority stands behind its letter until then.',
      next: 'Ask the authority to renew it, then enter its new date.',
    };
  const page = pageOf(recipe, kitchen.altitude_m, kitchen);
  return (
    page &&
    pageFault(
      page,
      times.map(t => t.rowId),
      confirmations,
      kitchen,
    )
  );
}

/** Where what was read off the page differs from what the program has: both figures, by key. */
export interface PageDifference {
  key: string;
  label: string;
  unit: string;
  typed: number;
  value: number;
  words: string | null;
}

/** What was typed from the page that is not what stands here; empty when all of it agrees. */
export function pageDifferences(
  page: Page,
  typed: readonly { key: string; value: number }[],
): PageDifference[] {
  const read = new Map(typed.map(t => [t.key, t.value]));
  return page.figures.flatMap(({ key, label, unit, value, words }) => {
    const there = read.get(key);
    return there === undefined || same(there, value)
      ? []
      : [{ key, label, unit, typed: there, value, words }];
  });
}

/** Why a page does not stand confirmed. */
export interface PageFault {
  what: string;
  why: string;
  next: string;
}

/**
 * Why a heat step may not be used for sale yet: nobody read its page, or it was read for another altitude, another jar or
 * other figures. Null when it is confirmed.
 *
 * @param rowIds  rows of the jars that are wanted
 * @param confirmations  of the kitchen; of each figure the newest counts
 */
export function pageFault(
  page: Page,
  rowIds: readonly string[],
  confirmations: readonly Confirmation[],
  figures: Figures = PLAIN_FIGURES,
): PageFault | null {
  const name = `${page.title}, ${page.part}`;
  const why =
    'What the program has of it was recalled from memory or typed once: that may refuse, and never confirms.';
  const read = readOff(page, confirmations);
  if (read.size === 0)
    return {
      what: `Nobody has confirmed ${name} from the open page.`,
      why,
      next: 'An owner opens it at the recipe ("Confirm from the page"): a minute, once.',
    };
  const newest = confirmationOf(page, confirmations);
  if (page.asksPaper && newest && !newest.demo && newest.papers.length === 0)
    return {
      what: `${name} was confirmed without the letter itself.`,
      why: 'What somebody typed of a letter is not the letter: anybody could have written it.',
      next: 'An owner attaches a picture or a PDF of it at the recipe, and confirms it from there.',
    };
  const wanted = page.figures.filter(
    f => !f.key.startsWith('minutes:') || rowIds.includes(f.key.slice('minutes:'.length)),
  );
  const open = wanted.filter(f => {
    const there = read.get(f.key);
    return there === undefined || !same(there, f.value);
  });
  if (open.length === 0) return null;
  const n = (value: number) => numberText(value, figures);
  return {
    what: `${name} was confirmed without ${open.map(f => `${f.label.toLowerCase()} (${n(f.value)}${f.unit ? ` ${f.unit}` : ''})`).join(', ')}.`,
    why: `${why} Another jar, altitude or formula has another figure.`,
    next: 'An owner opens the page once more and confirms it.',
  };
}

/** What was read off a page, each figure as it was read last. */
function readOff(page: Page, confirmations: readonly Confirmation[]): Map<string, number> {
  const inOrder = confirmations
    .filter(c => c.subject === page.subject)
    .sort((a, b) => (a.confirmedAt < b.confirmedAt ? -1 : a.confirmedAt > b.confirmedAt ? 1 : 0));
  return new Map(inOrder.flatMap(c => c.figures.map(f => [f.key, f.value] as const)));
}

/** The newest confirmation of a page, or null: what a batch that starts on it keeps as its proof. */
export function confirmationOf(page: Page, confirmations: readonly Confirmation[]): Confirmation | null {
  return (
    confirmations
      .filter(c => c.subject === page.subject)
      .sort((a, b) => (a.confirmedAt < b.confirmedAt ? 1 : a.confirmedAt > b.confirmedAt ? -1 : 0))[0] ?? null
  );
}
