import { takeJars } from '@cocotte/contract';
import { type Fault, rangesText, readRanges } from '@cocotte/core/measure';
import { Box, Button, MenuItem, TextField } from '@mui/material';
import { useState } from 'react';
import { v7 } from 'uuid';
import type { OpenBatch } from '../batches/api.ts';
import { call } from '../shell/call.ts';
import { Faults, Sheet, Soft } from '../shell/parts.tsx';
import { useItems, useStockChanged } from '../stores/api.ts';

/** Finished jars become an ingredient of another batch: their lot code, contents and cost go with them. */
export function TakeJars({ batch }: { batch: OpenBatch }) {
  const { data } = useItems();
  const changed = useStockChanged();
  const fit = batch.standing.forms
    .filter(f => f.form === 'sealed' || f.form === 'released')
    .map(f => f.number);
  const items = (data?.items ?? []).filter(i => i.kind === 'ingredient' && i.unit === 'each');
  const [open, setOpen] = useState(false);
  const [lotId, setLotId] = useState(() => v7());
  const [itemId, setItemId] = useState('');
  const [text, setText] = useState('');
  const [faults, setFaults] = useState<Fault[]>([]);
  if (fit.length === 0) return null;
  const started = batch.state.started as NonNullable<typeof batch.state.started>;
  const take = async () => {
    const jars = readRanges(text);
    if (!jars || jars.length === 0)
      return setFaults([
        {
          path: 'jars',
          code: 'not-numbers',
          what: 'These are no jar numbers.',
          why: 'Each jar is traced.',
          next: 'Write them like 1-4, 7.',
        },
      ]);
    const back = await batch.decide(stamp =>
      call(takeJars, {
        params: { batchId: batch.id },
        body: {
          jars,
          lotId,
          itemId: itemId || (items[0]?.id ?? ''),
          label: started.lotCode.slice(0, 40),
          stamp,
        },
      }),
    );
    setFaults(back);
    await changed();
    if (back.length > 0) return;
    setText('');
    setLotId(v7());
    setOpen(false);
  };
  return (
    <Sheet
      title="Into another batch"
      aside={
        !open && (
          <Button size="small" variant="outlined" onClick={() => setOpen(true)}>
            Take jars
          </Button>
        )
      }
    >
      {batch.state.taken.map(t => (
        <Box key={t.by.eventId}>
          <Soft>Jars {rangesText(t.jars)} were taken into the kitchen.</Soft>
        </Box>
      ))}
      {!open ? (
        <Soft>
          Sealed jars can be drawn as an ingredient. Their lot, contents and allergens go with them.
        </Soft>
      ) : items.length === 0 ? (
        <Soft>Add an ingredient counted in pieces first, with the net weight of one jar.</Soft>
      ) : (
        <Box
          sx={{
            display: 'grid',
            gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr auto' },
            gap: 1.5,
            mt: 1,
            alignItems: 'start',
          }}
        >
          <TextField
            label="Which jars"
            placeholder={rangesText(fit)}
            value={text}
            onChange={e => setText(e.target.value)}
          />
          <TextField
            select
            label="As which ingredient"
            value={itemId || (items[0]?.id ?? '')}
            onChange={e => setItemId(e.target.value)}
          >
            {items.map(i => (
              <MenuItem key={i.id} value={i.id}>
                {i.name}
              </MenuItem>
            ))}
          </TextField>
          <Button variant="outlined" disabled={batch.busy} onClick={() => void take()} sx={{ minHeight: 44 }}>
            Take them
          </Button>
        </Box>
      )}
      <Faults faults={faults} />
    </Sheet>
  );
}
