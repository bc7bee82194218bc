/**
 * What the acidity of produce hangs on, in 100 g of its edible part: organic acids and minerals, in grams and milligrams, and
 * protein. None of these figures was chosen by a food's pH.
 *
 * @source Acids: Souci, Fachmann, Kraut, Food Composition and Nutrition Tables; minerals and protein: USDA FoodData Central. All
 *   of them from memory, rounded; they are typical, and a variety or a season may have half of an acid or twice as much
 */
export interface Composition {
  /** Grams. */
  malic_g: number;
  citric_g: number;
  tartaric_g: number;
  quinic_g: number;
  /** What is dissolved of it. */
  oxalic_g: number;
  ascorbic_g: number;
  protein_g: number;
  /** Milligrams. */
  k_mg: number;
  ca_mg: number;
  mg_mg: number;
  p_mg: number;
}

type Row = readonly [
  id: string,
  malic_g: number,
  citric_g: number,
  tartaric_g: number,
  quinic_g: number,
  oxalic_g: number,
  ascorbic_g: number,
  protein_g: number,
  k_mg: number,
  ca_mg: number,
  mg_mg: number,
  p_mg: number,
];

// prettier-ignore
const ROWS: readonly Row[] = [
  // id               malic citric tart quinic oxal  vitC  prot   K   Ca  Mg   P
  ['apple',           0.55, 0.02, 0,    0.05, 0,     0.005, 0.3, 107,  6,  5, 11],
  ['pear',            0.17, 0.14, 0,    0.03, 0,     0.004, 0.4, 116,  9,  7, 12],
  ['quince',          0.80, 0.02, 0,    0.05, 0,     0.015, 0.4, 197, 11,  8, 17],
  ['plum',            1.22, 0.03, 0,    0.20, 0.01,  0.010, 0.7, 157,  6,  7, 16],
  ['peach',           0.33, 0.24, 0,    0.10, 0,     0.007, 0.9, 190,  6,  9, 20],
  ['nectarine',       0.50, 0.25, 0,    0.10, 0,     0.005, 1.1, 201,  6,  9, 26],
  ['apricot',         1.00, 0.40, 0,    0.15, 0.01,  0.010, 1.4, 259, 13, 10, 23],
  ['sweet-cherry',    0.94, 0.01, 0,    0.05, 0.01,  0.007, 1.1, 222, 13, 11, 21],
  ['sour-cherry',     1.80, 0.01, 0,    0.05, 0,     0.010, 1.0, 173, 16,  9, 15],
  ['strawberry',      0.12, 0.87, 0,    0.02, 0.015, 0.059, 0.7, 153, 16, 13, 24],
  ['raspberry',       0.40, 1.72, 0,    0.02, 0.015, 0.026, 1.2, 151, 25, 22, 29],
  ['blackberry',      0.90, 0.30, 0,    0.02, 0.012, 0.021, 1.4, 162, 29, 20, 22],
  ['blueberry',       0.10, 0.52, 0,    0.10, 0.015, 0.010, 0.7,  77,  6,  6, 12],
  ['currant-red',     0.41, 2.07, 0,    0,    0.01,  0.041, 1.4, 275, 33, 13, 44],
  ['currant-black',   0.41, 2.88, 0,    0,    0,     0.181, 1.4, 322, 55, 24, 59],
  ['gooseberry',      1.39, 0.72, 0,    0.30, 0.02,  0.028, 0.9, 198, 25, 10, 27],
  ['cranberry',       0.50, 1.10, 0,    1.00, 0,     0.014, 0.5,  80,  8,  6, 11],
  ['elderberry',      0.10, 0.50, 0,    0.02, 0,     0.036, 0.7, 280, 38,  5, 39],
  ['grape',           0.45, 0.02, 0.45, 0.02, 0.008, 0.003, 0.7, 191, 10,  7, 20],
  ['orange',          0.10, 1.00, 0,    0.01, 0,     0.053, 0.9, 181, 40, 10, 14],
  ['grapefruit',      0.06, 1.45, 0,    0.01, 0,     0.034, 0.7, 137, 17,  8, 10],
  ['lemon',           0.20, 4.70, 0,    0.02, 0,     0.045, 0.5, 110, 10,  7,  9],
  ['lime',            0.20, 4.60, 0,    0.02, 0,     0.030, 0.5, 115, 14,  8, 14],
  ['pineapple',       0.10, 0.63, 0,    0,    0,     0.048, 0.5, 109, 13, 12,  8],
  ['mango',           0.10, 0.30, 0,    0,    0.01,  0.036, 0.8, 168, 11, 10, 14],
  ['papaya',          0.03, 0.06, 0,    0,    0,     0.061, 0.5, 182, 20, 21, 10],
  ['banana',          0.36, 0.20, 0,    0,    0.01,  0.009, 1.1, 358,  5, 27, 22],
  ['melon',           0.02, 0.05, 0,    0,    0,     0.037, 0.8, 267,  9, 12, 15],
  ['watermelon',      0.10, 0.01, 0,    0,    0,     0.008, 0.6, 112,  7, 10, 11],
  ['fig',             0.18, 0.34, 0,    0,    0.01,  0.002, 0.8, 232, 35, 17, 14],
  ['guava',           0.20, 0.50, 0,    0,    0.014, 0.228, 2.6, 417, 18, 22, 40],
  ['pomegranate',     0.10, 0.90, 0,    0,    0.005, 0.010, 1.7, 236, 10, 12, 36],
  ['persimmon',       0.20, 0.02, 0,    0,    0,     0.008, 0.6, 161,  8,  9, 17],
  ['rhubarb',         1.77, 0.14, 0,    0,    0.25,  0.008, 0.9, 288, 86, 12, 14],
  ['kiwifruit',       0.50, 1.00, 0,    0.80, 0.01,  0.093, 1.1, 312, 34, 17, 34],
  ['tomato',          0.05, 0.38, 0,    0,    0.005, 0.014, 0.9, 237, 10, 11, 24],
  ['tomatillo',       0.15, 0.90, 0,    0,    0.01,  0.012, 1.0, 268,  7, 20, 39],
  ['cucumber',        0.24, 0.02, 0,    0,    0,     0.003, 0.7, 147, 16, 13, 24],
  ['zucchini',        0.30, 0.02, 0,    0,    0,     0.018, 1.2, 261, 16, 18, 38],
  ['snap-bean',       0.18, 0.03, 0,    0,    0.02,  0.012, 1.8, 211, 37, 25, 38],
  ['bell-pepper',     0.06, 0.23, 0,    0,    0.01,  0.110, 0.9, 190,  9, 11, 22],
  ['hot-pepper',      0.05, 0.25, 0,    0,    0.01,  0.144, 1.9, 330, 14, 23, 43],
  ['onion',           0.17, 0.02, 0,    0,    0.005, 0.007, 1.1, 146, 23, 10, 29],
  ['garlic',          0.05, 0.05, 0,    0,    0.01,  0.031, 6.4, 401, 181, 25, 153],
  ['carrot',          0.25, 0.05, 0,    0,    0.006, 0.006, 0.9, 320, 33, 12, 35],
  ['beet',            0.04, 0.15, 0,    0,    0.07,  0.005, 1.6, 325, 16, 23, 40],
  ['cauliflower',     0.20, 0.20, 0,    0,    0,     0.048, 1.9, 299, 22, 15, 44],
  ['cabbage',         0.16, 0.12, 0,    0,    0,     0.037, 1.3, 170, 40, 12, 26],
  ['celery',          0.17, 0.03, 0,    0,    0.01,  0.003, 0.7, 260, 40, 11, 24],
  ['asparagus',       0.10, 0.10, 0,    0,    0.005, 0.006, 2.2, 202, 24, 14, 52],
  ['okra',            0.10, 0.02, 0,    0,    0.03,  0.023, 1.9, 299, 82, 57, 61],
  ['corn',            0.03, 0.02, 0,    0,    0.005, 0.007, 3.3, 270,  2, 37, 89],
  ['pea',             0.08, 0.11, 0,    0,    0.001, 0.040, 5.4, 244, 25, 33, 108],
  ['eggplant',        0.17, 0.01, 0,    0,    0.01,  0.002, 1.0, 229,  9, 14, 24],
  ['pumpkin',         0.15, 0.01, 0,    0,    0,     0.009, 1.0, 340, 21, 12, 44],
  ['mushroom',        0.14, 0.02, 0,    0,    0,     0.002, 3.1, 318,  3,  9, 86],
  ['radish',          0.10, 0.01, 0,    0,    0,     0.015, 0.7, 233, 25, 10, 20],
  ['turnip',          0.20, 0.05, 0,    0,    0,     0.021, 0.9, 191, 30, 11, 27],
  ['sweet-potato',    0.15, 0.05, 0,    0,    0.02,  0.002, 1.6, 337, 30, 25, 47],
  ['potato',          0.09, 0.52, 0,    0,    0.01,  0.020, 2.0, 421, 12, 23, 57],
  ['broccoli',        0.12, 0.21, 0,    0,    0,     0.089, 2.8, 316, 47, 21, 66],
  ['brussels-sprout', 0.20, 0.24, 0,    0,    0,     0.085, 3.4, 389, 42, 23, 69],
  ['spinach',         0.04, 0.02, 0,    0,    0.40,  0.028, 2.9, 558, 99, 79, 49],
  ['lettuce',         0.07, 0.02, 0,    0,    0.01,  0.009, 1.4, 194, 36, 13, 29],
  ['parsnip',         0.35, 0.13, 0,    0,    0.01,  0.017, 1.2, 375, 36, 29, 71],
  ['ginger',          0.05, 0.02, 0,    0,    0.05,  0.005, 1.8, 415, 16, 43, 34],
  ['dill',            0.10, 0.10, 0,    0,    0.05,  0.085, 3.5, 738, 208, 55, 66],
];

/** Composition of produce, by the id of its ingredient; foods that are no ingredient of the library stand beside for what they prove. */
export const COMPOSITIONS: ReadonlyMap<string, Composition> = new Map(
  ROWS.map(
    ([
      id,
      malic_g,
      citric_g,
      tartaric_g,
      quinic_g,
      oxalic_g,
      ascorbic_g,
      protein_g,
      k_mg,
      ca_mg,
      mg_mg,
      p_mg,
    ]) => [
      id,
      { malic_g, citric_g, tartaric_g, quinic_g, oxalic_g, ascorbic_g, protein_g, k_mg, ca_mg, mg_mg, p_mg },
    ],
  ),
);
