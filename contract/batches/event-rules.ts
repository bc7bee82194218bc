import {
  type EventBodies,
  type EventType,
  type FactType,
  type SequencedEvent,
  type Stamp,
  isDecision,
} from '@cocotte/core/batches';
import { byName } from '@cocotte/core/measure';
import { type Rule, choice, shape, text, union, uuid } from '../rules.ts';
import { shapesOf } from './body-rules.ts';
import { receiptRule, stampFields } from './stamp-rules.ts';

const types = Object.keys(shapesOf) as EventType[];

/** A fact as a device sends it: its stamp, its type and its body. */
export type FactEntry = Stamp & { [K in FactType]: { type: K; body: EventBodies[K] } }[FactType];

/** An entry of a kind: in whichever shape its version says, with more around it. */
const ofEachShape = (type: EventType, more: object): Rule<unknown> =>
  union(
    'typeVersion',
    byName(
      shapesOf[type].map((body, i) => [
        String(i + 1),
        shape<never>({
          ...stampFields,
          ...more,
          type: choice([type]),
          typeVersion: choice([i + 1]),
          body,
        } as never) as Rule<unknown>,
      ]),
    ),
  );

/** A fact as a device sends it, in any shape there ever was: a device may have slept through a new version. */
export const factRule = union<FactEntry>(
  'type',
  byName(types.filter(t => !isDecision(t)).map(type => [type, ofEachShape(type, {})])),
);

const placed = { kitchenId: uuid, batchId: uuid, receipt: receiptRule, hash: text({ min: 64, max: 64 }) };

/** Any entry as the server tells it: as it was stored, with its receipt. */
export const sequencedRule = union<SequencedEvent>(
  'type',
  byName(types.map(type => [type, ofEachShape(type, placed)])),
);
