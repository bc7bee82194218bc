export { type Found, find, recordSheet } from './records.ts';
