import * as contract from '@cocotte/contract';
import { THREAD_PATIENCE_MS } from '../heavy/pool.ts';
import { type Mounted, room } from '../house/mount.ts';
import * as costs from './costs.ts';
import * as made from './made.ts';
import * as moves from './moves.ts';
import * as plans from './plans.ts';
import * as imports from './receipt-imports.ts';
import * as receipts from './receipts.ts';
import * as service from './service.ts';
import * as stock from './stock.ts';
import * as takingIn from './taking-in.ts';

const MOVES = { moves: ['stock'] } as const;

/** Mounts the endpoints of stores. */
export const storeRoutes: Mounted[] = [
  room(contract.listItems, service.items),
  room(contract.addItem, service.add, MOVES),
  room(contract.changeItem, service.change, MOVES),
  room(contract.listStock, stock.stock),
  room(contract.readShelf, stock.shelf),
  room(contract.listLots, service.lots),
  room(contract.readLot, stock.lotView),
  room(contract.receiveLot, service.receive, MOVES),
  room(contract.takeIn, takingIn.take, MOVES),
  room(contract.priceLot, takingIn.price, MOVES),
  room(contract.moveLot, moves.moveOne, MOVES),
  room(contract.openLot, moves.open, MOVES),
  room(contract.mixLots, made.mix, MOVES),
  room(contract.prepareLot, made.prepare, MOVES),
  room(contract.addReceipt, receipts.add, MOVES),
  room(contract.listReceipts, receipts.list),
  room(contract.readReceipt, receipts.read),
  room(contract.takeBackReceipt, receipts.takeBack, MOVES),
  room(contract.receiptImportPart, imports.part, { patience_ms: THREAD_PATIENCE_MS }),
  room(contract.finishReceiptImport, imports.finish, { ...MOVES, patience_ms: imports.FINISH_PATIENCE_MS }),
  room(contract.listMappings, receipts.mappings),
  room(contract.putMapping, receipts.saveMapping, MOVES),
  room(contract.removeMapping, receipts.dropMapping, MOVES),
  room(contract.listPlans, plans.list),
  room(contract.putPlan, plans.put, MOVES),
  room(contract.dropPlan, plans.drop, MOVES),
  room(contract.readShopping, plans.shopping),
  room(contract.readCost, costs.batch),
  room(contract.recipeCosts, costs.history),
];
