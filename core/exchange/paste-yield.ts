import type { JarSizeId } from '../jars/index.ts';
import { MM_PER_INCH } from '../measure/index.ts';
import type { Recipe } from '../recipes/index.ts';
import { FIGURE, figureOf, said, taken, type TextFact, type TextRow } from './paste-words.ts';

/** Minutes of a heat step that a text says, of one jar size or of all, with its row. */
export interface MinutesSaid {
  size: JarSizeId | null;
  minutes: number;
  number: number;
}

/** Names of jar sizes, the longer before the shorter. Nominal volumes of the trade; common practice. */
const SIZES: readonly [RegExp, JarSizeId][] = [
  [/^(?:half[- ]gallons?|1\/2[- ]gal(?:lons?)?|64[- ]?oz)/i, 'half-gallon'],
  [
    /^(?:quarter[- ]pints?|1\/4[- ]pints?|4[- ]?(?:fl\.? ?)?(?:oz|ounces?)\b|1[12][058][- ]?ml)/i,
    'quarter-pint',
  ],
  [
    /^(?:half[- ]?pints?|1\/2[- ]?(?:pints?|pts?)|½[- ]?(?:pints?|pts?)|8[- ]?(?:fl\.? ?)?(?:oz|ounces?)\b|2(?:3[5-7]|40|50)[- ]?(?:ml|millilit))/i,
    'half-pint',
  ],
  [
    /^(?:three[- ]quarter[- ]pints?|3\/4[- ]pints?|12[- ]?(?:fl\.? ?)?(?:oz|ounces?)\b|3[57][05][- ]?ml)/i,
    'three-quarter-pint',
  ],
  [
    /^(?:pint[- ]and[- ]a[- ]hal(?:f|ves)|1[- ]1\/2[- ]pints?|24[- ]?(?:fl\.? ?)?(?:oz|ounces?)\b|7[0-5]0[- ]?ml)/i,
    'pint-and-a-half',
  ],
  [
    /^(?:pints?|pts?\b|16[- ]?(?:fl\.? ?)?(?:oz|ounces?)\b|(?:4[57]0|473|500)[- ]?ml|half[- ]lit(?:er|re))/i,
    'pint',
  ],
  [
    /^(?:quarts?|qts?\b|32[- ]?(?:fl\.? ?)?(?:oz|ounces?)\b|(?:9[045]0|946|1000)[- ]?ml|(?:1|one)[- ]lit(?:er|re)|lit(?:er|re) jars?)/i,
    'quart',
  ],
];
const SIZE =
  '(?:half[- ]?gallons?|quarter[- ]pints?|half[- ]?pints?|(?:three[- ]quarter|[1-3]\\/[24]|\u00bd)[- ]?(?:pints?|pts?)|pint-and-a-hal(?:f|ves)|pints?|pts?\\b|quarts?|qts?\\b|\\d{1,4}[- ]?(?:fl\\.? ?)?(?:oz|ounces?|ml|millilit(?:er|re)s?)\\b\\.?|lit(?:er|re)[- ]?jars?)';

const sizeOf = (text: string): JarSizeId | null => SIZES.find(([is]) => is.test(text.trim()))?.[1] ?? null;

const COUNT = `(${FIGURE}|a dozen)(?:\\s*(?:to|-|\u2013|\u2014|or)\\s*(${FIGURE}))?`;
const YIELDS = '(?:yields?|makes?|made|gives?|fills?|quantity|recipe for|pot into|enough for|divide between)';
const JARS = '(?:\\s*(?:jars?|jamjars?|bottles?|kilner jars?))';
const FILLER =
  '(?:(?:~|about|approximately|approx\\.?|around|roughly|some|up to|hot|sterile|small|jars? of)\\s*)*';

/** Ways to say how much it makes, the plainest first; each gives a count, perhaps a range, and a size. */
const MAKES: readonly RegExp[] = [
  // "Makes about 9 (8-oz) jars", "yield: 8 pints", "makes 6 x 250 ml"
  new RegExp(`\\b${YIELDS}\\b\\s*(?:is\\s*)?[:=-]?\\s*${FILLER}${COUNT}\\s*(?:x\\s*)?\\(?\\s*(${SIZE})`, 'i'),
  // "half-pints - yield 7"
  new RegExp(`\\b(${SIZE})${JARS}?\\s*[-\u2013,:;]\\s*${YIELDS}\\s*:?\\s*${FILLER}${COUNT}`, 'i'),
  // "(7 quarts)", "7 quarts." at the end
  new RegExp(`\\(\\s*${FILLER}${COUNT}\\s+(${SIZE})${JARS}?\\s*\\)`, 'i'),
  new RegExp(`(?:^|[.;!]\\s+)${FILLER}${COUNT}\\s+(${SIZE})${JARS}?\\s*\\.?$`, 'i'),
];
const MAKES_JARS = new RegExp(`\\b${YIELDS}\\b\\s*[:=-]?\\s*${FILLER}${COUNT}${JARS}`, 'i');
const MAKES_CUPS = new RegExp(`\\b${YIELDS}\\b\\s*[:=-]?\\s*${FILLER}${COUNT}\\s*(?:cups?|c)\\b`, 'i');

const countOf = (text: string) => (/dozen/i.test(text) ? 12 : figureOf(text));

/** How much it makes, in jars. */
export function makesIn(
  rows: readonly TextRow[],
  lineRows: ReadonlySet<number>,
  size: JarSizeId,
  sizeSaid: boolean,
): TextFact<Recipe['makes']> {
  const of = (m: RegExpExecArray, at: number, number: number, jar: JarSizeId, sure: boolean) => {
    const low = Math.floor(countOf(m[at] as string));
    const high = m[at + 1] ? Math.round(countOf(m[at + 1] as string)) : null;
    if (!(low >= 1)) return null;
    const value = { size: jar, count: low };
    const others = high !== null && high > low ? [{ size: jar, count: high }] : [];
    return { ...said(value, number, others), assumed: others.length > 0 || !sure };
  };
  for (const pattern of MAKES) {
    for (const { number, text } of rows) {
      // An amount of an ingredient says nothing of jars, but for brackets behind it: "Ingredients (makes 9 pints)".
      if (lineRows.has(number) && !/\b(?:yields?|makes?)\b/i.test(text)) continue;
      const m = pattern.exec(text);
      if (!m) continue;
      const first = pattern === MAKES[1];
      const jar = sizeOf((first ? m[1] : m[3]) as string);
      const got = jar && of(m, first ? 2 : 1, number, jar, true);
      if (got) return got;
    }
  }
  for (const { number, text } of rows) {
    const jars = MAKES_JARS.exec(text);
    const got = jars && of(jars, 1, number, size, sizeSaid);
    if (got) return got;
    const cups = MAKES_CUPS.exec(text);
    const poured = cups && of(cups, 1, number, 'half-pint', false);
    if (poured) return poured;
  }
  return taken({ size, count: 6 }, []);
}

/** Headspaces as they are written; in a text without an inch they are millimetres or centimetres. */
export function headspaceIn(rows: readonly TextRow[]): TextFact<number | null> {
  const figure = '(\\d+\\s+\\d/\\d|\\d/\\d|\\d+(?:[.,]\\d+)?|[\u00bc\u00bd\u00be]|half an?|one|an?)';
  const inch = `${figure}[- ]*(inch|inches|in\\b\\.?|"|\u201d|cm|mm)`;
  const patterns = [
    new RegExp(
      `${inch}[^.;\\d]{0,16}\\b(?:head ?-?space|head ?room|of space|from (?:the )?(?:top|rim))`,
      'i',
    ),
    new RegExp(`\\bhead ?-?(?:space|room)\\b[^.;\\d]{0,14}${inch}`, 'i'),
    new RegExp(`\\bto (?:within )?${inch}\\s*(?:of|from|below)?`, 'i'),
    new RegExp(`\\bleav(?:e|ing)\\b[^.;\\d]{0,12}${inch}`, 'i'),
    new RegExp(`\\b(?:jars?|pints?|quarts?)\\b[,;:]?\\s*(?:to |at )?${inch}`, 'i'),
  ];
  for (const pattern of patterns)
    for (const { number, text } of rows) {
      const m = pattern.exec(text);
      if (!m) continue;
      const words = (m[1] as string).toLowerCase();
      const value = words.includes('half')
        ? 0.5
        : /^an?$/.test(words)
          ? 1
          : /[\u00bc-\u00be]/.test(words)
            ? ({ '\u00bc': 0.25, '\u00bd': 0.5, '\u00be': 0.75 }[words as '\u00bc'] ?? NaN)
            : words.split(/\s+/).reduce((sum, part) => {
                const [n, d] = part.split('/');
                return sum + (d ? Number(n) / Number(d) : figureOf(part));
              }, 0);
      const unit = (m[2] as string).toLowerCase();
      const mm = value * (unit === 'cm' ? 10 : unit === 'mm' ? 1 : MM_PER_INCH);
      if (mm > 0 && mm <= (pattern === patterns.at(-1) ? 26 : 40)) return said(mm, number);
    }
  return { value: null, number: null, assumed: false, others: [] };
}

/** Minutes of the heat step by jar size: "Process pints 35 minutes, quarts 40", "10 min. pints or quarts". */
export function minutesIn(rows: readonly TextRow[]): MinutesSaid[] {
  const out: MinutesSaid[] = [];
  const token = new RegExp(
    `(\\d+\\s*(?:feet|ft)\\b|\\bspace\\b|head ?-?space)|(${SIZE})|(\\d{1,3})(?:\\s*(?:-|to)\\s*\\d{1,3})?\\s*(minutes?\\b|mins?\\b\\.?)?`,
    'gi',
  );
  for (const { number, text } of rows) {
    const at = text.search(/\bprocess(?:ed|ing)?\b|\b(?:boiling[- ])?water[- ]bath\b|\bcanner\b/i);
    if (at < 0) continue;
    // "10 min. in a boiling-water bath": the figure stands before.
    const before = /(?:^|[.;]\s+)([^.;]*\d+\s*min\.?[^.;]*)$/i.exec(text.slice(0, at))?.[1];
    const clause = before && !/\bprocess/i.test(text.slice(at)) ? before : text.slice(at);
    if (!/\bmin/i.test(clause)) continue;
    let waiting: JarSizeId[] = [];
    let last = null as { minutes: number; sizes: number } | null;
    let lastEnd = 0;
    for (const m of clause.matchAll(token)) {
      // Of another sentence, or of an altitude.
      if (/[.!]\s+[A-Z]/.test(clause.slice(Math.max(0, lastEnd - 1), m.index)) && last) break;
      if (/\b(?:at|above|add|for every|over)\b[^,;]*$/i.test(clause.slice(lastEnd, m.index)) && last && !m[2])
        break;
      lastEnd = m.index + m[0].length;
      if (m[1]) continue;
      if (m[2]) {
        const size = sizeOf(m[2]);
        if (!size) continue;
        // "10 minutes for half-pints or pints": what follows a figure that had no jar belongs to it.
        if (last && last.sizes === 0) {
          out.push({ size, minutes: last.minutes, number });
          if (!/\bor\b|\band\b|,|\//.test(clause.slice(lastEnd, lastEnd + 5))) last = { ...last, sizes: 1 };
        } else waiting.push(size);
        continue;
      }
      const minutes = Number(m[3]);
      const counts = m[4] !== undefined || waiting.length > 0;
      if (!counts || minutes < 1 || minutes > 180) continue;
      for (const size of waiting) out.push({ size, minutes, number });
      last = { minutes, sizes: waiting.length };
      waiting = [];
      const ended = /\.\s*$/.test(m[0]) && /^\s*[A-Z]/.test(clause.slice(lastEnd));
      if (last.sizes === 0 && (ended || !new RegExp(`^[^.;]{0,20}${SIZE}`, 'i').test(clause.slice(lastEnd))))
        out.push({ size: null, minutes, number });
    }
  }
  return out.filter(
    (m, i) =>
      out.findIndex(o => o.size === m.size) === i && (m.size !== null || out.every(o => o.size === null)),
  );
}

/** The jars that a text names most plainly in filling and heating, and whether it does. */
export function jarIn(rows: readonly TextRow[], spread: boolean): { size: JarSizeId; said: boolean } {
  for (const { text } of rows) {
    const m = new RegExp(
      `\\b(?:into|in|fill|hot|sterile|clean)\\s+(?:hot |sterile |clean |sterilized |warm )*(${SIZE})`,
      'i',
    ).exec(text);
    const size = m && sizeOf(m[1] as string);
    if (size && /jar|fill|pack|pour|ladle|pot/i.test(text)) return { size, said: true };
  }
  return { size: spread ? 'half-pint' : 'pint', said: false };
}
