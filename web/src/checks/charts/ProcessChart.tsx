import type { CheckHistory } from '@cocotte/contract';
import { dayText, durationText } from '@cocotte/core/measure';
import { Box, Link as MuiLink } from '@mui/material';
import { Link } from 'react-router';
import { ChartInView, PLAIN_CHART, useInk } from '../../kit/Chart.tsx';
import { Folded } from '../../kit/Folded.tsx';
import { List } from '../../kit/List.tsx';
import { Nothing, Tag } from '../../kit/parts.tsx';
import { useHere } from '../../shell/session.tsx';
import { say } from '../../words/views.ts';

/** Loads that are drawn; the table has all. */
const DRAWN = 60;

/** Minutes each load stood at the boil, over what was required of it: what lies below the line was not processed. */
export function ProcessChart({ batches }: { batches: CheckHistory['batches'] }) {
  const { kitchen } = useHere();
  const { palette } = useInk();
  const loads = batches
    .flatMap(batch =>
      batch.loads.flatMap(l =>
        l.required_s === null || l.time_s === null
          ? []
          : [{ ...l, batch, required_s: l.required_s, time_s: l.time_s }],
      ),
    )
    .sort((a, b) => (a.batch.madeOn < b.batch.madeOn ? -1 : 1));
  if (loads.length === 0) return <Nothing>{say('checked.noLoads')}</Nothing>;
  const drawn = loads.slice(-DRAWN);
  return (
    <>
      <Box aria-hidden="true">
        <ChartInView
          type="bar"
          height={240}
          series={[
            {
              name: say('checked.over'),
              data: drawn.map((l, i) => ({
                x: String(i),
                y: Number(((l.time_s - l.required_s) / 60).toFixed(1)),
                fillColor: l.time_s < l.required_s ? palette.ox.main : palette.leaf.main,
              })),
            },
          ]}
          options={{
            chart: PLAIN_CHART,
            plotOptions: { bar: { columnWidth: '60%' } },
            dataLabels: { enabled: false },
            grid: { borderColor: palette.divider },
            tooltip: { enabled: false },
            xaxis: { labels: { show: false } },
            yaxis: {
              title: { text: say('checked.over'), style: { color: palette.text.secondary } },
              labels: { style: { colors: palette.text.secondary } },
            },
          }}
        />
      </Box>
      <Folded summary={say('checked.loads', { n: loads.length })}>
        {() => (
          <List
            label={say('checked.process')}
            rows={loads.toReversed()}
            keyOf={l => `${l.batch.batchId} ${l.number}`}
            columns={[
              { head: say('checked.day'), whole: true, cell: l => dayText(l.batch.madeOn, kitchen) },
              {
                head: say('deviations.lot'),
                row: true,
                cell: l => (
                  <MuiLink component={Link} to={`/check/${l.batch.batchId}`}>
                    {say('checked.loadOf', { lot: l.batch.lotCode, load: l.number })}
                  </MuiLink>
                ),
              },
              { head: say('checked.required'), figure: true, cell: l => durationText(l.required_s) },
              {
                head: say('checked.stood'),
                figure: true,
                order: l => l.time_s,
                cell: l => durationText(l.time_s),
              },
              {
                head: say('deviations.stands'),
                cell: l => (
                  <Tag tone={l.phase === 'processed' ? 'leaf' : 'ox'}>
                    {l.phase === 'processed' ? say('checked.processed') : l.phase}
                  </Tag>
                ),
              },
            ]}
          />
        )}
      </Folded>
    </>
  );
}
