import { plainCosts } from '@cocotte/core/kitchen';
import { randomUUID } from 'node:crypto';
import {
  type BatchEvent,
  type DrawnLot,
  type Entered,
  type EventBodies,
  type EventType,
  type FactType,
  type StartedBody,
  complete,
  fold,
  lineMasses,
} from '@cocotte/core/batches';
import { boilingPoint_C, gelPoint_C } from '@cocotte/core/heat';
import { type JarsWanted, type Recipe, factorForJars } from '@cocotte/core/recipes';
import { processFor, routeToSale } from '@cocotte/core/review';
import { calibratedAt, rechecked } from './bench.ts';
import { Device } from './device.ts';

export const START_MS = Date.parse('2026-11-20T15:00:00Z');
const MINUTE = 60_000;

/** How an entry is made and arrives; at once, by the batch's own device, unless said. */
export interface Entering {
  device?: Device;
  /** Typed in afterwards. */
  typed?: boolean;
  /** It happened so long ago. */
  ago_min?: number;
  /** It arrives so much later. */
  arrives_min?: number;
  /** It is still on its device. */
  waits?: boolean;
  /** Whether who enters it may sign. */
  signs?: boolean;
  /** The last number its device had seen. */
  saw?: number;
  /** Server clock minus device clock when it is sent, where that is another than when it was stamped. */
  sentOffset_ms?: number;
}

/** A batch's events in memory, made as the server would make them, for tests of fold, gate, cost and labels. */
export class PaperBatch {
  readonly kitchenId = randomUUID();
  readonly batchId = randomUUID();
  readonly events: BatchEvent[] = [];
  readonly device: Device;
  now_ms = START_MS;
  readonly lidLotId = randomUUID();
  readonly jarLotId = randomUUID();

  constructor(
    readonly recipe: Recipe,
    readonly jars: JarsWanted[],
    readonly started: Partial<StartedBody> = {},
    offset_ms: number | null = 0,
  ) {
    this.device = new Device(randomUUID(), START_MS, offset_ms);
    const altitude_m = started.kitchen?.altitude_m ?? 716.28;
    const answers = jars.map(j => ({ size: j.size, answer: processFor(recipe, j.size, altitude_m) }));
    this.add('batch.started', {
      recipeId: randomUUID(),
      recipeVersion: 1,
      recipe,
      factor: factorForJars(recipe, jars).toFraction(),
      jars,
      purpose: 'sale',
      lotCode: `${recipe.code}-26324-1X`,
      madeOn: '2026-11-20',
      kitchen: {
        name: 'Test Kitchen',
        altitude_m,
        zone: 'UTC',
        locale: 'en-US',
        currency: 'USD',
        hourlyRate: '18.00',
        thermometerError_C: 0,
        costs: plainCosts,
      },
      boilingPoint_C: boilingPoint_C(altitude_m),
      gelPoint_C: gelPoint_C(altitude_m),
      times: answers.flatMap(a => (a.answer.ok ? [a.answer.time] : [])),
      noTime: answers.flatMap(a =>
        a.answer.ok ? [] : [{ size: a.size, what: a.answer.what, why: a.answer.why }],
      ),
      route: routeToSale(recipe),
      phLimit: recipe.authority.grade === 'letter' ? recipe.authority.maxPh : 4.6,
      heat: 'boiling water',
      pots: { count: 1, each: factorForJars(recipe, jars).toFraction(), overridden: false, reasons: [] },
      expected: null,
      potId: null,
      ...started,
    });
  }

  add<K extends EventType>(type: K, body: Entered<K>, options: Entering = {}): BatchEvent {
    const { device = this.device, typed = false, arrives_min = 0, saw = 0 } = options;
    const happened_ms = this.now_ms - (options.ago_min ?? 0) * MINUTE;
    const arrived_ms = this.now_ms + arrives_min * MINUTE;
    const event = {
      ...device.stamp(happened_ms, typed, type, saw),
      kitchenId: this.kitchenId,
      batchId: this.batchId,
      type,
      body: complete(type, body),
      receipt: options.waits
        ? null
        : {
            seq: this.events.filter(e => e.receipt).length + 1,
            at: new Date(arrived_ms).toISOString(),
            sentAt: new Date(arrived_ms - (options.sentOffset_ms ?? device.offset_ms ?? 0)).toISOString(),
            signs: options.signs ?? true,
          },
    } as unknown as BatchEvent;
    this.events.push(event);
    return event;
  }

  wait(minutes: number): this {
    this.now_ms += minutes * MINUTE;
    return this;
  }

  /** Grams as bought of a line that a draw takes: what was weighed of it, else what is planned; null where it was drawn. */
  private wanted_g(lineId: string): number | null {
    const state = fold(this.events);
    if (state.draws.some(d => d.lots.some(l => l.lineId === lineId))) return null;
    const mass = lineMasses(state).find(m => m.line.id === lineId);
    return mass ? mass.actual_g / mass.line.trimYield : null;
  }

  /** A lot for each line but water, the jars and the lids. */
  drawAll(unitCost = '0.01'): this {
    const lot = (over: Partial<DrawnLot>): DrawnLot => ({
      lotId: randomUUID(),
      itemId: randomUUID(),
      kind: 'ingredient',
      name: 'x',
      lotLabel: 'L-1',
      lineId: null,
      jarSize: null,
      quantity: '100',
      unit: 'g',
      unitCost,
      mass_g: null,
      trimYield: null,
      labelName: '',
      subIngredients: '',
      allergens: [],
      ...over,
    });
    const count = this.jars.reduce((n, j) => n + j.count, 0);
    this.add('lot.drawn', {
      lots: [
        ...this.recipe.lines
          .filter(l => l.role !== 'water')
          .map(l =>
            lot({
              lineId: l.id,
              mass_g: this.wanted_g(l.id),
              name: l.name,
              trimYield: null,
              labelName: l.labelName,
              subIngredients: l.subIngredients,
              allergens: l.allergens,
            }),
          ),
        lot({
          kind: 'jar',
          lotId: this.jarLotId,
          name: 'Jars',
          jarSize: this.jars[0]?.size ?? null,
          quantity: String(count),
          unit: 'each',
          unitCost: '0.92',
        }),
        lot({
          kind: 'lid',
          lotId: this.lidLotId,
          name: 'Lids',
          quantity: String(count),
          unit: 'each',
          unitCost: '0.21',
        }),
      ],
    });
    return this;
  }

  fill(jars: number[], size = this.jars[0]?.size ?? 'pint'): this {
    this.add('jars.filled', { size, jars, jarLotId: this.jarLotId, lidLotId: this.lidLotId });
    for (const line of this.recipe.lines.filter(l => l.where === 'each jar'))
      this.add('dose.given', { lineId: line.id, jars });
    return this;
  }

  /** Packs and processes one load for `minutes` at the boil. */
  process(number: number, jars: number[], minutes: number): string {
    const loadId = randomUUID();
    this.add('load.packed', { loadId, number, jars, newLidLotId: null });
    this.wait(10).add('load.boiling', { loadId });
    this.wait(minutes).add('load.heat_off', { loadId });
    this.wait(5).add('load.lifted', { loadId });
    return loadId;
  }

  fact<K extends FactType>(type: K, body: Entered<K>): this {
    this.add(type, body);
    return this;
  }

  /** Cooks all the way to pressed jars: everything as it should be but the acidity reading. */
  cookWell(): this {
    const count = this.jars.reduce((n, j) => n + j.count, 0);
    const numbers = Array.from({ length: count }, (_, i) => i + 1);
    const required = (this.events[0] as BatchEvent<'batch.started'>).body.times[0]?.minutes ?? 10;
    this.drawAll().wait(60);
    if (this.recipe.foodClass === 'fruit spread')
      this.fact('temperature.read', { where: 'pot', temp_C: 103 });
    this.fill(numbers).process(1, numbers, required);
    return this.wait(13 * 60)
      .fact('jars.pressed', { sealed: numbers, failed: [] })
      .wait(13 * 60);
  }

  /** Read on a meter that was calibrated within the hour, and whose buffer is right again. */
  readPh(ph: number, over: Partial<EventBodies['ph.read']> = {}, options: Entering = {}): this {
    const calibration = calibratedAt(this.now_ms - (options.ago_min ?? 0) * MINUTE);
    this.add('meter.rechecked', rechecked(calibration), options);
    this.add(
      'ph.read',
      {
        calibration,
        jar: 1,
        ph,
        temp_C: 24,
        hoursSinceProcessing: 26,
        method: 'meter',
        buffers: [4.01, 7],
        reference: '',
        ...over,
      },
      options,
    );
    return this;
  }

  /** Solids and brine of the tightest jar, read apart: what shows equilibrium of pieces at once. */
  readApart(ph: number, over: Partial<EventBodies['ph.read']> = {}): this {
    return this.readPh(ph, { sample: 'brine', tightest: true, ...over }).readPh(ph, {
      sample: 'solids',
      tightest: true,
      ...over,
    });
  }
}
