export { KNOWN_WORDS, eventWords } from './words.ts';
export { type RecordLine, recordOf } from './record.ts';
