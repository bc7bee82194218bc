import type { BatchRow } from '@cocotte/contract';
import { dayText } from '@cocotte/core/measure';
import { Link as MuiLink } from '@mui/material';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { List } from '../kit/List.tsx';
import { FormCounts } from '../kit/FormCounts.tsx';
import { Soft, Tag } from '../kit/parts.tsx';
import { useHere } from '../shell/session.tsx';

/** Batches in a list: what, which lot, where its jars stand, and what the stop adds. */
export function BatchTable({
  to,
  last,
  ...listed
}: Omit<Parameters<typeof List<BatchRow>>[0], 'columns' | 'keyOf' | 'label'> & {
  to: (row: BatchRow) => string;
  last?: { title: string; cell: (row: BatchRow) => ReactNode };
}) {
  const { kitchen } = useHere();
  return (
    <List
      label="Batches"
      size="medium"
      {...listed}
      keyOf={r => r.id}
      columns={[
        {
          head: 'Batch',
          order: r => r.summary.name,
          cell: r => (
            <>
              <MuiLink component={Link} to={to(r)} sx={{ fontWeight: 700, fontSize: '1.08rem' }}>
                {r.summary.name}
              </MuiLink>
              <br />
              <Soft>{r.summary.lotCode}</Soft>{' '}
              {r.summary.purpose !== 'sale' && <Tag tone="live">{r.summary.purpose}</Tag>}
            </>
          ),
        },
        {
          head: 'Made',
          from: 'sm',
          whole: true,
          order: r => r.summary.madeOn,
          cell: r => dayText(r.summary.madeOn, kitchen),
        },
        { head: 'Jars', cell: r => <FormCounts forms={r.summary.forms} /> },
        last && { head: last.title, cell: last.cell },
      ]}
    />
  );
}
