import { readAbove } from '../acid/index.ts';
import { numberText, rangesText } from '../measure/index.ts';
import { deviation } from './counted.ts';
import type { BatchEvent, EventType, StartedBody } from './events.ts';
import type { PlacedEntry } from './evidence.ts';
import { maySettle } from './loads.ts';
import type { BatchState, Deviation, JarState } from './state.ts';

type Of<K extends EventType> = PlacedEntry & { event: BatchEvent<K> };

/** A reading above the limit is a deviation of the whole batch: no word of the kitchen settles it. */
export function acidityDeviations(
  readings: BatchState['readings'],
  { phLimit, kitchen }: Pick<StartedBody, 'phLimit' | 'kitchen'>,
): Deviation[] {
  return readings
    .filter(r => readAbove(r, phLimit))
    .map(r =>
      deviation({
        key: `ph_above:${r.by.eventId}`,
        code: 'ph_above',
        jars: null,
        what: `Jar ${r.jar} read pH ${numberText(Math.max(r.ph, ...r.replicates), kitchen)}, above ${numberText(phLimit, kitchen)}.`,
        next: 'Hold the batch, ask a process authority for its written word, or destroy it.',
      }),
    );
}

/** Ways in which a jar reaches somebody else's table before it is sold. */
const GIVEN = ['sampled', 'gifted'];

/**
 * A sample or a gift that nobody had released: the gate is for every exit but destruction. It is gone; who has it is told. At
 * home nobody else eats it.
 */
export function exitDeviations(
  jars: readonly JarState[],
  released: readonly Of<'jars.released'>[],
  { purpose }: Pick<StartedBody, 'purpose'>,
): Deviation[] {
  if (purpose === 'home') return [];
  const away = new Map<string, number[]>();
  for (const { number, setAside } of jars) {
    if (!setAside || !GIVEN.includes(setAside.why)) continue;
    const free = released.some(s => s.event.body.jars.includes(number) && s.at_ms <= setAside.by.at_ms);
    if (!free) away.set(setAside.by.eventId, [...(away.get(setAside.by.eventId) ?? []), number]);
  }
  return [...away].map(([eventId, numbers]) =>
    deviation({
      key: `ungated:${eventId}`,
      code: 'ungated',
      jars: numbers,
      what: `Jar ${rangesText(numbers)} was given away before it was released.`,
      next: 'Ask for it back, or tell whoever has it to keep it closed until the batch is released.',
      settles: 'reason',
    }),
  );
}

/**
 * Lets what was done about deviations count: only *shown right* settles one, where it can be settled, by somebody who may sign
 * and after what it settles. Everything that was done is kept with it; a second person who does not agree opens it again.
 */
export function settleDeviations(
  done: readonly Of<'deviation.settled'>[],
  looked: readonly Of<'deviation.looked'>[],
  standing: readonly PlacedEntry[],
  deviations: readonly Deviation[],
): void {
  for (const s of done) {
    const { key, action, reason, cause, paper } = s.event.body;
    const target = deviations.find(d => d.key === key);
    if (!target) continue;
    target.actions.push({ action, reason, cause, paper, by: s.trace });
    const about = standing.find(e => key.endsWith(e.event.id));
    const counts =
      target.settles === 'reason' &&
      action === 'shown right' &&
      (!about || maySettle(s, about)) &&
      s.event.receipt?.signs !== false;
    if (counts) target.settled ??= { reason, by: s.trace };
  }
  for (const s of looked) {
    const target = deviations.find(d => d.key === s.event.body.key);
    const last = target?.actions.findLast(a => a.by.at_ms <= s.at_ms);
    // Nobody looks at what they did themselves.
    if (!target || !last || last.by.personId === s.event.personId) continue;
    target.secondLook = { agrees: s.event.body.agrees, text: s.event.body.text, by: s.trace };
    if (!s.event.body.agrees && target.settled && target.settled.by.at_ms <= s.at_ms) target.settled = null;
  }
}
