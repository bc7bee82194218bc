import { boilingPoint_C } from './boiling.ts';

/**
 * Sugar solutions: how far they boil above water, and what they weigh.
 * Source: GNU units, definitions.units, read once: `sugar_conc_bpe` (Starzak and Peacock, by way of Saska 2002) and
 * `brix` (NIST Circular 440, table 114: apparent density at 20 °C). Fruit solids are reckoned as sucrose.
 */
const RISE_K: [brix: number, rise_K: number][] = [
  [0, 0],
  [5, 0.0788],
  [10, 0.169],
  [15, 0.2729],
  [20, 0.3936],
  [25, 0.5351],
  [30, 0.7027],
  [35, 0.9036],
  [40, 1.1475],
  [42, 1.2599],
  [44, 1.3825],
  [46, 1.5165],
  [48, 1.6634],
  [50, 1.8249],
  [52, 2.0031],
  [54, 2.2005],
  [56, 2.42],
  [58, 2.6651],
  [60, 2.94],
  [61, 3.0902],
  [62, 3.2499],
  [63, 3.4198],
  [64, 3.601],
  [65, 3.7944],
  [66, 4.0012],
  [67, 4.2227],
  [68, 4.4603],
  [69, 4.7156],
  [70, 4.9905],
  [71, 5.287],
  [72, 5.6075],
  [73, 5.9546],
  [74, 6.3316],
  [75, 6.7417],
  [76, 7.1892],
  [77, 7.6786],
  [78, 8.2155],
  [79, 8.8061],
  [80, 9.4578],
  [82, 10.9807],
  [84, 12.8744],
  [86, 15.2663],
  [88, 18.3391],
  [90, 22.3564],
];

const RELATIVE_DENSITY: [brix: number, density: number][] = [
  [0, 1],
  [5, 1.01968],
  [10, 1.04003],
  [15, 1.06111],
  [20, 1.08297],
  [25, 1.10564],
  [30, 1.12913],
  [35, 1.1535],
  [40, 1.17874],
  [45, 1.20491],
  [50, 1.23202],
  [55, 1.26007],
  [60, 1.28909],
  [62, 1.30093],
  [64, 1.31297],
  [65, 1.31905],
  [66, 1.32516],
  [67, 1.33129],
  [68, 1.33748],
  [70, 1.34997],
  [75, 1.38187],
  [80, 1.41471],
  [85, 1.44848],
  [90, 1.48317],
];
const WATER_20C_GPERML = 0.997_17;

/** Straight lines between the rows; x beyond the table is held at its ends. */
function between(table: [number, number][], x: number, from: 0 | 1, to: 0 | 1): number {
  const last = table.length - 1;
  if (x <= (table[0] as [number, number])[from]) return (table[0] as [number, number])[to];
  for (let i = 1; i <= last; i++) {
    const high = table[i] as [number, number];
    if (x > high[from]) continue;
    const low = table[i - 1] as [number, number];
    return low[to] + ((x - low[from]) / (high[from] - low[from])) * (high[to] - low[to]);
  }
  return (table[last] as [number, number])[to];
}

/** The curve's own factor for a lower boiling point of water: its tbw + C over 100 °C + C, with C = 226.28 °C. */
const atAltitude = (boiling_C: number) => (boiling_C + 226.28) / 326.28;

/**
 * How far above boiling water a sugar solution boils.
 *
 * @param brix  soluble solids, percent by mass, 0 to 90
 * @param altitude_m  -500 to 11,000 m
 * @returns rise in kelvin
 * @throws RangeError outside 0 to 90 °Brix
 */
export function boilingRise_C(brix: number, altitude_m = 0): number {
  if (!(brix >= 0 && brix <= 90)) throw new RangeError('boilingRise_C: °Brix must be from 0 to 90');
  return between(RISE_K, brix, 0, 1) * atAltitude(boilingPoint_C(altitude_m));
}

/**
 * Soluble solids at which a solution boils so far above water: the other way round.
 *
 * @param rise_C  kelvin above boiling water; below zero counts as none
 * @returns °Brix, 0 to 90
 */
export function brixAtRise(rise_C: number, altitude_m = 0): number {
  return between(RISE_K, rise_C / atAltitude(boilingPoint_C(altitude_m)), 1, 0);
}

/** Apparent density of a sugar solution at 20 °C, in g/mL. */
export function syrupDensity_gPerMl(brix: number): number {
  return between(RELATIVE_DENSITY, brix, 0, 1) * WATER_20C_GPERML;
}

/** What is dissolved in so much water, in grams. */
export interface Solutes {
  /** Sugar that was added: sucrose, of which acid and heat invert a part. */
  sugar_g: number;
  /** What fruit brings: mostly glucose and fructose. */
  soluble_g: number;
  salt_g: number;
  acid_g: number;
}

/**
 * Share of added sugar that is inverted when a jam is done: at least, usual, at most. Common food-chemistry figures, from
 * memory; acid and time make it more.
 */
export const INVERTED = { low: 0, mid: 0.06, high: 0.35 } as const;

/** Molar mass of sucrose over that of what is dissolved, by particles: what a gram of it raises the boiling point by. */
const SUCROSE_OVER = {
  // 342.30 g/mol; inverted, each gram is 1.0526 g of glucose and fructose at 180.16.
  inverted: 2,
  // Mixed sugars of fruit, half of them sucrose. From memory.
  fruit: 1.5,
  // 58.44 g/mol, two ions, not quite free of each other.
  salt: (342.3 / 58.44) * 2 * 0.92,
  // Between citric (192.12) and acetic (60.05).
  acid: 342.3 / 150,
};

/**
 * Grams of sucrose that raise the boiling point as much as these solutes do: counted by particles. Against the curve of
 * GNU units for pure sucrose, a jam is 2 to 4 °Brix lower at the same temperature; between nothing inverted and a third
 * the model moves by some ±2 °Brix at 215 to 222 °F.
 *
 * @param inverted  share of the added sugar that is inverted, 0 to 1
 */
export function asSucrose_g(of: Solutes, inverted: number = INVERTED.mid): number {
  return (
    of.sugar_g * (1 + (SUCROSE_OVER.inverted - 1) * inverted) +
    of.soluble_g * SUCROSE_OVER.fruit +
    of.salt_g * SUCROSE_OVER.salt +
    of.acid_g * SUCROSE_OVER.acid
  );
}

/**
 * Grams of water that solutes hold when they boil so far above water; Infinity where no rise is asked for.
 *
 * @param rise_C  kelvin above boiling water
 */
export function waterAtRise_g(of: Solutes, rise_C: number, altitude_m = 0, inverted?: number): number {
  const brix = brixAtRise(rise_C, altitude_m);
  return brix <= 0 ? Infinity : asSucrose_g(of, inverted) * (100 / brix - 1);
}
