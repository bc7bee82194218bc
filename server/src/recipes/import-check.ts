import type { Fault } from '@cocotte/core/measure';
import type { Recipe } from '@cocotte/core/recipes';
import { asKept, faultsOf, rowOf } from './kept.ts';

/** A part of an import after it was checked: its faults, or its rows. */
export interface CheckedPart {
  faults: Fault[];
  /** Each recipe's columns, and itself as it is kept. */
  rows: (ReturnType<typeof rowOf> & { kept: Recipe })[];
}

/** Checks a part of an import: every recipe like one that is typed. Variants are told by code, once every recipe is there. */
export function checkRecipes({ recipes, today }: { recipes: Recipe[]; today: string }): CheckedPart {
  const out: CheckedPart = { faults: [], rows: [] };
  recipes.forEach((given, i) => {
    const kept = asKept({ ...given, variantOf: null }, today);
    const named = { ...kept, code: kept.code === '' ? 'AAA' : kept.code };
    out.faults.push(...faultsOf(named, today).map(f => ({ ...f, path: `recipes[${i}].${f.path}` })));
    out.rows.push({ ...rowOf(kept), kept });
  });
  return out;
}
