import { TextField } from '@mui/material';
import { useDeferredValue, useState } from 'react';
import { BatchTable } from '../batches/BatchTable.tsx';
import { useBatches } from '../batches/api.ts';
import { Nothing, Sheet, ShowMore, ViewHead } from '../shell/parts.tsx';

/** Every batch there ever was. */
export function RecordList() {
  const [search, setSearch] = useState('');
  const list = useBatches('', useDeferredValue(search.trim()));
  const { data } = list;
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
        <ShowMore list={list} />
      </Sheet>
    </>
  );
}
