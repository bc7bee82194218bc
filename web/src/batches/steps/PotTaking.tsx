import { takeFromPot } from '@cocotte/contract';
import { POT_TAKEN_HOW } from '@cocotte/core/batches';
import { massText } from '@cocotte/core/measure';
import { Box, Button } from '@mui/material';
import { useState } from 'react';
import { Link } from 'react-router';
import { v7 } from 'uuid';
import { EntryForm } from '../../kit/EntryForm.tsx';
import { Figure, OneOf, Pick } from '../../kit/fields.tsx';
import { useTyped } from '../../kit/form.ts';
import { Caution, Sheet, Soft } from '../../kit/parts.tsx';
import { chosen, useRead } from '../../kit/readers.ts';
import { call } from '../../shell/call.ts';
import { useHere, useMay } from '../../shell/session.tsx';
import { useItems, useStockChanged } from '../../stores/api.ts';
import { say } from '../../words/views.ts';
import type { OpenBatch } from '../open-batch.ts';

/** Some of the pot becomes a lot of its own: a second product is a batch that draws it, with its share of the cost. */
export function PotTaking({ batch }: { batch: OpenBatch }) {
  const { kitchen } = useHere();
  const mayCook = useMay('cook');
  const read = useRead();
  const { data } = useItems();
  const changed = useStockChanged();
  const [open, setOpen] = useState(false);
  const [lotId, setLotId] = useState(() => v7());
  const items = (data?.items ?? []).filter(
    i => i.kind === 'ingredient' && i.unit === 'g' && (i.use === 'other' || i.use === 'produce'),
  );
  const form = useTyped(
    { mass_g: '', how: 'as it stands' as (typeof POT_TAKEN_HOW)[number], itemId: '' },
    () => ({
      mass_g: read.figure({ name: say('taken.weight'), min: 0, above: true, max: 1_000_000, unit: ' g' }),
      itemId: chosen(say('taken.as.missing'), say('taken.as.why'), say('taken.as.next')),
    }),
  );
  const started = batch.state.started as NonNullable<typeof batch.state.started>;
  const take = form.submit(async ({ mass_g, how, itemId }) => {
    const back = await batch.decide('pot.taken', stamp =>
      call(takeFromPot, {
        params: { batchId: batch.id },
        body: {
          mass_g,
          how,
          lotId,
          itemId,
          label: started.lotCode.slice(0, 40),
          stamp,
        },
      }),
    );
    if (back.length > 0) return back;
    await changed();
    form.again();
    setLotId(v7());
    return setOpen(false);
  });
  if (!mayCook || started.recipe.sketch) return null;
  return (
    <Sheet title={say('taken.title')}>
      {batch.state.potTaken.map(t => (
        <Box key={t.by.eventId} sx={{ mb: 0.5 }}>
          {say('taken.told', { mass: massText(t.mass_g, kitchen), name: t.name, label: t.label })}
        </Box>
      ))}
      <Soft>{say('taken.why')}</Soft>
      {!open ? (
        <Button variant="outlined" fullWidth sx={{ minHeight: 56, mt: 1 }} onClick={() => setOpen(true)}>
          {say('taken.ask')}
        </Button>
      ) : items.length === 0 ? (
        <Button component={Link} to="/stores" variant="outlined" fullWidth sx={{ minHeight: 56, mt: 1 }}>
          {say('taken.noItem')}
        </Button>
      ) : (
        <EntryForm form={form} action={say('taken.enter')} onSubmit={take} tall>
          <Figure at={form.at('mass_g')} label={say('taken.weight')} unit="g" />
          <OneOf
            at={form.at('how')}
            label={say('taken.how')}
            row
            of={[
              ['as it stands', say('taken.asItStands')],
              ['drained off', say('taken.drained')],
            ]}
          />
          <Pick
            at={form.at('itemId')}
            label={say('taken.as')}
            of={[['', say('taken.as.none')] as const, ...items.map(i => [i.id, i.name] as const)]}
          />
          {form.typed('how') === 'drained off' && <Caution>{say('taken.drained.why')}</Caution>}
        </EntryForm>
      )}
    </Sheet>
  );
}
