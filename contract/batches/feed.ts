import type { SequencedEvent } from '@cocotte/core/batches';
import { endpoint, streamEndpoint } from '../endpoint.ts';
import { type Rule, dictionary, figure, flag, list, shape, text } from '../rules.ts';
import { sequencedRule } from './event-rules.ts';

const count = figure({ min: 0, max: 1e15, whole: true, name: 'The count' });

/** How far a kitchen has come: the last number of its record, and how often what else it keeps was changed. */
export interface Moved {
  seq: number;
  recipes: number;
  stock: number;
  settings: number;
}
const moved: Rule<Moved> = shape<Moved>({ seq: count, recipes: count, stock: count, settings: count });

/** Tells how far the kitchen has come, at once and whenever something moved; not what: that is asked for. */
export const feed = streamEndpoint({
  name: 'feed.follow',
  path: '/api/kitchens/:kitchenId/feed',
  who: 'viewer',
  summary:
    'Tells how far the kitchen has come, at once and whenever something moved; not what: that is asked for',
  message: moved,
});

/** Most entries of a page of the record. */
export const EVENTS_A_PAGE = 500;

/** A page of a kitchen's record, of all its batches. */
export interface EventsPage {
  events: SequencedEvent[];
  /** Names of the people in it. */
  people: Record<string, string>;
  /** There are more: ask again after the last of these. */
  more: boolean;
  moved: Moved;
}
/** What the record has after a number, over all batches, in its order. */
export const readEvents = endpoint({
  name: 'feed.events',
  method: 'GET',
  path: '/api/kitchens/:kitchenId/events',
  who: 'viewer',
  summary: 'What the record has after a number, over all batches, in its order',
  query: shape<{ after: string }>({ after: text({ max: 15 }) }),
  reply: shape<EventsPage>({
    events: list(sequencedRule, { max: EVENTS_A_PAGE }),
    people: dictionary(text({ max: 80 })),
    more: flag,
    moved,
  }),
});
