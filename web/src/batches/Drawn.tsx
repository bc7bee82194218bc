import { returnLots, reverseDraw } from '@cocotte/contract';
import type { Fault } from '@cocotte/core/measure';
import { Box, Button } from '@mui/material';
import { useState } from 'react';
import { Figure, Pick, Text } from '../kit/fields.tsx';
import { useTyped } from '../kit/form.ts';
import { FormDialog } from '../kit/FormDialog.tsx';
import { Stack } from '../kit/layout.tsx';
import { Faults, Sheet, Soft } from '../kit/parts.tsx';
import { useRead, words } from '../kit/readers.ts';
import { ReasonDialog } from '../kit/ReasonDialog.tsx';
import { call } from '../shell/call.ts';
import { useStockChanged } from '../stores/api.ts';
import type { OpenBatch } from './open-batch.ts';
import { uniqueLots } from './LoadPanel.tsx';
import { useHere } from '../shell/session.tsx';
import { quantityText } from '../stores/words.ts';

/** What was drawn: put back as a whole, or part of it that did not go into the pot. */
export function Drawn({ batch }: { batch: OpenBatch }) {
  const changed = useStockChanged();
  const { kitchen } = useHere();
  const [puttingBack, setPuttingBack] = useState<string | null>(null);
  const [returning, setReturning] = useState(false);
  const [faults, setFaults] = useState<Fault[]>([]);
  const bands = batch.state.draws
    .flatMap(d => d.lots)
    .filter(l => l.kind !== 'ingredient' && l.kind !== 'lid');
  const putBack = async (drawId: string, reason: string) => {
    setPuttingBack(null);
    setFaults(
      await batch.decide('draw.reversed', stamp =>
        call(reverseDraw, { params: { batchId: batch.id, drawId }, body: { reason, stamp } }),
      ),
    );
    await changed();
  };
  return (
    <Sheet
      title="Drawn"
      aside={
        bands.length > 0 && (
          <Button size="small" variant="outlined" onClick={() => setReturning(true)}>
            Something came back
          </Button>
        )
      }
    >
      {batch.state.draws.map(d => (
        <Box key={d.drawId} sx={{ display: 'flex', gap: 2, alignItems: 'center', py: 1 }}>
          <Box sx={{ flex: 1 }}>
            {d.lots.map(l => `${quantityText(l.quantity, l, kitchen)} ${l.name} (${l.lotLabel})`).join('; ')}
          </Box>
          <Button size="small" variant="outlined" onClick={() => setPuttingBack(d.drawId)}>
            Put back
          </Button>
        </Box>
      ))}
      {batch.state.returns.map(r => (
        <Box key={r.by.eventId} sx={{ py: 0.5 }}>
          <Soft>
            Came back:{' '}
            {r.lots
              .map(
                l =>
                  `${quantityText(l.quantity, { unit: 'each' }, kitchen)} ${bands.find(b => b.lotId === l.lotId)?.name ?? 'of a lot'}`,
              )
              .join(', ')}
            . {r.reason}
          </Soft>
        </Box>
      ))}
      {puttingBack && (
        <ReasonDialog
          title="Why is this draw put back?"
          action="Put it back"
          onClose={() => setPuttingBack(null)}
          onReason={reason => void putBack(puttingBack, reason)}
        />
      )}
      {returning && <ReturnDialog batch={batch} onClose={() => setReturning(false)} />}
      <Faults faults={faults} />
    </Sheet>
  );
}

function ReturnDialog({ batch, onClose }: { batch: OpenBatch; onClose: () => void }) {
  const read = useRead();
  const changed = useStockChanged();
  const lots = uniqueLots(
    batch.state.draws.flatMap(d => d.lots).filter(l => l.kind !== 'ingredient' && l.kind !== 'lid'),
  );
  const form = useTyped(
    { lotId: lots.find(l => l.kind === 'band')?.lotId ?? lots[0]?.lotId ?? '', quantity: '', reason: '' },
    () => ({
      quantity: read.decimal({ name: 'How many', min: 0, above: true, max: 1e6 }),
      reason: words('The reason', 'It stands in the record.', 'Say why.'),
    }),
  );
  const { at } = form;
  const send = form.submit(async ({ reason, ...lot }) => {
    const back = await batch.decide('lots.returned', stamp =>
      call(returnLots, { params: { batchId: batch.id }, body: { lots: [lot], reason, stamp } }),
    );
    await changed();
    if (back.length === 0) onClose();
    return back;
  });
  return (
    <FormDialog
      title="Something came back"
      action="Put it on the shelf"
      form={form}
      width="xs"
      onClose={onClose}
      onSubmit={send}
    >
      <Stack sx={{ mt: 1 }}>
        <Pick
          at={at('lotId')}
          label="What came back"
          of={lots.map(l => [l.lotId, `${l.name}, lot ${l.lotLabel}`] as const)}
        />
        <Figure at={at('quantity')} label="How many" />
        <Text at={at('reason')} label="Reason" />
      </Stack>
    </FormDialog>
  );
}
