import type { JarSizeId } from './jars.ts';

/** Where a value was published, and whether it was recalled rather than read. */
export interface ProcessSource {
  title: string;
  edition: string;
  part: string;
  fromMemory: boolean;
}

/** Minutes by altitude band: each band runs from just above the one before up to and including `upTo_ft`; null has no top. */
export type MinutesByAltitude = { upTo_ft: number | null; minutes: number }[];

/** One published entry: a product packed one way, with its times. */
export interface ProcessEntry {
  id: string;
  product: string;
  family: 'fruit spread' | 'pickled vegetable' | 'tomato';
  pack: 'hot' | 'raw';
  headspace_mm: number;
  /** Acid the entry wants in each pint, in words; empty when it carries its own. */
  acidInEachPint: string;
  rows: { id: string; jarSize: JarSizeId; byAltitude: MinutesByAltitude }[];
  source: ProcessSource;
}

const guide = (part: string): ProcessSource => ({
  title: 'USDA Complete Guide to Home Canning',
  edition: '2015 revision',
  part,
  fromMemory: true,
});

/** The three bands most boiling-water entries of fruit and pickles have. */
const threeBands = (low: number, middle: number, high: number): MinutesByAltitude => [
  { upTo_ft: 1000, minutes: low },
  { upTo_ft: 6000, minutes: middle },
  { upTo_ft: null, minutes: high },
];
/** The four bands of tomato entries. */
const fourBands = (a: number, b: number, c: number, d: number): MinutesByAltitude => [
  { upTo_ft: 1000, minutes: a },
  { upTo_ft: 3000, minutes: b },
  { upTo_ft: 6000, minutes: c },
  { upTo_ft: null, minutes: d },
];

/** Published boiling-water entries. Every value carries its source and says that it comes from memory. */
export const PROCESS_ENTRIES: readonly ProcessEntry[] = [
  {
    id: 'jam-no-pectin-5',
    product: 'Jam without added pectin, jars sterilised',
    family: 'fruit spread',
    pack: 'hot',
    headspace_mm: 6.35,
    acidInEachPint: '',
    rows: [
      { id: 'jam-no-pectin-5/half-pint', jarSize: 'half-pint', byAltitude: threeBands(5, 10, 15) },
      { id: 'jam-no-pectin-5/pint', jarSize: 'pint', byAltitude: threeBands(5, 10, 15) },
    ],
    source: guide('guide 7, recommended process times for jams without added pectin'),
  },
  {
    id: 'jam-no-pectin-10',
    product: 'Jam without added pectin, clean jars',
    family: 'fruit spread',
    pack: 'hot',
    headspace_mm: 6.35,
    acidInEachPint: '',
    rows: [
      { id: 'jam-no-pectin-10/half-pint', jarSize: 'half-pint', byAltitude: threeBands(10, 15, 20) },
      { id: 'jam-no-pectin-10/pint', jarSize: 'pint', byAltitude: threeBands(10, 15, 20) },
    ],
    source: guide(
      'guide 1, sterilisation of empty jars: ten minutes at sea level need no sterile jars; guide 7 band additions',
    ),
  },
  {
    id: 'dilled-beans',
    product: 'Dilled beans',
    family: 'pickled vegetable',
    pack: 'raw',
    headspace_mm: 12.7,
    acidInEachPint: '',
    rows: [{ id: 'dilled-beans/pint', jarSize: 'pint', byAltitude: threeBands(5, 10, 15) }],
    source: guide('guide 6, pickled dilled beans'),
  },
  {
    id: 'tomatoes-crushed',
    product: 'Crushed tomatoes, no liquid added',
    family: 'tomato',
    pack: 'hot',
    headspace_mm: 12.7,
    acidInEachPint: '1 tablespoon bottled lemon juice or 1/4 teaspoon citric acid',
    rows: [
      { id: 'tomatoes-crushed/pint', jarSize: 'pint', byAltitude: fourBands(35, 40, 45, 50) },
      { id: 'tomatoes-crushed/quart', jarSize: 'quart', byAltitude: fourBands(45, 50, 55, 60) },
    ],
    source: guide('guide 3, crushed tomatoes'),
  },
  {
    id: 'tomatoes-in-water',
    product: 'Whole or halved tomatoes packed in water',
    family: 'tomato',
    pack: 'hot',
    headspace_mm: 12.7,
    acidInEachPint: '1 tablespoon bottled lemon juice or 1/4 teaspoon citric acid',
    rows: [
      { id: 'tomatoes-in-water/pint', jarSize: 'pint', byAltitude: fourBands(40, 45, 50, 55) },
      { id: 'tomatoes-in-water/quart', jarSize: 'quart', byAltitude: fourBands(45, 50, 55, 60) },
    ],
    source: guide('guide 3, whole or halved tomatoes packed in water'),
  },
];

/** The entry of that id, or undefined. */
export function processEntry(id: string): ProcessEntry | undefined {
  return PROCESS_ENTRIES.find(e => e.id === id);
}
