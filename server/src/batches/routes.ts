import * as contract from '@cocotte/contract';
import { type Mounted, following, room } from '../house/mount.ts';
import { draw, giveBack, undraw } from './draws.ts';
import * as curves from './curves.ts';
import * as pot from './pot-takings.ts';
import * as service from './service.ts';
import { printLidMarks } from './lid-marks.ts';
import { start } from './start.ts';
import { take } from './takings.ts';

const WRITES = { writesRecord: true };
const MOVES_STOCK = { writesRecord: true, moves: ['stock'] } as const;

/** Mounts the endpoints of batches. */
export const batchRoutes: Mounted[] = [
  room(contract.listBatches, service.list),
  room(contract.readBatch, service.read),
  room(contract.readToday, service.today),
  room(contract.startBatch, start, MOVES_STOCK),
  room(contract.appendFacts, service.appendEntries, { ...WRITES, byGrant: true }),
  room(contract.drawLots, draw, MOVES_STOCK),
  room(contract.reverseDraw, undraw, MOVES_STOCK),
  room(contract.returnLots, giveBack, MOVES_STOCK),
  room(contract.takeJars, take, MOVES_STOCK),
  room(contract.takeFromPot, pot.take, MOVES_STOCK),
  room(contract.listCurves, curves.list),
  room(contract.followCurve, curves.follow),
  room(contract.layCurve, curves.keepUp),
  room(contract.readCurve, curves.read),
  room(contract.keepCurve, curves.keep, WRITES),
  room(contract.curveTable, curves.table),
  following(contract.feed),
  room(contract.readEvents, service.eventsAfter),
  room(contract.printLidMarks, printLidMarks),
  room(contract.blankSheet, service.printBlank),
];
