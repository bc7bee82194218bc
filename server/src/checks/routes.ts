import * as contract from '@cocotte/contract';
import { type Mounted, room } from '../house/mount.ts';
import * as service from './service.ts';

/** Mounts the endpoints of checks. */
export const checkRoutes: Mounted[] = [room(contract.releaseJars, service.release, { writesRecord: true })];
