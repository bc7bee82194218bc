import type { Container, LabelContent, LabelDesign } from '../../batches/index.ts';
import type { FontMetrics, Fonts } from '../../typeset/index.ts';

const MM2_PER_IN2 = 25.4 ** 2;
const MM_PER_IN = 25.4;
const MM_PER_PT = 25.4 / 72;

/** Of a container that is round or nearly so, the principal display panel is this share of height times girth. Source: 21 CFR 101.1 (from memory). */
const PANEL_SHARE = 0.4;

/**
 * Area of the principal display panel: 40 % of height times girth, without shoulders and neck, or the lid where the label
 * lies on it.
 *
 * Source: 21 CFR 101.1 (from memory).
 * @throws RangeError for a container without measures
 */
export function panelArea_in2({ across_mm, tall_mm, lid_mm }: Container, design: LabelDesign): number {
  if (!(across_mm > 0 && tall_mm > 0 && lid_mm > 0))
    throw new RangeError('panelArea_in2: a container has measures');
  const mm2 =
    design === 'jar top' ? (Math.PI * lid_mm * lid_mm) / 4 : PANEL_SHARE * Math.PI * across_mm * tall_mm;
  return mm2 / MM2_PER_IN2;
}

/** Least height of the letters of net contents by the area of the panel, in inches. Source: 21 CFR 101.7(i) (from memory). */
const NET_LEAST_IN: readonly [upTo_in2: number, height_in: number][] = [
  [5, 1 / 16],
  [25, 1 / 8],
  [100, 3 / 16],
  [400, 1 / 4],
];
/** Glass differs by maker: within so much of a limit the larger figure is asked for. */
const GLASS_DIFFERS = 1.05;
/** Panels up to this area need not have their net contents at the foot. Source: 21 CFR 101.7(f) (from memory). */
const SMALL_PANEL_IN2 = 5;
/** Net contents stand in this share of the panel, from its lower edge. Source: 21 CFR 101.7(f) (from memory). */
export const NET_SHARE = 0.3;

/** Least height of figures of the quantity in mm, by grams or millilitres. Source: Directive 76/211/EEC, annex I 3.1 (from memory). */
const FIGURES_LEAST: readonly [upTo: number, height_mm: number][] = [
  [50, 2],
  [200, 3],
  [1000, 4],
  [Infinity, 6],
];

/** Least height of any words that are asked for: of a lower-case o, 1/16 inch. Source: 21 CFR 101.2(c) (from memory). */
const WORDS_LEAST_MM = MM_PER_IN / 16;
/** Of a lower-case x, 1.2 mm, on the smallest packages 0.9 mm. Source: Regulation (EU) 1169/2011, article 13 (from memory). */
const X_LEAST_MM = 1.2;
const X_LEAST_SMALL_MM = 0.9;
/** Packages whose largest surface is below this are the smallest, mm². Source: the same. */
const SMALL_SURFACE_MM2 = 8000;
/** The name of the food stands at least this much of the largest type beside it: "reasonably related" to it, as it is commonly read. Source: 21 CFR 101.3(d) (from memory). */
export const NAME_SHARE = 0.5;

/** The sizes of type that the rules ask for, in millimetres from one line's type to the next: what the layout never goes below. */
export interface LeastSizes {
  /** Size of words in plain type, in bold type, of the name, of the statement. */
  plain: number;
  bold: number;
  heading: number;
  statement: number;
  /** Size of the net contents, whose letters reach {@link LeastSizes.netHeight_mm}. */
  net: number;
  /** Height of letters of net contents that is asked for, and what of the letters it measures. */
  netHeight_mm: number;
  netMeasures: 'lower case' | 'figures';
  /** Height of a lower-case letter that is asked for of all other words. */
  wordsHeight_mm: number;
  /** Whether the net contents have to stand at the foot of the panel. */
  netAtFoot: boolean;
}

const figureHeight = (of: FontMetrics) => of.glyph('0')?.top ?? of.capital;

/**
 * What the rules ask of type on the label of one container.
 *
 * @param label  whose rules hold, and what its net contents come to
 * @throws RangeError for a container without measures
 */
export function leastSizes(
  label: Pick<LabelContent, 'asks' | 'net'>,
  container: Container,
  design: LabelDesign,
  fonts: Fonts,
): LeastSizes {
  const area = panelArea_in2(container, design) * GLASS_DIFFERS;
  const statement_mm = (label.asks.statement_pt ?? 0) * MM_PER_PT;
  if (label.asks.rules === 'EU') {
    const surface = Math.PI * container.across_mm * container.tall_mm;
    const words = surface < SMALL_SURFACE_MM2 ? X_LEAST_SMALL_MM : X_LEAST_MM;
    const figures = (FIGURES_LEAST.find(([upTo]) => label.net.amount <= upTo) as [number, number])[1];
    const least = (of: FontMetrics) => words / (of.glyph('x')?.top ?? of.lowercase);
    return {
      plain: least(fonts.plain),
      bold: least(fonts.bold),
      heading: least(fonts.heading),
      statement: Math.max(least(fonts.plain), statement_mm),
      net: figures / figureHeight(fonts.bold),
      netHeight_mm: figures,
      netMeasures: 'figures',
      wordsHeight_mm: words,
      netAtFoot: false,
    };
  }
  const height = (NET_LEAST_IN.find(([upTo]) => area <= upTo)?.[1] ?? 1 / 2) * MM_PER_IN;
  return {
    plain: WORDS_LEAST_MM / fonts.plain.lowercase,
    bold: WORDS_LEAST_MM / fonts.bold.lowercase,
    heading: WORDS_LEAST_MM / fonts.heading.lowercase,
    statement: Math.max(WORDS_LEAST_MM / fonts.plain.lowercase, statement_mm),
    // Words with lower-case letters are measured by them.
    net: height / fonts.bold.lowercase,
    netHeight_mm: height,
    netMeasures: 'lower case',
    wordsHeight_mm: WORDS_LEAST_MM,
    netAtFoot: area > SMALL_PANEL_IN2,
  };
}
