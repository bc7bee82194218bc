import IntlMessageFormat, { type Formatters } from 'intl-messageformat';
import { numberFormat, timeFormat } from './intl.ts';

/** What stands in the braces of a message. */
export type MessageValues = Record<string, string | number>;

/** Says one of a language's messages, its figures in a locale of their own. */
export type Speaker<Id extends string> = (id: Id, values?: MessageValues, figures?: string) => string;

/** Plurals follow the language, figures and times the kitchen. */
const formattersIn = (figures: string): Formatters => ({
  getNumberFormat: (_, options) => numberFormat(figures, options as Intl.NumberFormatOptions),
  getDateTimeFormat: (_, options) => timeFormat(figures, options as Intl.DateTimeFormatOptions),
  getPluralRules: (locales, options) =>
    new Intl.PluralRules(locales as string, options as Intl.PluralRulesOptions),
});

/**
 * The one way to say a sentence with something in it: messages in ICU syntax, so that another language is another table.
 *
 * @param language  BCP 47, of the words: it decides the plurals
 * @param messages  each sentence by its name
 * @returns the function that says them; `figures` is the locale figures are written in, the kitchen's rather than the
 * language's. A value that is missing throws
 * @example
 * const say = speaker('en', { jars: '{n, plural, one {# jar} other {# jars}}' });
 * say('jars', { n: 1 }); // '1 jar'
 * say('jars', { n: 1200 }, 'de-DE'); // '1.200 jars'
 */
export function speaker<Id extends string>(
  language: string,
  messages: Readonly<Record<Id, string>>,
): Speaker<Id> {
  const read = new Map<string, IntlMessageFormat>();
  return (id, values = {}, figures = language) => {
    const name = `${figures} ${id}`;
    let message = read.get(name);
    if (!message) {
      message = new IntlMessageFormat(messages[id], language, undefined, {
        formatters: formattersIn(figures),
      });
      read.set(name, message);
    }
    return String(message.format(values));
  };
}
