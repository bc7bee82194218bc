export { releaseJars } from './checks.ts';
