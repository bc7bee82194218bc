import { useEffect, useRef, useState } from 'react';
import { type FieldValues, type UseFormReturn, get } from 'react-hook-form';

/** A value with what it was before and what was undone. */
export interface State<T> {
  past: T[];
  present: T;
  future: T[];
  /** What the last change was of, and when: typing in one field is one step back. */
  key: string;
  at_ms: number;
}
export type Action<T> =
  { kind: 'change'; key: string; at_ms: number; change: (now: T) => T } | { kind: 'undo' } | { kind: 'redo' };

const TOGETHER_MS = 1200;
const KEPT = 200;

/** One step of the history: a change, a step back, a step forward again. */
export function reduce<T>(state: State<T>, action: Action<T>): State<T> {
  if (action.kind === 'undo') {
    const before = state.past.at(-1);
    return before === undefined
      ? state
      : {
          past: state.past.slice(0, -1),
          present: before,
          future: [state.present, ...state.future],
          key: '',
          at_ms: 0,
        };
  }
  if (action.kind === 'redo') {
    const [after, ...rest] = state.future;
    return after === undefined
      ? state
      : { past: [...state.past, state.present], present: after, future: rest, key: '', at_ms: 0 };
  }
  const present = action.change(state.present);
  if (present === state.present) return state;
  const together = action.key !== '' && action.key === state.key && action.at_ms - state.at_ms < TOGETHER_MS;
  return {
    past: together ? state.past : [...state.past, state.present].slice(-KEPT),
    present,
    future: [],
    key: action.key,
    at_ms: action.at_ms,
  };
}

/**
 * The way back of a form: typing in one field counts as one change, everything else as its own; what one tap changes
 * in several fields is one.
 */
export function useHistory<T extends FieldValues, V>({
  watch,
  getValues,
  reset,
}: Pick<UseFormReturn<T, unknown, V>, 'watch' | 'getValues' | 'reset'>) {
  const [state, setState] = useState<State<T>>(() => ({
    past: [],
    present: structuredClone(getValues()),
    future: [],
    key: '',
    at_ms: 0,
  }));
  const stepping = useRef(false);
  useEffect(() => {
    let names: Set<string> | null = null;
    const note = () => {
      const [only = ''] = names?.size === 1 ? [...names] : [];
      names = null;
      const present = structuredClone(getValues());
      const key = typeof get(present, only) === 'string' ? only : '';
      const change = (now: T) => (JSON.stringify(now) === JSON.stringify(present) ? now : present);
      setState(s => reduce(s, { kind: 'change', key, at_ms: performance.now(), change }));
    };
    const { unsubscribe } = watch((_, { name }) => {
      if (stepping.current) return;
      if (names === null) {
        names = new Set();
        queueMicrotask(note);
      }
      names.add(name ?? '');
    });
    return unsubscribe;
  }, [watch, getValues]);
  const step = (kind: 'undo' | 'redo') => {
    const next = reduce(state, { kind });
    if (next === state) return;
    setState(next);
    stepping.current = true;
    reset(structuredClone(next.present), { keepDefaultValues: true });
    stepping.current = false;
  };
  return {
    undo: () => step('undo'),
    redo: () => step('redo'),
    canUndo: state.past.length > 0,
    canRedo: state.future.length > 0,
  };
}
