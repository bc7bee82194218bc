import type { Burner, CostSettings, Kitchen } from '@cocotte/core/kitchen';
import { type Fault, fieldText, readDecimal, readNumber } from '@cocotte/core/measure';

/** A burner while it is typed. */
export interface BurnerTexts {
  id: string;
  name: string;
  kind: Burner['kind'];
  /** Watts, or grams of gas an hour. */
  use: string;
}

/** What costs are reckoned with, while it is typed. */
export interface CostTexts {
  method: CostSettings['method'];
  rates: { personId: string; hourlyRate: string }[];
  burners: BurnerTexts[];
  electricity: string;
  perBatch: string;
  perJar: string;
  perMonth: string;
  batchesPerMonth: string;
  fee: string;
  jars: string;
  markup_pct: string;
  margin_pct: string;
  wholesale_pct: string;
}

export function costTexts({ costs, locale }: Pick<Kitchen, 'costs' | 'locale'>): CostTexts {
  const plain = (n: number | string) => fieldText(Number(n), locale);
  return {
    method: costs.method,
    rates: costs.rates.map(r => ({ personId: r.personId, hourlyRate: plain(r.hourlyRate) })),
    burners: costs.burners.map(b => ({
      id: b.id,
      name: b.name,
      kind: b.kind,
      use: plain(b.kind === 'electric' ? b.power_W : b.use_gPerHour),
    })),
    electricity: plain(costs.electricity),
    perBatch: plain(costs.overhead.perBatch),
    perJar: plain(costs.overhead.perJar),
    perMonth: plain(costs.overhead.perMonth),
    batchesPerMonth: plain(costs.overhead.batchesPerMonth),
    fee: plain(costs.market.fee),
    jars: plain(costs.market.jars),
    markup_pct: plain(costs.pricing.markup_pct),
    margin_pct: plain(costs.pricing.margin_pct),
    wholesale_pct: plain(costs.pricing.wholesale_pct),
  };
}

/** Reads what costs are reckoned with, or every fault by the name of its field. */
export function readCosts(
  texts: CostTexts,
  before: CostSettings,
  locale: string,
): { costs: CostSettings; faults: Fault[] } {
  const faults: Fault[] = [];
  const money = (path: string, text: string, name: string, max = 1_000_000) => {
    const read = readDecimal(text.trim() === '' ? '0' : text, locale, { name, min: 0, max });
    if (read.ok) return read.value;
    faults.push({ ...read.fault, path });
    return '0';
  };
  const number = (path: string, text: string, name: string, min: number, max: number) => {
    const read = readNumber(text, locale, { name, min, max });
    if (read.ok) return read.value;
    faults.push({ ...read.fault, path });
    return min;
  };
  const burners = texts.burners.map((b, i): Burner => {
    const name = b.name.trim();
    if (name === '')
      faults.push({
        path: `burners[${i}].name`,
        code: 'missing',
        what: 'The name is empty.',
        why: 'It is chosen by it.',
        next: 'Fill it in.',
      });
    const was = before.burners.find(x => x.id === b.id);
    return b.kind === 'electric'
      ? {
          id: b.id,
          name,
          kind: 'electric',
          power_W: number(`burners[${i}].use`, b.use, 'The power', 50, 20_000),
        }
      : {
          id: b.id,
          name,
          kind: 'gas',
          use_gPerHour: number(`burners[${i}].use`, b.use, 'The gas in an hour', 10, 20_000),
          itemId: was?.kind === 'gas' ? was.itemId : null,
        };
  });
  return {
    costs: {
      method: texts.method,
      rates: texts.rates
        .filter(r => r.hourlyRate.trim() !== '')
        .map(r => ({
          personId: r.personId,
          hourlyRate: money(`rates.${r.personId}`, r.hourlyRate, 'The hourly rate', 1000),
        })),
      burners,
      electricity: money('electricity', texts.electricity, 'The price of a kilowatt-hour', 1000),
      overhead: {
        perBatch: money('perBatch', texts.perBatch, 'The overhead of a batch'),
        perJar: money('perJar', texts.perJar, 'The overhead of a jar'),
        perMonth: money('perMonth', texts.perMonth, 'The overhead of a month'),
        batchesPerMonth: number('batchesPerMonth', texts.batchesPerMonth, 'The batches in a month', 1, 1000),
      },
      market: {
        fee: money('fee', texts.fee, 'The fee of a market'),
        jars: number('jars', texts.jars, 'The jars sold at a market', 1, 100_000),
      },
      pricing: {
        markup_pct: number('markup_pct', texts.markup_pct, 'The markup', 0, 10_000),
        margin_pct: number('margin_pct', texts.margin_pct, 'The margin', 0, 99.9),
        wholesale_pct: number('wholesale_pct', texts.wholesale_pct, 'Wholesale', 0, 100),
      },
    },
    faults,
  };
}
