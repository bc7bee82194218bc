/** Nesting deeper than any call of ours goes. */
const DEEPEST = 64;
/** Names in one object, and lists and objects in all, beyond which a body is none of ours; reading them takes long. */
const MOST_NAMES = 3000;
const MOST_PARTS = 20_000;

const QUOTE = 0x22;
const BACKSLASH = 0x5c;
const COLON = 0x3a;
const OPEN_LIST = 0x5b;
const OPEN_OBJECT = 0x7b;
const CLOSE_LIST = 0x5d;
const CLOSE_OBJECT = 0x7d;

/**
 * Whether a JSON text is built like a body of ours: looked at byte by byte, before it is parsed. A megabyte of brackets
 * or of names takes a parser tenths of a second; this takes a few milliseconds, whatever is in it.
 *
 * @returns false for what is nested deeper, or has more names or parts, than any call needs
 */
export function isBounded(bytes: Uint8Array): boolean {
  const names = new Int32Array(DEEPEST + 1);
  let depth = 0;
  let parts = 0;
  let quoted = false;
  for (let i = 0; i < bytes.length; i++) {
    const byte = bytes[i];
    if (quoted) {
      if (byte === BACKSLASH) i++;
      else if (byte === QUOTE) quoted = false;
    } else if (byte === QUOTE) quoted = true;
    else if (byte === OPEN_LIST || byte === OPEN_OBJECT) {
      depth++;
      parts++;
      if (depth > DEEPEST || parts > MOST_PARTS) return false;
      names[depth] = 0;
    } else if (byte === CLOSE_LIST || byte === CLOSE_OBJECT) depth = Math.max(0, depth - 1);
    else if (byte === COLON) {
      const more = (names[depth] as number) + 1;
      if (more > MOST_NAMES) return false;
      names[depth] = more;
    }
  }
  return true;
}
