/** Boiling point of a sucrose solution above that of water, by °Brix. From tables of sugar boiling, from memory; a test compares it with GNU units. */
const RISE: readonly (readonly [brix: number, rise_C: number])[] = [
  [0, 0],
  [10, 0.13],
  [20, 0.31],
  [30, 0.6],
  [40, 1.02],
  [50, 1.74],
  [60, 3.01],
  [65, 3.98],
  [70, 5.35],
  [75, 7.25],
  [80, 10.1],
  [85, 14.4],
  [90, 21.9],
];

/** What a solution boils at above water, in kelvin; between the rows of the table by a straight line. */
export function rise_C(brix: number): number {
  const at = Math.min(90, Math.max(0, brix));
  for (let i = 1; i < RISE.length; i++) {
    const [from, to] = [RISE[i - 1], RISE[i]] as [(typeof RISE)[number], (typeof RISE)[number]];
    if (at <= to[0]) return from[1] + ((at - from[0]) / (to[0] - from[0])) * (to[1] - from[1]);
  }
  return 0;
}

/** Latent heat of water at its boil, J/g. From memory: 2,257 at 100 °C. */
const LATENT_J_PER_G = 2257;
const WATER_J_PER_GK = 4.19;
/** Sugar and fibre. From memory. */
const SOLIDS_J_PER_GK = 1.3;
const ROOM_C = 21;

/** A pot on a burner: what is in it, how hot it is, how strong the fire. */
export interface PotOnFire {
  water_g: number;
  solids_g: number;
  temp_C: number;
  /** Heat that reaches the food, W. */
  power_W: number;
  /** Lost through wall and surface for each kelvin above the room, W. */
  loss_WPerK: number;
  /** At which water boils here, °C. */
  boils_C: number;
  /** Water that has left as steam, and heat that came in and went out, for who keeps the books. */
  steam_g: number;
  in_J: number;
  lost_J: number;
}

export const brixOf = (pot: Pick<PotOnFire, 'water_g' | 'solids_g'>): number =>
  (pot.solids_g / (pot.water_g + pot.solids_g)) * 100;

const heatCapacity_JPerK = (pot: PotOnFire): number =>
  pot.water_g * WATER_J_PER_GK + pot.solids_g * SOLIDS_J_PER_GK;

/** Heat in it above the room, J. */
export const heat_J = (pot: PotOnFire): number => heatCapacity_JPerK(pot) * (pot.temp_C - ROOM_C);

/**
 * The pot after some seconds: it warms until it boils, then what comes in drives off water, and it climbs as its boiling
 * point does: it stalls first, then climbs fast. Nothing is made or lost but by heat and steam.
 */
export function heated(pot: PotOnFire, seconds: number): PotOnFire {
  const now = { ...pot };
  const step_s = 0.5;
  for (let left = seconds; left > 0; left -= step_s) {
    const dt = Math.min(step_s, left);
    const in_J = now.power_W * dt;
    const lost_J = now.loss_WPerK * (now.temp_C - ROOM_C) * dt;
    now.in_J += in_J;
    now.lost_J += lost_J;
    const boilsAt = now.boils_C + rise_C(brixOf(now));
    const warmed_C = now.temp_C + (in_J - lost_J) / heatCapacity_JPerK(now);
    if (warmed_C <= boilsAt || now.water_g <= 1) {
      now.temp_C = warmed_C;
      continue;
    }
    // What would heat it beyond its boil leaves as steam, and takes its own heat along.
    const over_J = (warmed_C - boilsAt) * heatCapacity_JPerK(now);
    const steam_g = Math.min(now.water_g - 1, over_J / LATENT_J_PER_G);
    now.water_g -= steam_g;
    now.steam_g += steam_g;
    // Where no water is left to drive off, the rest heats what is left.
    now.temp_C = boilsAt + (over_J - steam_g * LATENT_J_PER_G) / heatCapacity_JPerK(now);
    now.lost_J += steam_g * (LATENT_J_PER_G + WATER_J_PER_GK * (boilsAt - ROOM_C));
  }
  return now;
}
