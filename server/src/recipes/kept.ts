import type { Fault } from '@cocotte/core/measure';
import { type Recipe, recipeFaults } from '@cocotte/core/recipes';
import { classOf, formulaOf } from '@cocotte/core/review';

/**
 * A recipe as it is kept: its class is derived, and a tested or scheduled recipe keeps the formula its authority covers,
 * as it was taken over. A change of authority takes the formula over anew.
 */
export function asKept(recipe: Recipe, day: string): Recipe {
  const covered = recipe.authority.grade === 'tested publication' || recipe.authority.grade === 'letter';
  return {
    ...recipe,
    foodClass: classOf(recipe),
    tested: covered ? (recipe.tested ?? { takenOn: day, ...formulaOf(recipe) }) : null,
  };
}

/** What keeps a recipe out of the book, whatever else is there. */
export function faultsOf(recipe: Recipe, day: string): Fault[] {
  const faults = recipeFaults(recipe);
  const { authority } = recipe;
  const dated =
    authority.grade === 'letter'
      ? { path: 'authority.issuedOn', day: authority.issuedOn, what: 'The letter is dated' }
      : authority.grade === 'tested publication'
        ? { path: 'authority.checkedOn', day: authority.checkedOn, what: 'It was checked on' }
        : null;
  if (dated && dated.day > day)
    faults.push({
      path: dated.path,
      code: 'future-day',
      what: `${dated.what} a day that has not come yet.`,
      why: 'An authority counts from the day it was given.',
      next: 'Correct the date.',
    });
  if (!/^[A-Z]{3}$/.test(recipe.code)) {
    faults.push({
      path: 'code',
      code: 'bad-code',
      what: 'The code must be three capital letters.',
      why: 'It begins every lot code of this recipe.',
      next: 'Use letters A to Z, such as PLJ.',
    });
  }
  return faults;
}

/** The fault of a code that another recipe has. */
export const codeFault = (taken: string, code: string): Fault => ({
  path: 'code',
  code: 'code-taken',
  what: `${taken} already has the code ${code}.`,
  why: 'Two recipes with one code would share lot codes.',
  next: 'Choose other letters.',
});

/** Columns of a recipe's row that lists and searches go by. */
export function rowOf(recipe: Recipe) {
  return {
    name: recipe.name,
    code: recipe.code,
    product: recipe.product,
    family: recipe.family,
    tags: recipe.tags,
    search: [
      recipe.name,
      recipe.code,
      recipe.statementOfIdentity,
      recipe.product,
      recipe.family,
      ...recipe.tags,
      // By the words of its text, and by what they were settled to be.
      ...recipe.lines.flatMap(l => [l.name, l.labelName]),
    ]
      .join(' ')
      .toLowerCase(),
  };
}
