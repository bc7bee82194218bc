/** What the pH of the finished jar is likely to be, before anything is cooked. It proves nothing, and opens no gate. */

import { molarMass_g } from '../acid/index.ts';
import type { AcidityAsk } from './acidity-ask.ts';
import {
  ACID_SPREAD,
  chances,
  DOSE_SPREAD,
  type Draw,
  drawInto,
  HARD_MOL,
  Jar,
  middle,
  prepare,
  type Prepared,
  RANGE_SIGMAS,
} from './acidity-jar.ts';

/** What a forecast says of one way a jar may be packed. */
export interface AcidityRange {
  low: number;
  mid: number;
  high: number;
  /** Shares of the draws above the limit, and above what the kitchen acts at. */
  aboveLimit: number;
  aboveAct: number;
}

/** One thing that moves the pH, and by how much from its low to its high end. */
export interface AcidityMover {
  id: string;
  what: 'produce' | 'acid' | 'water' | 'pack';
  name: string;
  from_ph: number;
  to_ph: number;
}

/** What another acid in the place of one would do. */
export interface AcidSwap {
  to: 'bottled juice' | 'citric acid' | 'vinegar';
  /** As much by volume of the juice or vinegar; of citric acid as much as neutralises the same. */
  ph: number;
}

/** The likely equilibrium pH of a recipe's jars. */
export interface AcidityForecast {
  average: AcidityRange;
  tightest: AcidityRange;
  /** Of the loosest jar, everything in the middle. */
  loosest: number;
  /** Draws of the tightest jar, by steps of {@link BIN_PH} from {@link BIN_FROM_PH}: shares of all. */
  bins: { average: number[]; tightest: number[] };
  /** What moves it most, the most first. */
  movers: AcidityMover[];
  /** How much of the acid there is would hold the tightest jar at or below what the kitchen acts at, nine times out of ten; null where no amount up to four times does, or no acid is added. */
  moreAcid: number | null;
  swaps: AcidSwap[];
  /** Lines nothing is known of. */
  guessed: string[];
}

/** Where the histogram begins, and its steps. */
export const BIN_FROM_PH = 2;
export const BIN_PH = 0.05;
const BINS = 100;

const Z_90 = 1.2816;
/** Share of draws that have to lie at or below the target. */
const CONFIDENCE = 0.9;
const MOST_ACID = 4;
/** Draws by which the target is searched: enough for a ninetieth part. */
const SEARCH_DRAWS = 500;

/**
 * The likely equilibrium pH of what is in the jars, with the spread of produce, doses and water carried through by many draws.
 *
 * @param limits  the limit, and what the kitchen acts at
 * @param draws  how many; 20,000 for a picture, fewer for a figure
 * @param seed  the same seed gives the same answer
 * @throws RangeError for no water, or no draws
 */
export function acidityForecast(
  ask: AcidityAsk,
  limits: { limit: number; act: number },
  { draws = 20_000, seed = 1 }: { draws?: number; seed?: number } = {},
): AcidityForecast {
  if (!(ask.water_g[0] > 0) || draws < 1) throw new RangeError('acidityForecast: some water, and some draws');
  const prepared = prepare(ask);
  const jars = [new Jar(prepared, 0), new Jar(prepared, 1), new Jar(prepared, 2)] as const;
  // Where nothing is packed a jar is like the next.
  const apart = ask.water_g[1] !== ask.water_g[0];
  const drawn = [new Float64Array(draws), new Float64Array(draws)];
  const chance = chances(seed);
  const draw = middle(prepared);
  for (let n = 0; n < draws; n++) {
    drawInto(draw, prepared, chance);
    const average = jars[0].ph(draw);
    (drawn[0] as Float64Array)[n] = average;
    (drawn[1] as Float64Array)[n] = apart ? jars[1].ph(draw) : average;
  }
  const range = (of: Float64Array): AcidityRange => {
    const sorted = of.slice().sort();
    const at = (share: number) => sorted[Math.min(draws - 1, Math.floor(share * draws))] as number;
    return {
      low: at(0.05),
      mid: at(0.5),
      high: at(0.95),
      aboveLimit: above(sorted, limits.limit) / draws,
      aboveAct: above(sorted, limits.act) / draws,
    };
  };
  return {
    average: range(drawn[0] as Float64Array),
    tightest: range(drawn[1] as Float64Array),
    loosest: jars[2].ph(middle(prepared)),
    bins: { average: binned(drawn[0] as Float64Array), tightest: binned(drawn[1] as Float64Array) },
    movers: moversOf(prepared, jars),
    moreAcid: moreAcidOf(prepared, jars[1], limits.act, seed),
    swaps: swapsOf(prepared),
    guessed: ask.lines.filter(l => l.known === 'guessed').map(l => l.name),
  };
}

/** How many of a sorted list lie above a figure. */
function above(sorted: Float64Array, limit: number): number {
  let [low, high] = [0, sorted.length];
  while (low < high) {
    const at = (low + high) >> 1;
    if ((sorted[at] as number) > limit) high = at;
    else low = at + 1;
  }
  return sorted.length - low;
}

function binned(of: Float64Array): number[] {
  const bins = Array.from({ length: BINS }, () => 0);
  for (const ph of of) {
    const at = Math.min(BINS - 1, Math.max(0, Math.floor((ph - BIN_FROM_PH) / BIN_PH)));
    bins[at] = (bins[at] as number) + 1 / of.length;
  }
  return bins;
}

/** Each uncertain thing by itself, from its tenth to its ninetieth part, all others in the middle. */
function moversOf(
  prepared: Prepared,
  [average, tightest, loosest]: readonly [Jar, Jar, Jar],
): AcidityMover[] {
  const { ask } = prepared;
  const movers: AcidityMover[] = [];
  const moved = (set: (draw: Draw, z: number) => void): [number, number] => {
    const at = (z: number) => {
      const draw = middle(prepared);
      set(draw, z);
      return average.ph(draw);
    };
    return [at(-Z_90), at(Z_90)];
  };
  ask.lines.forEach((line, i) => {
    const half = (line.ph[1] - line.ph[0]) / RANGE_SIGMAS;
    const [own, amount] = [
      moved((d, z) => (d.ph[i] = (line.ph[0] + line.ph[1]) / 2 + half * z)),
      moved((d, z) => (d.acid[i] = Math.exp(ACID_SPREAD * z))),
    ];
    const [from_ph, to_ph] = Math.abs(own[1] - own[0]) > Math.abs(amount[1] - amount[0]) ? own : amount;
    movers.push({ id: line.id, what: 'produce', name: line.name, from_ph, to_ph });
  });
  ask.added.forEach((acid, i) => {
    const [from_ph, to_ph] = moved((d, z) => (d.dose[i] = 1 + DOSE_SPREAD * z));
    movers.push({ id: acid.id, what: 'acid', name: acid.name, from_ph, to_ph });
  });
  if (ask.poured_g[0] > 0) {
    const [from_ph, to_ph] = moved((d, z) => (d.hard_mol = HARD_MOL * (0.5 + 0.4 * Math.sign(z))));
    movers.push({ id: 'water', what: 'water', name: '', from_ph, to_ph });
  }
  const pack = [loosest.ph(middle(prepared)), tightest.ph(middle(prepared))] as const;
  if (Math.abs(pack[1] - pack[0]) > 1e-6)
    movers.push({ id: 'pack', what: 'pack', name: '', from_ph: pack[0], to_ph: pack[1] });
  return movers.sort((a, b) => Math.abs(b.to_ph - b.from_ph) - Math.abs(a.to_ph - a.from_ph));
}

/** Times the acid that is added, so that nine of ten of the tightest jars lie at or below a pH. */
function moreAcidOf(prepared: Prepared, tightest: Jar, act: number, seed: number): number | null {
  if (prepared.ask.added.length === 0) return null;
  const enough = (more: number) => {
    const chance = chances(seed + 1);
    const draw = middle(prepared);
    let below = 0;
    for (let n = 0; n < SEARCH_DRAWS; n++) {
      drawInto(draw, prepared, chance);
      if (tightest.ph(draw, more) <= act) below++;
    }
    return below >= CONFIDENCE * SEARCH_DRAWS;
  };
  if (enough(1)) return 1;
  if (!enough(MOST_ACID)) return null;
  let [low, high] = [1, MOST_ACID];
  for (let step = 0; step < 7; step++) {
    const at = (low + high) / 2;
    if (enough(at)) high = at;
    else low = at;
  }
  return high;
}

/** Percent acid by weight of what may stand in, as it is sold. */
const SOLD = { vinegar: 0.05, 'bottled juice': 0.045 } as const;

function swapsOf(prepared: Prepared): AcidSwap[] {
  const { ask } = prepared;
  const acid = [...ask.added].sort((a, b) => b.acid_g[0] - a.acid_g[0])[0];
  if (!acid || acid.kind === 'other') return [];
  const before: [number, number, number] = acid.acid_g;
  const volume = acid.kind === 'vinegar' ? SOLD.vinegar : SOLD['bottled juice'];
  const swap = (to: AcidSwap['to']): AcidSwap => {
    const acid_g = before.map(g =>
      to === 'citric acid'
        ? acid.acid === 'acetic'
          ? (g / molarMass_g('acetic')) * (molarMass_g('citric') / 3)
          : g
        : acid.kind === 'citric acid'
          ? to === 'vinegar'
            ? (g / molarMass_g('citric')) * 3 * molarMass_g('acetic')
            : g
          : (g / volume) * SOLD[to],
    ) as typeof before;
    const changed = {
      ...ask,
      added: ask.added.map(a =>
        a === acid ? { ...a, acid: to === 'vinegar' ? ('acetic' as const) : ('citric' as const), acid_g } : a,
      ),
    };
    const other = prepare(changed);
    return { to, ph: new Jar(other, 0).ph(middle(other)) };
  };
  const others = (['vinegar', 'bottled juice', 'citric acid'] as const).filter(
    to => to !== acid.kind && !(acid.kind === 'fresh juice' && to === 'bottled juice'),
  );
  return others.map(swap);
}
