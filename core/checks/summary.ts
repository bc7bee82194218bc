import {
  type BatchEvent,
  type BatchState,
  type JarState,
  type Purpose,
  batchStepText,
  fold,
} from '../batches/index.ts';
import { dayOf, byName, PLAIN_MEASURES } from '../measure/index.ts';
import { pintsOf } from '../jars/index.ts';
import type { TrialReading } from '../review/index.ts';
import { type Condition } from './condition.ts';
import { type Due, dueOf } from './due.ts';
import { type Learned, learnedOf } from './learned.ts';
import { type Gate, gate } from './gate.ts';
import type { BatchStanding, JarForm, Stage } from './standing.ts';

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
  /** What it teaches the next one. */
  learned: Learned;
  /** Conditions that today's rules ask of its released jars beyond what was asked when they were released. */
  asksMore: string[];
}

/** Whether anything of a batch is still to be cooked, checked, labelled or looked at again: such batches stand on Today. */
export const isOpen = (summary: Pick<BatchSummary, 'stage' | 'labelled' | 'released' | 'due'>): boolean =>
  summary.stage === 'cooking' ||
  summary.stage === 'checking' ||
  (summary.stage === 'released' &&
    (summary.labelled < summary.released ||
      summary.due.some(d => d.kind === 'look again' || d.kind === 'ask back')));

/** A batch, as its entries make it. */
export interface Assessment {
  state: BatchState;
  standing: BatchStanding;
}

/**
 * What a batch is and where each of its jars stands. What still waits on this device moves clocks and jars, and proves
 * nothing: the gate opens on what the kitchen's book holds. A released jar is held again when a condition fails now that
 * did not fail among the entries up to its release, both by today's rules: a later fact takes a release back, a later
 * rule never does.
 *
 * @example
 * const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 8 }]);
 * assess(batch.events).standing.stage; // 'cooking'
 */
export function assess(events: readonly BatchEvent[]): Assessment {
  const state = fold(events);
  const opened = provenGate(events, state);
  const { held, asksMore } = sinceRelease(events, state, opened);
  const against = new Map<number, true>();
  const all = opened.conditions.some(c => !c.met && c.against && c.jars === null);
  for (const c of opened.conditions)
    if (!c.met && c.against) for (const n of c.jars ?? []) against.set(n, true);
  const ever = new Set(state.releases.flatMap(r => r.jars));
  const forms = state.jars.map(jar => ({
    number: jar.number,
    form: formOf(jar, state, ever.has(jar.number), held.has(jar.number), all || against.has(jar.number)),
  }));
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
  return { state, standing: { gate: opened, forms, stage, released, asksMore } };
}

/** The gate, of what the kitchen's book holds; what waits here can only speak against a jar. */
function provenGate(events: readonly BatchEvent[], state: BatchState): Gate {
  const seen = gate(state);
  if (events.every(e => e.receipt !== null)) return seen;
  const proven = gate(fold(events.filter(e => e.receipt !== null)));
  const met = new Set(proven.conditions.filter(c => c.met).map(c => c.code));
  const through = new Set(proven.releasable);
  return {
    conditions: seen.conditions.map(c =>
      !c.met || met.has(c.code)
        ? c
        : {
            ...c,
            met: false,
            evidence: `${c.evidence} It still waits on this device.`,
            next: 'It counts once it has arrived.',
            proof: [],
          },
    ),
    releasable: seen.releasable.filter(n => through.has(n)),
  };
}

const fails = (c: Condition, jar: number) => !c.met && (c.jars === null || c.jars.includes(jar));

/** Released jars that a later fact holds again, and what today's rules would ask beyond what they asked then. */
function sinceRelease(
  events: readonly BatchEvent[],
  state: BatchState,
  now: Gate,
): { held: Set<number>; asksMore: string[] } {
  const held = new Set<number>();
  const asksMore = new Set<string>();
  const through = new Set(now.releasable);
  for (const release of state.releases) {
    const doubted = release.jars.filter(n => !through.has(n));
    if (doubted.length === 0) continue;
    const { seq } = release;
    const then = gate(fold(events.filter(e => e.receipt !== null && (seq === null || e.receipt.seq <= seq))));
    for (const jar of doubted)
      for (const c of now.conditions) {
        if (!fails(c, jar)) continue;
        if (then.conditions.some(t => t.code === c.code && fails(t, jar))) asksMore.add(c.title);
        else held.add(jar);
      }
  }
  return { held, asksMore: [...asksMore] };
}

function formOf(jar: JarState, state: BatchState, ever: boolean, held: boolean, against: boolean): JarForm {
  if (jar.setAside) return 'set aside';
  const load = state.loads.find(l => l.id === jar.loadIds.at(-1));
  if (!load) return 'filled';
  if (!load.lifted) return 'in the canner';
  if (ever) return held ? 'held' : 'released';
  if (jar.pressed?.sealed === false) return 'failed';
  if (load.phase !== 'processed' || against) return 'held';
  return jar.pressed ? 'sealed' : 'cooling';
}

/**
 * The summary of a started batch.
 *
 * @throws RangeError when the batch has not been started
 */
export function summarise({ state, standing: now }: Assessment): BatchSummary {
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
    learned: learnedOf(state),
    asksMore: now.asksMore,
  };
}

function readingsOf(state: BatchState): TrialReading[] {
  const zone = state.started?.kitchen.zone ?? 'UTC';
  return state.readings.map(r => ({
    day: dayOf(r.by.at_ms, zone),
    ph: r.ph,
    method: `${r.method}${r.reference === '' ? '' : ` ${r.reference}`}, ${Math.floor(r.hours ?? r.hoursSinceProcessing)} h after processing`,
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
      title: batchStepText(state, step, PLAIN_MEASURES),
      detail: name,
      since_ms,
      until_ms: since_ms + step.window.from_min * 60_000,
      latest_ms: since_ms + step.window.to_min * 60_000,
    });
  }
  return out.sort((a, b) => a.until_ms - b.until_ms);
}
