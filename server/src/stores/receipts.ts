import type {
  BodyOf,
  ParamsOf,
  QueryOf,
  ReceiptView,
  ReplyOf,
  SavedMapping,
  addReceipt,
  listReceipts,
  putMapping,
  readReceipt,
  removeMapping,
  takeBackReceipt,
} from '@cocotte/contract';
import { canonicalJson, dayOf } from '@cocotte/core/measure';
import {
  type Item,
  type LandedReceipt,
  type Receipt,
  landReceipt,
  receiptFingerprint,
} from '@cocotte/core/stores';
import type { Call } from '../house/mount.ts';
import { fromKey, likeWords, toKey } from '../house/paging.ts';
import { idTaken, notFound, problem } from '../house/problems.ts';
import { readKitchen } from '../kitchen/service.ts';
import { derivedId, lockItems, lockLots, move, movement } from './ledger.ts';
import { itemsById, trimmed } from './queries.ts';
import { shelve } from './receipt-shelf.ts';
import { refuse } from './service.ts';

const PAGE = 40;

interface Row {
  receipt_id: string;
  supplier: string;
  day: string;
  number: string;
  total: string;
  body: { receipt: Receipt; landed: LandedReceipt['lines'] };
  taken_back: string;
}

const viewFrom = (row: Row): ReceiptView => ({
  receipt: row.body.receipt,
  landed: row.body.landed,
  total: trimmed(row.total),
  takenBack: row.taken_back,
});

async function find(
  call: Pick<Call<unknown, unknown, unknown>, 'trx' | 'kitchenId'>,
  receiptId: string,
): Promise<Row | undefined> {
  return call.trx('receipts').where({ kitchen_id: call.kitchenId, receipt_id: receiptId }).first();
}

/** Lands a receipt, or refuses it with every fault at its line and field. */
function landed(receipt: Receipt, items: ReadonlyMap<string, Item>, today: string): LandedReceipt {
  const result = landReceipt(receipt, items, today);
  if (!result.ok) {
    refuse(result.faults);
    throw problem(422, {
      code: 'no-lines',
      what: 'The receipt has no line.',
      why: 'Nothing came in.',
      next: 'Add what was bought.',
      path: 'lines',
    });
  }
  return result.value;
}

/** Whether a receipt is the one that is there: a lot that was sent without a name was given one. */
function sameReceipt(there: Receipt, sent: Receipt): boolean {
  const lines = there.lines.map((l, i) =>
    sent.lines[i]?.label.trim() === '' ? { ...l, label: sent.lines[i].label } : l,
  );
  return canonicalJson({ ...there, lines }) === canonicalJson(sent);
}

/** Records a receipt: lines become lots. The same receipt twice is found by supplier, day, and number or total. */
export async function add(call: Call<unknown, unknown, BodyOf<typeof addReceipt>>): Promise<ReceiptView> {
  const { trx, kitchenId, clock } = call;
  const { receipt, again } = call.body;
  const there = await find(call, receipt.id);
  if (there) {
    if (sameReceipt(there.body.receipt, receipt)) return viewFrom(there);
    throw idTaken('receipt');
  }
  const kitchen = await readKitchen(call);
  const { zone } = kitchen;
  const land = landed(receipt, await itemsById(trx, kitchenId), dayOf(clock.now_ms(), zone));
  const fingerprint = receiptFingerprint(receipt, land.total);
  const twin: Row | undefined = await trx('receipts')
    .where({ kitchen_id: kitchenId, fingerprint, taken_back: '' })
    .first();
  if (twin && !again)
    throw problem(409, {
      code: 'same-receipt',
      what: `A receipt of ${twin.supplier} of ${twin.day}${twin.number ? `, number ${twin.number}` : ''}, over ${trimmed(twin.total)} is there already.`,
      why: 'Entered twice, its goods would be counted and paid for twice.',
      next: 'Look at the other one, or record this one all the same.',
      path: 'receipt.number',
    });
  const taken: { lot_id: string }[] = await trx('lots')
    .where({ kitchen_id: kitchenId })
    .whereIn(
      'lot_id',
      receipt.lines.map(l => l.lotId),
    )
    .select('lot_id');
  if (taken.length > 0) throw idTaken('lot');
  await lockItems(
    trx,
    kitchenId,
    receipt.lines.map(l => l.itemId),
  );
  const fresh = { receipt, landed: land.lines, total: land.total, fingerprint };
  const [kept = fresh] = await shelve(call, [fresh], kitchen);
  const row = {
    receipt_id: receipt.id,
    supplier: receipt.supplier,
    day: receipt.day,
    number: receipt.number,
    total: land.total,
  };
  return viewFrom({ ...row, body: { receipt: kept.receipt, landed: land.lines }, taken_back: '' });
}

/** A page of receipts, newest first. */
export async function list(
  call: Call<unknown, QueryOf<typeof listReceipts>, unknown>,
): Promise<ReplyOf<typeof listReceipts>> {
  const { trx, kitchenId, query } = call;
  const page = trx('receipts')
    .where({ kitchen_id: kitchenId })
    .orderBy([
      { column: 'day', order: 'desc' },
      { column: 'receipt_id', order: 'desc' },
    ])
    .limit(PAGE + 1)
    .select(
      'receipt_id',
      'supplier',
      'day',
      'number',
      'total',
      'taken_back',
      trx.raw("jsonb_array_length(body->'landed') as lines"),
    );
  if (query.search)
    page.whereRaw('(supplier ilike ? or number ilike ?)', [likeWords(query.search), likeWords(query.search)]);
  const key = fromKey(query.after, ['day', 'uuid']);
  if (key) page.whereRaw('(day, receipt_id) < (?::date, ?::uuid)', key);
  const rows: (Row & { lines: number })[] = await page;
  const last = rows.slice(0, PAGE).at(-1);
  return {
    receipts: rows.slice(0, PAGE).map(r => ({
      id: r.receipt_id,
      supplier: r.supplier,
      day: r.day,
      number: r.number,
      lines: r.lines,
      total: trimmed(r.total),
      takenBack: r.taken_back !== '',
    })),
    next: rows.length > PAGE && last ? toKey([last.day, last.receipt_id]) : null,
  };
}

/** One receipt with what its lines cost in the end. */
export async function read(call: Call<ParamsOf<typeof readReceipt>, unknown, unknown>): Promise<ReceiptView> {
  const row = await find(call, call.params.receiptId);
  if (!row) throw notFound('This receipt');
  return viewFrom(row);
}

/** Takes a receipt back while all of it is still on the shelf: a movement for each lot, and the reason. */
export async function takeBack(
  call: Call<ParamsOf<typeof takeBackReceipt>, unknown, BodyOf<typeof takeBackReceipt>>,
): Promise<ReceiptView> {
  const { trx, kitchenId, params, body, person, clock } = call;
  const row: Row | undefined = await trx('receipts')
    .where({ kitchen_id: kitchenId, receipt_id: params.receiptId })
    .forUpdate()
    .first();
  if (!row) throw notFound('This receipt');
  if (row.taken_back !== '') return viewFrom(row);
  const lots = await lockLots(
    trx,
    kitchenId,
    row.body.receipt.lines.map(l => l.lotId),
  );
  const used = [...lots.values()].filter(
    ({ lot }) =>
      Number(lot.onHand) !==
      Number(row.body.landed[row.body.receipt.lines.findIndex(l => l.lotId === lot.id)]?.quantity),
  );
  if (used.length > 0)
    throw problem(422, {
      code: 'already-used',
      what: `${used.map(u => `Lot ${u.lot.label}`).join(', ')} was drawn from or counted already.`,
      why: 'What has gone into a batch has been here.',
      next: 'Correct each lot by a count or a return instead.',
    });
  await move(
    trx,
    kitchenId,
    [...lots.values()].map(({ lot }) =>
      movement({
        id: derivedId(lot.id, 'taken back'),
        lotId: lot.id,
        quantity: `-${lot.onHand}`,
        unitCost: lot.unitCost,
        reason: 'taken back',
        note: body.reason,
        personId: person.id,
      }),
    ),
    new Date(clock.now_ms()).toISOString(),
  );
  await trx('receipts')
    .where({ kitchen_id: kitchenId, receipt_id: params.receiptId })
    .update({ taken_back: body.reason });
  return viewFrom({ ...row, taken_back: body.reason });
}

/** Kept readings of files. */
export async function mappings(call: Call<unknown, unknown, unknown>): Promise<{ mappings: SavedMapping[] }> {
  const rows = await call
    .trx('receipt_mappings')
    .where({ kitchen_id: call.kitchenId })
    .orderBy('name')
    .limit(100);
  return { mappings: rows.map(r => ({ id: r.mapping_id, name: r.name, mapping: r.body })) };
}

/** Keeps a reading by its name. */
export async function saveMapping(
  call: Call<ParamsOf<typeof putMapping>, unknown, BodyOf<typeof putMapping>>,
): Promise<SavedMapping> {
  const { id, name, mapping } = call.body;
  if (id !== call.params.mappingId)
    throw problem(422, {
      code: 'ids-differ',
      what: 'The mapping names another id.',
      why: 'An id names one thing.',
      next: 'Send the same id in both places.',
      path: 'id',
    });
  await call
    .trx('receipt_mappings')
    .insert({ kitchen_id: call.kitchenId, mapping_id: id, name, body: JSON.stringify(mapping) })
    .onConflict(['kitchen_id', 'mapping_id'])
    .merge(['name', 'body']);
  return call.body;
}

/** Forgets one. */
export async function dropMapping(
  call: Call<ParamsOf<typeof removeMapping>, unknown, unknown>,
): Promise<{ removed: boolean }> {
  const n = await call
    .trx('receipt_mappings')
    .where({ kitchen_id: call.kitchenId, mapping_id: call.params.mappingId })
    .delete();
  return { removed: n > 0 };
}
