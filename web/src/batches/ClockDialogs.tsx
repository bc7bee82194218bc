import type { LoadState } from '@cocotte/core/batches';
import { Box, Button } from '@mui/material';
import { OneOf, Text, Time } from '../kit/fields.tsx';
import { useTyped } from '../kit/form.ts';
import { FormDialog } from '../kit/FormDialog.tsx';
import { Caution } from '../kit/parts.tsx';
import { missing } from '../kit/readers.ts';
import { useHere } from '../shell/session.tsx';
import { say } from '../words/views.ts';
import { jarsAmong } from './AllBut.tsx';
import type { OpenBatch } from './open-batch.ts';
import { type When, pastInstant } from './when.ts';

/** Jars that are out while nobody entered the heat going off: it is asked for, and without it ten minutes are taken off. */
export function HeatOffDialog({
  batch,
  load,
  onClose,
}: {
  batch: OpenBatch;
  load: LoadState;
  onClose: () => void;
}) {
  const { kitchen } = useHere();
  const form = useTyped({ at: '' }, () => ({ at: pastInstant(kitchen.zone) }));
  const lifted = async () => {
    if (await batch.enter([['load.lifted', { loadId: load.id }]])) onClose();
  };
  const enter = form.submit(async ({ at }) => {
    await batch.enter([['load.heat_off', { loadId: load.id }]], at);
    await lifted();
  });
  return (
    <FormDialog
      title={say('heatOff.ask')}
      action={say('heatOff.enter')}
      form={form}
      onClose={onClose}
      onSubmit={enter}
      also={
        <Button variant="outlined" onClick={() => void lifted()}>
          {say('heatOff.unknown')}
        </Button>
      }
    >
      <Box sx={{ mb: 2 }}>{say('heatOff.ask.why')}</Box>
      <Time at={form.at('at')} label={say('heatOff.at')} />
    </FormDialog>
  );
}

/** Jars that broke or leak in the canner. */
export function BrokenDialog({
  batch,
  load,
  when,
  onClose,
}: {
  batch: OpenBatch;
  load: LoadState;
  when: When;
  onClose: () => void;
}) {
  const form = useTyped({ jars: '', why: 'broken' as 'broken' | 'leaking' }, () => ({
    jars: (text: string) =>
      text.trim() === ''
        ? { ok: false as const, fault: missing('No jar is named.') }
        : jarsAmong(load.jars)(text),
  }));
  const record = form.submit(async body => {
    if (await batch.enter([['jars.set_aside', body]], when)) onClose();
  });
  return (
    <FormDialog title="Which jar?" action="Set it aside" form={form} onClose={onClose} onSubmit={record}>
      <Text
        at={form.at('jars')}
        autoFocus
        label="Jar numbers"
        placeholder="such as 3 or 3, 5"
        sx={{ mt: 1 }}
      />
      <OneOf
        at={form.at('why')}
        label="What happened"
        row
        of={[
          ['broken', 'It broke'],
          ['leaking', 'It leaks'],
        ]}
      />
      <Caution>Broken glass in hot water: leave it until the water has cooled.</Caution>
    </FormDialog>
  );
}
