import { randomUUID } from 'node:crypto';
import { type BatchEvent, type LineMass, type Receipt, fold, lineMasses } from '@cocotte/core/batches';
import { assess, gate } from '@cocotte/core/checks';
import { labelContent, plainSetup } from '@cocotte/core/labels';
import { noPlace } from '@cocotte/core/kitchen';
import { addDays, canonicalJson } from '@cocotte/core/measure';
import type { Recipe } from '@cocotte/core/recipes';
import { chainHash, clientHash, project } from '@cocotte/server/batches/chain';
import {
  type EventRow,
  type Head,
  insertEvents,
  lockHead,
  writeBatch,
  writeHead,
} from '@cocotte/server/batches/queries';
import type { Database, Trx } from '@cocotte/server/house/database';
import { recount } from '@cocotte/server/stores/ledger';
import { freezeVersion } from '@cocotte/server/recipes/queries';
import { PaperBatch } from './builders.ts';
import { nthLotCode, printed } from './labels.ts';

const CHUNK = 400;

export interface TenYears {
  batches: number;
  lots: number;
  /** Recipes that are there, to cook again and again. */
  recipes: { id: string; recipe: Recipe }[];
  personId: string;
  kitchenId: string;
  /** The last day. */
  today: string;
}

/**
 * Fills a kitchen with ten years of work: cooked, checked, released and labelled batches of some sixty entries, and
 * lots bought and mostly used up. Written in bulk, with a true chain and true projections.
 */
export async function fillTenYears(database: Database, plan: TenYears): Promise<void> {
  await database.inKitchen(plan.kitchenId, trx => fillLots(trx, plan));
  for (let from = 0; from < plan.batches; from += CHUNK) {
    await database.inKitchen(plan.kitchenId, async trx => {
      let head = await lockHead(trx, plan.kitchenId);
      for (let i = from; i < Math.min(plan.batches, from + CHUNK); i++)
        head = await addBatch(trx, plan, i, head);
      await writeHead(trx, plan.kitchenId, head);
    });
  }
}

/** One batch of about sixty entries, as events in memory. */
export function tenYearBatch(
  recipe: Recipe,
  started: ConstructorParameters<typeof PaperBatch>[2],
): PaperBatch {
  const size = recipe.makes.size;
  const batch = new PaperBatch(recipe, [{ size, count: 14 }], started);
  const numbers = Array.from({ length: 14 }, (_, i) => i + 1);
  batch.drawAll();
  const main = lineMasses(fold(batch.events))[0] as LineMass;
  for (const step of recipe.steps) {
    batch.fact('step.started', { stepId: step.id }).wait(4);
    batch.fact('step.done', { stepId: step.id });
  }
  for (let i = 0; i < 12; i++)
    batch.fact('line.weighed', { lineId: main.line.id, mass_g: main.planned_g / 12 }).wait(1);
  for (let i = 0; i < 10; i++) batch.fact('temperature.read', { where: 'pot', temp_C: 93 + i }).wait(2);
  batch.fill(numbers.slice(0, 7)).process(1, numbers.slice(0, 7), 40);
  batch.fill(numbers.slice(7)).process(2, numbers.slice(7), 40);
  batch
    .fact('minutes.worked', { minutes: 150 })
    .wait(13 * 60)
    .fact('jars.pressed', { sealed: numbers, failed: [] })
    .wait(13 * 60)
    .readPh(3.9)
    .fact('note.written', { text: 'As it should be.' });
  const state = fold(batch.events);
  batch.add('jars.released', { jars: gate(state).releasable, evidence: [] });
  const label = labelContent(
    fold(batch.events),
    {
      locale: 'en-US',
      makerName: 'Kitchen',
      makerAddress: 'Town',
      jurisdiction: { ...noPlace(), statement: 'x' },
    },
    plainSetup('letter-10'),
    size,
  );
  if (label.ok) batch.add('labels.printed', { jars: numbers, ...printed(size, label.label) });
  return batch;
}

async function addBatch(trx: Trx, plan: TenYears, index: number, head: Head): Promise<Head> {
  const { id: recipeId, recipe } = plan.recipes[index % plan.recipes.length] as {
    id: string;
    recipe: Recipe;
  };
  const madeOn = addDays(plan.today, -Math.floor(((plan.batches - index) * 3650) / plan.batches) - 2);
  const perDay = Math.ceil(plan.batches / 3650) + 2;
  const batch = tenYearBatch(recipe, {
    recipeId,
    recipeVersion: 1,
    madeOn,
    lotCode: nthLotCode(recipe.code, madeOn, 50 + (index % (perDay * 40))),
  });
  const batchId = randomUUID();
  const events = batch.events.map(
    e => ({ ...e, kitchenId: plan.kitchenId, batchId, personId: plan.personId }) as BatchEvent,
  );
  let { seq, hash } = head;
  const after: BatchEvent[] = [];
  const rows = events.map((event): EventRow => {
    seq += 1;
    const receipt = { ...(event.receipt as Receipt), seq };
    after.push({ ...event, receipt } as BatchEvent);
    const content = canonicalJson(after.at(-1));
    const prev_hash = hash;
    hash = chainHash(prev_hash, content);
    return {
      kitchen_id: plan.kitchenId,
      seq,
      event_id: event.id,
      batch_id: batchId,
      type: event.type,
      content,
      client_hash: clientHash(event.id),
      prev_hash,
      hash,
      received_at: receipt.at,
    };
  });
  await insertEvents(trx, rows);
  await writeBatch(trx, plan.kitchenId, project(batchId, assess(after), seq));
  await freezeVersion(trx, plan.kitchenId, recipeId, 1, madeOn);
  return { seq, hash, last_at: null };
}

/** Movements of one lot: it came in, and was drawn from until nothing, or almost nothing, was left. */
const MOVEMENTS_PER_LOT = 15;
/** Of a hundred lots, those that still have something left. */
const LEFT_PCT = 3;

/** Lots and their movements over the years, spread over the items there are; in bulk, with true projections. */
async function fillLots(trx: Trx, plan: TenYears): Promise<void> {
  const { kitchenId, lots, today } = plan;
  const began = `(?::date - (((? - n) * 3650) / ?) - 1)`;
  await trx.raw(
    `insert into lots (kitchen_id, lot_id, item_id, label, supplier, received_on, unit_cost, facts, on_hand)
     select ?, md5('ten years lot ' || n)::uuid, i.item_id, 'T-' || n, 'Ten Year Farm', ${began}, 0.01 + (n % 7) * 0.001, null,
       case when n >= ? then 20 else 0 end
     from generate_series(0, ? - 1) n
     join (select item_id, row_number() over (order by item_id) - 1 as k, count(*) over () as all_items from items where kitchen_id = ? and kind <> 'tool') i
       on i.k = n % i.all_items`,
    [kitchenId, today, lots, lots, Math.floor((lots * (100 - LEFT_PCT)) / 100), lots, kitchenId],
  );
  await trx.raw(
    `insert into movements (kitchen_id, movement_id, lot_id, item_id, quantity, unit_cost, reason, at)
     select l.kitchen_id, gen_random_uuid(), l.lot_id, l.item_id,
       case when m = 0 then 1400 when m = ? - 1 then -(100 - l.on_hand) else -100 end, l.unit_cost,
       case when m = 0 then 'received' else 'drawn' end,
       least(l.received_on::timestamptz + m * interval '5 hours', ?::timestamptz)
     from lots l cross join generate_series(0, ? - 1) m
     where l.kitchen_id = ? and l.supplier = 'Ten Year Farm'`,
    [MOVEMENTS_PER_LOT, `${today}T00:00:00Z`, MOVEMENTS_PER_LOT, kitchenId],
  );
  await recount(trx, kitchenId);
}
