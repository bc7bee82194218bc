import {
  type Drawn,
  type FaceId,
  type Fonts,
  type Measured,
  type SetLine,
  broken,
} from '../../typeset/index.ts';

/** Part of a piece in which lines are set: how wide there is room between two heights, less what is kept free. */
export interface Region {
  top: number;
  bottom: number;
  /** Left and right edge that a line between these heights has, or null where there is none. */
  room(top: number, bottom: number): { left: number; right: number } | null;
}

/** A rectangle, less what is kept free in it: `keep` cuts from the side it touches. */
export function column(
  box: { left: number; top: number; right: number; bottom: number },
  keep: readonly { left: number; top: number; right: number; bottom: number }[] = [],
): Region {
  return {
    top: box.top,
    bottom: box.bottom,
    room(top, bottom) {
      let { left, right } = box;
      for (const k of keep) {
        if (k.bottom <= top || k.top >= bottom) continue;
        if (k.right >= right - 1e-9) right = Math.min(right, k.left);
        else left = Math.max(left, k.right);
      }
      return right > left ? { left, right } : null;
    },
  };
}

/** A disc: a line is as wide as its narrower edge lets it be. */
export function disc(centre: { x: number; y: number }, radius: number): Region {
  return {
    top: centre.y - radius,
    bottom: centre.y + radius,
    room(top, bottom) {
      const off = Math.max(Math.abs(top - centre.y), Math.abs(bottom - centre.y));
      if (off >= radius) return null;
      const half = Math.sqrt(radius * radius - off * off);
      return { left: centre.x - half, right: centre.x + half };
    },
  };
}

/** Words of one thing on a label, and how large they may be. */
export interface TextBlock {
  field: string;
  words: readonly Measured[];
  /** Size of the type in millimetres: never below `least`, as near to `most` as there is room. */
  least: number;
  most: number;
  align: 'left' | 'centre';
  ink: string;
  /** Free height before it where there is room, in lines of its own; where there is none, lines follow upon lines. */
  before: number;
  /** Free height before it in millimetres, whatever its size. */
  clear: number;
}

/** Height of a line over its type. */
const LEADING = 1.18;
/** From the top of a line to its baseline, over its type: capitals with their accents stay inside. */
export const BASELINE = 0.925;

/** Lines of blocks, where they lie. */
export interface SetBlock {
  block: TextBlock;
  size: number;
  top: number;
  bottom: number;
  lines: { line: SetLine; left: number; top: number }[];
}
/** What did not fit: a word, or the height that was missing. */
export interface NoRoom {
  field: string;
  tooWide: string | null;
}

const sizeAt = (block: TextBlock, grow: number) => block.least + (block.most - block.least) * grow;

/** Sets one block from a height downwards. */
function setFrom(block: TextBlock, region: Region, top: number, grow: number): SetBlock | NoRoom {
  const size = sizeAt(block, grow);
  const step = size * LEADING;
  const roomOf = (line: number) => region.room(top + line * step, top + (line + 1) * step);
  const found = broken(block.words, line => {
    const room = roomOf(line);
    return room ? (room.right - room.left) / size : 0;
  });
  if (!found.lines) return { field: block.field, tooWide: found.tooWide };
  const bottom = top + found.lines.length * step;
  if (bottom > region.bottom + 1e-9) return { field: block.field, tooWide: null };
  return {
    block,
    size,
    top,
    bottom,
    lines: found.lines.map((line, i) => {
      const room = roomOf(i) as { left: number; right: number };
      const free = room.right - room.left - line.width * size;
      return { line, left: room.left + (block.align === 'centre' ? free / 2 : 0), top: top + i * step };
    }),
  };
}

/** Sets blocks one beneath the other; in a disc the first begins where it is wide enough. */
export function setDown(
  blocks: readonly TextBlock[],
  region: Region,
  grow: number,
  search = false,
): SetBlock[] | NoRoom {
  const set: SetBlock[] = [];
  let y = region.top;
  for (const block of blocks) {
    if (block.words.length === 0) continue;
    const gap = set.length > 0 ? Math.max(block.before * grow * sizeAt(block, grow), block.clear) : 0;
    let made = setFrom(block, region, y + gap, grow);
    if (search)
      for (
        let down = y + gap + 0.5;
        'tooWide' in made && made.tooWide !== null && down < region.bottom;
        down += 0.5
      )
        made = setFrom(block, region, down, grow);
    if ('tooWide' in made) return made;
    set.push(made);
    y = made.bottom;
  }
  return set;
}

/** Sets one block so that it ends as low as there is room for it. */
export function setAtFoot(block: TextBlock, region: Region, grow: number): SetBlock | NoRoom {
  const step = sizeAt(block, grow) * LEADING;
  let last: SetBlock | NoRoom = { field: block.field, tooWide: null };
  for (let top = region.bottom - step; top >= region.top; top -= Math.min(step, 0.5)) {
    const made = setFrom(block, region, top, grow);
    if (!('tooWide' in made)) return made;
    if (made.tooWide !== null || !('tooWide' in last)) last = made;
  }
  return last;
}

/** Moves what was set down by so much. */
export const movedDown = (set: readonly SetBlock[], by: number): SetBlock[] =>
  set.map(s => ({
    ...s,
    top: s.top + by,
    bottom: s.bottom + by,
    lines: s.lines.map(l => ({ ...l, top: l.top + by })),
  }));

/** What was set, as runs of glyphs of one face each. */
export function drawn(set: readonly SetBlock[], fonts: Fonts): Drawn[] {
  const items: Drawn[] = [];
  for (const { block, size, lines } of set)
    for (const { line, left, top } of lines) {
      const y_mm = top + size * BASELINE;
      let run: { face: FaceId; text: string; xs_mm: number[] } | null = null;
      let end = 0;
      for (const word of line.words) {
        if (!run || run.face !== word.face) {
          if (run)
            items.push({ kind: 'text', field: block.field, ink: block.ink, size_mm: size, y_mm, ...run });
          run = { face: word.face, text: '', xs_mm: [] };
        } else if (word.at > end + 1e-9) {
          run.text += ' ';
          run.xs_mm.push(left + end * size);
        }
        let x = word.at;
        for (const c of word.text) {
          run.text += c;
          run.xs_mm.push(left + x * size);
          x += fonts[word.face].glyph(c)?.advance ?? 0;
        }
        end = word.at + word.width;
      }
      if (run) items.push({ kind: 'text', field: block.field, ink: block.ink, size_mm: size, y_mm, ...run });
    }
  return items;
}
