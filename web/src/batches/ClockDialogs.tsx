import type { BoilLoss, LoadState } from '@cocotte/core/batches';
import { Box, Button, Dialog, DialogContent, DialogTitle } from '@mui/material';
import { OneOf, Text, Time } from '../kit/fields.tsx';
import { useTyped } from '../kit/form.ts';
import { FormDialog } from '../kit/FormDialog.tsx';
import { Caution } from '../kit/parts.tsx';
import { missing } from '../kit/readers.ts';
import { useHere } from '../shell/session.tsx';
import { say } from '../words/views.ts';
import { jarsAmong } from './AllBut.tsx';
import type { Fact, OpenBatch } from './open-batch.ts';
import { useClock } from '../shell/clock.ts';
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
  const now_ms = useClock();
  const form = useTyped({ at: '' }, () => ({ at: pastInstant(kitchen.zone, now_ms) }));
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

/**
 * Water that sinks, a lid that came off, a zone that was left: what may be mended at once and goes on, and what ends the time.
 */
export function TroubleDialog({
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
  const steam = load.heat === 'steam';
  const enter = async (fact: Fact) => {
    if (await batch.enter([fact], when)) onClose();
  };
  const lost = (what: BoilLoss) => void enter(['load.boil_lost', { loadId: load.id, lost: what }]);
  const button = { minHeight: 64, fontSize: '1.1rem' } as const;
  return (
    <Dialog open onClose={onClose} aria-labelledby="trouble-title" fullWidth maxWidth="sm">
      <DialogTitle id="trouble-title" variant="h2">
        {say(steam ? 'trouble.ask.steam' : 'trouble.ask.water')}
      </DialogTitle>
      <DialogContent sx={{ display: 'grid', gap: 1.5 }}>
        <Box>{say(steam ? 'trouble.why.steam' : 'trouble.why.water')}</Box>
        <Button
          variant="contained"
          sx={button}
          onClick={() =>
            void enter([
              'note.written',
              { text: say(steam ? 'trouble.note.steam' : 'trouble.note.water', { load: load.number }) },
            ])
          }
        >
          {say(steam ? 'trouble.held.steam' : 'trouble.held.water')}
        </Button>
        <Button variant="outlined" color="error" sx={button} onClick={() => lost(steam ? 'boil' : 'water')}>
          {say(steam ? 'trouble.lost.steam' : 'trouble.lost.water')}
        </Button>
        <Button variant="outlined" color="error" sx={button} onClick={() => lost('interrupted')}>
          {say('trouble.interrupted')}
        </Button>
        <Button variant="outlined" sx={button} onClick={onClose}>
          {say('form.notNow')}
        </Button>
      </DialogContent>
    </Dialog>
  );
}
