import { createHash } from 'node:crypto';
import {
  type BatchView,
  type BodyOf,
  type Curve,
  CURVE_POINTS,
  type curveTable,
  type followCurve,
  type keepCurve,
  type layCurve,
  type listCurves,
  type ParamsOf,
  type readCurve,
  type ReplyOf,
} from '@cocotte/contract';
import { fold } from '@cocotte/core/batches';
import { type Degrees, thinned } from '@cocotte/core/heat';
import type { Trx } from '../house/database.ts';
import type { Call } from '../house/mount.ts';
import { idTaken, notFound, problem } from '../house/problems.ts';
import { heldSince, thermometerOf } from '../kitchen/instruments.ts';
import { decide } from './decide.ts';
import { selectEvents } from './queries.ts';

/** Most readings that lie in one chunk, and most curves of one batch. */
const IN_A_CHUNK = 600;
const IN_A_BATCH = 40;

interface CurveRow {
  curve_id: string;
  batch_id: string;
  step_id: string;
  pot_id: string | null;
  instrument_id: string;
  name: string;
  checked: Curve['checked'];
  began_at: Date;
  kept_at: Date | null;
}
interface ChunkRow {
  number: number;
  until_ms: string;
  readings: number;
  content: string;
  hash: string;
}
type InCurve = Pick<Call<unknown, unknown, unknown>, 'trx' | 'kitchenId' | 'clock'>;

/** The hash of a chunk: over the one before it, or over the curve's id, and its text. */
export const chunkHash = (before: string, content: string): string =>
  createHash('sha256').update(`${before}\n${content}`).digest('hex');

/** Chunks of a curve in their order. */
export const selectChunks = (trx: Trx, kitchenId: string, curveId: string): Promise<ChunkRow[]> =>
  trx('curve_chunks').where({ kitchen_id: kitchenId, curve_id: curveId }).orderBy('number');

async function curveOf(
  { trx, kitchenId }: InCurve,
  { batchId, curveId }: { batchId: string; curveId: string },
  lock = false,
): Promise<CurveRow> {
  const asked = trx('curves').where({ kitchen_id: kitchenId, batch_id: batchId, curve_id: curveId });
  // To lock it would take the right to change it: who lays chunks stands in line for the curve instead.
  if (lock) await trx.raw('select pg_advisory_xact_lock(hashtextextended(?, 0))', [`curve ${curveId}`]);
  const row = (await asked.first()) as CurveRow | undefined;
  if (!row) throw notFound('This curve');
  return row;
}

const told = (row: CurveRow, readings: number): Curve => ({
  curveId: row.curve_id,
  stepId: row.step_id,
  potId: row.pot_id,
  instrumentId: row.instrument_id,
  name: row.name,
  checked: row.checked,
  from: row.began_at.toISOString(),
  keptAt: row.kept_at?.toISOString() ?? null,
  readings,
});

/** What the instrument showed since the last chunk, in the clock of the kitchen. */
function pending({ clock }: InCurve, row: CurveRow, since_ms: number): Degrees[] {
  if (row.kept_at !== null) return [];
  const now_ms = clock.now_ms();
  return heldSince(row.instrument_id, now_ms - since_ms)
    .map(h => ({ at_ms: Math.round(now_ms - h.ago_ms), temp_C: Math.round(h.value * 100) / 100 }))
    .filter(p => p.at_ms > since_ms);
}

/** Lays what is pending beside the record, in chunks whose hashes are chained. */
async function lay(call: InCurve, row: CurveRow): Promise<ChunkRow[]> {
  const { trx, kitchenId } = call;
  const chunks = await selectChunks(trx, kitchenId, row.curve_id);
  const last = chunks.at(-1);
  const fresh = pending(call, row, last ? Number(last.until_ms) : row.began_at.getTime());
  for (let i = 0; i < fresh.length; i += IN_A_CHUNK) {
    const part = fresh.slice(i, i + IN_A_CHUNK);
    const content = JSON.stringify(part.map(p => [p.at_ms, p.temp_C]));
    const made: ChunkRow = {
      number: chunks.length + 1,
      until_ms: String((part.at(-1) as Degrees).at_ms),
      readings: part.length,
      content,
      hash: chunkHash(chunks.at(-1)?.hash ?? row.curve_id, content),
    };
    // oxlint-disable-next-line no-await-in-loop -- each hash rests on the one before
    await trx('curve_chunks').insert({ kitchen_id: kitchenId, curve_id: row.curve_id, ...made });
    chunks.push(made);
  }
  return chunks;
}

const readingsOf = (chunks: readonly ChunkRow[]): number => chunks.reduce((n, c) => n + c.readings, 0);
const pointsOf = (chunks: readonly ChunkRow[]): Degrees[] =>
  chunks.flatMap(c =>
    (JSON.parse(c.content) as [number, number][]).map(([at_ms, temp_C]) => ({ at_ms, temp_C })),
  );

/** The curves of a batch. */
export async function list(
  call: Call<ParamsOf<typeof listCurves>, unknown, unknown>,
): Promise<ReplyOf<typeof listCurves>> {
  const { trx, kitchenId, params } = call;
  const rows = (await trx('curves')
    .where({ kitchen_id: kitchenId, batch_id: params.batchId })
    .orderBy('began_at')
    .limit(100)) as CurveRow[];
  const counts = (await trx('curve_chunks')
    .where({ kitchen_id: kitchenId })
    .whereIn(
      'curve_id',
      rows.map(r => r.curve_id),
    )
    .groupBy('curve_id')
    .select('curve_id')
    .sum({ n: 'readings' })) as { curve_id: string; n: string }[];
  const n = new Map(counts.map(c => [c.curve_id, Number(c.n)]));
  return { curves: rows.map(r => told(r, n.get(r.curve_id) ?? 0)) };
}

/** Begins to follow a thermometer: what it shows from now on belongs to the step. */
export async function follow(
  call: Call<ParamsOf<typeof followCurve>, unknown, BodyOf<typeof followCurve>>,
): Promise<Curve> {
  const { trx, kitchenId, params, body, clock } = call;
  await trx.raw('select pg_advisory_xact_lock(hashtextextended(?, 0))', [`curves ${params.batchId}`]);
  const known = (await trx('curves').where({ kitchen_id: kitchenId, curve_id: body.curveId }).first()) as
    CurveRow | undefined;
  if (known && known.batch_id === params.batchId) return told(known, 0);
  if (known) throw idTaken('curve', 'curveId');
  const { started } = fold(await selectEvents(trx, kitchenId, params.batchId));
  if (!started) throw notFound('This batch');
  if (!started.recipe.steps.some(s => s.id === body.stepId))
    throw problem(422, {
      code: 'unknown-step',
      what: 'This batch has no such step.',
      why: 'A curve belongs to the step that is cooked.',
      next: 'Reload the batch, and follow the step in hand.',
      path: 'stepId',
    });
  const instrument = thermometerOf(body.instrumentId);
  if (!instrument)
    throw problem(422, {
      code: 'no-instrument',
      what: 'No such thermometer is connected.',
      why: 'There is nothing to follow.',
      next: 'Plug it in, or enter what you read by hand.',
      path: 'instrumentId',
    });
  const [{ n }] = (await trx('curves')
    .where({ kitchen_id: kitchenId, batch_id: params.batchId })
    .count({ n: '*' })) as [{ n: string }];
  if (Number(n) >= IN_A_BATCH)
    throw problem(422, {
      code: 'too-many-curves',
      what: `There are ${IN_A_BATCH} curves of this batch already.`,
      why: 'More of them help nobody.',
      next: 'Enter what you read by hand.',
    });
  const row: CurveRow = {
    curve_id: body.curveId,
    batch_id: params.batchId,
    step_id: body.stepId,
    pot_id: body.potId,
    instrument_id: body.instrumentId,
    name: instrument.name,
    checked: instrument.calibrated,
    began_at: new Date(clock.now_ms()),
    kept_at: null,
  };
  await trx('curves').insert({
    kitchen_id: kitchenId,
    ...row,
    checked: row.checked && JSON.stringify(row.checked),
  });
  return told(row, 0);
}

/** Lays what it showed since beside the record. */
export async function keepUp(call: Call<ParamsOf<typeof layCurve>, unknown, unknown>): Promise<Curve> {
  const row = await curveOf(call, call.params, true);
  return told(row, readingsOf(await lay(call, row)));
}

/** A curve as it can be drawn, with what it shows just now. */
export async function read(
  call: Call<ParamsOf<typeof readCurve>, unknown, unknown>,
): Promise<ReplyOf<typeof readCurve>> {
  const row = await curveOf(call, call.params);
  const chunks = await selectChunks(call.trx, call.kitchenId, row.curve_id);
  const last = chunks.at(-1);
  const points = [
    ...pointsOf(chunks),
    ...pending(call, row, last ? Number(last.until_ms) : row.began_at.getTime()),
  ];
  return { curve: told(row, points.length), points: thinned(points, CURVE_POINTS) };
}

/** Keeps it: one entry names all of its chunks by the last hash. */
export async function keep(
  call: Call<ParamsOf<typeof keepCurve>, unknown, BodyOf<typeof keepCurve>>,
): Promise<BatchView> {
  const { trx, kitchenId, params, body, clock } = call;
  return decide(call, params.batchId, body.stamp, { ...body, ...params }, 'curve.kept', async () => {
    const row = await curveOf(call, params, true);
    if (row.kept_at !== null)
      throw problem(409, {
        code: 'curve-kept',
        what: 'This curve is kept already.',
        why: 'What is kept changes no more.',
        next: 'Reload the batch.',
      });
    const chunks = await lay(call, row);
    const points = pointsOf(chunks);
    const last = chunks.at(-1);
    if (!last)
      throw problem(422, {
        code: 'empty-curve',
        what: 'The thermometer showed nothing since it is followed.',
        why: 'There is nothing to keep.',
        next: 'Look whether it is plugged in, or enter what you read by hand.',
      });
    await trx('curves')
      .where({ kitchen_id: kitchenId, curve_id: row.curve_id })
      .update({ kept_at: new Date(clock.now_ms()) });
    const temps = points.map(p => p.temp_C);
    return {
      curveId: row.curve_id,
      stepId: row.step_id,
      potId: row.pot_id,
      outletId: null,
      instrumentId: row.instrument_id,
      checked: row.checked,
      from: new Date((points[0] as Degrees).at_ms).toISOString(),
      to: new Date(Number(last.until_ms)).toISOString(),
      readings: points.length,
      chunks: chunks.length,
      lowest_C: temps.reduce((a, b) => Math.min(a, b)),
      highest_C: temps.reduce((a, b) => Math.max(a, b)),
      hash: last.hash,
    };
  });
}

/** Every reading, one a line. */
export async function table(call: Call<ParamsOf<typeof curveTable>, unknown, unknown>): Promise<Uint8Array> {
  const row = await curveOf(call, call.params);
  const chunks = await selectChunks(call.trx, call.kitchenId, row.curve_id);
  const lines = pointsOf(chunks).map(p => `${new Date(p.at_ms).toISOString()},${p.temp_C}`);
  return new TextEncoder().encode(['instant,temperature_C', ...lines, ''].join('\r\n'));
}
