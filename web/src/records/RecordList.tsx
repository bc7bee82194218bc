import { Box, Button, TextField } from '@mui/material';
import { useDeferredValue, useState } from 'react';
import { BatchTable } from '../batches/BatchTable.tsx';
import { useBatches } from '../batches/api.ts';
import { Nothing, Sheet, ViewHead } from '../shell/parts.tsx';

/** Every batch there ever was. */
export function RecordList() {
  const [search, setSearch] = useState('');
  const { data, hasNextPage, fetchNextPage } = useBatches('', useDeferredValue(search.trim()));
  const rows = data?.pages.flatMap(p => p.batches) ?? [];
  return (
    <>
      <ViewHead title="Records" detail="Every batch, newest first.">
        <TextField
          label="Lot code or name"
          value={search}
          onChange={e => setSearch(e.target.value)}
          sx={{ width: 260 }}
        />
      </ViewHead>
      <Sheet>
        {rows.length > 0 ? (
          <BatchTable
            rows={rows}
            to={r => `/records/${r.id}`}
            last={{ title: 'Stands at', cell: r => r.summary.stage }}
          />
        ) : (
          data && <Nothing>{search ? 'No batch has these words.' : 'No batch was started yet.'}</Nothing>
        )}
        {hasNextPage && (
          <Box sx={{ textAlign: 'center', mt: 2 }}>
            <Button variant="outlined" onClick={() => void fetchNextPage()}>
              Show more
            </Button>
          </Box>
        )}
      </Sheet>
    </>
  );
}
