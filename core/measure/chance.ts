/** What counts say, and what they leave open. */

/** A share with the interval it may lie in. */
export interface Share {
  share: number;
  low: number;
  high: number;
}

/** Standard normal quantile of a two-sided interval of 95 %. */
const Z_95 = 1.959963984540054;

/**
 * The share that counts show, with its 95 % interval.
 *
 * @source Wilson, Probable inference, the law of succession, and statistical inference, J. Am. Stat. Assoc. 22 (1927), from memory
 * @throws RangeError where more are counted than there are, or none
 * @example
 * wilson(0, 10).high.toFixed(4); // '0.2775'
 */
export function wilson(hits: number, of: number): Share {
  if (!(of > 0) || hits < 0 || hits > of) throw new RangeError('wilson: 0 to all of some');
  const share = hits / of;
  const z2 = Z_95 ** 2;
  const middle = (share + z2 / (2 * of)) / (1 + z2 / of);
  const half = (Z_95 / (1 + z2 / of)) * Math.sqrt((share * (1 - share)) / of + z2 / (4 * of * of));
  return { share, low: Math.max(0, middle - half), high: Math.min(1, middle + half) };
}

/** Logarithms of factorials, as far as they were needed. */
const logFactorials: number[] = [0];
function logFactorial(n: number): number {
  for (let i = logFactorials.length; i <= n; i++)
    logFactorials.push((logFactorials[i - 1] as number) + Math.log(i));
  return logFactorials[n] as number;
}
const logChoose = (n: number, k: number) => logFactorial(n) - logFactorial(k) - logFactorial(n - k);

/**
 * How likely so many failures or more are in one group, where it is no worse than the others: Fisher's exact test, one-sided.
 *
 * @param failed  in the group of `tried`
 * @param othersFailed  in the others, of `othersTried`
 * @source Fisher, The Design of Experiments (1935), from memory
 * @throws RangeError where more failed than were tried
 * @example
 * chanceOfMore(3, 4, 1, 4).toFixed(4); // '0.2429'
 */
export function chanceOfMore(
  failed: number,
  tried: number,
  othersFailed: number,
  othersTried: number,
): number {
  if (failed < 0 || othersFailed < 0 || failed > tried || othersFailed > othersTried)
    throw new RangeError('chanceOfMore: more failed than were tried');
  const all = tried + othersTried;
  const bad = failed + othersFailed;
  const whole = logChoose(all, tried);
  let chance = 0;
  for (let k = failed; k <= Math.min(tried, bad); k++)
    if (tried - k <= all - bad)
      chance += Math.exp(logChoose(bad, k) + logChoose(all - bad, tried - k) - whole);
  return Math.min(1, chance);
}
