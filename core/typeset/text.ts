import type { Fault } from '../measure/index.ts';
import { FACES, type FaceId, type Fonts } from './font.ts';

/** Scripts whose letters change with their neighbours, run from the right, or stand upon each other: they need shaping, which this does not do. */
const SHAPED =
  /[\p{Script=Arabic}\p{Script=Hebrew}\p{Script=Syriac}\p{Script=Thaana}\p{Script=Nko}\p{Script=Devanagari}\p{Script=Bengali}\p{Script=Gurmukhi}\p{Script=Gujarati}\p{Script=Oriya}\p{Script=Tamil}\p{Script=Telugu}\p{Script=Kannada}\p{Script=Malayalam}\p{Script=Sinhala}\p{Script=Thai}\p{Script=Lao}\p{Script=Tibetan}\p{Script=Myanmar}\p{Script=Khmer}\p{Script=Mongolian}]/u;

/** Text as it is set: composed (NFC), every run of white space one blank. */
export const setText = (text: string): string => text.normalize('NFC').replaceAll(/\s+/g, ' ').trim();

/** A character as it is named to somebody: itself, or its number where it shows nothing. */
const named = (character: string): string => {
  const code = `U+${(character.codePointAt(0) ?? 0).toString(16).toUpperCase().padStart(4, '0')}`;
  return /[\p{L}\p{N}\p{P}\p{S}]/u.test(character) ? `"${character}" (${code})` : code;
};

/**
 * What keeps a text from being set: a script that needs shaping, or characters that no shipped face has.
 *
 * @returns the faults, none where all of it can be set; `path` is whose text it is
 */
export function textFaults(text: string, fonts: Fonts, path: string, name: string): Fault[] {
  const set = setText(text);
  const shaped = SHAPED.exec(set);
  if (shaped)
    return [
      {
        path,
        code: 'needs-shaping',
        what: `${name} is in a script that cannot be set here: ${named(shaped[0])}.`,
        why: 'Its letters change with their neighbours or run from right to left. Set one by one they would be wrong.',
        next: 'Write it in Latin letters, or stick a label of your own beside this one.',
      },
    ];
  const missing = new Set([...set].filter(c => FACES.some(f => fonts[f].glyph(c) === null)));
  if (missing.size === 0) return [];
  const shown = [...missing].slice(0, 5).map(named).join(', ');
  return [
    {
      path,
      code: 'no-glyph',
      what: `${name} holds ${missing.size === 1 ? 'a character' : `${missing.size} characters`} that the shipped type has not: ${shown}${missing.size > 5 ? ', …' : ''}.`,
      why: 'Nothing is left out of a label.',
      next: 'Write it with other characters.',
    },
  ];
}

/** Text of one face, to be set in a line. */
export interface Span {
  text: string;
  face: FaceId;
}
/** A word as it stands in a line: `at` is its left, both at a size of 1. */
export interface SetWord {
  text: string;
  face: FaceId;
  at: number;
  width: number;
}
/** A line of words. */
export interface SetLine {
  words: SetWord[];
  width: number;
}

/** Width of a word at a size of 1: its advances, without kerning. */
export function widthOf(word: string, face: FaceId, fonts: Fonts): number {
  let width = 0;
  for (const c of word) width += fonts[face].glyph(c)?.advance ?? 0;
  return width;
}

/** A word with its width, and whether a blank stands before it. */
export interface Measured {
  text: string;
  face: FaceId;
  width: number;
  /** Width of the blank before it; 0 where it stands against what is before it. */
  blank: number;
}

/** The words of spans, measured once for all sizes. */
export function measured(spans: readonly Span[], fonts: Fonts): Measured[] {
  const words: Measured[] = [];
  let apart = false;
  for (const { text, face } of spans) {
    const blank = fonts[face].glyph(' ')?.advance ?? 0.25;
    // A blank that keeps a line together is part of its word.
    for (const part of text.normalize('NFC').split(/([^\S\u00A0]+)/)) {
      if (part === '') continue;
      if (/^[^\S\u00A0]+$/.test(part)) {
        apart = true;
        continue;
      }
      words.push({
        text: part,
        face,
        width: widthOf(part, face, fonts),
        blank: apart && words.length > 0 ? blank : 0,
      });
      apart = false;
    }
  }
  return words;
}

/**
 * Breaks words into lines. Words that stand against each other are kept in one line.
 *
 * @param room  width there is for the line of that number, at a size of 1
 * @returns the lines, or the word that is wider than any line it could stand in
 */
export function broken(
  words: readonly Measured[],
  room: (line: number) => number,
): { lines: SetLine[]; tooWide: null } | { lines: null; tooWide: string } {
  const lines: SetLine[] = [];
  let line: SetWord[] = [];
  let width = 0;
  for (let i = 0; i < words.length;) {
    // What stands together: a word, and those that follow it without a blank.
    let end = i + 1;
    while (end < words.length && (words[end] as Measured).blank === 0) end++;
    const group = words.slice(i, end);
    const wide = group.reduce((sum, w) => sum + w.width, 0);
    const blank = line.length > 0 ? (group[0] as Measured).blank : 0;
    if (line.length > 0 && width + blank + wide > room(lines.length) + 1e-9) {
      lines.push({ words: line, width });
      line = [];
      width = 0;
      continue;
    }
    if (line.length === 0 && wide > room(lines.length) + 1e-9)
      return { lines: null, tooWide: group.map(w => w.text).join('') };
    let at = width + blank;
    for (const w of group) {
      line.push({ text: w.text, face: w.face, at, width: w.width });
      at += w.width;
    }
    width = at;
    i = end;
  }
  if (line.length > 0) lines.push({ words: line, width });
  return { lines, tooWide: null };
}
