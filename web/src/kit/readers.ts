import {
  type Fault,
  type Habits,
  type NumberLimits,
  type Reading,
  byName,
  celsius,
  readDecimal,
  readNumber,
} from '@cocotte/core/measure';
import { useMemo } from 'react';
import { useHere } from '../shell/session.tsx';
import { say } from '../words/index.ts';

/** Several faults at once, each with the path of its field: what a reader of rows or of a part of a form answers. */
export type Readings<V> = { ok: true; value: V } | { ok: false; faults: Fault[] };
/** How what was typed is read: into its value, or into the fault that is shown beneath its field. */
export type Reader<V, T = string> = (typed: T) => Reading<V> | Readings<V>;
// oxlint-disable-next-line typescript/no-explicit-any -- each field has a type of its own
export type Shape = Record<string, Reader<any, any>>;
/** What is read with a shape. */
export type ValuesOf<S extends Shape> = {
  [K in keyof S]: Extract<ReturnType<S[K]>, { ok: true }>['value'];
};

/** One line for beneath a field: what, why, what next. */
export function faultText(fault: Pick<Fault, 'what' | 'why' | 'next'>): string {
  return [fault.what, fault.why, fault.next].filter(Boolean).join(' ');
}

/** The fault of a field that may not be empty; the one place that says so. */
export const missing = (
  what: string,
  why = say('field.missing.why'),
  next = say('field.missing.next'),
  path = '',
): Fault => ({ path, code: 'missing', what, why, next });

/** Text that must not be empty. */
export const words =
  (name: string, why?: string, next?: string) =>
  (text: string): Reading<string> =>
    text.trim() === ''
      ? { ok: false, fault: missing(say('field.missing', { name }), why, next) }
      : { ok: true, value: text.trim() };

/** Any text, empty too. */
export const anyWords = (text: string): Reading<string> => ({ ok: true, value: text.trim() });

/** A text where it says something, else nothing. */
export const wordsOrNone = (text: string): Reading<string | null> => ({
  ok: true,
  value: text.trim() || null,
});

/** One of a list: what was never chosen is a fault. */
export const chosen =
  <T extends string>(what: string, why: string, next: string) =>
  (value: T | ''): Reading<T> =>
    value === '' ? { ok: false, fault: missing(what, why, next) } : { ok: true, value };

/** Names with commas between, each once. */
export const listed = (text: string): { ok: true; value: string[] } => ({
  ok: true,
  value: [
    ...new Set(
      text
        .split(',')
        .map(part => part.trim())
        .filter(Boolean),
    ),
  ],
});

/** Reads nothing where nothing was typed. */
export const orNone =
  <V>(reader: (text: string) => Reading<V>) =>
  (text: string): Reading<V | null> =>
    text.trim() === '' ? { ok: true, value: null } : reader(text);

/** Reads what is usual where nothing was typed. */
export const orElse =
  <V>(usual: V, reader: (text: string) => Reading<V>) =>
  (text: string): Reading<V> =>
    text.trim() === '' ? { ok: true, value: usual } : reader(text);

/** A field that is not asked for just now: whatever stands in it. */
export const unasked =
  <V>(value: V) =>
  (): Reading<V> => ({ ok: true, value });

/** `lines[0].price` as a form names it, `lines.0.price`. */
export const fieldPath = (path: string): string => path.replaceAll(/\[(\d+)\]/g, '.$1').replace(/^\./, '');

const within = (name: string, path: string) => (path === '' ? name : `${name}.${path}`);

/**
 * Reads every field of a shape.
 *
 * @returns all values, or every fault with the path of its field
 */
export function readShape<S extends Shape>(shape: S, typed: object): Readings<ValuesOf<S>> {
  const values = byName<unknown>();
  const faults: Fault[] = [];
  for (const [name, reader] of Object.entries(shape)) {
    const read = reader((typed as Record<string, unknown>)[name]);
    if (read.ok) values[name] = read.value;
    else
      for (const fault of 'faults' in read ? read.faults : [read.fault])
        faults.push({ ...fault, path: within(name, fieldPath(fault.path)) });
  }
  return faults.length > 0 ? { ok: false, faults } : { ok: true, value: values as ValuesOf<S> };
}

/** Reads rows, each by its own shape; what has no reader in it stays as it is typed. */
export const rows =
  <T extends object, S extends Shape>(shape: (row: T, index: number) => S) =>
  (typed: readonly T[]): Readings<(Omit<T, keyof S> & ValuesOf<S>)[]> => {
    const read = typed.map((row, i) => ({ row, read: readShape(shape(row, i), row) }));
    const faults = read.flatMap(({ read: r }, i) =>
      r.ok ? [] : r.faults.map(f => ({ ...f, path: `${i}.${f.path}` })),
    );
    return faults.length > 0
      ? { ok: false, faults }
      : {
          ok: true,
          value: read.flatMap(({ row, read: r }) => (r.ok ? [{ ...row, ...r.value }] : [])),
        };
  };

/** Core's readers in the habits of a kitchen. */
export const readersOf = ({ locale, temperature }: Pick<Habits, 'locale' | 'temperature'>) => ({
  /** A number. */
  figure: (limits: NumberLimits) => (text: string) => readNumber(text, locale, limits),
  /** A decimal, as text: what is counted and what is paid. */
  decimal: (limits: NumberLimits, places?: number) => (text: string) =>
    readDecimal(text, locale, limits, places),
  /** A temperature in the kitchen's degrees, with limits in °C; read as °C. */
  temperature_C:
    ({ min, max, ...limits }: NumberLimits & { min: number; max: number }) =>
    (text: string): Reading<number> => {
      const shown = (temp_C: number) => (temperature === 'F' ? Math.round(temp_C * 1.8 + 32) : temp_C);
      const read = readNumber(text, locale, {
        unit: ` °${temperature}`,
        min: shown(min),
        max: shown(max),
        ...limits,
      });
      if (!read.ok) return read;
      const temp_C = temperature === 'F' ? celsius(read.value) : read.value;
      return { ok: true, value: Math.round(temp_C * 1000) / 1000 };
    },
});

/** Core's readers in the habits of this kitchen. */
export function useRead() {
  const { kitchen } = useHere();
  return useMemo(() => readersOf(kitchen), [kitchen]);
}
