import {
  type Amount,
  type AmountHint,
  type Fault,
  type Reading,
  UNITS,
  celsius,
  readAmount,
  readNumber,
} from '@cocotte/core/measure';
import type { Kitchen } from '@cocotte/core/kitchen';
import { listed, missing } from '../../kit/readers.ts';
import { misread } from '../../words/views.ts';

export type HintOf = (ingredientId: string | null) => AmountHint;

/** Readers that note each fault with its path and go on with a stand-in, so that every fault is found at once. */
export class Reader {
  readonly faults: Fault[] = [];
  constructor(
    readonly kitchen: Kitchen,
    /** What is known of an ingredient, to notice an amount that means two things. */
    readonly hintOf: HintOf = () => ({}),
  ) {}

  take<T>(path: string, reading: Reading<T>, standIn: T): T {
    if (reading.ok) return reading.value;
    this.faults.push({ ...reading.fault, path });
    return standIn;
  }

  must(path: string, text: string, what: string): string {
    if (text.trim() === '') this.faults.push(missing(`${what} is empty.`, undefined, undefined, path));
    return text.trim();
  }

  number(
    path: string,
    text: string,
    name: string,
    min: number,
    max: number,
    more: { whole?: boolean; above?: boolean; unit?: string } = {},
  ): number {
    return this.take(path, readNumber(text, this.kitchen.locale, { name, min, max, ...more }), min);
  }

  maybe(path: string, text: string, name: string, min: number, max: number): number | null {
    return text.trim() === '' ? null : this.number(path, text, name, min, max);
  }

  /** Percent as typed, as a share. */
  share(path: string, text: string, name: string, min = 0, max = 100): number {
    return this.number(path, text, name, min, max, { unit: ' %' }) / 100;
  }

  amount(path: string, text: string, chosenUnit = '', hint: AmountHint = {}): Amount {
    const standIn: Amount = { text: '1', unit: 'each', value: '1', upTo: null, toTaste: false };
    const read = readAmount(text, this.kitchen.locale, hint);
    if (!read.ok) {
      this.faults.push({ ...read.fault, path });
      return standIn;
    }
    const { value, ask } = read;
    if (ask && chosenUnit === '')
      this.faults.push({
        ...misread('ambiguous', { what: ask.what, choices: ask.choices.map(c => c.label).join(' or ') })
          .fault,
        path,
      });
    // Two units of one name and kind differ only by the reading chosen.
    const chosen = Object.values(UNITS).find(u => u.id === chosenUnit);
    return chosen && TWINS[value.unit]?.includes(chosen.id) ? { ...value, unit: chosen.id } : value;
  }
}

/** Names with commas between, each once. */
export const namesIn = (text: string) => listed(text).value;

/** Units that one word may mean. */
const TWINS: Partial<Record<Amount['unit'], Amount['unit'][]>> = {
  oz: ['oz', 'floz'],
  pint: ['pint', 'dry pint'],
  quart: ['quart', 'dry quart'],
};

/** To the millionth, so that a figure that is read back is the figure that was typed. */
export const inCelsius = (degrees_F: number) => Math.round(celsius(degrees_F) * 1e6) / 1e6;
