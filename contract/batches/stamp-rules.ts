import type { Receipt, Stamp } from '@cocotte/core/batches';
import { type Rule, figure, flag, instant, maybe, shape, uuid } from '../rules.ts';

/** The rules of what a device says about an entry, but for the shape of its body. */
export const stampFields: { [K in keyof Omit<Stamp, 'typeVersion'>]-?: Rule<Stamp[K]> } = {
  id: uuid,
  personId: uuid,
  deviceId: uuid,
  deviceCounter: figure({ min: 0, max: 2 ** 53 - 1, whole: true, name: "The device's counter" }),
  wallClock: instant,
  monotonic_ms: figure({ min: 0, max: 1e13, name: 'The monotonic reading' }),
  pageSessionId: uuid,
  clockOffset_ms: maybe(figure({ min: -1e13, max: 1e13, name: 'The clock offset' })),
  clockOffsetAge_ms: maybe(figure({ min: 0, max: 1e13, name: 'The age of the clock offset' })),
  occurredAt: instant,
  typedInAfterwards: flag,
  basedOnSeq: figure({ min: 0, max: 2 ** 53 - 1, whole: true, name: 'What the device had seen' }),
};

/** Rule of a stamp, as decisions carry it: whatever shape its device knows. */
export const stampRule = shape<Stamp>({
  ...stampFields,
  typeVersion: figure({ min: 1, max: 1000, whole: true, name: 'The shape of the entry' }),
});

/** Rule of the server's half of an entry's envelope. */
export const receiptRule = shape<Receipt>({
  seq: figure({ min: 1, max: 2 ** 53 - 1, whole: true, name: 'The sequence number' }),
  at: instant,
  sentAt: maybe(instant),
  signs: maybe(flag),
});
