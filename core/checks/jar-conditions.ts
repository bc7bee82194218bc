import {
  PRESS_AFTER_HOURS,
  hasCooled,
  type BatchState,
  type JarState,
  type Trace,
} from '../batches/index.ts';
import { durationText, rangesText } from '../measure/index.ts';
import { isFlatLid } from '../jars/index.ts';
import { termsOf } from '../review/index.ts';
import { type Condition, condition, sentence } from './condition.ts';

/** What is asked of each jar, and how the answer is worded. */
interface JarRule extends Pick<Condition, 'code' | 'title' | 'why' | 'next' | 'against'> {
  passes: (jar: JarState) => boolean;
  /** The entries that show it of a jar that passes. */
  proof: (jar: JarState) => (Trace | null)[];
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
      passes: j => j.doses[line.id]?.is === 'given',
      proof: j => [j.doses[line.id]?.by ?? null],
      against: true,
      good: n => `Given to all ${n} jars.`,
      bad: jars => `Not recorded for jar ${jars}, or only after it was closed.`,
      why: 'A jar without its acid can grow botulism whatever its neighbours hold.',
      next: 'Record the dose, or set the jar aside.',
    }));
  const outlets: JarRule[] = present.some(j => j.outletId !== null)
    ? [
        {
          code: 'outlet',
          title: 'Of this batch alone',
          passes: j => j.outletId === null,
          proof: () => [],
          against: true,
          good: () => '',
          bad: jars => `Jar ${jars} was filled from an outlet of this batch.`,
          why: 'What is asked of this batch says nothing of another product: it has an authority, an acidity and a time of its own.',
          next: 'Take it out of the pot as a lot, and start its own batch that draws it. These jars are kept in the refrigerator.',
        },
      ]
    : [];
  const named = (termsOf(started.recipe)?.closure ?? '').trim().toLowerCase();
  const closures: JarRule[] = present.some(j => !isFlatLid(j.closure))
    ? [
        {
          code: 'closure',
          title: 'Closed with what its process was set for',
          passes: j => isFlatLid(j.closure) || j.closure.trim().toLowerCase() === named,
          proof: j => [j.filled],
          against: true,
          good: () => 'Its letter names the closure.',
          bad: jars => `Jar ${jars} is closed with something else than a flat lid and a band.`,
          why: 'Times were tested with flat lids and bands; another closure is covered by a letter that names it, and by nothing else.',
          next: 'If it was entered wrongly, correct the filling. Otherwise these jars are kept in the refrigerator.',
        },
      ]
    : [];
  const withdrawn: JarRule[] = present.some(j => j.withdrawn)
    ? [
        {
          code: 'withdrawn',
          title: 'Not called back',
          passes: j => j.withdrawn === null,
          proof: () => [],
          against: true,
          good: () => '',
          bad: jars => `Jar ${jars} was called back: ${present.find(j => j.withdrawn)?.withdrawn?.why ?? ''}`,
          why: 'What was released and found bad is never released again.',
          next: 'Bring the jars back from where they stand, and destroy them.',
        },
      ]
    : [];
  const rules: JarRule[] = [
    ...outlets,
    ...withdrawn,
    ...closures,
    ...dosed,
    {
      code: 'processed',
      title: 'Processed for the whole time, unbroken',
      passes: j => loads.get(j.loadIds.at(-1) ?? '')?.phase === 'processed',
      proof: j => {
        const load = loads.get(j.loadIds.at(-1) ?? '');
        return load ? [load.boilingSince, load.heatOff, load.lifted] : [];
      },
      against: true,
      good: () => `${sentence(timed.join(', '))}.`,
      bad: jars => `Jar ${jars} was not in a load that was processed in full.`,
      why: 'The time is counted from the full boil and starts again when the boil is lost.',
      next: 'Process these jars, or set them aside.',
    },
    {
      code: 'sealed',
      title: 'Sealed, pressed after cooling',
      passes: j => {
        const lifted = loads.get(j.loadIds.at(-1) ?? '')?.lifted;
        if (j.pressed?.sealed !== true || lifted == null || !hasCooled(j.pressed.by, lifted)) return false;
        // A thumb proves the seal of a flat lid; another closure has a proof of its own.
        return isFlatLid(j.closure) || j.pressed.how === 'as the letter says';
      },
      proof: j => [j.pressed?.by ?? null],
      against: false,
      good: n => `${n} jars pressed and sealed.`,
      bad: jars => `Jar ${jars} is not pressed, failed, or was pressed before ${PRESS_AFTER_HOURS} h.`,
      why: `Jars cool ${PRESS_AFTER_HOURS} to 24 h before the press proves a seal. Common practice.`,
      next: 'Press the jars once they have cooled; refrigerate those that failed, or process them again with new lids within 24 h.',
    },
  ];
  return rules.map(rule => judged(rule, present));
}

function judged(rule: JarRule, present: JarState[]): Condition {
  const { code, title, passes, good, bad, why, next, against } = rule;
  if (present.length === 0)
    return condition({ code, title, met: false, evidence: 'No jar is filled.', why, next, jars: null });
  const jars = present.filter(j => !passes(j)).map(j => j.number);
  const met = jars.length === 0;
  const evidence = met ? good(present.length) : bad(rangesText(jars));
  const proof = new Map(
    (met ? present : []).flatMap(j => rule.proof(j)).flatMap(t => (t ? [[t.eventId, t] as const] : [])),
  );
  return condition({ code, title, met, evidence, why, next, jars, against, proof: [...proof.values()] });
}
