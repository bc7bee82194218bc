import type { Instrument } from './instruments.ts';

/** A label as it came off the roll. */
export interface Printed {
  lines: string[];
  copies: number;
}

/** Longest text of one line of a small label, and most lines on it. */
const LINE_LENGTH = 40;
const LINES = 4;

/** A printer of small labels on a roll, which shows how many are left. */
export function labelPrinter(
  roll = 500,
  onPrinted: (label: Printed) => void = () => undefined,
): Instrument & { printed: Printed[] } {
  let left = roll;
  let lines: string[] = [];
  const printed: Printed[] = [];
  return {
    id: 'printer-1',
    kind: 'label printer',
    name: 'Label printer',
    unit: 'labels',
    calibrated: null,
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
        if (text.length > LINE_LENGTH) return 'NO the line is too long';
        if (lines.length >= LINES) return 'NO too many lines';
        lines.push(text);
        return 'OK';
      }
      const asked = /^PRINT (\d{1,4})$/.exec(line);
      if (!asked) return null;
      const copies = Number(asked[1]);
      const label = { lines, copies };
      lines = [];
      if (label.lines.length === 0 || copies === 0) return 'NO nothing to print';
      if (copies > left) return `NO only ${left} labels are left on the roll`;
      left -= copies;
      printed.push(label);
      onPrinted(label);
      return 'OK';
    },
  };
}
