import { type Fault, type MessageValues, speaker, unreadable } from '@cocotte/core/measure';
import { en } from './en.ts';

/** In what locale figures are written: a tab works in one kitchen. */
let figures = 'en';

/** From now on figures in sentences are written as this kitchen writes them. */
export function figuresAsIn({ locale }: { locale: string }): void {
  figures = locale;
}

/** Codes of the faults among messages: `fault.<code>`, with its why and its next. */
type FaultCode<M> = { [K in keyof M]: K extends `fault.${infer C}.next` ? C : never }[keyof M];

/**
 * The words of the interface, from a table of messages: another language is another table, and its locale here.
 *
 * @returns `say`, a sentence by the name of its message, with plurals as the language and figures as the kitchen has them;
 *   `misread`, a failed reading in the interface's own words: `fault.<code>`, with its why and its next
 */
export function wordsFrom<M extends Readonly<Record<string, string>>>(messages: M) {
  type Id = keyof M & string;
  const inWords = speaker<Id>('en', messages);
  const say = (id: Id, values: MessageValues = {}): string => inWords(id, values, figures);
  const misread = (code: FaultCode<M>, values: MessageValues = {}): { ok: false; fault: Fault } =>
    unreadable(
      String(code),
      say(`fault.${String(code)}` as Id, values),
      say(`fault.${String(code)}.why` as Id, values),
      say(`fault.${String(code)}.next` as Id, values),
    );
  return { say, misread };
}

/**
 * The words of what is loaded first; views say theirs by `views.ts`.
 *
 * @example say('outbox.kept', { n: 1 }) // 'One entry is kept on this device …'
 */
export const { say, misread } = wordsFrom(en);
