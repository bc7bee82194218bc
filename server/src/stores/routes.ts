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

/** Mounts the endpoints of stores. */
export const storeRoutes: Mounted[] = [
  room(contract.listItems, service.items),
  room(contract.addItem, service.add),
  room(contract.changeItem, service.change),
  room(contract.listStock, stock.stock),
  room(contract.readShelf, stock.shelf),
  room(contract.listLots, service.lots),
  room(contract.readLot, stock.lotView),
  room(contract.receiveLot, service.receive),
  room(contract.moveLot, moves.moveOne),
  room(contract.openLot, moves.open),
  room(contract.mixLots, made.mix),
  room(contract.prepareLot, made.prepare),
  room(contract.addReceipt, receipts.add),
  room(contract.listReceipts, receipts.list),
  room(contract.readReceipt, receipts.read),
  room(contract.takeBackReceipt, receipts.takeBack),
  room(contract.receiptImportPart, imports.part, { patience_ms: THREAD_PATIENCE_MS }),
  room(contract.finishReceiptImport, imports.finish, { patience_ms: imports.FINISH_PATIENCE_MS }),
  room(contract.listMappings, receipts.mappings),
  room(contract.putMapping, receipts.saveMapping),
  room(contract.removeMapping, receipts.dropMapping),
  room(contract.listPlans, plans.list),
  room(contract.putPlan, plans.put),
  room(contract.dropPlan, plans.drop),
  room(contract.readShopping, plans.shopping),
  room(contract.readCost, costs.batch),
  room(contract.recipeCosts, costs.history),
];
