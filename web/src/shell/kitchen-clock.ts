/** What a device's clocks show at one moment: time since the page was opened, which nobody sets, and the time of day. */
export interface DeviceTime {
  /** Monotonic, ms. On many devices it stands still while they sleep. */
  mono_ms: number;
  /** Time of day, ms since the epoch. Anybody can set it. */
  wall_ms: number;
}

/** How the device's time of day lay to the kitchen's clock when that was last learned. */
export interface Offset {
  /** Server minus device, ms. */
  offset_ms: number;
  /** The device's time of day when it was measured. */
  measuredAt_ms: number;
}

/** A clock of quartz goes wrong by less than this in every second. Common figure of consumer devices, doubled. */
const DRIFT_PER_MS = 100e-6;
/** The time of day went off from the monotonic clock by more than this: the device slept, or somebody set its clock. */
const JUMP_MS = 1000;

/** By how much the time of day went off from the monotonic clock between two moments, ms; what is no jump is 0. */
function jump_ms(from: DeviceTime, to: DeviceTime): number {
  const off = to.wall_ms - from.wall_ms - (to.mono_ms - from.mono_ms);
  return Math.abs(off) > JUMP_MS ? off : 0;
}

/**
 * The kitchen's clock on a device. A reply says only that the server's clock showed its figure at some moment between
 * sending and receiving: what agrees with every reply is kept, its middle is taken, and it is counted on by the monotonic
 * clock. So the reply with the shortest way there and back says most, and a slow one next to nothing.
 */
export class KitchenClock {
  /** Kitchen minus monotonic, ms; null before anything was learned in this page. */
  private base_ms: number | null = null;
  /** It is wrong by no more than this, as of `at`. */
  private error_ms = 0;
  private at: DeviceTime | null = null;
  private kept: Offset | null;

  /**
   * @param kept  what was learned in an earlier page, by the device's time of day
   */
  constructor(kept: Offset | null = null) {
    this.kept = kept;
  }

  /**
   * Learns from a reply. One on its way while the device slept may have been answered before the sleep, however short
   * the way was by the monotonic clock: nothing is learned from it.
   *
   * @param server_ms  the server's clock, read at some moment between
   * @param sent  what the device's clocks showed when it asked
   * @param received  what they show now
   */
  learn(server_ms: number, sent: DeviceTime, received: DeviceTime): void {
    if (jump_ms(sent, received) !== 0) return;
    const least = server_ms - received.mono_ms;
    const most = server_ms - sent.mono_ms;
    const worst = this.error_ms + DRIFT_PER_MS * (received.mono_ms - (this.at?.mono_ms ?? 0));
    let from = least;
    let to = most;
    if (this.base_ms !== null) {
      from = Math.max(least, this.base_ms - worst);
      to = Math.min(most, this.base_ms + worst);
    }
    // Nothing agrees with both: the server's clock was set, and only the reply counts.
    if (from > to) [from, to] = [least, most];
    this.base_ms = (from + to) / 2;
    this.error_ms = (to - from) / 2;
    this.at = received;
    this.kept = {
      offset_ms: Math.round(this.base_ms + received.mono_ms - received.wall_ms),
      measuredAt_ms: received.wall_ms,
    };
  }

  /** The jump since the kitchen's clock was last learned, ms. */
  private jump_ms(device: DeviceTime): number {
    return this.at ? jump_ms(this.at, device) : 0;
  }

  /** Whether the device slept or its clock was set since, so that the server has to be asked. */
  isUnsure(device: DeviceTime): boolean {
    return this.jump_ms(device) !== 0;
  }

  /**
   * The kitchen's now, ms since the epoch. What went ahead is taken for a sleep, in which the monotonic clock stood
   * still; nothing but a hand sets a clock back.
   */
  now_ms(device: DeviceTime): number {
    if (this.base_ms === null) return device.wall_ms + (this.kept?.offset_ms ?? 0);
    return this.base_ms + device.mono_ms + Math.max(0, this.jump_ms(device));
  }

  /** Server minus the device's time of day as it was last measured, and the age of that; nulls where it never was. */
  offset(device: DeviceTime): { offset_ms: number | null; age_ms: number | null } {
    if (!this.kept) return { offset_ms: null, age_ms: null };
    const age_ms = Math.round(device.wall_ms - this.kept.measuredAt_ms);
    // Measured in the device's future: its clock was set back since, and nothing is known.
    return age_ms < 0 ? { offset_ms: null, age_ms: null } : { offset_ms: this.kept.offset_ms, age_ms };
  }

  /** What a later page may begin with; null where nothing was learned. */
  toKeep(): Offset | null {
    return this.kept;
  }
}
