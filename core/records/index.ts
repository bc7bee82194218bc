export { KNOWN_WORDS, eventWords } from './words.ts';
export { type RecordLine, isRemark, recordOf } from './record.ts';
