import { useEffect, useSyncExternalStore } from 'react';

/** The chime. A browser lets a page sound only after a tap: until then the rail says so. */
let audio: AudioContext | null = null;
let unlocked = false;
const listeners = new Set<() => void>();

function unlock(): void {
  audio ??= new AudioContext();
  void audio.resume().then(() => {
    unlocked = audio?.state === 'running';
    for (const listener of listeners) listener();
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
  return useSyncExternalStore(
    listener => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => !unlocked,
  );
}

/** Three soft strokes of a bell and the words, spoken where the device can. */
export function ring(words: string): void {
  if (audio && unlocked) {
    for (const [i, pitch] of [660, 880, 660].entries()) {
      const at = audio.currentTime + i * 0.45;
      const tone = audio.createOscillator();
      const level = audio.createGain();
      tone.frequency.value = pitch;
      level.gain.setValueAtTime(0.0001, at);
      level.gain.exponentialRampToValueAtTime(0.35, at + 0.02);
      level.gain.exponentialRampToValueAtTime(0.0001, at + 0.9);
      tone.connect(level).connect(audio.destination);
      tone.start(at);
      tone.stop(at + 1);
    }
  }
  if ('speechSynthesis' in window && unlocked)
    window.speechSynthesis.speak(new SpeechSynthesisUtterance(words));
}
