import { Decimal, type Habits, type Names, numberText } from '../../measure/index.ts';
import { jarSize, type JarSizeId } from '../../jars/index.ts';
import type { JarsWanted, Recipe, ScaledRecipe } from '../../recipes/index.ts';
import { costOfDraw } from '../ledger.ts';
import { type Need, type ShelfItem, needsOf, shelfOfKind } from '../shelf.ts';
import { marketLines, overheadLines } from './actual.ts';
import type { CostSettings, CostingMethod } from '../../kitchen/index.ts';
import { type CostInput, type CostLine, type CostPartId, costLine, netMass_g } from './sheet.ts';

/** What a planned cost rests on. Figures that a what-if turns stand by themselves. */
export interface PlanFigures extends Pick<Habits, 'locale' | 'currency'> {
  recipe: Pick<Recipe, 'lines' | 'jars'>;
  scaled: Pick<ScaledRecipe, 'lines'>;
  jars: readonly JarsWanted[];
  shelf: readonly ShelfItem[];
  settings: CostSettings;
  hourlyRate: string;
  /** Attended minutes of the batch, and those of opening and cleaning the kitchen. */
  minutes: number;
  kitchenMinutes: number;
  /** Minutes a burner is on, and which. */
  burnerMinutes: number;
  burnerId: string;
  /** Share of the foreseen jars that come out, 1 for all. */
  yieldShare: number;
  /** Net grams of a jar of each size, by the balance of the plan; what its label states where nothing is foreseen. */
  nets_g: ReadonlyMap<JarSizeId, number>;
  /** What prices of ingredients are multiplied by, by line id; 1 where absent. */
  priceFactor: Readonly<Names<number>>;
}

const PART_OF = { jar: 'jars', lid: 'lids', band: 'bands', label: 'labels', packaging: 'packaging' } as const;

const detailOf = (need: Need, short: Decimal, method: CostingMethod): string =>
  short.gt(0)
    ? `${need.shelf?.lots.length ? 'partly at the last price: more is needed than there is' : 'at the last price: none is left'}`
    : method === 'weighted average'
      ? 'at the average of what is left'
      : `lot ${need.shelf?.lots[0]?.label ?? ''}${(need.shelf?.lots.length ?? 0) > 1 ? ' and on' : ''}`;

/**
 * What a batch will cost, from today's lots and prices: waste that is trimmed and soaks that are poured away are paid
 * for; what is not on the shelf costs what was last paid; what was never bought is named.
 */
export function plannedInput(figures: PlanFigures): CostInput {
  const { recipe, scaled, jars, shelf, settings } = figures;
  const unpriced: string[] = [];
  const lines: CostLine[] = [];
  const asBought = new Map(scaled.lines.map(l => [l.lineId, l.asBought_g]));
  for (const need of needsOf(recipe.lines, asBought, jars, shelf)) {
    if (!need.shelf || (need.shelf.lots.length === 0 && need.shelf.lastCost === null)) {
      if (need.quantity > 0) unpriced.push(need.title);
      continue;
    }
    const wanted = new Decimal(need.quantity.toFixed(6));
    if (wanted.isZero()) continue;
    const { cost, short, priced } = costOfDraw(
      need.shelf.lots,
      wanted,
      settings.method,
      need.shelf.lastCost,
      need.shelf.average,
    );
    if (!priced) unpriced.push(need.title);
    const factor = need.line ? (figures.priceFactor[need.line.id] ?? 1) : 1;
    const part: CostPartId =
      need.kind === 'ingredient' ? 'ingredients' : PART_OF[need.kind as keyof typeof PART_OF];
    // Lids of one mouth are borne by the sizes they close.
    const bears =
      need.only.length > 0
        ? need.only.map(j => ({ size: j.size, share: new Decimal(j.count).div(need.quantity) }))
        : [{ size: need.size, share: new Decimal(1) }];
    for (const { size, share } of bears)
      lines.push(
        costLine({
          part,
          name: need.line ? need.line.name : need.title,
          key: need.shelf.item.id,
          detail: detailOf(need, short, settings.method),
          quantity: wanted.times(share),
          unit: need.shelf.item.unit,
          unitCost: cost.times(factor).div(wanted),
          size,
        }),
      );
  }
  const hours = (minutes: number) => new Decimal(minutes).div(60);
  if (figures.minutes > 0)
    lines.push(
      costLine({
        part: 'work',
        name: 'Work',
        key: 'work',
        detail: `${numberText(figures.minutes, figures)} min attended`,
        quantity: hours(figures.minutes),
        unit: 'h',
        unitCost: figures.hourlyRate,
      }),
    );
  if (figures.kitchenMinutes > 0)
    lines.push(
      costLine({
        part: 'opening and cleaning',
        name: 'Opening and cleaning',
        key: 'opening and cleaning',
        detail: `${numberText(figures.kitchenMinutes, figures)} min`,
        quantity: hours(figures.kitchenMinutes),
        unit: 'h',
        unitCost: figures.hourlyRate,
      }),
    );
  lines.push(...energyLine(figures, unpriced));
  const count = jars.reduce((n, j) => n + j.count, 0);
  const sellable = count * figures.yieldShare;
  lines.push(...overheadLines(settings, count, settings.overhead.batchesPerMonth));
  lines.push(...marketLines(settings, sellable));
  return {
    currency: figures.currency,
    sharing: 'by jar',
    lines,
    jars: jars
      .filter(j => j.count > 0)
      .map(j => {
        const net = recipe.jars.find(r => r.size === j.size)?.net;
        return {
          size: j.size,
          filled: j.count,
          sellable: j.count * figures.yieldShare,
          net_g: figures.nets_g.get(j.size) ?? (net ? netMass_g(net) : jarSize(j.size).pints.valueOf()),
        };
      }),
    lost: [],
    unpriced,
  };
}

function energyLine(
  { settings, burnerMinutes, burnerId, shelf, locale }: PlanFigures,
  unpriced: string[],
): CostLine[] {
  const burner = settings.burners.find(b => b.id === burnerId) ?? settings.burners[0];
  if (!burner || burnerMinutes <= 0) return [];
  const hours = new Decimal(burnerMinutes).div(60);
  if (burner.kind === 'electric')
    return [
      costLine({
        part: 'energy',
        name: burner.name,
        key: 'electricity',
        detail: `${numberText(burner.power_W, { locale })} W for ${Math.round(burnerMinutes)} min`,
        quantity: hours.times(burner.power_W).div(1000),
        unit: 'kWh',
        unitCost: settings.electricity,
      }),
    ];
  const fuel = shelf.find(s => s.item.id === burner.itemId) ?? shelfOfKind(shelf, 'fuel');
  const price = fuel?.lots[0]?.unitCost ?? fuel?.lastCost;
  if (!fuel || price == null) {
    unpriced.push(`Gas for ${burner.name}`);
    return [];
  }
  return [
    costLine({
      part: 'energy',
      name: fuel.item.name,
      key: fuel.item.id,
      detail: `${numberText(burner.use_gPerHour, { locale })} g an hour for ${Math.round(burnerMinutes)} min`,
      quantity: hours.times(burner.use_gPerHour),
      unit: 'g',
      unitCost: price,
    }),
  ];
}
