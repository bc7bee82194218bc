import { randomUUID } from 'node:crypto';
import {
  type BodyOf,
  MOST_FAULTS,
  type ParamsOf,
  type ReplyOf,
  type finishImport,
  type importPart,
} from '@cocotte/contract';
import { type Fault, dayOf } from '@cocotte/core/measure';
import type { Call } from '../house/mount.ts';
import { once } from '../house/once.ts';
import { HttpProblem, problem } from '../house/problems.ts';
import { readKitchen } from '../kitchen/service.ts';
import { heavy } from '../heavy/pool.ts';
import { codeFault } from './kept.ts';

const DAY_MS = 86_400_000;
/** Most recipes one import carries. */
const IMPORT_LIMIT = 20_000;

/**
 * Lays a part of an import aside. Each recipe is checked like one that is typed; the book does not change. A part that
 * comes twice takes the place of itself.
 */
export async function part(
  call: Call<ParamsOf<typeof importPart>, unknown, BodyOf<typeof importPart>>,
): Promise<ReplyOf<typeof importPart>> {
  const { trx, kitchenId, params, body, clock } = call;
  const now = new Date(clock.now_ms()).toISOString();
  if (body.from + body.recipes.length > IMPORT_LIMIT)
    throw problem(422, {
      code: 'too-many',
      what: `An import holds at most ${IMPORT_LIMIT} recipes.`,
      why: 'It is put into the book in one piece.',
      next: 'Split the file.',
      path: 'recipes',
    });
  const today = dayOf(clock.now_ms(), (await readKitchen(call)).zone);
  if (body.variantOf.length !== body.recipes.length)
    throw problem(422, {
      code: 'lengths-differ',
      what: 'There must be one "variantOf" for each recipe.',
      why: 'Each says what its recipe is a variant of.',
      next: 'Send null for a recipe that is none.',
      path: 'variantOf',
    });
  const { faults, rows } = await heavy('recipes checked', { recipes: body.recipes, today });
  if (faults.length > 0) throw new HttpProblem(422, 'invalid', faults.slice(0, MOST_FAULTS));
  if (body.from === 0)
    await trx('recipe_imports')
      .where({ kitchen_id: kitchenId })
      .where('created_at', '<', new Date(clock.now_ms() - DAY_MS).toISOString())
      .delete();
  const column = <T>(pick: (row: (typeof rows)[number]) => T): T[] => rows.map(pick);
  await trx.raw(
    `insert into recipe_imports
       (kitchen_id, import_id, place, recipe_id, code, name, product, family, tags, search, body, created_at)
     select ?, ?, t.place, t.recipe_id, t.code, t.name, t.product, t.family,
       array(select jsonb_array_elements_text(t.tags)), t.search, t.body, ?
     from unnest(?::int[], ?::uuid[], ?::text[], ?::text[], ?::text[], ?::text[], ?::jsonb[], ?::text[], ?::jsonb[])
       as t (place, recipe_id, code, name, product, family, tags, search, body)
     on conflict (kitchen_id, import_id, place) do update
       set code = excluded.code, name = excluded.name, product = excluded.product, family = excluded.family,
         tags = excluded.tags, search = excluded.search, body = excluded.body`,
    [
      kitchenId,
      params.importId,
      now,
      rows.map((_, i) => body.from + i),
      rows.map(() => randomUUID()),
      column(r => r.code),
      column(r => r.name),
      column(r => r.product),
      column(r => r.family),
      column(r => JSON.stringify(r.tags)),
      column(r => r.search),
      rows.map((r, i) => JSON.stringify({ ...r.kept, [VARIANT_CODE]: body.variantOf[i] })),
    ],
  );
  return { kept: rows.length };
}

/** Thousands of recipes take longer than a call usually may; each of its queries is still short. */
export const FINISH_PATIENCE_MS = 60_000;
/** Recipes that one query puts into the book. */
const AT_ONCE = 400;

/** Puts every recipe of an import into the book, in one transaction: all of them or none. */
export async function finish(
  call: Call<ParamsOf<typeof finishImport>, unknown, BodyOf<typeof finishImport>>,
): Promise<ReplyOf<typeof finishImport>> {
  return once(call, 'recipes imported', call.params.importId, call.body, () => put(call));
}

async function put(
  call: Call<ParamsOf<typeof finishImport>, unknown, BodyOf<typeof finishImport>>,
): Promise<ReplyOf<typeof finishImport>> {
  const { trx, kitchenId, params, body, clock } = call;
  const key = [kitchenId, params.importId];
  // Two imports of one kitchen go one after the other, so that they find different codes.
  await trx.raw('select pg_advisory_xact_lock(hashtextextended(?, 0))', [`import ${kitchenId}`]);
  const staged: Staged[] = await trx('recipe_imports')
    .where({ kitchen_id: kitchenId, import_id: params.importId })
    .orderBy('place')
    .select('place', 'code', 'name', 'recipe_id', trx.raw('body->>? as variant_of', [VARIANT_CODE]));
  if (staged.length !== body.count || staged.some((s, i) => s.place !== i))
    throw problem(422, {
      code: 'parts-missing',
      what: `${staged.length} of ${body.count} recipes have arrived.`,
      why: 'An import is put into the book whole or not at all.',
      next: 'Send the missing parts, then finish.',
      path: 'count',
    });
  const ofBook: InBook[] = await trx('recipes')
    .where({ kitchen_id: kitchenId })
    .select('recipe_id', 'code', 'name', 'variant_of');
  const { codes, recoded } = codesFor(staged, ofBook, body.newCodes);
  const now = new Date(clock.now_ms()).toISOString();
  const from = `from recipe_imports i join unnest(?::int[], ?::text[]) as n (place, code) on n.place = i.place
     where i.kitchen_id = ? and i.import_id = ?`;
  try {
    for (let at = 0; at < codes.length; at += AT_ONCE) {
      const some = codes.slice(at, at + AT_ONCE);
      const values = [now, some.map((_, i) => at + i), some, ...key];
      await trx.raw(
        `insert into recipes (kitchen_id, recipe_id, name, code, product, family, tags, search, version, created_at)
         select i.kitchen_id, i.recipe_id, i.name, n.code, i.product, i.family, i.tags,
           case when i.code = n.code then i.search else i.search || ' ' || lower(n.code) end, 1, ? ${from}`,
        values,
      );
      await trx.raw(
        `insert into recipe_versions (kitchen_id, recipe_id, number, body, created_at)
         select i.kitchen_id, i.recipe_id, 1,
           jsonb_set(i.body - '${VARIANT_CODE}', '{code}', to_jsonb(n.code)), ? ${from}`,
        values,
      );
    }
  } catch (error) {
    if ((error as { code?: string }).code !== UNIQUE_VIOLATION) throw error;
    throw problem(409, {
      code: 'code-taken',
      what: 'Somebody took one of these codes meanwhile.',
      why: 'Two recipes with one code would share lot codes.',
      next: 'Finish the import again.',
    });
  }
  await tieVariants(call, staged, ofBook);
  await trx('recipe_imports').where({ kitchen_id: kitchenId, import_id: params.importId }).delete();
  return { added: staged.length, recoded };
}

const UNIQUE_VIOLATION = '23505';

/** Where a staged recipe keeps the code it came with as what it is a variant of; taken out again on the way into the book. */
const VARIANT_CODE = 'variantOfCode';

interface Staged {
  place: number;
  code: string;
  name: string;
  recipe_id: string;
  variant_of: string | null;
}
interface InBook {
  recipe_id: string;
  code: string;
  name: string;
  variant_of: string | null;
}

/** Ties each variant to its recipe: the one of that code in the file, else the one in the book. It is no variant itself. */
async function tieVariants(
  { trx, kitchenId }: Pick<Call<unknown, unknown, unknown>, 'trx' | 'kitchenId'>,
  staged: readonly Staged[],
  book: readonly InBook[],
): Promise<void> {
  const roots = new Map([...book, ...staged].map(r => [r.code, r]));
  const faults: Fault[] = [];
  const ties: { recipe: string; of: string }[] = [];
  for (const { place, recipe_id, variant_of } of staged) {
    if (variant_of === null) continue;
    const root = roots.get(variant_of);
    if (root && root.variant_of === null && root.recipe_id !== recipe_id)
      ties.push({ recipe: recipe_id, of: root.recipe_id });
    else
      faults.push({
        path: `recipes[${place}].variantOf`,
        code: 'no-such-recipe',
        what: `The recipe ${variant_of}, of which this is a variant, is neither in the file nor in the book, or is itself a variant.`,
        why: 'Variants stand side by side with the recipe they vary.',
        next: 'Bring in both together, or empty its variantOf in the file.',
      });
  }
  if (faults.length > 0) throw new HttpProblem(422, 'no-such-recipe', faults.slice(0, MOST_FAULTS));
  if (ties.length === 0) return;
  const pairs = [ties.map(t => t.recipe), ties.map(t => t.of), kitchenId];
  await trx.raw(
    `update recipes r set variant_of = t.root from unnest(?::uuid[], ?::uuid[]) as t (recipe, root)
     where r.recipe_id = t.recipe and r.kitchen_id = ?`,
    pairs,
  );
  await trx.raw(
    `update recipe_versions v set body = jsonb_set(v.body, '{variantOf}', to_jsonb(t.root))
     from unnest(?::uuid[], ?::uuid[]) as t (recipe, root) where v.recipe_id = t.recipe and v.kitchen_id = ?`,
    pairs,
  );
}

/** A code for each recipe of an import, in its order; those that are taken are refused, or replaced where asked. */
function codesFor(
  staged: readonly Staged[],
  book: readonly InBook[],
  newCodes: boolean,
): { codes: string[]; recoded: number } {
  const taken = new Map<string, string>(book.map(r => [r.code, r.name]));
  const faults: Fault[] = [];
  const codes: string[] = [];
  let recoded = 0;
  for (const { place, code, name } of staged) {
    const other = taken.get(code);
    let mine = code;
    if (code === '' || other !== undefined) {
      if (!newCodes && code !== '') {
        faults.push({ ...codeFault(other as string, code), path: `recipes[${place}].code` });
        continue;
      }
      const free = freeCode(name, taken);
      if (free === null)
        throw problem(422, {
          code: 'no-code-left',
          what: 'Every code of three letters is taken.',
          why: 'Each recipe needs its own.',
          next: 'Import fewer recipes.',
        });
      mine = free;
      recoded++;
    }
    taken.set(mine, name);
    codes.push(mine);
  }
  if (faults.length > 0) throw new HttpProblem(422, 'code-taken', faults.slice(0, MOST_FAULTS));
  return { codes, recoded };
}

const LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ';

/** Three letters for a name: its initials where they are free, else the next free ones after them. */
export function freeCode(name: string, taken: { has(code: string): boolean }): string | null {
  const words = name
    .normalize('NFD')
    .toUpperCase()
    .replaceAll(/[^A-Z ]/g, '')
    .split(/\s+/)
    .filter(Boolean);
  const initials = words.length > 2 ? words.map(w => w[0]).join('') : words.join('');
  const start = initials.padEnd(3, 'X').slice(0, 3);
  if (!taken.has(start)) return start;
  const first = [...start].reduce((n, c) => n * 26 + LETTERS.indexOf(c), 0);
  for (let step = 1; step < 26 ** 3; step++) {
    const n = (first + step) % 26 ** 3;
    const code = `${LETTERS[Math.floor(n / 676)]}${LETTERS[Math.floor(n / 26) % 26]}${LETTERS[n % 26]}`;
    if (!taken.has(code)) return code;
  }
  return null;
}
