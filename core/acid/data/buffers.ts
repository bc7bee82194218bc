/** A standard buffer: its pH from 0 to 40 °C. */
export interface Buffer {
  /** As it is called: its pH at 25 °C. */
  name_ph: number;
  what: string;
  /** pH at 0, 5, 10 … 40 °C. */
  ph: readonly number[];
  source: string;
}

/** Degrees between two figures of a buffer's table. */
export const BUFFER_STEP_C = 5;

const NIST = 'NIST and IUPAC primary standards (from memory)';
const BOTTLE = 'Tables as they are printed on bottles of technical buffers (from memory)';

/** Buffers in use, by their name. */
export const BUFFERS: readonly Buffer[] = [
  {
    name_ph: 1.68,
    what: 'tetroxalate',
    ph: [1.666, 1.668, 1.67, 1.672, 1.675, 1.679, 1.683, 1.688, 1.694],
    source: NIST,
  },
  {
    name_ph: 4.01,
    what: 'phthalate',
    ph: [4, 3.998, 3.997, 3.998, 4.001, 4.005, 4.011, 4.018, 4.027],
    source: NIST,
  },
  {
    name_ph: 6.86,
    what: 'phosphate',
    ph: [6.984, 6.951, 6.923, 6.9, 6.881, 6.865, 6.853, 6.844, 6.838],
    source: NIST,
  },
  {
    name_ph: 7,
    what: 'technical, neutral',
    ph: [7.12, 7.09, 7.06, 7.04, 7.02, 7, 6.99, 6.98, 6.97],
    source: BOTTLE,
  },
  {
    name_ph: 9.18,
    what: 'borax',
    ph: [9.464, 9.395, 9.332, 9.276, 9.225, 9.18, 9.139, 9.102, 9.068],
    source: NIST,
  },
  {
    name_ph: 10.01,
    what: 'technical, alkaline',
    ph: [10.32, 10.25, 10.18, 10.12, 10.06, 10.01, 9.97, 9.93, 9.89],
    source: BOTTLE,
  },
];
