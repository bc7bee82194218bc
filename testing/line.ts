import { randomUUID } from 'node:crypto';
import {
  type BatchView,
  type Delivery,
  type DrawLine,
  type FactEntry,
  addItem,
  addRecipe,
  appendFacts,
  changeKitchen,
  drawLots,
  readBatch,
  readKitchen,
  receiveLot,
  startBatch,
} from '@cocotte/contract';
import {
  RECORD_SHAPE,
  type BatchState,
  type Entered,
  type FactType,
  type Purpose,
  fold,
} from '@cocotte/core/batches';
import type { JarSizeId } from '@cocotte/core/jars';
import { type Recipe, factorForJars } from '@cocotte/core/recipes';
import { type Item, plainFacts, upgradeItem } from '@cocotte/core/stores';
import { calibratedAt, rechecked } from './bench.ts';
import { Device } from './device.ts';
import { samplePlace } from './place.ts';
import { confirmAs } from './open-page.ts';
import type { Client } from './test-server.ts';

const MINUTE = 60_000;
const range = (n: number) => Array.from({ length: n }, (_, i) => i + 1);

/** The line of work through the API, as one client: stores for a recipe, then a batch, step by step. */
export class Line {
  readonly recipeId = randomUUID();
  batchId = randomUUID();
  readonly lots: Record<string, string> = {};
  device: Device;
  view: BatchView | null = null;

  constructor(
    readonly client: Client,
    readonly recipe: Recipe,
    readonly size: JarSizeId,
    readonly count: number,
  ) {
    this.device = new Device(client.personId, client.server.now_ms);
  }

  static async open(
    client: Client,
    recipe: Recipe,
    size: JarSizeId,
    count: number,
    { demoLetter = false } = {},
  ): Promise<Line> {
    // The demo's letter opens sale in the demo kitchen only: here it is the kitchen's own.
    const own: Recipe =
      recipe.authority.grade === 'letter' && !demoLetter
        ? { ...recipe, authority: { ...recipe.authority, demo: false } }
        : recipe;
    const line = new Line(client, own, size, count);
    await client.ok(addRecipe, { body: { id: line.recipeId, recipe: own } });
    const item = async (
      key: string,
      over: Partial<Item>,
      quantity: string,
      strength_pct: number | null = null,
    ) => {
      const id = randomUUID();
      await client.ok(addItem, {
        body: upgradeItem({
          id,
          kind: 'ingredient',
          name: key,
          unit: 'g',
          unit_g: 1,
          labelName: key,
          ...over,
        }),
      });
      line.lots[key] = randomUUID();
      await client.ok(receiveLot, {
        body: {
          id: line.lots[key] as string,
          itemId: id,
          label: `L-${key}`,
          supplier: 'S',
          receivedOn: '2026-11-01',
          bestBy: null,
          unitCost: '0.01',
          strength_pct,
          facts: plainFacts(),
          quantity,
        },
      });
    };
    for (const l of recipe.lines.filter(x => x.role !== 'water'))
      await item(
        l.id,
        { labelName: l.labelName, allergens: l.allergens, ingredientId: l.ingredientId },
        '500000',
        l.minStrength_pct,
      );
    await item('jars', { kind: 'jar', unit: 'each', unit_g: null, jarSize: size }, '200');
    await item('lids', { kind: 'lid', unit: 'each', unit_g: null }, '200');
    const { id: _id, placed: _placed, demo: _demo, ...settings } = await client.ok(readKitchen);
    await client.ok(changeKitchen, {
      body: {
        ...settings,
        hourlyRate: '18.00',
        makerName: 'Test Kitchen',
        makerAddress: '1 Road, Town',
        jurisdiction: samplePlace({ statement: 'Made at home.', confirmedOn: '2026-01-01' }),
      },
    });
    await confirmAs(client, line.recipeId, own);
    return line;
  }

  wait(minutes: number): this {
    this.client.server.now_ms += minutes * MINUTE;
    return this;
  }

  stamp() {
    return this.device.stamp(this.client.server.now_ms);
  }

  get state(): BatchState {
    return fold(this.view?.events ?? []);
  }

  startBody(purpose: Purpose = 'sale') {
    const jars = [{ size: this.size, count: this.count }];
    return {
      batchId: this.batchId,
      recipeId: this.recipeId,
      recipeVersion: 1,
      purpose,
      factor: factorForJars(this.recipe, jars).toFraction(),
      jars,
      heat: 'boiling water' as const,
      potId: null,
      doublePectin: false,
      stamp: this.stamp(),
    };
  }

  async start(purpose: Purpose = 'sale'): Promise<this> {
    this.view = await this.client.ok(startBatch, { body: this.startBody(purpose) });
    return this;
  }

  drawLines(): DrawLine[] {
    return [
      ...this.recipe.lines
        .filter(l => l.role !== 'water')
        .map((l, i) => ({
          lotId: this.lots[l.id] as string,
          lineId: l.id,
          quantity: i === 0 ? '6000' : '500',
        })),
      { lotId: this.lots.jars as string, lineId: null, quantity: String(this.count) },
      { lotId: this.lots.lids as string, lineId: null, quantity: String(this.count) },
    ];
  }

  async draw(lots = this.drawLines()): Promise<this> {
    this.view = await this.client.ok(drawLots, {
      params: { batchId: this.batchId },
      body: { lots, stamp: this.stamp() },
    });
    return this;
  }

  fact<K extends FactType>(type: K, body: Entered<K>): FactEntry {
    return this.device.fact(this.client.server.now_ms, type, body);
  }

  /** Entries as a device delivers them. */
  delivery(events: FactEntry[]): Delivery {
    const { named, server } = this.client;
    return {
      personId: this.device.personId,
      kitchenId: named,
      sentAt: new Date(server.now_ms - (this.device.offset_ms ?? 0)).toISOString(),
      recordShape: RECORD_SHAPE,
      events,
    };
  }

  async send(events: FactEntry[]): Promise<this> {
    const { answers } = await this.client.ok(appendFacts, {
      params: { batchId: this.batchId },
      body: this.delivery(events),
    });
    const lost = answers.filter(a => a.outcome !== 'kept');
    if (lost.length > 0) throw new Error(`not kept: ${JSON.stringify(lost)}`);
    this.view = await this.client.ok(readBatch, { params: { batchId: this.batchId } });
    return this;
  }

  note<K extends FactType>(type: K, body: Entered<K>): Promise<this> {
    return this.send([this.fact(type, body)]);
  }

  /** From filling to pressed jars the next day, everything as it should be but the acidity. */
  async cook(minutes: number): Promise<this> {
    const jars = range(this.count);
    if (this.recipe.foodClass === 'fruit spread')
      await this.note('temperature.read', { where: 'pot', temp_C: 103 });
    await this.note('jars.filled', {
      size: this.size,
      jars,
      jarLotId: this.lots.jars as string,
      lidLotId: this.lots.lids as string,
    });
    for (const l of this.recipe.lines.filter(x => x.where === 'each jar'))
      await this.note('dose.given', { lineId: l.id, jars });
    const loadId = randomUUID();
    await this.note('load.packed', { loadId, number: 1, jars, newLidLotId: null });
    await this.wait(10).note('load.boiling', { loadId });
    await this.wait(minutes).note('load.heat_off', { loadId });
    await this.wait(5).note('load.lifted', { loadId });
    await this.wait(13 * 60).note('jars.pressed', { sealed: jars, failed: [] });
    return this.wait(13 * 60);
  }

  async readPh(ph: number): Promise<this> {
    const calibration = calibratedAt(this.client.server.now_ms);
    await this.note('meter.rechecked', rechecked(calibration));
    return this.note('ph.read', {
      calibration,
      jar: 1,
      ph,
      temp_C: 24,
      hoursSinceProcessing: 26,
      method: 'meter',
      buffers: [4.01, 7],
      reference: '',
    });
  }
}
