import { describe, expect, it } from 'vitest';
import { crushedTomatoes, plumJam } from '../../demo/recipes.ts';
import { PaperBatch } from '../../testing/builders.ts';
import { nthLotCode } from '../../testing/labels.ts';
import { type Entered, fillings, fold, lotCodeFits, lotOf, USUAL_LOT_PATTERN } from '../batches/index.ts';
import { labelContent, plainSetup } from '../labels/index.ts';
import type { Recipe } from '../recipes/index.ts';
import { gate } from './index.ts';

const HOUR = 3_600_000;
const left = (batch: PaperBatch) =>
  gate(fold(batch.events)).conditions.find(c => c.code.startsWith('leftover'));

/** Four jars, then what is left goes into the cold for so many hours, with what is told of it, and four more are filled. */
function twoFillings(
  recipe: Recipe,
  {
    away_h = 18,
    told = {} as Partial<Entered<'leftover.back'>>,
    tell = true,
    cooled = true,
    boiled = true,
  } = {},
) {
  const size = recipe === plumJam ? ('half-pint' as const) : ('pint' as const);
  const batch = new PaperBatch(recipe, [{ size, count: 8 }]).drawAll();
  batch.fill([1, 2, 3, 4]);
  const filled_ms = batch.now_ms;
  batch.wait(30);
  const refrigeratedAt = new Date(batch.now_ms).toISOString();
  batch.wait(away_h * 60);
  const at = (h: number) => new Date(filled_ms + h * HOUR).toISOString();
  if (tell)
    batch.add('leftover.back', {
      refrigeratedAt,
      boiled,
      cooled: cooled
        ? [
            { at: at(1.9), temp_C: 20 },
            { at: at(5.5), temp_C: 4.5 },
          ]
        : [],
      ...told,
    });
  return batch.wait(20).fill([5, 6, 7, 8]);
}

describe('what was left over and comes back', () => {
  it('is a filling of its own, with a letter and its own day; loads of one day are one filling', () => {
    const batch = twoFillings(plumJam);
    const two = fillings(fold(batch.events));
    const { lotCode: code, madeOn } = fold(batch.events).started!;
    expect(two.map(f => [f.lotCode, f.madeOn, f.jars.map(j => j.number)])).toEqual([
      [code, madeOn, [1, 2, 3, 4]],
      [`${code}-B`, '2026-11-21', [5, 6, 7, 8]],
    ]);
    expect(lotOf(fold(batch.events), 6)?.lotCode).toBe(`${code}-B`);
    expect(lotOf(fold(batch.events), 99)).toBeNull();
    const one = new PaperBatch(plumJam, [{ size: 'half-pint', count: 8 }]).fill([1, 2]);
    one.wait(5 * 60).fill([3, 4]);
    one.wait(5 * 60).fill([5]);
    expect(fillings(fold(one.events))).toHaveLength(1);
  });

  it('has a code whose check covers its letter, where the kitchen has a pattern', () => {
    const code = nthLotCode('CRT', '2026-11-20', 3);
    const events = twoFillings(plumJam).events.map(e =>
      e.type === 'batch.started'
        ? { ...e, body: { ...e.body, lotCode: code, lotPattern: USUAL_LOT_PATTERN } }
        : e,
    );
    const [first, second] = fillings(fold(events)).map(f => f.lotCode) as [string, string];
    expect(first).toBe(code);
    expect(second).toMatch(new RegExp(`^${code.slice(0, -1)}[B-HJ-NP-Z][0-9A-HJ-NP-Z]$`));
    expect(lotCodeFits(second)).toBe(true);
    const letter = second.at(-2) as string;
    expect(lotCodeFits(second.slice(0, -2) + (letter === 'C' ? 'D' : 'C') + second.at(-1))).toBe(false);
  });

  it('goes through when it was cold within a day and boiled once', () => {
    expect(left(twoFillings(plumJam, { cooled: false }))).toMatchObject({ met: true });
    expect(left(twoFillings(crushedTomatoes))).toMatchObject({ met: true, jars: [5, 6, 7, 8] });
  });

  it.each([
    ['nobody said so', { tell: false }],
    ['it was not boiled', { boiled: false }],
    ['it was away for two days', { away_h: 47 }],
    ['it was put away after it came back', { told: { refrigeratedAt: '2026-11-30T10:00:00.000Z' } }],
    ['it was put away days before', { told: { refrigeratedAt: '2026-11-18T10:00:00.000Z' } }],
  ] as const)('holds its jars, and no other, where %s', (_, how) => {
    const condition = left(twoFillings(plumJam, how as object));
    expect(condition).toMatchObject({ met: false, jars: [5, 6, 7, 8] });
  });

  it('of food that is not acid yet asks how fast it cooled; what is acid in the pot is not asked', () => {
    expect(left(twoFillings(crushedTomatoes, { cooled: false }))).toMatchObject({ met: false });
    const slow = twoFillings(crushedTomatoes, {
      told: {
        cooled: [
          { at: '2026-11-20T16:30:00.000Z', temp_C: 30 },
          { at: '2026-11-20T18:30:00.000Z', temp_C: 20 },
          { at: '2026-11-20T20:30:00.000Z', temp_C: 4 },
        ],
      },
    });
    expect(left(slow)?.evidence).toMatch(/21\.0 °C.* within 2 hours/);
    // A reading from before it was even filled shows nothing.
    const early = twoFillings(crushedTomatoes, {
      told: {
        cooled: [
          { at: '2026-11-20T10:00:00.000Z', temp_C: 4 },
          { at: '2026-11-20T11:00:00.000Z', temp_C: 4 },
        ],
      },
    });
    expect(left(early)).toMatchObject({ met: false });
  });

  it('is not shown by an entry that came before the first jars, or after the last', () => {
    const before = new PaperBatch(plumJam, [{ size: 'half-pint', count: 4 }]);
    before.add('leftover.back', { refrigeratedAt: '2026-11-20T14:00:00.000Z', boiled: true, cooled: [] });
    before
      .wait(1)
      .fill([1, 2])
      .wait(20 * 60)
      .fill([3, 4]);
    expect(left(before)).toMatchObject({ met: false });
    before.wait(5);
    before.add('leftover.back', {
      refrigeratedAt: new Date(before.now_ms - 10 * HOUR).toISOString(),
      boiled: true,
      cooled: [],
    });
    expect(left(before)).toMatchObject({ met: false });
  });

  it('a second entry, typed for the same time, does not take back the first', () => {
    const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 4 }]).drawAll().fill([1, 2]);
    batch.wait(10);
    const refrigeratedAt = new Date(batch.now_ms).toISOString();
    batch.wait(15 * 60).add('leftover.back', { refrigeratedAt, boiled: false, cooled: [] });
    batch.wait(20).fill([3, 4]);
    batch.add('leftover.back', { refrigeratedAt, boiled: true, cooled: [] }, { typed: true, ago_min: 15 });
    expect(left(batch)).toMatchObject({ met: false, jars: [3, 4] });
  });

  it('a second pot that is cooked in the evening is filled fresh; one pot alone, or one cooked before, is not', () => {
    const cook = plumJam.steps.find(s => s.kind === 'cook')!;
    const evening = (count: number, { late = true } = {}) => {
      const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 4 }], {
        pots: { count, each: '1', overridden: false, reasons: [] },
      }).drawAll();
      batch.fact('step.done', { stepId: cook.id, potId: '1' });
      if (!late) batch.fact('step.done', { stepId: cook.id, potId: '2' });
      batch
        .wait(1)
        .fill([1, 2])
        .wait(9 * 60);
      if (late) batch.fact('step.done', { stepId: cook.id, potId: '2' });
      return left(batch.wait(5).fill([3, 4]));
    };
    expect(evening(2)).toMatchObject({ met: true });
    expect(evening(2, { late: false })).toMatchObject({ met: false });
    expect(evening(1)).toMatchObject({ met: false });
  });

  it('its label has its own code and day', () => {
    const state = fold(twoFillings(plumJam).events);
    const kitchen = {
      makerName: 'Test',
      makerAddress: '1 Lane',
      locale: 'en-US',
      jurisdiction: {
        name: '',
        statement: 'Made at home',
        source: '',
        confirmedOn: null,
        rules: null,
        points: [],
        number: '',
      },
    };
    const label = (jars: number[]) => {
      const content = labelContent(state, kitchen, plainSetup('letter-10'), 'half-pint', jars);
      return content.ok ? [content.label.lotCode, content.label.madeOn] : content.faults;
    };
    const { lotCode: code, madeOn } = state.started!;
    expect(label([])).toEqual([code, madeOn]);
    expect(label([1])).toEqual([code, madeOn]);
    expect(label([7, 8])).toEqual([`${code}-B`, '2026-11-21']);
  });
});
