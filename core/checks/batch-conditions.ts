import { sterilise_min } from '../heat/index.ts';
import { type BatchState, type JarState, type LineMass, potNumbers, type Trace } from '../batches/index.ts';
import { massText, numberText, rangesText } from '../measure/index.ts';
import { keptBySugar, limitText, outOfLimits, spreadCover, termsOf } from '../review/index.ts';
import { acidConditions } from './acid-conditions.ts';
import { solidsByBalance } from './solids.ts';
import { type Condition, HALF_A_TENTH_C, condition, tempBoth } from './condition.ts';

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

/**
 * Whether what was cooked is still what the authority covers. What it may be called is the label's matter: no safe jar is
 * held for its name.
 */
export function recipeConditions(state: BatchState, masses: readonly LineMass[]): Condition[] {
  const { recipe } = state.started as NonNullable<BatchState['started']>;
  // A tested recipe or a letter sets its own end of cooking; an own spread rests on its acid fruit and its proven solids.
  if (recipe.authority.grade === 'own' && keptBySugar(recipe)) return ownSpread(state, masses);
  return [
    ...letterConditions(state, masses),
    ...(recipe.foodClass === 'fruit spread' ? [] : acidConditions(state, masses)),
  ];
}

/** Whether what went in lies within the limits a letter sets for its formula, by weight. */
function letterConditions(state: BatchState, masses: readonly LineMass[]): Condition[] {
  const { recipe, kitchen } = state.started as NonNullable<BatchState['started']>;
  const terms = termsOf(recipe);
  if (!terms || terms.lines.length === 0) return [];
  const there = new Map(masses.map(m => [m.line.id, m.actual_g]));
  // What was drawn by the piece, from a lot nobody weighed, is there; what was only planned is not.
  const drawn = new Set(state.draws.flatMap(d => d.lots.flatMap(l => l.lineId ?? [])));
  const unproven = masses.filter(
    m => m.basis === 'planned' && !drawn.has(m.line.id) && terms.lines.some(l => l.lineId === m.line.id),
  );
  const out = outOfLimits(
    terms,
    masses.map(m => m.line),
    id => there.get(id) ?? 0,
  );
  return [
    condition({
      code: 'letter-limits',
      title: 'Within the limits of the letter',
      met: out.length === 0 && unproven.length === 0,
      evidence:
        unproven.length > 0
          ? `${unproven.map(m => m.line.name).join(', ')}: neither weighed nor drawn, and what was only planned proves nothing.`
          : out.length === 0
            ? 'What went in lies within the shares it allows.'
            : out.map(o => limitText(o, kitchen)).join(' '),
      why: 'The process was set for what the letter names, within its limits.',
      next:
        unproven.length > 0
          ? 'Weigh them, or draw the lots they came from.'
          : 'If a weight was entered wrongly, correct it. Otherwise the batch stays held: refrigerate it, and ask for a letter that covers it.',
      jars: null,
      against: out.length > 0 && unproven.length === 0,
      proof: masses.filter(m => terms.lines.some(l => l.lineId === m.line.id)).flatMap(m => m.by ?? []),
    }),
  ];
}

/** Soluble solids on which an own spread borrows the published time: a policy of this program, as 21 CFR 150 asks of jams. */
const SOLIDS_PCT = 65;

/** What an own spread has to show: nothing but safely acid fruit and sugar, cooked until the sugar keeps it. */
function ownSpread(state: BatchState, masses: readonly LineMass[]): Condition[] {
  const started = state.started as NonNullable<BatchState['started']>;
  const { kitchen } = started;
  const cover = spreadCover(started.recipe);
  // What a separated syrup reached says nothing of the fruit that goes back into it.
  const pot = state.temperatures.filter(t => t.where === 'pot' && t.part === '');
  const whole = state.solids.filter(r => r.part === '');
  const ofPart = pot.length + whole.length === 0 && state.temperatures.length + state.solids.length > 0;
  const counting = pot.filter(t => inTime(t.by, lastFilled_ms(state)));
  const gelPoint = tempBoth(started.gelPoint_C, kitchen);
  // Where pots are read one by one each has to show it: the one that shows least speaks for all.
  const named = [...counting, ...whole].some(r => r.potId !== null);
  const shown = (named ? potNumbers(started.pots.count) : [null]).map(potId => {
    const isOf = (r: { potId: string | null }) => potId === null || r.potId === null || r.potId === potId;
    const hot = counting
      .filter(isOf)
      .reduce<(typeof pot)[number] | null>(
        (most, t) => (most === null || t.temp_C > most.temp_C ? t : most),
        null,
      );
    return {
      potId,
      hottest: hot,
      atGel: hot !== null && hot.temp_C >= started.gelPoint_C - HALF_A_TENTH_C,
      thick:
        whole.find(
          r =>
            isOf(r) && r.outletId === null && r.brix_pct >= SOLIDS_PCT && inTime(r.by, lastFilled_ms(state)),
        ) ?? null,
    };
  });
  const { potId, hottest, atGel, thick } =
    shown.find(p => !p.atGel && p.thick === null) ?? (shown[0] as (typeof shown)[number]);
  const weighed = solidsByBalance(state, masses);
  const byBalance = weighed?.ok === true && weighed.least_pct >= SOLIDS_PCT ? weighed : null;
  const n = (value: number, places = 0) => numberText(value, kitchen, places);
  const late = pot.length + whole.length > 0;
  return [
    condition({
      code: 'spread',
      title: 'Nothing in it but safely acid fruit and sugar',
      met: cover.covered,
      evidence: cover.why,
      why: 'The published family time was set for such spreads; common practice of the trade.',
      next: cover.next,
      jars: null,
    }),
    condition({
      code: 'gel',
      title: 'Cooked until the sugar keeps it',
      met: atGel || thick !== null || byBalance !== null,
      evidence:
        (potId === null || byBalance ? '' : `Pot ${potId}: `) +
        (thick
          ? `A refractometer read ${numberText(thick.brix_pct, kitchen)} °Brix in the pot; ${SOLIDS_PCT} are asked for.`
          : !atGel && weighed
            ? weighed.ok
              ? `By what went in and what ${weighed.nets_g.length} filled jars weigh (${weighed.nets_g.map(g => massText(g, kitchen)).join(', ')}) it has ${n(weighed.solids_pct, 1)} % of solids, ${n(weighed.least_pct, 1)} % at least; ${SOLIDS_PCT} % are asked for.`
              : `Filled jars were weighed: ${weighed.why}`
            : hottest
              ? `The pot reached ${tempBoth(hottest.temp_C, kitchen)}; the gel point here is ${gelPoint}.`
              : late
                ? `What was read of the pot was entered after the last jar was filled, and says nothing of what is in them; the gel point here is ${gelPoint}.`
                : ofPart
                  ? `What was read is of a part alone, and says nothing of the whole pot; the gel point here is ${gelPoint}.`
                  : `No pot temperature is logged, and no soluble solids; the gel point here is ${gelPoint}.`),
      why: `Finished solids of ${SOLIDS_PCT} %, as at the gel point, are what an own spread borrows the published time on (a policy of this program, to be confirmed by the local authority); a cold plate proves no solids.`,
      next: `Log the temperature the pot reached, or the °Brix of a refractometer, with the time it was read; or weigh three filled jars. An own spread that stopped short is kept in the refrigerator.`,
      jars: null,
      against: hottest !== null || weighed !== null,
      proof:
        !atGel && !thick && byBalance
          ? state.nets.map(w => w.by)
          : shown.flatMap(p => p.thick?.by ?? p.hottest?.by ?? []),
    }),
  ];
}

/**
 * Whether the empty jars were sterile, where a time asks for it: five minutes at sea level do not make up for jars that are
 * only clean.
 *
 * @source USDA Complete Guide (2015), guide 1, sterilisation of empty jars: 10 minutes, one more for each 1,000 ft (from memory)
 */
export function sterileConditions(state: BatchState, present: readonly JarState[]): Condition[] {
  const { times, kitchen } = state.started as NonNullable<BatchState['started']>;
  const asking = present.filter(jar =>
    times.some(t => t.jarSize === jar.size && t.jars === 'sterile' && t.method === 'boiling water'),
  );
  if (asking.length === 0) return [];
  const least = sterilise_min(kitchen.altitude_m);
  /** The longest boiling that can have been of this jar: before it was filled, and not of another day. */
  const boiledFor = ({ filled }: JarState) =>
    state.boiled
      .filter(
        ({ by }) =>
          by.at_ms <= filled.at_ms + ENTERED_WITHIN_MS && by.at_ms >= filled.at_ms - STAYS_STERILE_MS,
      )
      .reduce<(typeof state.boiled)[number] | null>(
        (most, b) => (most === null || b.minutes > most.minutes ? b : most),
        null,
      );
  const proofs = asking.map(jar => ({ jar: jar.number, boiled: boiledFor(jar) }));
  const short = proofs.filter(p => (p.boiled?.minutes ?? 0) < least).map(p => p.jar);
  const longest = proofs.map(p => p.boiled).find(b => b !== null) ?? null;
  const n = (value: number) => numberText(value, kitchen);
  return [
    condition({
      code: 'sterile',
      title: 'Filled into sterile jars',
      met: short.length === 0,
      evidence:
        short.length > 0 && proofs.some(p => p.boiled === null) && state.boiled.length > 0
          ? `The empty jars were boiled, and not before jars ${rangesText(proofs.filter(p => p.boiled === null).map(p => p.jar))} were filled, or on another day; ${n(least)} minutes are asked for here.`
          : longest
            ? `The empty jars were boiled ${n(longest.minutes)} minutes; ${n(least)} are asked for here.`
            : `Nobody entered that the empty jars were boiled; ${n(least)} minutes are asked for here.`,
      why: 'A time under ten minutes at sea level was tested in sterile jars. USDA Complete Guide (2015), guide 1 (from memory).',
      next: 'Enter how long they were boiled, with the time when it was, or follow the same food in clean jars, which takes ten minutes and the band.',
      jars: short.length === 0 ? null : short,
      proof: proofs.flatMap(p => p.boiled?.by ?? []),
    }),
  ];
}

/** Jars that were boiled wait in the hot water until they are filled: of one day's work. Our bound, from no source. */
const STAYS_STERILE_MS = 12 * 3_600_000;

/** A temperature may be entered this long after the last jar was filled. */
const ENTERED_WITHIN_MS = 10 * 60_000;

/** When the last jar was filled; no limit while none is. */
const lastFilled_ms = (state: BatchState): number =>
  state.jars.length === 0 ? Infinity : Math.max(...state.jars.map(j => j.filled.at_ms));
const inTime = (by: Trace, filled_ms: number): boolean => by.at_ms <= filled_ms + ENTERED_WITHIN_MS;

/** A hot fill is no heat step below the temperature its letter sets. */
export function hotFillConditions(state: BatchState): Condition[] {
  const started = state.started as NonNullable<BatchState['started']>;
  const fill = started.times.find(t => t.method === 'hot-fill-hold')?.fill;
  if (!fill) return [];
  const { kitchen } = started;
  const read = state.temperatures.filter(t => t.where === 'jar' && inTime(t.by, lastFilled_ms(state)));
  const coldest = Math.min(Infinity, ...read.map(t => t.temp_C));
  return [
    condition({
      code: 'hot-fill',
      title: `Filled at ${tempBoth(fill.temp_C, kitchen)} or above`,
      met: read.length > 0 && coldest >= fill.temp_C - HALF_A_TENTH_C,
      evidence:
        read.length > 0
          ? `The coldest jar read ${tempBoth(coldest, kitchen)}; closure: ${fill.closure}.`
          : 'No jar temperature is logged from the time of filling.',
      why: "The letter's hot-fill-hold is the heat step: its temperature, its hold and its closure.",
      next: 'Log the temperature in a jar at filling. A jar filled colder is refrigerated or filled again.',
      jars: null,
      against: read.length > 0,
      proof: read.map(t => t.by),
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
  const open = state.books.filter(b => b.settled === null).length;
  return condition({
    code: 'traced',
    title: 'Everything in it is traced to a lot',
    met,
    evidence: met
      ? `Each ingredient and lid was drawn from a lot.${open > 0 ? ` ${open === 1 ? 'One difference' : `${open} differences`} in the books ${open === 1 ? 'is' : 'are'} not settled yet.` : ''}`
      : `No lot was drawn for: ${missing.join(', ')}.`,
    why: 'A recall goes from a lot to its jars and back.',
    next: 'Draw the lots that were used.',
    jars: null,
    proof: state.draws.map(d => d.by),
  });
}

/**
 * One condition for each open deviation. One that belongs to a load holds only jars whose last load it is: a later
 * load in full makes up for it.
 */
export function deviationConditions(state: BatchState, present: JarState[]): Condition[] {
  // A reading above the limit has a condition of its own, which nothing settles.
  const open = state.deviations.filter(d => d.settled === null && d.code !== 'ph_above');
  const out = open
    .map(d =>
      condition({
        code: `deviation:${d.key}`,
        title: 'A deviation to settle',
        met: false,
        evidence: d.what,
        why: 'A fact that breaks a rule holds its jars until it is settled.',
        next: d.next,
        against: true,
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
        proof: state.deviations.flatMap(d => d.settled?.by ?? []),
      }),
    );
  return out;
}
