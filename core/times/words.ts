import { jarSize, type JarSizeId } from '../jars/index.ts';
import { depthText, type Habits, numberText } from '../measure/index.ts';

/**
 * What a process says in the words of a step: its minutes, of each jar where they differ, and its headspace; empty texts
 * where there is none.
 *
 * @example
 * const here = { locale: 'en-US', measures: 'US' };
 * processWords([{ jarSize: 'pint', minutes: 15, headspace_mm: 6.35 }], here).headspace; // '1/4 in'
 */
export function processWords(
  times: readonly { jarSize: JarSizeId; minutes: number; headspace_mm: number }[],
  kitchen: Pick<Habits, 'locale' | 'measures'>,
): { minutes: string; headspace: string } {
  const [first] = times;
  if (!first) return { minutes: '', headspace: '' };
  const figure = (minutes: number) => `${numberText(minutes, kitchen)} minutes`;
  const same = times.every(t => t.minutes === first.minutes);
  return {
    minutes: same
      ? figure(first.minutes)
      : times.map(t => `${figure(t.minutes)} for ${jarSize(t.jarSize).plural}`).join(', '),
    headspace: depthText(first.headspace_mm, kitchen),
  };
}
