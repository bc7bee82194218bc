export { type Changed, type RecordsView, records } from './records.ts';
export { eraseKept } from './store.ts';
