export { eventWords } from './words.ts';
