import { useEffect, useSyncExternalStore } from 'react';

/** The chime. A browser lets a page sound only after a tap: until then the rail says so. */
let audio: AudioContext | null = null;
let unlocked = false;
const listeners = new Set<() => void>();
const tell = () => {
  for (const listener of listeners) listener();
};
const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => void listeners.delete(listener);
};

function unlock(): void {
  audio ??= new AudioContext();
  void audio.resume().then(() => {
    unlocked = audio?.state === 'running';
    tell();
  });
}

/** Whether the page cannot call yet; the first tap unlocks it. */
export function useBell(): boolean {
  useEffect(() => {
    const once = () => unlock();
    // The click and not the press: what the rail takes away must not move what is being clicked.
    window.addEventListener('click', once, { once: true, capture: true });
    window.addEventListener('keydown', once, { once: true });
    return () => {
      window.removeEventListener('click', once, { capture: true });
      window.removeEventListener('keydown', once);
    };
  }, []);
  return useSyncExternalStore(subscribe, () => !unlocked);
}

/** Three soft strokes of a bell: their pitches, Hz, and when each begins, s. */
const STROKES = [660, 880, 660].map((pitch, i) => ({ pitch, after_s: i * 0.45 }));
/** What is further off than this is not handed to the sound yet. */
const AHEAD_S = 3 * 3600;

/**
 * Hands the chime to the browser's sound ahead of its time: it rings there on time also while the page's own clock is
 * slowed down, in a tab behind another.
 *
 * @param in_s  seconds from now
 * @returns takes it back
 */
export function chimeIn(in_s: number): () => void {
  if (!audio || !unlocked || in_s < 0 || in_s > AHEAD_S) return () => undefined;
  const context = audio;
  const begin = context.currentTime + in_s;
  const tones = STROKES.map(({ pitch, after_s }) => {
    const at = begin + after_s;
    const tone = context.createOscillator();
    const level = context.createGain();
    tone.frequency.value = pitch;
    level.gain.setValueAtTime(0.0001, at);
    level.gain.exponentialRampToValueAtTime(0.35, at + 0.02);
    level.gain.exponentialRampToValueAtTime(0.0001, at + 0.9);
    tone.connect(level).connect(context.destination);
    tone.start(at);
    tone.stop(at + 1);
    return tone;
  });
  return () => {
    for (const tone of tones) tone.disconnect();
  };
}

/** Says the words aloud where the device can, and shows them where the page is not in front and may. */
export function callOut(words: string): void {
  if ('speechSynthesis' in window && unlocked)
    window.speechSynthesis.speak(new SpeechSynthesisUtterance(words));
  if (document.visibilityState === 'visible' || noticesAre() !== 'granted') return;
  const show = async () => {
    const registration = await navigator.serviceWorker?.getRegistration();
    // A phone shows notices only through the service worker.
    if (registration) await registration.showNotification(words, { tag: words });
    else new Notification(words, { tag: words });
  };
  show().catch(() => undefined);
}

const noticesAre = () => ('Notification' in window ? Notification.permission : 'denied');

/** Whether the browser has not been asked yet to let the page call when it is not in front; and asks it. */
export function useNotices(): { toAsk: boolean; ask: () => void } {
  const permission = useSyncExternalStore(subscribe, noticesAre);
  return {
    toAsk: permission === 'default',
    ask: () => void Notification.requestPermission().then(tell, tell),
  };
}
