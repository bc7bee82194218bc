/** Words for a flat lid held by a band. */
const FLAT = /\b(?:two|2)[- ]?(?:piece|part)\b|\bflat (?:metal )?lids?\b/i;
/** Words for closures that are none, whatever else stands beside them. */
const OTHER =
  /\b(?:one|1)[- ]?(?:piece|part)\b|\blugs?\b|\bwire\b|\bbails?\b|\bclamps?\b|\breusable\b|\bplastisol\b|\bcorks?\b/i;

/**
 * Whether a closure, as somebody or a letter calls it, is a flat lid with a band: what times were tested with, and what a
 * thumb proves. Nothing said is one.
 *
 * @example isFlatLid('two-piece lids, new') // true
 */
export const isFlatLid = (closure: string): boolean =>
  closure.trim() === '' || (FLAT.test(closure) && !OTHER.test(closure));
