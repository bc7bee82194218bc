import { randomUUID } from 'node:crypto';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { crushedTomatoes } from '../../demo/recipes.ts';
import { PaperBatch, START_MS } from '../../testing/builders.ts';
import { type BatchEvent, VERSIONS, complete, fold } from '../batches/index.ts';
import { canonicalJson } from '../measure/index.ts';
import { assess } from './index.ts';

/**
 * Histories of one batch, drawn at random: two people with a device each, whose clocks run wrong, jump and sleep, who
 * lose the connection and send what they kept later, doubled and in any order. What happened is known here apart from
 * what was entered of it, by a model of the trade that shares no code with the gate.
 */
const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
const REQUIRED_MIN = 40;
const JARS = [1, 2, 3, 4];

type Kind = 'fill' | 'dose' | 'pack' | 'boil' | 'lose' | 'off' | 'lift' | 'press' | 'read';
/** What happened, when, and on which device it was entered. */
interface Act {
  kind: Kind;
  at_ms: number;
  device: 0 | 1;
  ph?: number;
  failed?: number[];
}

interface Habits {
  /** By how much the clock is wrong from the first, and by how much it jumps, and when. */
  skew_ms: number;
  jump_ms: number;
  jumpAt_ms: number;
  /** The page stands still between these. */
  sleeps: [from_ms: number, to_ms: number];
  /** Whether its clock was ever compared with the kitchen's: at the start, or whenever it was connected. */
  measures: 'never' | 'at the start' | 'whenever connected';
  /** Not connected between these. */
  away: [from_ms: number, to_ms: number];
}

/** The entries of what happened, as the devices make them and the server receives them. */
function enter(acts: readonly Act[], habits: readonly [Habits, Habits]): BatchEvent[] {
  const batch = new PaperBatch(crushedTomatoes, [{ size: 'pint', count: 4 }]).drawAll();
  const loadId = randomUUID();
  const bodies: { [K in Kind]: (a: Act) => [BatchEvent['type'], object] } = {
    fill: () => [
      'jars.filled',
      { size: 'pint', jars: JARS, jarLotId: batch.jarLotId, lidLotId: batch.lidLotId },
    ],
    dose: () => ['dose.given', { lineId: 'lemon', jars: JARS }],
    pack: () => ['load.packed', { loadId, number: 1, jars: JARS, newLidLotId: null }],
    boil: () => ['load.boiling', { loadId }],
    lose: () => ['load.boil_lost', { loadId }],
    off: () => ['load.heat_off', { loadId }],
    lift: () => ['load.lifted', { loadId }],
    press: a => [
      'jars.pressed',
      { sealed: JARS.filter(n => !a.failed?.includes(n)), failed: a.failed ?? [] },
    ],
    read: a => [
      'ph.read',
      {
        jar: 1,
        ph: a.ph,
        temp_C: 24,
        hoursSinceProcessing: 30,
        // By a laboratory: what is tried here is the clocks, not the meter.
        method: 'laboratory',
        buffers: [],
        reference: 'LAB-7',
        paper: { paperId: randomUUID(), sha256: 'a'.repeat(64) },
      },
    ],
  };
  const devices = habits.map(() => ({ id: randomUUID(), session: randomUUID(), counter: 0, sent_ms: 0 }));
  const clock = (h: Habits, at_ms: number) => at_ms + h.skew_ms + (at_ms >= h.jumpAt_ms ? h.jump_ms : 0);
  const page = (h: Habits, at_ms: number) => {
    const [from, to] = h.sleeps;
    return at_ms - START_MS - Math.max(0, Math.min(at_ms, to) - Math.max(START_MS, Math.min(at_ms, from)));
  };
  const connected = (h: Habits, at_ms: number) => at_ms < h.away[0] || at_ms >= h.away[1];
  const made = [...acts]
    .sort((a, b) => a.at_ms - b.at_ms)
    .map(act => {
      const h = habits[act.device] as Habits;
      const device = devices[act.device] as (typeof devices)[number];
      const measured_ms =
        h.measures === 'never'
          ? null
          : h.measures === 'at the start'
            ? START_MS
            : connected(h, act.at_ms)
              ? act.at_ms - 2000
              : h.away[0] - 2000;
      const arrived_ms = Math.max(
        device.sent_ms + 1,
        connected(h, act.at_ms) ? act.at_ms + 300 : h.away[1] + 300,
      );
      device.sent_ms = arrived_ms;
      const [type, body] = bodies[act.kind](act);
      const wall = new Date(clock(h, act.at_ms)).toISOString();
      return {
        act,
        arrived_ms,
        seen_ms: connected(h, act.at_ms) ? act.at_ms - 1000 : h.away[0],
        event: {
          id: randomUUID(),
          typeVersion: VERSIONS[type],
          personId: randomUUID(),
          deviceId: device.id,
          deviceCounter: device.counter++,
          wallClock: wall,
          monotonic_ms: page(h, act.at_ms),
          pageSessionId: device.session,
          clockOffset_ms: measured_ms === null ? null : measured_ms - clock(h, measured_ms),
          clockOffsetAge_ms: measured_ms === null ? null : act.at_ms - measured_ms,
          occurredAt: wall,
          typedInAfterwards: false,
          kitchenId: batch.kitchenId,
          batchId: batch.batchId,
          type,
          body: complete(type, body as never),
        },
        sentAt: new Date(clock(h, arrived_ms) - 150).toISOString(),
      };
    });
  made.sort((a, b) => a.arrived_ms - b.arrived_ms);
  const before = batch.events.length;
  return [
    ...batch.events,
    ...made.map(
      ({ event, arrived_ms, seen_ms, sentAt }, i) =>
        ({
          ...event,
          basedOnSeq: before + made.filter(m => m.arrived_ms <= seen_ms).length,
          receipt: { seq: before + i + 1, at: new Date(arrived_ms).toISOString(), sentAt, signs: true },
        }) as unknown as BatchEvent,
    ),
  ];
}

/** Jars that are safe by what happened, as the trade has it; told apart from the code of the gate. */
function safeJars(acts: readonly Act[]): number[] {
  const of = (kind: Kind) => acts.filter(a => a.kind === kind).sort((a, b) => a.at_ms - b.at_ms);
  const [fill] = of('fill');
  const [pack] = of('pack');
  const [lift] = of('lift');
  const [dose] = of('dose');
  if (!fill || !pack || !lift || !dose) return [];
  if (fill.at_ms > pack.at_ms + MINUTE || dose.at_ms > pack.at_ms + MINUTE) return [];
  const [off] = of('off').filter(a => a.at_ms <= lift.at_ms);
  const end_ms = off ? off.at_ms : lift.at_ms - 10 * MINUTE;
  const boil = of('boil').findLast(a => a.at_ms <= end_ms);
  if (!boil || boil.at_ms < pack.at_ms - MINUTE) return [];
  if (of('lose').some(a => a.at_ms > boil.at_ms && a.at_ms < end_ms)) return [];
  if (end_ms - boil.at_ms < REQUIRED_MIN * MINUTE - 15_000) return [];
  const readings = of('read');
  if (readings.some(a => (a.ph as number) > 4.6)) return [];
  if (!readings.some(a => a.at_ms - lift.at_ms >= 24 * HOUR - MINUTE)) return [];
  const failed = new Set(
    of('press')
      .filter(a => a.at_ms >= lift.at_ms)
      .flatMap(a => a.failed ?? []),
  );
  const pressed = of('press').some(a => a.at_ms - lift.at_ms >= 12 * HOUR - MINUTE);
  return pressed ? JARS.filter(n => !failed.has(n)) : [];
}

const device = fc.constantFrom<0 | 1>(0, 1);
/** A day at the canner with its slips: what happens is drawn around what should. */
const day = fc
  .record({
    who: fc.array(device, { minLength: 12, maxLength: 12 }),
    fill_min: fc.constantFrom(60, 60, 60, 130),
    dose_min: fc.constantFrom(62, 62, 62, 100),
    pack_min: fc.constantFrom(66, 66, 66, 90),
    boil_min: fc.constantFrom(76, 76, 80),
    lost: fc.constantFrom(false, false, false, true),
    boiled_min: fc.constantFrom(41, 41, 45, 30, 39),
    saysOff: fc.constantFrom(true, true, true, false),
    offTwice: fc.constantFrom(false, false, true),
    rest_min: fc.constantFrom(5, 10),
    press_h: fc.constantFrom(13, 13, 20, 1, 11),
    failed: fc.constantFrom<number[]>([], [], [3]),
    pressAgain_h: fc.constantFrom<number | null>(null, null, 30),
    read_h: fc.constantFrom(26, 26, 40, 2, 23),
    ph: fc.constantFrom(4.1, 4.1, 4.1, 4.7),
  })
  .map((d): Act[] => {
    let i = 0;
    const act = (kind: Kind, at_min: number, over: Partial<Act> = {}): Act => ({
      kind,
      at_ms: START_MS + at_min * MINUTE + i * 1000,
      device: d.who[i++ % d.who.length] as 0 | 1,
      ...over,
    });
    const off_min = d.boil_min + d.boiled_min;
    const lift_min = off_min + d.rest_min;
    return [
      act('fill', d.fill_min),
      act('dose', d.dose_min),
      act('pack', d.pack_min),
      act('boil', d.boil_min),
      ...(d.lost ? [act('lose', d.boil_min + 12)] : []),
      ...(d.saysOff ? [act('off', off_min)] : []),
      ...(d.offTwice ? [act('off', off_min + 2)] : []),
      act('lift', lift_min),
      act('press', lift_min + d.press_h * 60, { failed: d.failed }),
      ...(d.pressAgain_h === null ? [] : [act('press', lift_min + d.pressAgain_h * 60)]),
      act('read', lift_min + d.read_h * 60, { ph: d.ph }),
    ];
  });
const span = (most_h: number) =>
  fc
    .tuple(fc.integer({ min: 0, max: 50 * 60 }), fc.integer({ min: 0, max: most_h * 60 }))
    .map(([from, length]): [number, number] => [
      START_MS + from * MINUTE,
      START_MS + (from + length) * MINUTE,
    ]);
const never: [number, number] = [Number.MAX_SAFE_INTEGER, Number.MAX_SAFE_INTEGER];
const habits = fc.record<Habits>({
  skew_ms: fc.constantFrom(0, 0, 40_000, -2 * HOUR, 13 * HOUR, -13 * HOUR, 400 * 24 * HOUR),
  jump_ms: fc.constantFrom(0, 0, 0, HOUR, -HOUR, 12 * HOUR, -12 * HOUR, 30 * MINUTE),
  jumpAt_ms: fc.integer({ min: 0, max: 50 * 60 }).map(m => START_MS + m * MINUTE),
  sleeps: fc.oneof(fc.constant(never), span(3)),
  measures: fc.constantFrom('whenever connected', 'whenever connected', 'at the start', 'never'),
  away: fc.oneof(fc.constant(never), span(20)),
});
const sound: Habits = {
  skew_ms: 0,
  jump_ms: 0,
  jumpAt_ms: START_MS,
  sleeps: never,
  measures: 'whenever connected',
  away: never,
};

/** Thousands of histories take seconds, and longer beside other work. */
const PATIENCE = { timeout: 120_000 };

describe('histories drawn at random', PATIENCE, () => {
  it('open the gate for no jar that is not safe by what happened', () => {
    let opened = 0;
    fc.assert(
      fc.property(day, fc.tuple(habits, habits), (acts, both) => {
        const events = enter(acts, both);
        const { releasable } = assess(events).standing.gate;
        const safe = safeJars(acts);
        opened += releasable.length > 0 ? 1 : 0;
        expect(releasable.filter(n => !safe.includes(n))).toEqual([]);
      }),
      { numRuns: 4000 },
    );
    // It is no test if nothing ever gets through.
    expect(opened).toBeGreaterThan(20);
  });

  it('of an honest day open it, whoever enters it, sent at once or kept for hours, over a sleep of the page', () => {
    const honest = fc.record({
      who: fc.array(device, { minLength: 9, maxLength: 9 }),
      skews: fc.tuple(fc.constantFrom(0, 13 * HOUR, -2 * HOUR), fc.constantFrom(0, 40_000)),
      away: fc.oneof(fc.constant(never), span(20)),
      sleeps: fc.oneof(fc.constant(never), span(2)),
    });
    fc.assert(
      fc.property(honest, ({ who, skews, away, sleeps }) => {
        const times: [Kind, number][] = [
          ['fill', 60],
          ['dose', 62],
          ['pack', 66],
          ['boil', 76],
          ['off', 117],
          ['lift', 122],
          ['press', 122 + 13 * 60],
          ['read', 122 + 26 * 60],
        ];
        const acts = times.map(([kind, min], i): Act => ({
          kind,
          at_ms: START_MS + min * MINUTE,
          device: who[i] as 0 | 1,
          ...(kind === 'read' ? { ph: 4.1 } : {}),
        }));
        expect(safeJars(acts)).toEqual(JARS);
        const events = enter(acts, [
          { ...sound, skew_ms: skews[0], away, sleeps },
          { ...sound, skew_ms: skews[1], sleeps },
        ]);
        expect(assess(events).standing.gate.releasable).toEqual([2, 3, 4]);
      }),
      { numRuns: 500 },
    );
  });

  it('are folded alike at the server and on each device: in any order, doubled, and again after they arrived', () => {
    fc.assert(
      fc.property(
        day,
        fc.tuple(habits, habits),
        fc.func(fc.double({ noNaN: true })),
        (acts, both, random) => {
          const events = enter(acts, both);
          const mixed = [...events, ...events.filter((_, i) => i % 2 === 0)]
            .map((event, i) => ({ event, by: random(i) }))
            .sort((a, b) => a.by - b.by || 0)
            .map(e => e.event);
          const expected = canonicalJson(fold(events));
          expect(canonicalJson(fold(mixed))).toBe(expected);
          // A device that has seen it arrive, and still holds its own copy of what it sent.
          const held = events.filter((_, i) => i % 3 === 0).map(e => ({ ...e, receipt: null }) as BatchEvent);
          expect(canonicalJson(fold([...held, ...events]))).toBe(expected);
        },
      ),
      { numRuns: 300 },
    );
  });

  it('say of each entry how it is known, and place none of them after it arrived', () => {
    fc.assert(
      fc.property(day, fc.tuple(habits, habits), (acts, both) => {
        const events = enter(acts, both);
        const state = fold(events);
        const traces = [
          ...state.loads.flatMap(l => [l.packed, l.boilingSince, l.heatOff, l.lifted]),
          ...state.jars.flatMap(j => [j.filled, j.pressed?.by ?? null]),
          ...state.readings.map(r => r.by),
        ].flatMap(t => t ?? []);
        for (const t of traces) {
          const event = events.find(e => e.id === t.eventId) as BatchEvent;
          const arrived_ms = Date.parse(event.receipt?.at ?? '');
          expect(t.at_ms).toBeLessThanOrEqual(arrived_ms);
          expect(t.latest_ms).toBeGreaterThanOrEqual(t.at_ms);
          expect(['live', 'queued', 'written up']).toContain(t.known);
          if (t.known === 'live') expect(arrived_ms - t.at_ms).toBeLessThanOrEqual(120_000);
        }
      }),
      { numRuns: 300 },
    );
  });
});
