import { ALTITUDE_BANDS_FT } from '@cocotte/core/heat';
import { JAR_SIZES, type JarSizeId, jarSize } from '@cocotte/core/jars';
import { byName, numberText } from '@cocotte/core/measure';
import type { Authority } from '@cocotte/core/recipes';
import { type LetterProcess, PROCESS_ENTRIES, SPREADS, entriesFor } from '@cocotte/core/times';
import { Box, Button, Checkbox, FormControlLabel, Typography } from '@mui/material';
import { Switcher } from '../../kit/controls.tsx';
import { Day, Figure, Pick, Temperature, Text, Tick } from '../../kit/fields.tsx';
import { useRows } from '../../kit/form.ts';
import { Cells, Line } from '../../kit/layout.tsx';
import { Sheet, Soft } from '../../kit/parts.tsx';
import { useHere } from '../../shell/session.tsx';
import type { DraftForm } from './form.ts';
import { say } from '../../words/views.ts';

const GRADES: [Authority['grade'], string][] = [
  ['own', 'own, inherited or combined'],
  ['tested publication', "tested publication or set-maker's leaflet, unchanged"],
  ['letter', "process authority's letter"],
  ['published, untested', 'published, untested'],
];
const PROCESSES: [LetterProcess['kind'], string][] = [
  ['boiling water', 'boiling water, minutes by altitude'],
  ['sea level', 'boiling water, a sea-level time only'],
  ['hot-fill-hold', 'hot fill and hold'],
];
const BANDS = byName<readonly (number | null)[]>({
  'to 1,000 ft, to 6,000 ft, above': ALTITUDE_BANDS_FT.three,
  'to 1,000, 3,000, 6,000 ft, above': ALTITUDE_BANDS_FT.four,
  'one time for every altitude': [null],
});
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

function LetterFields({ form }: { form: DraftForm }) {
  const { at } = form;
  const { kitchen } = useHere();
  const draft = form.all();
  const bands = (name: string) => {
    const tops = BANDS[name];
    if (!tops) return;
    form.set('tops', [...tops]);
    form.set(
      'letter',
      draft.letter.map(m => ({ ...m, minutes: tops.map((_, i) => m.minutes[i] ?? '') })),
    );
  };
  return (
    <>
      <Cells wide="2fr 1fr 1fr 1fr" narrow="1fr 1fr" gap={1.5} mt={1.5}>
        <Text at={at('authority')} label="Process authority" />
        <Text at={at('reference')} label="Reference" />
        <Day at={at('issuedOn')} label="Dated" />
        <Figure at={at('maxPh')} label="pH at most" />
      </Cells>
      <TermsFields form={form} />
      <Cells wide="1.6fr 1fr 1fr" narrow="1fr 1fr" gap={1.5} mt={1.5}>
        <Pick at={at('process')} label="Heat step" of={PROCESSES} />
        {draft.process === 'boiling water' && (
          <Switcher
            label="Altitude bands"
            value={Object.keys(BANDS).find(k => String(BANDS[k]) === String(draft.tops)) ?? ''}
            of={[['', 'as the letter has them'], ...Object.keys(BANDS)]}
            onPick={bands}
          />
        )}
      </Cells>
      {draft.process === 'boiling water' && (
        <>
          <PackAndHeadspace form={form} />
          <MinutesRows
            form={form}
            name="letter"
            labels={draft.tops.map((top, i) =>
              top === null
                ? i === 0
                  ? 'Minutes'
                  : 'Minutes above'
                : `Minutes to ${numberText(top, kitchen, 0)} ft`,
            )}
          />
        </>
      )}
      {draft.process === 'sea level' && <SeaLevel form={form} />}
      {draft.process === 'hot-fill-hold' && (
        <>
          <Cells wide="1.2fr 1fr 1fr" narrow="1fr 1fr" gap={1.5} mt={1.5}>
            <Temperature at={at('temp_C')} label="Filled at, at least" />
            <Figure at={at('hold_min')} label="Held" unit="minutes" />
            <Headspace form={form} />
          </Cells>
          <Box sx={{ mt: 1 }}>
            <Soft>For jars of </Soft>
            {JAR_SIZES.map(s => (
              <FormControlLabel
                key={s.id}
                control={
                  <Checkbox
                    size="small"
                    checked={draft.fillSizes.includes(s.id)}
                    onChange={(_, on) =>
                      form.set(
                        'fillSizes',
                        on ? [...draft.fillSizes, s.id] : draft.fillSizes.filter(x => x !== s.id),
                      )
                    }
                  />
                }
                label={s.name}
              />
            ))}
          </Box>
        </>
      )}
    </>
  );
}

/** For whom the letter was written, and what it names beside its heat step. */
function TermsFields({ form }: { form: DraftForm }) {
  const { at } = form;
  const { kitchen } = useHere();
  return (
    <>
      <Cells wide="1fr 1.4fr 0.8fr" narrow="1fr" gap={1.5} mt={1.5}>
        <Text at={at('terms.producer')} label={say('letter.producer')} hint={kitchen.makerName} />
        <Text at={at('terms.site')} label={say('letter.site')} hint={kitchen.makerAddress} />
        <Day at={at('terms.reviewOn')} label={say('letter.reviewOn')} />
      </Cells>
      <LimitRows form={form} />
      <Cells wide="0.8fr 0.8fr 1fr 1fr 1fr" narrow="1fr 1fr" gap={1.5} mt={1.5}>
        <Figure
          at={at('terms.pieceSize_mm')}
          label={say('letter.pieceSize')}
          unit={kitchen.measures === 'US' ? 'inches' : 'mm'}
        />
        <Figure at={at('terms.perPint_g')} label={say('letter.perPint')} unit="g" />
        <Text at={at('terms.thickener')} label={say('letter.thickener')} />
        <Text at={at('terms.oil')} label={say('letter.oil')} />
        <Text at={at('terms.closure')} label={say('letter.closure')} />
      </Cells>
      <Text at={at('limits')} label="What else it limits, in its words" sx={{ mt: 1.5 }} />
    </>
  );
}

/** Shares that the letter allows of a line, instead of the amount that was taken over. */
function LimitRows({ form }: { form: DraftForm }) {
  const rows = useRows(form.form.control, 'terms.lines');
  const draft = form.all();
  const typed = draft.terms.lines;
  const free = draft.lines.filter(l => l.name.trim() !== '' && !typed.some(t => t.lineId === l.id));
  const next = free[0]?.id;
  const nameOf = (id: string) => draft.lines.find(l => l.id === id)?.name ?? id;
  return (
    <>
      {rows.fields.map((row, i) => {
        const lineId = typed[i]?.lineId ?? '';
        return (
          <Cells key={row.key} wide="1.6fr 1fr 1fr auto" narrow="1fr 1fr" gap={1.5} mt={1.5}>
            <Pick
              at={form.at(`terms.lines.${i}.lineId`)}
              label={say('letter.limitOf')}
              of={[lineId, ...free.map(l => l.id)].map(id => [id, nameOf(id)] as const)}
            />
            <Figure at={form.at(`terms.lines.${i}.least_pct`)} label={say('letter.least')} unit="%" />
            <Figure at={form.at(`terms.lines.${i}.most_pct`)} label={say('letter.most')} unit="%" />
            <Button
              variant="outlined"
              aria-label={say('letter.limitOut', { name: nameOf(lineId) })}
              onClick={() => rows.remove(i)}
            >
              Leave out
            </Button>
          </Cells>
        );
      })}
      {next && (
        <Button
          size="small"
          variant="outlined"
          sx={{ mt: 1.5 }}
          onClick={() => rows.append({ least_pct: '', most_pct: '', lineId: next })}
        >
          {say('letter.limitAdd')}
        </Button>
      )}
    </>
  );
}

const Headspace = ({ form }: { form: DraftForm }) => (
  <Figure at={form.at('headspace_mm')} label="Headspace" unit="inches" />
);

function PackAndHeadspace({ form }: { form: DraftForm }) {
  return (
    <Cells narrow="1fr 1fr" gap={1.5} mt={1.5} sx={{ maxWidth: 420 }}>
      <Pick at={form.at('pack')} label="Pack" of={['hot', 'raw']} />
      <Headspace form={form} />
    </Cells>
  );
}

function SeaLevel({ form }: { form: DraftForm }) {
  return (
    <>
      <PackAndHeadspace form={form} />
      <MinutesRows form={form} name="seaLevel" labels={['Minutes at sea level']} />
      <Typography sx={{ mt: 1, color: 'text.secondary' }}>
        Here the longer of two rules of the trade is used: a minute for each started 1,000 ft (two where the
        time is over 20 minutes), or the ladder of +5, +10 and +15.
      </Typography>
    </>
  );
}

/** Minutes by jar size, one figure for each altitude band. */
function MinutesRows({
  form,
  name,
  labels,
}: {
  form: DraftForm;
  name: 'letter' | 'seaLevel';
  labels: string[];
}) {
  const rows = useRows(form.form.control, name);
  const typed = form.typed(name);
  const free = JAR_SIZES.filter(s => !typed.some(r => r.size === s.id));
  const next = free[0]?.id;
  return (
    <>
      {rows.fields.map((row, i) => {
        const size = typed[i]?.size ?? (row.size as JarSizeId);
        return (
          <Cells
            key={row.key}
            wide={`1fr ${labels.map(() => '1fr').join(' ')} auto`}
            narrow="1fr 1fr"
            gap={1.5}
            mt={1.5}
          >
            <Pick
              at={form.at(`${name}.${i}.size`)}
              label="Jar"
              of={[size, ...free.map(s => s.id)].map(s => [s, jarSize(s).name] as const)}
            />
            {labels.map((label, k) => (
              <Figure key={label} at={form.at(`${name}.${i}.minutes.${k}`)} label={label} />
            ))}
            <Button
              variant="outlined"
              disabled={rows.fields.length === 1}
              aria-label={`Leave out ${jarSize(size).plural} from the authority`}
              onClick={() => rows.remove(i)}
            >
              Leave out
            </Button>
          </Cells>
        );
      })}
      {next && (
        <Button
          size="small"
          variant="outlined"
          sx={{ mt: 1.5 }}
          onClick={() => rows.append({ minutes: labels.map(() => ''), size: next })}
        >
          Add a jar size with its minutes
        </Button>
      )}
    </>
  );
}
