import type { Fault } from '@cocotte/core/measure';
import {
  type AnySchema,
  type ISchema,
  ValidationError,
  array,
  boolean,
  lazy,
  mixed,
  number,
  object,
  string,
} from 'yup';

/**
 * The words of which every schema in the contract is made. Each builds the Yup rule and the JSON Schema for OpenAPI
 * together, so that types, messages and the document agree. Nothing is cast and unknown keys are refused.
 */
export type Rule<T> = ISchema<T>;
export type JsonSchema = Record<string, unknown>;
export type ValueOf<R> = R extends Rule<infer T> ? T : never;

const documents = new WeakMap<object, JsonSchema>();
/** Whether a value passes, without words: a quick yes spares Yup, which is only asked for what is wrong. */
type Fits = (value: unknown) => boolean;
const quick = new WeakMap<object, Fits>();

function rule<T>(schema: unknown, document: JsonSchema, fits: Fits): Rule<T> {
  documents.set(schema as object, document);
  quick.set(schema as object, fits);
  return schema as Rule<T>;
}

const fitsOf = (r: Rule<unknown>): Fits => quick.get(r as object) ?? (() => false);
const isObject = (v: unknown): v is Record<string, unknown> =>
  v !== null && typeof v === 'object' && !Array.isArray(v);

/** The JSON Schema of a rule, for OpenAPI. */
export function documentOf(r: Rule<unknown>): JsonSchema {
  const found = documents.get(r as object);
  if (!found) throw new RangeError('documentOf: the rule was not made with the words of rules.ts');
  return found;
}

type Words = Pick<Fault, 'code' | 'what' | 'why' | 'next'>;
const say = (code: string, what: string, why: string, next: string): Words => ({ code, what, why, next });
const missing = say('missing', 'This is missing.', 'It is needed to go on.', 'Fill it in.');
const wrongType = (wanted: string) =>
  say('wrong-type', `This must be ${wanted}.`, 'Nothing is guessed or converted.', `Send ${wanted}.`);

/** Words that hold `min` to `max` characters once trimmed. */
export function text(limits: { min?: number; max: number; name?: string }): Rule<string> {
  const { min = 0, max, name = 'This' } = limits;
  const schema = string()
    .defined(missing)
    .nonNullable(missing)
    .typeError(wrongType('text'))
    .max(
      max,
      say(
        'too-long',
        `${name} is longer than ${max} characters.`,
        'It would not fit where it is shown.',
        'Shorten it.',
      ),
    )
    .test(
      'min',
      say('missing', `${name} is empty.`, 'It is needed to go on.', 'Fill it in.'),
      v => typeof v !== 'string' || v.trim().length >= min,
    );
  return rule(
    schema,
    { type: 'string', minLength: min, maxLength: max },
    v => typeof v === 'string' && v.length <= max && v.trim().length >= min,
  );
}

function patterned(
  pattern: RegExp,
  words: Words,
  document: JsonSchema,
  extra: (v: string) => boolean = () => true,
): Rule<string> {
  const schema = string()
    .defined(missing)
    .nonNullable(missing)
    .typeError(wrongType('text'))
    .test('pattern', words, v => typeof v !== 'string' || (pattern.test(v) && extra(v)));
  return rule(
    schema,
    { type: 'string', pattern: pattern.source, ...document },
    v => typeof v === 'string' && pattern.test(v) && extra(v),
  );
}

/** A UUID made by whoever creates the thing. */
export const uuid = patterned(
  /^[0-9a-f]{8}-[0-9a-f]{4}-[1-8][0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/,
  say('not-an-id', 'This is not an id.', 'Things are found by their UUID.', 'Send a UUID in lower case.'),
  { format: 'uuid' },
);

/** A calendar day, `YYYY-MM-DD`. */
export const day = patterned(
  /^\d{4}-\d{2}-\d{2}$/,
  say('not-a-day', 'This is not a day.', 'Dates follow from it.', 'Enter a day that is in the calendar.'),
  { format: 'date' },
  v => !Number.isNaN(Date.parse(`${v}T00:00:00Z`)) && new Date(`${v}T00:00:00Z`).toISOString().startsWith(v),
);

/** An instant, ISO 8601 in UTC. */
export const instant = patterned(
  /^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}:\d{2}(\.\d{1,3})?Z$/,
  say('not-an-instant', 'This is not a time.', 'Durations follow from it.', 'Send ISO 8601 in UTC.'),
  { format: 'date-time' },
  v => !Number.isNaN(Date.parse(v)),
);

export const email = patterned(
  /^[^\s@]{1,64}@[^\s@]{1,190}$/,
  say(
    'not-an-email',
    'This is not an email address.',
    'It is how you sign in.',
    'Enter it like name@place.example.',
  ),
  {},
);

/** An exact number from 0, `n` or `n/d`, as amounts and shares cross the wire. */
export const rational = patterned(
  /^\d{1,18}(\/[1-9]\d{0,17})?$/,
  say(
    'not-a-fraction',
    'This is not an exact number.',
    'Scaling is exact.',
    'Send it as n or n/d, such as 5/2.',
  ),
  {},
);

/** A password that is new. */
export const newPassword = patterned(
  /^.{10,200}$/s,
  say(
    'weak-password',
    'The password is shorter than 10 characters.',
    'The record of what people eat hangs on it.',
    'Use 10 characters or more; a few words do well.',
  ),
  { minLength: 10, maxLength: 200 },
);

/** Decimal text within limits, as money and stock cross the wire. */
export function decimal(limits: {
  min: number;
  max: number;
  above?: boolean;
  /** Decimals it may have, 9 unless given. */
  places?: number;
  name: string;
}): Rule<string> {
  const { min, max, above, places = 9, name } = limits;
  const words = say(
    'out-of-range',
    `${name} must be ${above ? 'above' : 'at least'} ${min} and at most ${max}.`,
    'A figure outside these limits is a slip, not an amount.',
    'Enter a plain figure such as 12.50.',
  );
  return patterned(
    new RegExp(`^-?\\d{1,12}(\\.\\d{1,${places}})?$`),
    words,
    { format: 'decimal' },
    v => (above ? Number(v) > min : Number(v) >= min) && Number(v) <= max,
  );
}

/** A finite number within limits; the message names the limit and why it is there. */
export function figure(limits: {
  min: number;
  max: number;
  above?: boolean;
  whole?: boolean;
  name: string;
  why?: string;
}): Rule<number> {
  const { min, max, above, whole, name } = limits;
  const why = limits.why ?? 'A figure outside these limits is a slip, not a measurement.';
  const schema = number()
    .defined(missing)
    .nonNullable(missing)
    .typeError(wrongType('a number'))
    .test(
      'finite',
      say('not-a-number', `${name} is not a number.`, why, 'Enter a figure.'),
      v => v === undefined || v === null || Number.isFinite(v),
    )
    .test(
      'whole',
      say('not-whole', `${name} must be a whole number.`, why, 'Leave out the fraction.'),
      v => !whole || v == null || !Number.isFinite(v) || Number.isInteger(v),
    )
    .test(
      'min',
      say('too-small', `${name} must be ${above ? 'above' : 'at least'} ${min}.`, why, 'Check the figure.'),
      v => v == null || (above ? v > min : v >= min),
    )
    .test(
      'max',
      say('too-large', `${name} must be at most ${max}.`, why, 'Check the figure.'),
      v => v == null || v <= max,
    );
  return rule(
    schema,
    { type: whole ? 'integer' : 'number', [above ? 'exclusiveMinimum' : 'minimum']: min, maximum: max },
    v =>
      typeof v === 'number' &&
      (whole ? Number.isInteger(v) : Number.isFinite(v)) &&
      (above ? v > min : v >= min) &&
      v <= max,
  );
}

export const flag: Rule<boolean> = rule(
  boolean().defined(missing).nonNullable(missing).typeError(wrongType('true or false')),
  { type: 'boolean' },
  v => typeof v === 'boolean',
);

/** One of a fixed set of words. */
export function choice<const T extends string | number>(values: readonly T[]): Rule<T> {
  const words = say(
    'not-a-choice',
    `This must be one of: ${values.join(', ')}.`,
    'Nothing else has a meaning here.',
    'Choose one of them.',
  );
  return rule(
    mixed()
      .defined(missing)
      .test('choice', words, v => (values as readonly unknown[]).includes(v)),
    { enum: [...values] },
    v => (values as readonly unknown[]).includes(v),
  );
}

/** The same, or null. */
export function maybe<T>(inner: Rule<T>): Rule<T | null> {
  const schema = lazy(value => (value === null ? mixed().nullable() : (inner as unknown as AnySchema)));
  const fits = fitsOf(inner);
  return rule(schema, { oneOf: [documentOf(inner), { type: 'null' }] }, v => v === null || fits(v));
}

/** A list with limits on its length. */
export function list<T>(inner: Rule<T>, limits: { min?: number; max: number }): Rule<T[]> {
  const { min = 0, max } = limits;
  const schema = array(inner as AnySchema)
    .defined(missing)
    .nonNullable(missing)
    .typeError(wrongType('a list'))
    .test(
      'min',
      say(
        'too-few',
        min === 1 ? 'At least one is needed.' : `At least ${min} are needed.`,
        'There is nothing to do with fewer.',
        'Add one.',
      ),
      v => !Array.isArray(v) || v.length >= min,
    )
    .test(
      'max',
      say('too-many', `More than ${max} at once.`, 'One request has a limit.', 'Send it in parts.'),
      v => !Array.isArray(v) || v.length <= max,
    );
  const fits = fitsOf(inner);
  return rule(
    schema,
    { type: 'array', items: documentOf(inner), minItems: min, maxItems: max },
    v => Array.isArray(v) && v.length >= min && v.length <= max && v.every(fits),
  );
}

/** An object with exactly these keys. Declared against the domain type, so that a drift fails the type check. */
export function shape<T extends object>(fields: { [K in keyof T]-?: Rule<T[K]> }): Rule<T> {
  const schema = object(fields as unknown as Record<string, AnySchema>)
    .defined(missing)
    .nonNullable(missing)
    .typeError(wrongType('an object'))
    .noUnknown(true, ((params: { unknown?: string }) =>
      say(
        'unknown-key',
        `There is a key that is not known: ${params.unknown ?? ''}.`,
        'A misspelt key would be lost in silence.',
        'Remove it or correct its name.',
      )) as never)
    .strict(true);
  const properties = Object.fromEntries(
    Object.entries(fields).map(([key, field]) => [key, documentOf(field as Rule<unknown>)]),
  );
  const names = Object.keys(fields);
  const each = names.map(
    name => [name, fitsOf((fields as Record<string, Rule<unknown>>)[name] as Rule<unknown>)] as const,
  );
  return rule(
    schema,
    { type: 'object', properties, required: names, additionalProperties: false },
    v =>
      isObject(v) &&
      Object.keys(v).every(key => Object.hasOwn(fields, key)) &&
      each.every(([name, fits]) => Object.hasOwn(v, name) && fits(v[name])),
  );
}

/** An object whose keys are free and whose values follow one rule. */
export function dictionary<T>(inner: Rule<T>): Rule<Record<string, T>> {
  const schema = lazy(value =>
    object(
      value !== null && typeof value === 'object'
        ? Object.fromEntries(Object.keys(value).map(k => [k, inner as unknown as AnySchema]))
        : {},
    )
      .defined(missing)
      .nonNullable(missing),
  );
  const fits = fitsOf(inner);
  return rule(
    schema,
    { type: 'object', additionalProperties: documentOf(inner) },
    v => isObject(v) && Object.values(v).every(fits),
  );
}

/**
 * A union told apart by one key. The branch is known before it is checked, so messages speak of the right one.
 *
 * @param key  the key that names the branch
 * @param branches  value of the key → rule for the whole object, key included
 */
export function union<T>(key: string, branches: Record<string, Rule<unknown>>): Rule<T> {
  const names = Object.keys(branches);
  const unknown = object()
    .defined(missing)
    .nonNullable(missing)
    .typeError(wrongType('an object'))
    .test(
      'branch',
      say(
        'not-a-choice',
        `"${key}" must be one of: ${names.join(', ')}.`,
        'It says what kind of thing this is.',
        'Choose one of them.',
      ),
      () => false,
    );
  const schema = lazy((value: unknown) => {
    const name =
      value !== null && typeof value === 'object' ? (value as Record<string, unknown>)[key] : undefined;
    return (
      typeof name === 'string' && Object.hasOwn(branches, name) ? branches[name] : unknown
    ) as AnySchema;
  });
  const fits = new Map(Object.entries(branches).map(([name, branch]) => [name, fitsOf(branch)]));
  return rule(
    schema,
    { oneOf: Object.values(branches).map(documentOf), discriminator: { propertyName: key } },
    v => isObject(v) && (fits.get(v[key] as string)?.(v) ?? false),
  );
}

/** Nothing at all: no params, no query, no body. */
export const nothing = shape<Record<never, never>>({});

/**
 * Checks a value against a rule without casting anything.
 *
 * @returns the same value, typed, or every fault with its path
 */
export function check<T>(
  r: Rule<T>,
  value: unknown,
): { ok: true; value: T } | { ok: false; faults: Fault[] } {
  if (fitsOf(r)(value)) return { ok: true, value: value as T };
  try {
    (r as unknown as AnySchema).validateSync(value, { abortEarly: false, strict: true });
    return { ok: true, value: value as T };
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    const inner = error.inner.length > 0 ? error.inner : [error];
    const seen = new Set<string>();
    const faults = inner
      .flatMap(e =>
        (e.errors as unknown as (Words | string)[]).map(words => ({
          path: (e.path ?? '')
            .replaceAll(/\["?([^"\]]+)"?\]/g, (_, k: string) => (/^\d+$/.test(k) ? `[${k}]` : `.${k}`))
            .replace(/^\./, ''),
          ...(typeof words === 'string'
            ? say('invalid', words, 'The value does not fit.', 'Correct it.')
            : words),
        })),
      )
      .filter(f => !seen.has(f.path) && seen.add(f.path));
    return { ok: false, faults };
  }
}
