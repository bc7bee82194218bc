/** Exact factors of declared net contents. Source: NIST Handbook 44, appendix C (from memory), checked against GNU units. */
export const GRAMS_PER_OUNCE = '28.349523125';
/** Exact, as decimal text. */
export const ML_PER_FLUID_OUNCE = '29.5735295625';
