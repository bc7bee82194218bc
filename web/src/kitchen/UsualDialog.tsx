import { changeKitchen } from '@cocotte/contract';
import { USUAL_THINGS, withUsual } from '@cocotte/core/kitchen';
import { Box, Checkbox, FormControlLabel } from '@mui/material';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { v7 } from 'uuid';
import { FormDialog } from '../kit/FormDialog.tsx';
import { useTyped } from '../kit/form.ts';
import { Soft } from '../kit/parts.tsx';
import { call } from '../shell/call.ts';
import { useHere } from '../shell/session.tsx';
import { say } from '../words/views.ts';

/** Pots, canners and burners from a list of the usual ones, with figures that fit most of them. */
export function UsualDialog({ onClose }: { onClose: () => void }) {
  const { kitchen } = useHere();
  const client = useQueryClient();
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const form = useTyped({}, () => ({}));
  const save = form.submit(async () => {
    const { id: _id, placed: _placed, demo: _demo, ...settings } = withUsual(kitchen, chosen, v7);
    const next = await call(changeKitchen, { body: settings });
    client.setQueryData(['kitchen'], next);
    await client.invalidateQueries({ queryKey: ['session'] });
    onClose();
  });
  const toggle = (id: string) =>
    setChosen(before => new Set(before.has(id) ? [...before].filter(x => x !== id) : [...before, id]));
  return (
    <FormDialog
      title={say('usual.title')}
      action={say('usual.action')}
      form={form}
      disabled={chosen.size === 0}
      onClose={onClose}
      onSubmit={save}
    >
      <Soft>{say('usual.why')}</Soft>
      <Box sx={{ mt: 1.5 }}>
        {USUAL_THINGS.map(t => (
          <Box key={t.id}>
            <FormControlLabel
              control={<Checkbox checked={chosen.has(t.id)} onChange={() => toggle(t.id)} />}
              label={t.name}
              sx={{ minHeight: 44 }}
            />
          </Box>
        ))}
      </Box>
    </FormDialog>
  );
}
