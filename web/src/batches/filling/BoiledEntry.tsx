import { sterilise_min } from '@cocotte/core/heat';
import { numberText } from '@cocotte/core/measure';
import { EntryForm } from '../../kit/EntryForm.tsx';
import { Figure } from '../../kit/fields.tsx';
import { useTyped } from '../../kit/form.ts';
import { Sheet, Soft, Tag } from '../../kit/parts.tsx';
import { useRead } from '../../kit/readers.ts';
import { useHere } from '../../shell/session.tsx';
import { say } from '../../words/views.ts';
import type { OpenBatch } from '../open-batch.ts';
import type { When } from '../when.ts';

/** Where a time keeps sterile jars, one tick that they were boiled, and how long. */
export function BoiledEntry({ batch, when }: { batch: OpenBatch; when: When }) {
  const { kitchen } = useHere();
  const read = useRead();
  const { times, kitchen: there } = batch.state.started as NonNullable<typeof batch.state.started>;
  const least = sterilise_min(there.altitude_m);
  const form = useTyped({ minutes: numberText(least, kitchen) }, () => ({
    minutes: read.figure({ name: 'The minutes', min: 0, above: true, max: 180 }),
  }));
  const enter = form.submit(async v => {
    await batch.enter([['jars.boiled', v]], when);
  });
  if (!times.some(t => t.jars === 'sterile' && t.method === 'boiling water')) return null;
  const longest = Math.max(0, ...batch.state.boiled.map(b => b.minutes));
  return (
    <Sheet
      title={say('jars.boiled.title')}
      aside={
        longest > 0 && (
          <Tag tone={longest >= least ? 'leaf' : 'ox'}>{say('jars.boiled', { minutes: longest })}</Tag>
        )
      }
    >
      <Soft>{say('jars.boiled.why', { minutes: least })}</Soft>
      {longest < least && (
        <EntryForm form={form} action={say('jars.boiled.enter')} onSubmit={enter} tall>
          <Figure at={form.at('minutes')} label={say('jars.boiled.for')} unit="minutes" />
        </EntryForm>
      )}
    </Sheet>
  );
}
