import { useDeferredValue, useState } from 'react';
import { BatchTable } from '../batches/BatchTable.tsx';
import { useBatches } from '../batches/api.ts';
import { Search } from '../kit/controls.tsx';
import { pagesOf } from '../kit/List.tsx';
import { Sheet, ViewHead } from '../kit/parts.tsx';
import { say } from '../words/views.ts';

/** Every batch there ever was. */
export function RecordList() {
  const [search, setSearch] = useState('');
  const list = useBatches('', useDeferredValue(search.trim()));
  const asking = useBatches('asks more');
  const asked = (asking.data?.pages ?? []).some(p => p.batches.length > 0);
  return (
    <>
      <ViewHead title="Records" detail="Every batch, newest first.">
        <Search label="Lot code or name" value={search} onText={setSearch} sx={{ width: 260 }} />
      </ViewHead>
      {asked && (
        <Sheet title={say('records.asksMore')} aside={say('records.asksMore.why')} sx={{ mb: 2 }}>
          <BatchTable
            {...pagesOf(asking, p => p.batches)}
            to={r => `/check/${r.id}`}
            nothing=""
            last={{ title: say('records.asked'), cell: r => r.summary.asksMore.join('; ') }}
          />
        </Sheet>
      )}
      <Sheet>
        <BatchTable
          {...pagesOf(list, p => p.batches)}
          to={r => `/records/${r.id}`}
          nothing={search ? 'No batch has these words.' : 'No batch was started yet.'}
          last={{ title: 'Stands at', cell: r => r.summary.stage }}
        />
      </Sheet>
    </>
  );
}
