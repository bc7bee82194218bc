import { type BatchEvent, type BatchState, isStepDone } from '../batches/index.ts';
import type { Assessment } from '../checks/index.ts';
import { clockText, durationText, type Habits, massText, temperatureText } from '../measure/index.ts';

/** How pot and canner really stood from a moment on, whatever was written down. */
export interface Seen {
  at_ms: number;
  pot_C: number;
  /** The canner stood at a full boil, with its water over the lids. */
  boiling: boolean;
}

/** Something that was made to go wrong; `to_ms` is null while nobody put it right. */
export interface WentWrong {
  scene: 'boil lost' | 'low water' | 'probe on the bottom' | 'scale creeping' | 'rubbish on the line';
  from_ms: number;
  to_ms: number | null;
}

/** A rehearsal: its record, what the record says of it, and how things really stood. */
export interface Rehearsed extends Pick<Assessment, 'state' | 'standing'> {
  events: readonly BatchEvent[];
  seen: readonly Seen[];
  wentWrong: readonly WentWrong[];
  now_ms: number;
}

/** One thing that was done well, or missed. */
export interface Finding {
  code: string;
  well: boolean;
  what: string;
  /** Why it matters, where it was missed; empty where it was done well. */
  why: string;
}

/** Sooner than this before the boil a clock was started too early. Our choice: somebody looks up and taps. */
const EARLY_MS = 15_000;
/** Longer than this nobody beside a canner should miss its boil. Our choice. */
const SEEN_WITHIN_MS = 60_000;
/** A reading this far from the pot is no reading of it: more than a probe lags and a dial is read wrongly. Our choice. */
const READ_WITHIN_C = 1.5;
/** A set is so much under or over its point. From memory: 1 °C is the width of a soft to a firm set. */
const SET_WITHIN_C = 1;

/** What a rehearsal cannot show: nothing is drawn, and nothing stands until tomorrow. */
const NOT_REHEARSED = new Set([
  'purpose',
  'authority',
  'traced',
  'ph-evidence',
  'ph-limit',
  'outlet',
  'sealed',
  'started',
]);

/**
 * What was missed in a rehearsal and what was done well, by its record held against how things really stood: the clock against
 * the boil, readings against the pot, weights against a scale that crept, and what the gate would say of it.
 *
 * @returns missed things first, in the order of the day; never empty once something was done
 */
export function debrief(day: Rehearsed, habits: Pick<Habits, 'locale' | 'temperature' | 'zone'>): Finding[] {
  const { state } = day;
  if (!state.started) return [];
  const found = [
    ...clocks(day, habits),
    ...troubles(day, habits),
    ...readings(day, habits),
    ...weights(day, habits),
    ...ends(day, habits),
    ...steps(state),
    ...held(day),
  ];
  return [...found.filter(f => !f.well), ...found.filter(f => f.well)];
}

const well = (code: string, what: string): Finding => ({ code, well: true, what, why: '' });
const missed = (code: string, what: string, why: string): Finding => ({ code, well: false, what, why });

/** How things stood at a moment: as they were seen last before it. */
const seenAt = (seen: readonly Seen[], at_ms: number): Seen | null =>
  seen.findLast(s => s.at_ms <= at_ms) ?? seen[0] ?? null;

/** When it boiled again, or for the first time, from a moment on; null where it never did. */
const boilsFrom = (seen: readonly Seen[], at_ms: number): number | null => {
  const now = seenAt(seen, at_ms);
  if (now?.boiling) return at_ms;
  return seen.find(s => s.at_ms > at_ms && s.boiling)?.at_ms ?? null;
};

/** A load's clock, held against its boil. */
function clocks({ state, seen, now_ms }: Rehearsed, habits: Pick<Habits, 'locale' | 'zone'>): Finding[] {
  return state.loads.flatMap(load => {
    if (!load.boilingSince) return [];
    const from_ms = load.boilingSince.at_ms;
    const to_ms = load.heatOff?.at_ms ?? now_ms;
    const boils_ms = boilsFrom(seen, from_ms);
    const early_ms = (boils_ms ?? to_ms) - from_ms;
    const out: Finding[] = [];
    const at = (ms: number) => clockText(ms, habits, true);
    out.push(
      early_ms > EARLY_MS
        ? missed(
            'clock-early',
            boils_ms === null
              ? `The clock of load ${load.number} was started at ${at(from_ms)}, and its water never boiled.`
              : `The clock of load ${load.number} was started at ${at(from_ms)}; it boiled at ${at(boils_ms)}.`,
            'The time counts from a full boil over the lids. What runs before it heats no jar through, and the record cannot tell.',
          )
        : well('clock', `The clock of load ${load.number} was started at the full boil.`),
    );
    const gone = seen.find(s => s.at_ms > (boils_ms ?? to_ms) && s.at_ms < to_ms && !s.boiling);
    if (gone)
      out.push(
        missed(
          'clock-ran-on',
          `At ${at(gone.at_ms)} the boil or the water over the lids of load ${load.number} was gone, and its clock ran on.`,
          load.phase === 'processed' || load.phase === 'resting'
            ? 'The record says that it was processed, and its jars would have gone to the shelf. Nothing but the eye at the canner knows better.'
            : 'The time starts again from zero once it boils.',
        ),
      );
    return out;
  });
}

/** What was made to go wrong: whether it was seen, how soon, and whether it was put right. */
function troubles({ events, wentWrong }: Rehearsed, habits: Pick<Habits, 'locale' | 'zone'>): Finding[] {
  return wentWrong.flatMap(({ scene, from_ms, to_ms }): Finding[] => {
    const at = clockText(from_ms, habits, true);
    if (scene === 'boil lost' || scene === 'low water') {
      const name = scene === 'boil lost' ? 'The boil was lost' : 'The water sank below the lids';
      const entry = events.find(
        e => e.type === 'load.boil_lost' && Date.parse(e.occurredAt) >= from_ms - EARLY_MS,
      );
      if (!entry)
        return [
          missed(
            'trouble-unseen',
            `${name} at ${at}, and nobody entered it.`,
            'A load that lost its boil starts again from zero. One that only looks whole is the most dangerous there is.',
          ),
        ];
      const after_ms = Math.max(0, Date.parse(entry.occurredAt) - from_ms);
      const seen = `${name} at ${at}; it was entered ${after_ms < 1000 ? 'at once' : `after ${durationText(after_ms / 1000)}`}.`;
      return [
        after_ms > SEEN_WITHIN_MS
          ? missed(
              'trouble-late',
              seen,
              'Stay within sight of the canner: until somebody looked its clock ran on.',
            )
          : well('trouble-seen', seen),
        ...(to_ms === null
          ? [
              missed(
                'trouble-open',
                scene === 'boil lost'
                  ? 'The canner was never brought back to a boil.'
                  : 'No boiling water was poured in.',
                'Its jars stay unprocessed.',
              ),
            ]
          : []),
      ];
    }
    const [wrong, right, why] = PUT_RIGHT[scene];
    return [
      to_ms === null
        ? missed('trouble-open', `${wrong} from ${at} on, until the end.`, why)
        : well(
            'trouble-seen',
            `${wrong} from ${at} on; ${right} after ${durationText((to_ms - from_ms) / 1000)}.`,
          ),
    ];
  });
}

const PUT_RIGHT = {
  'probe on the bottom': [
    'The probe stood on the bottom of the pot',
    'it was lifted',
    'There it reads the metal: the jam is done too early, and sets soft.',
  ],
  'scale creeping': [
    'The scale crept',
    'it was set to zero',
    'What it shows is no weight: take everything off, and set it to zero before each bowl.',
  ],
  'rubbish on the line': [
    'Rubbish came from the probe',
    'its plug was put in again',
    'Read a dial meanwhile, and type it in: the pot does not wait for a wire.',
  ],
} as const;

/** What was logged of the pot, held against how hot it was. */
function readings(
  { state, seen }: Rehearsed,
  habits: Pick<Habits, 'locale' | 'zone' | 'temperature'>,
): Finding[] {
  const off_C = state.started?.kitchen.thermometerError_C ?? 0;
  const read = state.temperatures.filter(t => t.where === 'pot' && t.part === '');
  const wrong = read.flatMap(t => {
    const really = seenAt(seen, t.by.at_ms);
    return really && Math.abs(t.temp_C - (really.pot_C + off_C)) > READ_WITHIN_C
      ? [{ t, really_C: really.pot_C + off_C }]
      : [];
  });
  if (wrong.length === 0)
    return read.length === 0
      ? []
      : [well('readings', `Every temperature that was logged was the pot's (${read.length}).`)];
  return wrong.map(({ t, really_C }) =>
    missed(
      'reading-off',
      `${temperatureText(t.temp_C, habits)} was logged at ${clockText(t.by.at_ms, habits, true)}; the pot stood at ${temperatureText(really_C, habits)} on that thermometer.`,
      'Stir, and hold the probe in the middle, before a reading is believed.',
    ),
  );
}

/** What was weighed while the scale crept. */
function weights({ events, wentWrong }: Rehearsed, habits: Pick<Habits, 'locale' | 'zone'>): Finding[] {
  const creeping = wentWrong.filter(w => w.scene === 'scale creeping');
  return events.flatMap(e => {
    if (e.type !== 'line.weighed') return [];
    const at_ms = Date.parse(e.occurredAt);
    const crept = creeping.some(w => at_ms >= w.from_ms && (w.to_ms === null || at_ms < w.to_ms));
    const { mass_g } = (e as BatchEvent<'line.weighed'>).body;
    return crept
      ? [
          missed(
            'weighed-creeping',
            `${massText(mass_g, habits)} was entered at ${clockText(at_ms, habits, true)} from a scale that crept.`,
            'Acid, salt and sugar are only as right as the scale.',
          ),
        ]
      : [];
  });
}

/** Pots that are cooked to a temperature, held against how hot they were when somebody said done. */
function ends(
  { state, seen }: Rehearsed,
  habits: Pick<Habits, 'locale' | 'temperature' | 'zone'>,
): Finding[] {
  const { started } = state;
  if (!started) return [];
  const off_C = started.kitchen.thermometerError_C;
  return started.recipe.steps.flatMap(step => {
    const done = state.steps[step.id]?.done;
    const target_C =
      step.target.kind === 'gel point'
        ? started.gelPoint_C
        : step.target.kind === 'temperature'
          ? step.target.temp_C
          : null;
    const really = done && seenAt(seen, done.at_ms);
    if (step.kind !== 'cook' || step.part !== '' || target_C === null || !really) return [];
    const over_C = really.pot_C + off_C - target_C;
    const said = `The pot was taken off at ${temperatureText(really.pot_C + off_C, habits)}; its target is ${temperatureText(target_C, habits)}.`;
    return [
      over_C < -SET_WITHIN_C
        ? missed(
            'end-under',
            said,
            'It is under its target: a spread stays thin, and an own one does not keep.',
          )
        : over_C > SET_WITHIN_C && step.target.kind === 'gel point'
          ? missed('end-over', said, 'It is over its set: stiff, dark, and fewer jars than the pot held.')
          : well('end', said),
    ];
  });
}

/** Steps that stayed open, and those that came before their turn. */
function steps(state: BatchState): Finding[] {
  const all = state.started?.recipe.steps ?? [];
  const open = all.flatMap((s, i) => (isStepDone(state, s) ? [] : [i + 1]));
  const early = all.flatMap((s, i) => (state.steps[s.id]?.outOfOrder ? [i + 1] : []));
  return [
    open.length === 0
      ? well('steps', `All ${all.length} steps were done.`)
      : missed(
          'steps-open',
          `Of ${all.length} steps these were not done: ${open.join(', ')}.`,
          'A rehearsal may stop anywhere; a batch that does is asked about at the gate.',
        ),
    ...(early.length === 0
      ? []
      : [
          missed(
            'steps-early',
            `Before their turn: ${early.join(', ')}.`,
            'The order is part of what was tested; the reason stays beside the step.',
          ),
        ]),
  ];
}

/** What the gate would say of such a batch, and what its record shows to be against a rule. */
function held({ state, standing }: Rehearsed): Finding[] {
  const deviations = state.deviations
    .filter(d => !d.settled)
    .map(d => missed(`deviation-${d.code}`, d.what, d.next));
  const conditions = standing.gate.conditions
    .filter(c => !c.met && c.code !== 'deviations' && !NOT_REHEARSED.has(c.code))
    .map(c => missed(`gate-${c.code}`, `${c.title}: ${c.evidence}`, c.next));
  return state.jars.length === 0 ? deviations : [...deviations, ...conditions];
}
