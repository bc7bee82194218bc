import { readAbove } from '@cocotte/core/acid';
import { numberText } from '@cocotte/core/measure';
import { potNumbers } from '@cocotte/core/batches';
import type { OpenBatch } from '../../batches/open-batch.ts';
import type { When } from '../../batches/when.ts';
import { EntryForm } from '../../kit/EntryForm.tsx';
import { Figure, Pick, Temperature } from '../../kit/fields.tsx';
import { useTyped } from '../../kit/form.ts';
import { Soft } from '../../kit/parts.tsx';
import { useRead } from '../../kit/readers.ts';
import { useHere } from '../../shell/session.tsx';
import { say } from '../../words/views.ts';
import { LiveMeter } from './LiveMeter.tsx';
import { foodPh } from './food-ph.ts';
import { shownTemp } from './shown-temp.ts';

/** A blended sample before filling: what it finds can still be mended. */
export function BeforeFilling({ batch, when }: { batch: OpenBatch; when: When }) {
  const { kitchen } = useHere();
  const read = useRead();
  const started = batch.state.started as NonNullable<typeof batch.state.started>;
  const pots = potNumbers(started.pots.count);
  const form = useTyped(
    { ph: '', temp_C: shownTemp(kitchen, 24), method: 'meter' as 'meter' | 'paper', potId: '' },
    () => ({
      ph: read.figure(foodPh()),
      temp_C: read.temperature_C({ name: say('reading.temp'), min: 0, max: 60 }),
    }),
  );
  const { at } = form;
  const enter = form.submit(async v => {
    const reading = {
      ...v,
      potId: v.potId || null,
      outletId: null,
      replicates: [],
      instrumentId: null,
    };
    if (await batch.enter([['pot.ph_read', reading]], when)) form.set('ph', '');
  });
  const typed = read.figure(foodPh())(form.typed('ph'));
  const high = typed.ok && readAbove({ ph: typed.value, replicates: [] }, started.phLimit);
  return (
    <EntryForm
      form={form}
      action={say('reading.enterPot')}
      onSubmit={enter}
      wide="repeat(4, 1fr)"
      narrow="1fr 1fr"
      mt={2}
      tall
      strong
    >
      <LiveMeter onTake={ph => form.set('ph', numberText(ph, kitchen, 2))} />
      <Figure at={at('ph')} label="pH" />
      <Temperature at={at('temp_C')} label={say('reading.temp')} />
      <Pick
        at={at('method')}
        label={say('reading.by')}
        of={[
          ['meter', say('reading.by.meter')],
          ['paper', say('reading.by.paper')],
        ]}
      />
      {pots.length > 1 && (
        <Pick
          at={at('potId')}
          label={say('reading.pot')}
          of={[['', say('reading.allPots')], ...pots.map(p => [p, say('reading.potN', { pot: p })] as const)]}
        />
      )}
      <Soft sx={{ gridColumn: '1 / -1' }}>{say(high ? 'reading.mend' : 'reading.potProves')}</Soft>
    </EntryForm>
  );
}
