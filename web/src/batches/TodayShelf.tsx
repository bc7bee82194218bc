import { dayText } from '@cocotte/core/measure';
import { Box, Link as MuiLink } from '@mui/material';
import { Link } from 'react-router';
import { FormCounts } from '../kit/FormCounts.tsx';
import { Nothing, Sheet, Soft } from '../kit/parts.tsx';
import { useHere } from '../shell/session.tsx';
import { useBatches } from './api.ts';
import { TodayRow as Row } from './TodayRow.tsx';

/** Released jars, newest batch first. */
export default function TodayShelf() {
  const { kitchen } = useHere();
  const { data } = useBatches('released');
  const rows = data?.pages[0]?.batches.slice(0, 6) ?? [];
  return (
    <Sheet
      title="On the shelf"
      sx={{ gridColumn: '1 / -1' }}
      aside={rows.length > 0 ? 'released, newest first' : ''}
    >
      {rows.map(b => (
        <Row key={b.id} wrap>
          <Box sx={{ flex: '1 1 240px' }}>
            <MuiLink component={Link} to={`/records/${b.id}`} sx={{ fontWeight: 700, fontSize: '1.08rem' }}>
              {b.summary.name}
            </MuiLink>
            <br />
            <Soft>
              {b.summary.lotCode} · made {dayText(b.summary.madeOn, kitchen)}
            </Soft>
          </Box>
          <FormCounts forms={b.summary.forms} />
        </Row>
      ))}
      {data && rows.length === 0 && <Nothing>No jar is released yet.</Nothing>}
    </Sheet>
  );
}
