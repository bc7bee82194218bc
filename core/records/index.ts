export { ACTION_WORDS, KNOWN_WORDS, eventWords } from './words.ts';
export { type RecordLine, isRemark, lastOwn, recordOf } from './record.ts';
