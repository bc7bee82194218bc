import { COOLED_HOURS, EQUILIBRIUM_HOURS, readAbove } from '../acid/index.ts';
import { type BatchState, hasCooled, PRESS_AFTER_HOURS, textureOf, type Trace } from '../batches/index.ts';
import { acidityOf, needsReading } from './acidity.ts';
import type { BatchStanding } from './standing.ts';

/** Something somebody has to do, from when on, and for how many jars. */
export interface Due {
  kind:
    | 'press'
    | 'acidity'
    | 'settle'
    | 'sign'
    | 'reprocess'
    | 'held'
    | 'release'
    | 'label'
    | 'look'
    | 'look again'
    | 'ask back';
  from_ms: number;
  count: number;
  /** For jars that are held: the next step; else empty. */
  next: string;
}

/** Hours from lifting within which a jar that failed may be processed again. Common practice (USDA Complete Guide, from memory). */
export const REPROCESS_HOURS = 24;

/** Hours after lifting from which a set and what floats or clouds can be judged. Common practice (24 to 48 hours). */
export const LOOK_AFTER_HOURS = 24;
/** Days a soft set may still take. Common practice (up to two weeks). */
const SOFT_SET_DAYS = 14;

/** What somebody has to do on a batch, the first to be done first. */
export function dueOf(state: BatchState, now: BatchStanding, labelled: Set<number>): Due[] {
  const due: Due[] = [];
  const hour = 3_600_000;
  const add = (kind: Due['kind'], from_ms: number, count: number, next = '') =>
    count > 0 && due.push({ kind, from_ms, count, next });
  const liftedOf = (n: number) => {
    const jar = state.jars.find(j => j.number === n);
    return state.loads.find(l => l.id === jar?.loadIds.at(-1))?.lifted ?? null;
  };
  const lifted = (n: number) => liftedOf(n)?.at_ms ?? 0;
  const cooling = state.jars.filter(
    j =>
      !j.setAside &&
      j.loadIds.length > 0 &&
      lifted(j.number) > 0 &&
      (!j.pressed || (j.pressed.sealed && !hasCooled(j.pressed.by, liftedOf(j.number) as Trace))),
  );
  const lastLift = Math.max(0, ...state.loads.map(l => l.lifted?.at_ms ?? 0));
  add('press', Math.max(0, ...cooling.map(j => lifted(j.number))) + PRESS_AFTER_HOURS * hour, cooling.length);
  const limit = state.started?.phLimit ?? 0;
  const needsPh =
    state.started !== null &&
    needsReading(state.started.recipe.foodClass) &&
    state.started.purpose !== 'trial' &&
    lastLift > 0 &&
    now.stage === 'checking' &&
    // A jar that is, or may be, above the limit asks for more than another reading.
    !state.readings.some(r => readAbove(r, limit)) &&
    acidityOf(state).unsure === null &&
    now.gate.conditions.some(c => c.code === 'ph-evidence' && !c.met);
  const smooth = state.started !== null && textureOf(state.started.recipe) === 'smooth';
  add('acidity', lastLift + (smooth ? COOLED_HOURS : EQUILIBRIUM_HOURS) * hour, needsPh ? 1 : 0);
  // A jar that did not seal may go back into the canner within a day of being lifted: counted from the first that came out.
  const failed = state.jars.filter(
    j => !j.setAside && j.pressed?.sealed === false && lifted(j.number) > 0 && j.outletId === null,
  );
  add('reprocess', Math.min(...failed.map(j => lifted(j.number))), failed.length);
  add('settle', lastLift, state.deviations.filter(d => d.settled === null && d.settles !== null).length);
  add('sign', lastLift, unsigned(state));
  const waiting = now.gate.releasable.filter(n => !now.released.includes(n));
  add('release', lastLift, cooling.length === 0 ? waiting.length : 0);
  add(
    'label',
    Math.max(0, ...state.releases.map(r => r.by.at_ms)),
    now.released.filter(n => !labelled.has(n)).length,
  );
  // A held batch with nothing else to do would be forgotten: it stands on Today until each jar has gone its way.
  const held = now.forms.filter(f => f.form === 'held' || f.form === 'failed').length;
  const why = now.gate.conditions.find(c => !c.met && c.against) ?? now.gate.conditions.find(c => !c.met);
  if (!due.some(d => d.kind !== 'label'))
    add('held', lastLift, held, why ? `${why.evidence} ${why.next}` : '');
  // A label on a jar that may not go out says that it may: it comes back, and is counted as destroyed.
  add(
    'ask back',
    Math.max(0, ...state.labels.map(l => l.by.at_ms)),
    state.labels.reduce((sum, l) => {
      const back = l.jars.filter(
        n => !now.released.includes(n) && state.jars.some(j => j.number === n),
      ).length;
      return sum + Math.max(0, back - (l.counted?.destroyed ?? 0));
    }, 0),
  );
  const look = lookDue(state, lastLift);
  if (look) due.push(look);
  return due.sort((a, b) => a.from_ms - b.from_ms);
}

/** Jars are looked at a day after lifting, and again in two weeks where the set was too soft: it may still come. */
function lookDue(state: BatchState, lastLift_ms: number): Due | null {
  const count = state.jars.filter(j => !j.setAside).length;
  if (lastLift_ms === 0 || count === 0) return null;
  const hour = 3_600_000;
  const last = state.looks.findLast(l => l.by.at_ms >= lastLift_ms + LOOK_AFTER_HOURS * hour);
  if (!last) return { kind: 'look', from_ms: lastLift_ms + LOOK_AFTER_HOURS * hour, count, next: '' };
  const soft_ms = lastLift_ms + SOFT_SET_DAYS * 24 * hour;
  return state.looks.findLast(l => l.set !== null)?.set === 'too soft' && last.by.at_ms < soft_ms
    ? { kind: 'look again', from_ms: soft_ms, count, next: '' }
    : null;
}

/** Corrections that count once somebody who may sign them does. */
function unsigned(state: BatchState): number {
  return Object.values(state.amendments).filter(a => a.corrections.at(-1)?.counts === false).length;
}
