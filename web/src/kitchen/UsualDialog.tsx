import { changeKitchen, takeIn } from '@cocotte/contract';
import { USUAL_THINGS, withUsual } from '@cocotte/core/kitchen';
import { jarsInUse, USUAL_JARS } from '@cocotte/core/stores';
import { Box, Checkbox, FormControlLabel, Typography } from '@mui/material';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { v7 } from 'uuid';
import { FormDialog } from '../kit/FormDialog.tsx';
import { useTyped } from '../kit/form.ts';
import { Soft } from '../kit/parts.tsx';
import { call } from '../shell/call.ts';
import { useHere } from '../shell/session.tsx';
import { say } from '../words/views.ts';

/** What may be ticked, two beside one another where there is room. */
function Choices({
  label,
  of,
  chosen,
  onToggle,
}: {
  label: string;
  of: readonly { id: string; name: string }[];
  chosen: ReadonlySet<string>;
  onToggle: (id: string) => void;
}) {
  return (
    <Box
      role="group"
      aria-label={label}
      sx={{ mt: 1, display: 'grid', gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr' }, columnGap: 2 }}
    >
      {of.map(o => (
        <FormControlLabel
          key={o.id}
          control={<Checkbox checked={chosen.has(o.id)} onChange={() => onToggle(o.id)} />}
          label={o.name}
          sx={{ minHeight: 44 }}
        />
      ))}
    </Box>
  );
}

/** Pots, canners, burners, jars and lids from a list of the usual ones, with figures that fit most of them. */
export function UsualDialog({ onClose }: { onClose: () => void }) {
  const { kitchen } = useHere();
  const client = useQueryClient();
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const form = useTyped({}, () => ({}));
  const save = form.submit(async () => {
    const items = jarsInUse(chosen, v7);
    if (items.length > 0) await call(takeIn, { body: { items, lots: [] } });
    if (USUAL_THINGS.some(t => chosen.has(t.id))) {
      const { id: _id, placed: _placed, demo: _demo, ...settings } = withUsual(kitchen, chosen, v7);
      client.setQueryData(['kitchen'], await call(changeKitchen, { body: settings }));
      await client.invalidateQueries({ queryKey: ['session'] });
    }
    await client.invalidateQueries({ queryKey: ['items'] });
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
      <Choices label={say('usual.title')} of={USUAL_THINGS} chosen={chosen} onToggle={toggle} />
      <Typography variant="h3" sx={{ mt: 2 }}>
        {say('usual.jars')}
      </Typography>
      <Soft>{say('usual.jars.why')}</Soft>
      <Choices label={say('usual.jars')} of={USUAL_JARS} chosen={chosen} onToggle={toggle} />
    </FormDialog>
  );
}
