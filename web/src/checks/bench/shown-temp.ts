import type { Kitchen } from '@cocotte/core/kitchen';
import { fahrenheit, fieldText } from '@cocotte/core/measure';

/** A temperature as it stands in a field, in the kitchen's degrees. */
export const shownTemp = (
  { temperature, locale }: Pick<Kitchen, 'temperature' | 'locale'>,
  temp_C: number,
): string => fieldText(temperature === 'F' ? fahrenheit(temp_C) : temp_C, locale, 0);
