import type { ShoppingLine } from '@cocotte/core/stores';

/** The list as it was last seen on this device, and what was ticked: it works in a shop without a connection. */
export interface KeptList {
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

const keyOf = (kitchenId: string) => `cocotte.shopping.${kitchenId}`;

export function readList(kitchenId: string): KeptList | null {
  try {
    return JSON.parse(localStorage.getItem(keyOf(kitchenId)) ?? 'null') as KeptList | null;
  } catch {
    return null;
  }
}

export function keepList(kitchenId: string, kept: KeptList): void {
  try {
    localStorage.setItem(keyOf(kitchenId), JSON.stringify(kept));
  } catch {
    // A full or closed store only costs the list without a connection.
  }
}
