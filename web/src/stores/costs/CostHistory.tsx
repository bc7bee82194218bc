import type { PastCost } from '@cocotte/contract';
import { Decimal, dayText, moneyText } from '@cocotte/core/measure';
import {
  type CostDifference,
  type CostPartId,
  type CostSheet,
  COST_PARTS,
  compareCosts,
} from '@cocotte/core/stores';
import { Box, Button, Link as MuiLink } from '@mui/material';
import { Suspense, lazy, useState } from 'react';
import { Link } from 'react-router';
import { Switcher } from '../../kit/controls.tsx';
import { List } from '../../kit/List.tsx';
import { Nothing, Sheet, Soft } from '../../kit/parts.tsx';
import { useHere } from '../../shell/session.tsx';
import { PART_WORDS } from './CostTable.tsx';
import { jarsOf, perJar } from './per-jar.ts';

const CostChart = lazy(async () => ({ default: (await import('./CostChart.tsx')).CostChart }));

const total = (s: CostSheet) => s.parts.reduce((sum, p) => sum.plus(p.exact), new Decimal(0));

/** What a jar cost over time, in its parts, and what made the difference between two batches. */
export function CostHistory({ batches }: { batches: PastCost[] }) {
  const { kitchen } = useHere();
  const [chart, setChart] = useState(true);
  const [fromId, setFrom] = useState('');
  const [toId, setTo] = useState('');
  if (batches.length === 0)
    return (
      <Sheet title="What past batches cost">
        <Nothing>No batch of this recipe has filled a jar yet.</Nothing>
      </Sheet>
    );
  const last = batches.at(-1) as PastCost;
  const from = batches.find(b => b.batchId === fromId) ?? batches.at(-2) ?? last;
  const to = batches.find(b => b.batchId === toId) ?? last;
  const parts = COST_PARTS.filter(p =>
    batches.some(b => b.sheet.parts.some(x => x.part === p && x.exact !== '0')),
  );
  const habits = (b: PastCost) => ({ ...kitchen, currency: b.sheet.currency });
  const pick = (label: string, value: string, set: (id: string) => void) => (
    <Switcher
      label={label}
      value={value}
      of={batches.map(b => [b.batchId, `${dayText(b.madeOn, kitchen)}, ${b.lotCode}`] as const)}
      onPick={set}
      sx={{ width: 230 }}
    />
  );
  const differences = from.batchId === to.batchId ? [] : compareCosts(from.sheet, to.sheet);
  const most = differences[0];
  /** Of what was bought, the purchase whose price made the most of it. */
  const bought = differences
    .filter(
      d =>
        d.part !== 'work' &&
        d.part !== 'opening and cleaning' &&
        d.part !== 'overhead' &&
        d.part !== 'market',
    )
    .toSorted((a, b) => new Decimal(b.byPrice).abs().cmp(new Decimal(a.byPrice).abs()))[0];
  const shown = differences.filter(d => new Decimal(d.after).minus(d.before).abs().gte('0.005'));
  return (
    <Sheet
      title="What past batches cost"
      aside={
        <Button size="small" variant="outlined" onClick={() => setChart(c => !c)}>
          {chart ? 'Hide the chart' : 'Show the chart'}
        </Button>
      }
    >
      {chart && batches.length > 1 && (
        <Suspense fallback={<Box sx={{ height: 260 }} />}>
          <CostChart batches={batches} parts={parts} />
        </Suspense>
      )}
      <List
        label="Cost of a jar by batch"
        minWidth={520}
        rows={batches}
        keyOf={b => b.batchId}
        columns={[
          {
            head: 'Batch',
            whole: true,
            cell: b => (
              <MuiLink component={Link} to={`/costs/${b.batchId}`}>
                {dayText(b.madeOn, kitchen)}
              </MuiLink>
            ),
          },
          ...parts.map(p => ({
            head: PART_WORDS[p],
            figure: true,
            from: 'md' as const,
            cell: (b: PastCost) =>
              moneyText(
                perJar(b.sheet, b.sheet.parts.find(x => x.part === p)?.exact ?? '0').toDecimalPlaces(2),
                habits(b),
              ),
          })),
          {
            head: 'A jar',
            figure: true,
            sx: { fontWeight: 700 },
            order: b => total(b.sheet).div(jarsOf(b.sheet)).toNumber(),
            cell: b => moneyText(total(b.sheet).div(jarsOf(b.sheet)).toDecimalPlaces(2), habits(b)),
          },
        ]}
      />
      {batches.length > 1 && (
        <Box sx={{ mt: 2.5 }}>
          <Box sx={{ display: 'flex', gap: 1.5, flexWrap: 'wrap', mb: 1 }}>
            {pick('From', from.batchId, setFrom)}
            {pick('To', to.batchId, setTo)}
          </Box>
          {most ? (
            <Box sx={{ fontSize: '1.05rem', mb: 1 }}>
              <strong>{nameOf(most)}</strong> made most of the difference: {signed(most, kitchen)} a jar
              {new Decimal(most.byPrice).abs().gt(new Decimal(most.byQuantity).abs())
                ? ', by its price'
                : ', by how much of it there is in a jar'}
              .{' '}
              <Soft>
                {most.from} before; {most.to} then.
              </Soft>
            </Box>
          ) : (
            <Soft>Nothing differs.</Soft>
          )}
          {bought && !new Decimal(bought.byPrice).isZero() && (
            <Box sx={{ mb: 1 }}>
              Of what was bought, <strong>{bought.name}</strong> made most of it by its price:{' '}
              {plus(bought.byPrice, kitchen)} a jar.{' '}
              <Soft>
                {bought.from} before; {bought.to} then.
              </Soft>
            </Box>
          )}
          {shown.length > 0 && (
            <List
              label="What made the difference"
              minWidth={520}
              rows={shown.slice(0, 12)}
              keyOf={d => d.key}
              columns={[
                {
                  head: 'What',
                  cell: d => (
                    <>
                      {nameOf(d)}{' '}
                      <Soft sx={{ fontSize: '0.9rem' }}>
                        {d.from === d.to ? d.to : `${d.from || 'none'}; then ${d.to || 'none'}`}
                      </Soft>
                    </>
                  ),
                },
                { head: 'By price', figure: true, cell: d => plus(d.byPrice, kitchen) },
                { head: 'By quantity', figure: true, cell: d => plus(d.byQuantity, kitchen) },
                { head: 'In a jar', figure: true, sx: { fontWeight: 650 }, cell: d => signed(d, kitchen) },
              ]}
            />
          )}
        </Box>
      )}
    </Sheet>
  );
}

/** Work is named for itself, whoever did it. */
const nameOf = (d: CostDifference) =>
  d.part === 'work' || d.part === 'opening and cleaning' || d.part === 'overhead'
    ? PART_WORDS[d.part as CostPartId]
    : d.name;

type Habits = Parameters<typeof moneyText>[1];

const plus = (x: string, habits: Habits) => {
  const d = new Decimal(x).toDecimalPlaces(3);
  return d.isZero() ? '' : `${d.isNegative() ? '−' : '+'}${moneyText(d.abs(), habits)}`;
};
const signed = (d: { before: string; after: string }, habits: Habits) =>
  plus(new Decimal(d.after).minus(d.before).toFixed(), habits);
