import * as contract from '@cocotte/contract';
import { THREAD_PATIENCE_MS } from '../heavy/pool.ts';
import { type Mounted, room } from '../house/mount.ts';
import * as service from './service.ts';

/** Mounts the endpoints of labels. */
export const labelRoutes: Mounted[] = [
  room(contract.printLabels, service.print, { writesRecord: true, patience_ms: THREAD_PATIENCE_MS }),
  room(contract.labelSheet, service.sheet),
];
