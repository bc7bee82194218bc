import { randomUUID } from 'node:crypto';
import type { FactEntry } from '@cocotte/contract';
import {
  type Entered,
  type EventType,
  type FactType,
  type Stamp,
  VERSIONS,
  complete,
} from '@cocotte/core/batches';

/** A device in somebody's hand: makes stamps and facts the way the interface does, at instants the caller names. */
export class Device {
  readonly id = randomUUID();
  pageSessionId = randomUUID();
  private counter = 0;
  private readonly opened_ms: number;

  /**
   * @param personId  who holds it
   * @param at_ms  the instant its page was opened
   * @param offset_ms  server clock minus device clock; null when never measured
   */
  constructor(
    readonly personId: string,
    at_ms: number,
    readonly offset_ms: number | null = 0,
  ) {
    this.opened_ms = at_ms;
  }

  /**
   * The stamp of an entry made at an instant; `typed` marks it as typed in afterwards.
   *
   * @param of  kind of entry, whose shape of today it has
   * @param basedOnSeq  the last number the device had seen
   */
  stamp(at_ms: number, typed = false, of: EventType = 'note.written', basedOnSeq = 0): Stamp {
    const wall = new Date(at_ms - (this.offset_ms ?? 0)).toISOString();
    return {
      id: randomUUID(),
      typeVersion: VERSIONS[of],
      personId: this.personId,
      deviceId: this.id,
      deviceCounter: this.counter++,
      wallClock: wall,
      monotonic_ms: Math.max(0, at_ms - this.opened_ms),
      pageSessionId: this.pageSessionId,
      clockOffset_ms: this.offset_ms,
      clockOffsetAge_ms: this.offset_ms === null ? null : 1000,
      occurredAt: typed ? new Date(at_ms).toISOString() : wall,
      typedInAfterwards: typed,
      basedOnSeq,
    };
  }

  /** A fact as it crosses the wire. */
  fact<K extends FactType>(at_ms: number, type: K, body: Entered<K>, typed = false): FactEntry {
    return { ...this.stamp(at_ms, typed, type), type, body: complete(type, body) } as FactEntry;
  }
}
