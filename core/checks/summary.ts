import { EQUILIBRIUM_HOURS, evidenceFaults } from '../acid/index.ts';
import type { BatchState, JarState, Purpose } from '../batches/index.ts';
import { dayOf, byName } from '../measure/index.ts';
import { pintsOf } from '../jars/index.ts';
import type { TrialReading } from '../review/index.ts';
import { needsReading } from './batch-conditions.ts';
import { PRESS_AFTER_HOURS } from './condition.ts';
import { type Gate, gate } from './gate.ts';

/** The form a jar is drawn in. State is a form, never only a colour. */
export type JarForm =
  'empty' | 'filled' | 'in the canner' | 'cooling' | 'sealed' | 'failed' | 'held' | 'released' | 'set aside';

/** Where a batch is on its way: *closed* when all its jars were set aside. */
export type Stage = 'cooking' | 'checking' | 'released' | 'closed';

/** Minutes jars stand in the canner with the heat off before they are lifted. Common practice. */
export const REST_MINUTES = 5;

/** Something that runs by itself and will call: a load at the boil, jars resting, a wait of the recipe. */
export interface Running {
  kind: 'load' | 'rest' | 'wait';
  id: string;
  title: string;
  detail: string;
  since_ms: number;
  /** When it calls. */
  until_ms: number;
  /** For a wait: the end of its window. */
  latest_ms: number | null;
}

/** Something somebody has to do, from when on, and for how many jars. */
export interface Due {
  kind: 'press' | 'acidity' | 'settle' | 'release' | 'label';
  from_ms: number;
  count: number;
}

/** What lists, the rail and Today need to know of a batch, without its events. Kept by the server as a projection. */
export interface BatchSummary {
  lotCode: string;
  name: string;
  purpose: Purpose;
  madeOn: string;
  stage: Stage;
  jars: number;
  released: number;
  labelled: number;
  /** Jars by form, for a glance. */
  forms: Partial<Record<JarForm, number>>;
  running: Running[];
  due: Due[];
  /** What it filled against what was foreseen; null until jars are filled, or where nothing was foreseen. */
  yield: { expected_pints: number; foreseen: boolean; actual_pints: number; reasons: string[] } | null;
  /** Acidity that was read, oldest first: what a process authority asks of a trial. */
  readings: TrialReading[];
}

/** The jars of a batch with their forms, and its gate. */
export interface BatchStanding {
  gate: Gate;
  forms: { number: number; form: JarForm }[];
  stage: Stage;
  /** Jars released and still let through by the gate. */
  released: number[];
}

/**
 * Where each jar and the batch stand now. A jar released once goes back to held when a later fact closes its gate.
 *
 * @example
 * const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 8 }]);
 * standing(fold(batch.events)).stage; // 'cooking'
 */
export function standing(state: BatchState): BatchStanding {
  const opened = gate(state);
  const ever = new Set(state.releases.flatMap(r => r.jars));
  const through = new Set(opened.releasable);
  const forms = state.jars.map(jar => ({ number: jar.number, form: formOf(jar, state, ever, through) }));
  const released = forms.filter(f => f.form === 'released').map(f => f.number);
  const present = forms.filter(f => f.form !== 'set aside');
  const stage: Stage =
    forms.length === 0 || present.some(f => f.form === 'filled' || f.form === 'in the canner')
      ? 'cooking'
      : present.length === 0
        ? 'closed'
        : present.every(f => f.form === 'released')
          ? 'released'
          : 'checking';
  return { gate: opened, forms, stage, released };
}

function formOf(jar: JarState, state: BatchState, ever: Set<number>, through: Set<number>): JarForm {
  if (jar.setAside) return 'set aside';
  const load = state.loads.find(l => l.id === jar.loadIds.at(-1));
  if (!load) return 'filled';
  if (!load.lifted) return 'in the canner';
  if (ever.has(jar.number)) return through.has(jar.number) ? 'released' : 'held';
  if (jar.pressed) return jar.pressed.sealed ? (load.phase === 'processed' ? 'sealed' : 'held') : 'failed';
  return load.phase === 'processed' ? 'cooling' : 'held';
}

/**
 * The summary of a started batch.
 *
 * @throws RangeError when the batch has not been started
 */
export function summarise(state: BatchState, now = standing(state)): BatchSummary {
  const { started } = state;
  if (!started) throw new RangeError('summarise: the batch has not been started');
  const forms: BatchSummary['forms'] = byName() as BatchSummary['forms'];
  for (const { form } of now.forms) forms[form] = (forms[form] ?? 0) + 1;
  const labelled = new Set(state.labels.flatMap(l => l.jars));
  return {
    lotCode: started.lotCode,
    name: started.recipe.name,
    purpose: started.purpose,
    madeOn: started.madeOn,
    stage: now.stage,
    jars: now.forms.filter(f => f.form !== 'set aside').length,
    released: now.released.length,
    labelled: now.released.filter(n => labelled.has(n)).length,
    forms,
    running: runningOf(state),
    due: dueOf(state, now, labelled),
    yield: yieldOf(state),
    readings: readingsOf(state),
  };
}

function readingsOf(state: BatchState): TrialReading[] {
  const zone = state.started?.kitchen.zone ?? 'UTC';
  return state.readings.map(r => ({
    day: dayOf(r.by.at_ms, zone),
    ph: r.ph,
    method: `${r.method}${r.reference === '' ? '' : ` ${r.reference}`}, ${Math.floor(r.hoursSinceProcessing)} h after processing`,
  }));
}

/** Filled in whole jars; a part-filled one went to the refrigerator. */
function yieldOf(state: BatchState): BatchSummary['yield'] {
  const expected = state.started?.expected;
  const whole = state.jars.filter(j => j.setAside?.why !== 'part-filled');
  if (!expected || whole.length === 0) return null;
  return {
    expected_pints: expected.pints,
    foreseen: expected.foreseen,
    actual_pints: pintsOf(whole.map(j => ({ size: j.size, count: 1 }))).valueOf(),
    reasons: state.yieldReasons.map(y => y.reason),
  };
}

function runningOf(state: BatchState): Running[] {
  const out: Running[] = [];
  const name = state.started?.recipe.name ?? '';
  for (const load of state.loads) {
    if (load.lifted) continue;
    if (load.heatOff) {
      out.push({
        kind: 'rest',
        id: load.id,
        title: `Load ${load.number} rests`,
        detail: name,
        since_ms: load.heatOff.at_ms,
        until_ms: load.heatOff.at_ms + REST_MINUTES * 60_000,
        latest_ms: null,
      });
    } else if (load.phase === 'boiling' && load.boilingSince && load.required_s !== null) {
      out.push({
        kind: 'load',
        id: load.id,
        title: `Canner, load ${load.number}`,
        detail: name,
        since_ms: load.boilingSince.at_ms,
        until_ms: load.boilingSince.at_ms + load.required_s * 1000,
        latest_ms: null,
      });
    }
  }
  for (const step of state.started?.recipe.steps ?? []) {
    const progress = state.steps[step.id];
    if (!step.window || !progress?.started || progress.done) continue;
    const since_ms = progress.started.at_ms;
    out.push({
      kind: 'wait',
      id: step.id,
      title: step.text,
      detail: name,
      since_ms,
      until_ms: since_ms + step.window.from_min * 60_000,
      latest_ms: since_ms + step.window.to_min * 60_000,
    });
  }
  return out.sort((a, b) => a.until_ms - b.until_ms);
}

function dueOf(state: BatchState, now: BatchStanding, labelled: Set<number>): Due[] {
  const due: Due[] = [];
  const hour = 3_600_000;
  const add = (kind: Due['kind'], from_ms: number, count: number) =>
    count > 0 && due.push({ kind, from_ms, count });
  const lifted = (n: number) => {
    const jar = state.jars.find(j => j.number === n);
    return state.loads.find(l => l.id === jar?.loadIds.at(-1))?.lifted?.at_ms ?? 0;
  };
  const cooling = state.jars.filter(
    j =>
      !j.setAside &&
      j.loadIds.length > 0 &&
      lifted(j.number) > 0 &&
      (!j.pressed || j.pressed.by.at_ms - lifted(j.number) < PRESS_AFTER_HOURS * hour),
  );
  const lastLift = Math.max(0, ...state.loads.map(l => l.lifted?.at_ms ?? 0));
  add('press', Math.max(0, ...cooling.map(j => lifted(j.number))) + PRESS_AFTER_HOURS * hour, cooling.length);
  const needsPh =
    state.started !== null &&
    needsReading(state.started.recipe.foodClass) &&
    state.started.purpose !== 'trial' &&
    lastLift > 0 &&
    now.stage === 'checking' &&
    !state.readings.some(r => r.ph > (state.started?.phLimit ?? 0)) &&
    !state.readings.some(r => evidenceFaults(r).length === 0);
  add('acidity', lastLift + EQUILIBRIUM_HOURS * hour, needsPh ? 1 : 0);
  add('settle', lastLift, state.deviations.filter(d => d.settled === null && d.canSettle).length);
  const waiting = now.gate.releasable.filter(n => !now.released.includes(n));
  add('release', lastLift, cooling.length === 0 ? waiting.length : 0);
  add(
    'label',
    Math.max(0, ...state.releases.map(r => r.by.at_ms)),
    now.released.filter(n => !labelled.has(n)).length,
  );
  return due.sort((a, b) => a.from_ms - b.from_ms);
}
