import type { Confirmation } from '@cocotte/core/review';
import { endpoint } from '../endpoint.ts';
import { day, figure, flag, instant, list, shape, text, uuid } from '../rules.ts';

/** Something read off the open page: a figure by its key. */
const readOff = shape<Confirmation['figures'][number]>({
  // A key may hold the words of a letter, whole: another ending is another term.
  key: text({ min: 1, max: 1000 }),
  value: figure({ min: 0, max: 100_000, name: 'The figure on the page' }),
});
const printed = (name: string) => text({ min: 1, max: 120, name });
/** Pages the owners of a kitchen confirmed, newest first. */
export const listConfirmations = endpoint({
  name: 'recipes.confirmations',
  method: 'GET',
  path: '/api/kitchens/:kitchenId/confirmations',
  who: 'viewer',
  summary: 'Pages the owners of this kitchen confirmed from the open book, newest first',
  reply: shape<{ confirmations: (Confirmation & { person: string })[] }>({
    confirmations: list(
      shape<Confirmation & { person: string }>({
        id: uuid,
        subject: text({ max: 400 }),
        title: text({ max: 200 }),
        edition: text({ max: 120 }),
        page: text({ max: 120 }),
        figures: list(readOff, { max: 200 }),
        papers: list(uuid, { max: 20 }),
        demo: flag,
        personId: uuid,
        confirmedAt: instant,
        person: text({ max: 80 }),
      }),
      { max: 1000 },
    ),
  }),
});
/** What an owner read off an open page. */
export interface ConfirmPage {
  id: string;
  /** The version of the recipe that stands on the page. */
  number: number;
  edition: string;
  page: string;
  figures: Confirmation['figures'];
}
/** Confirm from the open page what the heat step of a recipe stands on; a figure that differs stops it. */
export const confirmPage = endpoint({
  name: 'recipes.confirm',
  method: 'POST',
  path: '/api/kitchens/:kitchenId/recipes/:recipeId/confirmations',
  who: 'owner',
  summary:
    'Confirm from the open page what the heat step of a recipe stands on; a figure that differs stops it, with both',
  params: shape<{ recipeId: string }>({ recipeId: uuid }),
  body: shape<ConfirmPage>({
    id: uuid,
    number: figure({ min: 1, max: 1e6, whole: true, name: 'The version' }),
    edition: printed('The edition'),
    page: printed('The page'),
    figures: list(readOff, { max: 200 }),
  }),
  reply: shape<{ id: string }>({ id: uuid }),
});

/** A letter that is to be looked at again soon, or was. */
export interface LetterDue {
  recipeId: string;
  name: string;
  reference: string;
  reviewOn: string;
}
/** Letters of process authorities that are to be looked at again within a month, or were, the first to end first. */
export const listLettersDue = endpoint({
  name: 'recipes.lettersDue',
  method: 'GET',
  path: '/api/kitchens/:kitchenId/letters-due',
  who: 'viewer',
  summary:
    'Letters of process authorities that are to be looked at again within a month, or were, the first to end first',
  reply: shape<{ letters: LetterDue[] }>({
    letters: list(
      shape<LetterDue>({
        recipeId: uuid,
        name: text({ max: 80 }),
        reference: text({ max: 200 }),
        reviewOn: day,
      }),
      { max: 100 },
    ),
  }),
});
