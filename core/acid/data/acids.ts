/** A weak acid: its constants at 25 °C and no ionic strength. */
export interface WeakAcid {
  name: string;
  /** Of each proton it gives, the first first. */
  pKa: readonly number[];
  /** Grams in a mole; 0 for what is reckoned in moles. */
  molar_g: number;
  source: string;
}

const CRC = 'CRC Handbook of Chemistry and Physics, dissociation constants of acids (from memory)';
const TEXT = 'Textbooks of biochemistry, ionisable groups of proteins (from memory)';

/** Weak acids of food and of standard buffers, in the order in which amounts of them are given. */
export const WEAK_ACIDS = [
  { name: 'acetic', pKa: [4.756], molar_g: 60.05, source: CRC },
  { name: 'citric', pKa: [3.128, 4.761, 6.396], molar_g: 192.12, source: CRC },
  { name: 'malic', pKa: [3.4, 5.11], molar_g: 134.09, source: CRC },
  { name: 'lactic', pKa: [3.858], molar_g: 90.08, source: CRC },
  { name: 'tartaric', pKa: [3.036, 4.366], molar_g: 150.09, source: CRC },
  { name: 'ascorbic', pKa: [4.1, 11.79], molar_g: 176.12, source: CRC },
  { name: 'oxalic', pKa: [1.252, 4.266], molar_g: 90.03, source: CRC },
  { name: 'quinic', pKa: [3.58], molar_g: 192.17, source: CRC },
  { name: 'phosphoric', pKa: [2.148, 7.198, 12.35], molar_g: 97.99, source: CRC },
  { name: 'phthalic', pKa: [2.95, 5.408], molar_g: 166.13, source: CRC },
  { name: 'carbonic', pKa: [6.351, 10.329], molar_g: 62.03, source: CRC },
  { name: 'carboxyl', pKa: [4.3], molar_g: 0, source: TEXT },
  { name: 'imidazole', pKa: [6.3], molar_g: 0, source: TEXT },
] as const satisfies readonly WeakAcid[];
