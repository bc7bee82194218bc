import { PH_LIMIT } from '../acid/index.ts';
import { DEFAULT_HEADSPACE_MM } from '../balance/index.ts';
import { acidityAsk, acidityForecast, type Forecast, forecast } from '../forecast/index.ts';
import { boilingPoint_C, gelPoint_C } from '../heat/index.ts';
import { JAR_SIZES, jarSize, pintsOf } from '../jars/index.ts';
import type { Kitchen, Pot } from '../kitchen/index.ts';
import type { Fraction } from '../measure/index.ts';
import { type JarsWanted, planPots, type Recipe } from '../recipes/index.ts';
import {
  type Confirmation,
  confirmationOf,
  pageOf,
  processFor,
  routeToSale,
  unprovenFault,
} from '../review/index.ts';
import type { ScheduledTime } from '../times/index.ts';
import type { Purpose, StartedBody } from './events.ts';
import type { LotPattern } from './lot-code.ts';

/** What a start rests on. */
export interface Starting {
  recipeId: string;
  recipeVersion: number;
  recipe: Recipe;
  /** On the recipe, exact. */
  factor: Fraction;
  jars: readonly JarsWanted[];
  purpose: Purpose;
  heat: StartedBody['heat'];
  /** The kitchen's pot it is foreseen in; null where none was chosen. */
  pot: Pot | null;
  doublePectin: boolean;
  lotCode: string;
  lotPattern: LotPattern;
  /** Day of the batch in the kitchen's zone. */
  madeOn: string;
  kitchen: Kitchen;
  /** Pages of published entries that somebody of the kitchen read. */
  confirmations: readonly Confirmation[];
}

/**
 * What a batch is started with: everything later figures rest on is looked up once, and stored in its first entry. A
 * rehearsal starts on the same.
 *
 * @throws RangeError where a line of the recipe cannot be weighed, or the scale is no scale of it
 */
export function startedOf(asked: Starting): StartedBody {
  const { recipe, factor, kitchen, purpose, pot } = asked;
  const jars = asked.jars.filter(j => j.count > 0);
  const sizes = [...new Set(jars.map(j => j.size))];
  const answers = sizes.map(size => ({
    size,
    answer: processFor(recipe, size, kitchen.altitude_m, kitchen),
  }));
  const times = answers.flatMap(({ answer }) => (answer.ok ? [answer.time] : []));
  // An odd jar of any other size that its authority covers may be filled as well: its time stands ready.
  const others = JAR_SIZES.filter(s => !sizes.includes(s.id)).flatMap(({ id }) => {
    const answer = processFor(recipe, id, kitchen.altitude_m, kitchen);
    // What nobody read off the page is no time for a jar that is sold.
    const proven =
      purpose !== 'sale' ||
      (answer.ok &&
        unprovenFault(recipe, kitchen, [answer.time], asked.confirmations, asked.madeOn) === null);
    return answer.ok && proven ? [answer.time] : [];
  });
  const plan = recipe.sketch
    ? { pots: 1, each: factor.toFraction(), overridden: false, reasons: [] }
    : planPots(recipe, factor, pot, asked.doublePectin);
  return {
    recipeId: asked.recipeId,
    recipeVersion: asked.recipeVersion,
    recipe,
    factor: factor.toFraction(),
    jars,
    purpose,
    lotCode: asked.lotCode,
    lotPattern: asked.lotPattern,
    madeOn: asked.madeOn,
    kitchen: {
      name: kitchen.name,
      altitude_m: kitchen.altitude_m,
      zone: kitchen.zone,
      locale: kitchen.locale,
      currency: kitchen.currency,
      hourlyRate: kitchen.hourlyRate,
      thermometerError_C: kitchen.thermometerError_C,
      costs: kitchen.costs,
    },
    boilingPoint_C: boilingPoint_C(kitchen.altitude_m),
    gelPoint_C: gelPoint_C(kitchen.altitude_m, kitchen.thermometerError_C),
    times: [...times, ...others],
    noTime: answers.flatMap(({ size, answer }) =>
      answer.ok ? [] : [{ size, what: answer.what, why: answer.why }],
    ),
    route: routeToSale(recipe, kitchen),
    phLimit: Math.min(
      PH_LIMIT,
      recipe.authority.grade === 'letter' ? recipe.authority.maxPh : PH_LIMIT,
      (purpose === 'sale' && kitchen.jurisdiction.rules?.phLimit) || PH_LIMIT,
    ),
    phAct: kitchen.phAct,
    keys: purpose === 'sale' ? keysOf(recipe, kitchen, asked.confirmations) : null,
    heat: asked.heat,
    pots: { count: plan.pots, each: plan.each, overridden: plan.overridden, reasons: plan.reasons },
    potId: pot?.id ?? null,
    equipment: {
      pots: kitchen.pots.map(({ id, name }) => ({ id, name })),
      canners: kitchen.canners.map(({ id, name, kind, holds }) => ({ id, name, kind, holds })),
    },
    ...(recipe.sketch
      ? { expected: null, phForecast: null }
      : foreseenOf(recipe, factor, plan.pots, times, jars, kitchen, pot)),
  };
}

/** The proof of both keys, as it stood when they were turned. */
function keysOf(recipe: Recipe, kitchen: Kitchen, confirmed: readonly Confirmation[]): StartedBody['keys'] {
  const { rules } = kitchen.jurisdiction;
  if (!rules || recipe.foodClass === 'refused') return null;
  const page = pageOf(recipe, kitchen.altitude_m, kitchen);
  const read = page && confirmationOf(page, confirmed);
  return {
    page: read && {
      subject: read.subject,
      edition: read.edition,
      page: read.page,
      personId: read.personId,
      confirmedAt: read.confirmedAt,
      demo: read.demo,
    },
    place: {
      id: rules.id,
      name: rules.name,
      version: rules.version,
      rule: rules.foods[recipe.foodClass].rule,
    },
  };
}

/** What the batch is foreseen to fill and to read: by the forecast of the pot or the pack, else the jars it was scaled for. */
function foreseenOf(
  recipe: Recipe,
  factor: Fraction,
  pots: number,
  times: readonly ScheduledTime[],
  wanted: readonly JarsWanted[],
  kitchen: Kitchen,
  pot: Pot | null,
): Pick<StartedBody, 'expected' | 'phForecast'> {
  const sizes = [...new Set(wanted.map(j => j.size))].sort((a, b) =>
    jarSize(b).pints.compare(jarSize(a).pints),
  );
  const first = sizes[0];
  if (!first) return { expected: null, phForecast: null };
  const foreseen = forecast(
    recipe,
    factor,
    { ...kitchen, pot, pots, headspace_mm: times[0]?.headspace_mm ?? DEFAULT_HEADSPACE_MM },
    sizes,
  );
  return {
    expected: expectedOf(recipe, wanted, foreseen),
    phForecast: phForecastOf(recipe, foreseen, kitchen),
  };
}

function expectedOf(
  recipe: Recipe,
  wanted: readonly JarsWanted[],
  foreseen: Forecast,
): StartedBody['expected'] {
  // A pot whose end is judged by eye foretells nothing: then the jars wanted are what is expected.
  const foretells = recipe.packing !== null || (foreseen.waterOff_g > 0 && !foreseen.byEye);
  if (!foretells || foreseen.faults.length > 0)
    return {
      pints: pintsOf(wanted).valueOf(),
      final_g: null,
      solids_pct: null,
      cook_min: null,
      foreseen: false,
    };
  return {
    pints: recipe.packing ? foreseen.made.filling.pints : foreseen.pints.mid,
    final_g: recipe.packing ? null : foreseen.final_g,
    solids_pct: recipe.packing ? null : foreseen.solids_pct,
    cook_min: recipe.packing ? null : foreseen.minutes,
    foreseen: true,
  };
}

/** Draws by which an interval is known to a few hundredths of a pH. */
const FORECAST_DRAWS = 2000;

function phForecastOf(recipe: Recipe, foreseen: Forecast, kitchen: Kitchen): StartedBody['phForecast'] {
  const ask = acidityAsk(foreseen.process, foreseen.made, recipe.method.cut);
  if (!ask || ask.water_g[0] <= 0) return null;
  const { low, mid, high } = acidityForecast(
    ask,
    { limit: PH_LIMIT, act: kitchen.phAct },
    { draws: FORECAST_DRAWS },
  ).average;
  const round = (ph: number) => Math.round(ph * 1000) / 1000;
  return { low: round(low), mid: round(mid), high: round(high) };
}
