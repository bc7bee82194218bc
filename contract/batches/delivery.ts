import type { Fault } from '@cocotte/core/measure';
import { endpoint } from '../endpoint.ts';
import {
  type Rule,
  choice,
  figure,
  instant,
  later,
  list,
  maybe,
  optional,
  shape,
  text,
  uuid,
} from '../rules.ts';
import { batchParams } from './batches.ts';
import { type FactEntry, factRule } from './event-rules.ts';

const count = figure({ min: 0, max: 1e9, whole: true, name: 'The count' });
/**
 * What a device delivers: for whom and for which kitchen, what its clock shows as it sends, and the entries. A page of an
 * earlier build sends the entries alone; for it one that is refused still fails the call, since it reads no answers.
 */
export interface Delivery {
  personId?: string;
  kitchenId?: string;
  sentAt?: string;
  /** The newest shapes of entries its build knows. */
  recordShape?: number;
  events: FactEntry[];
}
/** What became of one entry of a delivery. */
export interface Delivered {
  /** As it was sent; empty where it named none. */
  id: string;
  /** *kept* under a number; *refused* for good, with the faults; to be sent again *later*, to a newer build. */
  outcome: 'kept' | 'refused' | 'later';
  seq: number | null;
  faults: Fault[];
}
const fault = shape<Fault>({
  path: text({ max: 400 }),
  code: text({ max: 100 }),
  what: text({ max: 2000 }),
  why: text({ max: 2000 }),
  next: text({ max: 2000 }),
});
/** Deliver facts; each is kept once, in whatever order it comes, and answered by itself. */
export const appendFacts = endpoint({
  name: 'batches.append',
  method: 'POST',
  path: '/api/kitchens/:kitchenId/batches/:batchId/events',
  who: 'cook',
  summary: 'Deliver facts; each is kept once, in whatever order it comes, and answered by itself',
  params: batchParams,
  body: shape<Delivery>({
    personId: optional(uuid) as Rule<string>,
    kitchenId: optional(uuid) as Rule<string>,
    sentAt: optional(instant) as Rule<string>,
    recordShape: optional(
      figure({ min: 1, max: 1e6, whole: true, name: 'The shape of the record' }),
    ) as Rule<number>,
    events: list(later(factRule), { min: 1, max: 200 }) as Rule<FactEntry[]>,
  }),
  reply: shape<{ answers: Delivered[]; lastSeq: number }>({
    answers: list(
      shape<Delivered>({
        id: text({ max: 100 }),
        outcome: choice(['kept', 'refused', 'later'] as const),
        seq: maybe(count),
        faults: list(fault, { max: 100 }),
      }),
      { max: 200 },
    ),
    lastSeq: count,
  }),
});
