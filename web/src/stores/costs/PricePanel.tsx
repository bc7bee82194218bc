import { Decimal, fieldText, moneyText, numberText, readDecimal, readNumber } from '@cocotte/core/measure';
import { jarSize } from '@cocotte/core/jars';
import { type CostSheet, breakEvenJars, leftOf, priceByMargin, priceByMarkup } from '@cocotte/core/stores';
import { Box, MenuItem, Table, TableBody, TableCell, TableHead, TableRow, TextField } from '@mui/material';
import { useState } from 'react';
import { faultText } from '../../shell/entry.ts';
import { Sheet, Soft } from '../../shell/parts.tsx';
import { useHere } from '../../shell/session.tsx';

type Way = 'markup' | 'margin' | 'market';

/** From a cost to a price, by markup or margin, or from a market price back to what is left; retail beside wholesale. */
export function PricePanel({ sheet }: { sheet: CostSheet }) {
  const { kitchen } = useHere();
  const { pricing, market } = kitchen.costs;
  const habits = { ...kitchen, currency: sheet.currency };
  const [way, setWay] = useState<Way>('margin');
  const [texts, setTexts] = useState({
    markup: fieldText(pricing.markup_pct, kitchen.locale),
    margin: fieldText(pricing.margin_pct, kitchen.locale),
    market: '',
    wholesale: fieldText(pricing.wholesale_pct, kitchen.locale),
    fee: fieldText(Number(market.fee), kitchen.locale),
  });
  const read = {
    markup: readNumber(texts.markup, kitchen.locale, { name: 'The markup', min: 0, max: 10_000, unit: ' %' }),
    margin: readNumber(texts.margin, kitchen.locale, {
      name: 'The margin',
      min: 0,
      max: 99.9,
      unit: ' %',
      why: 'No price leaves all of itself.',
    }),
    market: readDecimal(texts.market, kitchen.locale, {
      name: 'The market price',
      min: 0,
      above: true,
      max: 10_000,
    }),
    wholesale: readNumber(texts.wholesale, kitchen.locale, {
      name: 'Wholesale',
      min: 0,
      max: 100,
      unit: ' %',
    }),
    fee: readDecimal(texts.fee, kitchen.locale, { name: 'The fee', min: 0, max: 100_000 }),
  };
  const field = (name: keyof typeof texts, label: string) => {
    const r = read[name];
    const wrong = !r.ok && (name !== 'market' || texts.market.trim() !== '');
    return (
      <TextField
        label={label}
        inputMode="decimal"
        value={texts[name]}
        onChange={e => setTexts(t => ({ ...t, [name]: e.target.value }))}
        error={wrong}
        helperText={wrong && !r.ok ? faultText(r.fault) : undefined}
      />
    );
  };
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
  const percent = (n: number | null) => (n === null ? '' : `${numberText(n, kitchen, 0)} %`);
  return (
    <Sheet title="Price">
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: 'repeat(auto-fit, minmax(190px, 1fr))',
          gap: 1.5,
          mb: 1.5,
          alignItems: 'start',
        }}
      >
        <TextField select label="Reckon" value={way} onChange={e => setWay(e.target.value as Way)}>
          <MenuItem value="margin">by margin, of the price</MenuItem>
          <MenuItem value="markup">by markup, on the cost</MenuItem>
          <MenuItem value="market">back from a market price</MenuItem>
        </TextField>
        {way === 'markup' && field('markup', 'Markup, %')}
        {way === 'margin' && field('margin', 'Margin, %')}
        {way === 'market' && field('market', `Price of a jar, ${sheet.currency}`)}
        {field('wholesale', 'Wholesale, % of retail')}
        {field('fee', `One market costs, ${sheet.currency}`)}
      </Box>
      <Box sx={{ overflowX: 'auto' }}>
        <Table size="small" aria-label="Prices" sx={{ minWidth: 460 }}>
          <TableHead>
            <TableRow>
              <TableCell>Jar</TableCell>
              <TableCell align="right">Costs</TableCell>
              <TableCell align="right">Retail</TableCell>
              <TableCell align="right">Left</TableCell>
              <TableCell align="right">Wholesale</TableCell>
              <TableCell align="right">Left</TableCell>
              <TableCell align="right">Even at</TableCell>
            </TableRow>
          </TableHead>
          <TableBody>
            {rows.map(r => (
              <TableRow key={r.size}>
                <TableCell>{jarSize(r.size).name}</TableCell>
                <TableCell align="right">{moneyText(r.cost, habits)}</TableCell>
                <TableCell align="right" sx={{ fontWeight: 700 }}>
                  {r.price && moneyText(r.price, habits)}
                </TableCell>
                <TableCell align="right" sx={{ color: r.left?.left.isNegative() ? 'ox.main' : undefined }}>
                  {r.left && (
                    <>
                      {moneyText(r.left.left.toDecimalPlaces(2), habits)}
                      <br />
                      <Soft>{percent(r.left.margin_pct)}</Soft>
                    </>
                  )}
                </TableCell>
                <TableCell align="right">{r.wholesale && moneyText(r.wholesale, habits)}</TableCell>
                <TableCell
                  align="right"
                  sx={{ color: r.wholesaleLeft?.left.isNegative() ? 'ox.main' : undefined }}
                >
                  {r.wholesaleLeft && (
                    <>
                      {moneyText(r.wholesaleLeft.left.toDecimalPlaces(2), habits)}
                      <br />
                      <Soft>{percent(r.wholesaleLeft.margin_pct)}</Soft>
                    </>
                  )}
                </TableCell>
                <TableCell align="right">
                  {r.even === undefined ? '' : r.even === null ? 'never' : `${r.even} jars`}
                </TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      </Box>
      <Soft sx={{ fontSize: '0.92rem', display: 'block', mt: 1 }}>
        Even at: jars sold at one market before its fee is earned. Wholesale bears no share of the stall.
      </Soft>
    </Sheet>
  );
}
