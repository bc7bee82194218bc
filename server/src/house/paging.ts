/** Keyset paging: the key of the last row seen, opaque to the caller. */
export function toKey(parts: string[]): string {
  return Buffer.from(JSON.stringify(parts)).toString('base64url');
}

/** The parts of a key, or null for the first page and for a key that is not ours. */
export function fromKey(key: string, parts: number): string[] | null {
  if (key === '') return null;
  try {
    const value: unknown = JSON.parse(Buffer.from(key, 'base64url').toString());
    if (Array.isArray(value) && value.length === parts && value.every(v => typeof v === 'string'))
      return value;
  } catch {
    return null;
  }
  return null;
}

/** Words to find anywhere in a text, for ILIKE, with its own signs taken literally. */
export function likeWords(words: string): string {
  return `%${words.trim().replaceAll(/[\\%_]/g, '\\$&')}%`;
}
