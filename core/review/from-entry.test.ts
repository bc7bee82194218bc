import { describe, expect, it } from 'vitest';
import { amountOf } from '../../testing/recipe-lines.ts';
import { JAR_SIZES } from '../jars/index.ts';
import { under } from '../measure/index.ts';
import { proposeCode, type Recipe, recipeFaults } from '../recipes/index.ts';
import { PROCESS_ENTRIES } from '../times/index.ts';
import { COVERS } from './data/covers.ts';
import {
  findEntries,
  formulaChanges,
  type FoundEntry,
  processFor,
  recipeFromEntry,
  reviewFaults,
} from './index.ts';

/** What is looked for in the words people use. The words are ours; what they mean is common usage. */
const DAY = '2026-11-26';
/** What the publication would say of what is left open: in proportion to what stands there, and safe. */
function readOff({ recipe, open }: ReturnType<typeof recipeFromEntry>): Recipe {
  const ids = new Set(open.map(o => o.lineId));
  return {
    ...recipe,
    makes: { ...recipe.makes, count: 7 },
    lines: recipe.lines.map(l => {
      if (!ids.has(l.id)) return l;
      const text =
        l.role === 'fruit' || (l.role === 'low-acid produce' && l.where === 'pot')
          ? '5 lb'
          : l.role === 'sweetener'
            ? '4 lb'
            : l.role === 'water'
              ? '4 c'
              : l.role === 'set'
                ? '1 package'
                : '1 Tbsp';
      return { ...l, amount: amountOf(text) };
    }),
  };
}
const all: FoundEntry[] = PROCESS_ENTRIES.flatMap(entry =>
  (under(COVERS, entry.cleanFormOf ?? entry.id) ?? []).map((_, formula) => ({
    entry,
    formula,
    fruit: null,
    title: entry.product,
    detail: '',
  })),
);

describe('a recipe begun from an entry', () => {
  it.each(all.map(f => [`${f.entry.id}, formula ${f.formula + 1}`, f] as const))(
    '%s is covered once what is open was read off, has its times, and sends each line somewhere',
    (_name, found) => {
      const begun = recipeFromEntry(found, DAY);
      const recipe = readOff(begun);
      expect(recipeFaults(recipe).map(f => `${f.path} ${f.what}`)).toEqual([]);
      expect(formulaChanges(recipe).filter(c => c.breaks)).toEqual([]);
      expect(reviewFaults(recipe).filter(f => f.level === 'refused')).toEqual([]);
      for (const { size } of recipe.jars) expect(processFor(recipe, size, 716.28).ok).toBe(true);
      expect(recipe.jars.map(j => j.size).sort()).toEqual(
        JAR_SIZES.map(s => s.id)
          .filter(s => found.entry.rows.some(r => r.jarSize === s))
          .sort(),
      );
      const sent = recipe.steps.flatMap(s => s.adds.map(a => a.lineId));
      expect([...sent].sort()).toEqual(recipe.lines.map(l => l.id).sort());
      expect(recipe.code).toMatch(/^[A-Z]{3}$/);
      // What nobody knows stands open, and nothing else does.
      expect(begun.recipe.lines.filter(l => l.amount.text === '').map(l => l.id)).toEqual(
        begun.open.flatMap(o => o.lineId ?? []),
      );
      expect(begun.open.at(-1)?.lineId ?? null).toBeDefined();
      // What was recalled of it says so, and confirms nothing.
      expect(recipe.authority).toMatchObject({ grade: 'tested publication', fromMemory: true });
    },
  );

  it('says its acid in each jar, its headspace and its cautions in its steps', () => {
    const [found] = findEntries('crushed tomatoes');
    const { recipe, open } = recipeFromEntry(found as FoundEntry, DAY);
    expect(recipe.lines.map(l => [l.name, l.amount.text, l.where])).toEqual([
      ['Tomatoes', '', 'pot'],
      ['Bottled lemon juice', '1 Tbsp', 'each jar'],
    ]);
    expect(recipe.steps.find(s => s.kind === 'fill')?.text).toBe(
      'Bottled lemon juice in each jar; fill hot, {headspace} headspace; free bubbles, top up, wipe rims, lids fingertip tight',
    );
    expect(recipe.makes.size).toBe('pint');
    expect(open).toEqual([
      { lineId: 'food-1', what: 'how much of tomatoes' },
      { lineId: null, what: 'how many jars it makes' },
    ]);
    const [salsa] = findEntries('tomato salsa');
    expect(recipeFromEntry(salsa as FoundEntry, DAY).recipe.steps[1]?.caution).toBe(
      'Gloves for hot peppers.',
    );
  });
});

describe('a proposed code', () => {
  it.each([
    ['Red plum jam', 'RPJ'],
    ['Dilly beans', 'DBE'],
    ['Jam', 'JAM'],
    ['Ox', 'OXX'],
    ['Crème of the day', 'CTD'],
    ['Peaches and cream in jars', 'PCJ'],
    ['梅', ''],
    ['', ''],
    ['__proto__', 'PRO'],
  ])('%s', (name, code) => expect(proposeCode(name)).toBe(code));
});

describe('what is found for what people say', () => {
  it.each([
    ['strawberry jam', 'jam-pectin-10', 'strawberry'],
    ['strawberry jam without pectin', 'jam-no-pectin-10', 'strawberry'],
    ['jam with pectin', 'jam-pectin-10', null],
    ['blackberry jelly', 'jelly-pectin-10', 'blackberry'],
    ['apple butter', 'apple-butter-10', null],
    ['dilly beans', 'dilled-beans-10', null],
    ['pickled beets', 'beets', null],
    ['bread and butter pickles', 'bread-and-butter-pickles', null],
    ['catsup', 'tomato-ketchup', null],
    ['crushed tomatoes', 'tomatoes-crushed', null],
    ['peach pie filling', 'peach-pie-filling', null],
    ['applesauce', 'applesauce', null],
    ['apple sauce', 'applesauce', null],
    ['raw peaches', 'peaches-raw', null],
    ['chow chow', 'piccalilli', null],
    ['kraut', 'sauerkraut-hot', null],
    ['berry syrup', 'berry-syrup', null],
    ['taco sauce', 'taco-sauce', null],
    ['jalapeños', 'jalapeno-rings', null],
    ['figs', 'figs', null],
    ['marmalade', 'marmalade-10', null],
  ])('%s', (text, id, fruit) => {
    const found = findEntries(text);
    const [first] = found;
    // Its clean-jar form may stand for an entry.
    expect(
      [first?.entry.id, first?.entry.cleanFormOf].some(
        x => x === id || x === id.replace(/-10$/, '-5') || x === id.replace(/-10$/, ''),
      ),
    ).toBe(true);
    if (fruit) expect(first?.fruit).toBe(fruit);
  });

  it('finds each entry, or its clean-jar form, by its own name', () => {
    const cleaned = new Set(all.map(f => f.entry.cleanFormOf));
    for (const { entry } of all.filter(f => !cleaned.has(f.entry.id))) {
      const ids = findEntries(entry.product, 40).flatMap(f => [f.entry.id, f.entry.cleanFormOf]);
      expect({ product: entry.product, found: ids.includes(entry.id) }).toEqual({
        product: entry.product,
        found: true,
      });
    }
  });

  it('nothing for nothing, for what is refused, and for what nobody foresaw', () => {
    for (const text of ['', '  ', 'zzz', '__proto__', 'constructor', 'beef stew', '🍓', 'x'.repeat(5000)])
      expect(findEntries(text)).toEqual([]);
    expect(findEntries('tomato', 3)).toHaveLength(3);
  });
});
