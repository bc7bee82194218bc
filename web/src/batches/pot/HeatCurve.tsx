import type { Degrees } from '@cocotte/core/heat';
import type { Kitchen } from '@cocotte/core/kitchen';
import { clockText, fahrenheit, numberText, temperatureText } from '@cocotte/core/measure';
import { Box } from '@mui/material';
import { Chart, PLAIN_CHART, useInk } from '../../kit/Chart.tsx';
import { List } from '../../kit/List.tsx';
import { say } from '../../words/views.ts';

/** So far below the boil of water it only warms up: the climb above is what is looked at. */
const WARMING_C = 12;

/** So far above its target it is burnt, and the climb before it is what is looked at. */
const BURNT_C = 8;

/** How hot the pot was, with the boil of water and the target on this thermometer; the table says the same. */
export function HeatCurve({
  points,
  trace = [],
  boils_C,
  target_C,
  kitchen,
}: {
  /** What was logged. */
  points: readonly Degrees[];
  /** What an instrument showed all along, in so few points that it is drawn at once. */
  trace?: readonly Degrees[];
  boils_C: number;
  target_C: number | null;
  kitchen: Kitchen;
}) {
  const { palette } = useInk();
  const shown = (c: number) => (kitchen.temperature === 'F' ? fahrenheit(c) : c);
  const all = [...points, ...trace].map(p => p.temp_C).concat(boils_C, target_C === null ? [] : target_C);
  /** Their words stand at the two ends: a pot far past its target draws both close together. */
  const line = (c: number, text: string, color: string, end: 'left' | 'right') => ({
    y: shown(c),
    borderColor: color,
    strokeDashArray: color === palette.warning.main ? 0 : 5,
    label: {
      text,
      position: end,
      textAnchor: end === 'left' ? ('start' as const) : ('end' as const),
      borderWidth: 0,
      style: { background: 'transparent', color: palette.text.primary },
    },
  });
  return (
    <Box sx={{ mt: 1.5 }}>
      <Box aria-hidden="true">
        <Chart
          type="line"
          height={200}
          series={[points, ...(trace.length > 0 ? [trace] : [])].map((of, i) => ({
            name: say(i === 0 ? 'curve.logged' : 'curve.shown'),
            data: of.map(p => ({ x: p.at_ms, y: shown(p.temp_C) })),
          }))}
          options={{
            chart: PLAIN_CHART,
            legend: { labels: { colors: palette.text.primary } },
            colors: [palette.primary.main, palette.warning.main],
            // Beside a curve what was logged is points on it.
            stroke: { width: trace.length > 0 ? [0, 3] : 4, curve: 'straight' },
            markers: { size: trace.length > 0 ? [5, 0] : 4, strokeWidth: 0 },
            xaxis: {
              type: 'numeric',
              tickAmount: 4,
              labels: {
                style: { colors: palette.text.secondary },
                formatter: v => clockText(Number(v), kitchen),
              },
            },
            yaxis: {
              min: Math.floor(shown(Math.max(Math.min(...all), boils_C - WARMING_C)) - 2),
              max: Math.ceil(shown(Math.min(Math.max(...all), (target_C ?? Infinity) + BURNT_C)) + 3),
              labels: {
                style: { colors: palette.text.secondary },
                formatter: v => numberText(v, kitchen, 0),
              },
            },
            grid: { borderColor: palette.divider },
            tooltip: { enabled: false },
            annotations: {
              yaxis: [
                line(
                  boils_C,
                  say('pot.boils', { temp: temperatureText(boils_C, kitchen) }),
                  palette.rule.strong,
                  'right',
                ),
                ...(target_C === null
                  ? []
                  : [
                      line(
                        target_C,
                        say('pot.target', { temp: temperatureText(target_C, kitchen) }),
                        palette.warning.main,
                        'left',
                      ),
                    ]),
              ],
            },
          }}
        />
      </Box>
      <Box component="details" sx={{ mt: 0.5 }}>
        <summary>{say('pot.readings', { n: points.length })}</summary>
        <List
          label={say('pot.readingsLabel')}
          sx={{ maxWidth: 320 }}
          rows={[...points].toReversed()}
          keyOf={p => p.at_ms}
          columns={[
            { head: say('pot.at'), cell: p => clockText(p.at_ms, kitchen, true) },
            { head: say('pot.temperature'), figure: true, cell: p => temperatureText(p.temp_C, kitchen) },
          ]}
        />
      </Box>
    </Box>
  );
}
