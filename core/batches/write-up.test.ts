import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { crushedTomatoes } from '../../demo/recipes.ts';
import { PaperBatch } from '../../testing/builders.ts';
import { gate } from '../checks/index.ts';
import type { Day } from '../measure/index.ts';
import { fold } from './fold.ts';
import { stepsOnSheet, type WrittenDay, writtenFacts } from './write-up.ts';

const DAY = '2026-11-20' as Day;
const NEXT = '2026-11-21' as Day;
const steps = stepsOnSheet(crushedTomatoes.steps);
const acid = crushedTomatoes.lines.find(l => l.where === 'each jar')!;
const at = (h: number, m = 0) => h * 60 + m;

/** A simple day: steps from four in the afternoon, nine pints, one load that boils in the evening and is pressed next day. */
const day = (over: Partial<WrittenDay> = {}): WrittenDay => ({
  day: DAY,
  weighed: [{ lineId: 'tomatoes', mass_g: 5000 }],
  steps: steps.map((s, i) => ({ stepId: s.id, at_min: at(16, i * 20), temp_C: null })),
  jars: [{ size: 'pint', count: 4 }],
  doses: [{ lineId: acid.id, without: [] }],
  loads: [{ jars: [1, 2, 3, 4], boiling_min: at(18), heatOff_min: at(18, 45), lifted_min: at(18, 50) }],
  pressed: { day: NEXT, at_min: at(9), failed: [] },
  minutes: 150,
  ...over,
});
const batchOf = () => new PaperBatch(crushedTomatoes, [{ size: 'pint', count: 4 }]).drawAll();
const NOW = Date.parse('2026-11-21T20:00:00Z');
const written = (sheet: WrittenDay, batch = batchOf(), now_ms = NOW) =>
  writtenFacts(sheet, fold(batch.events), randomUUID, now_ms);
const paths = (sheet: WrittenDay) => {
  const made = written(sheet);
  return made.ok ? [] : made.faults.map(f => f.path);
};

describe('a day typed in from its sheet', () => {
  it('is its entries in the order in which they happened, each at its time, and folds to what was done', () => {
    const batch = batchOf();
    const made = written(day(), batch);
    if (!made.ok) throw new Error(JSON.stringify(made.faults));
    const ms = made.facts.map(f => f.at_ms);
    expect(ms).toEqual([...ms].sort((a, b) => a - b));
    batch.now_ms = NOW;
    for (const f of made.facts)
      batch.add(f.type, f.body as never, { typed: true, ago_min: (NOW - f.at_ms) / 60_000 });
    const state = fold(batch.events);
    expect(state.jars.map(j => [j.number, j.size, j.doses[acid.id]?.is])).toEqual(
      [1, 2, 3, 4].map(n => [n, 'pint', 'given']),
    );
    expect(state.weighed.tomatoes?.mass_g).toBe(5000);
    expect(state.loads[0]).toMatchObject({ number: 1, jars: [1, 2, 3, 4] });
    expect(state.loads[0]?.time_s).toBe(45 * 60);
    expect(state.jars.every(j => j.pressed?.sealed)).toBe(true);
    expect(state.minutes.map(m => m.minutes)).toEqual([150]);
    // Every one of them is known as what it is.
    expect(new Set(state.jars.map(j => j.filled.known))).toEqual(new Set(['written up']));
    expect(gate(state).conditions.find(c => c.code === 'processed')).toBeDefined();
  });

  it('goes past midnight where the clock does', () => {
    const made = written(
      day({
        loads: [
          { jars: [1, 2, 3, 4], boiling_min: at(23, 40), heatOff_min: at(0, 25), lifted_min: at(0, 30) },
        ],
      }),
    );
    if (!made.ok) throw new Error('refused');
    const of = (type: string) => made.facts.find(f => f.type === type)?.at_ms ?? 0;
    expect((of('load.heat_off') - of('load.boiling')) / 60_000).toBe(45);
  });

  it('enters nothing that no box says', () => {
    const made = written(day({ weighed: [], doses: [], loads: [], pressed: null, minutes: null }));
    if (!made.ok) throw new Error('refused');
    expect(new Set(made.facts.map(f => f.type))).toEqual(new Set(['step.done', 'jars.filled']));
  });

  it('tells beside its box what cannot be', () => {
    const fillAt = steps.findIndex(s => s.kind === 'fill');
    const noFill = day().steps.map((s, i) => (i === fillAt ? { ...s, at_min: null } : s));
    expect(paths(day({ steps: noFill }))).toEqual([`steps.${fillAt}.at`]);
    expect(
      paths(day({ loads: [{ jars: [1, 9], boiling_min: null, heatOff_min: null, lifted_min: null }] })),
    ).toEqual(['loads.0.jars']);
    const one = { boiling_min: at(18), heatOff_min: at(19), lifted_min: at(19, 5) };
    expect(
      paths(
        day({
          loads: [
            { jars: [1, 2], ...one },
            { jars: [2, 3], ...one },
          ],
        }),
      ),
    ).toEqual(['loads.1.jars']);
    expect(paths(day({ loads: [{ jars: [], ...one }] }))).toContain('loads.0.jars');
    expect(paths(day({ doses: [{ lineId: acid.id, without: [7] }] }))).toEqual(['doses.0']);
    expect(paths(day({ pressed: { day: NEXT, at_min: at(9), failed: [12] } }))).toEqual(['failed']);
    const read = day().steps.map((s, i) => (i === 0 ? { ...s, at_min: null, temp_C: 95 } : s));
    expect(paths(day({ steps: read }))).toEqual(['steps.0.at']);
    const nothing = steps.map(s => ({ stepId: s.id, at_min: null, temp_C: null }));
    expect(
      paths(
        day({ steps: nothing, weighed: [], jars: [], doses: [], loads: [], pressed: null, minutes: null }),
      ),
    ).toEqual(['day']);
    const early = written(day(), batchOf(), Date.parse('2026-11-20T19:00:00Z'));
    expect(early.ok ? [] : early.faults.map(f => f.code)).toEqual(['future-time']);
  });

  it('goes on after jars and loads that were entered before', () => {
    const batch = batchOf().fill([1, 2]);
    batch.process(1, [1, 2], 45);
    const made = written(
      day({
        loads: [{ jars: [3, 4, 5, 6], boiling_min: at(18), heatOff_min: at(18, 45), lifted_min: null }],
        pressed: null,
      }),
      batch,
    );
    if (!made.ok) throw new Error(JSON.stringify(made.faults));
    expect(made.facts.find(f => f.type === 'jars.filled')?.body).toMatchObject({ jars: [3, 4, 5, 6] });
    expect(made.facts.find(f => f.type === 'load.packed')?.body).toMatchObject({ number: 2 });
  });
});
