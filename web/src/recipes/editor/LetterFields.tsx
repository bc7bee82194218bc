import { ALTITUDE_BANDS_FT } from '@cocotte/core/heat';
import { JAR_SIZES } from '@cocotte/core/jars';
import { byName, numberText } from '@cocotte/core/measure';
import type { LetterProcess } from '@cocotte/core/times';
import { Box, Button, Checkbox, FormControlLabel } from '@mui/material';
import { Switcher } from '../../kit/controls.tsx';
import { Day, Figure, Pick, Temperature, Text } from '../../kit/fields.tsx';
import { useRows } from '../../kit/form.ts';
import { Cells } from '../../kit/layout.tsx';
import { Soft } from '../../kit/parts.tsx';
import { useHere } from '../../shell/session.tsx';
import { say } from '../../words/views.ts';
import type { DraftForm } from './form.ts';
import { Headspace, MinutesRows, PackAndHeadspace, SeaLevel } from './HeatFields.tsx';

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
/** What a process authority's letter says: who wrote it, for whom, what it limits, and its heat step. */
export function LetterFields({ form }: { form: DraftForm }) {
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
      <Cells wide="1.7fr 1fr 1.2fr 0.8fr" narrow="1fr 1fr" gap={1.5} mt={1.5}>
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
      <Cells wide="1fr 1fr" narrow="1fr 1fr" gap={1.5} mt={1.5} sx={{ maxWidth: 460 }}>
        <Figure
          at={at('terms.pieceSize_mm')}
          label={say('letter.pieceSize')}
          unit={kitchen.measures === 'US' ? 'inches' : 'mm'}
        />
        <Figure at={at('terms.perPint_g')} label={say('letter.perPint')} unit="g" />
      </Cells>
      <Cells wide="1fr 1fr 1.2fr" narrow="1fr" gap={1.5} mt={1.5}>
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
