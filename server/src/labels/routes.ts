import * as contract from '@cocotte/contract';
import { type Mounted, room } from '../house/mount.ts';
import * as service from './service.ts';

export const labelRoutes: Mounted[] = [
  room(contract.printLabels, service.print, { writesRecord: true }),
  room(contract.labelSheet, service.sheet),
];
