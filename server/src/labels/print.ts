import type { EventBodies, LabelStock } from '@cocotte/core/batches';
import { codeSymbol, type LabelAsk, layOut, withNearest } from '@cocotte/core/labels';
import type { Fault } from '@cocotte/core/measure';
import { labelFonts, writeSymbol } from './faces.ts';

/** How labels lie on what they are printed on, and what they say. */
export type Print = Omit<EventBodies['labels.printed'], 'read' | 'jars'>;

/** What a print is laid out from. */
export const askOf = ({ label, design, stock, look, container, codes }: Print): LabelAsk => ({
  label,
  design,
  size_mm: stock.label_mm,
  shape: stock.shape,
  look,
  container,
  form: stock.form,
  codes: codes.map(c => codeSymbol(c, writeSymbol)),
});

/**
 * Why a print cannot be laid out, with the nearest stock on which it can; none where it can.
 *
 * @param others  stocks of the kitchen, beside those that ship
 */
export function printFaults(print: Print & { others: readonly LabelStock[] }): Fault[] {
  const ask = askOf(print);
  const made = layOut(ask, labelFonts());
  return made.ok ? [] : withNearest(made.faults, ask, print.stock, print.others, labelFonts());
}
