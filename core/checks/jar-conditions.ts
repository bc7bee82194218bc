import { type BatchState, type JarState } from '../batches/index.ts';
import { durationText, rangesText } from '../measure/index.ts';
import { type Condition, PRESS_AFTER_HOURS, condition, sentence } from './condition.ts';

/** What is asked of each jar, and how the answer is worded. */
interface JarRule extends Pick<Condition, 'code' | 'title' | 'why' | 'next'> {
  passes: (jar: JarState) => boolean;
  /** The evidence when every jar passes. */
  good: (count: number) => string;
  /** What is missing, for the jars that fail. */
  bad: (jars: string) => string;
}

/** The conditions that hold single jars: acid dosed, processed in full, sealed on a press after cooling. */
export function jarConditions(state: BatchState, present: JarState[]): Condition[] {
  const started = state.started as NonNullable<BatchState['started']>;
  const loads = new Map(state.loads.map(l => [l.id, l]));
  const timed = state.loads
    .filter(l => l.phase === 'processed' && l.time_s !== null)
    .map(l => `load ${l.number} ${durationText(l.time_s as number)} of ${durationText(l.required_s ?? 0)}`);
  const dosed = started.recipe.lines
    .filter(l => l.where === 'each jar' && l.role === 'acid')
    .map((line): JarRule => ({
      code: `dose:${line.id}`,
      title: `${line.name} in each jar`,
      passes: j => j.doses[line.id] === 'given',
      good: n => `Given to all ${n} jars.`,
      bad: jars => `Not recorded for jar ${jars}.`,
      why: 'A jar without its acid can grow botulism whatever its neighbours hold.',
      next: 'Record the dose, or set the jar aside.',
    }));
  const rules: JarRule[] = [
    ...dosed,
    {
      code: 'processed',
      title: 'Processed for the whole time, unbroken',
      passes: j => loads.get(j.loadIds.at(-1) ?? '')?.phase === 'processed',
      good: () => `${sentence(timed.join(', '))}.`,
      bad: jars => `Jar ${jars} was not in a load that was processed in full.`,
      why: 'The time is counted from the full boil and starts again when the boil is lost.',
      next: 'Process these jars, or set them aside.',
    },
    {
      code: 'sealed',
      title: 'Sealed, pressed after cooling',
      passes: j => j.pressed?.sealed === true && restedHours(j, loads) >= PRESS_AFTER_HOURS,
      good: n => `${n} jars pressed and sealed.`,
      bad: jars => `Jar ${jars} is not pressed, failed, or was pressed before ${PRESS_AFTER_HOURS} h.`,
      why: `Jars cool ${PRESS_AFTER_HOURS} to 24 h before the press proves a seal. Common practice.`,
      next: 'Press the jars; set aside those that failed.',
    },
  ];
  return rules.map(rule => judged(rule, present));
}

function judged({ code, title, passes, good, bad, why, next }: JarRule, present: JarState[]): Condition {
  if (present.length === 0)
    return condition({ code, title, met: false, evidence: 'No jar is filled.', why, next, jars: null });
  const jars = present.filter(j => !passes(j)).map(j => j.number);
  const met = jars.length === 0;
  const evidence = met ? good(present.length) : bad(rangesText(jars));
  return condition({ code, title, met, evidence, why, next, jars });
}

function restedHours(jar: JarState, loads: Map<string, BatchState['loads'][number]>): number {
  const lifted = loads.get(jar.loadIds.at(-1) ?? '')?.lifted;
  return jar.pressed && lifted ? (jar.pressed.by.at_ms - lifted.at_ms) / 3_600_000 : 0;
}
