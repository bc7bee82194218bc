import { Button } from '@mui/material';
import { Link } from 'react-router';
import { pagesOf } from '../kit/List.tsx';
import { Sheet, ViewHead } from '../kit/parts.tsx';
import { BatchTable } from './BatchTable.tsx';
import { useBatches } from './api.ts';
import { TimerButton } from './TimerButton.tsx';

/** Batches on the go. */
export function CookList() {
  return (
    <>
      <ViewHead title="Cook" detail="Batches on the go: from the first step to the last jar lifted.">
        <TimerButton />
        <Button component={Link} to="/recipes" variant="contained">
          Start a batch
        </Button>
      </ViewHead>
      <Sheet>
        <BatchTable
          {...pagesOf(useBatches('cooking'), p => p.batches)}
          to={r => `/cook/${r.id}`}
          nothing="Nothing is on the stove. Choose a recipe to start a batch."
          last={{
            title: 'Running',
            cell: r => r.summary.running.map(x => <div key={x.id}>{x.title}</div>),
          }}
        />
      </Sheet>
    </>
  );
}
