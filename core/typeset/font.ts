import * as opentype from 'opentype.js';

/** Node hands the package over as its default, a bundler name by name. */
const { parse } =
  'parse' in opentype ? opentype : (opentype as unknown as { default: typeof opentype }).default;

/** The faces that ship: two of the text, one of headings. */
export const FACES = ['plain', 'bold', 'heading'] as const;
/** A face of type. */
export type FaceId = (typeof FACES)[number];

/** A value of each face. */
export type OfFaces<T> = { readonly [K in FaceId]: T };
/** A value of each face, by what gives it. */
export const ofFaces = <T>(get: (face: FaceId) => T): OfFaces<T> => ({
  plain: get('plain'),
  bold: get('bold'),
  heading: get('heading'),
});

/** One glyph at a size of 1, from its origin on the baseline, up and to the right. */
export interface GlyphMetrics {
  advance: number;
  /** Box of its ink; all noughts where it has none. */
  left: number;
  bottom: number;
  right: number;
  top: number;
}
/** What laying out asks of a face; lengths at a size of 1. */
export interface FontMetrics {
  /** Height of a capital H, and of a lower-case o from its foot to its head: that is what rules of type measure. */
  capital: number;
  lowercase: number;
  /** The glyph of a character, or null where the face has none. */
  glyph(character: string): GlyphMetrics | null;
}
/** Metrics of every face. */
export type Fonts = OfFaces<FontMetrics>;
/** The outline of a character at a size of 1, as SVG path data with y downwards; empty where it has no ink. */
export type Outlines = OfFaces<(character: string) => string>;

/** Digits kept of an outline: a hundred-thousandth of the size. */
const PLACES = 5;

/**
 * Reads a face from its file: glyph by glyph as they are asked for, without kerning or ligatures.
 *
 * @param file  bytes of a TrueType font
 * @throws Error where it is none
 */
export function readFont(file: ArrayBuffer): {
  metrics: FontMetrics;
  outline: (character: string) => string;
} {
  const font = parse(file);
  const scale = 1 / font.unitsPerEm;
  const found = new Map<string, GlyphMetrics | null>();
  const drawn = new Map<string, string>();
  const glyph = (character: string): GlyphMetrics | null => {
    const known = found.get(character);
    if (known !== undefined) return known;
    const index = font.charToGlyphIndex(character);
    let made: GlyphMetrics | null = null;
    if (index > 0) {
      const of = font.glyphs.get(index);
      const box = of.getBoundingBox();
      made = {
        advance: (of.advanceWidth ?? 0) * scale,
        left: box.x1 * scale,
        bottom: box.y1 * scale,
        right: box.x2 * scale,
        top: box.y2 * scale,
      };
    }
    found.set(character, made);
    return made;
  };
  const height = (character: string) => {
    const of = glyph(character);
    return of ? of.top - of.bottom : 0;
  };
  return {
    metrics: { capital: height('H'), lowercase: height('o'), glyph },
    outline: character => {
      const known = drawn.get(character);
      if (known !== undefined) return known;
      const index = font.charToGlyphIndex(character);
      const path = index > 0 ? font.glyphs.get(index).getPath(0, 0, 1).toPathData(PLACES) : '';
      drawn.set(character, path);
      return path;
    },
  };
}
