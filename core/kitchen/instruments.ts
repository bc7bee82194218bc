/** Instruments that can be read over a line, each with what it measures in. */
export const INSTRUMENT_KINDS = [
  'thermometer',
  'scale',
  'refractometer',
  'ph meter',
  'label printer',
] as const;
/** What an instrument is ({@link INSTRUMENT_KINDS}). */
export type InstrumentKind = (typeof INSTRUMENT_KINDS)[number];

/** In what each kind measures. */
export const INSTRUMENT_UNITS: { readonly [K in InstrumentKind]: 'C' | 'g' | 'Brix' | 'pH' | 'labels' } = {
  thermometer: 'C',
  scale: 'g',
  refractometer: 'Brix',
  'ph meter': 'pH',
  'label printer': 'labels',
};

/** Whether an instrument can be read just now, and if not, why. */
export type LineState = 'reading' | 'silent' | 'rubbish';

/** An instrument as it stands. */
export interface Instrument {
  id: string;
  kind: InstrumentKind;
  name: string;
  state: LineState;
  /** What it shows, in the unit of its kind; null while it cannot be read. */
  value: number | null;
  /** It has come to rest. */
  steady: boolean;
  /** When it was last held against something known, and how far it was off; null where nobody knows. */
  calibrated: { at: string; off: number } | null;
}

/** The head of a printer: how fine it prints, and how many dots across. */
export interface PrintHead {
  dots_per_mm: number;
  across: number;
}

/** What came over a line, read word by word; null for what is no word of it. */
export type InstrumentWord =
  | { word: 'hello'; id: string; kind: InstrumentKind; name: string }
  | { word: 'cal'; at: string; off: number }
  /** Of a printer that prints dot by dot: its head. */
  | { word: 'head'; head: PrintHead }
  | { word: 'read'; value: number; steady: boolean }
  /** What it says to what it was told; empty where it did it. */
  | { word: 'answer'; why: string };

/** What has no place in a text from a line. */
const PLAIN_TEXT = /[^\p{L}\p{N} .,()-]/gu;
const FIGURE = /^-?\d{1,7}(?:\.\d{1,6})?$/;

/**
 * Reads one line of the instruments' protocol (docs/instruments.md). A line is never trusted: what is not exactly a word of it
 * is rubbish, and so is a figure that no instrument of its kind shows.
 *
 * @param kind  of the instrument the line comes from; null before it has said so
 * @example
 * readInstrumentLine('READ 12 104.250 steady', 'thermometer'); // { word: 'read', value: 104.25, steady: true }
 */
export function readInstrumentLine(line: string, kind: InstrumentKind | null): InstrumentWord | null {
  const words = line.split(' ');
  if (words[0] === 'HELLO' && words[1] === '1') {
    const [, , id = '', said = '', unit = '', ...name] = words;
    const known = INSTRUMENT_KINDS.find(k => k === said.replaceAll('_', ' '));
    if (!known || INSTRUMENT_UNITS[known] !== unit || !/^[a-z][a-z0-9-]{0,39}$/.test(id)) return null;
    const shown = name.join(' ').replaceAll(PLAIN_TEXT, '');
    return { word: 'hello', id, kind: known, name: shown.slice(0, 60) || id };
  }
  if (line === 'OK') return { word: 'answer', why: '' };
  if (words[0] === 'NO' && words.length > 1)
    return { word: 'answer', why: words.slice(1).join(' ').replaceAll(PLAIN_TEXT, '').slice(0, 100) };
  if (words[0] === 'CAL' && words.length === 3) {
    const [, at = '', off = ''] = words;
    const ms = Date.parse(at);
    if (!FIGURE.test(off) || !/^\d{4}-\d{2}-\d{2}T/.test(at) || Number.isNaN(ms)) return null;
    return { word: 'cal', at: new Date(ms).toISOString(), off: Number(off) };
  }
  if (words[0] === 'HEAD' && kind === 'label printer') {
    const said = /^HEAD (\d{1,2}) (\d{1,4})$/.exec(line);
    const [dots_per_mm, across] = [Number(said?.[1]), Number(said?.[2])];
    return dots_per_mm > 0 && across > 0 && across <= HEAD_MOST
      ? { word: 'head', head: { dots_per_mm, across } }
      : null;
  }
  if (words[0] === 'READ' && words.length === 4 && kind !== null) {
    const [, number = '', figure = '', rest = ''] = words;
    if (!/^\d{1,9}$/.test(number) || !FIGURE.test(figure) || (rest !== 'steady' && rest !== 'moving'))
      return null;
    const value = Number(figure);
    const [least, most] = SHOWS[kind];
    return value < least || value > most ? null : { word: 'read', value, steady: rest === 'steady' };
  }
  return null;
}

/** Widest head in dots: a row of it fits one line of the protocol. */
const HEAD_MOST = 1080;

/** The least and the most an instrument of a kind can show at all. */
const SHOWS: { readonly [K in InstrumentKind]: readonly [number, number] } = {
  thermometer: [-50, 350],
  scale: [-50_000, 200_000],
  refractometer: [0, 95],
  'ph meter': [-2, 16],
  'label printer': [0, 1_000_000],
};
