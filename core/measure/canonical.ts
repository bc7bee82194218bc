import canonicalize from 'canonicalize';

/**
 * Canonical JSON (RFC 8785): the same value always gives the same text, whatever the order of its keys.
 *
 * @throws TypeError when the value has no JSON form (undefined, a function, NaN)
 */
export function canonicalJson(value: unknown): string {
  const text = canonicalize(value);
  if (text === undefined) throw new TypeError('canonicalJson: the value has no JSON form');
  return text;
}
