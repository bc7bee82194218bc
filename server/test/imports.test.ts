import { randomUUID } from 'node:crypto';
import { exportRecipes, finishImport, importPart, listRecipes, readRecipe } from '@cocotte/contract';
import { canonicalJson } from '@cocotte/core/measure';
import { type ExchangeFormat, fromCsv, fromJson, fromJsonLd, writeRecipes } from '@cocotte/core/exchange';
import { nameIndex } from '@cocotte/core/ingredients';
import type { Recipe } from '@cocotte/core/recipes';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { crushedTomatoes, plumCardamomJam, plumJam, waxBeans } from '../../demo/recipes.ts';
import { type Client, TestServer } from '../../testing/test-server.ts';
import { freeCode } from '../src/recipes/imports.ts';

let server: TestServer;
let owner: Client;
beforeAll(async () => {
  server = await TestServer.open();
  owner = await server.firstOwner();
});
afterAll(() => server.close());

const part = (
  importId: string,
  from: number,
  recipes: Recipe[],
  variantOf = recipes.map((): string | null => null),
) => ({
  params: { importId },
  body: { from, recipes, variantOf },
});
const finish = (importId: string, count: number, newCodes = true) => ({
  params: { importId },
  body: { count, newCodes },
});
const find = async (search: string) =>
  (
    await owner.ok(listRecipes, {
      query: { after: '', search, family: '', tag: '', product: '', variantOf: '' },
    })
  ).recipes;
/** Everything in the book, as a file of it is written from. */
async function book(client = owner): Promise<{ recipes: Recipe[]; variantOf: (string | null)[] }> {
  const out: Awaited<ReturnType<typeof book>> = { recipes: [], variantOf: [] };
  let after = '';
  do {
    const page = await client.ok(exportRecipes, { query: { after } });
    out.recipes.push(...page.recipes);
    out.variantOf.push(...page.variantOf);
    after = page.next ?? '';
  } while (after);
  return out;
}

describe('an import', () => {
  const recipes = (count: number, from = 0): Recipe[] =>
    Array.from({ length: count }, (_, i) => ({ ...plumJam, name: `Imported ${from + i}`, code: '' }));
  const lay = (...args: Parameters<typeof part>) => owner.ok(importPart, part(...args));
  const total = async () => (await owner.ok(exportRecipes, { query: { after: '' } })).total;

  it('is put into the book whole, in parts that may come twice; codes are found for those that have none', async () => {
    const importId = randomUUID();
    const before = await total();
    await lay(importId, 0, recipes(60));
    await lay(importId, 60, recipes(40, 60));
    await lay(importId, 0, recipes(60));
    expect(await total()).toBe(before);
    expect(await owner.ok(finishImport, finish(importId, 100))).toEqual({ added: 100, recoded: 100 });
    expect(await total()).toBe(before + 100);
    expect((await find('Imported 99')).map(r => r.name)).toEqual(['Imported 99']);
  });

  it('adds nothing when a part is missing, a recipe is faulty, or a code is taken', async () => {
    const before = await total();
    const missing = randomUUID();
    await lay(missing, 0, recipes(10));
    expect((await owner.refused(finishImport, finish(missing, 11))).code).toBe('parts-missing');
    const bad = recipes(3);
    (bad[1] as Recipe).lines = [];
    const refused = await owner.refused(importPart, {
      params: { importId: randomUUID() },
      body: { from: 0, recipes: bad, variantOf: bad.map(() => null) },
    });
    expect(refused.errors[0]?.path).toBe('recipes[1].lines');
    const taken = randomUUID();
    await lay(taken, 0, [
      { ...plumJam, name: 'One', code: 'QQA' },
      { ...plumJam, name: 'Two', code: 'QQA' },
    ]);
    const clash = await owner.refused(finishImport, finish(taken, 2, false));
    expect(clash.errors).toEqual([expect.objectContaining({ path: 'recipes[1].code', code: 'code-taken' })]);
    expect(await total()).toBe(before);
    expect(await owner.ok(finishImport, finish(taken, 2, true))).toEqual({ added: 2, recoded: 1 });
  });

  it('codes: initials where free, else the next, none when all are taken', () => {
    expect(freeCode('Red plum jam', new Set())).toBe('RPJ');
    expect(freeCode('Red plum jam', new Set(['RPJ']))).toBe('RPK');
    expect(freeCode('Ümlaut', new Set())).toBe('UML');
    expect(freeCode('', new Set())).toHaveLength(3);
    expect(freeCode('x', { has: () => true })).toBeNull();
  });

  it('refuses a future date of an authority, a part without its variants, and one past the limit', async () => {
    const letter = waxBeans.authority as Extract<Recipe['authority'], { grade: 'letter' }>;
    const ahead: Recipe = { ...waxBeans, code: 'FUT', authority: { ...letter, issuedOn: '2099-01-01' } };
    const dated = await owner.refused(importPart, part(randomUUID(), 0, [ahead]));
    expect(dated.errors[0]).toMatchObject({ path: 'recipes[0].authority.issuedOn', code: 'future-day' });
    const short = await owner.refused(importPart, part(randomUUID(), 0, recipes(2), [null]));
    expect(short.code).toBe('lengths-differ');
    const far = await owner.refused(importPart, part(randomUUID(), 999_999, recipes(2)));
    expect(far.code).toBe('too-many');
  });

  it('of somebody who may only look is refused', async () => {
    const viewer = await server.join(owner, 'viewer', 'vi@test.example');
    expect((await viewer.refused(importPart, part(randomUUID(), 0, recipes(1)))).status).toBe(403);
    expect((await viewer.refused(finishImport, finish(randomUUID(), 1))).status).toBe(403);
  });
});

describe('a round trip through a file', () => {
  it.each(['json', 'csv', 'jsonld'] as ExchangeFormat[])(
    'as %s loses nothing, variants included',
    async format => {
      const home = await TestServer.open();
      const away = await TestServer.open();
      try {
        const cook = await home.firstOwner();
        const importId = randomUUID();
        const all = [plumJam, plumCardamomJam, waxBeans, crushedTomatoes];
        await cook.ok(importPart, part(importId, 0, all, [null, 'RPJ', null, null]));
        await cook.ok(finishImport, finish(importId, 4, false));
        const before = await book(cook);
        expect(before.variantOf.filter(Boolean)).toEqual(['RPJ']);
        const text = writeRecipes(
          format,
          before.recipes.map((r, i) => ({ ...r, variantOf: before.variantOf[i] ?? null })),
        );
        const read =
          format === 'json'
            ? fromJson(text)
            : format === 'csv'
              ? fromCsv(text)
              : fromJsonLd(text, 'en-US', nameIndex([]), randomUUID);
        if (!read.ok) throw new Error(read.faults[0]?.what);
        const values = read.recipes.map(r => r.value as Recipe);
        const other = await away.firstOwner();
        const again = randomUUID();
        await other.ok(
          importPart,
          part(
            again,
            0,
            values.map(r => ({ ...r, variantOf: null })),
            values.map(r => r.variantOf),
          ),
        );
        await other.ok(finishImport, finish(again, values.length, false));
        const after = await book(other);
        const plain = (b: typeof after) => b.recipes.map(r => canonicalJson({ ...r, variantOf: null }));
        expect(plain(after)).toEqual(plain(before));
        expect(after.variantOf).toEqual(before.variantOf);
      } finally {
        await home.close();
        await away.close();
      }
    },
  );

  it('a variant finds its recipe in the file first, under its new code; else in the book', async () => {
    const importId = randomUUID();
    const both = [
      { ...plumJam, name: 'Damson jam', code: 'DAM' },
      { ...plumCardamomJam, name: 'Damson and cardamom jam', code: 'DAC' },
    ];
    await owner.ok(importPart, part(importId, 0, both, [null, 'DAM']));
    await owner.ok(finishImport, finish(importId, 2, false));
    const again = randomUUID();
    const third = { ...plumCardamomJam, name: 'Damson and clove jam', code: 'DCL' };
    await owner.ok(importPart, part(again, 0, [...both, third], [null, 'DAM', 'DAM']));
    await owner.ok(finishImport, finish(again, 3, true));
    const plain = (await find('Damson jam')).filter(r => r.name === 'Damson jam');
    const old = plain.find(r => r.code === 'DAM');
    const fresh = plain.find(r => r.code !== 'DAM');
    const clove = (await find('clove'))[0];
    expect(clove?.variantOf).toBe(fresh?.id);
    expect((await owner.ok(readRecipe, { params: { recipeId: clove?.id ?? '' } })).recipe.variantOf).toBe(
      fresh?.id,
    );
    const alone = randomUUID();
    await owner.ok(
      importPart,
      part(alone, 0, [{ ...third, name: 'Damson and mace jam', code: 'DMC' }], ['DAM']),
    );
    await owner.ok(finishImport, finish(alone, 1, false));
    expect((await find('mace'))[0]?.variantOf).toBe(old?.id);
  });

  it.each([
    ['nothing of that code', 'ZZZ', [null, null]],
    ['a variant', 'VAB', ['VAA', null]],
    ['itself', 'VAC', [null, null]],
  ] as const)('a variant of %s is refused, and nothing is taken', async (_, of, [first]) => {
    const before = (await book()).recipes.length;
    const importId = randomUUID();
    const some = [
      { ...plumJam, name: 'Variant A', code: 'VAA' },
      { ...plumJam, name: 'Variant B', code: 'VAB' },
      { ...plumJam, name: 'Variant C', code: 'VAC' },
    ];
    await owner.ok(importPart, part(importId, 0, some, [null, of === 'VAB' ? (first ?? null) : null, of]));
    const refused = await owner.refused(finishImport, finish(importId, 3, false));
    expect(refused.errors).toEqual([
      expect.objectContaining({ path: 'recipes[2].variantOf', code: 'no-such-recipe' }),
    ]);
    expect((await book()).recipes.length).toBe(before);
  });
});
