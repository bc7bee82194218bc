import { problem } from './problems.ts';

/** Keyset paging: the key of the last row seen, opaque to the caller. */
export function toKey(parts: string[]): string {
  return Buffer.from(JSON.stringify(parts)).toString('base64url');
}

/** What each part of a key is. */
export type KeyPart = 'text' | 'day' | 'uuid' | 'instant';
const FITS: Record<KeyPart, (v: string) => boolean> = {
  text: v => v.length <= 500 && !/[\0\p{Surrogate}]/u.test(v),
  day: v => /^\d{4}-\d{2}-\d{2}$/.test(v) && !Number.isNaN(Date.parse(v)),
  uuid: v => /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/.test(v),
  instant: v => v.length < 40 && !Number.isNaN(Date.parse(v)),
};

/**
 * The parts of a key, or null for the first page.
 *
 * @throws HttpProblem 422 for a key that is not ours
 */
export function fromKey(key: string, parts: readonly KeyPart[]): string[] | null {
  if (key === '') return null;
  try {
    const value: unknown = JSON.parse(Buffer.from(key, 'base64url').toString());
    if (
      Array.isArray(value) &&
      value.length === parts.length &&
      parts.every((part, i) => typeof value[i] === 'string' && FITS[part](value[i]))
    )
      return value;
  } catch {
    // Said below.
  }
  throw badKey();
}

/**
 * The number a page of numbered things begins after; nought for the first page.
 *
 * @throws HttpProblem 422 for what is no whole number
 */
export function fromNumber(key: string): number {
  if (!/^\d*$/.test(key)) throw badKey();
  return Number(key);
}

const badKey = () =>
  problem(422, {
    code: 'bad-page-key',
    what: 'This is not the key of a page.',
    why: 'A list goes on after the last row that was seen.',
    next: 'Begin at the first page.',
    path: 'after',
  });

/** Words to find anywhere in a text, for ILIKE, with its own signs taken literally. */
export function likeWords(words: string): string {
  return `%${words.trim().replaceAll(/[\\%_]/g, '\\$&')}%`;
}
