import { randomUUID } from 'node:crypto';
import type { BodyOf, ParamsOf, ReplyOf, finishImport, importPart } from '@cocotte/contract';
import { type Fault, dayOf } from '@cocotte/core/measure';
import type { Call } from '../house/mount.ts';
import { HttpProblem, problem } from '../house/problems.ts';
import { readKitchen } from '../kitchen/service.ts';
import { rowOf } from './queries.ts';
import { asKept, codeFault, faultsOf } from './service.ts';

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
    throw problem(
      422,
      'too-many',
      `An import holds at most ${IMPORT_LIMIT} recipes.`,
      'It is put into the book in one piece.',
      'Split the file.',
      'recipes',
    );
  const today = dayOf(clock.now_ms(), (await readKitchen(call)).zone);
  // A variant's recipe may not be in this book, so an imported one stands alone.
  const recipes = body.recipes.map(r => asKept({ ...r, variantOf: null }, today));
  const faults = recipes.flatMap((recipe, i) =>
    faultsOf({ ...recipe, code: recipe.code === '' ? 'AAA' : recipe.code }).map((f): Fault => ({
      ...f,
      path: `recipes[${i}].${f.path}`,
    })),
  );
  if (faults.length > 0) throw new HttpProblem(422, 'invalid', faults.slice(0, 200));
  if (body.from === 0)
    await trx('recipe_imports')
      .where({ kitchen_id: kitchenId })
      .where('created_at', '<', new Date(clock.now_ms() - DAY_MS).toISOString())
      .delete();
  await trx('recipe_imports')
    .insert(
      recipes.map((recipe, i) => ({
        kitchen_id: kitchenId,
        import_id: params.importId,
        place: body.from + i,
        recipe_id: randomUUID(),
        ...rowOf(recipe),
        body: JSON.stringify(recipe),
        created_at: now,
      })),
    )
    .onConflict(['kitchen_id', 'import_id', 'place'])
    .merge();
  return { kept: recipes.length };
}

/** Puts every recipe of an import into the book, in one transaction: all of them or none. */
export async function finish(
  call: Call<ParamsOf<typeof finishImport>, unknown, BodyOf<typeof finishImport>>,
): Promise<ReplyOf<typeof finishImport>> {
  const { trx, kitchenId, params, body, clock } = call;
  // Codes are handed out under a lock, so that two imports cannot take the same.
  await trx('heads').where({ kitchen_id: kitchenId }).forUpdate().first();
  const staged: { place: number; code: string; name: string }[] = await trx('recipe_imports')
    .where({ kitchen_id: kitchenId, import_id: params.importId })
    .orderBy('place')
    .select('place', 'code', 'name');
  if (staged.length !== body.count || staged.some((s, i) => s.place !== i))
    throw problem(
      422,
      'parts-missing',
      `${staged.length} of ${body.count} recipes have arrived.`,
      'An import is put into the book whole or not at all.',
      'Send the missing parts, then finish.',
      'count',
    );
  const taken = new Map<string, string>(
    (await trx('recipes').where({ kitchen_id: kitchenId }).select('code', 'name')).map(r => [r.code, r.name]),
  );
  const faults: Fault[] = [];
  const recoded: { place: number; code: string }[] = [];
  for (const { place, code, name } of staged) {
    const other = taken.get(code);
    if (code !== '' && other === undefined) {
      taken.set(code, name);
      continue;
    }
    if (!body.newCodes && code !== '') {
      faults.push({ ...codeFault(other as string, code), path: `recipes[${place}].code` });
      continue;
    }
    const free = freeCode(name, taken);
    if (free === null)
      throw problem(
        422,
        'no-code-left',
        'Every code of three letters is taken.',
        'Each recipe needs its own.',
        'Import fewer recipes.',
      );
    taken.set(free, name);
    recoded.push({ place, code: free });
  }
  if (faults.length > 0) throw new HttpProblem(422, 'code-taken', faults.slice(0, 200));
  for (let i = 0; i < recoded.length; i += 1000) {
    const some = recoded.slice(i, i + 1000);
    await trx.raw(
      `update recipe_imports i set code = n.code, body = jsonb_set(i.body, '{code}', to_jsonb(n.code)),
         search = i.search || ' ' || lower(n.code)
       from unnest(?::int[], ?::text[]) as n (place, code)
       where i.kitchen_id = ? and i.import_id = ? and i.place = n.place`,
      [some.map(r => r.place), some.map(r => r.code), kitchenId, params.importId],
    );
  }
  const now = new Date(clock.now_ms()).toISOString();
  const from = 'from recipe_imports where kitchen_id = ? and import_id = ?';
  await trx.raw(
    `insert into recipes (kitchen_id, recipe_id, name, code, product, family, tags, search, version, created_at)
     select kitchen_id, recipe_id, name, code, product, family, tags, search, 1, ? ${from}`,
    [now, kitchenId, params.importId],
  );
  await trx.raw(
    `insert into recipe_versions (kitchen_id, recipe_id, number, body, created_at)
     select kitchen_id, recipe_id, 1, body, ? ${from}`,
    [now, kitchenId, params.importId],
  );
  await trx('recipe_imports').where({ kitchen_id: kitchenId, import_id: params.importId }).delete();
  return { added: staged.length, recoded: recoded.length };
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
  const start = `${initials}XXX`.slice(0, 3);
  if (!taken.has(start)) return start;
  const first = [...start].reduce((n, c) => n * 26 + LETTERS.indexOf(c), 0);
  for (let step = 1; step < 26 ** 3; step++) {
    const n = (first + step) % 26 ** 3;
    const code = `${LETTERS[Math.floor(n / 676)]}${LETTERS[Math.floor(n / 26) % 26]}${LETTERS[n % 26]}`;
    if (!taken.has(code)) return code;
  }
  return null;
}
