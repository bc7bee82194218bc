import type { CheckHistory } from '@cocotte/contract';
import { PH_LIMIT } from '@cocotte/core/acid';
import { dayOf, dayText, instantText, numberText } from '@cocotte/core/measure';
import { Box, Link as MuiLink } from '@mui/material';
import { Link } from 'react-router';
import { ChartInView, PLAIN_CHART, useInk } from '../../kit/Chart.tsx';
import { Folded } from '../../kit/Folded.tsx';
import { List } from '../../kit/List.tsx';
import { Nothing, Soft } from '../../kit/parts.tsx';
import { useHere } from '../../shell/session.tsx';
import { say } from '../../words/views.ts';
import { drawnOf } from './drawn.ts';

/** Calibrations that are marked: more would be a hatching. */
const MARKED = 40;

/** Acidity by batch: each reading against the limit and against what the kitchen acts at, its calibrations marked. */
export function PhChart({ batches }: { batches: CheckHistory['batches'] }) {
  const { kitchen } = useHere();
  const { palette } = useInk();
  const readings = batches
    .flatMap(batch => batch.readings.map(r => ({ ...r, batch })))
    .sort((a, b) => a.at_ms - b.at_ms);
  if (readings.length === 0) return <Nothing>{say('checked.noPh')}</Nothing>;
  const calibrations = [...new Set(readings.flatMap(r => r.calibratedAt ?? []))].map(at => Date.parse(at));
  const marks = calibrations.slice(-MARKED);
  const line = (y: number, text: string, color: string) => ({
    y,
    borderColor: color,
    strokeDashArray: 0,
    label: {
      text,
      position: 'left' as const,
      textAnchor: 'start' as const,
      borderWidth: 0,
      style: { background: 'transparent', color: palette.text.primary },
    },
  });
  const drawn = drawnOf(readings, r => r.ph + r.u_ph > kitchen.phAct);
  const points = (counts: boolean) =>
    drawn.filter(r => r.counts === counts).map(r => ({ x: r.at_ms, y: Number(r.ph.toFixed(3)) }));
  const all = readings.map(r => r.ph);
  return (
    <>
      <Box aria-hidden="true">
        <ChartInView
          type="scatter"
          height={280}
          series={[
            { name: say('checked.counts'), data: points(true) },
            { name: say('checked.countsNot'), data: points(false) },
          ]}
          options={{
            chart: PLAIN_CHART,
            colors: [palette.leaf.main, palette.live.main],
            markers: { size: 5, strokeWidth: 0, shape: ['circle', 'triangle'] },
            legend: { labels: { colors: palette.text.primary } },
            grid: { borderColor: palette.divider },
            tooltip: { enabled: false },
            xaxis: {
              type: 'numeric',
              tickAmount: 5,
              labels: {
                style: { colors: palette.text.secondary },
                formatter: v => dayText(dayOf(Number(v), kitchen.zone), kitchen),
              },
            },
            yaxis: {
              min: Math.min(3, Math.floor(Math.min(...all) * 2) / 2),
              max: Math.max(5, Math.ceil(Math.max(...all) * 2) / 2),
              tickAmount: 4,
              labels: {
                style: { colors: palette.text.secondary },
                formatter: v => numberText(v, kitchen, 1),
              },
            },
            annotations: {
              yaxis: [
                line(PH_LIMIT, say('checked.limit', { ph: numberText(PH_LIMIT, kitchen) }), palette.ox.main),
                line(
                  kitchen.phAct,
                  say('checked.act', { ph: numberText(kitchen.phAct, kitchen) }),
                  palette.rule.strong,
                ),
              ],
              xaxis: marks.map(x => ({ x, borderColor: palette.rule.strong, strokeDashArray: 3 })),
            },
          }}
        />
      </Box>
      <Soft>{say('checked.calibrations', { n: calibrations.length })}</Soft>
      <Folded summary={say('checked.readings', { n: readings.length })}>
        {() => (
          <List
            label={say('checked.ph')}
            rows={readings.toReversed()}
            keyOf={r => `${r.batch.batchId} ${r.at_ms} ${r.jar}`}
            columns={[
              { head: say('checked.at'), cell: r => instantText(r.at_ms, kitchen), whole: true },
              {
                head: say('deviations.lot'),
                row: true,
                cell: r => (
                  <MuiLink component={Link} to={`/check/${r.batch.batchId}`}>
                    {r.batch.lotCode}
                  </MuiLink>
                ),
              },
              { head: say('reading.jar'), figure: true, cell: r => r.jar },
              {
                head: 'pH',
                figure: true,
                order: r => r.ph,
                cell: r => `${numberText(r.ph, kitchen, 2)} ± ${numberText(r.u_ph, kitchen, 2)}`,
              },
              { head: say('checked.counts'), cell: r => say(r.counts ? 'checked.yes' : 'checked.no') },
            ]}
          />
        )}
      </Folded>
    </>
  );
}
