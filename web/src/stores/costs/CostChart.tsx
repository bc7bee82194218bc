import type { PastCost } from '@cocotte/contract';
import { dayText, moneyText } from '@cocotte/core/measure';
import type { CostPartId } from '@cocotte/core/stores';
import { Box } from '@mui/material';
import { Chart, PLAIN_CHART, useInk } from '../../kit/Chart.tsx';
import { useHere } from '../../shell/session.tsx';
import { PART_WORDS } from './CostTable.tsx';
import { perJar } from './per-jar.ts';

/** What a jar cost in each batch, its parts on each other; the table beneath says the same. */
export function CostChart({ batches, parts }: { batches: PastCost[]; parts: CostPartId[] }) {
  const { kitchen } = useHere();
  const { palette, fills } = useInk();
  return (
    <Box aria-hidden="true">
      <Chart
        type="bar"
        height={260}
        series={parts.map(p => ({
          name: PART_WORDS[p],
          data: batches.map(b =>
            Number(perJar(b.sheet, b.sheet.parts.find(x => x.part === p)?.exact ?? '0').toFixed(4)),
          ),
        }))}
        options={{
          chart: { ...PLAIN_CHART, stacked: true },
          colors: fills,
          plotOptions: { bar: { columnWidth: '48%' } },
          dataLabels: { enabled: false },
          tooltip: { enabled: false },
          legend: {
            position: 'bottom',
            labels: { colors: palette.text.primary },
            markers: { strokeWidth: 0 },
          },
          xaxis: {
            categories: batches.map(b => dayText(b.madeOn, kitchen)),
            labels: { style: { colors: palette.text.secondary } },
            axisBorder: { color: palette.divider },
            axisTicks: { color: palette.divider },
          },
          yaxis: {
            labels: {
              style: { colors: palette.text.secondary },
              formatter: (v: number) => moneyText(v.toFixed(2), kitchen),
            },
          },
          grid: { borderColor: palette.divider },
        }}
      />
    </Box>
  );
}
