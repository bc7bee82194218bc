import { EQUILIBRIUM_HOURS, PH_ACT, evidenceFaults } from '@cocotte/core/acid';
import { needsReading } from '@cocotte/core/checks';
import { fieldText, instantText, numberText, temperatureText } from '@cocotte/core/measure';
import { Box, Typography } from '@mui/material';
import type { OpenBatch } from '../batches/open-batch.ts';
import type { When } from '../batches/when.ts';
import { EntryForm } from '../kit/EntryForm.tsx';
import { Figure, Pick, Temperature, Text } from '../kit/fields.tsx';
import { useTyped } from '../kit/form.ts';
import { Sheet, Soft, Tag } from '../kit/parts.tsx';
import { anyWords, orNone, rows, unasked, useRead } from '../kit/readers.ts';
import { kitchenNow } from '../shell/clock.ts';
import { useHere } from '../shell/session.tsx';
import { say } from '../words/views.ts';

const METHODS = ['meter', 'laboratory', 'paper'] as const;

/** Readings of the finished jars, and whether each counts as evidence. */
export function AcidityPanel({ batch, when }: { batch: OpenBatch; when: When }) {
  const { kitchen } = useHere();
  const read = useRead();
  const started = batch.state.started as NonNullable<typeof batch.state.started>;
  const plain = (n: number, places: number) => fieldText(n, kitchen.locale, places);
  const buffer = orNone(read.figure({ name: 'The buffer', min: 1, max: 13 }));
  const form = useTyped(
    {
      ph: '',
      // The jar that went along for it, where one did.
      jar: String(batch.state.jars.find(j => j.marked === 'reading' && !j.setAside)?.number ?? ''),
      temp_C: kitchen.temperature === 'F' ? '75' : '24',
      method: METHODS[0] as (typeof METHODS)[number],
      buffers: [4.01, 7].map(ph => ({ ph: plain(ph, 2) })),
      reference: '',
    },
    ({ method }) => ({
      ph: read.figure({ name: 'The pH', min: 0, max: 14, why: 'The scale runs from 0 to 14.' }),
      jar: read.figure({ name: 'The jar', min: 1, max: 2000, whole: true }),
      temp_C: read.temperature_C({
        name: 'The temperature',
        min: 0,
        max: 60,
        why: 'A sample is read near room temperature.',
      }),
      buffers: method === 'meter' ? rows(() => ({ ph: buffer })) : unasked([]),
      reference: anyWords,
    }),
  );
  const { at } = form;
  const enter = form.submit(async v => {
    const reading = {
      ...v,
      temp_C: Math.round(v.temp_C * 10) / 10,
      buffers: v.buffers.flatMap(b => b.ph ?? []),
      // The hours are reckoned from the record.
      hoursSinceProcessing: 0,
    };
    if (await batch.enter([['ph.read', reading]], when)) form.set('ph', '');
  });
  const jar = batch.state.jars.find(j => j.number === Number(form.typed('jar')));
  const lifted = batch.state.loads.find(l => l.id === jar?.loadIds.at(-1))?.lifted;
  const hours = lifted ? (kitchenNow() - lifted.at_ms) / 3_600_000 : null;
  const method = form.typed('method');
  const asked = needsReading(started.recipe.foodClass);
  return (
    <Sheet title="Acidity" aside={`released at pH ${numberText(started.phLimit, kitchen)} or below`}>
      <Typography sx={{ color: 'text.secondary' }}>
        {asked
          ? `Open a jar at least ${EQUILIBRIUM_HOURS} h after processing; blend solids and brine. Above ${numberText(PH_ACT, kitchen)} a second jar is read, the tightest packed. A jar whose seal failed within the day and stood in the refrigerator may be the one.`
          : 'Not asked for in a fruit spread, but may be logged.'}
      </Typography>
      {batch.state.readings.map(r => {
        const faults = evidenceFaults(r, r.hours, kitchen);
        return (
          <Box key={r.by.eventId} sx={{ py: 1, borderBottom: 1, borderColor: 'rule.main' }}>
            <strong>pH {numberText(r.ph, kitchen)}</strong> in jar {r.jar},{' '}
            {temperatureText(r.temp_C, kitchen)},{' '}
            {r.hours === null ? say('reading.early') : say('reading.hours', { h: Math.floor(r.hours) })}, by{' '}
            {r.method}.{' '}
            {r.ph > started.phLimit ? (
              <Tag tone="ox">above {numberText(started.phLimit, kitchen)}: nothing is released</Tag>
            ) : faults.length === 0 ? (
              <Tag tone="leaf">counts</Tag>
            ) : (
              <Soft>Does not count: {faults.join('; ')}.</Soft>
            )}{' '}
            <Soft>{instantText(r.by.at_ms, kitchen)}</Soft>
          </Box>
        );
      })}
      <EntryForm
        form={form}
        action="Enter the reading"
        onSubmit={enter}
        wide="repeat(4, 1fr)"
        narrow="1fr 1fr"
        mt={2}
        tall
        strong
      >
        <Figure at={at('ph')} label="pH" />
        <Figure at={at('jar')} label="Jar" />
        <Temperature at={at('temp_C')} label="Sample" />
        <Pick at={at('method')} label="By" of={METHODS} />
        {method === 'meter' && <Figure at={at('buffers.0.ph')} label="Calibrated today" />}
        {method === 'meter' && <Figure at={at('buffers.1.ph')} label="and at" />}
        {method === 'laboratory' && (
          <Text at={at('reference')} label="Report" sx={{ gridColumn: { sm: 'span 2' } }} />
        )}
        <Soft sx={{ gridColumn: '1 / -1' }}>
          {jar &&
            (hours === null
              ? say('reading.notYet', { jar: jar.number })
              : say(hours < EQUILIBRIUM_HOURS ? 'reading.tooEarly' : 'reading.inTime', {
                  jar: jar.number,
                  h: Math.floor(hours),
                  least: EQUILIBRIUM_HOURS,
                }))}{' '}
          {say('reading.opened')}
        </Soft>
      </EntryForm>
    </Sheet>
  );
}
