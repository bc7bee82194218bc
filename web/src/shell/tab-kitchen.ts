/**
 * The kitchen this tab works in. It is the tab's own: going to another kitchen in one tab moves no other, and every
 * call names the kitchen it is meant for.
 */
const KEY = 'cocotte.kitchen';
let here: string | null = null;

/** The kitchen this tab was in, if it was in one; it outlives a reload. */
export function tabKitchen(): string | null {
  return (here ??= sessionStorage.getItem(KEY));
}

/** Settles which kitchen this tab is in; null when it is in none. */
export function enterTabKitchen(kitchenId: string | null): void {
  here = kitchenId;
  if (kitchenId === null) sessionStorage.removeItem(KEY);
  else sessionStorage.setItem(KEY, kitchenId);
}
