import { randomUUID } from 'node:crypto';
import { type ConfirmPage, confirmPage, readKitchen } from '@cocotte/contract';
import type { Recipe } from '@cocotte/core/recipes';
import { pageOf } from '@cocotte/core/review';
import type { Client } from './test-server.ts';

/**
 * What an owner reads off the open page of a recipe: the figures as they are printed.
 *
 * @returns null where the recipe stands on no page
 */
export function readPage(recipe: Recipe, altitude_m: number, number = 1): ConfirmPage | null {
  const page = pageOf(recipe, altitude_m);
  return (
    page && {
      id: randomUUID(),
      number,
      edition: page.edition || 'the only one',
      page: 'p. 12',
      figures: page.figures.map(({ key, value }) => ({ key, value })),
    }
  );
}

/** An owner reads the page a recipe in the book stands on, and finds there what is expected. */
export async function confirmAs(owner: Client, recipeId: string, recipe: Recipe): Promise<void> {
  const body = readPage(recipe, (await owner.ok(readKitchen)).altitude_m);
  if (body) await owner.ok(confirmPage, { params: { recipeId }, body });
}
