import type { ShoppingLine } from '@cocotte/core/stores';

/** What was ticked on this device's shopping list: the list itself is kept as any reply is. */
interface KeptTicks {
  kitchenId: string;
  /** Lines that were ticked, by {@link tickOf}: a line that comes to ask for more is open again. */
  ticked: string[];
}

/** What a tick stands for: the thing, and how much of it was lacking. */
export const tickOf = (line: Pick<ShoppingLine, 'name' | 'missing'>): string =>
  `${line.name} ${line.missing}`;

const KEY = 'cocotte.shopping';

/** What is ticked on a kitchen's list. */
export function readTicks(kitchenId: string): string[] {
  try {
    const kept = JSON.parse(localStorage.getItem(KEY) ?? 'null') as KeptTicks | null;
    return kept?.kitchenId === kitchenId ? kept.ticked : [];
  } catch {
    return [];
  }
}

/** Keeps what is ticked. */
export function keepTicks(kitchenId: string, ticked: string[]): void {
  try {
    localStorage.setItem(KEY, JSON.stringify({ kitchenId, ticked } satisfies KeptTicks));
  } catch {
    // A full or closed store only costs the ticks.
  }
}
