import { ACID_COUNT, type AcidName, acidAt, baseAt, molarMass_g } from '../acid/index.ts';
import { type Composition, COMPOSITIONS } from '../ingredients/index.ts';

/** What produce brings to the charges of a jar, for a gram of it. */
export interface Brought {
  /** Moles of each acid, in the order of `acidAt`. */
  acids: Float64Array;
  /** Equivalents of strong cations less strong anions. */
  base_mol: number;
}

/** Milligrams in a millimole, and charges. CRC Handbook. */
const K_MG = 39.098;
const MG_MG = 24.305;
const CA_MG = 40.078;
const P_MG = 30.974;
/**
 * Of calcium, what is not held by pectin and oxalate; of phosphorus, what is not held in membranes and phytate; of potassium, what
 * stands against chloride, sulphate and nitrate that no table gives. General, from memory of plant physiology.
 */
const FREE_CALCIUM = 0.5;
const FREE_PHOSPHATE = 0.7;
const STRONG_ANIONS = 0.2;
/**
 * Millimoles in a gram of crude protein of produce, half of which is free amino acids, most of them glutamate, aspartate and their
 * amides: free carboxyl groups, lysine and arginine, histidine. Textbooks of plant biochemistry, from memory.
 */
const PROTEIN = { carboxyl: 1, cations: 0.4, imidazole: 0.1 } as const;
/**
 * What sap is kept at where the acids in the tables leave more base than they hold: others that no table gives stand against it. Of
 * a vacuole near 5.5 and a cytosol near 7.2, from memory of plant physiology.
 */
export const SAP_PH = 5.9;
/** Water in a gram of produce, for the sap. */
const SAP_WATER = 0.88;

/**
 * What a gram of produce brings: its organic acids, its phosphate and the groups of its protein as weak acids, its minerals as what
 * was neutralised already.
 *
 * @param of  composition of 100 g
 */
export function broughtBy(of: Composition): Brought {
  const acids = new Float64Array(ACID_COUNT);
  const put = (name: AcidName, mol: number) => {
    acids[acidAt(name)] = mol;
  };
  const organic: readonly (readonly [AcidName, number])[] = [
    ['malic', of.malic_g],
    ['citric', of.citric_g],
    ['tartaric', of.tartaric_g],
    ['quinic', of.quinic_g],
    ['oxalic', of.oxalic_g],
    ['ascorbic', of.ascorbic_g],
  ];
  for (const [name, g] of organic) put(name, g / 100 / molarMass_g(name));
  put('phosphoric', ((of.p_mg / P_MG) * FREE_PHOSPHATE) / 100_000);
  put('carboxyl', (of.protein_g * PROTEIN.carboxyl) / 100_000);
  put('imidazole', (of.protein_g * PROTEIN.imidazole) / 100_000);
  const base_mmol =
    (of.k_mg / K_MG) * (1 - STRONG_ANIONS) +
    (2 * of.mg_mg) / MG_MG +
    ((2 * of.ca_mg) / CA_MG) * FREE_CALCIUM +
    of.protein_g * (PROTEIN.cations + PROTEIN.imidazole);
  const perKg = acids.map(mol => (mol * 1000) / SAP_WATER);
  const most_mol = (baseAt(perKg, SAP_PH) * SAP_WATER) / 1000;
  return { acids, base_mol: Math.min(base_mmol / 100_000, most_mol) };
}

/** What is taken of produce nobody knows: a fruit like a peach, a vegetable like snap beans. Our choice. */
export const usualComposition = (isFruit: boolean): Composition =>
  COMPOSITIONS.get(isFruit ? 'peach' : 'snap-bean') as Composition;
