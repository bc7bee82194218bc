import { type Fault, type Names, byName } from '@cocotte/core/measure';
import {
  type AnySchema,
  type ISchema,
  ValidationError,
  array,
  boolean,
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
/** A JSON Schema, as the OpenAPI document prints it. */
export type JsonSchema = Record<string, unknown>;
/** Type of what a rule lets through. */
export type ValueOf<R> = R extends Rule<infer T> ? T : never;

/** A part of a value: where it lies in it, the rule it follows, and itself. */
type Part = readonly [place: string | number, rule: Rule<unknown>, value: unknown];

interface Making {
  document: JsonSchema;
  /** Whether a value passes, without words: a quick yes spares Yup, which is only asked for what is wrong. */
  fits: (value: unknown) => boolean;
  /** What a value consists of. The Yup rule of a whole says nothing of its parts: each is asked by itself. */
  parts?: (value: unknown) => Iterable<Part>;
}
const makings = new WeakMap<object, Making>();

function rule<T>(schema: unknown, making: Making): Rule<T> {
  makings.set(schema as object, making);
  return schema as Rule<T>;
}

function makingOf(r: Rule<unknown>): Making {
  const found = makings.get(r as object);
  if (!found) throw new RangeError('The rule was not made with the words of rules.ts.');
  return found;
}
const fitsOf = (r: Rule<unknown>): Making['fits'] => makingOf(r).fits;
const isObject = (v: unknown): v is Record<string, unknown> =>
  v !== null && typeof v === 'object' && !Array.isArray(v);

/** The JSON Schema of a rule, for OpenAPI. */
export function documentOf(r: Rule<unknown>): JsonSchema {
  return makingOf(r).document;
}

type Words = Pick<Fault, 'code' | 'what' | 'why' | 'next'>;
const say = (code: string, what: string, why: string, next: string): Words => ({ code, what, why, next });
const missing = say('missing', 'This is missing.', 'It is needed to go on.', 'Fill it in.');
const wrongType = (wanted: string) =>
  say('wrong-type', `This must be ${wanted}.`, 'Nothing is guessed or converted.', `Send ${wanted}.`);

/** What no text may hold: NUL, which PostgreSQL does not keep, and halves of a character, which UTF-8 has none of. */
const NOT_TEXT = /[\0\p{Surrogate}]/u;
const notText = say(
  'not-text',
  'This holds a character that is none.',
  'It could not be kept or printed as it was sent.',
  'Enter it again, without what was pasted in.',
);
/** The same for those who read the document; halves of a character cannot be said in a pattern that all read alike. */
const NO_NUL = '^[^\\u0000]*$';
/** As much of a name from outside as is repeated to whoever sent it. */
const briefly = (name: string) =>
  (name.length > 60 ? `${name.slice(0, 60)}…` : name).replaceAll(new RegExp(NOT_TEXT, 'gu'), '?');

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
    .test('text', notText, v => typeof v !== 'string' || v.length > max || !NOT_TEXT.test(v))
    .test(
      'min',
      say('missing', `${name} is empty.`, 'It is needed to go on.', 'Fill it in.'),
      v => typeof v !== 'string' || v.length > max || v.trim().length >= min,
    );
  return rule(schema, {
    document: { type: 'string', minLength: min, maxLength: max, pattern: NO_NUL },
    fits: v => typeof v === 'string' && v.length <= max && v.trim().length >= min && !NOT_TEXT.test(v),
  });
}

/** No text of a pattern is longer: what is, is refused before it is looked at. */
const LONGEST_PATTERNED = 300;

function patterned(
  pattern: RegExp,
  words: Words,
  document: JsonSchema,
  extra: (v: string) => boolean = () => true,
): Rule<string> {
  const matches = (v: string) => v.length <= LONGEST_PATTERNED && pattern.test(v) && extra(v);
  const schema = string()
    .defined(missing)
    .nonNullable(missing)
    .typeError(wrongType('text'))
    .test('text', notText, v => typeof v !== 'string' || v.length > LONGEST_PATTERNED || !NOT_TEXT.test(v))
    .test('pattern', words, v => typeof v !== 'string' || matches(v));
  return rule(schema, {
    document: { type: 'string', pattern: pattern.source, ...document },
    fits: v => typeof v === 'string' && matches(v) && !NOT_TEXT.test(v),
  });
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

/** An instant, ISO 8601 in UTC, from 2000 to 2100: a clock that shows another century is not set. */
export const instant = patterned(
  /^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}:\d{2}(\.\d{1,3})?Z$/,
  say(
    'not-an-instant',
    'This is not a time between the years 2000 and 2100.',
    'Durations follow from it, and a clock that shows another century is not set.',
    "Send ISO 8601 in UTC; set the device's clock.",
  ),
  { format: 'date-time' },
  v => !Number.isNaN(Date.parse(v)) && v >= '2000' && v < '2101',
);

/** A colour, `#rrggbb`. */
export const colour = patterned(
  /^#[0-9A-Fa-f]{6}$/,
  say('not-a-colour', 'This is no colour.', 'It is printed.', 'Enter it as #rrggbb.'),
  {},
);

/** Rule of an email address. */
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

/** A PIN that is new: four to eight digits, and not one digit all along. */
export const newPin = patterned(
  /^(?!(\d)\1+$)\d{4,8}$/,
  say(
    'weak-pin',
    'The PIN is not four to eight digits, or is one digit all along.',
    'Whoever stands beside you must not hit on it.',
    'Choose four to eight digits.',
  ),
  { minLength: 4, maxLength: 8 },
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
  return rule(schema, {
    document: {
      type: whole ? 'integer' : 'number',
      [above ? 'exclusiveMinimum' : 'minimum']: min,
      maximum: max,
    },
    fits: v =>
      typeof v === 'number' &&
      (whole ? Number.isInteger(v) : Number.isFinite(v)) &&
      (above ? v > min : v >= min) &&
      v <= max,
  });
}

/** Rule of yes or no. */
export const flag: Rule<boolean> = rule(
  boolean().defined(missing).nonNullable(missing).typeError(wrongType('true or false')),
  { document: { type: 'boolean' }, fits: v => typeof v === 'boolean' },
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
    { document: { enum: [...values] }, fits: v => (values as readonly unknown[]).includes(v) },
  );
}

/** The same, or null. */
export function maybe<T>(inner: Rule<T>): Rule<T | null> {
  const fits = fitsOf(inner);
  return rule(mixed().nullable(), {
    document: { oneOf: [documentOf(inner), { type: 'null' }] },
    fits: v => v === null || fits(v),
    parts: v => (v === null ? [] : [['', inner, v]]),
  });
}

/** A key that may be left out of its object. */
export function optional<T>(inner: Rule<T>): Rule<T | undefined> {
  const fits = fitsOf(inner);
  const made = rule<T | undefined>(mixed(), {
    document: documentOf(inner),
    fits: v => v === undefined || fits(v),
    parts: v => (v === undefined ? [] : [['', inner, v]]),
  });
  optionals.add(made as object);
  return made;
}
const optionals = new WeakSet<object>();

/**
 * A value that is looked at later, one by one: here any object passes, so that what is wrong with one does not fail the
 * others. The document shows the rule it will be held against.
 */
export function later<T>(inner: Rule<T>): Rule<T> {
  return rule(object().defined(missing).nonNullable(missing).typeError(wrongType('an object')), {
    document: { anyOf: [documentOf(inner), { type: 'object' }] },
    fits: isObject,
  });
}

/** A list with limits on its length. */
export function list<T>(
  inner: Rule<T>,
  limits: {
    min?: number;
    max: number;
    /** Each of its values, all of them figures or words, stands in it once. */
    unlike?: boolean;
  },
): Rule<T[]> {
  const { min = 0, max, unlike = false } = limits;
  const twice = (v: unknown[]) => unlike && new Set(v).size < v.length;
  const schema = array()
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
    )
    .test(
      'unlike',
      say('twice', 'One of these stands here twice.', 'Each is counted once.', 'Name each once.'),
      v => !Array.isArray(v) || !twice(v),
    );
  const fits = fitsOf(inner);
  return rule(schema, {
    document: {
      type: 'array',
      items: documentOf(inner),
      minItems: min,
      maxItems: max,
      ...(unlike ? { uniqueItems: true } : {}),
    },
    fits: v => Array.isArray(v) && v.length >= min && v.length <= max && v.every(fits) && !twice(v),
    *parts(v) {
      if (!Array.isArray(v)) return;
      // A list that is too long is told so; what stands past its end is not looked at.
      for (let i = 0; i < Math.min(v.length, max); i++) yield [i, inner, v[i]];
    },
  });
}

/** An object with exactly these keys. Declared against the domain type, so that a drift fails the type check. */
export function shape<T extends object>(fields: { [K in keyof T]-?: Rule<T[K]> }): Rule<T> {
  const rules = new Map(Object.entries(fields as Record<string, Rule<unknown>>));
  const schema = object()
    .defined(missing)
    .nonNullable(missing)
    .typeError(wrongType('an object'))
    .test('unknown', (value, context) => {
      const unknown = isObject(value) ? Object.keys(value).find(key => !rules.has(key)) : undefined;
      return (
        unknown === undefined ||
        context.createError({
          message: say(
            'unknown-key',
            `There is a key that is not known: ${briefly(unknown)}.`,
            'A misspelt key would be lost in silence.',
            'Remove it or correct its name.',
          ) as never,
        })
      );
    })
    .strict(true);
  const properties: Names<JsonSchema> = byName();
  for (const [key, field] of rules) properties[key] = documentOf(field);
  const each = [...rules].map(
    ([name, field]) => [name, fitsOf(field), optionals.has(field as object)] as const,
  );
  return rule(schema, {
    document: {
      type: 'object',
      properties,
      required: [...rules].filter(([, field]) => !optionals.has(field as object)).map(([key]) => key),
      additionalProperties: false,
    },
    fits: v =>
      isObject(v) &&
      Object.keys(v).every(key => rules.has(key)) &&
      each.every(([name, fits, free]) => (Object.hasOwn(v, name) ? fits(v[name]) : free)),
    *parts(v) {
      if (!isObject(v)) return;
      for (const [name, field] of rules)
        if (Object.hasOwn(v, name) || !optionals.has(field as object))
          yield [name, field, Object.hasOwn(v, name) ? v[name] : undefined];
    },
  });
}

/** Most names in an object whose keys are free, and the longest of them. */
const FREE_KEYS = { most: 2000, longest: 200 };

/** An object whose keys are free and whose values follow one rule. Whoever reads it by a name asks `Object.hasOwn`. */
export function dictionary<T>(inner: Rule<T>): Rule<Record<string, T>> {
  const badKey = (key: string) => key.length > FREE_KEYS.longest || NOT_TEXT.test(key);
  const schema = object()
    .defined(missing)
    .nonNullable(missing)
    .typeError(wrongType('an object'))
    .test(
      'max',
      say(
        'too-many',
        `More than ${FREE_KEYS.most} names at once.`,
        'One request has a limit.',
        'Send fewer.',
      ),
      v => !isObject(v) || Object.keys(v).length <= FREE_KEYS.most,
    )
    .test('names', notText, v => !isObject(v) || !Object.keys(v).some(badKey));
  const fits = fitsOf(inner);
  return rule(schema, {
    document: {
      type: 'object',
      additionalProperties: documentOf(inner),
      maxProperties: FREE_KEYS.most,
      propertyNames: { maxLength: FREE_KEYS.longest, pattern: NO_NUL },
    },
    fits: v =>
      isObject(v) &&
      Object.keys(v).length <= FREE_KEYS.most &&
      !Object.keys(v).some(badKey) &&
      Object.values(v).every(fits),
    parts: v => (isObject(v) ? Object.entries(v).map(([key, part]) => [key, inner, part] as const) : []),
  });
}

/**
 * A union told apart by one key. The branch is known before it is checked, so messages speak of the right one.
 *
 * @param key  the key that names the branch
 * @param branches  value of the key → rule for the whole object, key included
 * @example
 * const step = union('kind', {
 *   time: shape({ kind: choice(['time']), minutes: figure({ min: 0, max: 60, name: 'The minutes' }) }),
 *   look: shape({ kind: choice(['look']), text: text({ max: 80 }) }),
 * });
 * check(step, { kind: 'time', minutes: 90 }).faults[0].path; // 'minutes'
 */
export function union<T>(key: string, branches: Record<string, Rule<unknown>>): Rule<T> {
  const rules = new Map(Object.entries(branches));
  const branchOf = (v: unknown): Rule<unknown> | undefined =>
    isObject(v) && Object.hasOwn(v, key) ? rules.get(String(v[key])) : undefined;
  const schema = object()
    .defined(missing)
    .nonNullable(missing)
    .typeError(wrongType('an object'))
    .test(
      'branch',
      say(
        'not-a-choice',
        `"${key}" must be one of: ${[...rules.keys()].join(', ')}.`,
        'It says what kind of thing this is.',
        'Choose one of them.',
      ),
      v => !isObject(v) || branchOf(v) !== undefined,
    );
  return rule(schema, {
    document: { oneOf: [...rules.values()].map(documentOf), discriminator: { propertyName: key } },
    fits: v => {
      const branch = branchOf(v);
      return branch !== undefined && fitsOf(branch)(v);
    },
    parts: v => {
      const branch = branchOf(v);
      return branch ? [['', branch, v]] : [];
    },
  });
}

/** Nothing at all: no params, no query, no body. */
export const nothing = shape<Record<never, never>>({});

/** Faults that are told at once: whoever reads more than these mends the first ones first. */
export const MOST_FAULTS = 20;

/**
 * Checks a value against a rule without casting anything. A quick yes is taken; else the value is walked part by part,
 * and Yup is asked where a part does not pass, until so many faults are found that more would not be read.
 *
 * @returns the same value, typed, or its faults, each with its path
 */
export function check<T>(
  r: Rule<T>,
  value: unknown,
): { ok: true; value: T } | { ok: false; faults: Fault[] } {
  if (fitsOf(r)(value)) return { ok: true, value: value as T };
  const faults = faultsIn(r, value, part => fitsOf(part));
  return { ok: false, faults };
}

/**
 * The faults of a value, by Yup.
 *
 * @param quick  what spares Yup a part; in tests nothing does
 */
export function faultsIn(
  r: Rule<unknown>,
  value: unknown,
  quick: (part: Rule<unknown>) => (value: unknown) => boolean,
): Fault[] {
  const faults: Fault[] = [];
  const walk = (part: Rule<unknown>, at: unknown, path: string): void => {
    if (faults.length >= MOST_FAULTS || quick(part)(at)) return;
    const words = askYup(part, at);
    if (words) faults.push({ path, ...words });
    for (const [place, inner, innerValue] of makingOf(part).parts?.(at) ?? []) {
      if (faults.length >= MOST_FAULTS) return;
      const step =
        typeof place === 'number'
          ? `[${place}]`
          : place === '' || path === ''
            ? briefly(place)
            : `.${briefly(place)}`;
      walk(inner, innerValue, path + step);
    }
  };
  walk(r, value, '');
  return faults;
}

/** What Yup says of a value by itself, without its parts: the first thing that is wrong, or null. */
function askYup(r: Rule<unknown>, value: unknown): Words | null {
  try {
    (r as unknown as AnySchema).validateSync(value, { abortEarly: true, strict: true });
    return null;
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    const [words] = error.errors as unknown as (Words | string)[];
    return typeof words === 'object'
      ? words
      : say('invalid', String(words), 'The value does not fit.', 'Correct it.');
  }
}
