import type { ReceiveLot } from '@cocotte/contract';
import { randomUUID } from 'node:crypto';
import type { EventBodies } from '@cocotte/core/batches';
import { gate } from '@cocotte/core/checks';
import { boilingPoint_C } from '@cocotte/core/heat';
import { bareCalibration } from '@cocotte/core/acid';
import {
  type Canner,
  type CheckBody,
  type CostSettings,
  JAM_THERMOMETER,
  type Pot,
  plainCosts,
} from '@cocotte/core/kitchen';
import { addDays, dayOf, instantOf } from '@cocotte/core/measure';
import { type JarsWanted, type Recipe, factorForJars } from '@cocotte/core/recipes';
import { type Database, enterKitchen } from '@cocotte/server/house/database';
import { anyAccount, insertAccount, addMembership } from '@cocotte/server/kitchen/outside';
import { addKitchen, newKitchenSettings } from '@cocotte/server/kitchen/service';
import { hashPassword } from '@cocotte/server/kitchen/sessions';
import { DEMO_SIGN_IN } from '@cocotte/server/kitchen/demo-sign-in';
import { release } from '@cocotte/server/checks/service';
import { print } from '@cocotte/server/labels/service';
import { check as checkInstrument } from '@cocotte/server/kitchen/instrument-checks';
import { confirm } from '@cocotte/server/recipes/confirmations';
import { add as addRecipe } from '@cocotte/server/recipes/service';
import { add as addTasting } from '@cocotte/server/recipes/tastings';
import { prepare } from '@cocotte/server/stores/made';
import { moveOne } from '@cocotte/server/stores/moves';
import { put as putPlan } from '@cocotte/server/stores/plans';
import { add as addReceipt } from '@cocotte/server/stores/receipts';
import * as stores from '@cocotte/server/stores/service';
import { Cook } from '@cocotte/testing/cook';
import { InKitchen } from '@cocotte/testing/in-kitchen';
import { readPage } from '@cocotte/testing/open-page';
import { samplePlace } from '@cocotte/testing/place';
import {
  crushedTomatoes,
  currantJelly,
  plumCardamomJam,
  plumJam,
  sauerkraut,
  strawberryJam,
  tomatoSalsa,
  waxBeans,
} from './recipes.ts';
import { type DemoItems, demoItems, demoLots, demoReceipts } from './stores.ts';
import { toPrint } from '../testing/labels.ts';

const ZONE = 'America/Denver';

const DEMO_POTS: Pot[] = [
  { id: 'pan', name: 'Wide jam pan', capacity_mL: 9000, diameter_mm: 380, boilOff_gPerMin: 62 },
  { id: 'tall', name: 'Tall stock pot', capacity_mL: 15_000, diameter_mm: 300, boilOff_gPerMin: 34 },
];
const demoCosts: CostSettings = {
  ...plainCosts,
  burners: [
    { id: 'hob', name: 'Kitchen hob, large ring', kind: 'electric', power_W: 2200 },
    { id: 'yard', name: 'Yard burner', kind: 'gas', use_gPerHour: 420, itemId: null },
  ],
  electricity: '0.17',
  overhead: { perBatch: '0.75', perJar: '0.02', perMonth: '46.00', batchesPerMonth: 9 },
  market: { fee: '28.00', jars: 46 },
};
const DEMO_CANNERS: Canner[] = [
  {
    id: 'big',
    name: 'Enamel canner',
    kind: 'boiling water',
    holds: { 'quarter-pint': 12, 'half-pint': 8, pint: 9, quart: 7 },
  },
  { id: 'steam', name: 'Steam canner', kind: 'steam', holds: { 'half-pint': 8, pint: 8, quart: 7 } },
];

/**
 * Seeds the made-up kitchen through the services, so that record and ledger are true, with days counted back from now.
 *
 * @returns false when there is an account already: nothing is touched
 */
export async function seedDemo(database: Database, now_ms: number): Promise<boolean> {
  // One transaction for all of it: a seed that is interrupted leaves nothing.
  return database.outside(
    trx =>
      seedWithin(
        {
          outside: work => work(trx),
          inKitchen: async (kitchenId, work) => {
            await enterKitchen(trx, kitchenId);
            return work(trx);
          },
        },
        now_ms,
      ),
    { patience_ms: SEEDING_MS },
  );
}

/** Alder Crossing, 2,350 ft. */
const ALTITUDE_M = 716.28;
/** Longest the seed may take, on a slow machine too. */
const SEEDING_MS = 300_000;

async function seedWithin(
  database: Pick<Database, 'outside' | 'inKitchen'>,
  now_ms: number,
): Promise<boolean> {
  const wren = { id: randomUUID(), name: 'Wren Hollis' };
  const rook = { id: randomUUID(), name: 'Tamsin Rook' };
  const password_hash = await hashPassword(DEMO_SIGN_IN.password);
  const kitchenId = await database.outside(async trx => {
    if (await anyAccount(trx)) return null;
    await insertAccount(trx, { ...wren, email: DEMO_SIGN_IN.email, password_hash, demo: true }, now_ms);
    await insertAccount(
      trx,
      { ...rook, email: 'tamsin@wrenfold.example', password_hash, demo: true },
      now_ms,
    );
    const id = await addKitchen(
      trx,
      {
        ...newKitchenSettings('Wrenfold Kitchen', { zone: ZONE, altitude_m: ALTITUDE_M }),
        demo: true,
        hourlyRate: '18.00',
        makerName: 'Wrenfold Kitchen',
        makerAddress: '12 Mill Lane, Alder Crossing',
        jurisdiction: samplePlace({
          name: 'Alder County cottage food (made up for the demo)',
          source: 'made up for the demo',
        }),
        pots: DEMO_POTS,
        canners: DEMO_CANNERS,
        costs: { ...demoCosts, rates: [{ personId: rook.id, hourlyRate: '16.50' }] },
      },
      now_ms,
    );
    await addMembership(trx, wren.id, id, 'owner', true);
    await addMembership(trx, rook.id, id, 'cook', false);
    return id;
  });
  if (!kitchenId) return false;
  const kitchen = new InKitchen(database, kitchenId, wren, now_ms);
  const today = dayOf(now_ms, ZONE);
  const items = demoItems();
  const lots = demoLots(items, back => addDays(today, -back));
  for (const item of Object.values(items)) await kitchen.run(stores.add, { body: item });
  for (const lot of Object.values(lots)) await kitchen.run(stores.receive, { body: lot });
  const ids = { jam: randomUUID(), beans: randomUUID(), tomatoes: randomUUID() };
  // The book and its pages are older than the first batch.
  kitchen.now_ms = now_ms - 60 * 86_400_000;
  for (const [recipeId, recipe] of [
    [ids.jam, plumJam],
    [ids.beans, waxBeans],
    [ids.tomatoes, crushedTomatoes],
    [randomUUID(), { ...plumCardamomJam, variantOf: ids.jam }],
    [randomUUID(), currantJelly],
    [randomUUID(), strawberryJam],
    [randomUUID(), tomatoSalsa],
    [randomUUID(), sauerkraut],
  ] as const) {
    await kitchen.run(addRecipe, { body: { id: recipeId, recipe } });
    // No page was open: it stands confirmed for the demo, and for nothing else.
    const body = readPage(recipe, ALTITUDE_M);
    if (body) await kitchen.run(confirm, { params: { recipeId }, body: { ...body, page: 'for the demo' } });
  }

  const at = (back: number, clock: string) => {
    kitchen.now_ms = instantOf(`${addDays(today, -back)}T${clock}`, ZONE);
  };
  await instrumentLogs(kitchen, at);
  const lot = (key: string) => (lots[key] as { id: string }).id;
  const drawFor = async (cook: Cook, recipe: Recipe, plums: string) => {
    const lotOf: Record<string, string> = { plums };
    const needs = cook.needs_g();
    const lines = recipe.lines
      .filter(l => l.role !== 'water')
      .map(l => ({
        lotId: lot(lotOf[l.id] ?? l.id),
        lineId: l.id,
        quantity: inUnits(items, l.id, needs[l.id] as number),
      }));
    const size = cook.jars[0]?.size === 'half-pint' ? 'halfPints' : 'pints';
    const count = String(cook.jars.reduce((n, j) => n + j.count, 0));
    await cook.draw([
      ...lines,
      { lotId: lot(size), lineId: null, quantity: count },
      { lotId: lot('lids'), lineId: null, quantity: count },
      { lotId: lot('bands'), lineId: null, quantity: count },
      { lotId: lot('labels'), lineId: null, quantity: count },
      { lotId: lot('gas'), lineId: null, quantity: '380' },
    ]);
  };
  const glass = (key: string) => ({ jarLotId: lot(key), lidLotId: lot('lids') });
  const range = (from: number, to: number) => Array.from({ length: to - from + 1 }, (_, i) => from + i);

  // Earlier in the season: two pots of the same jam, which came out short and full.
  const earlierJam = async (
    back: number,
    pot_C: number,
    filled: number,
    reason: string,
    seen: EventBodies['jars.looked'],
  ) => {
    at(back, '08:30');
    const batch = new Cook(kitchen, ids.jam, plumJam, [{ size: 'half-pint', count: 8 }], 'pan');
    await batch.start();
    await drawFor(batch, plumJam, 'plumsEarly');
    await batch.stepDone('open', 10);
    await batch.stepDone('prepare', 20);
    await batch.stepDone('macerate', 280);
    await batch.stepDone('soften', 18);
    await batch.note(['temperature.read', { where: 'pot', temp_C: pot_C }]);
    await batch.stepDone('boil', 14);
    await batch.processLoad(1, 'half-pint', range(1, filled), glass('halfPints'), 15);
    await batch.note(['minutes.worked', { minutes: 110 }], ['yield.explained', { reason }]);
    await batch.note(['kitchen.worked', { minutes: 25 }]);
    await batch.note(['energy.used', { burnerId: 'hob', minutes: 55 }]);
    at(back - 1, '09:00');
    await batch.note(['jars.pressed', { sealed: range(1, filled), failed: [] }]);
    await kitchen.run(release, {
      params: { batchId: batch.batchId },
      body: { jars: gate(batch.state).releasable, stamp: batch.device.stamp(kitchen.now_ms) },
    });
    await kitchen.run(print, {
      params: { batchId: batch.batchId },
      body: toPrint(range(1, filled), 'half-pint', batch.device.stamp(kitchen.now_ms)),
    });
    at(back - 2, '18:30');
    await batch.note(['jars.looked', seen]);
  };
  await earlierJam(38, 103.4, 7, 'Cooked two degrees past the gel point: thick, and a jar short.', {
    jars: range(1, 7),
    set: 'too firm',
    found: [],
    text: 'Take it off at the gel point, not after.',
  });
  await earlierJam(24, 102.4, 8, 'Very ripe plums, hardly any foam.', {
    jars: [2, 5],
    set: 'as meant',
    found: ['floating'],
    text: 'Let it stand five minutes and stir before filling.',
  });
  await kitchen.run(addTasting, {
    params: { recipeId: ids.jam },
    body: { id: randomUUID(), rating: 4, notes: 'Good set, a touch too sweet on bread.', lotCode: '' },
  });
  await kitchen.run(addTasting, {
    params: { recipeId: ids.jam },
    body: { id: randomUUID(), rating: 5, notes: 'The late plums are the best of the year.', lotCode: '' },
  });

  // Nine days ago: jam, cooked, pressed, released and labelled.
  at(9, '08:10');
  const jam = new Cook(kitchen, ids.jam, plumJam, [{ size: 'half-pint', count: 16 }], 'pan');
  await jam.start();
  await drawFor(jam, plumJam, 'plums');
  await jam.stepDone('open', 12);
  await jam.stepDone('prepare', 35);
  await jam.note(['line.weighed', { lineId: 'plums', mass_g: 4095 }]);
  await jam.stepDone('macerate', 300);
  await jam.stepDone('soften', 20);
  await jam.note(['step.started', { stepId: 'boil' }], ['temperature.read', { where: 'pot', temp_C: 99.4 }]);
  jam.wait(14);
  await jam.note(['temperature.read', { where: 'pot', temp_C: 102.3 }]);
  jam.wait(3);
  await jam.note(['step.done', { stepId: 'boil' }]);
  await jam.processLoad(1, 'half-pint', range(1, 8), glass('halfPints'), 15);
  await jam.processLoad(2, 'half-pint', range(9, 16), glass('halfPints'), 15);
  await jam.note(['minutes.worked', { minutes: 165 }], ['yield.explained', { reason: 'As foreseen.' }]);
  await jam.note(['kitchen.worked', { minutes: 30 }]);
  await jam.note(['energy.used', { burnerId: 'hob', minutes: 95 }]);
  at(8, '09:05');
  await jam.note(['jars.pressed', { sealed: range(1, 15), failed: [16] }]);
  await jam.note(['jars.set_aside', { jars: [16], why: 'seal failed' }]);
  await jam.note(['note.written', { text: 'Set well, a little froth under two lids.' }]);
  await kitchen.run(release, {
    params: { batchId: jam.batchId },
    body: { jars: gate(jam.state).releasable, stamp: jam.device.stamp(kitchen.now_ms) },
  });
  await kitchen.run(print, {
    params: { batchId: jam.batchId },
    body: toPrint(range(1, 15), 'half-pint', jam.device.stamp(kitchen.now_ms)),
  });

  at(7, '19:00');
  await jam.note(['jars.looked', { jars: range(1, 15), set: 'as meant', found: [], text: '' }]);

  // Two days ago: beans, pressed, the pH still to be read.
  at(2, '09:20');
  const beans = new Cook(kitchen, ids.beans, waxBeans, [{ size: 'pint', count: 12 }]);
  await beans.start();
  await drawFor(beans, waxBeans, 'plums');
  await beans.stepDone('open', 10);
  await beans.stepDone('prepare', 50);
  await beans.note(['line.weighed', { lineId: 'beans', mass_g: 2710 }]);
  await beans.stepDone('brine', 15);
  await beans.processLoad(1, 'pint', range(1, 7), glass('pints'), 15);
  await beans.processLoad(2, 'pint', range(8, 12), glass('pints'), 15);
  await beans.note(['minutes.worked', { minutes: 130 }]);
  await beans.note(['kitchen.worked', { minutes: 25 }]);
  at(1, '08:40');
  await beans.note(['jars.pressed', { sealed: range(1, 12), failed: [] }]);

  // Yesterday: tomatoes, cooling; one jar broke in the canner.
  at(1, '10:00');
  kitchen.person = rook;
  const tomatoes = new Cook(kitchen, ids.tomatoes, crushedTomatoes, [{ size: 'pint', count: 9 }], 'pan');
  await tomatoes.start();
  await drawFor(tomatoes, crushedTomatoes, 'plums');
  await tomatoes.stepDone('peel', 55);
  await tomatoes.stepDone('crush', 20);
  await tomatoes.processLoad(1, 'pint', range(1, 9), glass('pints'), 40);
  await tomatoes.note(['jars.set_aside', { jars: [6], why: 'broken' }]);
  await tomatoes.note(
    ['minutes.worked', { minutes: 140 }],
    ['yield.explained', { reason: 'Cooked on while the second kettle boiled: thicker, and a jar short.' }],
  );
  kitchen.person = wren;

  await storesWork(kitchen, items, lots, ids, back => addDays(today, back), now_ms);

  // This morning, two hours ago: plums stand in sugar.
  kitchen.now_ms = now_ms - 2 * 3_600_000;
  const next = new Cook(kitchen, ids.jam, plumJam, [{ size: 'half-pint', count: 14 }], 'pan');
  await next.start();
  await drawFor(next, plumJam, 'plumsLate');
  await next.stepDone('open', 8);
  await next.stepDone('prepare', 30);
  await next.note(['line.weighed', { lineId: 'plums', mass_g: 3572 }]);
  await next.note(['step.started', { stepId: 'macerate' }]);
  return true;
}

/** What happens at the shelf: receipts, something frozen for winter, a bag that split, a count, and what is planned. */
async function storesWork(
  kitchen: InKitchen,
  items: DemoItems,
  lots: Record<string, ReceiveLot>,
  recipes: { jam: string; beans: string },
  day: (ahead: number) => string,
  now_ms: number,
): Promise<void> {
  kitchen.now_ms = now_ms - 26 * 3_600_000;
  for (const receipt of demoReceipts(items, day))
    await kitchen.run(addReceipt, { body: { receipt, again: false } });
  const id = (key: string) => (lots[key] as ReceiveLot).id;
  await kitchen.run(prepare, {
    body: {
      lotId: randomUUID(),
      itemId: items.frozenPlums.id,
      label: 'FP-01',
      how: 'frozen',
      parts: [{ lotId: id('plumsEarly'), quantity: '1500' }],
      quantity: '1320',
      keepsUntil: day(300),
      value: 'cost and work',
      minutes: 20,
      unitCost: '0',
      note: 'stoned, in trays, then bagged',
    },
  });
  const change = (lotId: string, kind: 'loss' | 'count', quantity: string, reason: string) =>
    kitchen.run(moveOne, { params: { lotId }, body: { id: randomUUID(), kind, quantity, reason } });
  await change(id('plums'), 'loss', '240', 'Gone soft at the bottom of the crate.');
  await change(id('garlic'), 'count', '48', 'Counted: some had sprouted and were thrown out.');
  const plan = (recipe: Recipe, recipeId: string, ahead: number, jars: JarsWanted[]) => {
    const factor = factorForJars(recipe, jars).toFraction();
    const planId = randomUUID();
    return kitchen.run(putPlan, {
      params: { planId },
      body: { id: planId, day: day(ahead), recipeId, factor, jars },
    });
  };
  await plan(plumJam, recipes.jam, 3, [{ size: 'half-pint', count: 64 }]);
  await plan(waxBeans, recipes.beans, 5, [{ size: 'pint', count: 45 }]);
}

/** Grams of a line as bought, in the unit its item is kept in. */
function inUnits(items: DemoItems, lineId: string, mass_g: number): string {
  const item = items[lineId as keyof DemoItems];
  const quantity = mass_g / (item.unit_g ?? 1);
  return item.unit === 'each' ? String(Math.ceil(quantity - 1e-9)) : quantity.toFixed(1);
}

/** What the kitchen judges by, held against something known: the meter for the tomatoes of last month, and the rest of it. */
async function instrumentLogs(kitchen: InKitchen, at: (back: number, clock: string) => void): Promise<void> {
  const known = (id: string, name: string, body: CheckBody) =>
    kitchen.run(checkInstrument, {
      body: { id: randomUUID(), instrument: { id, kind: body.kind, name }, body },
    });
  const meter = (acid_mV: number, neutral_mV: number) =>
    known('meter-bench', 'Bench meter', {
      kind: 'ph meter',
      calibration: bareCalibration({
        at: new Date(kitchen.now_ms).toISOString(),
        temp_C: 23,
        points: [
          { ph: 4.01, mV: acid_mV },
          { ph: 7, mV: neutral_mV },
        ],
        buffersOpenedOn: dayOf(kitchen.now_ms, ZONE),
        electrodeSince: addDays(dayOf(kitchen.now_ms, ZONE), -300),
        resolution_ph: 0.01,
      }),
    });
  at(40, '08:30');
  await known(JAM_THERMOMETER, 'Jam thermometer', {
    kind: 'thermometer',
    ice_C: null,
    boils_C: boilingPoint_C(ALTITUDE_M) + 0.2,
  });
  at(30, '10:05');
  await meter(173.5, -1.5);
  at(16, '09:40');
  await meter(171, -3);
  at(12, '08:40');
  await known('scale-counter', 'Counter scale', { kind: 'scale', known_g: 500, shows_g: 501 });
  await known('refractometer-brix', 'Refractometer', { kind: 'refractometer', water_pct: 0.2 });
}
