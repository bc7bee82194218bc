import { randomUUID } from 'node:crypto';
import type { BatchView, DrawLine, FactEntry } from '@cocotte/contract';
import { type BatchState, type Entered, type FactType, type Purpose, fold } from '@cocotte/core/batches';
import { Fraction } from '@cocotte/core/measure';
import { type JarsWanted, type Recipe, factorForJars, scaleRecipe } from '@cocotte/core/recipes';
import { draw } from '@cocotte/server/batches/draws';
import * as batches from '@cocotte/server/batches/service';
import { start } from '@cocotte/server/batches/start';
import { Device } from './device.ts';
import type { InKitchen } from './in-kitchen.ts';

const MINUTE = 60_000;

/** Cooks one batch through the services: each method is a thing a person does, at the instant the kitchen's clock shows. */
export class Cook {
  readonly batchId = randomUUID();
  private view: BatchView | null = null;
  readonly device: Device;

  constructor(
    readonly kitchen: InKitchen,
    readonly recipeId: string,
    readonly recipe: Recipe,
    readonly jars: JarsWanted[],
    /** Pot of the kitchen, by its id. */
    readonly potId: string | null = null,
  ) {
    this.device = new Device(kitchen.person.id, kitchen.now_ms);
  }

  /** Moves the kitchen's clock on. */
  wait(minutes: number): void {
    this.kitchen.now_ms += minutes * MINUTE;
  }

  get state(): BatchState {
    if (!this.view) throw new RangeError('The batch has not been started.');
    return fold(this.view.events);
  }

  async start(purpose: Purpose = 'sale', recipeVersion = 1): Promise<void> {
    this.view = await this.kitchen.run(start, {
      body: {
        batchId: this.batchId,
        recipeId: this.recipeId,
        recipeVersion,
        purpose,
        factor: factorForJars(this.recipe, this.jars).toFraction(),
        jars: this.jars,
        heat: 'boiling water',
        potId: this.potId,
        doublePectin: false,
        stamp: this.device.stamp(this.kitchen.now_ms),
      },
    });
  }

  async draw(lots: DrawLine[]): Promise<void> {
    this.view = await this.kitchen.run(draw, {
      params: { batchId: this.batchId },
      body: { lots, stamp: this.device.stamp(this.kitchen.now_ms) },
    });
  }

  /** What each line needs as bought, in grams. */
  needs_g(): Record<string, number> {
    const scaled = scaleRecipe(this.recipe, new Fraction(factorForJars(this.recipe, this.jars)), this.jars);
    return Object.fromEntries(scaled.lines.map(l => [l.lineId, l.asBought_g]));
  }

  async note<K extends FactType>(...facts: [K, Entered<K>][]): Promise<void> {
    await this.send(facts.map(([type, body]) => this.device.fact(this.kitchen.now_ms, type, body)));
  }

  async send(events: FactEntry[]): Promise<void> {
    await this.kitchen.run(batches.appendEntries, { params: { batchId: this.batchId }, body: { events } });
    const { text } = await this.kitchen.run(batches.read, { params: { batchId: this.batchId } });
    this.view = JSON.parse(text) as BatchView;
  }

  async stepDone(stepId: string, minutes: number): Promise<void> {
    await this.note(['step.started', { stepId }]);
    this.wait(minutes);
    await this.note(['step.done', { stepId }]);
  }

  /** Fills jars from `first` on, packs them as one load and processes it for its time; a minute over. */
  async processLoad(
    number: number,
    size: JarsWanted['size'],
    jars: number[],
    lots: { jarLotId: string; lidLotId: string },
    minutes: number,
  ): Promise<void> {
    const loadId = randomUUID();
    await this.note(['jars.filled', { size, jars, ...lots }]);
    for (const line of this.recipe.lines.filter(l => l.where === 'each jar'))
      await this.note(['dose.given', { lineId: line.id, jars }]);
    this.wait(6);
    await this.note(['load.packed', { loadId, number, jars, newLidLotId: null }]);
    this.wait(11);
    await this.note(['load.boiling', { loadId }]);
    this.wait(minutes + 0.5);
    await this.note(['load.heat_off', { loadId }]);
    this.wait(5);
    await this.note(['load.lifted', { loadId }]);
  }
}
