import * as contract from '@cocotte/contract';
import { type Mounted, room } from '../house/mount.ts';
import { printRecord, search } from './service.ts';

/** Mounts the endpoints of records and of finding. */
export const recordRoutes: Mounted[] = [room(contract.recordSheet, printRecord), room(contract.find, search)];
