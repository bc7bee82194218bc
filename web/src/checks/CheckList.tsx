import { byName } from '@cocotte/core/measure';
import { Button } from '@mui/material';
import { Link } from 'react-router';
import { pagesOf } from '../kit/List.tsx';
import { Sheet, Soft, ViewHead } from '../kit/parts.tsx';
import { BatchTable } from '../batches/BatchTable.tsx';
import { useBatches } from '../batches/api.ts';
import { say } from '../words/views.ts';

const DUE = byName<string>({
  press: 'press the jars',
  acidity: 'read the pH',
  settle: 'settle a deviation',
  sign: 'sign a correction',
  held: 'held: open it to see why',
  release: 'release',
  label: 'print labels',
});

/** Batches between the canner and the shelf. */
export function CheckList() {
  return (
    <>
      <ViewHead title="Check" detail="Jars to press, acidity to read, deviations to settle, and the gate.">
        <Button component={Link} to="/check/learned" variant="outlined">
          {say('checked.title')}
        </Button>
        <Button component={Link} to="/check/deviations" variant="outlined">
          {say('deviations.list')}
        </Button>
      </ViewHead>
      <Sheet>
        <BatchTable
          {...pagesOf(useBatches('checking'), p => p.batches)}
          to={r => `/check/${r.id}`}
          nothing="No jar waits to be checked."
          last={{
            title: 'Next',
            cell: r =>
              r.summary.due.length > 0 ? (
                r.summary.due.map(d => DUE[d.kind]).join(', ')
              ) : (
                <Soft>held: open it to see why</Soft>
              ),
          }}
        />
      </Sheet>
    </>
  );
}
