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
  readToday,
} from '@cocotte/contract';
import { type BatchEvent, type SequencedEvent, isDecision } from '@cocotte/core/batches';
import { heavy } from '../heavy/pool.ts';
import { Afterwards, type Call, JsonText } from '../house/mount.ts';
import { notFound, problem } from '../house/problems.ts';
import { namesOf } from '../kitchen/outside.ts';
import { readKitchen } from '../kitchen/service.ts';
import { append, clientHash } from './chain.ts';
import { checkStamp, clash } from './decide.ts';
import * as queries from './queries.ts';

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

/** Stores facts, each once. A fact that breaks a rule is stored all the same and holds its jars. */
export async function appendEntries(
  call: Call<ParamsOf<typeof appendFacts>, unknown, BodyOf<typeof appendFacts>>,
): Promise<ReplyOf<typeof appendFacts>> {
  const { trx, kitchenId, body, params } = call;
  body.events.forEach((event, i) => checkStamp(call, event, `events[${i}]`));
  const {
    head,
    events: before,
    known,
  } = await queries.lockRecord(
    trx,
    kitchenId,
    params.batchId,
    body.events.map(e => e.id),
  );
  if (before.length === 0) throw notFound('This batch');
  const seqs = new Map<string, number>();
  const fresh: { entry: FactEntry; hash: string }[] = [];
  for (const [i, entry] of body.events.entries()) {
    const hash = clientHash({ batchId: params.batchId, entry });
    const there = known.get(entry.id);
    const twin = fresh.find(f => f.entry.id === entry.id);
    if (there ? there.clientHash !== hash : twin && twin.hash !== hash) throw clash(`events[${i}].id`);
    if (there) seqs.set(entry.id, there.seq);
    else if (!twin) fresh.push({ entry, hash });
  }
  refuseCorrectedDecisions(
    before,
    fresh.map(f => f.entry),
  );
  let lastSeq = head.seq;
  if (fresh.length > 0) {
    const entries = fresh.map(({ entry, hash }) => ({
      event: { ...entry, kitchenId, batchId: params.batchId } as BatchEvent,
      clientHash: hash,
    }));
    const after = await append(trx, kitchenId, params.batchId, head, before, entries, call.clock.now_ms());
    for (const event of after.slice(before.length)) seqs.set(event.id, event.seq);
    lastSeq = (after.at(-1) as SequencedEvent).seq;
  }
  return { accepted: body.events.map(e => ({ id: e.id, seq: seqs.get(e.id) as number })), lastSeq };
}

/** A decision is undone by another decision, never by a correction. */
function refuseCorrectedDecisions(before: readonly SequencedEvent[], entries: FactEntry[]): void {
  const corrections = entries.filter(e => e.type === 'entry.corrected');
  if (corrections.length === 0) return;
  const events = new Map([...before, ...entries].map(e => [e.id, e as Pick<SequencedEvent, 'type'>]));
  for (const correction of corrections) {
    const target = events.get(correction.body.replaces);
    if (target && (isDecision(target.type) || target.type !== correction.body.type)) {
      throw problem(422, {
        code: 'not-correctable',
        what: 'That entry cannot be corrected this way.',
        why: isDecision(target.type)
          ? 'It is a decision of the kitchen, not something that was observed.'
          : 'The correction is of another kind than the entry.',
        next: 'Put a draw back, or correct the fact behind it.',
        path: 'events',
      });
    }
  }
}
