import {
  type Delivered,
  type Delivery,
  EVENTS_A_PAGE,
  type EventsPage,
  check,
  factRule,
} from '@cocotte/contract';
import type {
  BatchView,
  BodyOf,
  FactEntry,
  ParamsOf,
  QueryOf,
  ReplyOf,
  appendFacts,
  blankSheet,
  listBatches,
  readBatch,
  readEvents,
  readToday,
} from '@cocotte/contract';
import {
  type BatchEvent,
  type EventType,
  type SequencedEvent,
  isDecision,
  RECORD_SHAPE,
} from '@cocotte/core/batches';
import type { Fault } from '@cocotte/core/measure';
import { heavy } from '../heavy/pool.ts';
import { readMoved } from '../house/feed.ts';
import { Afterwards, type Call, JsonText } from '../house/mount.ts';
import { fromNumber } from '../house/paging.ts';
import { HttpProblem, notFound, problem } from '../house/problems.ts';
import { namesOf } from '../kitchen/outside.ts';
import { readKitchen } from '../kitchen/service.ts';
import { type NewEntry, append, clientHash } from './chain.ts';
import { clashFault, futureFault, stampFault } from './decide.ts';
import * as queries from './queries.ts';
import { drawUsed } from './used.ts';

/** A page of batches. */
export async function list(
  call: Call<unknown, QueryOf<typeof listBatches>, unknown>,
): Promise<JsonText<ReplyOf<typeof listBatches>>> {
  const { after, search, stage } = call.query;
  const { batches, next } = await queries.selectBatches(call.trx, call.kitchenId, after, search, stage);
  return new JsonText(
    `{"batches":[${batches.map(queries.rowText).join(',')}],"next":${JSON.stringify(next)}}`,
  );
}

/** A batch's record, passed on as it is stored. */
export async function read(
  call: Call<ParamsOf<typeof readBatch>, unknown, unknown>,
): Promise<JsonText<BatchView>> {
  const { trx, kitchenId, params } = call;
  const events = await queries.selectEventTexts(trx, kitchenId, params.batchId);
  if (events.length === 0) throw notFound('This batch');
  const people = await namesOf(trx, queries.personIds(events.map(e => e.text)));
  return new JsonText(
    `{"id":"${params.batchId}","events":[${events.map(e => e.text).join(',')}],"people":${JSON.stringify(people)},"lastSeq":${events.at(-1)?.seq}}`,
  );
}

/** The sheet to cook from without a screen, drawn once the batch has been read. */
export async function printBlank(
  call: Call<ParamsOf<typeof blankSheet>, unknown, unknown>,
): Promise<Afterwards<Uint8Array>> {
  const texts = (await queries.selectEventTexts(call.trx, call.kitchenId, call.params.batchId)).map(
    e => e.text,
  );
  if (texts.length === 0) throw notFound('This batch');
  const paper = { texts, kitchen: await readKitchen(call) };
  return new Afterwards(() => heavy('blank paper', paper));
}

/** What runs and what is due, over every batch that is not finished. */
export async function today(call: Call<unknown, unknown, unknown>): Promise<ReplyOf<typeof readToday>> {
  const rows = await queries.selectOpen(call.trx, call.kitchenId);
  const batches = rows.slice(0, queries.OPEN_LIMIT);
  const count = (stage: string) => batches.filter(b => b.summary.stage === stage).length;
  return {
    batches,
    more: rows.length > queries.OPEN_LIMIT,
    waiting: {
      cook: count('cooking'),
      check: count('checking'),
      label: batches.filter(b => b.summary.released > b.summary.labelled).length,
    },
  };
}

/** A page of the kitchen's record, passed on as it is stored, and how far the kitchen has come. */
export async function eventsAfter(
  call: Call<unknown, QueryOf<typeof readEvents>, unknown>,
): Promise<JsonText<EventsPage>> {
  const { trx, kitchenId, query } = call;
  // How far it has come is read first: what is told of it is then never ahead of what was sent.
  const moved = await readMoved(trx, kitchenId);
  const rows = await queries.selectEventsAfter(trx, kitchenId, fromNumber(query.after), EVENTS_A_PAGE + 1);
  const page = rows.slice(0, EVENTS_A_PAGE).map(r => r.text);
  const people = await namesOf(trx, queries.personIds(page));
  return new JsonText(
    `{"events":[${page.join(',')}],"people":${JSON.stringify(people)},"more":${rows.length > page.length},"moved":${JSON.stringify(moved)}}`,
  );
}

type Outcome = Omit<Delivered, 'id'>;
const refused = (...faults: Fault[]): Outcome => ({ outcome: 'refused', seq: null, faults });

/**
 * Stores facts, each once, and answers each by itself. A fact that breaks a rule is stored all the same and holds its
 * jars; what is no entry at all is refused, and what only a newer build can read is asked for again later.
 */
export async function appendEntries(
  call: Call<ParamsOf<typeof appendFacts>, unknown, BodyOf<typeof appendFacts>>,
): Promise<ReplyOf<typeof appendFacts>> {
  const { trx, kitchenId, body, params } = call;
  addressed(call);
  const read = body.events.map(entry => readEntry(call, entry, body.recordShape ?? 1));
  const {
    head,
    events: before,
    known,
  } = await queries.lockRecord(
    trx,
    kitchenId,
    params.batchId,
    read.flatMap(r => ('entry' in r ? [r.entry.id] : [])),
  );
  if (before.length === 0) throw notFound('This batch');
  const kinds = new Map<string, EventType>(before.map(e => [e.id, e.type]));
  for (const r of read) if ('entry' in r && !kinds.has(r.entry.id)) kinds.set(r.entry.id, r.entry.type);
  const outcomes = new Map<string, Outcome>();
  const fresh = new Map<string, NewEntry>();
  const answers = read.map(r => {
    if (!('entry' in r)) return () => r;
    const { entry } = r;
    const hash = clientHash({ batchId: params.batchId, entry });
    const there = known.get(entry.id)?.clientHash ?? fresh.get(entry.id)?.clientHash;
    if (there !== undefined && there !== hash) return () => refused(clashFault('id'));
    const seq = known.get(entry.id)?.seq;
    if (seq !== undefined) outcomes.set(entry.id, { outcome: 'kept', seq, faults: [] });
    else if (there === undefined) {
      const fault = uncorrectable(entry, kinds);
      if (fault) return () => refused(fault);
      const event = { ...entry, kitchenId, batchId: params.batchId, receipt: null } as BatchEvent;
      fresh.set(entry.id, { event, clientHash: hash });
    }
    return () => outcomes.get(entry.id) as Outcome;
  });
  let lastSeq = head.seq;
  if (fresh.size > 0) {
    const sent = { sentAt: body.sentAt ?? null, signs: call.maySign };
    const after = await append(
      trx,
      kitchenId,
      params.batchId,
      head,
      before,
      [...fresh.values()],
      sent,
      call.clock.now_ms(),
    );
    for (const { id, receipt } of after.slice(before.length))
      outcomes.set(id, { outcome: 'kept', seq: receipt.seq, faults: [] });
    const settled = [...fresh.values()].some(({ event }) => touchesStock(event))
      ? await drawUsed(call, params.batchId, after)
      : after;
    lastSeq = (settled.at(-1) as SequencedEvent).receipt.seq;
  }
  const told = answers.map((answer, i) => ({ id: idOf(body.events[i]), ...answer() }));
  // A page of an earlier build reads no answers: it is told by the call itself, which then keeps nothing.
  if (body.personId === undefined) failWhole(told);
  return { answers: told, lastSeq };
}

/** Whether an entry says, or says otherwise, what was used without a connection. */
const touchesStock = (event: BatchEvent): boolean =>
  event.type === 'lot.used' || (event.type === 'entry.corrected' && event.body.type === 'lot.used');

/** A delivery names who it is from and for which kitchen: it is never kept for another. */
function addressed({ body, person, kitchenId }: Call<unknown, unknown, Delivery>): void {
  if ((body.personId ?? person.id) !== person.id)
    throw problem(403, {
      code: 'other-person',
      what: 'This delivery is from somebody else.',
      why: 'The record says who did what.',
      next: 'Sign in as the person who made the entries; they wait on the device until then.',
      path: 'personId',
    });
  if ((body.kitchenId ?? kitchenId) !== kitchenId)
    throw problem(403, {
      code: 'other-kitchen',
      what: 'This delivery is for another kitchen.',
      why: 'Each kitchen keeps its own record.',
      next: 'Send it to the kitchen it was made in.',
      path: 'kitchenId',
    });
}

/** An entry as it was sent, or what became of it. */
function readEntry(
  call: Pick<Call<unknown, unknown, unknown>, 'person' | 'clock'>,
  sent: unknown,
  recordShape: number,
) {
  const checked = check(factRule, sent);
  if (!checked.ok)
    return recordShape > RECORD_SHAPE
      ? { outcome: 'later' as const, seq: null, faults: [] }
      : refused(...checked.faults);
  const entry = checked.value;
  const fault =
    stampFault(call, entry) ??
    (entry.type === 'entry.corrected' && entry.body.occurredAt !== null
      ? futureFault(call.clock, entry.body.occurredAt, 'body.occurredAt')
      : null);
  return fault ? refused(fault) : { entry };
}

const idOf = (sent: unknown): string => {
  const { id } = sent as { id?: unknown };
  return typeof id === 'string' ? id.slice(0, 100) : '';
};

/** A decision is undone by another decision, never by a correction. */
function uncorrectable(entry: FactEntry, kinds: ReadonlyMap<string, EventType>): Fault | null {
  if (entry.type !== 'entry.corrected') return null;
  const target = kinds.get(entry.body.replaces);
  if (target === undefined || (!isDecision(target) && target === entry.body.type)) return null;
  return {
    path: 'body.replaces',
    code: 'not-correctable',
    what: 'That entry cannot be corrected this way.',
    why: isDecision(target)
      ? 'It is a decision of the kitchen, not something that was observed.'
      : 'The correction is of another kind than the entry.',
    next: 'Put a draw back, or correct the fact behind it.',
  };
}

/** @throws HttpProblem with the faults of every entry that was not kept */
function failWhole(told: readonly Delivered[]): void {
  const faults = told.flatMap((t, i) =>
    t.faults.map(f => ({ ...f, path: [`events[${i}]`, f.path].filter(Boolean).join('.') })),
  );
  const first = faults[0];
  if (!first) return;
  const status = first.code === 'other-person' ? 403 : first.code === 'id-other-content' ? 409 : 422;
  throw new HttpProblem(status, first.code, faults);
}
