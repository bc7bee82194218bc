import type { Instrument } from './instruments.ts';

/** What was printed dot by dot: rows from the top, eight dots a byte, the left one highest; a set one is black. */
export interface PrintedPicture {
  across: number;
  tall: number;
  rows: Uint8Array;
}
/** A label as it came off the roll. */
export interface Printed {
  lines: string[];
  picture: PrintedPicture | null;
  copies: number;
}

/** Longest text of one line of a small label, and most lines on it. */
const LINE_LENGTH = 40;
const LINES = 4;
/** Its head: eight dots to a millimetre, 104 mm wide; longest label in dots. */
export const HEAD = { dots_per_mm: 8, across: 832, tall: 2400 };

/** A printer of small labels on a roll, which shows how many are left. */
export function labelPrinter(
  roll = 500,
  onPrinted: (label: Printed) => void = () => undefined,
): Instrument & { printed: Printed[] } {
  let left = roll;
  let lines: string[] = [];
  let picture: PrintedPicture | null = null;
  const printed: Printed[] = [];

  const page = (across: number, tall: number): string => {
    lines = [];
    picture = null;
    if (across < 1 || tall < 1 || across > HEAD.across || tall > HEAD.tall)
      return 'NO the page is larger than the head';
    picture = { across, tall, rows: new Uint8Array(Math.ceil(across / 8) * tall) };
    return 'OK';
  };
  const rows = (first: number, last: number, base64: string): string => {
    if (!picture) return 'NO there is no page';
    const wide = Math.ceil(picture.across / 8);
    if (first > last || last >= picture.tall) return 'NO there is no such row';
    let dots: Uint8Array;
    try {
      dots = Uint8Array.from(atob(base64), c => c.charCodeAt(0));
    } catch {
      return 'NO these are no dots';
    }
    if (dots.length !== wide) return 'NO the row is not as wide as the page';
    for (let y = first; y <= last; y++) picture.rows.set(dots, y * wide);
    return 'OK';
  };
  const print = (copies: number): string => {
    const label = { lines, picture, copies };
    lines = [];
    picture = null;
    if ((label.lines.length === 0 && !label.picture) || copies === 0) return 'NO nothing to print';
    if (copies > left) return `NO only ${left} labels are left on the roll`;
    left -= copies;
    printed.push(label);
    onPrinted(label);
    return 'OK';
  };

  return {
    id: 'printer-1',
    kind: 'label printer',
    name: 'Label printer',
    unit: 'labels',
    calibrated: null,
    head: HEAD,
    printed,
    tick: () => undefined,
    show: () => ({ value: left, steady: true }),
    scene(name, figure) {
      if (name !== 'roll') return false;
      left = Math.max(0, Math.round(figure));
      return true;
    },
    obey(line) {
      if (line.startsWith('LINE ')) {
        const text = line.slice('LINE '.length);
        // Words begin a label anew: a picture that was broken off is none.
        picture = null;
        if (text.length > LINE_LENGTH) return 'NO the line is too long';
        if (lines.length >= LINES) return 'NO too many lines';
        lines.push(text);
        return 'OK';
      }
      const size = /^PAGE (\d{1,5}) (\d{1,5})$/.exec(line);
      if (size) return page(Number(size[1]), Number(size[2]));
      const row = /^ROWS (\d{1,5}) (\d{1,5}) ([A-Za-z0-9+/]+=*)$/.exec(line);
      if (row) return rows(Number(row[1]), Number(row[2]), row[3] as string);
      const asked = /^PRINT (\d{1,4})$/.exec(line);
      return asked ? print(Number(asked[1])) : null;
    },
  };
}
