import { type Fault } from './fault.ts';
import { type MessageValues, speaker } from './message.ts';

/**
 * What the readers of figures and amounts say of what they cannot read, in ICU message syntax: what is wrong under its
 * code, why it matters under `.why`, what to do under `.next`.
 */
const en = {
  missing: 'Nothing is entered here.',
  'missing.why': 'The figure is needed to go on.',
  'missing.next': 'Type a number.',
  'currency-sign': 'There is a currency sign in a number field.',
  'currency-sign.why': 'The kitchen already has its currency.',
  'currency-sign.next': 'Type the figure alone.',
  'divided-by-nothing': '"{text}" divides by nothing.',
  'divided-by-nothing.why': 'A fraction needs a lower figure above zero.',
  'divided-by-nothing.next': 'Type it like 2 1/2.',
  'ambiguous-number': '"{text}" can be read in two ways here.',
  'ambiguous-number.why': 'In this kitchen "{decimal}" begins the decimals and "{group}" groups thousands.',
  'ambiguous-number.next': 'Type it with "{decimal}" for decimals.',
  'not-a-number': '"{text}" is not a number.',
  'not-a-number.why': 'Only figures can be calculated with.',
  'not-a-number.next': 'Type it like {sample, number} or 2 1/2.',
  'not-finite': '{name} is not a number.',
  'not-finite.why': '{why}',
  'not-finite.next': 'Type a figure.',
  'not-whole': '{name} must be a whole number.',
  'not-whole.why': '{why}',
  'not-whole.next': 'Leave out the fraction.',
  'too-small': '{name} must be {itself, select, no {above} other {at least}} {limit}.',
  'too-small.why': '{why}',
  'too-small.next': 'Type a figure {itself, select, no {above} other {from}} {limit}.',
  'too-large': '{name} must be at most {limit}.',
  'too-large.why': '{why}',
  'too-large.next': 'Type a figure up to {limit}.',
  'limits.why': 'A figure outside these limits is a slip of the finger, not a measurement.',
  'range-backwards': 'The range ends before it begins.',
  'range-backwards.why': 'Which figure is the lower one decides what may go in.',
  'range-backwards.next': 'Type the lower figure first, such as 6-7 c.',
  'not-positive': 'An amount must be above zero.',
  'not-positive.why': 'A line with nothing in it cannot be scaled.',
  'not-positive.next': 'Type the amount, or remove the line.',
  'to-taste-bare': '"To taste" has no range.',
  'to-taste-bare.why': 'Without limits nothing can be bought, costed or labelled.',
  'to-taste-bare.next':
    'Type the range it stays within, such as 1-2 tsp to taste; what was used is weighed in the batch.',
  'no-amount': '"{text}" has no amount at its start.',
  'no-amount.why': 'Scaling and weighing need a figure and a unit.',
  'no-amount.next': 'Type it like 2 1/2 c, 250 g or 8.',
  'unknown-unit': '"{text}" is not a unit we know.',
  'unknown-unit.why': 'Without a known unit the amount cannot be weighed or scaled.',
  'unknown-unit.next': 'Use g, kg, oz, lb, tsp, Tbsp, c, pt, qt, mL, L, bushel, or a count.',
} as const;

type Id = keyof typeof en;
/** What a reader can find: each has its why and its next. */
type Found = { [K in Id]: `${K}.next` extends Id ? K : never }[Id];

/** Says one message of the readers. */
export const sayOfFigures = speaker<Id>('en', en);

/**
 * A failed reading, in the words of {@link en}.
 *
 * @param found  what is wrong: the name of its message
 * @param locale  the kitchen's, in which figures in the sentence are written
 * @param values  what stands in the braces of the three sentences
 * @param code  stable for programs, where it is not the name of the message
 */
export function misread(
  found: Found,
  locale: string,
  values: MessageValues = {},
  code: string = found,
): { ok: false; fault: Fault } {
  const text = (id: Id) => sayOfFigures(id, values, locale);
  return {
    ok: false,
    fault: {
      path: '',
      code,
      what: text(found),
      why: text(`${found}.why`),
      next: text(`${found}.next`),
    },
  };
}
