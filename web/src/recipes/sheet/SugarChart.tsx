import { boilingPoint_C } from '@cocotte/core/heat';
import type { Kitchen } from '@cocotte/core/kitchen';
import { fahrenheit, numberText } from '@cocotte/core/measure';
import { Box } from '@mui/material';
import { List } from '../../kit/List.tsx';
import { Chart, PLAIN_CHART, useInk } from '../../kit/Chart.tsx';

/** Boiling temperature of sugar solutions in this kitchen, with the point the pot is to reach; the table says the same. */
export function SugarChart({
  kitchen,
  reach_pct,
  riseAt,
}: {
  kitchen: Kitchen;
  reach_pct: number;
  /** Kelvin above boiling water at °Brix. */
  riseAt: (brix: number) => number;
}) {
  const { palette } = useInk();
  const water_C = boilingPoint_C(kitchen.altitude_m) + kitchen.thermometerError_C;
  const shown = (brix: number) => {
    const c = water_C + riseAt(brix);
    return kitchen.temperature === 'F' ? fahrenheit(c) : c;
  };
  const points = Array.from({ length: 76 }, (_, brix) => brix);
  const rows = [0, 10, 20, 30, 40, 50, 60, 68, 70, 75];
  return (
    <Box sx={{ mt: 1.5 }}>
      <Box aria-hidden="true">
        <Chart
          type="line"
          height={240}
          series={[{ name: `°${kitchen.temperature}`, data: points.map(b => ({ x: b, y: shown(b) })) }]}
          options={{
            chart: PLAIN_CHART,
            colors: [palette.primary.main],
            stroke: { width: 3, curve: 'straight' },
            xaxis: {
              type: 'numeric',
              tickAmount: 5,
              min: 0,
              max: 75,
              title: { text: 'soluble solids, °Brix' },
              labels: { style: { colors: palette.text.secondary } },
            },
            yaxis: {
              title: { text: `boils at, °${kitchen.temperature}` },
              labels: { style: { colors: palette.text.secondary }, formatter: v => v.toFixed(0) },
            },
            grid: { borderColor: palette.divider },
            tooltip: { enabled: false },
            annotations: {
              points: [
                {
                  x: Math.min(75, reach_pct),
                  y: shown(Math.min(75, reach_pct)),
                  marker: { size: 7, fillColor: palette.warning.main, strokeColor: palette.background.paper },
                  label: {
                    text: 'this pot',
                    style: { background: palette.background.paper, color: palette.text.primary },
                  },
                },
              ],
            },
          }}
        />
      </Box>
      <List
        label="Boiling temperature by soluble solids"
        sx={{ maxWidth: 360 }}
        rows={rows}
        keyOf={b => b}
        columns={[
          { head: '°Brix', figure: true, cell: b => b },
          {
            head: `boils at, °${kitchen.temperature}`,
            figure: true,
            cell: b => numberText(shown(b), kitchen, 1),
          },
        ]}
      />
    </Box>
  );
}
