import { balance, netOfJars_g } from '../../balance/index.ts';
import { type BatchState, observed } from '../../batches/index.ts';
import type { JarSizeId } from '../../jars/index.ts';
import { Decimal, type Habits, moneyText, numberText, under } from '../../measure/index.ts';
import type { ItemKind } from '../items.ts';
import { type CostSettings, plainCosts } from '../../kitchen/index.ts';
import {
  type CostInput,
  type CostLine,
  type CostPartId,
  type CostSheet,
  type Sharing,
  costLine,
  costSheet,
  netMass_g,
} from './sheet.ts';

/** Minutes somebody worked: on one batch, on several at once, or on the kitchen of the day. */
export interface Work {
  personId: string;
  minutes: number;
  kind: 'batch' | 'kitchen';
  /** Other batches that ran at the same time, and share the minutes. */
  with: string[];
  /** Money an hour, decimal text, as it was when the batch was started. */
  hourlyRate: string;
}

/** What other batches say that bears on the cost of this one. */
export interface CostContext {
  batchId: string;
  /** Batches made on the same day, this one among them. */
  dayBatches: number;
  /** Opening and cleaning entered at any batch of that day. */
  kitchenWork: Work[];
  /** Work entered at another batch that names this one. */
  sharedWork: Work[];
  /** Batches made in the same month, this one among them. */
  monthBatches: number;
  people: Record<string, string>;
  /** Lots that were drawn before they had a price: money for one unit since it is known, null while it is not. */
  laterPrices: Readonly<Record<string, string | null>>;
}

/** A batch that nothing else bears on. */
export const aloneContext: CostContext = {
  batchId: '',
  dayBatches: 1,
  kitchenWork: [],
  sharedWork: [],
  monthBatches: 1,
  people: {},
  laterPrices: {},
};

const PART_OF: Partial<Record<ItemKind, CostPartId>> = {
  ingredient: 'ingredients',
  jar: 'jars',
  lid: 'lids',
  band: 'bands',
  label: 'labels',
  packaging: 'packaging',
  fuel: 'energy',
};

/** Minutes worked in a batch with their rates, for the batch itself and for those that share them. */
export function workOf(state: BatchState): Work[] {
  const rates = new Map(
    (state.started?.kitchen.costs ?? plainCosts).rates.map(r => [r.personId, r.hourlyRate]),
  );
  return state.minutes.map(m => ({
    personId: m.by.personId,
    minutes: m.minutes,
    kind: m.kind,
    with: m.with,
    hourlyRate: rates.get(m.by.personId) ?? state.started?.kitchen.hourlyRate ?? '0',
  }));
}

function workLines(
  part: 'work' | 'opening and cleaning',
  work: readonly Work[],
  share: (w: Work) => number,
  people: Record<string, string>,
  habits: Pick<Habits, 'locale' | 'currency'>,
): CostLine[] {
  return work.map(w => {
    const parts = share(w);
    const name = under(people, w.personId) ?? 'Work';
    return costLine({
      part,
      name,
      key: part,
      detail: `${numberText(w.minutes, habits)} min at ${moneyText(w.hourlyRate, habits)} an hour${parts > 1 ? `, shared by ${parts} batches` : ''}`,
      quantity: new Decimal(w.minutes).div(60).div(parts),
      unit: 'h',
      unitCost: w.hourlyRate,
    });
  });
}

/** Jars that left before they could be sold: reasons that a batch's cost is carried by fewer jars. */
const NOT_LOST = new Set(['used in the kitchen']);

/**
 * What a batch cost, from its own record and what other batches say of the same day: lots drawn and not returned, work,
 * energy, overhead, and for sale the market. Everything at the prices stored when it happened.
 *
 * @param sharing  how sizes share it; as batches were shared before, for those that were closed then
 *
 * @returns null before the batch is started
 */
export function actualInput(
  state: BatchState,
  context: CostContext = aloneContext,
  sharing: Sharing = 'by jar',
): CostInput | null {
  const { started } = state;
  if (!started) return null;
  const settings = started.kitchen.costs ?? plainCosts;
  const lines: CostLine[] = [];
  const back = new Map<string, Decimal>();
  const toCome: string[] = [];
  for (const r of state.returns)
    for (const l of r.lots) back.set(l.lotId, (back.get(l.lotId) ?? new Decimal(0)).plus(l.quantity));
  for (const lot of state.draws.flatMap(d => d.lots)) {
    const returned = Decimal.min(back.get(lot.lotId) ?? 0, lot.quantity);
    if (returned.gt(0)) back.set(lot.lotId, (back.get(lot.lotId) as Decimal).minus(returned));
    const quantity = new Decimal(lot.quantity).minus(returned);
    const part = PART_OF[lot.kind];
    if (!part || quantity.isZero()) continue;
    const later = under<string | null | undefined>(context.laterPrices, lot.lotId);
    if (later === null) toCome.push(`${lot.name} (lot ${lot.lotLabel})`);
    const bears =
      lot.kind === 'jar' ? [{ size: lot.jarSize, share: new Decimal(1) }] : lidded(state, lot, sharing);
    for (const { size, share } of bears)
      lines.push(
        costLine({
          part,
          name: lot.name,
          key: lot.itemId,
          detail: `lot ${lot.lotLabel}`,
          quantity: quantity.times(share),
          unit: lot.unit,
          unitCost: later ?? lot.unitCost,
          size,
          lotId: lot.lotId,
        }),
      );
  }
  for (const t of state.potTaken)
    lines.push(
      costLine({
        part: 'ingredients',
        name: t.name,
        key: t.itemId,
        detail: `taken out of the pot as lot ${t.label}`,
        quantity: new Decimal(t.mass_g).negated(),
        unit: 'g',
        unitCost: t.unitCost,
      }),
    );
  const own = workOf(state);
  lines.push(
    ...workLines(
      'work',
      [...own.filter(w => w.kind === 'batch'), ...context.sharedWork],
      w => 1 + w.with.length,
      context.people,
      started.kitchen,
    ),
  );
  const kitchenWork =
    context.kitchenWork.length > 0 ? context.kitchenWork : own.filter(w => w.kind === 'kitchen');
  lines.push(
    ...workLines(
      'opening and cleaning',
      kitchenWork,
      () => Math.max(1, context.dayBatches),
      context.people,
      started.kitchen,
    ),
  );
  for (const e of state.energy) {
    const burner = settings.burners.find(b => b.id === e.burnerId);
    if (burner?.kind !== 'electric') continue;
    lines.push(
      costLine({
        part: 'energy',
        name: burner.name,
        key: 'electricity',
        detail: `${numberText(burner.power_W, started.kitchen)} W for ${numberText(e.minutes, started.kitchen)} min`,
        quantity: new Decimal(burner.power_W).div(1000).times(e.minutes).div(60),
        unit: 'kWh',
        unitCost: settings.electricity,
      }),
    );
  }
  const kept = state.jars.filter(j => !j.setAside || NOT_LOST.has(j.setAside.why));
  lines.push(...overheadLines(settings, state.jars.length, context.monthBatches));
  if (started.purpose === 'sale' && kept.length > 0) lines.push(...marketLines(settings, kept.length));
  const sizes = [...new Set(state.jars.map(j => j.size))];
  const nets = sharing === 'by jar' ? netsOf(state) : null;
  const lost = new Map<string, number>();
  for (const j of state.jars)
    if (j.setAside && !NOT_LOST.has(j.setAside.why))
      lost.set(j.setAside.why, (lost.get(j.setAside.why) ?? 0) + 1);
  return {
    currency: started.kitchen.currency,
    sharing,
    lines: lines.filter(l => l.cost !== '0' || l.part === 'ingredients'),
    jars: sizes.map(size => {
      const net = started.recipe.jars.find(j => j.size === size)?.net;
      return {
        size,
        filled: state.jars.filter(j => j.size === size).length,
        sellable: kept.filter(j => j.size === size).length,
        net_g: nets?.get(size) ?? (net ? netMass_g(net) : 1),
      };
    }),
    lost: [...lost].map(([why, count]) => ({ why, count })),
    unpriced: [...undrawn(state), ...new Set(toCome)],
  };
}

/** Lids of a lot by the sizes of the jars they closed; on all of them where that does not say. */
function lidded(
  state: BatchState,
  lot: { kind: ItemKind; lotId: string },
  sharing: Sharing,
): { size: JarSizeId | null; share: Decimal }[] {
  const closed = state.jars.filter(j => j.lidLotId === lot.lotId);
  const all = [{ size: null, share: new Decimal(1) }];
  // One lot on every jar is shared by jar anyhow.
  if (
    lot.kind !== 'lid' ||
    sharing !== 'by jar' ||
    closed.length === 0 ||
    closed.length === state.jars.length
  )
    return all;
  const counts = new Map<JarSizeId, number>();
  for (const jar of closed) counts.set(jar.size, (counts.get(jar.size) ?? 0) + 1);
  return [...counts].map(([size, count]) => ({ size, share: new Decimal(count).div(closed.length) }));
}

/** Net grams of a jar of each size, by the balance of the batch; null where its lines cannot be weighed. */
function netsOf(state: BatchState): Map<JarSizeId, number> | null {
  try {
    return netOfJars_g(balance(observed(state)));
  } catch (error) {
    if (error instanceof RangeError) return null;
    throw error;
  }
}

/** What the recipe asks for and no lot was drawn for: its cost is not in the sheet. */
function undrawn(state: BatchState): string[] {
  const { started } = state;
  if (!started) return [];
  const drawn = new Set(state.draws.flatMap(d => d.lots.flatMap(l => l.lineId ?? [])));
  return started.recipe.lines.filter(l => l.role !== 'water' && !drawn.has(l.id)).map(l => l.name);
}

/** Overhead of a batch: its own, that of its jars, and its share of the month. */
export function overheadLines(settings: CostSettings, jars: number, monthBatches: number): CostLine[] {
  const { perBatch, perJar, perMonth } = settings.overhead;
  const line = (
    name: string,
    detail: string,
    quantity: Decimal | string,
    unit: string,
    unitCost: Decimal | string,
  ) => costLine({ part: 'overhead', name, key: `overhead ${name}`, detail, quantity, unit, unitCost });
  return [
    line('Of the batch', 'by batch', '1', 'batch', perBatch),
    line('Of the jars', 'by jar', String(jars), 'jar', perJar),
    line(
      'Of the month',
      `shared by ${Math.max(1, monthBatches)} batches`,
      new Decimal(1).div(Math.max(1, monthBatches)),
      'month',
      perMonth,
    ),
  ].filter(l => !new Decimal(l.cost).isZero());
}

/** The stall's fee, by the jars it usually sells. */
export function marketLines(settings: CostSettings, jars: number): CostLine[] {
  const { fee, jars: usual } = settings.market;
  const line = costLine({
    part: 'market',
    name: 'Stall fee',
    key: 'market',
    detail: `shared by ${usual} jars a market`,
    quantity: new Decimal(jars).div(Math.max(1, usual)),
    unit: 'market',
    unitCost: fee,
  });
  return new Decimal(line.cost).isZero() ? [] : [line];
}

/** What a batch cost; see {@link actualInput}. */
export function batchCost(state: BatchState, context?: CostContext, sharing?: Sharing): CostSheet | null {
  const input = actualInput(state, context, sharing);
  return input && costSheet(input);
}
