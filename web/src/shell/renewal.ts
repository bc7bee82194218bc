import { useSyncExternalStore } from 'react';

/**
 * The application as the browser keeps it (a service worker): it opens without the kitchen, and a newer build waits until
 * somebody loads it. Nothing that runs is ever loaded anew by itself.
 */
let waiting: ServiceWorker | null = null;
const listeners = new Set<() => void>();

function newer(worker: ServiceWorker): void {
  waiting = worker;
  for (const listener of listeners) listener();
}

/** How often it is looked whether there is a newer build, besides at each opening. */
const LOOK_MS = 30 * 60_000;

/** Begins to keep the application. Without TLS a browser gives a page off this machine no service worker: nothing is kept. */
export async function keepApplication(): Promise<void> {
  // Builds before this one kept pages here, and papers opened from them.
  void globalThis.caches?.delete('pages');
  try {
    const registration = await navigator.serviceWorker.register('/sw.js');
    if (registration.waiting && navigator.serviceWorker.controller) newer(registration.waiting);
    registration.addEventListener('updatefound', () => {
      const made = registration.installing;
      made?.addEventListener('statechange', () => {
        if (made.state === 'installed' && navigator.serviceWorker.controller) newer(made);
      });
    });
    setInterval(() => registration.update().catch(() => undefined), LOOK_MS);
  } catch {
    // The page works all the same, as long as the kitchen answers.
  }
}

/** Whether a newer build waits to be loaded. */
export const useNewerBuild = (): boolean =>
  useSyncExternalStore(
    listener => {
      listeners.add(listener);
      return () => void listeners.delete(listener);
    },
    () => waiting !== null,
  );

/** Loads the page again, in the newest build that is here. */
export function loadAgain(): void {
  if (!waiting) {
    window.location.reload();
    return;
  }
  navigator.serviceWorker.addEventListener('controllerchange', () => window.location.reload(), {
    once: true,
  });
  waiting.postMessage({ type: 'SKIP_WAITING' });
}
