import { type Fault, type MessageValues, speaker, unreadable } from '@cocotte/core/measure';
import { en } from './en.ts';

export type MessageId = keyof typeof en;

/** The words of the interface: another language is another file like `en.ts`, and its locale here. */
const inWords = speaker<MessageId>('en', en);

/** In what locale figures are written: a tab works in one kitchen. */
let figures = 'en';

/** From now on figures in sentences are written as this kitchen writes them. */
export function figuresAsIn({ locale }: { locale: string }): void {
  figures = locale;
}

/**
 * A sentence of the interface, with plurals as the language and figures as the kitchen has them.
 *
 * @param id  name of the message
 * @param values  what stands in its braces
 * @returns the sentence
 * @example say('outbox.kept', { n: 1 }) // 'One entry is kept on this device …'
 */
export const say = (id: MessageId, values: MessageValues = {}): string => inWords(id, values, figures);

type FaultCode = { [K in MessageId]: K extends `fault.${infer C}.next` ? C : never }[MessageId];

/** A failed reading in the interface's own words: `fault.<code>`, with its why and its next. */
export const misread = (code: FaultCode, values: MessageValues = {}): { ok: false; fault: Fault } =>
  unreadable(
    code,
    say(`fault.${code}`, values),
    say(`fault.${code}.why`, values),
    say(`fault.${code}.next`, values),
  );
