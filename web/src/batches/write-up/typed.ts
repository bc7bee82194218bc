import { stepsOnSheet, type WrittenDay, type WrittenFact, writtenFacts } from '@cocotte/core/batches';
import { addDays, clockOf, type Fault, type Habits, readTimeOfDay } from '@cocotte/core/measure';
import type { JarSizeId } from '@cocotte/core/jars';
import { v7 } from 'uuid';
import { missing, type Readings, readersOf } from '../../kit/readers.ts';
import { kitchenNow } from '../../shell/clock.ts';
import { say } from '../../words/views.ts';
import { jarsAmong } from '../AllBut.tsx';
import type { OpenBatch } from '../open-batch.ts';

/** A sheet as it is typed. */
export interface TypedSheet {
  day: string;
  weighed: { lineId: string; mass_g: string }[];
  steps: { stepId: string; at: string; temp: string }[];
  jars: { size: JarSizeId; count: string }[];
  doses: { lineId: string; given: boolean; without: string }[];
  loads: { jars: string; boiling: string; off: string; lifted: string }[];
  pressedDay: string;
  pressedAt: string;
  failed: string;
  minutes: string;
}

const emptyLoad = () => ({ jars: '', boiling: '', off: '', lifted: '' });

/** The sheet of a batch, nothing on it yet. */
export function emptySheet(batch: OpenBatch): TypedSheet {
  const started = batch.state.started as NonNullable<OpenBatch['state']['started']>;
  const { recipe } = started;
  return {
    day: started.madeOn,
    weighed: recipe.lines
      .filter(l => l.where !== 'each jar' && l.role !== 'water')
      .map(l => ({ lineId: l.id, mass_g: '' })),
    steps: stepsOnSheet(recipe.steps).map(s => ({ stepId: s.id, at: '', temp: '' })),
    jars: started.jars.map(j => ({ size: j.size, count: '' })),
    doses: recipe.lines
      .filter(l => l.where === 'each jar')
      .map(l => ({ lineId: l.id, given: false, without: '' })),
    loads: [emptyLoad()],
    pressedDay: addDays(started.madeOn, 1),
    pressedAt: '',
    failed: '',
    minutes: '',
  };
}

/** What the sheet says, read box by box; empty boxes say nothing. */
export function readSheet(
  typed: TypedSheet,
  batch: OpenBatch,
  kitchen: Habits,
): Readings<{ facts: WrittenFact[] }> {
  const read = readersOf(kitchen);
  const clock = clockOf(kitchen.locale) === 'h12' ? 12 : 24;
  const faults: Fault[] = [];
  const at = <V>(path: string, reading: { ok: true; value: V } | { ok: false; fault: Fault }): V | null => {
    if (reading.ok) return reading.value;
    faults.push({ ...reading.fault, path });
    return null;
  };
  const time = (path: string, text: string) =>
    text.trim() === '' ? null : at(path, readTimeOfDay(text, clock));
  const figure = (path: string, text: string, name: string, max: number, whole = false) =>
    text.trim() === '' ? null : at(path, read.figure({ name, min: 0, above: true, max, whole })(text));
  const numbers = (path: string, text: string) =>
    text.trim() === '' ? [] : (at(path, jarsAmong(Array.from({ length: 500 }, (_, i) => i + 1))(text)) ?? []);
  const temp = read.temperature_C({ name: say('writeUp.temp'), min: -5, max: 130 });
  const loads = typed.loads
    .map((l, i) => ({
      jars: numbers(`loads.${i}.jars`, l.jars),
      boiling_min: time(`loads.${i}.boiling`, l.boiling),
      heatOff_min: time(`loads.${i}.off`, l.off),
      lifted_min: time(`loads.${i}.lifted`, l.lifted),
    }))
    .filter((_, i) => Object.values(typed.loads[i] as object).some(text => text !== ''));
  const pressedAt = time('pressedAt', typed.pressedAt);
  const failed = numbers('failed', typed.failed);
  if (failed.length > 0 && typed.pressedAt.trim() === '')
    faults.push(missing(say('writeUp.pressedAt.missing'), undefined, undefined, 'pressedAt'));
  const day: WrittenDay = {
    day: typed.day,
    weighed: typed.weighed.flatMap((w, i) => {
      const mass_g = figure(`weighed.${i}.mass_g`, w.mass_g, say('writeUp.weight'), 1_000_000);
      return mass_g === null ? [] : [{ lineId: w.lineId, mass_g }];
    }),
    steps: typed.steps.map((s, i) => ({
      stepId: s.stepId,
      at_min: time(`steps.${i}.at`, s.at),
      temp_C: s.temp.trim() === '' ? null : at(`steps.${i}.temp`, temp(s.temp)),
    })),
    jars: typed.jars.map((j, i) => ({
      size: j.size,
      count: figure(`jars.${i}.count`, j.count, say('writeUp.count'), 200, true) ?? 0,
    })),
    doses: typed.doses
      .map((d, i) => ({ ...d, out: numbers(`doses.${i}.without`, d.without) }))
      .filter(d => d.given)
      .map(d => ({ lineId: d.lineId, without: d.out })),
    loads,
    pressed: pressedAt === null ? null : { day: typed.pressedDay, at_min: pressedAt, failed },
    minutes: figure('minutes', typed.minutes, say('writeUp.minutes'), 1440),
  };
  if (faults.length > 0) return { ok: false, faults };
  const made = writtenFacts(day, batch.state, v7, kitchenNow());
  if (!made.ok) return { ok: false, faults: made.faults.map(f => ({ ...f, path: boxOf(f.path) })) };
  return { ok: true, value: { facts: made.facts } };
}

/** The box of a fault that was found in the whole. */
const boxOf = (path: string): string =>
  path
    .replace(/^(weighed\.\d+)$/, '$1.mass_g')
    .replace(/^(doses\.\d+)$/, '$1.without')
    .replace(/^jars$/, 'jars.0.count');

export { emptyLoad };
