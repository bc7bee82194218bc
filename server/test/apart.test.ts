import { randomUUID } from 'node:crypto';
import {
  type AnyEndpoint,
  addTasting,
  importPart,
  listPeople,
  putIngredient,
  readBatch,
  readKitchen,
} from '@cocotte/contract';
import { ENDPOINTS } from '@cocotte/contract/table';
import { type Ingredient, libraryOf } from '@cocotte/core/recipes';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { crushedTomatoes } from '../../demo/recipes.ts';
import { Line } from '../../testing/line.ts';
import { type Answer, type Client, TestServer } from '../../testing/test-server.ts';
import { insertAccount, setMembership } from '../src/kitchen/outside.ts';
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
let printId = '';
const tastingId = randomUUID();
const importId = randomUUID();
const theirImport = randomUUID();
const secretPlum = { ...(libraryOf([]).find(i => i.id === 'plum') as Ingredient), name: 'Secret plum' };
let snapshot = '';

async function everything(): Promise<string> {
  const kitchenId = theirs.session?.kitchenId ?? '';
  const tables = [
    'kitchens',
    'heads',
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
  ];
  return server.database.inKitchen(kitchenId, async trx =>
    JSON.stringify(await Promise.all(tables.map(t => trx(t).orderByRaw('1, 2')))),
  );
}

beforeAll(async () => {
  server = await TestServer.open();
  theirs = await server.firstOwner('Secret Kitchen');
  line = await Line.open(theirs, { ...crushedTomatoes, name: 'Secret tomatoes' }, 'pint', 2);
  await (await (await line.start()).draw()).cook(40);
  await line.readPh(4.1);
  printId = randomUUID();
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
    await setMembership(
      trx,
      id,
      await addKitchen(trx, id, newKitchenSettings('Other Kitchen', 'UTC', 0), server.now_ms),
      'owner',
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
const stamp = () => ({ ...line.stamp(), personId: ours.personId });
const empty = (answer: Answer) => answer.status === 200 && !JSON.stringify(answer.body).includes('Secret');

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
  'kitchen.change': () => ({ body: { ...newKitchenSettings('Mine', 'UTC', 0), version: 1 }, allowed: empty }),
  'people.list': () => ({ allowed: a => a.status === 200 && !JSON.stringify(a.body).includes('ona@') }),
  'people.remove': () => ({ params: { personId: theirs.personId } }),
  'invitations.make': () => ({ body: { id: randomUUID(), role: 'cook' }, allowed: a => a.status === 200 }),
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
  'ingredients.remove': () => ({ params: { ingredientId: 'secret-berry' } }),
  'stores.items': () => ({ allowed: empty }),
  'stores.addItem': () => ({
    body: {
      id: randomUUID(),
      kind: 'lid',
      name: 'Lid',
      unit: 'each',
      unit_g: null,
      jarSize: null,
      labelName: '',
      subIngredients: '',
      allergens: [],
    },
    allowed: empty,
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
  'checks.release': () => ({ params: batch(), body: { jars: [1], stamp: stamp() } }),
  'labels.print': () => ({
    params: batch(),
    body: { jars: [1], size: 'pint', stock: 'letter-10', stamp: stamp() },
  }),
  'labels.sheet': () => ({ params: { ...batch(), printId } }),
  'records.sheet': () => ({ params: batch() }),
  'records.find': () => ({
    query: { words: 'Secret' },
    allowed: a => empty(a) && (a.body as { found: unknown[] }).found.length === 0,
  }),
};

it.each(ENDPOINTS.map(e => [e.name, e] as [string, AnyEndpoint]))(
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
