import { randomUUID } from 'node:crypto';
import { type ConfirmPage, addPaper, confirmPage, readKitchen } from '@cocotte/contract';
import type { Recipe } from '@cocotte/core/recipes';
import { pageOf } from '@cocotte/core/review';
import { picture } from './papers.ts';
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

/** An owner reads the page a recipe in the book stands on, and finds there what is expected; a letter is attached first. */
export async function confirmAs(owner: Client, recipeId: string, recipe: Recipe): Promise<void> {
  const { altitude_m } = await owner.ok(readKitchen);
  const body = readPage(recipe, altitude_m);
  if (!body) return;
  await attachLetter(owner, recipe, altitude_m);
  await owner.ok(confirmPage, { params: { recipeId }, body });
}

/** Attaches the letter a recipe stands on, where it stands on one. */
export async function attachLetter(owner: Client, recipe: Recipe, altitude_m: number): Promise<void> {
  const page = pageOf(recipe, altitude_m);
  if (!page?.asksPaper) return;
  await owner.ok(addPaper, {
    params: { paperId: randomUUID() },
    query: { subject: page.subject, name: 'letter.png' },
    body: picture(),
  });
}
