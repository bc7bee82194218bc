/** Limits of acidity. */

/** An acidified food's finished equilibrium pH must be 4.6 or below. Source: 21 CFR 114.3 and 114.80 (from memory). */
export const PH_LIMIT = 4.6;
/** Where careful producers act, unless their kitchen says another. Common practice. */
export const PH_ACT = 4.2;
/**
 * What a pH that was read may be wrong by at least, whatever the meter shows.
 * Common practice of careful laboratories, from memory.
 */
export const PH_UNCERTAINTY = 0.05;
/** Dye and paper strips are relied on only at or below this. Source: 21 CFR 114.90 (from memory). */
export const PH_PAPER_LIMIT = 4.0;
/** Least hours between processing and a reading that counts as equilibrium. Common practice; whole pieces take longer. */
export const EQUILIBRIUM_HOURS = 24;
/** Hours after which a smooth product has cooled to be read. As jars cool: common practice. */
export const COOLED_HOURS = 12;
/** How far solids and brine, or two readings a day apart, may differ to agree: what both may err. Our choice. */
export const AGREE_PH = 0.1;
/** How far readings of one sample may differ. Our choice: more than both can err. */
export const REPLICATES_PH = 0.1;
/** Hours in which a jar that was opened is still the same sample. Our choice: of one sitting. */
export const OPENED_HOURS = 4;
/** Temperature of sample and buffers. Source: 21 CFR 114.90 (from memory). */
export const SAMPLE_TEMP_C = { min: 20, max: 30 } as const;
/** What a food's pH lies between; what a meter shows outside is no food. From memory: lime juice 1.8, egg white 9.5. */
export const FOOD_PH = { min: 1.5, max: 10 } as const;
