import { clockText, dayOf, durationText, readNumber } from '@cocotte/core/measure';
import { Box, Button, Checkbox, FormControlLabel, MenuItem, TextField } from '@mui/material';
import { type FormEvent, useState } from 'react';
import { useEntry, words } from '../shell/entry.ts';
import { Sheet, Soft } from '../shell/parts.tsx';
import { useHere } from '../shell/session.tsx';
import { type OpenBatch, useBatches } from './api.ts';
import type { When } from './when.ts';

type What = 'batch' | 'kitchen' | 'energy';

/** Minutes of work: on this batch, on several at once, on the kitchen of the day; minutes of a burner; and notes. */
export function WorkEntry({ batch, when }: { batch: OpenBatch; when: When }) {
  const { kitchen } = useHere();
  const { data } = useBatches('cooking');
  const [what, setWhat] = useState<What>('batch');
  const started = batch.state.started as NonNullable<typeof batch.state.started>;
  const burners = started.kitchen.costs.burners.filter(b => b.kind === 'electric');
  const [burnerId, setBurner] = useState(burners[0]?.id ?? '');
  const others = (data?.pages.flatMap(p => p.batches) ?? []).filter(b => b.id !== batch.id);
  /** Other pots on the stove today: their batches share the minutes unless somebody says otherwise. */
  const [apart, setApart] = useState<ReadonlySet<string>>(new Set());
  const shared = others.filter(
    b =>
      b.summary.madeOn === dayOf(started.by.at_ms, kitchen.zone) &&
      b.summary.running.length > 0 &&
      !apart.has(b.id),
  );
  const minutes = useEntry({
    minutes: t =>
      readNumber(t, kitchen.locale, {
        name: 'The minutes',
        min: 0,
        above: true,
        max: 1440,
        why: 'A day has 1,440.',
      }),
  });
  const note = useEntry({ text: words('The note') });
  const total = batch.state.minutes.reduce((n, m) => n + m.minutes, 0);
  const addMinutes = async (e: FormEvent) => {
    e.preventDefault();
    const v = minutes.read();
    if (!v) return;
    const fact: Parameters<OpenBatch['enter']>[0][number] =
      what === 'kitchen'
        ? ['kitchen.worked', v]
        : what === 'energy'
          ? ['energy.used', { ...v, burnerId }]
          : shared.length > 0
            ? ['minutes.shared', { ...v, with: shared.map(b => b.id) }]
            : ['minutes.worked', v];
    if (await batch.enter([fact], when)) minutes.clear();
  };
  const addNote = async (e: FormEvent) => {
    e.preventDefault();
    const v = note.read();
    if (v && (await batch.enter([['note.written', v]], when))) note.clear();
  };
  const label = {
    batch: 'Minutes of work',
    kitchen: 'Minutes of opening and cleaning',
    energy: 'Minutes the burner was on',
  }[what];
  const near = others.filter(b => b.summary.running.length > 0);
  return (
    <Sheet title="Work and notes" aside={total > 0 ? `${durationText(total * 60)} so far` : ''}>
      <Box
        component="form"
        noValidate
        onSubmit={e => void addMinutes(e)}
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr' },
          gap: 1.5,
          mt: 1,
          alignItems: 'start',
        }}
      >
        <TextField select label="Spent on" value={what} onChange={e => setWhat(e.target.value as What)}>
          <MenuItem value="batch">this batch</MenuItem>
          <MenuItem value="kitchen">opening and cleaning, shared by the day</MenuItem>
          {burners.length > 0 && <MenuItem value="energy">a burner</MenuItem>}
        </TextField>
        <TextField label={label} inputMode="decimal" {...minutes.field('minutes')} />
        {what === 'energy' && burners.length > 1 && (
          <TextField select label="Burner" value={burnerId} onChange={e => setBurner(e.target.value)}>
            {burners.map(b => (
              <MenuItem key={b.id} value={b.id}>
                {b.name}
              </MenuItem>
            ))}
          </TextField>
        )}
        {what === 'batch' &&
          near.map(b => (
            <FormControlLabel
              key={b.id}
              sx={{ gridColumn: '1 / -1' }}
              control={
                <Checkbox
                  checked={shared.some(s => s.id === b.id)}
                  onChange={(_, on) =>
                    setApart(a => {
                      const next = new Set(a);
                      if (on) next.delete(b.id);
                      else next.add(b.id);
                      return next;
                    })
                  }
                />
              }
              label={`shared with ${b.summary.name}, ${b.summary.lotCode}`}
            />
          ))}
        <Button type="submit" variant="outlined" sx={{ minHeight: 44, gridColumn: '1 / -1' }}>
          Add minutes
        </Button>
      </Box>
      <Box
        component="form"
        noValidate
        onSubmit={e => void addNote(e)}
        sx={{ display: 'grid', gap: 1.5, mt: 2 }}
      >
        <TextField label="Note" multiline minRows={2} {...note.field('text')} />
        <Button type="submit" variant="outlined">
          Write the note
        </Button>
      </Box>
      {batch.state.notes.toReversed().map(n => (
        <Box key={n.by.eventId} sx={{ mt: 1 }}>
          {n.text} <Soft>{clockText(n.by.at_ms, kitchen)}</Soft>
        </Box>
      ))}
    </Sheet>
  );
}
