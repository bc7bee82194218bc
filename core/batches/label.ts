import type { PlaceLabel } from '../kitchen/index.ts';

/** Designs of our own, by the jar they are for. */
export const LABEL_DESIGNS = ['one panel', 'wrap-around', 'front and back', 'jar top', 'small jar'] as const;
/** A design of a label. */
export type LabelDesign = (typeof LABEL_DESIGNS)[number];

/** A sheet or a roll of blank labels, measured from its top left corner, in millimetres. */
export interface LabelStock {
  id: string;
  name: string;
  /** On a roll each label is a page of its own. */
  form: 'sheet' | 'roll';
  shape: 'rectangle' | 'round';
  page_mm: { width: number; height: number };
  label_mm: { width: number; height: number };
  columns: number;
  rows: number;
  /** Top left corner of the first label. */
  margin_mm: { left: number; top: number };
  /** From one label's corner to the next. */
  pitch_mm: { x: number; y: number };
}

/** Colours as #rrggbb, and a picture that the kitchen keeps. */
export interface LabelLook {
  ink: string;
  /** Of the name of the food, and of rules. */
  accent: string;
  ground: string;
  pictureId: string | null;
  /** Height over width of the picture. */
  pictureRatio: number;
}

/** What of a container a label's type is measured by. */
export interface Container {
  /** Across its body, and the height of the body without shoulders and neck. */
  across_mm: number;
  tall_mm: number;
  /** Across its lid, for what stands on the lid. */
  lid_mm: number;
}

/** What is read side by side before the first label of a lot is printed. */
export const LABEL_READS = ['identity', 'allergens', 'net contents', 'dates'] as const;
/** One of them. */
export type LabelRead = (typeof LABEL_READS)[number];

/** Kinds of code a label can bear. */
export const LABEL_CODES = ['QR', 'Data Matrix', 'EAN-13', 'UPC-A'] as const;
/** A code on a label and what it holds; of a Data Matrix GS1 identifiers in brackets, each before what it names. */
export interface LabelCode {
  kind: (typeof LABEL_CODES)[number];
  says: string;
}

/** Everything printed on one jar, as it stood when it was printed. */
export interface LabelContent {
  statementOfIdentity: string;
  ingredients: string;
  /** Words of the ingredients that are set bold: allergens, where the place wants that. */
  emphasised: string[];
  contains: string;
  /** Per cent juice, or fruit in 100 g; empty where neither is asked. */
  shares: string;
  netContents: string;
  /** What the net contents come to: type is measured by it in some places. */
  net: { unit: 'g' | 'mL'; amount: number };
  maker: string;
  address: string;
  /** Number of a registration or permit; empty where none is printed. */
  registration: string;
  lotCode: string;
  madeOn: string;
  bestBy: string;
  readyFrom: string | null;
  /** How it is kept and used, where the food needs it said; empty where it does not. */
  directions: string;
  /** Advice on keeping it closed. */
  keeping: string;
  statement: string;
  /** The maker's own words. */
  words: string;
  /** Nutrition in a line, entered or calculated; empty where it is not printed. */
  nutrition: string;
  notForSale: boolean;
  /** Language and place of its dates and spelling. */
  locale: string;
  /** Whose rules it was made by, with their version; null where the kitchen had none. */
  place: { id: string; name: string; version: number } | null;
  asks: PlaceLabel;
}
