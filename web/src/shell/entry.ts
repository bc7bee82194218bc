import { type Fault, type Reading, type Names, byName, ofNames } from '@cocotte/core/measure';
import { useCallback, useState } from 'react';

/** How a field's text is read: into its value, or into the fault shown beneath it. */
type Readers = Record<string, (text: string) => Reading<unknown>>;
type ValuesOf<R extends Readers> = {
  [K in keyof R]: R[K] extends (text: string) => Reading<infer T> ? T : never;
};

/** One line for beneath a field: what, why, what next. */
export function faultText(fault: Pick<Fault, 'what' | 'why' | 'next'>): string {
  return [fault.what, fault.why, fault.next].filter(Boolean).join(' ');
}

/** Text that must not be empty. */
export const words =
  (what: string) =>
  (text: string): Reading<string> =>
    text.trim() === ''
      ? {
          ok: false,
          fault: {
            path: '',
            code: 'missing',
            what: `${what} is empty.`,
            why: 'It is needed to go on.',
            next: 'Fill it in.',
          },
        }
      : { ok: true, value: text.trim() };

/** Any text, empty too. */
export const anyWords = (text: string): Reading<string> => ({ ok: true, value: text.trim() });

/**
 * A form of typed fields: keeps what was typed, reads it through core's readers, and shows each fault beside its field,
 * also those that come back from the server. Nothing typed is lost when something is refused.
 *
 * @param readers  field → reader
 * @param initial  text to begin with
 */
export function useEntry<R extends Readers>(readers: R, initial: Partial<Record<keyof R, string>> = {}) {
  const [texts, setTexts] = useState<Partial<Record<keyof R, string>>>(initial);
  const [faults, setFaults] = useState<Names<Fault>>(() => byName());
  const set = useCallback((name: keyof R, text: string) => {
    setTexts(t => ({ ...t, [name]: text }));
    setFaults(f => {
      const { [name as string]: _gone, ...rest } = f;
      return rest;
    });
  }, []);
  /** Props for a text field. */
  const field = (name: keyof R & string) => {
    const fault = faults[name];
    return {
      name,
      value: texts[name] ?? '',
      error: fault !== undefined,
      helperText: fault ? faultText(fault) : undefined,
      onChange: (e: { target: { value: string } }) => set(name, e.target.value),
    };
  };
  /** Reads every field; null when one could not be read, with its fault shown. */
  const read = (): ValuesOf<R> | null => {
    const values = byName<unknown>();
    const found = byName<Fault>();
    for (const [name, reader] of Object.entries(readers)) {
      const reading = reader(texts[name] ?? '');
      if (reading.ok) values[name] = reading.value;
      else found[name] = reading.fault;
    }
    setFaults(found);
    return Object.keys(found).length === 0 ? (values as ValuesOf<R>) : null;
  };
  /**
   * Shows faults beside their fields; those that belong to none are returned for a place of their own. A path matches
   * a field by its last name.
   */
  const place = (list: Fault[]): Fault[] => {
    const rest: Fault[] = [];
    const found = byName<Fault>();
    for (const fault of list) {
      const name =
        fault.path
          .split('.')
          .at(-1)
          ?.replace(/\[\d+\]$/, '') ?? '';
      if (Object.hasOwn(readers, name)) found[name] = fault;
      else rest.push(fault);
    }
    setFaults(found);
    return rest;
  };
  const clear = (names?: (keyof R)[]) =>
    setTexts(t => (names ? { ...t, ...ofNames(names.map(n => [n as string, '' as const])) } : {}));
  return { field, read, place, set, clear, texts };
}
