import * as contract from '@cocotte/contract';
import { type Mounted, room } from '../house/mount.ts';
import { printBlank } from './blank-sheet.ts';
import * as service from './service.ts';

export const batchRoutes: Mounted[] = [
  room(contract.listBatches, service.list),
  room(contract.readBatch, service.read),
  room(contract.readToday, service.today),
  room(contract.startBatch, service.start),
  room(contract.appendFacts, service.appendEntries),
  room(contract.drawLots, service.draw),
  room(contract.reverseDraw, service.undraw),
  room(contract.blankSheet, printBlank),
];
