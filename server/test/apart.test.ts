import { randomUUID } from 'node:crypto';
import {
  changeLabelSettings,
  changeLabelSetup,
  type AnyEndpoint,
  addPaper,
  addReceipt,
  addTasting,
  checkInstrument,
  listItems,
  putMapping,
  putPlan,
  receiptImportPart,
  importPart,
  inKitchen,
  invite,
  listPeople,
  listSessions,
  putIngredient,
  readBatch,
  readKitchen,
} from '@cocotte/contract';
import { type Receipt, emptyMapping, plainFacts, upgradeItem } from '@cocotte/core/stores';
import { USUAL_LOT_PATTERN } from '@cocotte/core/batches';
import { LABEL_STOCKS, plainSetup } from '@cocotte/core/labels';
import { ENDPOINTS } from '@cocotte/contract/table';
import { type Ingredient, libraryOf } from '@cocotte/core/ingredients';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { crushedTomatoes } from '../../demo/recipes.ts';
import { toPrint } from '../../testing/labels.ts';
import { Line } from '../../testing/line.ts';
import { picture } from '../../testing/papers.ts';
import { type Answer, type Client, TestServer } from '../../testing/test-server.ts';
import { addMembership, insertAccount } from '../src/kitchen/outside.ts';
import { addKitchen, newKitchenSettings } from '../src/kitchen/service.ts';
import { hashPassword } from '../src/kitchen/sessions.ts';

/**
 * Every endpoint is called from one kitchen with the ids of another's rows. It must neither show nor change anything
 * there. The list comes from the endpoint table: an endpoint without a fixture fails.
 */
let server: TestServer;
let theirs: Client;
let ours: Client;
let line: Line;
let theirSession = '';
const theirInvitation = randomUUID();
let printId = '';
const tastingId = randomUUID();
const importId = randomUUID();
const theirImport = randomUUID();
const secretPlum = { ...(libraryOf([]).find(i => i.id === 'plum') as Ingredient), name: 'Secret plum' };
let snapshot = '';
const theirMapping = randomUUID();
const theirReceiptImport = randomUUID();
const theirPlan = randomUUID();
const theirPaper = randomUUID();
const theirReceiptId = randomUUID();
const lineLot = randomUUID();
const itemOf = (key: string) => theirItems.get(key) ?? '';
const theirItems = new Map<string, string>();
const theirReceipt = (): Receipt => ({
  id: theirReceiptId,
  supplier: 'Secret supplier',
  day: '2026-11-01',
  number: 'S-1',
  discount: '0',
  tax: '0',
  delivery: '0',
  lines: [
    {
      id: randomUUID(),
      itemId: itemOf('tomatoes'),
      packages: '1',
      quantity: '2',
      unit: 'kg',
      price: '3',
      pricedBy: 'line',
      discount: '0',
      taxed: true,
      lotId: lineLot,
      label: 'S-LOT',
      bestBy: null,
      strength_pct: null,
      facts: plainFacts(),
    },
  ],
});

async function everything(): Promise<string> {
  const kitchenId = theirs.session?.kitchenId ?? '';
  const tables = [
    'kitchens',
    'heads',
    'revisions',
    'recipes',
    'recipe_versions',
    'items',
    'lots',
    'movements',
    'batches',
    'events',
    'tastings',
    'ingredients',
    'recipe_imports',
    'item_months',
    'receipts',
    'receipt_mappings',
    'receipt_imports',
    'plans',
    'done_calls',
    'confirmations',
    'papers',
    'label_setups',
    'label_settings',
  ];
  const people = await server.database.outside(async trx => [
    await trx('memberships').where({ kitchen_id: kitchenId }).orderBy('account_id'),
    await trx('invitations').where({ kitchen_id: kitchenId }).orderBy('id'),
    await trx('sessions').where({ account_id: theirs.personId }).orderBy('session_id').select('session_id'),
    await trx('accounts').where({ id: theirs.personId }).select('password_hash'),
  ]);
  return server.database.inKitchen(kitchenId, async trx => {
    const rows: unknown[] = [people];
    for (const table of tables) rows.push(await trx(table).orderByRaw('1, 2'));
    return JSON.stringify(rows);
  });
}

beforeAll(async () => {
  server = await TestServer.open();
  theirs = await server.firstOwner('Secret Kitchen');
  line = await Line.open(theirs, { ...crushedTomatoes, name: 'Secret tomatoes' }, 'pint', 2);
  for (const i of (await theirs.ok(listItems)).items) theirItems.set(i.name, i.id);
  await (await (await line.start()).draw()).cook(40);
  await line.readPh(4.1);
  printId = randomUUID();
  await theirs.ok(checkInstrument, {
    body: {
      id: randomUUID(),
      instrument: { id: 'scale-1', kind: 'scale', name: 'Secret scale' },
      body: { kind: 'scale', known_g: 500, shows_g: 500 },
    },
  });
  await theirs.ok(addTasting, {
    params: { recipeId: line.recipeId },
    body: { id: tastingId, rating: 5, notes: 'Secret taste', lotCode: '' },
  });
  for (const ingredient of [secretPlum, { ...secretPlum, id: 'secret-berry' }])
    await theirs.ok(putIngredient, {
      params: { ingredientId: ingredient.id },
      body: { version: 0, ingredient },
    });
  await theirs.ok(importPart, {
    params: { importId: theirImport },
    body: {
      from: 0,
      recipes: [{ ...crushedTomatoes, name: 'Secret import', code: 'SEC' }],
      variantOf: [null],
    },
  });
  await theirs.ok(addPaper, {
    params: { paperId: theirPaper },
    query: { subject: 'place:sample:training', name: 'Secret paper.png' },
    body: picture(),
  });
  await theirs.ok(addReceipt, { body: { receipt: theirReceipt(), again: false } });
  await theirs.ok(putMapping, {
    params: { mappingId: theirMapping },
    body: { id: theirMapping, name: 'Secret reading', mapping: emptyMapping },
  });
  await theirs.ok(receiptImportPart, {
    params: { importId: theirReceiptImport },
    body: { from: 0, receipts: [{ ...theirReceipt(), id: randomUUID(), number: 'other' }] },
  });
  await theirs.ok(putPlan, {
    params: { planId: theirPlan },
    body: {
      id: theirPlan,
      day: '2026-12-24',
      recipeId: line.recipeId,
      factor: '1',
      jars: [{ size: 'pint', count: 2 }],
    },
  });
  await theirs.ok(changeLabelSetup, {
    params: { recipeId: line.recipeId },
    body: { setup: { ...plainSetup('letter-10'), words: 'Secret words' }, version: 0 },
  });
  await theirs.ok(changeLabelSettings, { body: theirStocks() });
  theirSession = (await theirs.ok(listSessions)).sessions[0]?.id ?? '';
  await theirs.ok(invite, { body: { id: theirInvitation, role: 'cook', maySign: false } });
  const id = randomUUID();
  await server.database.outside(async trx => {
    await insertAccount(
      trx,
      {
        id,
        email: 'other@test.example',
        name: 'Other',
        password_hash: await hashPassword('a long password'),
        demo: false,
      },
      server.now_ms,
    );
    await addMembership(
      trx,
      id,
      await addKitchen(
        trx,
        newKitchenSettings('Other Kitchen', { zone: 'UTC', altitude_m: 0 }),
        server.now_ms,
      ),
      'owner',
      true,
    );
  });
  ours = await server.signIn('other@test.example');
  snapshot = await everything();
});
afterAll(() => server.close());

type Fixture = () => {
  params?: object;
  query?: object;
  body?: object;
  allowed?: (answer: Answer) => boolean;
};
const batch = () => ({ batchId: line.batchId });
const theirStocks = () => ({
  stocks: [{ ...(LABEL_STOCKS[0] as (typeof LABEL_STOCKS)[number]), id: 'theirs', name: 'Secret stock' }],
  offset_mm: { x: 0, y: 0 },
  lots: USUAL_LOT_PATTERN,
  pagesAt: '',
  version: 0,
});
const stamp = () => ({ ...line.stamp(), personId: ours.personId });
const empty = (answer: Answer) => answer.status === 200 && !JSON.stringify(answer.body).includes('Secret');

const listed = (answer: Answer, key: string) => (answer.body as Record<string, unknown[]>)[key] ?? [];
const noRows = (key: string) => (answer: Answer) => empty(answer) && listed(answer, key).length === 0;

const FIXTURES: Record<string, Fixture> = {
  'session.read': () => ({ allowed: empty }),
  'session.signIn': () => ({ body: { email: 'ona@test.example', password: 'not the password' } }),
  'session.signOut': () => ({ allowed: a => a.status === 200 }),
  'session.switchKitchen': () => ({ body: { kitchenId: theirs.session?.kitchenId } }),
  'account.first': () => ({
    body: {
      name: 'x',
      email: 'y@test.example',
      password: 'a long password',
      kitchen: 'x',
      zone: 'UTC',
      altitude_m: 0,
    },
  }),
  'kitchen.read': () => ({ allowed: empty }),
  'kitchen.change': () => {
    const {
      placed: _placed,
      demo: _demo,
      ...settings
    } = newKitchenSettings('Mine', { zone: 'UTC', altitude_m: 0 });
    return { body: { ...settings, version: 1 }, allowed: empty };
  },
  'people.list': () => ({ allowed: a => a.status === 200 && !JSON.stringify(a.body).includes('ona@') }),
  'people.remove': () => ({ params: { personId: theirs.personId }, allowed: a => a.status === 200 }),
  'people.change': () => ({
    params: { personId: theirs.personId },
    body: { role: 'viewer', maySign: false },
  }),
  'sessions.list': () => ({ allowed: a => a.status === 200 && listed(a, 'sessions').length === 1 }),
  'sessions.end': () => ({ params: { sessionId: theirSession }, allowed: a => a.status === 200 }),
  'account.password': () => ({ body: { present: 'not it', next: 'another long password' } }),
  'counter.setPin': () => ({
    params: { personId: theirs.personId },
    body: { password: 'a long password', pin: '4711' },
  }),
  'counter.leave': () => ({ params: { personId: theirs.personId }, allowed: a => a.status === 200 }),
  'invitations.list': () => ({ allowed: noRows('invitations') }),
  'invitations.withdraw': () => ({
    params: { invitationId: theirInvitation },
    allowed: a => a.status === 200,
  }),
  'invitations.make': () => ({
    body: { id: theirInvitation, role: 'cook', maySign: false },
    allowed: a => a.status === 409,
  }),
  'invitations.read': () => ({ params: { token: 'x'.repeat(43) } }),
  'invitations.accept': () => ({
    params: { token: 'x'.repeat(43) },
    body: { name: 'x', email: 'z@test.example', password: 'a long password' },
  }),
  'recipes.list': () => ({ query: { search: 'Secret' }, allowed: empty }),
  // By now another recipe of ours may have the same id: ids name a thing within one kitchen.
  'recipes.read': () => ({ params: { recipeId: line.recipeId }, allowed: a => a.status === 404 || empty(a) }),
  'recipes.add': () => ({
    body: { id: line.recipeId, recipe: { ...crushedTomatoes, name: 'Mine' } },
    allowed: empty,
  }),
  'recipes.change': () => ({
    params: { recipeId: randomUUID() },
    body: { version: 1, recipe: crushedTomatoes },
  }),
  'recipes.shelves': () => ({ allowed: empty }),
  'recipes.versions': () => ({
    params: { recipeId: line.recipeId },
    allowed: a => a.status === 404 || empty(a),
  }),
  'recipes.version': () => ({
    params: { recipeId: line.recipeId, number: '1' },
    allowed: a => a.status === 404 || empty(a),
  }),
  'recipes.history': () => ({
    params: { recipeId: line.recipeId },
    allowed: a => a.status === 404 || (empty(a) && (a.body as { batches: unknown[] }).batches.length === 0),
  }),
  'recipes.tastings': () => ({
    params: { recipeId: line.recipeId },
    allowed: a => a.status === 404 || (empty(a) && (a.body as { tastings: unknown[] }).tastings.length === 0),
  }),
  'recipes.taste': () => ({
    params: { recipeId: line.recipeId },
    body: { id: tastingId, rating: 1, notes: 'intruder', lotCode: '' },
    allowed: a => a.status === 404 || empty(a),
  }),
  'recipes.confirmations': () => ({ allowed: empty }),
  'recipes.lettersDue': () => ({ allowed: empty }),
  'recipes.confirm': () => ({
    params: { recipeId: line.recipeId },
    body: { id: randomUUID(), number: 77, edition: 'x', page: 'x', figures: [] },
    allowed: a => a.status === 404 || empty(a),
  }),
  'papers.list': () => ({ allowed: empty }),
  'papers.open': () => ({ params: { paperId: theirPaper }, allowed: a => a.status === 404 || empty(a) }),
  'papers.add': () => ({
    params: { paperId: theirPaper },
    query: { subject: 'place:x:training', name: 'mine.png' },
    body: picture(),
    allowed: empty,
  }),
  'papers.remove': () => ({ params: { paperId: theirPaper }, allowed: a => a.status === 200 }),
  'recipes.export': () => ({ allowed: empty }),
  'recipes.importPart': () => ({
    params: { importId },
    body: { from: 0, recipes: [{ ...crushedTomatoes, name: 'Intruder' }], variantOf: [null] },
    allowed: empty,
  }),
  'recipes.finishImport': () => ({
    params: { importId: theirImport },
    body: { count: 1, newCodes: true },
  }),
  'ingredients.list': () => ({ allowed: empty }),
  'ingredients.put': () => ({
    params: { ingredientId: 'plum' },
    body: { version: 0, ingredient: { ...secretPlum, name: 'Mine' } },
    allowed: empty,
  }),
  'ingredients.remove': () => ({ params: { ingredientId: 'secret-berry' }, allowed: empty }),
  'stores.items': () => ({ allowed: empty }),
  'stores.addItem': () => ({
    body: upgradeItem({ id: randomUUID(), kind: 'lid', name: 'Lid', unit: 'each' }),
    allowed: empty,
  }),
  'stores.changeItem': () => ({
    params: { itemId: itemOf('tomatoes') },
    body: upgradeItem({ id: itemOf('tomatoes'), kind: 'lid', name: 'intruder', unit: 'each' }),
  }),
  'stores.stock': () => ({ query: { search: 'tomatoes' }, allowed: noRows('rows') }),
  'stores.shelf': () => ({
    allowed: a => empty(a) && listed(a, 'shelf').every(s => !JSON.stringify(s).includes(itemOf('tomatoes'))),
  }),
  'stores.lot': () => ({ params: { lotId: line.lots.tomatoes } }),
  'stores.move': () => ({
    params: { lotId: line.lots.tomatoes },
    body: { id: randomUUID(), kind: 'loss', quantity: '1', reason: 'intruder' },
  }),
  // An item of another kitchen is no item here: what is sent of it is not made into a lot.
  'stores.takeIn': () => ({
    body: {
      items: [],
      lots: [
        {
          id: randomUUID(),
          itemId: itemOf('tomatoes'),
          label: 'x',
          bestBy: null,
          strength_pct: null,
          quantity: '1',
          unit: 'g',
          facts: plainFacts(),
        },
      ],
    },
  }),
  'stores.priceLot': () => ({ params: { lotId: line.lots.tomatoes }, body: { price: '1' } }),
  'stores.open': () => ({ params: { lotId: line.lots.tomatoes }, body: { id: randomUUID() } }),
  'stores.mix': () => ({
    body: {
      lotId: randomUUID(),
      label: 'x',
      parts: [
        { lotId: line.lots.tomatoes, quantity: '1' },
        { lotId: lineLot, quantity: '1' },
      ],
    },
  }),
  'stores.prepare': () => ({
    body: {
      lotId: randomUUID(),
      itemId: itemOf('tomatoes'),
      label: 'x',
      how: 'frozen',
      parts: [{ lotId: line.lots.tomatoes, quantity: '1' }],
      quantity: '1',
      keepsUntil: '2027-01-01',
      value: 'nothing',
      minutes: 0,
      unitCost: '0',
      note: '',
    },
  }),
  'receipts.add': () => ({ body: { receipt: { ...theirReceipt(), id: randomUUID() }, again: true } }),
  'receipts.list': () => ({ query: { search: 'Secret' }, allowed: noRows('receipts') }),
  'receipts.read': () => ({ params: { receiptId: theirReceiptId } }),
  'receipts.takeBack': () => ({ params: { receiptId: theirReceiptId }, body: { reason: 'intruder' } }),
  'receipts.importPart': () => ({
    params: { importId: theirReceiptImport },
    body: { from: 0, receipts: [theirReceipt()] },
  }),
  'receipts.finishImport': () => ({
    params: { importId: theirReceiptImport },
    body: { count: 1, again: true },
  }),
  'receipts.mappings': () => ({ allowed: noRows('mappings') }),
  'receipts.putMapping': () => ({
    params: { mappingId: theirMapping },
    body: { id: theirMapping, name: 'intruder', mapping: emptyMapping },
    allowed: empty,
  }),
  'receipts.removeMapping': () => ({
    params: { mappingId: theirMapping },
    allowed: a => a.status === 200,
  }),
  'plans.list': () => ({ allowed: noRows('plans') }),
  'plans.put': () => ({
    params: { planId: theirPlan },
    body: {
      id: theirPlan,
      day: '2026-12-25',
      recipeId: line.recipeId,
      factor: '1',
      jars: [{ size: 'pint', count: 2 }],
    },
    allowed: empty,
  }),
  'plans.drop': () => ({ params: { planId: theirPlan }, allowed: a => a.status === 200 }),
  'plans.shopping': () => ({ allowed: noRows('lines') }),
  'costs.batch': () => ({ params: batch() }),
  'costs.recipe': () => ({ params: { recipeId: line.recipeId }, allowed: noRows('batches') }),
  'batches.returnLots': () => ({
    params: batch(),
    body: { lots: [{ lotId: line.lots.jars, quantity: '1' }], reason: 'intruder', stamp: stamp() },
  }),
  'instruments.read': () => ({ allowed: noRows('instruments') }),
  'checks.withdraw': () => ({ params: batch(), body: { jars: [1], why: 'intruder', stamp: stamp() } }),
  'checks.history': () => ({ allowed: noRows('batches') }),
  'instruments.checks': () => ({ allowed: empty }),
  'instruments.check': () => ({
    body: {
      id: randomUUID(),
      instrument: { id: 'scale-a', kind: 'scale', name: 'Mine' },
      body: { kind: 'scale', known_g: 500, shows_g: 500 },
    },
    allowed: empty,
  }),
  'instruments.retire': () => ({ body: { id: 'scale-1', retired: true } }),
  'batches.lidMarks': () => ({
    params: { ...batch(), loadId: randomUUID() },
    body: { printerId: 'printer-1' },
  }),
  'curves.list': () => ({ params: batch(), allowed: noRows('curves') }),
  'curves.follow': () => ({
    params: batch(),
    body: { curveId: randomUUID(), stepId: 'boil', potId: null, instrumentId: 'probe-1' },
  }),
  'curves.lay': () => ({ params: { ...batch(), curveId: randomUUID() } }),
  'curves.read': () => ({ params: { ...batch(), curveId: randomUUID() } }),
  'curves.keep': () => ({ params: { ...batch(), curveId: randomUUID() }, body: { stamp: stamp() } }),
  'curves.table': () => ({ params: { ...batch(), curveId: randomUUID() } }),
  'batches.takeFromPot': () => ({
    params: batch(),
    body: {
      mass_g: 10,
      how: 'as it stands',
      lotId: randomUUID(),
      itemId: itemOf('tomatoes'),
      label: 'x',
      stamp: stamp(),
    },
  }),
  'batches.takeJars': () => ({
    params: batch(),
    body: { jars: [1], lotId: randomUUID(), itemId: itemOf('tomatoes'), label: 'x', stamp: stamp() },
  }),
  'stores.lots': () => ({
    query: { empty: 'yes' },
    allowed: a => empty(a) && (a.body as { lots: unknown[] }).lots.length === 0,
  }),
  'stores.receive': () => ({
    body: {
      id: line.lots.tomatoes,
      itemId: JSON.parse(snapshot)[4][0].item_id,
      label: 'x',
      supplier: '',
      receivedOn: '2026-01-01',
      bestBy: null,
      unitCost: '1',
      strength_pct: null,
      facts: plainFacts(),
      quantity: '1',
    },
  }),
  'batches.list': () => ({
    query: { search: 'Secret' },
    allowed: a => empty(a) && (a.body as { batches: unknown[] }).batches.length === 0,
  }),
  'batches.read': () => ({ params: batch() }),
  'batches.start': () => ({
    body: { ...line.startBody(), batchId: randomUUID(), recipeId: randomUUID(), stamp: stamp() },
  }),
  'batches.append': () => ({
    params: batch(),
    body: { events: [{ ...stamp(), type: 'note.written', body: { text: 'intruder' } }] },
  }),
  'batches.draw': () => ({ params: batch(), body: { lots: line.drawLines(), stamp: stamp() } }),
  'batches.reverseDraw': () => ({
    params: { ...batch(), drawId: line.state.draws[0]?.drawId },
    body: { reason: 'intruder', stamp: stamp() },
  }),
  'batches.blankSheet': () => ({ params: batch() }),
  'today.read': () => ({ allowed: empty }),
  'feed.follow': () => ({}),
  'feed.events': () => ({ query: { after: '' }, allowed: noRows('events') }),
  'checks.release': () => ({ params: batch(), body: { jars: [1], stamp: stamp() } }),
  'labels.setup': () => ({ params: { recipeId: line.recipeId }, allowed: empty }),
  'labels.change-setup': () => ({
    params: { recipeId: line.recipeId },
    body: { setup: plainSetup('letter-10'), version: 1 },
  }),
  'labels.settings': () => ({ allowed: empty }),
  'labels.change-settings': () => ({
    body: { ...theirStocks(), stocks: [], version: 1 },
  }),
  'labels.touched': () => ({ allowed: noRows('lots') }),
  'labels.check-page': () => ({ params: { stockId: 'theirs' } }),
  'labels.print': () => ({ params: batch(), body: toPrint([1], 'pint', stamp()) }),
  'labels.sheet': () => ({ params: { ...batch(), printId } }),
  'labels.roll': () => ({ params: { ...batch(), printId }, body: { printerId: 'printer-1' } }),
  'labels.lot-page': () => ({ params: { page: 'NOTTHERE', lotCode: 'X-1' }, allowed: empty }),
  'records.sheet': () => ({ params: batch() }),
  'records.find': () => ({
    query: { words: 'Secret' },
    allowed: a => empty(a) && (a.body as { found: unknown[] }).found.length === 0,
  }),
};

// A stream has no end to wait for: what it tells is asked of it in feed.test.ts.
it.each(ENDPOINTS.filter(e => e.reply.kind !== 'stream').map(e => [e.name, e] as [string, AnyEndpoint]))(
  '%s keeps kitchens apart',
  async (name, endpoint) => {
    const fixture = FIXTURES[name];
    if (!fixture) throw new Error(`${name} has no fixture: say how another kitchen would try it.`);
    const { cookie } = ours;
    const { allowed, ...input } = fixture();
    const answer = await ours.try(endpoint, input as never);
    const good = allowed ? allowed(answer) : answer.status >= 400 && answer.status < 500;
    expect([name, answer.status, good], JSON.stringify(answer.body).slice(0, 300)).toEqual([
      name,
      answer.status,
      true,
    ]);
    // Whatever was answered, nothing of theirs was changed.
    expect(await everything()).toBe(snapshot);
    if (name === 'session.signOut') ours = await server.signIn('other@test.example');
    else ours.cookie = ours.cookie || cookie;
  },
);

it.each(ENDPOINTS.filter(inKitchen).map(e => [e.name, e] as [string, AnyEndpoint]))(
  '%s is not done in a kitchen that is named by somebody who is not in it',
  async (name, endpoint) => {
    const { allowed: _allowed, ...input } = (FIXTURES[name] as Fixture)();
    ours.kitchenId = theirs.session?.kitchenId ?? '';
    const answer = await ours.try(endpoint, input as never);
    ours.kitchenId = '';
    expect([answer.status, (answer.body as { code: string }).code]).toEqual([403, 'no-kitchen']);
    expect(await everything()).toBe(snapshot);
  },
);

it('row security alone hides everything from a transaction that entered no kitchen', async () => {
  for (const table of ['kitchens', 'recipes', 'items', 'lots', 'movements', 'batches', 'events']) {
    expect(await server.database.outside(trx => trx(table).count('* as n').first())).toEqual({ n: '0' });
  }
  await expect(
    server.database.outside(trx =>
      trx('heads').insert({ kitchen_id: theirs.session?.kitchenId, seq: 1, hash: 'x' }),
    ),
  ).rejects.toThrow('row-level security');
});

it('still shows theirs to them', async () => {
  expect((await theirs.ok(readKitchen)).name).toBe('Secret Kitchen');
  expect((await theirs.ok(listPeople)).people).toHaveLength(1);
  expect((await theirs.ok(readBatch, { params: batch() })).events.length).toBeGreaterThan(5);
});
