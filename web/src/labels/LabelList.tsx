import { Box } from '@mui/material';
import { Nothing, Sheet, Soft, ViewHead } from '../shell/parts.tsx';
import { BatchTable } from '../batches/BatchTable.tsx';
import { useBatches } from '../batches/api.ts';

/** Released batches: those that still want labels first. */
export function LabelList() {
  const { data } = useBatches('released');
  const { data: checking } = useBatches('checking');
  const rows = [
    ...(checking?.pages.flatMap(p => p.batches).filter(b => b.summary.released > 0) ?? []),
    ...(data?.pages.flatMap(p => p.batches) ?? []),
  ];
  const waits = rows.filter(r => r.summary.labelled < r.summary.released);
  const done = rows.filter(r => r.summary.labelled >= r.summary.released);
  const table = (list: typeof rows) => (
    <BatchTable
      rows={list}
      to={r => `/label/${r.id}`}
      last={{ title: 'Labelled', cell: r => `${r.summary.labelled} of ${r.summary.released}` }}
    />
  );
  return (
    <>
      <ViewHead title="Label" detail="Labels are printed for released jars only." />
      <Box sx={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr)', gap: 2 }}>
        <Sheet title="To print">
          {waits.length > 0 ? table(waits) : data && <Nothing>No released jar waits for its label.</Nothing>}
        </Sheet>
        {done.length > 0 && (
          <Sheet title="Printed" aside={<Soft>open one to print it again</Soft>}>
            {table(done)}
          </Sheet>
        )}
      </Box>
    </>
  );
}
