import IntlMessageFormat from 'intl-messageformat';
import { en } from './en.ts';

type Values = Record<string, string | number>;
export type MessageId = keyof typeof en;

/** The words of the interface: another language is another file like `en.ts`, and its locale here. */
const LANGUAGE = { locale: 'en', messages: en };
const read = new Map<MessageId, IntlMessageFormat>();

/**
 * A sentence of the interface, with its figures and plurals as the language has them.
 *
 * @param id  name of the message
 * @param values  what stands in its braces; figures are written as the language writes them
 * @returns the sentence
 * @example say('outbox.kept', { n: 1 }) // 'One entry is kept on this device …'
 */
export function say(id: MessageId, values: Values = {}): string {
  let message = read.get(id);
  if (!message) {
    message = new IntlMessageFormat(LANGUAGE.messages[id], LANGUAGE.locale);
    read.set(id, message);
  }
  return String(message.format(values));
}
