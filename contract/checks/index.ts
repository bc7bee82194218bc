export { releaseJars, withdrawJars } from './checks.ts';
export { type CheckHistory, HISTORY_SHOWN, readCheckHistory } from './history.ts';
