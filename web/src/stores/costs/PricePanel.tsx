import { Decimal, fieldText, moneyText, numberText } from '@cocotte/core/measure';
import { jarSize } from '@cocotte/core/jars';
import { type CostSheet, breakEvenJars, leftOf, priceByMargin, priceByMarkup } from '@cocotte/core/stores';
import { Box } from '@mui/material';
import { Figure, Pick } from '../../kit/fields.tsx';
import { useTyped } from '../../kit/form.ts';
import { Cells } from '../../kit/layout.tsx';
import { List } from '../../kit/List.tsx';
import { Sheet, Soft } from '../../kit/parts.tsx';
import { useRead } from '../../kit/readers.ts';
import { useHere } from '../../shell/session.tsx';

type Way = 'markup' | 'margin' | 'market';

/** From a cost to a price, by markup or margin, or from a market price back to what is left; retail beside wholesale. */
export function PricePanel({ sheet }: { sheet: CostSheet }) {
  const { kitchen } = useHere();
  const { pricing, market } = kitchen.costs;
  const habits = { ...kitchen, currency: sheet.currency };
  const reader = useRead();
  const plain = (n: number | string) => fieldText(Number(n), kitchen.locale);
  const form = useTyped(
    {
      way: 'margin' as Way,
      markup: plain(pricing.markup_pct),
      margin: plain(pricing.margin_pct),
      market: '',
      wholesale: plain(pricing.wholesale_pct),
      fee: plain(market.fee),
    },
    () => ({
      markup: reader.figure({ name: 'The markup', min: 0, max: 10_000, unit: ' %' }),
      margin: reader.figure({
        name: 'The margin',
        min: 0,
        max: 99.9,
        unit: ' %',
        why: 'No price leaves all of itself.',
      }),
      market: reader.decimal({ name: 'The market price', min: 0, above: true, max: 10_000 }),
      wholesale: reader.figure({ name: 'Wholesale', min: 0, max: 100, unit: ' %' }),
      fee: reader.decimal({ name: 'The fee', min: 0, max: 100_000 }),
    }),
    { live: true },
  );
  const { at } = form;
  const way = form.typed('way');
  const read = form.now();
  const marketPerJar = sheet.parts.find(p => p.part === 'market')?.exact ?? '0';
  const jars = sheet.bySize.reduce((n, s) => n + s.count, 0);
  const rows = sheet.bySize.map(s => {
    const cost = new Decimal(s.exactPerJar);
    const price =
      way === 'markup'
        ? read.markup.ok && priceByMarkup(cost, read.markup.value)
        : way === 'margin'
          ? read.margin.ok && priceByMargin(cost, read.margin.value)
          : read.market.ok && new Decimal(read.market.value);
    const wholesale =
      price && read.wholesale.ok ? price.times(read.wholesale.value).div(100).toDecimalPlaces(2) : null;
    const stall = jars > 0 ? new Decimal(marketPerJar).div(jars) : new Decimal(0);
    return {
      size: s.size,
      cost,
      price: price || null,
      left: price ? leftOf(price, cost) : null,
      wholesale,
      // Jars sold to a shop bear no share of the stall.
      wholesaleLeft: wholesale ? leftOf(wholesale, cost.minus(stall)) : null,
      even: price && read.fee.ok ? breakEvenJars(read.fee.value, price, cost.minus(stall)) : undefined,
    };
  });
  const left = (of: ReturnType<typeof leftOf> | null) =>
    of && (
      <Box sx={{ color: of.left.isNegative() ? 'ox.main' : undefined }}>
        {moneyText(of.left.toDecimalPlaces(2), habits)}
        <Soft sx={{ display: 'block' }}>
          {of.margin_pct === null ? '' : `${numberText(of.margin_pct, kitchen, 0)} %`}
        </Soft>
      </Box>
    );
  return (
    <Sheet title="Price">
      <Cells
        wide="repeat(auto-fit, minmax(190px, 1fr))"
        narrow="repeat(auto-fit, minmax(190px, 1fr))"
        gap={1.5}
        mt={0}
        sx={{ mb: 1.5 }}
      >
        <Pick
          at={at('way')}
          label="Reckon"
          of={[
            ['margin', 'by margin, of the price'],
            ['markup', 'by markup, on the cost'],
            ['market', 'back from a market price'],
          ]}
        />
        {way === 'markup' && <Figure at={at('markup')} label="Markup" unit="%" />}
        {way === 'margin' && <Figure at={at('margin')} label="Margin" unit="%" />}
        {way === 'market' && <Figure at={at('market')} label="Price of a jar" unit={sheet.currency} />}
        <Figure at={at('wholesale')} label="Wholesale" unit="% of retail" />
        <Figure at={at('fee')} label="One market costs" unit={sheet.currency} />
      </Cells>
      <List
        label="Prices"
        minWidth={460}
        rows={rows}
        keyOf={r => r.size}
        columns={[
          { head: 'Jar', cell: r => jarSize(r.size).name },
          { head: 'Costs', figure: true, cell: r => moneyText(r.cost, habits) },
          {
            head: 'Retail',
            figure: true,
            sx: { fontWeight: 700 },
            cell: r => r.price && moneyText(r.price, habits),
          },
          { head: 'Left', figure: true, cell: r => left(r.left) },
          { head: 'Wholesale', figure: true, cell: r => r.wholesale && moneyText(r.wholesale, habits) },
          { head: 'Left', figure: true, cell: r => left(r.wholesaleLeft) },
          {
            head: 'Even at',
            figure: true,
            cell: r => (r.even === undefined ? '' : r.even === null ? 'never' : `${r.even} jars`),
          },
        ]}
      />
      <Soft sx={{ fontSize: '0.92rem', display: 'block', mt: 1 }}>
        Even at: jars sold at one market before its fee is earned. Wholesale bears no share of the stall.
      </Soft>
    </Sheet>
  );
}
