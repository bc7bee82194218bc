import { acidAt, type AcidName, molarMass_g, phOf } from '../acid/index.ts';
import {
  type Balance,
  compositionOf,
  type Contents,
  massOf,
  type Process,
  together,
} from '../balance/index.ts';
import {
  acidKind,
  COMPOSITIONS,
  type Ingredient,
  type NamedIngredient,
  shippedAs,
} from '../ingredients/index.ts';
import { broughtBy, SAP_PH, usualComposition } from './produce.ts';

/** One line of produce in a jar: what its sap brings. Plain data, for a worker. */
export interface SapLine {
  id: string;
  name: string;
  /** Grams as prepared whose sap is in the jar: average, tightest, loosest. */
  sap_g: [average: number, tightest: number, loosest: number];
  /** Moles of each acid in a gram. */
  acids: number[];
  /** What it reads by itself, from and to; one that nothing is known of has the range of all produce. */
  ph: [low: number, high: number];
  /** How that is known. */
  known: 'published' | 'composition' | 'guessed';
  /** It is packed in pieces, into which acid has to find its way. */
  piece: boolean;
}

/** One acid that is added. */
export interface AddedLine {
  id: string;
  name: string;
  kind: 'vinegar' | 'bottled juice' | 'fresh juice' | 'citric acid' | 'other';
  acid: AcidName;
  /** Grams of the acid itself in a jar. */
  acid_g: [average: number, tightest: number, loosest: number];
}

/** What a forecast of acidity is asked with: plain data, made by {@link acidityAsk}. */
export interface AcidityAsk {
  lines: SapLine[];
  added: AddedLine[];
  water_g: [average: number, tightest: number, loosest: number];
  salt_g: [average: number, tightest: number, loosest: number];
  /** Water that was poured in, which may be hard. */
  poured_g: [average: number, tightest: number, loosest: number];
  /** Smallest side of a piece; null where there are none. */
  piece_mm: number | null;
  /** Pieces are sliced, or halved: acid comes from two sides. */
  flat: boolean;
}

/** How pieces of a cut measure, where nobody says: their smallest side. Common practice. */
const PIECE_MM: { readonly [cut: string]: number | null } = {
  whole: 25,
  halved: 20,
  sliced: 6,
  chopped: 8,
  crushed: null,
  puréed: null,
  juice: null,
};

/** What is not known of produce: from the sourest fruit to the mildest root. */
const ANY_FRUIT: [number, number] = [3, 4.6];
const ANY_PRODUCE: [number, number] = [5, 6.5];

/**
 * What a forecast is asked with, of what is in the jars of a balance.
 *
 * @returns null where no jar is filled
 */
export function acidityAsk(process: Process, made: Balance, cut: string): AcidityAsk | null {
  const [jar] = made.jars;
  if (!jar) return null;
  const jars: [Contents, Contents, Contents] = [jar.each, jar.tightest, jar.loosest];
  const of = <T>(reckon: (contents: Contents) => T): [T, T, T] => [
    reckon(jars[0]),
    reckon(jars[1]),
    reckon(jars[2]),
  ];
  const packed = process.recipe.packing !== null;
  const lines: SapLine[] = [];
  const added: AddedLine[] = [];
  let poured_g: [number, number, number] = [0, 0, 0];
  for (const { line } of process.lines) {
    const kind = acidKind(line);
    if (line.role === 'acid') {
      const acid_g = of(c => c.get(line.id)?.acid_g ?? 0);
      if (acid_g[0] > 0)
        added.push({
          id: line.id,
          name: line.name,
          kind: kind === null || kind === 'unlabelled vinegar' ? 'other' : kind,
          acid: kind === 'vinegar' || kind === 'unlabelled vinegar' ? 'acetic' : 'citric',
          acid_g,
        });
      continue;
    }
    if (line.role === 'water') {
      const more = of(c => c.get(line.id)?.water_g ?? 0);
      poured_g = [poured_g[0] + more[0], poured_g[1] + more[1], poured_g[2] + more[2]];
      continue;
    }
    if (line.role !== 'fruit' && line.role !== 'low-acid produce' && line.role !== 'spice') continue;
    const whole = compositionOf(line);
    // What dissolves tells how much sap is in a jar: water boils off, and leaves it there.
    const sap_g = of(c => {
      const parts = c.get(line.id);
      if (!parts) return 0;
      const grams = whole.soluble_g > 0 ? parts.soluble_g / whole.soluble_g : massOf(parts);
      return grams * line.freshFactor;
    });
    if (sap_g[0] <= 0) continue;
    lines.push({
      id: line.id,
      name: line.name,
      sap_g,
      piece: line.role !== 'spice',
      ...sapOf(line),
    });
  }
  const sum = (part: 'water_g' | 'salt_g') => of(c => together(c)[part]);
  const piece_mm = PIECE_MM[cut] ?? null;
  return {
    lines,
    added,
    water_g: sum('water_g'),
    salt_g: sum('salt_g'),
    poured_g,
    piece_mm: packed || piece_mm !== null ? piece_mm : null,
    flat: cut === 'sliced' || cut === 'halved',
  };
}

/** Ingredients that are like another one of which more is known. */
const LIKE: { readonly [id: string]: string } = {
  'red-onion': 'onion',
  'pearl-onion': 'onion',
  shallot: 'onion',
  'cherry-tomato': 'tomato',
  'green-tomato': 'tomato',
  'red-cabbage': 'cabbage',
  daikon: 'radish',
  damson: 'plum',
  greengage: 'plum',
  'black-raspberry': 'raspberry',
  loganberry: 'raspberry',
  boysenberry: 'blackberry',
  tangerine: 'orange',
  'white-peach': 'peach',
  habanero: 'hot-pepper',
  pimiento: 'bell-pepper',
};

/**
 * What the sap of an ingredient brings: its acids by its composition, or by its titratable acid; how much of them it has neutralised
 * by the pH that is published of it, else by its minerals. A name that may be several things has the range of all of them.
 *
 * @example
 * sapOf({ ingredientId: 'cucumber', name: 'Cucumbers', role: 'low-acid produce' }).ph; // [5.1, 5.8]
 */
export function sapOf(line: NamedIngredient): Pick<SapLine, 'acids' | 'ph' | 'known'> {
  const isFruit = line.role === 'fruit';
  const may = shippedAs(line);
  if (may.length === 0)
    return {
      acids: [...broughtBy(usualComposition(isFruit)).acids],
      ph: isFruit ? ANY_FRUIT : ANY_PRODUCE,
      known: 'guessed',
    };
  const all = may.map(one => sapOfOne(one, isFruit));
  const [first] = all as [(typeof all)[number]];
  return {
    ...first,
    ph: [Math.min(...all.map(s => s.ph[0])), Math.max(...all.map(s => s.ph[1]))],
    known: all.find(s => s.known !== 'published')?.known ?? 'published',
  };
}

function sapOfOne(one: Ingredient, isFruit: boolean): Pick<SapLine, 'acids' | 'ph' | 'known'> {
  const composition = COMPOSITIONS.get(one.id) ?? COMPOSITIONS.get(LIKE[one.id] ?? '') ?? null;
  const { acids } = broughtBy(composition ?? usualComposition(isFruit));
  if (composition === null && one.acid) {
    acids.fill(0, 0, acidAt('phosphoric'));
    acids[acidAt(one.acid.kind)] = one.acid.titratable_pct / 100 / molarMass_g(one.acid.kind);
  }
  if (one.ph) return { acids: [...acids], ph: one.ph, known: 'published' };
  if (composition) {
    const own = ownPh(broughtBy(composition));
    return { acids: [...acids], ph: [own - COMPOSITION_PH, own + COMPOSITION_PH], known: 'composition' };
  }
  return { acids: [...acids], ph: isFruit ? ANY_FRUIT : ANY_PRODUCE, known: 'guessed' };
}

/** How far the pH of produce may lie from what its composition says, nine times out of ten. Of the list it is held against. */
export const COMPOSITION_PH = 0.4;

/** What produce reads by itself, by what it brings. */
export const ownPh = ({ acids, base_mol }: { acids: ArrayLike<number>; base_mol: number }): number =>
  phOf(
    {
      acids: Float64Array.from(acids, mol => mol * PER_KG_OF_SAP),
      base_mol: base_mol * PER_KG_OF_SAP,
      salt_mol: 0,
    },
    SAP_PH,
  );
/** Of a gram of produce, what a kilogram of the water of its sap holds. */
export const PER_KG_OF_SAP = 1000 / 0.88;
