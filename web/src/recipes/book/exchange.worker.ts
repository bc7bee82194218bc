import {
  type ExchangeFormat,
  type FileFault,
  fromCsv,
  fromJson,
  fromJsonLd,
  writeRecipes,
} from '@cocotte/core/exchange';
import { libraryOf, nameIndex } from '@cocotte/core/ingredients';
import { recipeFaults } from '@cocotte/core/recipes';
import type { Ingredient } from '@cocotte/core/ingredients';
import type { Recipe } from '@cocotte/core/recipes';
import { check } from '@cocotte/contract/rules';
import { recipeRule } from '@cocotte/contract';
import * as comlink from 'comlink';
import { v7 } from 'uuid';

/** What a file gave: sound recipes, or every fault by its line. */
export type Checked =
  | { ok: true; recipes: Recipe[]; variantOf: (string | null)[]; notes: string[] }
  | { ok: false; faults: FileFault[]; more: number };

const SHOWN = 200;

/** In a file a variant names its recipe by code: ids belong to the book they were made in. */
function apart(value: unknown): { of: string | null; value: unknown } {
  if (value === null || typeof value !== 'object' || !('variantOf' in value)) return { of: null, value };
  const of = value.variantOf;
  return typeof of === 'string' && /^[A-Z]{3}$/.test(of)
    ? { of, value: { ...value, variantOf: null } }
    : { of: null, value };
}

/** Reading, checking and writing recipe files, away from the page. */
const exchange = {
  /**
   * Reads a file and checks each recipe by the rules the server has.
   *
   * @param progress  called with the number of recipes checked and all of them
   */
  read(
    format: ExchangeFormat,
    text: string,
    locale: string,
    own: Ingredient[],
    progress: (done: number, all: number) => void,
  ): Checked {
    const reading =
      format === 'json'
        ? fromJson(text)
        : format === 'csv'
          ? fromCsv(text)
          : fromJsonLd(text, locale, nameIndex(libraryOf(own)), v7);
    if (!reading.ok)
      return {
        ok: false,
        faults: reading.faults.slice(0, SHOWN),
        more: Math.max(0, reading.faults.length - SHOWN),
      };
    const recipes: Recipe[] = [];
    const variantOf: (string | null)[] = [];
    const faults: FileFault[] = [];
    reading.recipes.forEach((read, i) => {
      const { of, value } = apart(read.value);
      const checked = check(recipeRule, value);
      const found = checked.ok ? recipeFaults(checked.value) : checked.faults;
      if (checked.ok) {
        recipes.push(checked.value);
        variantOf.push(of);
      }
      for (const fault of found) faults.push({ ...fault, line: read.lineOf(fault.path) });
      if (i % 100 === 99) progress(i + 1, reading.recipes.length);
    });
    return faults.length > 0
      ? { ok: false, faults: faults.slice(0, SHOWN), more: Math.max(0, faults.length - SHOWN) }
      : { ok: true, recipes, variantOf, notes: reading.notes };
  },
  write(format: ExchangeFormat, recipes: Recipe[]): string {
    return writeRecipes(format, recipes);
  },
};
export type Exchange = typeof exchange;

comlink.expose(exchange);
