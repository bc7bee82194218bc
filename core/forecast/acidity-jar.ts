import { ACID_COUNT, acidAt, baseAt, molarMass_g, phOf } from '../acid/index.ts';
import { type AcidityAsk, PER_KG_OF_SAP, type SapLine } from './acidity-ask.ts';

/** How produce differs from one lot to the next: the standard deviation of the logarithm of its acid. From memory of food tables. */
export const ACID_SPREAD = 0.25;
/** A published range holds nine of ten. Our reading of it. */
export const RANGE_SIGMAS = 2 * 1.645;
/** Spoon, cup and label: how far an added acid may be off, as a share. Our choice. */
export const DOSE_SPREAD = 0.03;
/** What tap water neutralises, mol/kg, from none to hard. From memory of water tables. */
export const HARD_MOL = 0.004;

/** Figures of all lines laid out for many draws, one after the other: a draw is made some ten thousand times. */
export interface Prepared {
  ask: AcidityAsk;
  /** Acids that some line has, each with its moles in a gram by line. */
  acids: readonly { at: number; mol: Float64Array }[];
  /** Base in a gram of sap by its pH in steps from 0, by line. */
  base: Float64Array;
}
const TABLE_STEPS = 140;
/** The table goes from 0 to this pH. */
const TABLE_PH = 8;
const ROW = TABLE_STEPS + 1;

/** Lays the figures of an ask out for many draws. */
export function prepare(ask: AcidityAsk): Prepared {
  const base = new Float64Array(ask.lines.length * ROW);
  ask.lines.forEach((line, i) => {
    const perKg = line.acids.map(mol => mol * PER_KG_OF_SAP);
    for (let n = 0; n < ROW; n++)
      base[i * ROW + n] = baseAt(perKg, (n / TABLE_STEPS) * TABLE_PH) / PER_KG_OF_SAP;
  });
  const acids = Array.from({ length: ACID_COUNT }, (_, at) => ({
    at,
    mol: Float64Array.from(ask.lines, line => line.acids[at] ?? 0),
  })).filter(({ mol }) => mol.some(m => m !== 0));
  return { ask, acids, base };
}

/** Base in a gram of sap of a line at a pH, between the figures of its table. */
function baseIn(table: Float64Array, line: number, ph: number): number {
  const at = Math.min(TABLE_STEPS - 1e-9, Math.max(0, (ph / TABLE_PH) * TABLE_STEPS));
  const i = Math.floor(at);
  const low = table[line * ROW + i] as number;
  return low + ((table[line * ROW + i + 1] as number) - low) * (at - i);
}

/** One jar of one draw: what was drawn of each line and each acid. */
export interface Draw {
  /** Acid of each line, times; and its pH. */
  acid: Float64Array;
  ph: Float64Array;
  /** Added acids, times. */
  dose: Float64Array;
  hard_mol: number;
}
/** Everything in the middle of what it may be. */
export const middle = ({ ask }: Prepared): Draw => ({
  acid: new Float64Array(ask.lines.length).fill(1),
  ph: Float64Array.from(ask.lines, l => (l.ph[0] + l.ph[1]) / 2),
  dose: new Float64Array(ask.added.length).fill(1),
  hard_mol: HARD_MOL / 2,
});

/** The pH of a jar, of what was drawn; `more` times the acid that is added. */
export class Jar {
  private readonly acids = new Float64Array(ACID_COUNT);
  private readonly sap: Float64Array;
  /** Grams of sap of each line as it was drawn, in a kilogram of water. */
  private readonly drawn: Float64Array;
  /** Moles of each added acid in a kilogram of water, and its place. */
  private readonly added: readonly { at: number; mol: number }[];
  private readonly poured: number;
  private readonly salt_mol: number;
  private last = 4;
  constructor(
    private readonly of: Prepared,
    kind: 0 | 1 | 2,
  ) {
    const { ask } = of;
    const perKg = 1000 / ask.water_g[kind];
    this.sap = Float64Array.from(ask.lines, l => l.sap_g[kind] * perKg);
    this.drawn = new Float64Array(ask.lines.length);
    this.added = ask.added.map(a => ({
      at: acidAt(a.acid),
      mol: (a.acid_g[kind] / molarMass_g(a.acid)) * perKg,
    }));
    this.poured = (ask.poured_g[kind] / 1000) * perKg;
    this.salt_mol = (ask.salt_g[kind] / 58.44) * perKg;
  }

  /** Its pH, of what was drawn; `more` times the acid that is added. */
  ph({ acid, ph, dose, hard_mol }: Draw, more = 1): number {
    const { acids: own, base } = this.of;
    const { acids, sap, drawn } = this;
    acids.fill(0);
    let base_mol = this.poured * hard_mol;
    for (let i = 0; i < sap.length; i++) {
      const g = (sap[i] as number) * (acid[i] as number);
      drawn[i] = g;
      base_mol += baseIn(base, i, ph[i] as number) * g;
    }
    for (const { at, mol } of own) {
      let sum = 0;
      for (let i = 0; i < sap.length; i++) sum += (mol[i] as number) * (drawn[i] as number);
      acids[at] = sum;
    }
    for (let i = 0; i < this.added.length; i++) {
      const { at, mol } = this.added[i] as { at: number; mol: number };
      acids[at] = (acids[at] as number) + mol * (dose[i] as number) * more;
    }
    this.last = phOf({ acids, base_mol, salt_mol: this.salt_mol }, this.last);
    return this.last;
  }
}

/** Even chances from a seed: mulberry32, public domain. */
export function chances(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
  };
}

/** Draws one jar anew: each lot of produce, each dose, the water. */
export function drawInto(draw: Draw, { ask }: Prepared, chance: () => number): void {
  for (let i = 0; i < ask.lines.length; i++) {
    const { ph } = ask.lines[i] as SapLine;
    draw.acid[i] = SPREAD[(chance() * 2048) | 0] as number;
    draw.ph[i] =
      (ph[0] + ph[1]) / 2 + ((ph[1] - ph[0]) / RANGE_SIGMAS) * (NORMAL[(chance() * 2048) | 0] as number);
  }
  for (let i = 0; i < ask.added.length; i++)
    draw.dose[i] = 1 + DOSE_SPREAD * (NORMAL[(chance() * 2048) | 0] as number);
  draw.hard_mol = HARD_MOL * chance();
}

/** Normal deviates at even steps of chance: picking one at random is a draw, and cheap. */
const NORMAL = normalTable(2048);
/** How much of its usual acid a lot has, at the same steps. */
const SPREAD = NORMAL.map(z => Math.exp(ACID_SPREAD * z));
function normalTable(n: number): Float64Array {
  const table = new Float64Array(n);
  for (let i = 0; i < n; i++) table[i] = quantile((i + 0.5) / n);
  return table;
}
/** Of the standard normal, by Newton on its series. */
function quantile(p: number): number {
  let x = p < 0.5 ? -1 : 1;
  for (let i = 0; i < 60; i++) {
    const density = Math.exp((-x * x) / 2) / Math.sqrt(2 * Math.PI);
    const step = (cumulative(x) - p) / Math.max(density, 1e-9);
    x -= Math.max(-0.5, Math.min(0.5, step));
    if (Math.abs(step) < 1e-9) break;
  }
  return x;
}
function cumulative(x: number): number {
  let term = x;
  let sum = x;
  for (let k = 1; k < 200; k++) {
    term *= (x * x) / (2 * k + 1);
    sum += term;
    if (Math.abs(term) < 1e-14) break;
  }
  return 0.5 + sum * (Math.exp((-x * x) / 2) / Math.sqrt(2 * Math.PI));
}
