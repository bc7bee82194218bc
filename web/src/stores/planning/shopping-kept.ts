import type { Habits } from '@cocotte/core/measure';
import type { ShoppingLine } from '@cocotte/core/stores';

/** The list as it was last seen on this device, and what was ticked: it works in a shop without a connection. */
export interface KeptList {
  kitchenId: string;
  kitchenName: string;
  habits: Habits;
  lines: ShoppingLine[];
  /** Day of the list. */
  day: string;
  /** When it was fetched, milliseconds. */
  at_ms: number;
  /** Lines that were ticked, by {@link tickOf}: a line that comes to ask for more is open again. */
  ticked: string[];
}

/** What a tick stands for: the thing, and how much of it was lacking. */
export const tickOf = (line: Pick<ShoppingLine, 'name' | 'missing'>): string =>
  `${line.name} ${line.missing}`;

const KEY = 'cocotte.shopping';

/** The list kept on this device, of one kitchen or of the last one that was looked at. */
export function readList(kitchenId: string | null): KeptList | null {
  try {
    const kept = JSON.parse(localStorage.getItem(KEY) ?? 'null') as KeptList | null;
    return kept && (kitchenId === null || kept.kitchenId === kitchenId) ? kept : null;
  } catch {
    return null;
  }
}

export function keepList(kept: KeptList): void {
  try {
    localStorage.setItem(KEY, JSON.stringify(kept));
  } catch {
    // A full or closed store only costs the list without a connection.
  }
}
