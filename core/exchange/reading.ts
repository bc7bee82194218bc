import type { Fault } from '../measure/index.ts';

/** What is wrong in a file, by its line. */
export interface FileFault extends Fault {
  /** Line of the file, from 1. */
  line: number;
}

/** A recipe read from a file, not yet checked against the rules of a recipe, and where its fields stand. */
export interface ReadRecipe {
  value: unknown;
  /** Line of the file on which a field stands; the recipe's first line for a path that is not there. */
  lineOf: (path: string) => number;
}

/** A file that was read: all of its recipes, or every fault; never some of each. */
export type FileReading =
  { ok: true; recipes: ReadRecipe[]; notes: string[] } | { ok: false; faults: FileFault[] };

/** A fault of a file, from its line, its field and the words for it. */
export const fileFault = (
  line: number,
  path: string,
  code: string,
  what: string,
  why: string,
  next: string,
): FileFault => ({
  line,
  path,
  code,
  what,
  why,
  next,
});
