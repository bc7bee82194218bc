import { Decimal, moneyText } from '@cocotte/core/measure';
import type { Swing } from '@cocotte/core/stores';
import { Box } from '@mui/material';
import { List } from '../../kit/List.tsx';
import { Soft } from '../../kit/parts.tsx';
import { useHere } from '../../shell/session.tsx';
import { Chart, PLAIN_CHART, useInk } from '../../kit/Chart.tsx';

/** What moves the cost of a jar most: bars from the cost as planned, the widest first; the table says the same. */
export function SwingChart({ cost, swings, currency }: { cost: string; swings: Swing[]; currency: string }) {
  const { kitchen } = useHere();
  const { palette } = useInk();
  const habits = { ...kitchen, currency };
  const money = (x: string | null) =>
    x === null ? '' : moneyText(new Decimal(x).toDecimalPlaces(2), habits);
  const base = Number(cost);
  const bars = swings.map(s => {
    const ends = [s.low, s.high, cost].filter(x => x !== null).map(Number);
    return { x: s.title, y: [Math.min(...ends), Math.max(...ends)] };
  });
  return (
    <>
      <Box aria-hidden="true">
        <Chart
          type="rangeBar"
          height={60 + swings.length * 44}
          series={[{ name: 'A jar costs', data: bars }]}
          options={{
            chart: PLAIN_CHART,
            plotOptions: { bar: { horizontal: true, barHeight: '55%', borderRadius: 2 } },
            colors: [palette.primary.main],
            xaxis: {
              type: 'numeric',
              tickAmount: 4,
              labels: {
                style: { colors: palette.text.secondary },
                formatter: v => moneyText(Number(v).toFixed(2), habits),
              },
            },
            yaxis: { labels: { style: { colors: palette.text.primary, fontSize: '14px' }, maxWidth: 190 } },
            grid: { borderColor: palette.divider, xaxis: { lines: { show: true } } },
            tooltip: { enabled: false },
            dataLabels: { enabled: false },
            annotations: {
              xaxis: [
                {
                  x: base,
                  strokeDashArray: 0,
                  borderColor: palette.warning.main,
                  borderWidth: 3,
                  label: {
                    text: 'as planned',
                    orientation: 'horizontal',
                    style: { background: palette.background.paper, color: palette.text.primary },
                  },
                },
              ],
            },
          }}
        />
      </Box>
      <List
        label="What moves the cost of a jar"
        rows={swings}
        keyOf={s => s.id}
        columns={[
          {
            head: 'What is turned',
            cell: s => (
              <>
                {s.title} <Soft>{s.high === null ? s.lowWords : `${s.highWords}, ${s.lowWords}`}</Soft>
              </>
            ),
          },
          {
            head: 'Then a jar costs',
            figure: true,
            sx: { fontWeight: 650 },
            cell: s => money(s.high ?? s.low),
          },
          { head: 'The other way', figure: true, cell: s => (s.high === null ? '' : money(s.low)) },
        ]}
      />
    </>
  );
}
