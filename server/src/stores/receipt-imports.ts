import {
  type BodyOf,
  MOST_FAULTS,
  type ParamsOf,
  RECEIPT_PART,
  type ReplyOf,
  type finishReceiptImport,
  type receiptImportPart,
} from '@cocotte/contract';
import { dayOf } from '@cocotte/core/measure';
import { heavy } from '../heavy/pool.ts';
import type { Call } from '../house/mount.ts';
import { once } from '../house/once.ts';
import { HttpProblem, problem } from '../house/problems.ts';
import { readKitchen } from '../kitchen/service.ts';
import { itemsById } from './queries.ts';
import { lockItems } from './ledger.ts';
import type { Staged } from './receipt-landing.ts';
import { shelve } from './receipt-shelf.ts';

const DAY_MS = 86_400_000;
const MOST_RECEIPTS = 60_000;
/** Tens of thousands of lots take longer than a call usually may; each of its queries is still short. */
export const FINISH_PATIENCE_MS = 60_000;
const UNIQUE_VIOLATION = '23505';
/** Receipts that are put on the shelf at once: few enough that reading them does not hold the loop. */
const AT_ONCE = 250;

/**
 * Lays a part of an import aside: every receipt is landed like one that is typed. Tells which are known already. A part
 * that comes twice takes the place of itself.
 */
export async function part(
  call: Call<ParamsOf<typeof receiptImportPart>, unknown, BodyOf<typeof receiptImportPart>>,
): Promise<ReplyOf<typeof receiptImportPart>> {
  const { trx, kitchenId, params, body, clock } = call;
  if (body.from + body.receipts.length > MOST_RECEIPTS)
    throw problem(422, {
      code: 'too-many',
      what: `An import holds at most ${MOST_RECEIPTS} receipts.`,
      why: 'It is put on the shelf in one piece.',
      next: 'Split the file.',
      path: 'receipts',
    });
  if (body.receipts.reduce((n, r) => n + r.lines.length, 0) > RECEIPT_PART.lines)
    throw problem(422, {
      code: 'too-many',
      what: `A part holds at most ${RECEIPT_PART.lines} lines.`,
      why: 'One request has a limit.',
      next: 'Send it in smaller parts.',
      path: 'receipts',
    });
  const { zone } = await readKitchen(call);
  const now_ms = clock.now_ms();
  const today = dayOf(now_ms, zone);
  const items = await itemsById(trx, kitchenId);
  const { faults, rows } = await heavy('receipts landed', {
    receipts: body.receipts,
    items: [...items.values()],
    today,
    from: body.from,
  });
  if (faults.length > 0) throw new HttpProblem(422, 'invalid', faults.slice(0, MOST_FAULTS));
  if (body.from === 0)
    await trx('receipt_imports')
      .where({ kitchen_id: kitchenId })
      .where('created_at', '<', new Date(now_ms - DAY_MS).toISOString())
      .delete();
  await trx.raw(
    `insert into receipt_imports (kitchen_id, import_id, place, receipt_id, fingerprint, body, created_at)
     select ?, ?, t.place, t.receipt_id, t.fingerprint, t.body, ?
     from unnest(?::int[], ?::uuid[], ?::text[], ?::jsonb[]) as t (place, receipt_id, fingerprint, body)
     on conflict (kitchen_id, import_id, place) do update
       set receipt_id = excluded.receipt_id, fingerprint = excluded.fingerprint, body = excluded.body`,
    [
      kitchenId,
      params.importId,
      new Date(now_ms).toISOString(),
      rows.map(r => r.place),
      rows.map(r => r.id),
      rows.map(r => r.fingerprint),
      rows.map(r => r.staged),
    ],
  );
  const known: { place: number }[] = await trx('receipt_imports as i')
    .where({ 'i.kitchen_id': kitchenId, 'i.import_id': params.importId })
    .whereBetween('i.place', [body.from, body.from + body.receipts.length - 1])
    .whereExists(
      trx('receipts as r')
        .where({ 'r.kitchen_id': kitchenId, 'r.taken_back': '' })
        .whereRaw('r.fingerprint = i.fingerprint')
        .select(trx.raw('1')),
    )
    .orderBy('i.place')
    .select('i.place');
  return { kept: rows.length, known: known.map(k => k.place) };
}

interface Waiting {
  place: number;
  receipt_id: string;
  fingerprint: string;
}

/** Puts every receipt of an import on the shelf, in one transaction: all of them or none. */
export async function finish(
  call: Call<ParamsOf<typeof finishReceiptImport>, unknown, BodyOf<typeof finishReceiptImport>>,
): Promise<ReplyOf<typeof finishReceiptImport>> {
  return once(call, 'receipts imported', call.params.importId, call.body, () => put(call));
}

async function put(
  call: Call<ParamsOf<typeof finishReceiptImport>, unknown, BodyOf<typeof finishReceiptImport>>,
): Promise<ReplyOf<typeof finishReceiptImport>> {
  const { trx, kitchenId, params, body } = call;
  // Two imports of one kitchen go one after the other, so that neither misses what the other brings.
  await trx.raw('select pg_advisory_xact_lock(hashtextextended(?, 0))', [`receipts ${kitchenId}`]);
  const staged: Waiting[] = await trx('receipt_imports')
    .where({ kitchen_id: kitchenId, import_id: params.importId })
    .orderBy('place')
    .select('place', 'receipt_id', 'fingerprint');
  if (staged.length !== body.count || staged.some((s, i) => s.place !== i))
    throw problem(422, {
      code: 'parts-missing',
      what: `${staged.length} of ${body.count} receipts have arrived.`,
      why: 'An import is put on the shelf whole or not at all.',
      next: 'Send the missing parts, then finish.',
      path: 'count',
    });
  const there = new Set<string>(
    (await trx('receipts').where({ kitchen_id: kitchenId, taken_back: '' }).select('fingerprint')).map(
      r => r.fingerprint as string,
    ),
  );
  const fresh: Waiting[] = [];
  for (const s of staged) {
    if (!body.again && there.has(s.fingerprint)) continue;
    there.add(s.fingerprint);
    fresh.push(s);
  }
  await lockItems(trx, kitchenId);
  const kitchen = await readKitchen(call);
  let lots = 0;
  try {
    for (let at = 0; at < fresh.length; at += AT_ONCE) {
      const some = fresh.slice(at, at + AT_ONCE);
      const bodies: { body: Staged }[] = await trx('receipt_imports')
        .where({ kitchen_id: kitchenId, import_id: params.importId })
        .whereIn(
          'place',
          some.map(f => f.place),
        )
        .orderBy('place')
        .select('body');
      const landed = bodies.map(({ body: staged }, i) => ({
        ...staged,
        fingerprint: some[i]?.fingerprint ?? '',
      }));
      const kept = await shelve(call, landed, kitchen);
      lots += kept.reduce((n, r) => n + r.receipt.lines.length, 0);
    }
  } catch (error) {
    if ((error as { code?: string }).code !== UNIQUE_VIOLATION) throw error;
    throw problem(409, {
      code: 'id-taken',
      what: 'A receipt or lot of this file is on the shelf already, under the same id.',
      why: 'It was put there by an import that was sent before.',
      next: 'Read the lines of the file again; then each gets its own.',
    });
  }
  await trx('receipt_imports').where({ kitchen_id: kitchenId, import_id: params.importId }).delete();
  return { receipts: fresh.length, lots, known: staged.length - fresh.length };
}
