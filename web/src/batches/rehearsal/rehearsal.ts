import { type FactEntry } from '@cocotte/contract';
import {
  type BatchEvent,
  type BatchState,
  complete,
  cookNow,
  openNow,
  type StartedBody,
  VERSIONS,
} from '@cocotte/core/batches';
import { assess } from '@cocotte/core/checks';
import { boilingPoint_C } from '@cocotte/core/heat';
import { byName } from '@cocotte/core/measure';
import type { Instrument, Kitchen } from '@cocotte/core/kitchen';
import { debrief, type Finding } from '@cocotte/core/rehearsal';
import { DryKitchen, type Instrument as StandIn, type Scene } from '@cocotte/devices';
import { v7 } from 'uuid';
import type { Clock } from '../../shell/clock.ts';
import type { Fact, OpenBatch } from '../open-batch.ts';

/** How fast a rehearsal runs. */
export const SPEEDS = [1, 5, 15, 60] as const;
/** Times real time ({@link SPEEDS}). */
export type Speed = (typeof SPEEDS)[number];

const TICK_MS = 250;
/** A page that slept rehearses on from where it fell asleep. */
const LONGEST_TICK_MS = 2000;

/**
 * Something cooked dry: a batch whose record lives in this tab alone, beside stand-ins and a clock of its own. Nothing of it
 * goes to the outbox, the stock or the kitchen.
 */
export class Rehearsal {
  readonly dry: DryKitchen;
  readonly clock: Clock;
  speed: Speed = 5;
  /** It is looked back at: its clock stands. */
  over = false;
  private events: BatchEvent[] = [];
  private now_ms: number;
  private readonly began_ms: number;
  private counter = 0;
  private filledWith = '';
  private loaded = '';
  private assessed: ReturnType<typeof assess>;
  private readonly listeners = new Set<() => void>();
  private readonly session = v7();
  private version = 0;

  constructor(
    started: StartedBody,
    readonly personId: string,
    readonly kitchen: Kitchen,
    scene: Scene | null,
    at_ms: number,
  ) {
    this.began_ms = at_ms;
    this.now_ms = at_ms;
    this.dry = new DryKitchen(boilingPoint_C(kitchen.altitude_m), kitchen.thermometerError_C, scene);
    this.clock = {
      subscribe: this.subscribe,
      shown_ms: () => this.now_ms,
      now_ms: () => this.now_ms,
    };
    this.events = [this.entryOf('batch.started', started, null)];
    this.assessed = assess(this.events);
    this.settle();
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** Changes whenever something of it did. */
  readonly seen = (): number => this.version;

  /** Lets its clock run while somebody looks; gives what stops it. */
  run(): () => void {
    let last_ms = performance.now();
    const timer = setInterval(() => {
      const now_ms = performance.now();
      if (!this.over) this.pass(Math.min(LONGEST_TICK_MS, now_ms - last_ms) * this.speed);
      last_ms = now_ms;
    }, TICK_MS);
    return () => clearInterval(timer);
  }

  /** So much of its time passes. */
  pass(ms: number): void {
    this.dry.tick(ms / 1000);
    this.now_ms += ms;
    this.tell();
  }

  /** Changes something beside the pot. */
  do(change: (dry: DryKitchen) => void): void {
    change(this.dry);
    this.tell();
  }

  set(next: { speed?: Speed; over?: boolean }): void {
    Object.assign(this, next);
    this.tell();
  }

  /** The batch, as every panel of the counter takes it. */
  batch(): OpenBatch {
    const enter: OpenBatch['enter'] = async (facts, when) => {
      const at =
        typeof when === 'number' ? { typedAt_ms: when } : when ? await when.read() : { typedAt_ms: null };
      if (!at) return null;
      const made = facts.map(([type, body]) =>
        this.entryOf(type, complete(type, body as never), at.typedAt_ms),
      );
      this.events = [...this.events, ...made];
      this.assessed = assess(this.events);
      this.settle();
      this.tell();
      return made.map(e => e.id);
    };
    const id = this.events[0]?.batchId ?? '';
    return {
      id,
      rehearsal: true,
      view: { id, events: this.events as never, people: {}, lastSeq: this.events.length },
      events: this.events,
      ...this.assessed,
      pending: [],
      enter,
      sign: async (facts: Fact[], when) => {
        await enter(facts, when);
        return [];
      },
      // What the kitchen decides (lots, releases, labels) is not rehearsed, and has no button here.
      decide: async () => [],
      busy: false,
    };
  }

  /** The stand-ins, as instruments beside the counter. */
  instruments(): Instrument[] {
    const { rubbish } = this.dry.see();
    const of = (one: StandIn): Instrument => {
      const { value, steady } = one.show();
      const troubled = rubbish && one.kind === 'thermometer';
      return {
        id: one.id,
        kind: one.kind,
        name: one.name,
        state: troubled ? 'rubbish' : 'reading',
        value: troubled ? null : value,
        steady: !troubled && steady,
        calibrated: one.calibrated,
      };
    };
    return [this.dry.probe, this.dry.scale, this.dry.refractometer].map(of);
  }

  /** What was done well, and what was missed, until now. */
  debrief(): Finding[] {
    const at = (s: number) => this.began_ms + s * 1000;
    return debrief(
      {
        ...this.assessed,
        events: this.events,
        seen: this.dry.sights.map(({ at_s, ...seen }) => ({ at_ms: at(at_s), ...seen })),
        wentWrong: this.dry.happened.map(h => ({
          scene: h.scene,
          from_ms: at(h.from_s),
          to_ms: h.to_s === null ? null : at(h.to_s),
        })),
        now_ms: this.now_ms,
      },
      this.kitchen,
    );
  }

  private entryOf(type: BatchEvent['type'], body: unknown, typedAt_ms: number | null): BatchEvent {
    const clock = new Date(this.now_ms).toISOString();
    const at = typedAt_ms === null ? clock : new Date(typedAt_ms).toISOString();
    this.counter += 1;
    return {
      id: v7(),
      typeVersion: VERSIONS[type],
      personId: this.personId,
      deviceId: this.session,
      deviceCounter: this.counter,
      wallClock: clock,
      monotonic_ms: this.now_ms - this.began_ms,
      pageSessionId: this.session,
      clockOffset_ms: 0,
      clockOffsetAge_ms: 0,
      occurredAt: at,
      typedInAfterwards: typedAt_ms !== null,
      basedOnSeq: this.counter - 1,
      type,
      body,
      kitchenId: this.session,
      batchId: this.events?.[0]?.batchId ?? this.session,
      receipt: { seq: this.counter, at: clock, sentAt: clock, signs: true },
    } as unknown as FactEntry & BatchEvent;
  }

  /** The stand-ins follow the record: what is in the pot, and what is in the canner. */
  private settle(): void {
    const { state } = this.assessed;
    const inPot = potNow(state);
    const key = inPot ? `${inPot.stepId} ${Math.round(inPot.water_g + inPot.solids_g)}` : '';
    if (inPot && key !== this.filledWith) {
      this.filledWith = key;
      this.dry.put(inPot.water_g, inPot.solids_g);
    }
    const load = state.loads.find(l => !l.lifted && !l.heatOff) ?? null;
    if ((load?.id ?? '') !== this.loaded) {
      this.loaded = load?.id ?? '';
      this.dry.load(load?.jars.length ?? 0);
    }
  }

  private tell(): void {
    this.version += 1;
    for (const listener of this.listeners) listener();
  }
}

/** What the pot holds as the cook step in hand, or else the first to come, begins: of one pot. */
function potNow(state: BatchState): { stepId: string; water_g: number; solids_g: number } | null {
  const steps = state.started?.recipe.steps ?? [];
  const open = openNow(state).find(s => s.kind === 'cook' && s.part === '');
  const step = open ?? steps.find(s => s.kind === 'cook' && s.part === '' && !state.steps[s.id]?.done);
  if (!step) return null;
  // As it begins: without what was read of it since.
  const seen = cookNow(
    { ...state, temperatures: [], solids: [], levels: [], steps: byName() },
    step,
    null,
    0,
  );
  if (!seen) return null;
  const solids_g = (seen.now_g * seen.brix) / 100;
  return { stepId: step.id, water_g: seen.now_g - solids_g, solids_g };
}

/** Rehearsals of this tab, by their recipe: somebody looks something up and comes back. */
const kept = new Map<string, Rehearsal>();

/** The rehearsal of a recipe that goes on in this tab; null for none. */
export const keptRehearsal = (recipeId: string): Rehearsal | null => kept.get(recipeId) ?? null;

/** Keeps it, or, with null, lets it go. */
export function keepRehearsal(recipeId: string, rehearsal: Rehearsal | null): void {
  if (rehearsal) kept.set(recipeId, rehearsal);
  else kept.delete(recipeId);
}
