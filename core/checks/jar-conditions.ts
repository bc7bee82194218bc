import { type BatchState, type JarState } from '../batches/index.ts';
import { durationText, rangesText } from '../measure/index.ts';
import { type Condition, PRESS_AFTER_HOURS, condition, sentence } from './condition.ts';

export function jarConditions(state: BatchState, present: JarState[]): Condition[] {
  const started = state.started as NonNullable<BatchState['started']>;
  const loads = new Map(state.loads.map(l => [l.id, l]));
  const out: Condition[] = [];
  const judge = (
    code: string,
    title: string,
    passes: (jar: JarState) => boolean,
    good: (n: number) => string,
    bad: (jars: string) => string,
    why: string,
    next: string,
  ) => {
    const failing = present.filter(j => !passes(j)).map(j => j.number);
    const met = failing.length === 0 && present.length > 0;
    out.push(
      condition(
        code,
        title,
        met,
        present.length === 0 ? 'No jar is filled.' : met ? good(present.length) : bad(rangesText(failing)),
        why,
        next,
        present.length === 0 ? null : failing,
      ),
    );
  };
  for (const line of started.recipe.lines.filter(l => l.where === 'each jar' && l.role === 'acid')) {
    judge(
      `dose:${line.id}`,
      `${line.name} in each jar`,
      j => j.doses[line.id] === 'given',
      n => `Given to all ${n} jars.`,
      jars => `Not recorded for jar ${jars}.`,
      'A jar without its acid can grow botulism whatever its neighbours hold.',
      'Record the dose, or set the jar aside.',
    );
  }
  const processed = (j: JarState) => loads.get(j.loadIds.at(-1) ?? '')?.phase === 'processed';
  const shortest = state.loads
    .filter(l => l.phase === 'processed' && l.time_s !== null)
    .map(l => `load ${l.number} ${durationText(l.time_s as number)} of ${durationText(l.required_s ?? 0)}`);
  judge(
    'processed',
    'Processed for the whole time, unbroken',
    processed,
    () => `${sentence(shortest.join(', '))}.`,
    jars => `Jar ${jars} was not in a load that was processed in full.`,
    'The time is counted from the full boil and starts again when the boil is lost.',
    'Process these jars, or set them aside.',
  );
  judge(
    'sealed',
    'Sealed, pressed after cooling',
    j => j.pressed?.sealed === true && restedHours(j, loads) >= PRESS_AFTER_HOURS,
    n => `${n} jars pressed and sealed.`,
    jars => `Jar ${jars} is not pressed, failed, or was pressed before ${PRESS_AFTER_HOURS} h.`,
    `Jars cool ${PRESS_AFTER_HOURS} to 24 h before the press proves a seal. Common practice.`,
    'Press the jars; set aside those that failed.',
  );
  return out;
}

function restedHours(jar: JarState, loads: Map<string, BatchState['loads'][number]>): number {
  const lifted = loads.get(jar.loadIds.at(-1) ?? '')?.lifted;
  return jar.pressed && lifted ? (jar.pressed.by.at_ms - lifted.at_ms) / 3_600_000 : 0;
}
