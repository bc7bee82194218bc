/** Something that was taken where the text does not say it, and what else it could be. */
export interface Question<T> {
  what: string;
  others: { label: string; value: T }[];
}

const WORDS: ReadonlyMap<string, number> = new Map([
  ['a', 1],
  ['an', 1],
  ['one', 1],
  ['two', 2],
  ['three', 3],
  ['four', 4],
  ['five', 5],
  ['six', 6],
  ['seven', 7],
  ['eight', 8],
  ['nine', 9],
  ['ten', 10],
  ['eleven', 11],
  ['twelve', 12],
  ['fifteen', 15],
  ['twenty', 20],
  ['thirty', 30],
]);
const WORD = 'one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve|fifteen|twenty|thirty';
/** A figure as it stands in a sentence, in digits or in words. */
export const FIGURE = `\\d+(?:[.,]\\d+)?(?:\\s*\\d/\\d|[\u00bc\u00bd\u00be])?|(?:${WORD})`;
const EIGHTHS: ReadonlyMap<string, number> = new Map([
  ['\u00bc', 0.25],
  ['\u00bd', 0.5],
  ['\u00be', 0.75],
]);

/** @returns the number a {@link FIGURE} says */
export function figureOf(text: string): number {
  const word = WORDS.get(text.toLowerCase().trim());
  if (word !== undefined) return word;
  const mixed = /^(\d+(?:[.,]\d+)?)\s*(?:(\d)\/(\d)|([\u00bc\u00bd\u00be]))?$/.exec(text.trim());
  if (!mixed) return NaN;
  return (
    Number((mixed[1] as string).replace(',', '.')) +
    (mixed[2] ? Number(mixed[2]) / Number(mixed[3]) : mixed[4] ? (EIGHTHS.get(mixed[4]) ?? 0) : 0)
  );
}

const TIME = '(seconds?|secs?|minutes?|mins?|hours?|hrs?|h|days?|weeks?|wks?)';
const IN_MIN: readonly [RegExp, number][] = [
  [/^s/i, 1 / 60],
  [/^m/i, 1],
  [/^h/i, 60],
  [/^d/i, 1440],
  [/^w/i, 10_080],
];

/** A time that a sentence names. */
export interface Span {
  from_min: number;
  to_min: number;
  how: 'range' | 'one' | 'at least' | 'up to' | 'overnight';
  words: string;
}

const SPAN = new RegExp(
  `\\b(at least|a minimum of|minimum|no less than|up to|no more than|at most)?\\s*(?:about |another |for )*(${FIGURE}|an?|half an)\\s*(?:${TIME}\\s*)?(?:(?:to|-|\u2013|\u2014|or)\\s*(${FIGURE})\\s*)?-?\\s*${TIME}\\b\\.?`,
  'gi',
);

/** Times that a sentence names, in their order: "18 to 24 hours", "overnight", "at least 12 h". */
export function rangesOf(text: string): Span[] {
  const out: (Span & { at: number })[] = [];
  for (const m of text.matchAll(SPAN)) {
    const unit = (word: string) => IN_MIN.find(([is]) => is.test(word))?.[1] ?? 1;
    const low = /^half an$/i.test(m[2] as string) ? 0.5 : figureOf(m[2] as string);
    const per = unit((m[5] ?? m[3]) as string);
    const from_min = low * (m[3] ? unit(m[3]) : per);
    const high = m[4] ? figureOf(m[4]) * per : null;
    if (!Number.isFinite(from_min)) continue;
    const bound = (m[1] ?? '').toLowerCase();
    out.push({
      at: m.index,
      from_min,
      to_min: high ?? from_min,
      how:
        high !== null && high > from_min
          ? 'range'
          : /up to|no more|at most/.test(bound)
            ? 'up to'
            : bound
              ? 'at least'
              : 'one',
      words: m[0].trim(),
    });
  }
  const overnight = /\bover ?night\b/i.exec(text);
  if (overnight && !out.some(s => s.to_min >= 240))
    out.push({ at: overnight.index, from_min: 480, to_min: 720, how: 'overnight', words: overnight[0] });
  return out
    .sort((a, b) => a.at - b.at)
    .map(({ from_min, to_min, how, words }) => ({ from_min, to_min, how, words }));
}

/** What a sentence says something is done until, as one looks for it; null where it says nothing of it. */
export function untilOf(text: string): string | null {
  const until = /\b(?:until|till|'til)\s+(?:it |they |the (?:mixture|fruit) )?([^.;,(]{3,60})/i.exec(
    text,
  )?.[1];
  return until?.trim() ?? null;
}

/** A fact of a text: what it says, or what was taken where it says nothing. */
export interface TextFact<T> {
  value: T;
  /** Row that says it; null where none does. */
  number: number | null;
  /** Taken and not said: it is marked, and what else it could be stands beside it. */
  assumed: boolean;
  others: readonly T[];
}

/** A row of the text, with its number from 1. */
export interface TextRow {
  number: number;
  text: string;
}

/** A fact that a row says; with more than one reading it is marked. */
export const said = <T>(value: T, number: number, others: readonly T[] = []): TextFact<T> => ({
  value,
  number,
  assumed: others.length > 0,
  others,
});
/** A fact that no row says. */
export const taken = <T>(value: T, others: readonly T[]): TextFact<T> => ({
  value,
  number: null,
  assumed: true,
  others: others.filter(o => o !== value),
});
