import { libraryOf, nameIndex } from '../ingredients/index.ts';
import { CORPUS } from './paste-corpus.fixture.ts';
import { readPasted } from './paste.ts';

import { describe, expect, it } from 'vitest';

const INDEX = nameIndex(libraryOf([]));
const ids = () => {
  let n = 0;
  return () => `id-${++n}`;
};
const read = (text: string) => readPasted(text, 'en-US', INDEX, ids());
/** Everything of the text that ended up somewhere, to see that nothing was lost. */
const kept = (text: string) => {
  const r = read(text);
  return [
    r.title,
    r.yieldText,
    ...r.lines.map(l => l.text),
    ...r.steps.map(s => s.text),
    ...r.unread.map(u => u.text),
  ].join('\n');
};

describe('sixty recipe texts', () => {
  it('are there', () => expect(CORPUS.length).toBe(60));

  it('read 95 % of their lines right: amount, unit and ingredient; none is lost', () => {
    let wanted = 0;
    let right = 0;
    const wrong: string[] = [];
    for (const { text, lines } of CORPUS) {
      const r = read(text);
      wanted += lines.length;
      lines.forEach(([value, unit, ingredientId], i) => {
        const got = r.lines[i]?.line;
        const family = ingredientId.split('-')[0] as string;
        const same =
          got?.amount.value === value &&
          got.amount.unit === unit &&
          (got.ingredientId === ingredientId || (got.ingredientId ?? '').includes(family));
        if (same) right++;
        else
          wrong.push(
            `${r.lines[i]?.text}: ${got?.amount.value} ${got?.amount.unit} ${got?.ingredientId}, not ${value} ${unit} ${ingredientId}`,
          );
      });
      expect(r.title, text.slice(0, 40)).not.toBe('');
      expect(r.steps.length, text).toBeGreaterThan(0);
    }
    expect(right / wanted, [...new Set(wrong)].join('\n')).toBeGreaterThanOrEqual(0.95);
  });

  it('lose no word: each row is a title, a yield, a heading, a line, a step or unread', () => {
    for (const { text } of CORPUS) {
      const all = kept(text).toLowerCase();
      for (const row of text.split(/\r?\n/)) {
        const bare = row
          .replace(/^[\s#•*-]+/, '')
          .trim()
          .toLowerCase();
        if (
          bare === '' ||
          /^(ingredients|method|directions|instructions|procedure|steps|you will need):?$/.test(bare)
        )
          continue;
        expect(all, bare).toContain(bare);
      }
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
