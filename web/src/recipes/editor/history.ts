import { useCallback, useReducer } from 'react';

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

/** A value with its way back: typing in one field counts as one change, everything else as its own. */
export function useUndo<T>(initial: () => T) {
  const [state, dispatch] = useReducer(reduce<T>, null, () => ({
    past: [],
    present: initial(),
    future: [],
    key: '',
    at_ms: 0,
  }));
  const change = useCallback(
    (key: string, by: (now: T) => T) =>
      dispatch({ kind: 'change', key, at_ms: performance.now(), change: by }),
    [],
  );
  const undo = useCallback(() => dispatch({ kind: 'undo' }), []);
  const redo = useCallback(() => dispatch({ kind: 'redo' }), []);
  return {
    value: state.present,
    change,
    undo,
    redo,
    canUndo: state.past.length > 0,
    canRedo: state.future.length > 0,
  };
}
