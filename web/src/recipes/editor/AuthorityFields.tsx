import type { Authority } from '@cocotte/core/recipes';
import { PROCESS_ENTRIES, SPREADS, entriesFor } from '@cocotte/core/times';
import { Box, Button, Typography } from '@mui/material';
import { Day, Figure, Pick, Text, Tick } from '../../kit/fields.tsx';
import { Cells, Line } from '../../kit/layout.tsx';
import { Sheet } from '../../kit/parts.tsx';
import { say } from '../../words/views.ts';
import type { DraftForm } from './form.ts';
import { SeaLevel } from './HeatFields.tsx';
import { LetterFields } from './LetterFields.tsx';

const GRADES: [Authority['grade'], string][] = [
  ['own', 'own, inherited or combined'],
  ['tested publication', "tested publication or set-maker's leaflet, unchanged"],
  ['letter', "process authority's letter"],
  ['published, untested', 'published, untested'],
];
/** Products whose own recipes borrow a published family time. */
const BORROWS: readonly string[] = [...SPREADS, 'syrup'];

/** What the recipe rests on: one of four grades, and what each has to say for itself. */
export function AuthorityFields({ form }: { form: DraftForm }) {
  const { at } = form;
  const draft = form.all();
  const rests = draft.grade === 'tested publication' || draft.grade === 'letter';
  /** What a published entry covers is known; nothing has to be taken over. */
  const byEntry =
    draft.grade === 'tested publication' && draft.kind === 'publication' && draft.time === 'entry';
  return (
    <Sheet title="Authority" aside="an own recipe borrows no processing time">
      <Cells wide="1.4fr 2.2fr" narrow="1fr 1fr" gap={1.5} mt={0}>
        <Pick at={at('grade')} label="Grade" of={GRADES} onPick={() => form.set('tested', null)} />
        {draft.grade === 'own' && BORROWS.includes(draft.product) && <EntryField form={form} />}
        {draft.grade === 'published, untested' && <Text at={at('title')} label="Title" />}
        {draft.grade === 'tested publication' && (
          <Pick
            at={at('time')}
            label="Its time"
            of={[
              ['entry', 'a published entry in the tables'],
              ['sea level', 'given for sea level only'],
            ]}
          />
        )}
      </Cells>
      {draft.grade === 'tested publication' && <PublicationFields form={form} />}
      {draft.grade === 'letter' && <LetterFields form={form} />}
      {byEntry && <Typography sx={{ mt: 2, color: 'text.secondary' }}>{say('authority.byEntry')}</Typography>}
      {rests && !byEntry && draft.tested && (
        <Line mt={2}>
          <Typography sx={{ flex: '1 1 320px', color: 'text.secondary' }}>
            The formula it covers was taken over on {draft.tested.takenOn}. Changes are held against it.
          </Typography>
          <Button variant="outlined" size="small" onClick={() => form.set('tested', null)}>
            These lines are what it prints: take them over anew
          </Button>
        </Line>
      )}
      {rests && !byEntry && draft.tested === null && (
        <Typography sx={{ mt: 2, color: 'text.secondary' }}>
          The lines, the method and the jars below are taken over as what it covers when this is saved.
        </Typography>
      )}
    </Sheet>
  );
}

function EntryField({ form }: { form: DraftForm }) {
  const draft = form.all();
  const own = entriesFor(draft.product);
  const entries = draft.grade === 'own' ? own : [...own, ...PROCESS_ENTRIES.filter(e => !own.includes(e))];
  return (
    <Pick
      at={form.at('entryId')}
      label={draft.grade === 'own' ? 'Published family time' : 'Published entry'}
      of={[
        ['', 'none'],
        ...entries.map(e => [e.id, `${e.product}, ${e.pack} pack (${e.source.part})`] as const),
      ]}
    />
  );
}

function PublicationFields({ form }: { form: DraftForm }) {
  const { at } = form;
  const time = form.typed('time');
  return (
    <>
      {time === 'entry' && (
        <Box sx={{ mt: 1.5 }}>
          <EntryField form={form} />
        </Box>
      )}
      <Cells wide="1fr 2fr 1fr 1fr" narrow="1fr 1fr" gap={1.5} mt={1.5}>
        <Pick
          at={at('kind')}
          label="Kind"
          of={[
            ['publication', 'tested publication'],
            ['leaflet', "set-maker's leaflet"],
          ]}
        />
        <Text at={at('title')} label="Title" hint={time === 'entry' ? "empty: the entry's own" : ''} />
        <Text at={at('edition')} label="Edition" />
        <Figure at={at('year')} label="Year" />
        <Text at={at('part')} label="Page or part" />
        <Day at={at('checkedOn')} label="Checked on" />
      </Cells>
      <Tick
        at={at('fromMemory')}
        label="Written from memory, still to be held against the book"
        sx={{ mt: 1 }}
      />
      {time === 'sea level' && <SeaLevel form={form} />}
    </>
  );
}
