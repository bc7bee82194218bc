import { type Day, dayOf, type Fault, localTextOf, timesInOrder } from '../measure/index.ts';
import type { JarSizeId } from '../jars/index.ts';
import type { Step } from '../recipes/index.ts';
import type { FactType } from './events.ts';
import type { BatchState } from './state.ts';
import type { Entered } from './versions.ts';

/** A day as it was written on its sheet: times are minutes since midnight, null where the box is empty. */
export interface WrittenDay {
  day: Day;
  /** Grams that were weighed, by line. */
  weighed: { lineId: string; mass_g: number }[];
  steps: { stepId: string; at_min: number | null; temp_C: number | null }[];
  jars: { size: JarSizeId; count: number }[];
  /** Lines that went into each jar, with the jars that went without. */
  doses: { lineId: string; without: number[] }[];
  loads: {
    jars: number[];
    boiling_min: number | null;
    heatOff_min: number | null;
    lifted_min: number | null;
  }[];
  /** The press of the next day; null where none is written. */
  pressed: { day: Day; at_min: number; failed: number[] } | null;
  minutes: number | null;
}

/** A fact of the sheet with when it happened. */
export type WrittenFact = { [K in FactType]: { at_ms: number; type: K; body: Entered<K> } }[FactType];

/** Steps that a sheet asks a time of: loads and the press have boxes of their own. */
export const stepsOnSheet = (steps: readonly Step[]): Step[] =>
  steps.filter(s => s.kind !== 'process' && s.kind !== 'cool');

const fault = (path: string, code: string, what: string, why: string, next: string): Fault => ({
  path,
  code,
  what,
  why,
  next,
});

/**
 * The entries that a written day makes, each at the time that stands on it. Nothing is filled in: what no box says is not
 * entered, and what cannot be is told beside its box.
 *
 * @param state  the batch as it stands, with what was entered before
 * @param ids  makes the id of a load
 * @returns facts in the order in which they happened, or faults with the path of their box
 * @throws RangeError when the batch has not been started
 */
export function writtenFacts(
  sheet: WrittenDay,
  state: Pick<BatchState, 'started' | 'jars' | 'loads' | 'draws'>,
  ids: () => string,
  now_ms: number,
): { ok: true; facts: WrittenFact[] } | { ok: false; faults: Fault[] } {
  const { started } = state;
  if (!started) throw new RangeError('writtenFacts: the batch has not been started');
  const { zone } = started.kitchen;
  const faults: Fault[] = [];
  const facts: WrittenFact[] = [];
  const add = <K extends FactType>(at_ms: number, type: K, body: Entered<K>) =>
    facts.push({ at_ms, type, body } as unknown as WrittenFact);

  const steps = started.recipe.steps;
  const at = timesInOrder(
    sheet.day,
    zone,
    sheet.steps.map(s => s.at_min),
  );
  sheet.steps.forEach((s, i) => {
    const ms = at[i];
    if (ms === null || ms === undefined) {
      if (s.temp_C !== null)
        faults.push(
          fault(
            `steps.${i}.at`,
            'no-time',
            'When was that read?',
            'A temperature counts at its time.',
            'Write the time of this step.',
          ),
        );
      return;
    }
    const step = steps.find(x => x.id === s.stepId);
    if (s.temp_C !== null)
      add(ms, 'temperature.read', { where: 'pot', part: step?.part ?? '', temp_C: s.temp_C });
    add(ms, 'step.done', { stepId: s.stepId, ended: s.temp_C === null ? null : 'thermometer' });
  });

  const first_ms = at.find(ms => ms !== null) ?? null;
  for (const [i, w] of sheet.weighed.entries()) {
    // It went in at the step that adds it, else at the first that has a time.
    const adds = sheet.steps.findIndex(s =>
      steps.find(x => x.id === s.stepId)?.adds.some(a => a.lineId === w.lineId),
    );
    const ms = (adds < 0 ? null : at[adds]) ?? first_ms;
    if (ms === null)
      faults.push(
        fault(
          `weighed.${i}`,
          'no-time',
          'No step has a time.',
          'A weight is of some moment.',
          'Write the time of a step.',
        ),
      );
    else add(ms, 'line.weighed', { lineId: w.lineId, mass_g: w.mass_g });
  }

  const fillAt = sheet.steps.findIndex(s => steps.find(x => x.id === s.stepId)?.kind === 'fill');
  const filled_ms = (fillAt < 0 ? at.findLast(ms => ms !== null) : at[fillAt]) ?? null;
  const count = sheet.jars.reduce((n, j) => n + j.count, 0);
  const before = Math.max(0, ...state.jars.map(j => j.number));
  const drawn = state.draws.flatMap(d => d.lots);
  const numbers: number[] = [];
  if (count > 0 && filled_ms === null)
    faults.push(
      fault(
        fillAt < 0 ? 'jars' : `steps.${fillAt}.at`,
        'no-time',
        'When were the jars filled?',
        'Their time in the canner comes after it.',
        'Write the time of the step in which they were filled.',
      ),
    );
  for (const { size, count: n } of sheet.jars) {
    if (n === 0) continue;
    const jars = Array.from({ length: n }, (_, i) => before + numbers.length + i + 1);
    numbers.push(...jars);
    if (filled_ms === null) continue;
    add(filled_ms, 'jars.filled', {
      size,
      jars,
      jarLotId: drawn.find(l => l.kind === 'jar' && l.jarSize === size)?.lotId ?? null,
      lidLotId: drawn.find(l => l.kind === 'lid')?.lotId ?? null,
    });
  }
  const there = new Set([...state.jars.filter(j => !j.setAside).map(j => j.number), ...numbers]);
  for (const [i, d] of sheet.doses.entries()) {
    const given = numbers.filter(n => !d.without.includes(n));
    const strange = d.without.filter(n => !numbers.includes(n));
    if (strange.length > 0)
      faults.push(
        fault(
          `doses.${i}`,
          'not-such-jars',
          'Not all of these are jars of this sheet.',
          'Doses belong to jars.',
          'Name jars that were filled.',
        ),
      );
    if (filled_ms === null || numbers.length === 0) continue;
    if (given.length > 0) add(filled_ms, 'dose.given', { lineId: d.lineId, jars: given });
    if (d.without.length > 0) add(filled_ms, 'dose.missed', { lineId: d.lineId, jars: d.without });
  }

  const taken = new Map<number, number>();
  let number = Math.max(0, ...state.loads.map(l => l.number));
  sheet.loads.forEach((load, i) => {
    const path = `loads.${i}`;
    const strange = load.jars.filter(n => !there.has(n));
    const twice = load.jars.filter(n => taken.has(n));
    if (load.jars.length === 0)
      faults.push(
        fault(
          `${path}.jars`,
          'missing',
          'No jar is named.',
          'A load is its jars.',
          'Name them, such as 1-7.',
        ),
      );
    if (strange.length > 0 || twice.length > 0)
      faults.push(
        fault(
          `${path}.jars`,
          'not-such-jars',
          strange.length > 0
            ? `Jar ${strange.join(', ')} was not filled.`
            : `Jar ${twice.join(', ')} is in load ${taken.get(twice[0] as number)} already.`,
          'A jar goes through the canner in one load.',
          'Correct the numbers.',
        ),
      );
    for (const n of load.jars) taken.set(n, i + 1);
    const from_ms = filled_ms ?? Math.max(...state.jars.map(j => j.filled.at_ms), -Infinity);
    if (!Number.isFinite(from_ms)) return;
    const clock = localTextOf(from_ms, zone).slice(11, 16).split(':').map(Number) as [number, number];
    const [, boiling, off, lifted] = timesInOrder(dayOf(from_ms, zone), zone, [
      clock[0] * 60 + clock[1],
      load.boiling_min,
      load.heatOff_min,
      load.lifted_min,
    ]);
    number += 1;
    const loadId = ids();
    add(from_ms, 'load.packed', { loadId, number, jars: load.jars, newLidLotId: null });
    if (boiling != null) add(boiling, 'load.boiling', { loadId });
    if (off != null) add(off, 'load.heat_off', { loadId });
    if (lifted != null) add(lifted, 'load.lifted', { loadId });
  });

  if (sheet.pressed) {
    const [pressed_ms] = timesInOrder(sheet.pressed.day, zone, [sheet.pressed.at_min]);
    const { failed } = sheet.pressed;
    if (failed.some(n => !there.has(n)))
      faults.push(
        fault(
          'failed',
          'not-such-jars',
          'Not all of these are jars of this batch.',
          'A press is of a jar.',
          'Correct the numbers.',
        ),
      );
    const sealed = [...taken.keys()].filter(n => !failed.includes(n)).sort((a, b) => a - b);
    if (pressed_ms != null) add(pressed_ms, 'jars.pressed', { sealed, failed });
  }
  facts.sort((a, b) => a.at_ms - b.at_ms);
  const last_ms = facts.at(-1)?.at_ms ?? null;
  if (sheet.minutes !== null && last_ms !== null) add(last_ms, 'minutes.worked', { minutes: sheet.minutes });
  if (last_ms !== null && last_ms > now_ms)
    faults.push(
      fault(
        'day',
        'future-time',
        'A time on this sheet lies in the future.',
        'What is written down has happened.',
        'Look at the day, and at morning and evening.',
      ),
    );
  if (facts.length === 0 && faults.length === 0)
    faults.push(
      fault(
        'day',
        'missing',
        'Nothing is filled in.',
        'An empty sheet says nothing.',
        'Copy what stands on it.',
      ),
    );
  return faults.length > 0 ? { ok: false, faults } : { ok: true, facts };
}
