import { type Trace } from '../batches/index.ts';
import { type Figures, temperatureText } from '../measure/index.ts';

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
  /** A fact speaks against it, rather than that nothing shows it yet: its jars are no sealed jars. */
  against: boolean;
  /** The entries that show it, when met: who, when, and how each is known. */
  proof: Trace[];
}

/** Thermometers show tenths: a temperature counts as reached when it rounds to it. */
export const HALF_A_TENTH_C = 0.05;
/** How far acid may fall below its share before the authority no longer covers the batch: what a kitchen scale can err. */
export const ACID_TOLERANCE = 0.02;

/** A condition; what to do next is left out where it is met, and what would show it where it is not. */
export function condition(
  of: Omit<Condition, 'against' | 'proof'> & Partial<Pick<Condition, 'against' | 'proof'>>,
): Condition {
  const { proof = [], against = false } = of;
  return of.met ? { ...of, next: '', against: false, proof } : { ...of, against, proof: [] };
}

/**
 * What stands out in the evidence of a condition: that some of it was written up, sent later by a clock nobody
 * compared, or corrected. Named in the signature of a release.
 *
 * @returns '' where all of it was entered at the time or sent later by a clock that went evenly
 */
export function standsOut({ title, proof }: Pick<Condition, 'title' | 'proof'>): string {
  const words = [
    proof.some(t => t.known === 'written up') && 'written up',
    proof.some(t => t.corrected) && 'corrected',
  ].filter(Boolean);
  return words.length === 0 ? '' : `${title}: ${words.join(' and ')}`;
}

/** A temperature in both scales, "215.7 °F (102.1 °C)", for words that are stored and read by people of either. */
export function tempBoth(temp_C: number, { locale }: Figures): string {
  return `${temperatureText(temp_C, { locale, temperature: 'F' })} (${temperatureText(temp_C, { locale, temperature: 'C' })})`;
}

/** The text with its first letter large. */
export function sentence(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}
