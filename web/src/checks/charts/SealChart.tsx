import type { CheckHistory } from '@cocotte/contract';
import { LIDS_TO_JUDGE, sealGroups, worseLids } from '@cocotte/core/checks';
import { JAR_SIZES } from '@cocotte/core/jars';
import { depthText, numberText } from '@cocotte/core/measure';
import { Box } from '@mui/material';
import { useState } from 'react';
import { ChartInView, PLAIN_CHART, useInk } from '../../kit/Chart.tsx';
import { Switcher } from '../../kit/controls.tsx';
import { List } from '../../kit/List.tsx';
import { Nothing, Soft, Tag } from '../../kit/parts.tsx';
import { useHere } from '../../shell/session.tsx';
import { say } from '../../words/views.ts';
import { useWorseLids } from '../history.ts';

const BY = ['lid', 'size', 'load', 'canner', 'headspace', 'recipe'] as const;
/** Groups that are drawn; the table has all. */
const DRAWN = 12;

/** Seals that failed, by what may have to do with it, each share with its interval; a lid lot that is worse than chance is named. */
export function SealChart({ history }: { history: CheckHistory }) {
  const { kitchen } = useHere();
  const { palette } = useInk();
  const [by, setBy] = useState<(typeof BY)[number]>('lid');
  const counts = history.batches.flatMap(b => b.seals.map(s => ({ ...s, batch: b })));
  const worse = worseLids(counts);
  const { words } = useWorseLids();
  if (counts.length === 0) return <Nothing>{say('checked.noSeals')}</Nothing>;
  const keyOf = (c: (typeof counts)[number]): string | null =>
    by === 'lid'
      ? c.lidLotId
      : by === 'size'
        ? c.size
        : by === 'load'
          ? String(c.load)
          : by === 'canner'
            ? (c.batch.loads.find(l => l.number === c.load)?.canner ?? '')
            : by === 'recipe'
              ? c.batch.name
              : c.headspace_mm === null
                ? ''
                : String(c.headspace_mm);
  const groups = sealGroups(counts, c => keyOf(c as (typeof counts)[number]));
  const nameOf = (key: string) => {
    if (by === 'lid') {
      const lid = history.lids.find(l => l.lotId === key);
      return lid ? `${lid.name}, ${lid.label}` : key.slice(0, 8);
    }
    if (by === 'size') return JAR_SIZES.find(s => s.id === key)?.name ?? key;
    if (by === 'load') return say('press.load', { load: Number(key) });
    if (by === 'canner') return key || say('checked.firstCanner');
    if (by === 'headspace') return key === '' ? say('checked.asAsked') : depthText(Number(key), kitchen);
    return key;
  };
  const pct = (share: number) => `${numberText(share * 100, kitchen, 1)} %`;
  const drawn = groups.slice(0, DRAWN);
  return (
    <>
      {words.map(w => (
        <Box key={w} sx={{ borderLeft: 4, borderColor: 'ox.main', pl: 1.5, mb: 1.5 }}>
          {w}
        </Box>
      ))}
      <Switcher
        label={say('checked.by')}
        value={by}
        of={BY.map(b => [b, say(`checked.by.${b}`)] as const)}
        onPick={setBy}
        sx={{ width: 220, mb: 1 }}
      />
      <Box aria-hidden="true">
        <ChartInView
          key={by}
          type="bar"
          height={Math.max(120, 46 + drawn.length * 34)}
          series={[
            {
              name: say('checked.failed'),
              data: drawn.map(g => ({ x: nameOf(g.key), y: Number((g.share * 100).toFixed(1)) })),
            },
          ]}
          options={{
            chart: PLAIN_CHART,
            colors: [palette.primary.main],
            plotOptions: { bar: { horizontal: true, barHeight: '55%' } },
            dataLabels: { enabled: false },
            grid: { borderColor: palette.divider },
            tooltip: { enabled: false },
            xaxis: {
              min: 0,
              max: Math.max(10, ...drawn.map(g => Math.ceil(g.share * 10) * 10)),
              labels: { style: { colors: palette.text.secondary }, formatter: v => `${v} %` },
            },
            yaxis: { labels: { maxWidth: 220, style: { colors: palette.text.primary } } },
          }}
        />
      </Box>
      <List
        label={say('checked.seals')}
        rows={groups}
        keyOf={g => g.key}
        columns={[
          { head: say(`checked.by.${by}`), row: true, cell: g => nameOf(g.key) },
          { head: say('checked.failed'), figure: true, order: g => g.failed, cell: g => g.failed },
          { head: say('checked.tried'), figure: true, order: g => g.tried, cell: g => g.tried },
          { head: say('checked.share'), figure: true, order: g => g.share, cell: g => pct(g.share) },
          {
            head: say('checked.interval'),
            figure: true,
            from: 'sm',
            cell: g => say('checked.from', { low: pct(g.low), high: pct(g.high) }),
          },
          by === 'lid' && {
            head: say('checked.chance'),
            cell: g =>
              worse.some(w => w.lidLotId === g.key) ? (
                <Tag tone="ox">{say('checked.worse')}</Tag>
              ) : (
                <Soft>{say(g.tried < LIDS_TO_JUDGE ? 'checked.few' : 'checked.notWorse')}</Soft>
              ),
          },
        ]}
      />
    </>
  );
}
