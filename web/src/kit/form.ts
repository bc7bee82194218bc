import { type Fault, byName } from '@cocotte/core/measure';
import { type FormEvent, useCallback, useState } from 'react';
import {
  type Control,
  type DefaultValues,
  type FieldArrayPath,
  type FieldErrors,
  type FieldPath,
  type FieldPathValue,
  type FieldValues,
  get,
  set as put,
  useFieldArray,
  useForm,
  useWatch,
} from 'react-hook-form';
import { faultsOf } from '../shell/call.ts';
import { type Readings, type Shape, type ValuesOf, faultText, fieldPath, readShape } from './readers.ts';

/** Where a field of the kit stands in its form. */
export interface At {
  // oxlint-disable-next-line typescript/no-explicit-any -- a field of any form
  control: Control<any, any, any>;
  name: string;
  /** Names of the fields on screen: only there can a fault be shown beside its field. */
  shown: Map<string, number>;
}

/** What a form gives when it is read: its readers' values, and whatever has no reader as it stands. */
export type Value<T, S extends Shape> = Omit<T, keyof S> & ValuesOf<S>;

/** Where faults that have no field on screen travel in the form's errors. */
const ELSEWHERE = '(elsewhere)';

/** The field of a path: itself, or the first of a group; null where it is none, or the whole of a list. */
function leafOf(typed: object, path: string): string | null {
  let value: unknown = path === '' ? undefined : get(typed, path);
  let name = path;
  while (typeof value === 'object' && value !== null) {
    const [key] = Object.keys(value);
    if (Array.isArray(value) || key === undefined) return null;
    name = `${name}.${key}`;
    value = (value as Record<string, unknown>)[key];
  }
  return value === undefined ? null : name;
}

/**
 * A form: keeps what was typed, reads it through core's readers, shows each fault beside its field (also those that
 * the server finds) with the cursor in the first of them, and loses nothing when something is refused.
 *
 * @param start  what stands in the fields at first
 * @param readAll  reads all that is typed, or gives every fault by its path
 * @param live  the view answers while one types: faults show at once, and what is still empty is none yet
 * @param opens  fields that are folded away, and come on screen by themselves when there is a fault in them
 */
export function useReadForm<T extends FieldValues, V extends object>(
  start: T,
  readAll: (typed: T) => Readings<V>,
  { live = false, opens = () => false }: { live?: boolean; opens?: (name: string) => boolean } = {},
) {
  const [faults, setFaults] = useState<Fault[]>([]);
  const [shown] = useState(() => new Map<string, number>());

  /** Parts the faults that have a field on screen, or one that opens by its fault, from those that have none. */
  const part = (list: readonly Fault[], typed: T) => {
    const beside: [string, Fault][] = [];
    const rest: Fault[] = [];
    for (const fault of list) {
      // The server may know a field by a longer path, `receipt.lines[0].price`: the longest end that is a field here.
      let path: string | undefined = fieldPath(fault.path);
      let name: string | undefined;
      while (path !== undefined && name === undefined) {
        const leaf = leafOf(typed, path);
        if (leaf !== null && (shown.has(leaf) || opens(leaf))) name = leaf;
        path = path.includes('.') ? path.slice(path.indexOf('.') + 1) : undefined;
      }
      if (name === undefined) rest.push(fault);
      else beside.push([name, fault]);
    }
    return { beside, rest };
  };

  const form = useForm<T, unknown, V>({
    defaultValues: start as DefaultValues<T>,
    mode: live ? 'onChange' : 'onSubmit',
    resolver: typed => {
      let read: Readings<V>;
      try {
        read = readAll(typed);
      } catch (error) {
        // A reader that broke would leave a button that does nothing, and say nothing.
        read = { ok: false, faults: faultsOf(error) };
      }
      if (read.ok) return { values: read.value, errors: {} };
      const errors = {} as FieldErrors<T>;
      const { beside, rest } = part(
        live ? read.faults.filter(f => get(typed, f.path) !== '') : read.faults,
        typed,
      );
      for (const [name, fault] of beside) put(errors, name, { type: fault.code, message: faultText(fault) });
      if (rest.length > 0) put(errors, ELSEWHERE, { type: ELSEWHERE, faults: rest });
      return { values: {}, errors };
    },
  });
  const { control, setError, setFocus, handleSubmit, formState } = form;
  // Read here, the form tells of their changes.
  const values = useWatch({ control }) as T;
  const { isDirty, isSubmitting } = formState;

  /** Shows faults beside their fields, the cursor in the first; those without a field stand under `faults`. */
  const place = (list: readonly Fault[]): void => {
    const { beside, rest } = part(list, form.getValues());
    setFaults(rest);
    beside.forEach(([name, fault]) =>
      setError(name as FieldPath<T>, { type: fault.code, message: faultText(fault) }),
    );
    if (beside[0]) setFocus(beside[0][0] as FieldPath<T>);
  };

  /**
   * Reads the form and does the work with what was read. What the work throws, or answers as faults, finds its field.
   */
  const submit =
    (work: (value: V) => Promise<readonly Fault[] | void> | void) =>
    async (event?: FormEvent): Promise<void> => {
      // A form in a dialog lies, for React, inside the form that opened it.
      event?.stopPropagation();
      setFaults([]);
      await handleSubmit(
        async value => {
          try {
            const found = await work(value);
            if (found && found.length > 0) place(found);
          } catch (error) {
            place(faultsOf(error));
          }
        },
        errors => setFaults((errors as Record<string, { faults?: Fault[] }>)[ELSEWHERE]?.faults ?? []),
      )(event);
    };

  /** Reads the form, its faults shown; null when it cannot be read. */
  const read = async (): Promise<V | null> => {
    let found: V | null = null;
    await submit(value => {
      found = value;
    })();
    return found;
  };

  /** Does something beside the form's own work; what it throws is shown the same way. */
  const attempt = async (work: () => Promise<unknown>): Promise<void> => {
    setFaults([]);
    try {
      await work();
    } catch (error) {
      place(faultsOf(error));
    }
  };

  return {
    /** Binds a field of the kit. */
    at: useCallback(
      <P extends FieldPath<T>>(name: P): At => ({
        control: control as unknown as At['control'],
        name,
        shown,
      }),
      [control, shown],
    ),
    submit,
    read,
    attempt,
    place,
    /** Faults that have no field on screen. */
    faults,
    busy: isSubmitting,
    /** Something was typed that has not been taken. */
    dirty: isDirty,
    /** What is typed in a field just now; the view is drawn again when it changes. */
    typed: <P extends FieldPath<T>>(name: P): FieldPathValue<T, P> => get(values, name),
    all: (): T => values,
    set: <P extends FieldPath<T>>(name: P, value: FieldPathValue<T, P>) =>
      form.setValue(name, value, { shouldDirty: true, shouldValidate: formState.isSubmitted }),
    /** Empties the form for the next entry, or fills it with something else. */
    again: (with_: Partial<T> = {}) => {
      setFaults([]);
      form.reset({ ...start, ...with_ } as DefaultValues<T>);
    },
    form,
  };
}

/**
 * A form whose fields are read each by itself.
 *
 * @param shapeOf  the reader of each field, by what is typed just now; a field without one is taken as it stands
 */
export function useTyped<T extends FieldValues, S extends Shape>(
  start: T,
  shapeOf: (typed: T) => S,
  options: { live?: boolean } = {},
) {
  const form = useReadForm<T, Value<T, S>>(
    start,
    typed => {
      const read = readShape(shapeOf(typed), typed);
      return read.ok ? { ok: true, value: { ...typed, ...read.value } } : read;
    },
    options,
  );
  return {
    ...form,
    /** What each field reads as just now. */
    now: (): { [K in keyof S]: ReturnType<S[K]> } => {
      const typed = form.all();
      return byName(
        Object.entries(shapeOf(typed)).map(([name, reader]) => [name, reader(typed[name])]),
      ) as never;
    },
  };
}

/** What `useTyped` gives for a form of these fields and readers. */
export type Typed<T extends FieldValues, S extends Shape> = ReturnType<typeof useTyped<T, S>>;

/** Rows of a form that can be added and removed. */
export function useRows<T extends FieldValues, V, N extends FieldArrayPath<T>>(
  control: Control<T, unknown, V>,
  name: N,
) {
  return useFieldArray<T, N, 'key', V>({ control, name, keyName: 'key' });
}
