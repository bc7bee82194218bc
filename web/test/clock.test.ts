import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { KitchenClock } from '../src/shell/kitchen-clock.ts';

const T0 = Date.UTC(2026, 10, 26, 12);
/** A device whose page was opened at T0, and whose time of day is ahead by so much. */
const at = (mono_ms: number, ahead_ms = 0) => ({ mono_ms, wall_ms: T0 + mono_ms + ahead_ms });
/** A reply whose server read its clock after `there`, of a way of `there` and `back`. */
const reply = (clock: KitchenClock, sent: number, there: number, back: number, ahead_ms = 0) =>
  clock.learn(T0 + sent + there, at(sent, ahead_ms), at(sent + there + back, ahead_ms));

describe("the kitchen's clock on a device", () => {
  it('counts on from the middle of the shortest way, whatever the time of day says', () => {
    const clock = new KitchenClock();
    reply(clock, 1000, 20, 20, 3_600_000);
    expect(clock.now_ms(at(61_000, 3_600_000))).toBe(T0 + 61_000);
    expect(clock.offset(at(61_000, 3_600_000))).toEqual({ offset_ms: -3_600_000, age_ms: 59_960 });
  });

  it('a slow reply shifts it by under 100 ms, however lopsided its way', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 40 }),
        fc.array(
          fc.record({ there: fc.integer({ min: 0, max: 9000 }), back: fc.integer({ min: 0, max: 9000 }) }),
          { maxLength: 20 },
        ),
        (fast, slow) => {
          const clock = new KitchenClock();
          reply(clock, 0, fast, fast);
          let sent = 1000;
          for (const { there, back } of slow) {
            reply(clock, sent, there, back);
            sent += 20_000;
            expect(Math.abs(clock.now_ms(at(sent)) - (T0 + sent))).toBeLessThan(100);
          }
        },
      ),
    );
  });

  it('is never wrong by more than half of the shortest way there and back', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({ there: fc.integer({ min: 0, max: 5000 }), back: fc.integer({ min: 0, max: 5000 }) }),
          { minLength: 1, maxLength: 12 },
        ),
        ways => {
          const clock = new KitchenClock();
          let sent = 0;
          for (const { there, back } of ways) {
            reply(clock, sent, there, back);
            sent += 10_001;
          }
          const shortest = Math.min(...ways.map(w => w.there + w.back));
          // Beside it, what a clock of quartz may go wrong by meanwhile.
          expect(Math.abs(clock.now_ms(at(sent)) - (T0 + sent))).toBeLessThanOrEqual(
            shortest / 2 + sent * 1e-4,
          );
        },
      ),
    );
  });

  it('a reply that proves it wrong moves it at once: the server was set', () => {
    const clock = new KitchenClock();
    reply(clock, 0, 5, 5);
    clock.learn(T0 + 3_600_000 + 2000, at(1990), at(2050));
    expect(Math.abs(clock.now_ms(at(3000)) - (T0 + 3_600_000 + 3000))).toBeLessThan(40);
  });

  it('a device that slept is told ahead by its time of day, and is unsure until it has asked', () => {
    const clock = new KitchenClock();
    reply(clock, 0, 5, 5);
    // Twenty minutes in which the monotonic clock stood still.
    const awake = { mono_ms: 5000, wall_ms: T0 + 5000 + 1_200_000 };
    expect(clock.isUnsure(awake)).toBe(true);
    expect(clock.now_ms(awake)).toBe(T0 + 5000 + 1_200_000);
    // What a stamp says of its offset is as before the sleep, and agrees with the one afterwards.
    expect(clock.offset(awake)).toEqual({ offset_ms: 0, age_ms: 1_204_990 });
    clock.learn(awake.wall_ms + 5, awake, { mono_ms: 5010, wall_ms: awake.wall_ms + 10 });
    expect(clock.isUnsure({ mono_ms: 6000, wall_ms: awake.wall_ms + 1000 })).toBe(false);
    expect(clock.offset({ mono_ms: 6000, wall_ms: awake.wall_ms + 1000 }).offset_ms).toBe(0);
  });

  it('a reply that was answered before a sleep and read after it says nothing', () => {
    const clock = new KitchenClock();
    reply(clock, 0, 5, 5);
    const awake = { mono_ms: 5000, wall_ms: T0 + 5000 + 1_200_000 };
    clock.learn(T0 + 4990, at(4985), awake);
    expect(clock.isUnsure(awake)).toBe(true);
    expect(clock.now_ms(awake)).toBe(T0 + 5000 + 1_200_000);
  });

  it('a clock that was set back moves nothing that runs', () => {
    const clock = new KitchenClock();
    reply(clock, 0, 5, 5);
    expect(clock.now_ms(at(60_000, -3_600_000))).toBe(T0 + 60_000);
    expect(clock.isUnsure(at(60_000, -3_600_000))).toBe(true);
    // The offset was measured in what is now its future.
    expect(clock.offset(at(60_000, -3_600_000))).toEqual({ offset_ms: null, age_ms: null });
  });

  it('a page opened without a connection goes by what an earlier one had learned', () => {
    const before = new KitchenClock();
    reply(before, 0, 5, 5, 90_000);
    const later = new KitchenClock(before.toKeep());
    expect(later.now_ms({ mono_ms: 3, wall_ms: T0 + 600_000 + 90_000 })).toBe(T0 + 600_000);
    expect(new KitchenClock().now_ms(at(7))).toBe(T0 + 7);
    expect(new KitchenClock().toKeep()).toBeNull();
  });
});
