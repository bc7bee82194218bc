import {
  type Figures,
  type Habits,
  MM_PER_INCH,
  durationText,
  numberText,
  temperatureText,
} from '../measure/index.ts';
import type { Step } from './recipe.ts';

/** A wait as one says it: "4 to 18 h", "3 to 4 weeks". */
export function windowText(window: NonNullable<Step['window']>, kitchen: Figures): string {
  const week = 7 * 24 * 60;
  const [unit, word] =
    window.to_min >= 2 * week ? [week, 'weeks'] : window.to_min >= 4 * 1440 ? [1440, 'days'] : [60, 'h'];
  const figure = (minutes: number) => numberText(Math.round((minutes / unit) * 10) / 10, kitchen);
  return window.from_min === window.to_min
    ? `${figure(window.from_min)} ${word}`
    : `${figure(window.from_min)} to ${figure(window.to_min)} ${word}`;
}

const PLAIN_SHARES: readonly [share: number, words: string][] = [
  [1 / 4, 'a quarter'],
  [1 / 3, 'a third'],
  [1 / 2, 'a half'],
  [2 / 3, 'two thirds'],
  [3 / 4, 'three quarters'],
];

/** A share that boils away, as it is said: "a third", else per cent. */
export function reducedText(by: number, { locale }: Pick<Habits, 'locale'>): string {
  const plain = PLAIN_SHARES.find(([share]) => Math.abs(share - by) < 0.005);
  return plain ? plain[1] : `${numberText(by * 100, { locale }, 0)} %`;
}

/** What a step is cooked to, in words. */
export function targetWords(
  target: Step['target'],
  kitchen: Pick<Habits, 'locale' | 'temperature' | 'measures'>,
): string {
  switch (target.kind) {
    case 'none':
      return '';
    case 'gel point':
      return 'to the gel point';
    case 'temperature':
      return `to ${temperatureText(target.temp_C, kitchen)}${target.hold_min > 0 ? `, held ${durationText(target.hold_min * 60)}` : ''}`;
    case 'time':
      return durationText(target.minutes * 60);
    case 'volume':
      return `down to ${numberText(target.volume_mL / 1000, kitchen, 2)} L`;
    case 'depth':
      return kitchen.measures === 'US'
        ? `down to ${numberText(target.depth_mm / MM_PER_INCH, kitchen, 1)} in in the pot`
        : `down to ${numberText(target.depth_mm, kitchen, 0)} mm in the pot`;
    case 'reduced':
      return `reduced by ${reducedText(target.by, kitchen)}`;
    case 'look':
      return `until ${target.text}`;
  }
}
