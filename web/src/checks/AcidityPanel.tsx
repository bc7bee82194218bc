import { EQUILIBRIUM_HOURS, PH_ACT, evidenceFaults } from '@cocotte/core/acid';
import { needsReading } from '@cocotte/core/checks';
import { fieldText, instantText, numberText, temperatureText } from '@cocotte/core/measure';
import { Box, Typography } from '@mui/material';
import type { OpenBatch } from '../batches/api.ts';
import type { When } from '../batches/when.ts';
import { EntryForm } from '../kit/EntryForm.tsx';
import { Figure, Pick, Temperature, Text, Tick } from '../kit/fields.tsx';
import { useTyped } from '../kit/form.ts';
import { Sheet, Soft, Tag } from '../kit/parts.tsx';
import { anyWords, orNone, rows, unasked, useRead } from '../kit/readers.ts';
import { kitchenNow } from '../shell/clock.ts';
import { useHere } from '../shell/session.tsx';

const METHODS = ['meter', 'laboratory', 'paper'] as const;

/** Readings of the finished jars, and whether each counts as evidence. */
export function AcidityPanel({ batch, when }: { batch: OpenBatch; when: When }) {
  const { kitchen } = useHere();
  const read = useRead();
  const started = batch.state.started as NonNullable<typeof batch.state.started>;
  const plain = (n: number, places: number) => fieldText(n, kitchen.locale, places);
  const lastLift_ms = Math.max(0, ...batch.state.loads.map(l => l.lifted?.at_ms ?? 0));
  const hours = Math.max(0, (kitchenNow() - lastLift_ms) / 3_600_000);
  const buffer = orNone(read.figure({ name: 'The buffer', min: 1, max: 13 }));
  const form = useTyped(
    {
      ph: '',
      jar: '',
      temp_C: kitchen.temperature === 'F' ? '75' : '24',
      hoursSinceProcessing: lastLift_ms === 0 ? '' : plain(Math.floor(hours * 10) / 10, 1),
      method: METHODS[0] as (typeof METHODS)[number],
      buffers: [4.01, 7].map(ph => ({ ph: plain(ph, 2) })),
      reference: '',
      opened: true,
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
      hoursSinceProcessing: read.figure({ name: 'The hours', min: 0, max: 50_000 }),
      buffers: method === 'meter' ? rows(() => ({ ph: buffer })) : unasked([]),
      reference: anyWords,
    }),
  );
  const { at } = form;
  const enter = form.submit(async ({ opened, ...v }) => {
    const { jar } = v;
    const reading = {
      ...v,
      temp_C: Math.round(v.temp_C * 10) / 10,
      buffers: v.buffers.flatMap(b => b.ph ?? []),
    };
    const facts: Parameters<OpenBatch['enter']>[0] = [['ph.read', reading]];
    if (opened && batch.state.jars.some(j => j.number === jar && !j.setAside))
      facts.push(['jars.set_aside', { jars: [jar], why: 'tested' }]);
    if (await batch.enter(facts, when)) form.set('ph', '');
  });
  const method = form.typed('method');
  const asked = needsReading(started.recipe.foodClass);
  return (
    <Sheet title="Acidity" aside={`released at pH ${numberText(started.phLimit, kitchen)} or below`}>
      <Typography sx={{ color: 'text.secondary' }}>
        {asked
          ? `Open a jar at least ${EQUILIBRIUM_HOURS} h after processing; blend solids and brine. Careful producers act above ${numberText(PH_ACT, kitchen)}.`
          : 'Not asked for in a fruit spread, but may be logged.'}
      </Typography>
      {batch.state.readings.map(r => {
        const faults = evidenceFaults(r);
        return (
          <Box key={r.by.eventId} sx={{ py: 1, borderBottom: 1, borderColor: 'rule.main' }}>
            <strong>pH {numberText(r.ph, kitchen)}</strong> in jar {r.jar},{' '}
            {temperatureText(r.temp_C, kitchen)}, {Math.floor(r.hoursSinceProcessing)} h, by {r.method}.{' '}
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
        <Figure
          at={at('hoursSinceProcessing')}
          label="Hours since processing"
          sx={{ gridColumn: 'span 2' }}
        />
        <Temperature at={at('temp_C')} label="Sample" />
        <Pick at={at('method')} label="By" of={METHODS} />
        {method === 'meter' && <Figure at={at('buffers.0.ph')} label="Calibrated today" />}
        {method === 'meter' && <Figure at={at('buffers.1.ph')} label="and at" />}
        {method === 'laboratory' && (
          <Text at={at('reference')} label="Report" sx={{ gridColumn: { sm: 'span 2' } }} />
        )}
        <Tick
          at={at('opened')}
          label="The jar was opened for it and leaves the stock"
          sx={{ gridColumn: '1 / -1' }}
        />
      </EntryForm>
    </Sheet>
  );
}
