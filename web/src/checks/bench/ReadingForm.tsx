import {
  type Calibration,
  evidenceFaults,
  OPENED_HOURS,
  type ReadWhen,
  REPLICATES_PH,
  type Sample,
  SAMPLES,
} from '@cocotte/core/acid';
import { type BatchState, type EventBodies, textureOf } from '@cocotte/core/batches';
import { batchSubject } from '@cocotte/core/kitchen';
import { dayOf, fieldText, numberText, type Reading } from '@cocotte/core/measure';
import { Box } from '@mui/material';
import { useState } from 'react';
import type { OpenBatch } from '../../batches/open-batch.ts';
import type { When } from '../../batches/when.ts';
import { calibrationsOf, useInstrumentLogs } from '../../kitchen/instrument-logs.ts';
import { AttachPaper, type Attached } from '../../kit/AttachPaper.tsx';
import { EntryForm } from '../../kit/EntryForm.tsx';
import { Figure, OneOf, Pick, Temperature, Text, Tick } from '../../kit/fields.tsx';
import { useTyped } from '../../kit/form.ts';
import { Soft } from '../../kit/parts.tsx';
import { anyWords, orNone, rows, unasked, useRead } from '../../kit/readers.ts';
import { useNow } from '../../shell/clock.ts';
import { useHere } from '../../shell/session.tsx';
import { misread, say } from '../../words/views.ts';
import { foodPh } from './food-ph.ts';
import { LiveMeter } from './LiveMeter.tsx';
import { shownTemp } from './shown-temp.ts';

const METHODS = ['meter', 'laboratory', 'paper'] as const;
/** Single readings of a sample that have a field. */
const TIMES = 3;

/** When jars were opened first, and lifted last. */
function jarTimes({ readings, jars, loads }: BatchState, number: number) {
  const jar = jars.find(j => j.number === number);
  const load = loads.find(l => l.id === jar?.loadIds.at(-1));
  return { load, opened: readings.find(r => r.jar === number)?.by ?? null };
}

/** One reading of a finished jar: which jar, how the sample was made, and up to three single readings of it. */
export function ReadingForm({ batch, when }: { batch: OpenBatch; when: When }) {
  const { kitchen } = useHere();
  const read = useRead();
  const now_ms = useNow();
  const { state } = batch;
  const started = state.started as NonNullable<BatchState['started']>;
  const texture = textureOf(started.recipe);
  const packed = started.recipe.packing !== null;
  const [meter] = calibrationsOf(useInstrumentLogs().data?.instruments ?? []);
  const [paper, setPaper] = useState<Attached | null>(null);
  const openedBefore = (number: number) => {
    const { opened } = jarTimes(state, number);
    return opened !== null && now_ms - opened.at_ms > OPENED_HOURS * 3_600_000;
  };
  const there = state.jars.filter(
    j =>
      !j.setAside ||
      (j.setAside.why === 'tested' && !openedBefore(j.number)) ||
      j.setAside.why === 'refrigerator',
  );
  const last = state.readings.at(-1) ?? null;
  const marked = state.jars.find(j => j.marked === 'reading' && !j.setAside)?.number;
  const form = useTyped(
    {
      sample: (last?.sample ?? (texture === 'pieces' ? 'solids' : 'whole, blended')) as Sample,
      jar: String(marked ?? ''),
      tightest: false,
      times: Array.from({ length: TIMES }, () => ({ ph: '' })),
      temp_C: shownTemp(kitchen, last?.temp_C ?? 24),
      method: METHODS[0] as (typeof METHODS)[number],
      reference: '',
    },
    typed => ({
      jar: (text: string): Reading<number> => {
        const found = read.figure({ name: say('reading.jar'), min: 1, max: 2000, whole: true })(text);
        if (!found.ok) return found;
        if (!state.jars.some(j => j.number === found.value))
          return misread('jar-not-here', { jar: found.value });
        if (!jarTimes(state, found.value).load) return misread('jar-no-load', { jar: found.value });
        return openedBefore(found.value) ? misread('jar-opened', { jar: found.value }) : found;
      },
      times: (row: readonly { ph: string }[]) => {
        const found = rows((_: { ph: string }, i: number) => ({
          ph: i === 0 ? read.figure(foodPh()) : orNone(read.figure(foodPh())),
        }))(row as { ph: string }[]);
        if (!found.ok) return found;
        const figures = found.value.flatMap(r => r.ph ?? []);
        const spread = Math.max(...figures) - Math.min(...figures);
        return spread > REPLICATES_PH + 1e-9
          ? {
              ok: false as const,
              faults: [
                {
                  ...misread('replicates-apart', {
                    by: numberText(spread, kitchen, 2),
                    most: numberText(REPLICATES_PH, kitchen),
                  }).fault,
                  path: `${figures.length - 1}.ph`,
                },
              ],
            }
          : { ok: true as const, value: figures };
      },
      temp_C:
        typed.method === 'laboratory'
          ? unasked(24)
          : read.temperature_C({
              name: say('reading.temp'),
              min: 0,
              max: 60,
              why: say('reading.temp.why'),
            }),
      reference:
        typed.method === 'laboratory'
          ? (text: string) => (text.trim() === '' ? misread('no-reference') : anyWords(text))
          : unasked(''),
    }),
  );
  const { at } = form;
  const method = form.typed('method');
  const calibration: Calibration | null = method === 'meter' ? (meter?.calibration ?? null) : null;
  const bodyOf = (v: {
    jar: number;
    times: number[];
    temp_C: number;
    reference: string;
  }): EventBodies['ph.read'] => ({
    jar: v.jar,
    ph: v.times.reduce((a, b) => a + b, 0) / Math.max(1, v.times.length),
    replicates: v.times.length > 1 ? v.times : [],
    temp_C: Math.round(v.temp_C * 10) / 10,
    // The hours are reckoned from the record.
    hoursSinceProcessing: 0,
    method,
    buffers: calibration?.points.map(p => p.ph) ?? [],
    reference: v.reference,
    sample: form.typed('sample'),
    tightest: form.typed('tightest'),
    paper: method === 'laboratory' && paper ? { paperId: paper.paperId, sha256: paper.sha256 } : null,
    // The meter whose calibration goes with it, read by eye or on its line.
    instrumentId: method === 'meter' ? (meter?.id ?? null) : null,
    calibration,
  });
  const enter = form.submit(async v => {
    if (method === 'laboratory' && !paper) return [{ ...misread('no-lab-paper').fault, path: '' }];
    if (!(await batch.enter([['ph.read', bodyOf(v)]], when))) return;
    setPaper(null);
    const sample = form.typed('sample');
    const other = sample === 'solids' ? 'brine' : 'solids';
    // Where solids and brine are read apart, the other one of the same jar comes next, unless it was read already.
    const half =
      sample !== 'whole, blended' && !state.readings.some(r => r.jar === v.jar && r.sample === other);
    form.again({
      method,
      temp_C: form.typed('temp_C'),
      sample: half ? other : sample,
      jar: half ? form.typed('jar') : '',
      tightest: half && form.typed('tightest'),
    });
  });
  const jar = Number(form.typed('jar'));
  const { load, opened } = jarTimes(state, jar);
  const hours = load?.lifted ? (now_ms - load.lifted.at_ms) / 3_600_000 : null;
  const known: ReadWhen = {
    hours,
    on: dayOf(now_ms, kitchen.zone),
    dayOfInstant: ms => dayOf(ms, kitchen.zone),
    texture,
    recheck_off: 0,
    opened_h: opened ? (now_ms - opened.at_ms) / 3_600_000 : 0,
  };
  const temp = form.now().temp_C;
  // What would keep it from counting is said before the jar is opened.
  const faults = evidenceFaults(
    bodyOf({
      jar,
      times: [],
      temp_C: temp.ok ? temp.value : 24,
      reference: method === 'laboratory' ? form.typed('reference') || '-' : '',
    }),
    known,
    kitchen,
  ).filter(f => method !== 'laboratory' || !f.includes('paper'));
  const times = form.typed('times');
  return (
    <EntryForm
      form={form}
      action={say('reading.enter')}
      onSubmit={enter}
      wide="repeat(3, 1fr)"
      narrow="1fr 1fr"
      mt={2}
      tall
      strong
    >
      <Pick
        at={at('jar')}
        label={say('reading.jar')}
        of={there.map(j => {
          const n = state.loads.find(l => l.id === j.loadIds.at(-1))?.number;
          return [
            String(j.number),
            n === undefined
              ? say('reading.jarNoLoad', { jar: String(j.number) })
              : say('reading.jarOfLoad', { jar: String(j.number), load: String(n) }),
          ] as const;
        })}
      />
      <Pick
        at={at('method')}
        label={say('reading.by')}
        of={METHODS.map(m => [m, say(`reading.by.${m}`)] as const)}
      />
      {method !== 'laboratory' && <Temperature at={at('temp_C')} label={say('reading.temp')} />}
      <Box sx={{ gridColumn: '1 / -1' }}>
        <OneOf
          at={at('sample')}
          label={say('reading.sample')}
          row
          of={SAMPLES.map(s => [s, say(`reading.sample.${s === 'whole, blended' ? 'whole' : s}`)] as const)}
        />
        {packed && <Tick at={at('tightest')} label={say('reading.tightest')} />}
      </Box>
      {method === 'meter' && (
        <LiveMeter
          onTake={ph => {
            const free = times.findIndex(t => t.ph === '');
            form.set(`times.${free < 0 ? TIMES - 1 : free}.ph`, fieldText(ph, kitchen.locale, 2));
          }}
        />
      )}
      {times.map((_, i) => (
        // Single readings have no names but their place.
        // oxlint-disable-next-line react/no-array-index-key
        <Figure
          key={i}
          at={at(`times.${i}.ph`)}
          label={i === 0 ? 'pH' : say('reading.again', { n: i + 1 })}
        />
      ))}
      {method === 'laboratory' && (
        <>
          <Text at={at('reference')} label={say('reading.report')} sx={{ gridColumn: { sm: 'span 2' } }} />
          <AttachPaper
            subject={batchSubject(batch.id)}
            label={say('reading.paper')}
            attached={paper}
            onAttached={setPaper}
          />
        </>
      )}
      <Box sx={{ gridColumn: '1 / -1' }} role="status">
        {jar > 0 && faults.length > 0 ? (
          <Box sx={{ color: 'live.main', fontWeight: 600 }}>
            {say('reading.wouldNotCount', { faults: faults.join('; ') })}
          </Box>
        ) : (
          <Soft>
            {hours !== null && say('reading.inTime', { jar, h: Math.floor(hours) })} {say('reading.opened')}
          </Soft>
        )}
      </Box>
    </EntryForm>
  );
}
