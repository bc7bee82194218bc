export { type Finding, type Rehearsed, type Seen, type WentWrong, debrief } from './debrief.ts';
