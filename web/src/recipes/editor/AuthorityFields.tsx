import { ALTITUDE_BANDS_FT } from '@cocotte/core/heat';
import { byName, ofNames } from '@cocotte/core/measure';
import { JAR_SIZES, type JarSizeId, jarSize } from '@cocotte/core/jars';
import type { Authority } from '@cocotte/core/recipes';
import {
  type LetterProcess,
  PROCESS_ENTRIES,
  type Product,
  entriesFor,
  processEntry,
} from '@cocotte/core/times';
import type { Kitchen } from '@cocotte/core/kitchen';
import { Box, Button, Checkbox, FormControlLabel, Typography } from '@mui/material';
import { Sheet, Soft } from '../../shell/parts.tsx';
import { type Draft, type DraftMinutes } from './draft.ts';
import { type At, Choice, Field, columns } from './fields.tsx';

const GRADES: Record<Authority['grade'], string> = {
  own: 'own, inherited or combined',
  'tested publication': "tested publication or set-maker's leaflet, unchanged",
  letter: "process authority's letter",
  'published, untested': 'published, untested',
};
const PROCESSES: Record<LetterProcess['kind'], string> = {
  'boiling water': 'boiling water, minutes by altitude',
  'sea level': 'boiling water, a sea-level time only',
  'hot-fill-hold': 'hot fill and hold',
};
const BANDS = byName<readonly (number | null)[]>({
  'to 1,000 ft, to 6,000 ft, above': ALTITUDE_BANDS_FT.three,
  'to 1,000, 3,000, 6,000 ft, above': ALTITUDE_BANDS_FT.four,
  'one time for every altitude': [null],
});
const SPREADS: readonly Product[] = ['jam', 'preserves', 'jelly', 'fruit butter'];

/** What the recipe rests on: one of four grades, and what each has to say for itself. */
export function AuthorityFields({
  draft,
  set,
  at,
  kitchen,
}: {
  draft: Draft;
  set: (key: string, part: Partial<Draft>) => void;
  at: At;
  kitchen: Kitchen;
}) {
  const field = (
    key: keyof Draft & string,
    label: string,
    path: string,
    more: { type?: string; hint?: string } = {},
  ) => (
    <Field label={label} value={draft[key]} onText={t => set(key, { [key]: t })} fault={at(path)} {...more} />
  );
  const own = entriesFor(draft.product);
  const entries = draft.grade === 'own' ? own : [...own, ...PROCESS_ENTRIES.filter(e => !own.includes(e))];
  const entry = (
    <Choice
      label={draft.grade === 'own' ? 'Published family time' : 'Published entry'}
      value={draft.entryId}
      of={entries.map(e => e.id)}
      words={ofNames(entries.map(e => [e.id, `${e.product}, ${e.pack} pack (${e.source.part})`]))}
      empty="none"
      onPick={entryId => {
        const picked = processEntry(entryId);
        // Pack and packing liquid belong to the entry.
        const liquid =
          picked && picked.liquids.length > 0 && !picked.liquids.includes(draft.method.liquid)
            ? (picked.liquids[0] ?? draft.method.liquid)
            : draft.method.liquid;
        set('', {
          entryId,
          ...(picked ? { method: { ...draft.method, pack: picked.pack, liquid } } : {}),
        });
      }}
      fault={at('authority.entryId')}
    />
  );
  const heat = draft.grade === 'letter' ? 'authority.process' : 'authority.time';
  const headspace = field('headspace', 'Headspace, inches', `${heat}.headspace_mm`);
  const pack = (
    <Choice label="Pack" value={draft.pack} of={['hot', 'raw']} onPick={p => set('', { pack: p })} />
  );
  return (
    <Sheet title="Authority" aside="an own recipe borrows no processing time">
      <Box sx={columns('1.4fr 2.2fr')}>
        <Choice<Authority['grade']>
          label="Grade"
          value={draft.grade}
          of={['own', 'tested publication', 'letter', 'published, untested']}
          words={GRADES}
          onPick={grade => set('', { grade, tested: null })}
        />
        {draft.grade === 'own' && SPREADS.includes(draft.product) && entry}
        {draft.grade === 'published, untested' && field('title', 'Title', 'authority.title')}
        {draft.grade === 'tested publication' && (
          <Choice
            label="Its time"
            value={draft.time}
            of={['entry', 'sea level']}
            words={{ entry: 'a published entry in the tables', 'sea level': 'given for sea level only' }}
            onPick={time => set('', { time })}
          />
        )}
      </Box>
      {draft.grade === 'tested publication' && (
        <>
          {draft.time === 'entry' && <Box sx={{ mt: 1.5 }}>{entry}</Box>}
          <Box sx={{ ...columns('1fr 2fr 1fr 1fr'), mt: 1.5 }}>
            <Choice
              label="Kind"
              value={draft.kind}
              of={['publication', 'leaflet']}
              words={{ publication: 'tested publication', leaflet: "set-maker's leaflet" }}
              onPick={kind => set('', { kind })}
            />
            {field('title', 'Title', 'authority.title', {
              hint: draft.time === 'entry' ? "empty: the entry's own" : '',
            })}
            {field('edition', 'Edition', 'authority.edition')}
            {field('year', 'Year', 'authority.year')}
            {field('part', 'Page or part', 'authority.part')}
            {field('checkedOn', 'Checked on', 'authority.checkedOn', { type: 'date' })}
          </Box>
          <FormControlLabel
            sx={{ mt: 1 }}
            control={
              <Checkbox checked={draft.fromMemory} onChange={(_, on) => set('', { fromMemory: on })} />
            }
            label="Written from memory, still to be held against the book"
          />
          {draft.time === 'sea level' && (
            <SeaLevel draft={draft} set={set} at={at} heat={heat} pack={pack} headspace={headspace} />
          )}
        </>
      )}
      {draft.grade === 'letter' && (
        <>
          <Box sx={{ ...columns('2fr 1fr 1fr 1fr'), mt: 1.5 }}>
            {field('authority', 'Process authority', 'authority.authority')}
            {field('reference', 'Reference', 'authority.reference')}
            {field('issuedOn', 'Dated', 'authority.issuedOn', { type: 'date' })}
            {field('maxPh', 'pH at most', 'authority.maxPh')}
          </Box>
          <Box sx={{ mt: 1.5 }}>
            {field('limits', 'What else it limits, in its words', 'authority.limits')}
          </Box>
          <Box sx={{ ...columns('1.6fr 1fr 1fr'), mt: 1.5 }}>
            <Choice<LetterProcess['kind']>
              label="Heat step"
              value={draft.process}
              of={['boiling water', 'sea level', 'hot-fill-hold']}
              words={PROCESSES}
              onPick={process => set('', { process })}
            />
            {draft.process === 'boiling water' && (
              <Choice
                label="Altitude bands"
                value={Object.keys(BANDS).find(k => String(BANDS[k]) === String(draft.tops)) ?? ''}
                of={Object.keys(BANDS)}
                empty="as the letter has them"
                onPick={k =>
                  BANDS[k] &&
                  set('', {
                    tops: [...BANDS[k]],
                    letter: draft.letter.map(m => ({
                      ...m,
                      minutes: (BANDS[k] ?? []).map((_, i) => m.minutes[i] ?? ''),
                    })),
                  })
                }
              />
            )}
          </Box>
          {draft.process === 'boiling water' && (
            <>
              <Box sx={{ ...columns('1fr 1fr'), mt: 1.5, maxWidth: 420 }}>
                {pack}
                {headspace}
              </Box>
              <MinutesRows
                rows={draft.letter}
                labels={draft.tops.map((top, i) =>
                  top === null
                    ? i === 0
                      ? 'Minutes'
                      : 'Minutes above'
                    : `Minutes to ${top.toLocaleString('en-US')} ft`,
                )}
                path="authority.process.minutes"
                at={at}
                put={letter => set('letter', { letter })}
              />
            </>
          )}
          {draft.process === 'sea level' && (
            <SeaLevel draft={draft} set={set} at={at} heat={heat} pack={pack} headspace={headspace} />
          )}
          {draft.process === 'hot-fill-hold' && (
            <>
              <Box sx={{ ...columns('1fr 1fr 2fr 1fr'), mt: 1.5 }}>
                {field(
                  'fillTemp',
                  `Filled at, °${kitchen.temperature}, at least`,
                  'authority.process.temp_C',
                )}
                {field('fillHold', 'Held, minutes', 'authority.process.hold_min')}
                {field('closure', 'Closure', 'authority.process.closure')}
                {headspace}
              </Box>
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
                          set('', {
                            fillSizes: on
                              ? [...draft.fillSizes, s.id]
                              : draft.fillSizes.filter(x => x !== s.id),
                          })
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
      )}
      {draft.tested && (draft.grade === 'tested publication' || draft.grade === 'letter') && (
        <Box sx={{ mt: 2, display: 'flex', gap: 2, alignItems: 'center', flexWrap: 'wrap' }}>
          <Typography sx={{ flex: '1 1 320px', color: 'text.secondary' }}>
            The formula it covers was taken over on {draft.tested.takenOn}. Changes are held against it.
          </Typography>
          <Button variant="outlined" size="small" onClick={() => set('', { tested: null })}>
            These lines are what it prints: take them over anew
          </Button>
        </Box>
      )}
      {draft.tested === null && (draft.grade === 'tested publication' || draft.grade === 'letter') && (
        <Typography sx={{ mt: 2, color: 'text.secondary' }}>
          The lines, the method and the jars below are taken over as what it covers when this is saved.
        </Typography>
      )}
    </Sheet>
  );
}

function SeaLevel({
  draft,
  set,
  at,
  heat,
  pack,
  headspace,
}: {
  draft: Draft;
  set: (key: string, part: Partial<Draft>) => void;
  at: At;
  /** Path of the heat step in the recipe. */
  heat: string;
  pack: React.ReactNode;
  headspace: React.ReactNode;
}) {
  return (
    <>
      <Box sx={{ ...columns('1fr 1fr'), mt: 1.5, maxWidth: 420 }}>
        {pack}
        {headspace}
      </Box>
      <MinutesRows
        rows={draft.seaLevel}
        labels={['Minutes at sea level']}
        path={`${heat}.minutes`}
        at={at}
        put={seaLevel => set('seaLevel', { seaLevel })}
      />
      <Typography sx={{ mt: 1, color: 'text.secondary' }}>
        Here the longer of two rules of the trade is used: a minute for each started 1,000 ft (two where the
        time is over 20 minutes), or the ladder of +5, +10 and +15.
      </Typography>
    </>
  );
}

function MinutesRows({
  rows,
  labels,
  path,
  at,
  put,
}: {
  rows: DraftMinutes[];
  labels: string[];
  path: string;
  at: At;
  put: (rows: DraftMinutes[]) => void;
}) {
  const free = JAR_SIZES.filter(s => !rows.some(r => r.size === s.id));
  const change = (i: number, part: Partial<DraftMinutes>) =>
    put(rows.map((r, k) => (k === i ? { ...r, ...part } : r)));
  return (
    <>
      {rows.map((row, i) => (
        <Box key={row.size} sx={{ ...columns(`1fr ${labels.map(() => '1fr').join(' ')} auto`), mt: 1.5 }}>
          <Choice<JarSizeId>
            label="Jar"
            value={row.size}
            of={[row.size, ...free.map(s => s.id)]}
            words={ofNames(JAR_SIZES.map(s => [s.id, s.name]))}
            onPick={size => change(i, { size })}
          />
          {labels.map((label, k) => (
            <Field
              key={label}
              label={label}
              value={row.minutes[k] ?? ''}
              onText={t =>
                change(i, { minutes: labels.map((_, x) => (x === k ? t : (row.minutes[x] ?? ''))) })
              }
              fault={k === 0 ? at(`${path}[${i}]`) : undefined}
            />
          ))}
          <Button
            variant="outlined"
            disabled={rows.length === 1}
            aria-label={`Leave out ${jarSize(row.size).plural} from the authority`}
            onClick={() => put(rows.filter((_, k) => k !== i))}
          >
            Leave out
          </Button>
        </Box>
      ))}
      {free[0] && (
        <Button
          size="small"
          variant="outlined"
          sx={{ mt: 1.5 }}
          onClick={() =>
            put([...rows, { size: (free[0] as { id: JarSizeId }).id, minutes: labels.map(() => '') }])
          }
        >
          Add a jar size with its minutes
        </Button>
      )}
    </>
  );
}
