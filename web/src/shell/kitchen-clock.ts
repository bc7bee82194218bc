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
   * Learns from a reply.
   *
   * @param server_ms  the server's clock, read at some moment between
   * @param sent_ms  monotonic
   * @param received_ms  monotonic
   * @param device  what the device's clocks show now
   */
  learn(server_ms: number, sent_ms: number, received_ms: number, device: DeviceTime): void {
    const least = server_ms - received_ms;
    const most = server_ms - sent_ms;
    const worst = this.error_ms + DRIFT_PER_MS * (device.mono_ms - (this.at?.mono_ms ?? 0));
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
    this.at = device;
    this.kept = {
      offset_ms: Math.round(this.base_ms + device.mono_ms - device.wall_ms),
      measuredAt_ms: device.wall_ms,
    };
  }

  /** By how much the time of day went off from the monotonic clock since the kitchen's was last learned, ms. */
  private jump_ms(device: DeviceTime): number {
    if (!this.at) return 0;
    const off = device.wall_ms - this.at.wall_ms - (device.mono_ms - this.at.mono_ms);
    return Math.abs(off) > JUMP_MS ? off : 0;
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
