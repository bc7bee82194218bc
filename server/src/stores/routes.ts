import * as contract from '@cocotte/contract';
import { type Mounted, room } from '../house/mount.ts';
import * as service from './service.ts';

export const storeRoutes: Mounted[] = [
  room(contract.listItems, service.items),
  room(contract.addItem, service.add),
  room(contract.listLots, service.lots),
  room(contract.receiveLot, service.receive),
];
