import { randomUUID } from 'node:crypto';
import {
  addRecipe,
  addTasting,
  changeKitchen,
  changeRecipe,
  listBatches,
  listIngredients,
  listRecipes,
  listShelves,
  listTastings,
  listVersions,
  putIngredient,
  readKitchen,
  readRecipe,
  readVersion,
  recipeHistory,
  removeIngredient,
  startBatch,
} from '@cocotte/contract';
import { fold } from '@cocotte/core/batches';
import { NOTHING_LEARNED } from '@cocotte/core/checks';
import { type Ingredient, libraryOf } from '@cocotte/core/ingredients';
import { type Line as RecipeLine, type Recipe, emptyRecipe } from '@cocotte/core/recipes';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { crushedTomatoes, plumJam, strawberryJam, tomatoSalsa, waxBeans } from '../../demo/recipes.ts';
import { confirmAs } from '../../testing/open-page.ts';
import { Line } from '../../testing/line.ts';
import { type Client, TestServer } from '../../testing/test-server.ts';

let server: TestServer;
let owner: Client;
beforeAll(async () => {
  server = await TestServer.open();
  owner = await server.firstOwner();
});
afterAll(() => server.close());

let letters = 0;
/** A code of its own for each recipe of the tests. */
const code = () => {
  letters++;
  return `Z${String.fromCharCode(65 + Math.floor(letters / 26))}${String.fromCharCode(65 + (letters % 26))}`;
};
const add = async (recipe: Recipe) => {
  const id = randomUUID();
  await owner.ok(addRecipe, { body: { id, recipe } });
  return id;
};
const NONE = { after: '', search: '', family: '', tag: '', product: '', variantOf: '' } as const;
const names = async (query: Partial<Record<keyof typeof NONE, string>>) =>
  (await owner.ok(listRecipes, { query: { ...NONE, ...query } as never })).recipes.map(r => r.name);
const line = (id: string): RecipeLine => waxBeans.lines.find(l => l.id === id) as RecipeLine;

describe('the book', () => {
  it('is found by words anywhere, family, tag, kind and variants; shelves are counted', async () => {
    const root = await add({
      ...plumJam,
      name: 'Damson jam',
      code: code(),
      family: 'Stones',
      tags: ['deep', 'autumn'],
    });
    await add({
      ...plumJam,
      name: 'Damson jam with ginger',
      code: code(),
      family: 'Stones',
      tags: ['spiced'],
      variantOf: root,
    });
    await add({ ...waxBeans, name: 'Sharp beans', code: code(), family: 'Green things' });
    expect(await names({ search: 'ginger damson' })).toEqual(['Damson jam with ginger']);
    expect(await names({ search: 'garlic' })).toEqual(['Sharp beans']);
    expect(await names({ search: '100%_' })).toEqual([]);
    expect(await names({ family: 'Stones' })).toEqual(['Damson jam', 'Damson jam with ginger']);
    expect(await names({ tag: 'autumn' })).toEqual(['Damson jam']);
    expect(await names({ product: 'pickle' })).toEqual(['Sharp beans']);
    expect(await names({ variantOf: root })).toEqual(['Damson jam', 'Damson jam with ginger']);
    const shelves = await owner.ok(listShelves);
    expect(shelves.families).toEqual(expect.arrayContaining([{ name: 'Stones', count: 2 }]));
    expect(shelves.tags).toEqual(expect.arrayContaining([{ name: 'autumn', count: 1 }]));
    // A variant of a variant, or of what is not there, is refused beside its field.
    const variant = (await owner.ok(listRecipes, { query: { ...NONE, search: 'ginger' } as never }))
      .recipes[0]?.id as string;
    for (const variantOf of [variant, randomUUID()]) {
      const refused = await owner.refused(addRecipe, {
        body: { id: randomUUID(), recipe: { ...plumJam, code: code(), variantOf } },
      });
      expect(refused.errors[0]?.path).toBe('recipe.variantOf');
    }
  });

  it('keeps the class it derives, not the one it is told', async () => {
    const id = await add({ ...tomatoSalsa, code: code(), foodClass: 'fruit spread' });
    expect((await owner.ok(readRecipe, { params: { recipeId: id } })).recipe.foodClass).toBe(
      'acidified food',
    );
  });

  it('a version that was cooked stays; the next one can be held against it', async () => {
    const kept = await Line.open(
      owner,
      { ...crushedTomatoes, name: 'Kept tomatoes', code: code() },
      'pint',
      2,
    );
    await kept.start();
    const changed: Recipe = {
      ...(await owner.ok(readRecipe, { params: { recipeId: kept.recipeId } })).recipe,
      notes: 'Another note.',
    };
    await owner.ok(changeRecipe, {
      params: { recipeId: kept.recipeId },
      body: { version: 1, recipe: changed },
    });
    const { versions } = await owner.ok(listVersions, { params: { recipeId: kept.recipeId } });
    expect(versions.map(v => [v.number, v.frozen])).toEqual([
      [2, false],
      [1, true],
    ]);
    const first = await owner.ok(readVersion, { params: { recipeId: kept.recipeId, number: '1' } });
    expect(first.recipe.notes).toBe(crushedTomatoes.notes);
    for (const number of ['3', '0', 'x'])
      expect((await owner.refused(readVersion, { params: { recipeId: kept.recipeId, number } })).status).toBe(
        404,
      );
  });
});

describe('authority', () => {
  it('the formula a letter covers is taken over; a change of it closes sale and takes the time away', async () => {
    const letter = {
      ...(waxBeans.authority as Extract<Recipe['authority'], { grade: 'letter' }>),
      demo: false,
    };
    const id = await add({ ...waxBeans, authority: letter, name: 'Letter beans', code: code() });
    const { recipe } = await owner.ok(readRecipe, { params: { recipeId: id } });
    expect(recipe.tested?.lines.map(l => l.id)).toEqual(waxBeans.lines.map(l => l.id));
    const weaker: Recipe = {
      ...recipe,
      lines: recipe.lines.map(l =>
        l.id === 'vinegar'
          ? { ...l, amount: { text: '4 c', unit: 'cup', value: '4', upTo: null, toTaste: false } }
          : l,
      ),
    };
    await owner.ok(changeRecipe, { params: { recipeId: id }, body: { version: 1, recipe: weaker } });
    const body = {
      ...new Line(owner, weaker, 'pint', 8).startBody(),
      batchId: randomUUID(),
      recipeId: id,
    };
    const refused = await owner.refused(startBatch, { body });
    expect(refused).toMatchObject({ code: 'no-route' });
    expect(refused.errors[0]?.what).toMatch(/Less acid/);
    expect((await owner.refused(startBatch, { body: { ...body, purpose: 'home' } })).code).toBe('no-time');
    // Taken over anew, by the person who has the letter in hand, it is covered again.
    await owner.ok(changeRecipe, {
      params: { recipeId: id },
      body: { version: 1, recipe: { ...weaker, tested: null } },
    });
    // Whoever takes it over anew has it read back by an owner again: the formula is another.
    await confirmAs(owner, id, recipe).catch(() => null);
    expect((await owner.refused(startBatch, { body })).code).toBe('page-unconfirmed');
    await confirmAs(owner, id, { ...weaker, tested: null });
    await owner.ok(startBatch, { body: { ...body, batchId: randomUUID() } });
  });

  it('refused food is kept, cooked for the freezer or the table, and never for sale or as a gift', async () => {
    const oily: Recipe = {
      ...waxBeans,
      name: 'Beans in oil',
      code: code(),
      lines: [...waxBeans.lines, { ...line('water'), id: 'oil', name: 'Olive oil', role: 'fat' }],
    };
    const id = await add(oily);
    expect((await owner.ok(readRecipe, { params: { recipeId: id } })).recipe.foodClass).toBe('refused');
    for (const purpose of ['sale', 'gift'] as const) {
      const refused = await owner.refused(startBatch, {
        body: { ...new Line(owner, oily, 'pint', 8).startBody(purpose), batchId: randomUUID(), recipeId: id },
      });
      expect(refused.code).toBe('refused-food');
    }
    for (const purpose of ['home', 'trial'] as const) {
      const view = await owner.ok(startBatch, {
        body: { ...new Line(owner, oily, 'pint', 8).startBody(purpose), batchId: randomUUID(), recipeId: id },
      });
      // No jar of it has a time: none is ever released.
      expect(fold(view.events).started?.times).toEqual([]);
    }
  });

  it('steam only within its limits, pots only of the kitchen, pectin doubled only by decision, all kept with the batch', async () => {
    const kitchen = await owner.ok(readKitchen);
    const { id: _id, placed: _placed, demo: _demo, version, ...settings } = kitchen;
    await owner.ok(changeKitchen, {
      body: {
        ...settings,
        version,
        pots: [{ id: 'pan', name: 'Pan', capacity_mL: 20_000, diameter_mm: 380, boilOff_gPerMin: 60 }],
      },
    });
    const jamId = await add({ ...strawberryJam, code: code() });
    await confirmAs(owner, jamId, strawberryJam);
    const jam = {
      ...new Line(owner, strawberryJam, 'half-pint', 16).startBody(),
      recipeId: jamId,
      potId: 'pan',
    };
    const split = await owner.ok(startBatch, { body: { ...jam, batchId: randomUUID() } });
    expect(fold(split.events).started?.pots).toMatchObject({ count: 2, each: '1', overridden: false });
    const doubled = await owner.ok(startBatch, {
      body: {
        ...jam,
        batchId: randomUUID(),
        doublePectin: true,
        stamp: new Line(owner, strawberryJam, 'half-pint', 16).startBody().stamp,
      },
    });
    expect(fold(doubled.events).started?.pots).toMatchObject({ count: 1, overridden: true });
    const other = { ...new Line(owner, strawberryJam, 'half-pint', 16).startBody(), recipeId: jamId };
    expect(
      (await owner.refused(startBatch, { body: { ...other, batchId: randomUUID(), potId: 'mine' } })).code,
    ).toBe('unknown-pot');
    const steamed = await owner.ok(startBatch, { body: { ...other, batchId: randomUUID(), heat: 'steam' } });
    expect(fold(steamed.events).started?.heat).toBe('steam');
    const long: Recipe = {
      ...crushedTomatoes,
      authority: {
        ...(crushedTomatoes.authority as Extract<Recipe['authority'], { grade: 'tested publication' }>),
        time: { kind: 'entry', entryId: 'tomatoes-no-liquid' },
      },
      method: { ...crushedTomatoes.method, pack: 'raw', cut: 'whole' },
    };
    const longId = await add({ ...long, code: code() });
    await confirmAs(owner, longId, long);
    const refused = await owner.refused(startBatch, {
      body: {
        ...new Line(owner, long, 'pint', 9).startBody(),
        batchId: randomUUID(),
        recipeId: longId,
        heat: 'steam',
      },
    });
    expect(refused.errors[0]).toMatchObject({ code: 'no-steam', path: 'heat' });
  });
});

describe('bad input', () => {
  const refusedPaths = async (recipe: unknown) =>
    (await owner.refused(addRecipe, { body: { id: randomUUID(), recipe } as never })).errors.map(
      e => `${e.path} ${e.code}`,
    );
  const jam = () => ({ ...structuredClone(plumJam), code: code() });

  it('is named by its path: no density, no ingredient, a circular ratio, negative headspace, a line twice', async () => {
    const noDensity = jam();
    (noDensity.lines[1] as RecipeLine).density_gPerMl = null;
    expect(await refusedPaths(noDensity)).toContain('recipe.lines[1].density_gPerMl density-missing');
    const nameless = jam();
    (nameless.lines[0] as RecipeLine).name = ' ';
    expect(await refusedPaths(nameless)).toContain('recipe.lines[0].name no-ingredient');
    const circular = jam();
    const ratio = (id: string) => ({ of: 'line' as const, id, per: (plumJam.lines[1] as RecipeLine).amount });
    (circular.lines[1] as RecipeLine).ratio = ratio('lemon');
    (circular.lines[2] as RecipeLine).ratio = ratio('sugar');
    expect(await refusedPaths(circular)).toEqual(
      expect.arrayContaining(['recipe.lines[1].ratio ratio-circular']),
    );
    const brimful = { ...structuredClone(waxBeans), code: code() };
    (brimful.authority as { process: { headspace_mm: number } }).process.headspace_mm = -3;
    expect((await refusedPaths(brimful))[0]).toMatch(/^recipe\.authority\.process\.headspace_mm/);
    const unknownUnit = jam();
    (unknownUnit.lines[0] as { amount: { unit: string } }).amount.unit = 'smidgen';
    expect((await refusedPaths(unknownUnit))[0]).toMatch(/^recipe\.lines\[0\]\.amount\.unit not-a-choice/);
    const share = jam();
    (share.steps[1] as { adds: unknown }).adds = [{ lineId: 'plums', share: '1/0' }];
    expect((await refusedPaths(share))[0]).toMatch(/share not-a-fraction/);
  });
});

describe('after tasting', () => {
  it('notes and ratings are kept once, and their mean stands in the book', async () => {
    const id = await add({ ...plumJam, name: 'Tasted jam', code: code() });
    const body = { id: randomUUID(), rating: 4, notes: 'Good set.', lotCode: '' };
    await owner.ok(addTasting, { params: { recipeId: id }, body });
    await owner.ok(addTasting, { params: { recipeId: id }, body });
    await owner.ok(addTasting, { params: { recipeId: id }, body: { ...body, id: randomUUID(), rating: 5 } });
    expect(
      (await owner.refused(addTasting, { params: { recipeId: id }, body: { ...body, rating: 1 } })).status,
    ).toBe(409);
    expect(
      (
        await owner.refused(addTasting, {
          params: { recipeId: id },
          body: { ...body, id: randomUUID(), rating: 6 },
        })
      ).status,
    ).toBe(422);
    expect(
      (await owner.ok(listTastings, { params: { recipeId: id } })).tastings.map(t => t.rating).sort(),
    ).toEqual([4, 5]);
    const row = (await owner.ok(listRecipes, { query: { ...NONE, search: 'Tasted jam' } as never }))
      .recipes[0];
    expect(row?.rating).toBe(4.5);
  });
});

describe('history', () => {
  it('shows what was foreseen and filled, with the reason', async () => {
    const cooked = await Line.open(
      owner,
      { ...crushedTomatoes, name: 'Yield tomatoes', code: code() },
      'pint',
      2,
    );
    await (await (await cooked.start()).draw()).cook(40);
    await cooked.note('yield.explained', { reason: 'Very ripe.' });
    const { batches } = await owner.ok(recipeHistory, { params: { recipeId: cooked.recipeId } });
    expect(batches).toHaveLength(1);
    expect(batches[0]).toMatchObject({
      actual_pints: 2,
      reasons: ['Very ripe.'],
      version: 1,
      purpose: 'sale',
    });
    expect(batches[0]?.expected_pints).toBeGreaterThan(0);
    expect(batches[0]?.learned).toEqual(NOTHING_LEARNED);
    const look = (text: string) => ({ jars: [1, 2], set: null, found: ['siphoned' as const], text });
    await cooked.note('jars.looked', look('Leave the headspace.'));
    const [taught] = (await owner.ok(recipeHistory, { params: { recipeId: cooked.recipeId } })).batches;
    expect(taught?.learned).toEqual({
      ...NOTHING_LEARNED,
      found: [{ fault: 'siphoned', jars: 2 }],
      said: ['Leave the headspace.'],
    });
    // A row that was kept before anything was learned says so, and breaks nobody.
    await server.database.inKitchen(owner.named, trx =>
      trx.raw(`update batches set summary = summary - 'learned' where batch_id = ?`, [cooked.batchId]),
    );
    const [old] = (await owner.ok(recipeHistory, { params: { recipeId: cooked.recipeId } })).batches;
    expect(old?.learned).toEqual(NOTHING_LEARNED);
    const rows = (await owner.ok(listBatches, { query: { after: '', stage: '', search: 'Yield tomatoes' } }))
      .batches;
    expect(rows.map(r => r.summary.learned)).toEqual([NOTHING_LEARNED]);
  });

  it('a recipe cooked first can be started with nothing in it, as a trial only', async () => {
    const sketch: Recipe = {
      ...emptyRecipe(),
      name: 'Try',
      code: code(),
      statementOfIdentity: 'Try',
      sketch: true,
    };
    const id = await add(sketch);
    const body = { ...new Line(owner, sketch, 'half-pint', 6).startBody('trial'), recipeId: id, factor: '1' };
    await owner.ok(startBatch, { body: { ...body, batchId: randomUUID() } });
    expect(
      (
        await owner.refused(startBatch, {
          body: {
            ...body,
            batchId: randomUUID(),
            purpose: 'sale',
            stamp: new Line(owner, sketch, 'half-pint', 6).startBody().stamp,
          },
        })
      ).code,
    ).toBe('no-route');
  });
});

describe('own ingredients', () => {
  const plum = libraryOf([]).find(i => i.id === 'plum') as Ingredient;
  it('override the shipped ones, by version, and can be taken back', async () => {
    const mine = { ...plum, cup_g: { halved: 170 }, sources: { cup_g: 'own' } };
    const put = (version: number, ingredient = mine) =>
      owner.ok(putIngredient, { params: { ingredientId: ingredient.id }, body: { version, ingredient } });
    expect((await put(0)).version).toBe(1);
    // The same again is acknowledged; a stale one is refused with the newer.
    expect((await put(0)).version).toBe(1);
    const other = { ...mine, notes: 'x' };
    const stale = await owner.refused(putIngredient, {
      params: { ingredientId: 'plum' },
      body: { version: 0, ingredient: other },
    });
    expect(stale.status).toBe(409);
    expect((await put(1, other)).version).toBe(2);
    expect((await owner.ok(listIngredients)).ingredients.map(o => o.ingredient.notes)).toEqual(['x']);
    expect(
      (
        await owner.refused(putIngredient, {
          params: { ingredientId: 'pear' },
          body: { version: 0, ingredient: mine },
        })
      ).code,
    ).toBe('id-differs');
    const away = () => owner.ok(removeIngredient, { params: { ingredientId: 'plum' } });
    expect([await away(), await away()]).toEqual([{ removed: true }, { removed: false }]);
    expect((await owner.ok(listIngredients)).ingredients).toEqual([]);
  });
});
