export { type LotRow, type ReceiveLot, addItem, listItems, listLots, receiveLot } from './stores.ts';
