import { randomUUID } from 'node:crypto';
import { performance } from 'node:perf_hooks';
import { check, recipeRule } from '@cocotte/contract';
import { balance, pictureOf, plan } from '@cocotte/core/balance';
import { Fraction } from '@cocotte/core/measure';
import { fromJson, readPasted, toJson } from '@cocotte/core/exchange';
import { forecast } from '@cocotte/core/forecast';
import { libraryOf, nameIndex } from '@cocotte/core/ingredients';
import {
  type Line,
  type Recipe,
  type Step,
  recipeFaults,
  scaleRecipe,
  stepFrom,
} from '@cocotte/core/recipes';
import { plumJam } from '@cocotte/demo/recipes';
import pg from 'pg';
import { type Kitchen, serve } from './kitchens.ts';
import { call, inside } from './load.ts';
import { median, ms, percentile, ratio, say, tiny } from './say.ts';

const timed = (runs: number, work: () => unknown): number[] => {
  for (let i = 0; i < Math.min(runs, 50); i++) work();
  return Array.from({ length: runs }, () => {
    const began = performance.now();
    work();
    return performance.now() - began;
  });
};

/** A recipe of forty lines: the plum jam's own, again and again under other names. */
function fortyLines(): Recipe {
  const lines = Array.from({ length: 40 }, (_, i): Line => {
    const line = plumJam.lines[i % plumJam.lines.length] as Line;
    return { ...line, id: `line-${i}`, name: `${line.name} ${i}` };
  });
  return {
    ...plumJam,
    lines,
    steps: plumJam.steps.map(s => ({
      ...s,
      adds: s.id === 'boil' ? lines.map(l => ({ lineId: l.id, share: '1' })) : [],
    })),
  };
}

/** The same in fifteen steps: parts taken aside and put back, a soak, a strain, cooks of several targets. */
function fifteenSteps(recipe: Recipe): Recipe {
  const kinds = ['prepare', 'soak', 'strain', 'rest', 'cook', 'measure', 'cook', 'blend back'] as const;
  const steps = Array.from({ length: 15 }, (_, i): Step => ({
    ...stepFrom(`step-${i}`, kinds[i % kinds.length] as Step['kind'], 'do'),
    adds: recipe.lines.flatMap((l, at) => (at % 15 === i ? [{ lineId: l.id, share: '1' }] : [])),
    target: i === 12 ? { kind: 'gel point' } : i === 4 ? { kind: 'reduced', by: 0.1 } : { kind: 'none' },
    separates: i === 3 ? { part: 'juice', share: 0.3 } : null,
    part: i === 7 ? 'juice' : '',
  }));
  const places = ['pot', 'soak', 'strained', 'infused', 'pot'] as const;
  return {
    ...recipe,
    steps,
    lines: recipe.lines.map((l, i) => ({ ...l, where: places[i % places.length] ?? 'pot', keptShare: 0.8 })),
  };
}

const KITCHEN = {
  locale: 'en-US',
  altitude_m: 716,
  thermometerError_C: 0,
  pot: null,
  pots: 1,
  headspace_mm: 6.35,
};

/** Scaling and forecast, and reading pasted text: what runs while a person moves a slider or types. */
export function bookInHand(): void {
  const recipe = fortyLines();
  let n = 0;
  const times = timed(tiny ? 50 : 1000, () => {
    const factor = new Fraction((n++ % 60) + 1, 8);
    scaleRecipe(recipe, factor, [{ size: 'half-pint', count: 16 }]);
    forecast(recipe, factor, KITCHEN, ['half-pint', 'quarter-pint']);
  });
  const copy = timed(tiny ? 50 : 1000, () => structuredClone(recipe));
  say(
    `\nRescale and forecast of ${recipe.lines.length} lines, its range with it: median ${ms(median(times))}, p95 ${ms(percentile(times, 0.95))}; floor, copying the recipe: ${ms(median(copy))}`,
  );
  const steps = fifteenSteps(recipe);
  const jars = [{ size: 'half-pint' as const, count: 16 }];
  const balances = timed(tiny ? 50 : 1000, () => balance(plan(steps, new Fraction(1), jars, KITCHEN)));
  say(
    `Balance of ${steps.lines.length} lines in ${steps.steps.length} steps: median ${ms(median(balances))}, p95 ${ms(percentile(balances, 0.95))} (target under 2 ms); floor, copying the recipe: ${ms(median(copy))}`,
  );
  ratio(
    'balance of 40 lines in 15 steps over copying the recipe, medians',
    median(balances) / median(copy),
    10,
  );
  n = 0;
  const slides = timed(tiny ? 30 : 300, () => {
    const factor = new Fraction((n++ % 60) + 1, 8);
    scaleRecipe(steps, factor, jars);
    forecast(steps, factor, KITCHEN, ['half-pint', 'quarter-pint']);
    const process = plan(steps, factor, jars, KITCHEN);
    pictureOf(process, balance(process));
  });
  say(
    `A slider moved, amounts, forecast, balance and picture reckoned again: median ${ms(median(slides))}, p95 ${ms(percentile(slides, 0.95))} (target within a frame, 16 ms); floor, one balance: ${ms(median(balances))}`,
  );
  const rows = [
    '2 1/2 c sugar',
    '4 1/2 lb red plums, stoned and quartered',
    '1 pint cider vinegar (5 %)',
    '6-7 cups chopped onions',
    '2 medium jalapeño peppers, seeded',
  ];
  const count = tiny ? 100 : 1000;
  const text = `Ingredients\n${Array.from({ length: count }, (_, i) => rows[i % rows.length]).join('\n')}`;
  const index = nameIndex(libraryOf([]));
  const pasted = timed(tiny ? 3 : 20, () => readPasted(text, 'en-US', index, () => 'x'));
  const split = timed(tiny ? 3 : 20, () => text.split('\n').map(r => r.trim().toLowerCase().split(/\s+/)));
  say(
    `${count} pasted lines read: median ${ms(median(pasted))} (target under 500 ms); floor, splitting them into words: ${ms(median(split))}`,
  );
}

/** Thousands of recipes brought in from a file, then searched. */
export async function bookOfThousands(kitchen: Kitchen): Promise<void> {
  const count = tiny ? 200 : 5000;
  const recipes = Array.from({ length: count }, (_, i): Recipe => ({
    ...plumJam,
    name: `Plum jam number ${i}`,
    code: '',
    tags: [`tag${i % 40}`],
    family: `Family ${i % 12}`,
  }));
  const file = toJson(recipes);
  const server = await serve(kitchen);
  const began = performance.now();
  const read = fromJson(file);
  if (!read.ok) throw new Error('the file was not read');
  const sound = read.recipes.map(r => {
    const checked = check(recipeRule, r.value);
    if (!checked.ok || recipeFaults(checked.value).length > 0) throw new Error('a recipe has a fault');
    return checked.value;
  });
  const checked_ms = performance.now() - began;
  const importId = randomUUID();
  const froms = Array.from({ length: Math.ceil(sound.length / 60) }, (_, i) => i * 60);
  const sendNext = async (): Promise<void> => {
    for (let from = froms.shift(); from !== undefined; from = froms.shift())
      await call(
        server.port,
        kitchen.token,
        inside(kitchen, `/recipe-imports/${importId}/parts`),
        JSON.stringify({
          from,
          recipes: sound.slice(from, from + 60),
          variantOf: sound.slice(from, from + 60).map(() => null),
        }),
      );
  };
  await Promise.all([sendNext(), sendNext()]);
  await call(
    server.port,
    kitchen.token,
    inside(kitchen, `/recipe-imports/${importId}/finish`),
    JSON.stringify({ count: sound.length, newCodes: true }),
  );
  const took_s = (performance.now() - began) / 1000;
  const floor_s = await bareInsert(kitchen, sound);
  say(
    `\n${count} recipes from a file of ${(file.length / 1e6).toFixed(1)} MB: ${took_s.toFixed(1)} s (target under 10 s), of which ${(checked_ms / 1000).toFixed(1)} s read and checked; floor, inserting the same rows: ${floor_s.toFixed(1)} s`,
  );
  const words = ['number 77', 'plum 4', 'sugar', 'lemon', 'nothing of the kind'];
  const search: number[] = [];
  for (let i = 0; i < (tiny ? 20 : 300); i++) {
    const start = performance.now();
    await call(
      server.port,
      kitchen.token,
      inside(kitchen, `/recipes?search=${encodeURIComponent(words[i % words.length] as string)}`),
    );
    search.push(performance.now() - start);
  }
  const client = new pg.Client({ connectionString: kitchen.appUrl });
  await client.connect();
  await client.query("select set_config('app.kitchen_id', $1, false)", [kitchen.kitchenId]);
  const bare: number[] = [];
  for (let i = 0; i < (tiny ? 20 : 300); i++) {
    const start = performance.now();
    await client.query('select recipe_id, name from recipes where search like $1 order by name limit 51', [
      `%${words[i % words.length]}%`,
    ]);
    bare.push(performance.now() - start);
  }
  await client.end();
  say(
    `Search over ${count} recipes: p95 ${ms(percentile(search, 0.95))} (target under 30 ms), median ${ms(median(search))}; floor, the bare query: p95 ${ms(percentile(bare, 0.95))}`,
  );
  await server.stop();
}

/** The same bodies through `pg` alone, in one transaction that is taken back. */
async function bareInsert(kitchen: Kitchen, recipes: Recipe[]): Promise<number> {
  const client = new pg.Client({ connectionString: kitchen.appUrl });
  await client.connect();
  await client.query('begin');
  await client.query("select set_config('app.kitchen_id', $1, true)", [kitchen.kitchenId]);
  const importId = randomUUID();
  const began = performance.now();
  for (let from = 0; from < recipes.length; from += 60) {
    const some = recipes.slice(from, from + 60);
    await client.query(
      `insert into recipe_imports (kitchen_id, import_id, place, recipe_id, code, name, product, family, tags, search, body, created_at)
       select $1, $2, place, gen_random_uuid(), '', '', '', '', '{}', '', body, '2026-01-01' from unnest($3::int[], $4::jsonb[]) as t (place, body)`,
      [kitchen.kitchenId, importId, some.map((_, i) => from + i), some.map(r => JSON.stringify(r))],
    );
  }
  const took = (performance.now() - began) / 1000;
  await client.query('rollback');
  await client.end();
  return took;
}
