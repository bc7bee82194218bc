import { type Habits, type Reading, instantOf, localTextOf } from '@cocotte/core/measure';
import { useTyped } from '../kit/form.ts';
import { unasked } from '../kit/readers.ts';
import { useClock } from '../shell/clock.ts';
import { misread } from '../words/views.ts';

/** A clock may run this much ahead before what it says is taken for the future. */
const AHEAD_MS = 60_000;

/**
 * Reads a time on the kitchen's wall clock that has been, as an instant in ms.
 *
 * @param now_ms  tells the now
 */
export const pastInstant =
  (zone: string, now_ms: () => number) =>
  (text: string): Reading<number> => {
    const at_ms = instantOf(text, zone);
    if (Number.isNaN(at_ms)) return misread('not-a-time');
    if (at_ms > now_ms() + AHEAD_MS) return misread('future-time');
    return { ok: true, value: at_ms };
  };

/** When an entry happened: now, or a time typed in afterwards, for a day cooked on paper. */
export function useWhen({ zone }: Pick<Habits, 'zone'>) {
  const now_ms = useClock();
  const form = useTyped({ typed: false, occurredAt: '' }, ({ typed }) => ({
    occurredAt: typed ? pastInstant(zone, now_ms) : unasked(null),
  }));
  return {
    /** What happened is written up afterwards. */
    typed: form.typed('typed'),
    setTyped: (on: boolean) => {
      form.again({ typed: on, occurredAt: on ? localTextOf(now_ms(), zone) : '' });
    },
    at: form.at('occurredAt'),
    /** The typed instant, or null for now; nothing where it cannot be read, and its fault is shown. */
    read: async (): Promise<{ typedAt_ms: number | null } | null> => {
      const found = await form.read();
      return found && { typedAt_ms: found.occurredAt };
    },
  };
}
export type When = ReturnType<typeof useWhen>;
