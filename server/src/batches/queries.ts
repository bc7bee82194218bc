import type { BatchRow } from '@cocotte/contract';
import { bareCode, type Receipt, type SequencedEvent } from '@cocotte/core/batches';
import { type BatchSummary, type CheckedBatch, NOTHING_LEARNED } from '@cocotte/core/checks';
import type { Work } from '@cocotte/core/stores';
import type { Trx } from '../house/database.ts';
import { fromKey, likeWords, toKey } from '../house/paging.ts';

const PAGE = 50;
/** Batches that Today tells of, at most. */
export const OPEN_LIMIT = 200;

/** The end of a kitchen's record: the last number and hash, and when that entry arrived. */
export interface Head {
  seq: number;
  hash: string;
  /** Null while there is none. */
  last_at: Date | null;
}

/** Locks the kitchen's head: from here on this transaction alone gives sequence numbers. */
export async function lockHead(trx: Trx, kitchenId: string): Promise<Head> {
  return headFrom(await trx('heads').where({ kitchen_id: kitchenId }).forUpdate().first());
}

/** Reads the end of the kitchen's record. */
export async function readHead(trx: Trx, kitchenId: string): Promise<Head> {
  return headFrom(await trx('heads').where({ kitchen_id: kitchenId }).first());
}

interface HeadRow {
  seq: string;
  hash: string;
  last_at: Date | null;
}
const headFrom = ({ seq, hash, last_at }: HeadRow): Head => ({ seq: Number(seq), hash, last_at });

/** Moves it on. */
export async function writeHead(trx: Trx, kitchenId: string, head: Head): Promise<void> {
  await trx('heads').where({ kitchen_id: kitchenId }).update(head);
}

/** What writing to a batch's record begins from: read under the head's lock, in one journey. */
export interface LockedRecord {
  head: Head;
  /** The batch's entries so far. */
  events: SequencedEvent[];
  /** Entries of the kitchen that are there already under the ids that come now. */
  known: Map<string, { seq: number; batchId: string; clientHash: string }>;
}

/**
 * Records that were written to of late, as they were read last: what is appended to next is read from there on. The hash
 * of the last entry, read again each time, answers for all before it.
 */
const recent = new Map<string, { seq: number; hash: string; events: SequencedEvent[] }>();
const MOST_RECENT = 32;

/** Stands in line for the kitchen's record: whoever holds it alone may append. */
export async function lockRecord(
  trx: Trx,
  kitchenId: string,
  batchId: string,
  eventIds: string[],
): Promise<LockedRecord> {
  const key = `${kitchenId} ${batchId}`;
  const kept = recent.get(key);
  const [heads, texts, known] = (await trx.together([
    trx('heads').where({ kitchen_id: kitchenId }).forUpdate(),
    eventsOf(trx, kitchenId, batchId, kept?.seq ?? 0),
    trx('events')
      .where({ kitchen_id: kitchenId })
      .whereIn('event_id', eventIds)
      .select('event_id', 'seq', 'batch_id', 'client_hash'),
  ])) as [HeadRow[], EventText[], { event_id: string; seq: string; batch_id: string; client_hash: string }[]];
  const holds = kept && texts[0]?.hash === kept.hash;
  const rows: EventText[] = !kept ? texts : holds ? texts.slice(1) : await eventsOf(trx, kitchenId, batchId);
  const events = [
    ...(holds ? kept.events : []),
    ...rows.map(r => JSON.parse(sequenced(r)) as SequencedEvent),
  ];
  recent.delete(key);
  const last = events.at(-1);
  if (last) recent.set(key, { seq: last.receipt.seq, hash: last.hash, events });
  const [oldest] = recent.keys();
  if (recent.size > MOST_RECENT && oldest !== undefined) recent.delete(oldest);
  return {
    head: headFrom(heads[0] as HeadRow),
    events,
    known: new Map(
      known.map(r => [r.event_id, { seq: Number(r.seq), batchId: r.batch_id, clientHash: r.client_hash }]),
    ),
  };
}

/** An entry as it is stored. */
export interface EventRow {
  kitchen_id: string;
  seq: number;
  event_id: string;
  batch_id: string;
  type: string;
  content: string;
  client_hash: string;
  prev_hash: string;
  hash: string;
  received_at: string;
}

/** Appends entries. They are never changed again. */
export async function insertEvents(trx: Trx, rows: EventRow[]): Promise<void> {
  await trx('events').insert(rows);
}

interface EventText {
  seq: string;
  hash: string;
  content: string;
}
const eventsOf = (trx: Trx, kitchenId: string, batchId: string, from = 0) =>
  trx('events')
    .where({ kitchen_id: kitchenId, batch_id: batchId })
    .where('seq', '>=', from)
    .orderBy('seq')
    .select('seq', 'hash', 'content');
/** As entries were stored before receipts: with the time of arrival alone. */
const BEFORE_RECEIPTS = '"receivedAt":"';
/**
 * An entry with its hash, as JSON text. One from before receipts is given what the database knows of it, and marked: who
 * sent it when, and whether they had the right to sign, nobody wrote down.
 */
function sequenced(r: EventText): string {
  if (!r.content.includes(BEFORE_RECEIPTS)) return `{"hash":"${r.hash}",${r.content.slice(1)}`;
  const { receivedAt, ...event } = JSON.parse(r.content) as { receivedAt: string };
  const receipt: Receipt = { seq: Number(r.seq), at: receivedAt, sentAt: null, signs: null };
  return JSON.stringify({ hash: r.hash, ...event, receipt });
}

/** Every entry of a batch as JSON text, with its place in the chain, in the order the server gave them. */
export async function selectEventTexts(
  trx: Trx,
  kitchenId: string,
  batchId: string,
): Promise<{ seq: number; text: string }[]> {
  const rows: EventText[] = await eventsOf(trx, kitchenId, batchId);
  return rows.map(r => ({ seq: Number(r.seq), text: sequenced(r) }));
}

/** A page of a kitchen's record after a number, over all batches, as JSON texts. */
export async function selectEventsAfter(
  trx: Trx,
  kitchenId: string,
  after: number,
  limit: number,
): Promise<{ seq: number; text: string }[]> {
  const rows: EventText[] = await trx('events')
    .where({ kitchen_id: kitchenId })
    .where('seq', '>', after)
    .orderBy('seq')
    .limit(limit)
    .select('seq', 'hash', 'content');
  return rows.map(r => ({ seq: Number(r.seq), text: sequenced(r) }));
}

/** Who made entries, from their texts. */
export function personIds(texts: readonly string[]): string[] {
  return [...new Set(texts.flatMap(t => /"personId":"([0-9a-f-]{36})"/.exec(t)?.[1] ?? []))];
}

/** The day of a batch, or null when it is not in this kitchen. */
export async function madeOn(trx: Trx, kitchenId: string, batchId: string): Promise<string | null> {
  const row = await trx('batches').where({ kitchen_id: kitchenId, batch_id: batchId }).first('made_on');
  return row?.made_on ?? null;
}

/** Every entry of a batch in the order the server gave them. */
export async function selectEvents(trx: Trx, kitchenId: string, batchId: string): Promise<SequencedEvent[]> {
  return (await selectEventTexts(trx, kitchenId, batchId)).map(e => JSON.parse(e.text) as SequencedEvent);
}

/** Raised with the rules by which a batch's row is derived: rows of older rules are derived again when the server is renewed. */
export const PROJECTION_RULES = 4;

/** Jars of a batch that bear one code. */
export interface LotColumn {
  lotCode: string;
  load: number | null;
  jars: number[];
}

/** What a list of batches is drawn from. */
export interface BatchColumns {
  batch_id: string;
  lot_code: string;
  recipe_id: string;
  recipe_version: number;
  name: string;
  made_on: string;
  stage: string;
  open: boolean;
  summary: BatchSummary;
  /** What was checked of it, for charts and lists over years. */
  checked: CheckedBatch;
  /** Codes its jars bear. */
  lots: LotColumn[];
  /** Minutes worked with their rates, for batches that share them. */
  work: Work[];
  last_seq: number;
}

/** Keeps the projection that lists and Today read. */
export async function writeBatch(trx: Trx, kitchenId: string, row: BatchColumns): Promise<void> {
  const columns = {
    ...row,
    kitchen_id: kitchenId,
    summary: JSON.stringify(row.summary),
    checked: JSON.stringify(row.checked),
    work: JSON.stringify(row.work),
    lots: JSON.stringify(row.lots),
    codes: [...new Set([row.lot_code, ...row.lots.map(l => l.lotCode)].map(bareCode))],
    rules: PROJECTION_RULES,
  };
  await trx('batches')
    .insert(columns)
    .onConflict(['kitchen_id', 'batch_id'])
    .merge(['stage', 'open', 'summary', 'checked', 'work', 'lots', 'codes', 'last_seq', 'rules']);
}

/** Batches whose row older rules derived. */
export async function selectOutdated(trx: Trx, kitchenId: string): Promise<string[]> {
  return trx('batches')
    .where({ kitchen_id: kitchenId })
    .where('rules', '<', PROJECTION_RULES)
    .orderBy('batch_id')
    .pluck('batch_id');
}

/** Of these codes, bare of all but letters and digits, those that jars of the kitchen bear or may come to bear. */
export async function selectTakenCodes(
  trx: Trx,
  kitchenId: string,
  bare: readonly string[],
): Promise<string[]> {
  const rows = await trx('batches')
    .where({ kitchen_id: kitchenId })
    .whereRaw('codes && ?::text[]', [[...bare]])
    .select('codes');
  return rows.flatMap(r => r.codes as string[]);
}

/** The batch whose jars bear a code, bare of all but letters and digits; null for none. */
export async function selectBatchOfCode(trx: Trx, kitchenId: string, bare: string): Promise<string | null> {
  const row = await trx('batches')
    .where({ kitchen_id: kitchenId })
    .whereRaw('codes @> array[?]::text[]', [bare])
    .first('batch_id');
  return (row?.batch_id as string | undefined) ?? null;
}

/** A code that jars of the kitchen bear. */
export interface KnownCode extends LotColumn {
  batchId: string;
  name: string;
}

/** Every code that jars of the kitchen bear, with its batch; before any is filled, the code of the batch. */
export async function selectLotCodes(trx: Trx, kitchenId: string): Promise<KnownCode[]> {
  const rows = await trx('batches')
    .where({ kitchen_id: kitchenId })
    .select('lot_code', 'batch_id', 'name', 'lots');
  return rows.flatMap(r => {
    const of = { batchId: r.batch_id as string, name: r.name as string };
    const lots = r.lots as LotColumn[];
    const own = lots.some(l => l.lotCode === r.lot_code)
      ? []
      : [{ lotCode: r.lot_code as string, load: null, jars: [] }];
    return [...own, ...lots].map(l => ({ ...of, ...l }));
  });
}

/** A batch of a list: its summary as JSON text, which is passed on as it is stored. */
export interface BatchText {
  id: string;
  lastSeq: number;
  summary: string;
}

/** Rows that older rules derived say nothing of what those did not know. */
const SUMMARY = `('${JSON.stringify({ readings: [], asksMore: [], learned: NOTHING_LEARNED })}'::jsonb || summary)::text as summary`;

const textFrom = (r: { batch_id: string; summary: string; last_seq: string }): BatchText => ({
  id: r.batch_id,
  lastSeq: Number(r.last_seq),
  summary: r.summary,
});

/** A row of a list as JSON text. */
export const rowText = (r: BatchText): string =>
  `{"id":"${r.id}","summary":${r.summary},"lastSeq":${r.lastSeq}}`;
/** A row of a list, out of its columns. */
export const rowFrom = (r: BatchText): BatchRow => ({ ...r, summary: JSON.parse(r.summary) as BatchSummary });

/** A page of batches, newest first, by stage and words. */
export async function selectBatches(
  trx: Trx,
  kitchenId: string,
  after: string,
  search: string,
  stage: string,
): Promise<{ batches: BatchText[]; next: string | null }> {
  const query = trx('batches')
    .where({ kitchen_id: kitchenId })
    .orderBy([
      { column: 'made_on', order: 'desc' },
      { column: 'batch_id', order: 'desc' },
    ])
    .limit(PAGE + 1)
    .select('batch_id', 'made_on', 'last_seq', trx.raw(SUMMARY));
  if (stage === 'open') query.where('open', true);
  else if (stage === 'asks more') query.whereRaw(`summary -> 'asksMore' <> '[]'::jsonb`);
  else if (stage) query.where({ stage });
  const key = fromKey(after, ['day', 'uuid']);
  if (key) query.whereRaw('(made_on, batch_id) < (?::date, ?::uuid)', key);
  if (search) query.whereRaw('(name ilike ? or lot_code ilike ?)', [likeWords(search), likeWords(search)]);
  const rows = await query;
  const page = rows.slice(0, PAGE);
  const last = page.at(-1);
  return {
    batches: page.map(textFrom),
    next: rows.length > PAGE && last ? toKey([last.made_on, last.batch_id]) : null,
  };
}

/** Batches that are not finished, for Today. */
export async function selectOpen(trx: Trx, kitchenId: string): Promise<BatchRow[]> {
  const rows = await trx('batches')
    .where({ kitchen_id: kitchenId, open: true })
    .orderBy([
      { column: 'made_on', order: 'desc' },
      { column: 'batch_id', order: 'desc' },
    ])
    .limit(OPEN_LIMIT + 1)
    .select('batch_id', 'last_seq', trx.raw(SUMMARY));
  return rows.map(r => rowFrom(textFrom(r)));
}
