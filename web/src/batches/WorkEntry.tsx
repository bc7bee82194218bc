import { clockText, durationText } from '@cocotte/core/measure';
import { Box, Checkbox, FormControlLabel } from '@mui/material';
import { useState } from 'react';
import { EntryForm } from '../kit/EntryForm.tsx';
import { Figure, Pick, Text } from '../kit/fields.tsx';
import { useTyped } from '../kit/form.ts';
import { Sheet, Soft } from '../kit/parts.tsx';
import { useRead, words } from '../kit/readers.ts';
import { useHere } from '../shell/session.tsx';
import { useBatches } from './api.ts';
import type { OpenBatch } from './open-batch.ts';
import type { When } from './when.ts';

type What = 'batch' | 'kitchen' | 'energy';
const LABELS: Record<What, string> = {
  batch: 'Minutes of work',
  kitchen: 'Minutes of opening and cleaning',
  energy: 'Minutes the burner was on',
};

/** Minutes of work: on this batch, on several at once, on the kitchen of the day; minutes of a burner; and notes. */
export function WorkEntry({ batch, when }: { batch: OpenBatch; when: When }) {
  const { kitchen } = useHere();
  const read = useRead();
  const { data } = useBatches('cooking');
  const started = batch.state.started as NonNullable<typeof batch.state.started>;
  const burners = started.kitchen.costs.burners.filter(b => b.kind === 'electric');
  const near = (data?.pages.flatMap(p => p.batches) ?? []).filter(
    b => b.id !== batch.id && b.summary.running.length > 0,
  );
  /** Batches that share the minutes: those that somebody ticks, and no other. What only stands in a soak is no work. */
  const [together, setTogether] = useState<ReadonlySet<string>>(new Set());
  const shared = near.filter(b => together.has(b.id));
  const share = (id: string, on: boolean) =>
    setTogether(t => new Set(on ? [...t, id] : [...t].filter(x => x !== id)));
  const minutes = useTyped({ what: 'batch' as What, minutes: '', burnerId: burners[0]?.id ?? '' }, () => ({
    minutes: read.figure({
      name: 'The minutes',
      min: 0,
      above: true,
      max: 1440,
      why: 'A day has 1,440.',
    }),
  }));
  const note = useTyped({ text: '' }, () => ({ text: words('The note') }));
  const what = minutes.typed('what');
  const addMinutes = minutes.submit(async ({ minutes: n, burnerId }) => {
    const fact: Parameters<OpenBatch['enter']>[0][number] =
      what === 'kitchen'
        ? ['kitchen.worked', { minutes: n }]
        : what === 'energy'
          ? ['energy.used', { minutes: n, burnerId }]
          : shared.length > 0
            ? ['minutes.shared', { minutes: n, with: shared.map(b => b.id) }]
            : ['minutes.worked', { minutes: n }];
    if (await batch.enter([fact], when)) minutes.again({ what, burnerId });
  });
  const addNote = note.submit(async v => {
    if (await batch.enter([['note.written', v]], when)) note.again();
  });
  const total = batch.state.minutes.reduce((n, m) => n + m.minutes, 0);
  return (
    <Sheet title="Work and notes" aside={total > 0 ? `${durationText(total * 60)} so far` : ''}>
      <EntryForm form={minutes} action="Add minutes" onSubmit={addMinutes} wide="1fr 1fr" narrow="1fr">
        <Pick
          at={minutes.at('what')}
          label="Spent on"
          of={[
            ['batch', 'this batch'],
            ['kitchen', 'opening and cleaning, shared by the day'],
            ...(burners.length > 0 ? [['energy', 'a burner'] as const] : []),
          ]}
        />
        <Figure at={minutes.at('minutes')} label={LABELS[what]} />
        {what === 'energy' && burners.length > 1 && (
          <Pick at={minutes.at('burnerId')} label="Burner" of={burners.map(b => [b.id, b.name] as const)} />
        )}
        {what === 'batch' &&
          near.map(b => (
            <FormControlLabel
              key={b.id}
              sx={{ gridColumn: '1 / -1' }}
              control={
                <Checkbox checked={shared.some(s => s.id === b.id)} onChange={(_, on) => share(b.id, on)} />
              }
              label={`shared with ${b.summary.name}, ${b.summary.lotCode}`}
            />
          ))}
      </EntryForm>
      <EntryForm form={note} action="Write the note" onSubmit={addNote} mt={2}>
        <Text at={note.at('text')} label="Note" multiline minRows={2} />
      </EntryForm>
      {batch.state.notes.toReversed().map(n => (
        <Box key={n.by.eventId} sx={{ mt: 1 }}>
          {n.text} <Soft>{clockText(n.by.at_ms, kitchen)}</Soft>
        </Box>
      ))}
    </Sheet>
  );
}
