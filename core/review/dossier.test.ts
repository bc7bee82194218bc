import { crushedTomatoes, currantJelly, tomatoSalsa, waxBeans } from '../../demo/recipes.ts';
import { withAmount, withLine } from '../../testing/recipe-lines.ts';
import { emptyRecipe, type Recipe } from '../recipes/index.ts';
import { type Asker, dossier } from './dossier.ts';
import { review } from './review.ts';

import { describe, expect, it } from 'vitest';

const ASKER: Asker = {
  locale: 'en-US',
  zone: 'UTC',
  currency: 'USD',
  temperature: 'F',
  altitude: 'ft',
  measures: 'US',
  paper: 'letter',
  makerName: 'Wrenfold Kitchen',
  makerAddress: 'Alder Crossing',
  altitude_m: 716.28,
};
const text = (recipe: Recipe, readings: Parameters<typeof dossier>[2] = [], asker = ASKER) =>
  dossier(recipe, asker, readings);
const after = (whole: string, title: string) =>
  (whole.split(`\n${title}\n`)[1] ?? '').split('\n\n')[0]?.split('\n') ?? [];

describe('what a process authority will ask for, of an own recipe', () => {
  it('is needed where no way to sale is open', () =>
    expect(review(tomatoSalsa, ASKER).route.open).toBe(false));

  it('states who asks, and what for', () => {
    const all = text(tomatoSalsa);
    for (const words of [
      "Request for a scheduled process: Aunt Pell's tomato salsa",
      'From: Wrenfold Kitchen, Alder Crossing',
      'Kitchen altitude: 2,350 ft',
      'Statement of identity: Tomato salsa',
      'Kind of product: salsa; class by our review: acidified food',
      'Peel: peeled. Cut: chopped. Not strained. Packing liquid: none. Pack: hot. Set by: not set.',
      'Please tell us:',
    ])
      expect(all).toContain(words);
  });

  it('gives the formula by weight and percent, and the percents make a hundred', () => {
    const lines = after(text(tomatoSalsa), 'Formula, as prepared, for one batch').filter(l =>
      l.startsWith('- '),
    );
    expect(lines).toHaveLength(tomatoSalsa.lines.length);
    expect(lines[0]).toMatch(
      /^- Tomatoes: 3,000\.0 g \(\d+\.\d+ %\), written as 3 kg; peeled, cored, chopped$/,
    );
    const sum = lines.reduce((s, l) => s + Number(/\((\d+\.\d+) %\)/.exec(l)?.[1]), 0);
    expect(sum).toBeCloseTo(100, 1);
  });

  it('says what is not simply in the pot, how strong an acid is, and what stays', () => {
    const beans = text(waxBeans);
    expect(beans).toMatch(/White vinegar, 5 %: [\d,.]+ g \([\d.]+ %\), written as 6 c; brine; 5\.0 % acid/);
    expect(beans).toMatch(/Garlic cloves: .* written as 1; each jar/);
    expect(text(currantJelly)).toMatch(/Red currants: .*; strained; 62 % of it stays in the food/);
    expect(text(withLine(tomatoSalsa, 'salt', { subIngredients: 'salt, anti-caking agent' }))).toContain(
      'of salt, anti-caking agent',
    );
  });

  it('weighs the low-acid produce against its acid', () => {
    expect(text(waxBeans)).toMatch(/Low-acid produce: 100\.0 % of all fruit and produce/);
    expect(text(waxBeans)).toMatch(
      /Barrier acid: \d+\.\d\d g as acetic acid for 100 g of low-acid produce, in what reaches the jars\./,
    );
    expect(text(currantJelly)).toContain('No added acid is needed as a barrier by our review.');
  });

  it('writes each end of cooking in words', () => {
    const target = (t: Recipe['steps'][number]['target']): Recipe => ({
      ...tomatoSalsa,
      steps: tomatoSalsa.steps.map(s => (s.kind === 'cook' ? { ...s, target: t } : s)),
    });
    expect(text(target({ kind: 'volume', volume_mL: 3600 }))).toContain('[down to 3.60 L]');
    expect(text(target({ kind: 'time', minutes: 25 }))).toContain('[25 min]');
    expect(text(target({ kind: 'depth', depth_mm: 80 }))).toContain('[down to 80 mm in the pot]');
    expect(text(target({ kind: 'temperature', temp_C: 90, hold_min: 5 }))).toContain(
      '[to 194.0 °F, held 5 min]',
    );
    expect(text(target({ kind: 'temperature', temp_C: 90, hold_min: 0 }))).toContain('[to 194.0 °F]');
    expect(text(target({ kind: 'gel point' }))).toContain(
      '[to the gel point, 8 °F above boiling water here]',
    );
    expect(text(target({ kind: 'look', text: 'thick' }))).toContain('[thick]');
    expect(
      text(target({ kind: 'temperature', temp_C: 90, hold_min: 0 }), [], { ...ASKER, temperature: 'C' }),
    ).toContain('[to 90.0 °C]');
  });

  it('carries the readings of its trials, and asks for them where there are none', () => {
    expect(after(text(tomatoSalsa), 'Readings of trial batches')).toEqual(['- none yet']);
    expect(after(text(tomatoSalsa), 'Still missing')).toContain(
      '- an equilibrium pH of at least one trial batch, by a calibrated meter or a laboratory',
    );
    const read = text(tomatoSalsa, [
      { day: '2026-10-01', ph: 4.12, method: 'meter, 26 h after processing' },
      { day: '2026-10-08', ph: 4.05, method: 'laboratory LAB-7, 48 h after processing' },
    ]);
    expect(after(read, 'Readings of trial batches')).toEqual([
      '- 2026-10-01: pH 4.12, meter, 26 h after processing',
      '- 2026-10-08: pH 4.05, laboratory LAB-7, 48 h after processing',
    ]);
    expect(after(read, 'Still missing').join()).not.toContain('equilibrium pH');
  });

  it('lists what is still missing, and says when nothing is', () => {
    const missing = (recipe: Recipe) =>
      after(text(recipe, [{ day: '2026-10-01', ph: 4, method: 'meter' }]), 'Still missing');
    expect(missing(tomatoSalsa)).toEqual(['- a fixed amount for what is added to taste']);
    expect(missing(withAmount(tomatoSalsa, 'salt', '2 Tbsp'))).toEqual(['- nothing that we know of']);
    expect(missing({ ...crushedTomatoes, statementOfIdentity: '' })).toEqual(['- the statement of identity']);
    expect(missing({ ...crushedTomatoes, steps: [] })).toEqual([
      '- how the jars are filled, with the temperature of the food',
      '- the end of cooking as a temperature, time or volume',
    ]);
  });

  it('reads in the marks of the kitchen', () =>
    expect(text(tomatoSalsa, [], { ...ASKER, locale: 'de-DE', altitude: 'm', measures: 'metric' })).toMatch(
      /Kitchen altitude: 716 m[\s\S]*Tomatoes: 3\.000,0 g/,
    ));

  it('does not fail on a recipe that has hardly begun', () =>
    expect(text({ ...emptyRecipe(), name: 'New' })).toContain('Total 0 g'));
});
