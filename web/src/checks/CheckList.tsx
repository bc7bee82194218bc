import { byName } from '@cocotte/core/measure';
import { Nothing, Sheet, Soft, ViewHead } from '../shell/parts.tsx';
import { BatchTable } from '../batches/BatchTable.tsx';
import { useBatches } from '../batches/api.ts';

const DUE = byName<string>({
  press: 'press the jars',
  acidity: 'read the pH',
  settle: 'settle a deviation',
  release: 'release',
  label: 'print labels',
});

/** Batches between the canner and the shelf. */
export function CheckList() {
  const { data } = useBatches('checking');
  const rows = data?.pages.flatMap(p => p.batches) ?? [];
  return (
    <>
      <ViewHead title="Check" detail="Jars to press, acidity to read, deviations to settle, and the gate." />
      <Sheet>
        {rows.length > 0 ? (
          <BatchTable
            rows={rows}
            to={r => `/check/${r.id}`}
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
        ) : (
          data && <Nothing>No jar waits to be checked.</Nothing>
        )}
      </Sheet>
    </>
  );
}
