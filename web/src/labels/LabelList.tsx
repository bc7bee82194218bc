import { Sheet, Soft, ViewHead } from '../kit/parts.tsx';
import { Stack } from '../kit/layout.tsx';
import { type Listed, pagesOf } from '../kit/List.tsx';
import { BatchTable } from '../batches/BatchTable.tsx';
import type { BatchRow } from '@cocotte/contract';
import { useBatches } from '../batches/api.ts';
import { useMay } from '../shell/session.tsx';
import { say } from '../words/views.ts';
import { useLabelSettings } from './api.ts';
import { LotCodesDialog } from './LotCodesDialog.tsx';
import { Button } from '@mui/material';
import { useState } from 'react';

/** Released batches: those that still want labels first. */
export function LabelList() {
  const mayChange = useMay('cook');
  const settings = useLabelSettings();
  const [lotCodes, setLotCodes] = useState(false);
  const released = pagesOf(useBatches('released'), p => p.batches);
  const checking = pagesOf(useBatches('checking'), p => p.batches);
  const rows = released.rows && [
    ...(checking.rows ?? []).filter(b => b.summary.released > 0),
    ...released.rows,
  ];
  const done = rows?.filter(r => r.summary.labelled >= r.summary.released) ?? [];
  const back = [...(checking.rows ?? []), ...(released.rows ?? [])].filter(r =>
    r.summary.due.some(d => d.kind === 'ask back'),
  );
  const table = (list: Listed<BatchRow>, nothing?: string) => (
    <BatchTable
      {...list}
      to={r => `/label/${r.id}`}
      nothing={nothing}
      last={{ title: 'Labelled', cell: r => `${r.summary.labelled} of ${r.summary.released}` }}
    />
  );
  return (
    <>
      <ViewHead title="Label" detail="Labels are printed for released jars only.">
        {mayChange && settings.data && (
          <Button variant="outlined" onClick={() => setLotCodes(true)}>
            {say('label.lotCodes')}
          </Button>
        )}
      </ViewHead>
      {lotCodes && settings.data && (
        <LotCodesDialog settings={settings.data} onClose={() => setLotCodes(false)} />
      )}
      <Stack>
        <Sheet title="To print">
          {table(
            {
              rows: rows?.filter(r => r.summary.labelled < r.summary.released),
              error: released.error ?? checking.error,
            },
            'No released jar waits for its label.',
          )}
        </Sheet>
        {back.length > 0 && (
          <Sheet
            title={say('label.askBack.title')}
            aside={<Soft>{say('label.askBack.aside')}</Soft>}
            tone="ox"
          >
            {table({ rows: back })}
          </Sheet>
        )}
        {done.length > 0 && (
          <Sheet title="Printed" aside={<Soft>open one to print it again</Soft>}>
            {table({ rows: done, more: released.more })}
          </Sheet>
        )}
      </Stack>
    </>
  );
}
