import { PH_ACT, PH_LIMIT, evidenceFaults } from '../acid/index.ts';
import { type BatchState, type JarState, lineMasses } from '../batches/index.ts';
import { rangesText, byName } from '../measure/index.ts';
import type { FoodClass, Recipe } from '../recipes/index.ts';
import { spreadIdentity } from '../review/index.ts';
import { ACID_TOLERANCE, type Condition, HALF_A_TENTH_C, condition, tempBoth } from './condition.ts';

/** Whether its purpose lets it be released at all: a trial never, a sale only where an authority covers it. */
export function purposeConditions(state: BatchState): Condition[] {
  const started = state.started as NonNullable<BatchState['started']>;
  if (started.purpose === 'trial') {
    return [
      condition({
        code: 'purpose',
        title: 'The purpose allows release',
        met: false,
        evidence: 'This batch is a trial.',
        why: 'A trial is tasted and compared; its jars never move to the shelf by an edit.',
        next: 'Cook a new batch for sale, home or gift.',
        jars: null,
      }),
    ];
  }
  if (started.purpose !== 'sale') return [];
  const { route } = started;
  return [
    condition({
      code: 'authority',
      title: 'An authority covers it for sale',
      met: route.open,
      evidence: route.open ? route.what : `${route.what} ${route.why}`,
      why: `A heat process is set by a tested publication, a process authority or the published family time. ${route.source}.`,
      next: route.next,
      jars: null,
    }),
  ];
}

/** Whether what was cooked is still what the authority covers. */
export function recipeConditions(state: BatchState): Condition[] {
  const started = state.started as NonNullable<BatchState['started']>;
  const masses = lineMasses(state);
  const out: Condition[] = [];
  if (started.recipe.foodClass === 'fruit spread') {
    const identity = spreadIdentity(started.recipe, byName(masses.map(m => [m.line.id, m.actual_g])));
    out.push(
      condition({
        code: 'identity',
        title: `Enough fruit to be called ${started.recipe.product}`,
        met: identity.meets,
        evidence: identity.why,
        why: identity.source,
        next: identity.next,
        jars: null,
      }),
    );
    if (!cookedToGel(started.recipe)) return out;
    const hottest = Math.max(
      -Infinity,
      ...state.temperatures.filter(t => t.where === 'pot').map(t => t.temp_C),
    );
    const reached = hottest >= started.gelPoint_C - HALF_A_TENTH_C;
    out.push(
      condition({
        code: 'gel',
        title: 'Cooked to the gel point',
        met: reached,
        evidence: Number.isFinite(hottest)
          ? `The pot reached ${tempBoth(hottest)}; the gel point here is ${tempBoth(started.gelPoint_C)}.`
          : `No pot temperature is logged; the gel point here is ${tempBoth(started.gelPoint_C)}.`,
        why: 'At the gel point soluble solids reach the 65 % a jam needs to keep and to carry its name (21 CFR 150.160, from memory).',
        next: 'Log the temperature the pot reached. A spread that stopped short cannot be released as jam.',
        jars: null,
      }),
    );
    return out;
  }
  const sum = (pick: (m: (typeof masses)[number]) => boolean, key: 'planned_g' | 'actual_g') =>
    masses.filter(pick).reduce((a, m) => a + m[key], 0);
  const acid = (m: (typeof masses)[number]) => m.line.role === 'acid' && m.line.where !== 'each jar';
  const food = (m: (typeof masses)[number]) => m.line.role === 'fruit' || m.line.role === 'low-acid produce';
  if (sum(acid, 'planned_g') > 0) {
    const planned = sum(acid, 'planned_g') / sum(food, 'planned_g');
    const actual = sum(food, 'actual_g') === 0 ? planned : sum(acid, 'actual_g') / sum(food, 'actual_g');
    const met = actual >= planned * (1 - ACID_TOLERANCE);
    out.push(
      condition({
        code: 'acid-share',
        title: 'At least the acid the authority asks for',
        met,
        evidence: `${(actual * 100).toFixed(1)} g of acid for 100 g of food went in; the recipe has ${(planned * 100).toFixed(1)} g.`,
        why: 'Less acid, or more low-acid food, and the authority no longer covers the batch.',
        next: 'If a weight was entered wrongly, correct it. Otherwise the batch stays held.',
        jars: null,
      }),
    );
  }
  const inBrine = (role: 'acid' | 'water') => (m: (typeof masses)[number]) =>
    m.line.role === role && m.line.where === 'brine';
  const strength = (key: 'planned_g' | 'actual_g') =>
    sum(inBrine('acid'), key) / (sum(inBrine('acid'), key) + sum(inBrine('water'), key));
  if (sum(inBrine('acid'), 'planned_g') > 0 && sum(inBrine('water'), 'planned_g') > 0) {
    const planned = strength('planned_g');
    const actual = strength('actual_g');
    out.push(
      condition({
        code: 'brine-strength',
        title: 'A brine as strong as the authority asks for',
        met: actual >= planned * (1 - ACID_TOLERANCE),
        evidence: `${(actual * 100).toFixed(1)} % of its acid and water was acid; the recipe has ${(planned * 100).toFixed(1)} %.`,
        why: 'A thinner brine carries less acid into every piece.',
        next: 'If a weight was entered wrongly, correct it. Otherwise the batch stays held.',
        jars: null,
      }),
    );
  }
  return out;
}

/** A spread that sets by cooking alone, or has a step to the gel point, has to show that it got there. */
function cookedToGel(recipe: Recipe): boolean {
  return recipe.setBy === 'nothing added' || recipe.steps.some(s => s.target.kind === 'gel point');
}

/** Food whose acid was added or grew in it is released on a reading of its finished pH. */
export function needsReading(foodClass: FoodClass): boolean {
  return foodClass === 'acidified food' || foodClass === 'fermented food';
}

/** A hot fill is no heat step below the temperature its letter sets. */
export function hotFillConditions(state: BatchState): Condition[] {
  const started = state.started as NonNullable<BatchState['started']>;
  const fill = started.times.find(t => t.method === 'hot-fill-hold')?.fill;
  if (!fill) return [];
  const read = state.temperatures.filter(t => t.where === 'jar').map(t => t.temp_C);
  const coldest = Math.min(Infinity, ...read);
  return [
    condition({
      code: 'hot-fill',
      title: `Filled at ${tempBoth(fill.temp_C)} or above`,
      met: read.length > 0 && coldest >= fill.temp_C - HALF_A_TENTH_C,
      evidence:
        read.length > 0
          ? `The coldest jar read ${tempBoth(coldest)}; closure: ${fill.closure}.`
          : 'No jar temperature is logged.',
      why: "The letter's hot-fill-hold is the heat step: its temperature, its hold and its closure.",
      next: 'Log the temperature in a jar at filling. A jar filled colder is refrigerated or filled again.',
      jars: null,
    }),
  ];
}

/**
 * Whether each line and each lid came out of a lot that was drawn. Set-aside jars need no lid lot: they go nowhere.
 */
export function tracedCondition(state: BatchState): Condition {
  const started = state.started as NonNullable<BatchState['started']>;
  const drawn = new Set(state.draws.flatMap(d => d.lots.map(l => l.lineId)));
  const missing = started.recipe.lines.filter(l => l.role !== 'water' && !drawn.has(l.id)).map(l => l.name);
  const lids = new Set(state.draws.flatMap(d => d.lots.filter(l => l.kind === 'lid').map(l => l.lotId)));
  const untraced = state.jars.filter(j => !j.setAside && (j.lidLotId === null || !lids.has(j.lidLotId)));
  if (untraced.length > 0) missing.push(`lids of jars ${rangesText(untraced.map(j => j.number))}`);
  const met = missing.length === 0;
  return condition({
    code: 'traced',
    title: 'Everything in it is traced to a lot',
    met,
    evidence: met
      ? 'Each ingredient and lid was drawn from a lot.'
      : `No lot was drawn for: ${missing.join(', ')}.`,
    why: 'A recall goes from a lot to its jars and back.',
    next: 'Draw the lots that were used.',
    jars: null,
  });
}

/**
 * What was read of its acidity: one reading above the limit holds it, whatever else was read; acidified and
 * fermented food also needs one that counts.
 */
export function acidityConditions(state: BatchState): Condition[] {
  const started = state.started as NonNullable<BatchState['started']>;
  const out: Condition[] = [];
  const limit = started.phLimit;
  const above = state.readings.filter(r => r.ph > limit);
  if (above.length > 0) {
    const worst = above.reduce((a, r) => (r.ph > a.ph ? r : a));
    out.push(
      condition({
        code: 'ph-limit',
        title: `No reading above pH ${limit}`,
        met: false,
        evidence: `Jar ${worst.jar} read pH ${worst.ph}.`,
        why:
          limit < PH_LIMIT
            ? `The letter sets ${limit}; above ${PH_LIMIT} botulism can grow in a sealed jar (21 CFR 114, from memory).`
            : 'Above 4.6 botulism can grow in a sealed jar (21 CFR 114.80, from memory).',
        next: 'Refrigerate or destroy the batch. Only a reading that was entered wrongly can be corrected, with the reason.',
        jars: null,
      }),
    );
  }
  if (needsReading(started.recipe.foodClass)) {
    const evidence = state.readings.filter(r => r.ph <= limit && evidenceFaults(r).length === 0);
    const best = evidence.at(-1);
    const last = state.readings.at(-1);
    const met = evidence.length > 0 && above.length === 0;
    const watch = best && best.ph > PH_ACT ? ` Above ${PH_ACT}: careful producers look for the cause.` : '';
    out.push(
      condition({
        code: 'ph-evidence',
        title: `Equilibrium pH at or below ${limit}`,
        met,
        evidence:
          met && best
            ? `Jar ${best.jar} read pH ${best.ph} at ${best.temp_C} °C, ${Math.floor(best.hoursSinceProcessing)} h after processing.${watch}`
            : last
              ? `The last reading does not count: ${evidenceFaults(last).join('; ') || `pH ${last.ph} is above ${limit}`}.`
              : 'No reading is entered.',
        why: 'An acidified food is released on its finished equilibrium pH (21 CFR 114.80 and 114.90, from memory).',
        next: 'Open a jar a day or more after processing, blend, bring to 20-30 °C, and read it on a meter calibrated that day.',
        jars: null,
      }),
    );
  }
  return out;
}

/**
 * One condition for each open deviation. One that belongs to a load holds only jars whose last load it is: a later
 * load in full makes up for it.
 */
export function deviationConditions(state: BatchState, present: JarState[]): Condition[] {
  const open = state.deviations.filter(d => d.settled === null);
  const out = open
    .map(d =>
      condition({
        code: `deviation:${d.key}`,
        title: 'A deviation to settle',
        met: false,
        evidence: d.what,
        why: 'A fact that breaks a rule holds its jars until it is settled.',
        next: d.next,
        jars:
          d.jars === null || d.jars.length === 0
            ? null
            : d.jars.filter(n =>
                present.some(j => j.number === n && (d.loadId === null || j.loadIds.at(-1) === d.loadId)),
              ),
      }),
    )
    // A jar-bound deviation whose jars have all been set aside holds nothing any more.
    .filter(c => c.jars === null || c.jars.length > 0);
  if (out.length === 0)
    out.push(
      condition({
        code: 'deviations',
        title: 'No open deviation',
        met: true,
        evidence:
          state.deviations.length === 0 ? 'None was opened.' : 'Each was settled, or its jars set aside.',
        why: '',
        next: '',
        jars: null,
      }),
    );
  return out;
}
