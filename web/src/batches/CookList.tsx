import { Button } from '@mui/material';
import { Link } from 'react-router';
import { Nothing, Sheet, ViewHead } from '../shell/parts.tsx';
import { BatchTable } from './BatchTable.tsx';
import { useBatches } from './api.ts';

/** Batches on the go. */
export function CookList() {
  const { data } = useBatches('cooking');
  const rows = data?.pages.flatMap(p => p.batches) ?? [];
  return (
    <>
      <ViewHead title="Cook" detail="Batches on the go: from the first step to the last jar lifted.">
        <Button component={Link} to="/recipes" variant="contained">
          Start a batch
        </Button>
      </ViewHead>
      <Sheet>
        {rows.length > 0 ? (
          <BatchTable
            rows={rows}
            to={r => `/cook/${r.id}`}
            last={{
              title: 'Running',
              cell: r => r.summary.running.map(x => <div key={x.id}>{x.title}</div>),
            }}
          />
        ) : (
          data && <Nothing>Nothing is on the stove. Choose a recipe to start a batch.</Nothing>
        )}
      </Sheet>
    </>
  );
}
