import { lowBuffer, RECHECK_PH } from '@cocotte/core/acid';
import { numberText } from '@cocotte/core/measure';
import { Box } from '@mui/material';
import type { OpenBatch } from '../../batches/open-batch.ts';
import type { When } from '../../batches/when.ts';
import { EntryForm } from '../../kit/EntryForm.tsx';
import { Figure, Temperature } from '../../kit/fields.tsx';
import { useTyped } from '../../kit/form.ts';
import { useRead } from '../../kit/readers.ts';
import { useHere } from '../../shell/session.tsx';
import { say } from '../../words/views.ts';
import { shownTemp } from './shown-temp.ts';

/** The buffer, read again at the end: asked as long as readings wait for it. */
export function Recheck({ batch, when }: { batch: OpenBatch; when: When }) {
  const { kitchen } = useHere();
  const read = useRead();
  const waiting = batch.state.readings.filter(
    r => r.method === 'meter' && r.calibration !== null && r.recheck_off === null,
  );
  const calibration = waiting.at(-1)?.calibration ?? null;
  const form = useTyped({ reads_ph: '', temp_C: shownTemp(kitchen, calibration?.temp_C ?? 24) }, () => ({
    reads_ph: read.figure({ name: say('recheck.reads'), min: 0, max: 14 }),
    temp_C: read.temperature_C({ name: say('recheck.temp'), min: 0, max: 60 }),
  }));
  if (!calibration) return null;
  const enter = form.submit(async v => {
    const again = { ...v, calibratedAt: calibration.at, instrumentId: waiting.at(-1)?.instrumentId ?? null };
    if (await batch.enter([['meter.rechecked', again]], when)) form.again();
  });
  return (
    <Box sx={{ my: 1.5, borderLeft: 4, borderColor: 'live.main', pl: 1.5 }}>
      <strong>{say('recheck.title')}</strong>{' '}
      {say('recheck.why', {
        n: waiting.length,
        buffer: numberText(lowBuffer(calibration), kitchen, 2),
        within: numberText(RECHECK_PH, kitchen),
      })}
      <EntryForm form={form} action={say('recheck.enter')} onSubmit={enter} wide="1fr 1fr" tall>
        <Figure at={form.at('reads_ph')} label={say('recheck.reads')} />
        <Temperature at={form.at('temp_C')} label={say('recheck.temp')} />
      </EntryForm>
    </Box>
  );
}
