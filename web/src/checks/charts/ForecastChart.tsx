import type { CheckHistory } from '@cocotte/contract';
import { forecastError } from '@cocotte/core/checks';
import { dayText, numberText } from '@cocotte/core/measure';
import { Box } from '@mui/material';
import { ChartInView, PLAIN_CHART, useInk } from '../../kit/Chart.tsx';
import { Folded } from '../../kit/Folded.tsx';
import { List } from '../../kit/List.tsx';
import { Nothing } from '../../kit/parts.tsx';
import { useHere } from '../../shell/session.tsx';
import { say } from '../../words/views.ts';
import { drawnOf, FEW } from './drawn.ts';

/** What was foreseen of acidity against what was read: on the line both are the same. */
export function ForecastChart({ batches }: { batches: CheckHistory['batches'] }) {
  const { kitchen } = useHere();
  const { palette } = useInk();
  const error = forecastError(batches);
  if (!error) return <Nothing>{say('checked.noForecast')}</Nothing>;
  const ph = (value: number) => numberText(value, kitchen, 2);
  const all = error.of.flatMap(o => [o.foreseen, o.read]);
  const [from, to] = [Math.floor(Math.min(...all) * 2) / 2, Math.ceil(Math.max(...all) * 2) / 2 + 0.001];
  return (
    <>
      <Box sx={{ mb: 1 }}>
        {say('checked.error', {
          n: error.of.length,
          mean: ph(error.mean),
          rms: ph(error.rms),
          held: numberText(error.held * 100, kitchen, 0),
        })}
      </Box>
      <Box aria-hidden="true" sx={{ maxWidth: 460 }}>
        <ChartInView
          type="line"
          height={280}
          series={[
            {
              name: say('checked.read'),
              type: 'scatter',
              data: drawnOf(error.of, o => o.read < o.low || o.read > o.high).map(o => ({
                x: o.foreseen,
                y: Number(o.read.toFixed(3)),
              })),
            },
            { name: say('checked.same'), type: 'line', data: [from, to].map(v => ({ x: v, y: v })) },
          ]}
          options={{
            chart: PLAIN_CHART,
            colors: [palette.primary.main, palette.rule.strong],
            stroke: { width: [0, 2], curve: 'straight' },
            markers: { size: [6, 0], strokeWidth: 0 },
            legend: { labels: { colors: palette.text.primary } },
            grid: { borderColor: palette.divider },
            tooltip: { enabled: false },
            xaxis: {
              type: 'numeric',
              min: from,
              max: to,
              tickAmount: 4,
              title: { text: say('checked.foreseen'), style: { color: palette.text.secondary } },
              labels: {
                style: { colors: palette.text.secondary },
                formatter: v => numberText(Number(v), kitchen, 1),
              },
            },
            yaxis: {
              min: from,
              max: to,
              tickAmount: 4,
              labels: {
                style: { colors: palette.text.secondary },
                formatter: v => numberText(v, kitchen, 1),
              },
            },
          }}
        />
      </Box>
      <Folded summary={say('checked.held', { n: error.of.length })} opened={error.of.length <= FEW}>
        {() => (
          <List
            label={say('checked.forecast')}
            rows={error.of}
            keyOf={o => o.lotCode}
            columns={[
              { head: say('deviations.lot'), row: true, cell: o => o.lotCode },
              { head: say('checked.day'), whole: true, cell: o => dayText(o.madeOn, kitchen), from: 'sm' },
              { head: say('checked.foreseen'), figure: true, cell: o => ph(o.foreseen) },
              {
                head: say('checked.interval90'),
                figure: true,
                cell: o => say('checked.from', { low: ph(o.low), high: ph(o.high) }),
                from: 'sm',
              },
              { head: say('checked.read'), figure: true, cell: o => ph(o.read) },
              {
                head: say('checked.off'),
                figure: true,
                order: o => o.read - o.foreseen,
                cell: o => ph(o.read - o.foreseen),
              },
            ]}
          />
        )}
      </Folded>
    </>
  );
}
