import {
  type BatchEvent,
  type BatchState,
  type CorrectableType,
  isDecision,
  type PlacedEntry,
  placeEntries,
  seqOf,
  upgradeEvent,
} from '../batches/index.ts';
import { under } from '../measure/index.ts';

/** One line of a record: an entry where it happened, with the corrections of it beneath, in the server's order. */
export interface RecordLine extends PlacedEntry {
  corrections: PlacedEntry[];
}

/**
 * A batch's record as one reads it: every entry in the order in which it happened, each correction under what it
 * corrects. An entry that only a newer build reads is left out.
 */
export function recordOf(events: readonly BatchEvent[]): RecordLine[] {
  const placed = placeEntries(events.flatMap(e => upgradeEvent(e) ?? []));
  const ids = new Set(placed.map(p => p.event.id));
  const corrections = new Map<string, PlacedEntry[]>();
  const lines: RecordLine[] = [];
  for (const p of placed) {
    if (p.event.type === 'entry.corrected' && ids.has(p.event.body.replaces)) {
      const of = p.event.body.replaces;
      corrections.set(of, [...(corrections.get(of) ?? []), p]);
    } else lines.push({ ...p, corrections: [] });
  }
  return lines.map(line => ({
    ...line,
    corrections: (corrections.get(line.event.id) ?? []).sort((a, b) => seqOf(a.event) - seqOf(b.event)),
  }));
}

/**
 * Whether a settlement settled nothing: it came before what it settles, was a second one, or by somebody who may not
 * sign. It stays in the record, as a remark.
 */
export function isRemark(state: Pick<BatchState, 'deviations' | 'books'>, event: BatchEvent): boolean {
  return (
    event.type === 'deviation.settled' &&
    ![...state.deviations, ...state.books].some(d => d.settled?.by.eventId === event.id)
  );
}

/**
 * The entry that a person made last in a batch and that can be taken back: no decision, no correction, and not taken back
 * already.
 *
 * @param events  of the batch, as they arrived; those that wait on this device last
 * @returns null where there is none
 */
export function lastOwn(
  events: readonly BatchEvent[],
  state: Pick<BatchState, 'amendments'>,
  personId: string,
): BatchEvent<CorrectableType> | null {
  const own = events
    .flatMap(e => upgradeEvent(e) ?? [])
    .filter(
      (e): e is BatchEvent<CorrectableType> =>
        e.personId === personId &&
        !isDecision(e.type) &&
        e.type !== 'entry.corrected' &&
        e.type !== 'correction.signed',
    );
  // A correction that waits for its signature has been said, too.
  return own.findLast(e => under(state.amendments, e.id) === undefined) ?? null;
}
