import { clockText } from '@cocotte/core/measure';
import { eventWords, lastOwn } from '@cocotte/core/records';
import { Box, Button } from '@mui/material';
import { Line } from '../kit/layout.tsx';
import { Soft } from '../kit/parts.tsx';
import { ReasonDialog } from '../kit/ReasonDialog.tsx';
import { useState } from 'react';
import { useHere } from '../shell/session.tsx';
import { say } from '../words/views.ts';
import type { OpenBatch } from './open-batch.ts';

/** What its person entered last in this batch, which can be taken back with its reason: it stays in the record, struck. */
export function LastEntry({ batch }: { batch: OpenBatch }) {
  const { kitchen, person } = useHere();
  const [asking, setAsking] = useState(false);
  const last = lastOwn(batch.events, batch.state, person.id);
  if (!last) return null;
  const words = eventWords(last, batch.state.started?.recipe ?? null, kitchen);
  return (
    <Box sx={{ mt: 2, borderTop: 1, borderColor: 'rule.main', pt: 1.5 }}>
      <Line sx={{ justifyContent: 'space-between' }}>
        <Soft>{say('undo.last', { at: clockText(Date.parse(last.occurredAt), kitchen), words })}</Soft>
        <Button variant="outlined" sx={{ minHeight: 56 }} onClick={() => setAsking(true)}>
          {say('undo.last.back')}
        </Button>
      </Line>
      {asking && (
        <ReasonDialog
          title={say('undo.last.title', { words })}
          action={say('undo.last.back')}
          suggested={say('undo.last.reason')}
          onClose={() => setAsking(false)}
          onReason={reason => {
            setAsking(false);
            void batch.enter([
              [
                'entry.corrected',
                { replaces: last.id, type: last.type, body: null, occurredAt: null, reason },
              ],
            ]);
          }}
        />
      )}
    </Box>
  );
}
