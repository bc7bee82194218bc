/** Keys of a code scanner come this close to each other; no hand is so quick. */
const BURST_MS = 60;
/** A code has at least so many characters. */
const LEAST = 6;

/**
 * Tells a key that somebody pressed from those of a code scanner, which types a whole code at once, mostly with Enter at its
 * end: a key acts once no other followed it closely.
 *
 * @param onKey  a single key
 * @param onCode  a code, as the scanner typed it
 */
export function burst(onKey: (key: string) => void, onCode: (code: string) => void) {
  let typed = '';
  let timer: ReturnType<typeof setTimeout> | undefined;
  const end = () => {
    clearTimeout(timer);
    const text = typed;
    typed = '';
    if (text.length >= LEAST) onCode(text);
    else if (text.length === 1) onKey(text);
  };
  return {
    /** @returns whether the key was taken */
    take(key: string): boolean {
      if (key === 'Enter') {
        if (typed.length < LEAST) return false;
        end();
        return true;
      }
      if (!/^[\dA-Za-z*-]$/.test(key)) return false;
      clearTimeout(timer);
      typed += key;
      timer = setTimeout(end, BURST_MS);
      return true;
    },
    stop: () => clearTimeout(timer),
  };
}
