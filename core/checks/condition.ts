/** One condition of release, with its evidence or what is missing. */
export interface Condition {
  code: string;
  title: string;
  met: boolean;
  /** What shows it, when met; what is missing, when not. */
  evidence: string;
  /** The rule. */
  why: string;
  /** What to do next, when not met. */
  next: string;
  /** Jars that fail it; null when it concerns the whole batch. */
  jars: number[] | null;
}

/** Least hours between lifting and a press that counts. Common practice: 12 to 24 h of cooling. */
export const PRESS_AFTER_HOURS = 12;
/** Thermometers show tenths: a temperature counts as reached when it rounds to it. */
export const HALF_A_TENTH_C = 0.05;
/** How far acid may fall below its share before the authority no longer covers the batch: what a kitchen scale can err. */
export const ACID_TOLERANCE = 0.02;

/** A condition; what to do next is left out where it is met. */
export function condition(of: Condition): Condition {
  return { ...of, next: of.met ? '' : of.next };
}

/** A temperature in both scales, "215.7 °F (102.1 °C)", for words that are stored and read by people of either. */
export function tempBoth(temp_C: number): string {
  return `${((temp_C * 9) / 5 + 32).toFixed(1)} °F (${temp_C.toFixed(1)} °C)`;
}

/** The text with its first letter large. */
export function sentence(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}
