import type { CheckHistory } from '@cocotte/contract';
import { netVerdict } from '@cocotte/core/checks';
import { jarSize } from '@cocotte/core/jars';
import { massText } from '@cocotte/core/measure';
import { Box } from '@mui/material';
import { ChartInView, PLAIN_CHART, useInk } from '../../kit/Chart.tsx';
import { Folded } from '../../kit/Folded.tsx';
import { List } from '../../kit/List.tsx';
import { Nothing, Tag } from '../../kit/parts.tsx';
import { useHere } from '../../shell/session.tsx';
import { say } from '../../words/views.ts';
import { FEW } from './drawn.ts';

/** Batches that are drawn; the table has all. */
const DRAWN = 40;

/** What jars held against what they declare, by batch and size: above the line there is more in them. */
export function FillChart({ batches }: { batches: CheckHistory['batches'] }) {
  const { kitchen } = useHere();
  const { palette } = useInk();
  const rows = batches.toReversed().flatMap(b =>
    b.nets.flatMap(n => {
      const verdict = netVerdict(n.nets, n.declared_g, n.nets.length, 1);
      return verdict ? [{ ...verdict, size: n.size, lotCode: b.lotCode, key: `${b.batchId} ${n.size}` }] : [];
    }),
  );
  if (rows.length === 0) return <Nothing>{say('checked.noNets')}</Nothing>;
  const drawn = rows.slice(-DRAWN);
  return (
    <>
      <Box aria-hidden="true">
        <ChartInView
          type="bar"
          height={220}
          series={[
            {
              name: say('checked.fillOver'),
              data: drawn.map(r => ({
                x: `${r.lotCode} ${jarSize(r.size).name}`,
                y: Number(r.error_g.toFixed(1)),
                fillColor: r.passes ? palette.leaf.main : palette.ox.main,
              })),
            },
          ]}
          options={{
            chart: PLAIN_CHART,
            plotOptions: { bar: { columnWidth: '50%' } },
            dataLabels: { enabled: false },
            grid: { borderColor: palette.divider },
            tooltip: { enabled: false },
            xaxis: { labels: { show: false } },
            yaxis: {
              title: { text: say('checked.fillOver'), style: { color: palette.text.secondary } },
              labels: { style: { colors: palette.text.secondary } },
            },
          }}
        />
      </Box>
      <Folded summary={say('checked.fills', { n: rows.length })} opened={rows.length <= FEW}>
        {() => (
          <List
            label={say('checked.fill')}
            rows={rows.toReversed()}
            keyOf={r => r.key}
            columns={[
              { head: say('deviations.lot'), row: true, cell: r => `${r.lotCode}, ${jarSize(r.size).name}` },
              { head: say('nets.declared'), figure: true, cell: r => massText(r.declared_g, kitchen) },
              { head: say('nets.mean'), figure: true, cell: r => massText(r.mean_g, kitchen) },
              { head: say('checked.weighed'), figure: true, cell: r => r.sample, from: 'sm' },
              {
                head: say('deviations.stands'),
                cell: r => (
                  <Tag tone={r.passes ? 'leaf' : 'ox'}>{say(r.passes ? 'nets.passes' : 'nets.short')}</Tag>
                ),
              },
            ]}
          />
        )}
      </Folded>
    </>
  );
}
