export { type OutboxView, outbox } from './outbox.ts';
export { makeStamp } from './stamp.ts';
export { type Waiting, draw as drawCount } from './store.ts';
