import { randomUUID } from 'node:crypto';
import type { FactEntry } from '@cocotte/contract';
import type { EventBodies, FactType, Stamp } from '@cocotte/core/batches';

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

  /** The stamp of an entry made at an instant; `typed` marks it as typed in afterwards. */
  stamp(at_ms: number, typed = false): Stamp {
    const wall = new Date(at_ms - (this.offset_ms ?? 0)).toISOString();
    return {
      id: randomUUID(),
      typeVersion: 1,
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
      basedOnSeq: 0,
    };
  }

  /** A fact as it crosses the wire. */
  fact<K extends FactType>(at_ms: number, type: K, body: EventBodies[K], typed = false): FactEntry {
    return { ...this.stamp(at_ms, typed), type, body } as FactEntry;
  }
}
