import * as contract from '@cocotte/contract';
import { type Mounted, room } from '../house/mount.ts';
import { draw, giveBack, undraw } from './draws.ts';
import { open } from './outlets.ts';
import * as service from './service.ts';
import { start } from './start.ts';
import { take } from './takings.ts';

const WRITES = { writesRecord: true };

/** Mounts the endpoints of batches. */
export const batchRoutes: Mounted[] = [
  room(contract.listBatches, service.list),
  room(contract.readBatch, service.read),
  room(contract.readToday, service.today),
  room(contract.startBatch, start, WRITES),
  room(contract.appendFacts, service.appendEntries, WRITES),
  room(contract.openOutlet, open, WRITES),
  room(contract.drawLots, draw, WRITES),
  room(contract.reverseDraw, undraw, WRITES),
  room(contract.returnLots, giveBack, WRITES),
  room(contract.takeJars, take, WRITES),
  room(contract.blankSheet, service.printBlank),
];
