/** The device's half of the envelope: what it says about an entry. */
export interface Stamp {
  /** UUIDv7 made by the client. */
  id: string;
  /** Shape of the body: see {@link VERSIONS}. Old ones are read forever. */
  typeVersion: number;
  personId: string;
  deviceId: string;
  /** Counts this device's entries. */
  deviceCounter: number;
  /** The device's own clock, ISO 8601 UTC. */
  wallClock: string;
  /** Milliseconds of the page's monotonic clock. */
  monotonic_ms: number;
  /** Names the page session the monotonic reading belongs to. */
  pageSessionId: string;
  /** Server clock minus device clock when last measured; null when never. */
  clockOffset_ms: number | null;
  /** Age of that measurement; null when never. */
  clockOffsetAge_ms: number | null;
  /** When it happened: the typed time if typed in afterwards, else the device's clock again. */
  occurredAt: string;
  typedInAfterwards: boolean;
  /** The last sequence number the device had seen. */
  basedOnSeq: number;
}

/**
 * The server's half of the envelope, in the entry's hash. `at` never lies before the entry ahead of it in the
 * kitchen's record.
 */
export interface Receipt {
  /** The entry's place in the kitchen's record, without gaps. */
  seq: number;
  /** When it arrived, by the server's clock. */
  at: string;
  /** What the device's clock showed when it sent it; null where nobody said, as in entries from before receipts. */
  sentAt: string | null;
  /** Whether who entered it had the right to release and sign then; null in entries from before receipts. */
  signs: boolean | null;
}
