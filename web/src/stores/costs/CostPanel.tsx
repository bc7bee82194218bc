import { Button } from '@mui/material';
import { Link } from 'react-router';
import type { OpenBatch } from '../../batches/open-batch.ts';
import { Sheet } from '../../kit/parts.tsx';
import { useBatchCost } from '../api.ts';
import { CostTable, PerJar } from './CostTable.tsx';

/** The cost of a batch beside its checks. */
export function CostPanel({ batch }: { batch: OpenBatch }) {
  const { data: sheet } = useBatchCost(batch.id, batch.view.lastSeq);
  if (!sheet || sheet.lines.length === 0) return null;
  return (
    <Sheet title="Cost" aside={sheet.bySize.length > 0 && <PerJar sheet={sheet} />}>
      <CostTable sheet={sheet} label="Cost of the batch" />
      <Button component={Link} to={`/costs/${batch.id}`} size="small" variant="outlined" sx={{ mt: 1 }}>
        Price it
      </Button>
    </Sheet>
  );
}
