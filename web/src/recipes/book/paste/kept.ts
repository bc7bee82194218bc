import { type Choices, NOTHING_CHOSEN } from './settle.ts';

/** A pasted text and what was settled of it, kept in this browser: a reload loses nothing. */
export interface KeptText {
  text: string;
  choices: Choices;
}

const keyOf = (kitchenId: string) => `cocotte.paste.${kitchenId}`;
export const NO_TEXT: KeptText = { text: '', choices: NOTHING_CHOSEN };

export function readKeptText(kitchenId: string): KeptText {
  try {
    const kept = JSON.parse(localStorage.getItem(keyOf(kitchenId)) ?? 'null') as KeptText | null;
    return kept && typeof kept.text === 'string' ? kept : NO_TEXT;
  } catch {
    return NO_TEXT;
  }
}

export function keepText(kitchenId: string, kept: KeptText): void {
  try {
    if (kept.text === '') localStorage.removeItem(keyOf(kitchenId));
    else localStorage.setItem(keyOf(kitchenId), JSON.stringify(kept));
  } catch {
    // A full or closed store only costs the safety net, never the work on screen.
  }
}
