import { rangesText } from '@cocotte/core/measure';
import { Box } from '@mui/material';
import { EntryForm } from '../../kit/EntryForm.tsx';
import { OneOf, Text } from '../../kit/fields.tsx';
import { useTyped } from '../../kit/form.ts';
import { Sheet, Soft } from '../../kit/parts.tsx';
import { missing } from '../../kit/readers.ts';
import { say } from '../../words/views.ts';
import { jarsAmong } from '../AllBut.tsx';
import type { OpenBatch } from '../open-batch.ts';
import type { When } from '../when.ts';

/** Jars that go along with the others: one to be opened for the reading, one that is kept for its lot. */
export function AlongEntry({ batch, when }: { batch: OpenBatch; when: When }) {
  const standing = batch.state.jars.filter(j => !j.setAside);
  const form = useTyped({ jars: '', for: 'reading' as 'reading' | 'keeping' | 'sale' }, () => ({
    jars: (text: string) =>
      text.trim() === ''
        ? { ok: false as const, fault: missing(say('along.which')) }
        : jarsAmong(standing.map(j => j.number))(text),
  }));
  const mark = form.submit(async body => {
    if (await batch.enter([['jars.marked', body]], when)) form.again();
  });
  if (standing.length === 0) return null;
  const marked = (what: 'reading' | 'keeping') => standing.filter(j => j.marked === what).map(j => j.number);
  return (
    <Sheet title={say('along.title')}>
      <Soft>{say('along.why')}</Soft>
      {(['reading', 'keeping'] as const).map(
        what =>
          marked(what).length > 0 && (
            <Box key={what} sx={{ mt: 0.5 }}>
              {say(what === 'reading' ? 'along.reading' : 'along.keeping')}:{' '}
              <strong>{rangesText(marked(what))}</strong>
            </Box>
          ),
      )}
      <EntryForm form={form} action={say('along.enter')} onSubmit={mark} tall>
        <Text at={form.at('jars')} label={say('along.jars')} />
        <OneOf
          at={form.at('for')}
          label={say('along.for')}
          row
          of={[
            ['reading', say('along.reading')],
            ['keeping', say('along.keeping')],
            ['sale', say('along.sale')],
          ]}
        />
      </EntryForm>
    </Sheet>
  );
}
