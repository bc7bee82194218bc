import type { Container, LabelDesign, LabelLook } from '../batches/index.ts';
import { bodyOf, type JarSizeId } from '../jars/index.ts';
import type { NetForm } from './net.ts';
import type { Nutrients, Serving } from './nutrition.ts';

/** Nutrition that a label tells: figures somebody entered, or reckoned from what went in. */
export type LabelNutrition =
  | { how: 'none' }
  | { how: 'calculated'; serving: Serving }
  | { how: 'entered'; serving: Serving; per100_g: Nutrients };

/** Ways in which a lot can be scanned. */
export const LABEL_SCANS = ['none', 'QR', 'Data Matrix'] as const;

/** How the labels of one recipe are made. */
export interface LabelSetup {
  design: LabelDesign;
  stockId: string;
  look: LabelLook;
  /** The maker's own words. */
  words: string;
  /** Advice on keeping it closed. */
  keeping: string;
  /** It settles, and is shaken before it is used. */
  shake: boolean;
  /** Parts of water to one part of it, where it is diluted; null where it is used as it is. */
  diluteParts: number | null;
  groupSpices: boolean;
  netForm: NetForm;
  nutrition: LabelNutrition;
  /** What shows that sulphites are under 10 ppm of the food; empty where nothing does. */
  fewSulphites: string;
  /** How the lot can be scanned: its code alone, or with the item number and best-by. */
  scan: (typeof LABEL_SCANS)[number];
  /** The item number in bars. */
  bars: boolean;
  /** Item numbers that were given to the maker, of jars by their size. */
  numbers: { size: JarSizeId; number: string }[];
  /** Measures of jars that differ from the usual ones. */
  containers: { size: JarSizeId; container: Container }[];
}

/** Colours that are legible on white, of our own look. */
export const PLAIN_LOOK: LabelLook = {
  ink: '#2A211D',
  accent: '#4B1E3F',
  ground: '#FFFFFF',
  pictureId: null,
  pictureRatio: 1,
};

/** How labels are made before anybody chose. */
export const plainSetup = (stockId: string): LabelSetup => ({
  design: 'one panel',
  stockId,
  look: PLAIN_LOOK,
  words: '',
  keeping: '',
  shake: false,
  diluteParts: null,
  groupSpices: false,
  netForm: 'both',
  nutrition: { how: 'none' },
  fewSulphites: '',
  scan: 'QR',
  bars: false,
  numbers: [],
  containers: [],
});

/** What the label of a jar is measured by: as the kitchen measured it, else as such jars usually are. */
export function containerOf(setup: Pick<LabelSetup, 'containers'>, size: JarSizeId): Container {
  return setup.containers.find(c => c.size === size)?.container ?? bodyOf(size);
}
