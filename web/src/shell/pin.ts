import type { Fault } from '@cocotte/core/measure';
import { askPinsBy } from './call.ts';

/** A PIN that is asked for: what the server said, and who waits for the answer. */
export interface PinAsked {
  fault: Fault;
  /** Null to leave it. */
  answer: (pin: string | null) => void;
}

let asked: PinAsked | null = null;
const listeners = new Set<() => void>();
function show(next: PinAsked | null): void {
  asked = next;
  for (const listener of listeners) listener();
}

// One at a time: a call that needs a PIN meanwhile is left, and its view says why.
askPinsBy(fault =>
  asked
    ? Promise.resolve(null)
    : new Promise(resolve => {
        show({
          fault,
          answer: pin => {
            show(null);
            resolve(pin);
          },
        });
      }),
);

export const pinAsked = {
  subscribe(listener: () => void): () => void {
    listeners.add(listener);
    return () => void listeners.delete(listener);
  },
  view: (): PinAsked | null => asked,
};
