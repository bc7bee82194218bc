/**
 * One thing that is wrong, said the way the interface and the API both say it.
 * `path` points at the value (dots and indexes, empty for the whole), `code` is stable for programs.
 */
export interface Fault {
  path: string;
  code: string;
  /** What is wrong. */
  what: string;
  /** Why it matters. */
  why: string;
  /** What to do next. */
  next: string;
}

/** A value that was read, or the reason it could not be. */
export type Reading<T> = { ok: true; value: T } | { ok: false; fault: Fault };

/** Builds a failed {@link Reading}. `path` is empty: the caller knows the field. */
export function unreadable(
  code: string,
  what: string,
  why: string,
  next: string,
): { ok: false; fault: Fault } {
  return { ok: false, fault: { path: '', code, what, why, next } };
}

/** A refusal the caller did not make impossible: carries the faults to show. Thrown by decisions, caught by the API. */
export class Refusal extends Error {
  readonly faults: Fault[];
  constructor(faults: Fault | Fault[]) {
    const list = Array.isArray(faults) ? faults : [faults];
    super(list.map(f => f.what).join(' '));
    this.name = 'Refusal';
    this.faults = list;
  }
}
