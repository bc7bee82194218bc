import {
  type Pasted,
  type PastedLine,
  type PastedStep,
  type Settled,
  missingWeight,
} from '@cocotte/core/exchange';
import type { Ingredient } from '@cocotte/core/ingredients';
import { readAmount } from '@cocotte/core/measure';
import { basisFor, factsOf, type Recipe } from '@cocotte/core/recipes';

/** What a person settled about one pasted line. */
export interface LineChoice {
  amount?: string;
  unit?: string;
  ingredientId?: string;
  basis?: 'prepared' | 'as bought';
  /** How much is expected of what it is so much for each of. */
  expects?: string;
}

/** What a person settled of a text: of lines by their row and words, so that editing the text keeps the rest. */
export interface Choices {
  lines: Record<string, LineChoice>;
  /** Of a step, which of the other readings of its doubt was taken; -1 where the first was found right. */
  steps: Record<string, number>;
  facts: Partial<Omit<Settled['facts'], 'method'>> & { method: Partial<Recipe['method']> };
  /** The published entry it follows; empty for none. */
  entryId: string;
  /** Rows that were looked at and go into the notes. */
  seen: string[];
}

export const NOTHING_CHOSEN: Choices = { lines: {}, steps: {}, facts: { method: {} }, entryId: '', seen: [] };

export const lineKey = (line: Pick<PastedLine, 'number' | 'text'>) => `${line.number} ${line.text}`;
export const stepKey = (step: PastedStep) => `${step.number} ${step.step.text}`;

/** A pasted line with what the person settled put in. */
export function settledLine(
  read: PastedLine,
  by: LineChoice | undefined,
  locale: string,
  byId: ReadonlyMap<string, Ingredient>,
): PastedLine {
  if (!by) return read;
  let { line, faults, ask, unread, which } = read;
  const typed = by.amount === undefined ? null : readAmount(by.amount, locale);
  if (typed) {
    faults = faults.filter(f => f.path !== 'amount');
    if (typed.ok) line = { ...line, amount: typed.value };
    else faults = [...faults, { ...typed.fault, path: 'amount' }];
  }
  const chosen = by.ingredientId === undefined ? undefined : byId.get(by.ingredientId);
  if (chosen) {
    unread = '';
    which = [];
  }
  const ingredient = chosen ?? byId.get(line.ingredientId ?? '');
  if (ingredient && (chosen || typed?.ok)) {
    // What one weighs, and which weight is meant, hang on the unit as on the thing.
    const facts = factsOf(ingredient, line.amount, `${line.name} ${line.preparation}`);
    line = { ...line, ...facts, basis: basisFor(line.amount, line.name, facts.trimYield < 0.999) };
    const inAmount = faults.filter(f => f.path === 'amount');
    faults = inAmount.length > 0 ? inAmount : missingWeight(line);
  }
  const choice = ask?.choices.find(c => c.amount.unit === by.unit);
  if (choice) {
    line = { ...line, amount: { ...line.amount, unit: choice.amount.unit } };
    ask = null;
  }
  if (by.basis) line = { ...line, basis: by.basis };
  return { ...read, line, faults, ask, unread, which };
}

/** A step with the reading that was chosen. */
export function settledStep(read: PastedStep, chosen: number | undefined): PastedStep {
  if (chosen === undefined) return read;
  const other = read.doubts[0]?.others[chosen];
  return { ...read, step: { ...read.step, ...other?.value }, doubts: [] };
}

/** Facts of the whole, as they were chosen, else as they were read. */
export function settledFacts({ facts }: Pasted, chosen: Choices['facts']): Settled['facts'] {
  return {
    product: chosen.product ?? facts.product.value,
    setBy: chosen.setBy ?? facts.setBy.value,
    makes: chosen.makes ?? facts.makes.value,
    method: {
      peel: chosen.method.peel ?? facts.peel.value,
      cut: chosen.method.cut ?? facts.cut.value,
      strain: chosen.method.strain ?? facts.strain.value,
      liquid: chosen.method.liquid ?? facts.liquid.value,
      pack: chosen.method.pack ?? facts.pack.value,
    },
  };
}
