import * as contract from '@cocotte/contract';
import { type Mounted, room } from '../house/mount.ts';
import { draw, giveBack, undraw } from './draws.ts';
import * as service from './service.ts';
import { start } from './start.ts';
import { take } from './takings.ts';

export const batchRoutes: Mounted[] = [
  room(contract.listBatches, service.list),
  room(contract.readBatch, service.read),
  room(contract.readToday, service.today),
  room(contract.startBatch, start),
  room(contract.appendFacts, service.appendEntries),
  room(contract.drawLots, draw),
  room(contract.reverseDraw, undraw),
  room(contract.returnLots, giveBack),
  room(contract.takeJars, take),
  room(contract.blankSheet, service.printBlank),
];
