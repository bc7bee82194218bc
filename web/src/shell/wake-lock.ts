import { useEffect, useState } from 'react';

/**
 * Keeps the screen on while something boils. A browser allows it on a protected page only.
 *
 * @returns false when it is wanted and cannot be had
 */
export function useWakeLock(wanted: boolean): boolean {
  const [held, setHeld] = useState(true);
  useEffect(() => {
    if (!wanted) return;
    let lock: WakeLockSentinel | null = null;
    let gone = false;
    const ask = async () => {
      if (document.visibilityState !== 'visible') return;
      try {
        if (!('wakeLock' in navigator)) throw new Error('no wake lock');
        lock = await navigator.wakeLock.request('screen');
        if (gone) await lock.release();
        setHeld(true);
      } catch {
        setHeld(false);
      }
    };
    const again = () => void ask();
    document.addEventListener('visibilitychange', again);
    void ask();
    return () => {
      gone = true;
      document.removeEventListener('visibilitychange', again);
      void lock?.release();
    };
  }, [wanted]);
  return held || !wanted;
}
