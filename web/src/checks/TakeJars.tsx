import { takeJars } from '@cocotte/contract';
import { rangesText, readRanges } from '@cocotte/core/measure';
import { Button } from '@mui/material';
import { useState } from 'react';
import { v7 } from 'uuid';
import type { OpenBatch } from '../batches/open-batch.ts';
import { EntryForm } from '../kit/EntryForm.tsx';
import { Pick, Text } from '../kit/fields.tsx';
import { useTyped } from '../kit/form.ts';
import { Sheet, Soft } from '../kit/parts.tsx';
import { call } from '../shell/call.ts';
import { useItems, useStockChanged } from '../stores/api.ts';
import { misread } from '../words/views.ts';

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
  const form = useTyped({ jars: '', itemId: '' }, () => ({
    jars: (text: string) => {
      const jars = readRanges(text);
      return jars && jars.length > 0 ? { ok: true as const, value: jars } : misread('not-numbers');
    },
  }));
  if (fit.length === 0) return null;
  const started = batch.state.started as NonNullable<typeof batch.state.started>;
  const take = form.submit(async ({ jars, itemId }) => {
    const label = started.lotCode.slice(0, 40);
    const back = await batch.decide('jars.taken', stamp =>
      call(takeJars, {
        params: { batchId: batch.id },
        body: { jars, lotId, itemId: itemId || (items[0]?.id ?? ''), label, stamp },
      }),
    );
    await changed();
    if (back.length > 0) return back;
    form.again();
    setLotId(v7());
    return setOpen(false);
  });
  return (
    <Sheet
      title={<span id="into-another-batch">Into another batch</span>}
      aside={
        !open && (
          <Button size="small" variant="outlined" onClick={() => setOpen(true)}>
            Take jars
          </Button>
        )
      }
    >
      {batch.state.taken.map(t => (
        <Soft key={t.by.eventId} sx={{ display: 'block' }}>
          Jars {rangesText(t.jars)} were taken into the kitchen.
        </Soft>
      ))}
      {!open ? (
        <Soft>
          Sealed jars can be drawn as an ingredient. Their lot, contents and allergens go with them.
        </Soft>
      ) : items.length === 0 ? (
        <Soft>Add an ingredient counted in pieces first, with the net weight of one jar.</Soft>
      ) : (
        <EntryForm form={form} action="Take them" onSubmit={take} wide="1fr 1fr" narrow="1fr">
          <Text at={form.at('jars')} label="Which jars" placeholder={rangesText(fit)} />
          <Pick
            at={form.at('itemId')}
            label="As which ingredient"
            usual={items[0]?.id ?? ''}
            of={items.map(i => [i.id, i.name] as const)}
          />
        </EntryForm>
      )}
    </Sheet>
  );
}
