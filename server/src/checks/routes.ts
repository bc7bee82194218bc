import * as contract from '@cocotte/contract';
import { type Mounted, room } from '../house/mount.ts';
import { history } from './history.ts';
import * as service from './service.ts';

/** Mounts the endpoints of checks. */
export const checkRoutes: Mounted[] = [
  room(contract.releaseJars, service.release, { writesRecord: true }),
  room(contract.withdrawJars, service.withdraw, { writesRecord: true }),
  room(contract.readCheckHistory, history),
];
