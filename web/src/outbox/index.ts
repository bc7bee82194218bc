export { type OutboxView, type Waiting, outbox } from './outbox.ts';
export { makeStamp } from './stamp.ts';
