import { type Burner, COSTING_METHODS, type CostSettings } from '@cocotte/core/kitchen';
import { choice, decimal, figure, list, maybe, shape, text, union, uuid } from '../rules.ts';

const money = (name: string) => decimal({ min: 0, max: 1_000_000, name });
const id = text({ min: 1, max: 40 });
const name = text({ min: 1, max: 60, name: 'The burner' });

/** What a kitchen reckons its costs with. */
export const costsRule = shape<CostSettings>({
  method: choice(COSTING_METHODS),
  rates: list(
    shape<CostSettings['rates'][number]>({
      personId: uuid,
      hourlyRate: decimal({ min: 0, max: 1000, name: 'The hourly rate' }),
    }),
    { max: 30 },
  ),
  burners: list(
    union<Burner>('kind', {
      electric: shape<Extract<Burner, { kind: 'electric' }>>({
        id,
        name,
        kind: choice(['electric']),
        power_W: figure({ min: 50, max: 20_000, name: 'The power in watts' }),
      }),
      gas: shape<Extract<Burner, { kind: 'gas' }>>({
        id,
        name,
        kind: choice(['gas']),
        use_gPerHour: figure({ min: 10, max: 20_000, name: 'The gas in grams an hour' }),
        itemId: maybe(uuid),
      }),
    }),
    { max: 12 },
  ),
  electricity: money('The price of a kilowatt-hour'),
  overhead: shape<CostSettings['overhead']>({
    perBatch: money('The overhead of a batch'),
    perJar: money('The overhead of a jar'),
    perMonth: money('The overhead of a month'),
    batchesPerMonth: figure({ min: 1, max: 1000, name: 'The batches in a month' }),
  }),
  market: shape<CostSettings['market']>({
    fee: money('The fee of a market'),
    jars: figure({ min: 1, max: 100_000, name: 'The jars sold at a market' }),
  }),
  pricing: shape<CostSettings['pricing']>({
    markup_pct: figure({ min: 0, max: 10_000, name: 'The markup in percent' }),
    margin_pct: figure({
      min: 0,
      max: 99.9,
      name: 'The margin in percent',
      why: 'No price leaves all of itself.',
    }),
    wholesale_pct: figure({ min: 0, max: 100, name: 'Wholesale in percent of retail' }),
  }),
});
