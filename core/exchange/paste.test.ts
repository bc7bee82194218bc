import { libraryOf, nameIndex } from '../ingredients/index.ts';
import { AMOUNTS } from './paste-amounts.fixture.ts';
import { readPasted } from './paste.ts';
import { TEXTS } from './text-corpus.fixture.ts';

import { describe, expect, it } from 'vitest';

const INDEX = nameIndex(libraryOf([]));
const ids = () => {
  let n = 0;
  return () => `id-${++n}`;
};
const read = (text: string) => readPasted(text, 'en-US', INDEX, ids());
/** Words of a text, without signs, that say something. */
const words = (text: string) =>
  text
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean);

describe('sixty recipe texts', () => {
  it('are there', () => expect(TEXTS.length).toBe(60));

  it('lose no word: each row is a title, a yield, a heading, a line, a step or unread', () => {
    for (const [text] of TEXTS) {
      const r = read(text);
      const rows = text.split('\n');
      const headings = rows.filter((_, i) => ['title', 'yield', 'heading'].includes(r.rows.get(i + 1) ?? ''));
      const kept = new Set(
        words(
          [
            r.title,
            ...headings,
            ...r.lines.map(l => l.text),
            ...r.steps.map(s => s.step.text),
            ...r.unread.map(u => u.text),
          ].join(' '),
        ),
      );
      // Heads of a table, marks of an enumeration and names of sections say nothing by themselves.
      const lost = words(text).filter(
        w =>
          !kept.has(w) &&
          !/^(?:\d{1,2}|step|[a-d]|amount|quantity|unit|ingredients?|notes|preparation|procedure)$/.test(w),
      );
      expect(lost, rows[0]).toEqual([]);
      expect(r.steps.length, rows[0]).toBeGreaterThan(0);
    }
  });
});

describe('what is not plain', () => {
  it('asks where ounces or pints can mean two things', () => {
    const r = read('Ingredients\n12 oz water\n1 pint blueberries\n12 oz plums');
    expect(r.lines.map(l => l.ask !== null)).toEqual([true, true, false]);
  });

  it('shows what it could not read, and never drops it', () => {
    const r = read(
      'My pickle\n\nIngredients\n3 cups frobnicated gribble\nsalt to taste\nfrom the tin box\n2 c sugar\n\nMethod\nBoil.',
    );
    expect(r.lines[0]?.faults[0]?.code).toBe('unknown-ingredient');
    expect(r.lines.find(l => l.text === 'salt to taste')?.faults[0]?.code).toBe('no-amount');
    expect(r.unread.map(u => u.text)).toEqual(['from the tin box']);
    expect(r.lines.at(-1)?.line.ingredientId).toBe('sugar');
  });

  it('reads "to taste" with a range, sized packages, spice bags and what goes into each jar', () => {
    const r = read(
      'Ingredients\n1-2 tsp salt, to taste\n2 (1.75 oz) packages powdered pectin\nFor the brine\n4 c white vinegar\nFor each jar\n1 clove garlic',
    );
    expect(r.lines[0]?.line.amount).toMatchObject({ value: '1', upTo: '2', toTaste: true, unit: 'tsp' });
    expect(r.lines[1]?.line.amount).toMatchObject({ value: '7/2', unit: 'oz' });
    expect(r.lines[2]?.line.where).toBe('brine');
    expect(r.lines[3]?.line.where).toBe('each jar');
  });

  it('tells prepared from as bought, and shows it', () => {
    const basis = (text: string) => read(`Ingredients\n${text}`).lines[0]?.line.basis;
    expect(basis('2 lb peaches, peeled and sliced')).toBe('as bought');
    expect(basis('2 lb sliced peaches')).toBe('prepared');
    expect(basis('4 cups chopped tomatoes')).toBe('prepared');
    expect(basis('6 medium tomatoes')).toBe('as bought');
    expect(basis('half a bushel tomatoes')).toBe('as bought');
  });

  it('reads windows, times and kinds of steps', () => {
    const steps = read(
      'Ingredients\n1 c sugar\n\nMethod\n1. Let stand 12 to 18 hours.\n2. Simmer 45 minutes.\n3. Cook to the gel point.\n4. Ladle into hot jars.\n5. Process in a boiling water canner 10 minutes.',
    ).steps.map(s => s.step);
    expect(steps.map(s => s.kind)).toEqual(['rest', 'cook', 'cook', 'fill', 'process']);
    expect(steps[0]?.window).toEqual({ from_min: 720, to_min: 1080 });
    expect(steps[1]?.target).toEqual({ kind: 'time', minutes: 45 });
    expect(steps[2]?.target).toEqual({ kind: 'gel point' });
  });

  it('cuts a step that is too long between sentences, and keeps every word', () => {
    const long = Array.from({ length: 60 }, (_, i) => `Stir it for the ${i + 1} time.`).join(' ');
    const r = read(`Ingredients\n1 c sugar\n\nMethod\n${long}`);
    expect(r.steps.length).toBeGreaterThan(1);
    expect(r.steps.map(s => s.step.text).join(' ')).toBe(long);
  });
});

describe('traps: what safety hangs on is never read silently wrong', () => {
  const line = (text: string) => {
    const r = read(`Traps\n\nIngredients\n${text}\n`);
    const [one] = r.lines;
    return (
      one && {
        ...one.line,
        which: one.which.map(i => i.id),
        faults: one.faults.map(f => f.code),
        unread: one.unread,
      }
    );
  };
  it.each([
    ['1 lb peppers', ['bell-pepper', 'hot-pepper', 'black-pepper']],
    ['2 cups lemon juice', ['bottled-lemon', 'fresh-lemon']],
    ['1/2 tsp citric acid or lemon juice', ['citric-acid', 'bottled-lemon', 'fresh-lemon']],
    ['3 tbsp basil', ['basil', 'basil-dried']],
  ])('%s is asked, and has no facts until it is answered', (text, which) => {
    expect(line(text)).toMatchObject({ ingredientId: null, role: 'other', which, faults: [] });
  });

  it.each([
    ['4 cups white vinegar (4%)', 'white-vinegar-4', 4],
    ['4 cups 5% vinegar', 'white-vinegar', 5],
    ['4 cups cider vinegar, 4 % acidity', 'cider-vinegar', 4],
    ['1 qt vinegar (5 percent acidity)', 'white-vinegar', 5],
    ['2 c white vinegar, 6%', 'white-vinegar-6', 6],
  ])('%s stays of its strength', (text, ingredientId, minStrength_pct) => {
    expect(line(text)).toMatchObject({ ingredientId, minStrength_pct, which: [], faults: [] });
  });

  it.each([
    ['6 lb peaches (white)', 'white-peach', false],
    ['6 lb peaches, white flesh, peeled', 'white-peach', false],
    ['6 lb Asian pears', 'asian-pear', false],
    ['6 lb peaches, peeled', 'peach', true],
  ])('%s is %s', (text, ingredientId, safelyAcid) => {
    expect(line(text)).toMatchObject({ ingredientId, safelyAcid, which: [] });
  });

  it('a cut that was never weighed takes the nearest denser one and says so, or is asked', () => {
    expect(line('4 cups apricots, crushed')).toMatchObject({
      form: 'puréed',
      weightSource: expect.stringContaining('as puréed, the nearest denser cut'),
    });
    expect(line('4 cups apricots, halved')).toMatchObject({ form: 'halved' });
    expect(line('4 cups apricots, halved')?.weightSource).not.toContain('nearest');
    expect(line('4 cups limes, crushed')).toMatchObject({
      density_gPerMl: null,
      faults: ['density-missing'],
    });
    // Sugar has one weight, however it is called.
    expect(line('4 cups sugar, sifted')?.density_gPerMl).not.toBeNull();
    expect(line('2 lb apricots, crushed')?.weightSource).not.toContain('nearest');
  });

  it.each([
    ['3# plums', '3', 'lb', 'plum'],
    ['2 QTS tomatoes', '2', 'quart', 'tomato'],
    ['4 LBS. GREEN BEANS', '4', 'lb', 'snap-bean'],
    ['1 and 1/2 cups sugar', '3/2', 'cup', 'sugar'],
    ['1 & 1/2 c sugar', '3/2', 'cup', 'sugar'],
    ['Sugar, 4 cups', '4', 'cup', 'sugar'],
    ['Sugar: 4 cups', '4', 'cup', 'sugar'],
    ['Sugar (4 cups)', '4', 'cup', 'sugar'],
    ['1 pkg. (1 3/4 oz.) powdered pectin', '1', 'package', 'pectin-powder'],
    ['2 cinnamon sticks', '2', 'stick', 'cinnamon-stick'],
    ['1 dozen ears corn', '12', 'ear', 'corn'],
    ['1 T canning salt', '1', 'tbsp', 'canning-salt'],
    ['1 t canning salt', '1', 'tsp', 'canning-salt'],
  ])('%s is %s %s of %s', (text, value, unit, ingredientId) => {
    expect(line(text)).toMatchObject({
      amount: { value, unit },
      ingredientId,
      which: [],
      faults: [],
      unread: '',
    });
  });

  it.each([
    ['1 tsp canning salt per quart', '1/2', 'tsp'],
    ['1 tsp canning salt per pint jar', '1', 'tsp'],
    ['1/4 tsp citric acid in each half-pint', '1/2', 'tsp'],
    ['2 cloves garlic per jar', '2', 'clove'],
    ['1 head fresh dill for each jar', '1', 'head'],
  ])('%s goes into each jar, stated for a pint', (text, value, unit) => {
    expect(line(text)).toMatchObject({ where: 'each jar', amount: { value, unit }, unread: '', faults: [] });
  });

  it('a name that holds a number is a name, and an amount that is nowhere is said', () => {
    expect(read('7-day pickles\n\nIngredients\n1 lb plums').title).toBe('7-day pickles');
    expect(read('Three berry jam\n\nIngredients\n1 lb plums').title).toBe('Three berry jam');
    expect(line('juice of 2 lemons')?.faults).toEqual(['no-amount']);
    expect(line('salt')?.faults).toEqual(['no-amount']);
  });

  it('words of cutting and handling are understood: under 5 % of the words of sixty recipes are not', () => {
    let said = 0;
    let not = 0;
    const which = new Map<string, number>();
    for (const [text] of TEXTS)
      for (const l of read(text).lines) {
        said += l.text.split(/\s+/).filter(w => /[a-z]/i.test(w)).length;
        for (const w of l.unread.split(/\s+/).filter(Boolean)) {
          not += 1;
          which.set(w, (which.get(w) ?? 0) + 1);
        }
      }
    expect(not / said, JSON.stringify([...which])).toBeLessThan(0.05);
    expect(said).toBeGreaterThan(500);
    for (const text of [
      '2 lb plums, stoned and finely chopped',
      '3 cups drained crushed pineapple',
      '4 c frozen whole blackberries, thawed',
    ])
      expect(line(text)?.unread, text).toBe('');
    expect(line('2 lb frobnicated plums')?.unread).toBe('frobnicated');
  });
});

describe('two hundred and fifty amounts', () => {
  it('are there, each once', () => {
    expect(AMOUNTS.length).toBeGreaterThanOrEqual(250);
    expect(new Set(AMOUNTS.map(([text]) => text)).size).toBe(AMOUNTS.length);
  });

  const reading = (text: string): string => {
    const [one] = read(`Traps\n\nIngredients\n${text}\n`).lines;
    if (!one) return 'unread';
    if (one.which.length > 0) return `asked: ${one.which.map(i => i.id).join(' ')}`;
    if (one.faults.length > 0) return `fault: ${one.faults.map(f => f.code).join(' ')}`;
    if (one.ask) return 'asked: unit';
    const { amount, ingredientId, minStrength_pct, where } = one.line;
    const value = amount.upTo === null ? amount.value : `${amount.value}..${amount.upTo}`;
    return [
      `${value} ${amount.unit} ${ingredientId}`,
      minStrength_pct === null ? '' : `${minStrength_pct}%`,
      where === 'pot' ? '' : where,
    ]
      .filter(Boolean)
      .join(' ');
  };
  it.each(AMOUNTS)('%s reads %s', (text, reads) => expect(reading(text)).toBe(reads));

  it('a pack, a bunch, a slice is never one piece, and what a container holds is never guessed', () => {
    for (const unit of ['can', 'package', 'bunch', 'slice', 'lug', 'crate', 'handful'])
      for (const name of ['tomatoes', 'carrots', 'lemon', 'peaches'])
        expect(reading(`1 ${unit} ${name}`), `1 ${unit} ${name}`).toMatch(
          /^fault: (?:weight-of-one-missing|unknown-measure)$/,
        );
  });
});

describe('a share that boils away', () => {
  it.each([
    ['Simmer until reduced by one third.', 1 / 3],
    ['Boil until volume is reduced by half, stirring often', 1 / 2],
    ['Cook 45 minutes, reducing to two thirds', 1 / 3],
    ['Reduce by a quarter', 1 / 4],
  ])('"%s"', (text, by) => {
    const read = readPasted(`1 lb tomatoes\n\nMethod\n${text}`, 'en-US', INDEX, () => 'x');
    expect(read.steps.at(-1)?.step.target).toEqual({ kind: 'reduced', by: expect.closeTo(by, 9) });
  });

  it('is not read out of what says nothing of it', () => {
    for (const text of ['Boil 10 minutes', 'Reduce the heat and simmer 10 minutes']) {
      const read = readPasted(`1 lb tomatoes\n\nMethod\n${text}`, 'en-US', INDEX, () => 'x');
      expect(read.steps.at(-1)?.step.target).toEqual({ kind: 'time', minutes: 10 });
    }
  });
});
