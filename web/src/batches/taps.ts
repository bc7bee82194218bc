import { useEffect, useState } from 'react';

/** As long a finger that has just pressed one button may still be coming down on the one in its place. */
const STILL_MS = 700;

/**
 * Buttons of a clock: one tap is one entry, and a tap meant for the button before does not fire the one that came
 * under the thumb.
 *
 * @param stage  what the buttons stand for just now; when it changes, they are still for a moment
 */
export function useTaps(stage: string) {
  const [settled, setSettled] = useState<string | null>(null);
  const [tapped, setTapped] = useState<string | null>(null);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(stage), STILL_MS);
    return () => clearTimeout(timer);
  }, [stage]);
  const still = settled !== stage || tapped === stage;
  return {
    /** For each button: it looks as ever, and takes no tap while it is still. */
    button: { 'aria-disabled': still },
    /** Does the work once for this stage; where it was not entered after all, the button waits for another tap. */
    once: (work: () => Promise<unknown>): void => {
      if (still) return;
      setTapped(stage);
      void work().then(entered => {
        if (!entered) setTapped(null);
      });
    },
    /** Does something that enters nothing yet. */
    unlessStill: (work: () => void): void => {
      if (!still) work();
    },
  };
}
