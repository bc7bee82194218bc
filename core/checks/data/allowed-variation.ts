/**
 * How much less than its label a single package may hold, by its labelled weight: maximum allowable variation.
 *
 * @source NIST Handbook 133, table 2-5, packages labelled by weight (from memory); the steps grow with the weight, in pounds
 */
const STEPS_LB: readonly (readonly [upTo_lb: number, variation_lb: number])[] = [
  [0.08, 0],
  [0.12, 0.008],
  [0.18, 0.012],
  [0.26, 0.016],
  [0.34, 0.02],
  [0.46, 0.024],
  [0.58, 0.028],
  [0.7, 0.032],
  [0.84, 0.036],
  [0.94, 0.04],
  [1.08, 0.044],
  [1.26, 0.048],
  [1.4, 0.052],
  [1.54, 0.056],
  [1.7, 0.06],
  [1.88, 0.064],
  [2.14, 0.07],
  [2.48, 0.078],
  [2.76, 0.086],
  [3.2, 0.094],
  [3.9, 0.11],
  [4.7, 0.13],
];
const GRAMS_PER_POUND = 453.592_37;

/** Largest weight the table is used for here: a half-gallon jar. */
export const MOST_LABELLED_G = 4.7 * GRAMS_PER_POUND;

/**
 * Grams that one package may lack of what its label says.
 *
 * @example
 * allowedVariation_g(283.5).toFixed(1); // '14.5'
 */
export function allowedVariation_g(labelled_g: number): number {
  const lb = labelled_g / GRAMS_PER_POUND;
  const [smallest] = STEPS_LB;
  // The smallest packages may lack a tenth.
  if (smallest && lb <= smallest[0]) return labelled_g / 10;
  const step = STEPS_LB.find(([upTo]) => lb <= upTo) ?? STEPS_LB.at(-1);
  return (step?.[1] ?? 0) * GRAMS_PER_POUND;
}
