import { EQUILIBRIUM_HOURS, PH_ACT, evidenceFaults } from '@cocotte/core/acid';
import { needsReading } from '@cocotte/core/checks';
import { celsius, instantText, readNumber, readRational, temperatureText } from '@cocotte/core/measure';
import { Box, Button, Checkbox, FormControlLabel, MenuItem, TextField, Typography } from '@mui/material';
import { type FormEvent, useState } from 'react';
import type { OpenBatch } from '../batches/api.ts';
import type { When } from '../batches/when.ts';
import { kitchenNow } from '../shell/clock.ts';
import { anyWords, useEntry } from '../shell/entry.ts';
import { Sheet, Soft, Tag } from '../shell/parts.tsx';
import { useHere } from '../shell/session.tsx';

type Method = 'meter' | 'laboratory' | 'paper';

/** Readings of the finished jars, and whether each counts as evidence. */
export function AcidityPanel({ batch, when }: { batch: OpenBatch; when: When }) {
  const { kitchen } = useHere();
  const started = batch.state.started as NonNullable<typeof batch.state.started>;
  const inF = kitchen.temperature === 'F';
  const [method, setMethod] = useState<Method>('meter');
  const [opened, setOpened] = useState(true);
  const lastLift_ms = Math.max(0, ...batch.state.loads.map(l => l.lifted?.at_ms ?? 0));
  const hoursNow =
    lastLift_ms === 0 ? '' : String(Math.max(0, Math.floor((kitchenNow() - lastLift_ms) / 360_000) / 10));
  const form = useEntry(
    {
      ph: t =>
        readNumber(t, kitchen.locale, {
          name: 'The pH',
          min: 0,
          max: 14,
          why: 'The scale runs from 0 to 14.',
        }),
      jar: t => readNumber(t, kitchen.locale, { name: 'The jar', min: 1, max: 2000, whole: true }),
      temp_C: t =>
        readNumber(t, kitchen.locale, {
          name: 'The temperature',
          min: inF ? 32 : 0,
          max: inF ? 140 : 60,
          unit: ` °${kitchen.temperature}`,
          why: 'A sample is read near room temperature.',
        }),
      hoursSinceProcessing: t => readNumber(t, kitchen.locale, { name: 'The hours', min: 0, max: 50_000 }),
      buffers: t => {
        const parts = t
          .split(/\s*(?:;|and|\s)\s*/)
          .filter(Boolean)
          .map(p => readRational(p, kitchen.locale));
        const bad = parts.find(p => !p.ok);
        return bad && !bad.ok
          ? bad
          : { ok: true as const, value: parts.flatMap(p => (p.ok ? [p.value.valueOf()] : [])) };
      },
      reference: anyWords,
    },
    { temp_C: inF ? '75' : '24', hoursSinceProcessing: hoursNow, buffers: '4.01 and 7.00' },
  );
  const read = async (e: FormEvent) => {
    e.preventDefault();
    const v = form.read();
    if (!v) return;
    const jar = v.jar;
    const reading = {
      jar,
      ph: v.ph,
      temp_C: Math.round((inF ? celsius(v.temp_C) : v.temp_C) * 10) / 10,
      hoursSinceProcessing: v.hoursSinceProcessing,
      method,
      buffers: method === 'meter' ? v.buffers : [],
      reference: v.reference,
    };
    const setAside = opened && batch.state.jars.some(j => j.number === jar && !j.setAside);
    if (
      await batch.enter(
        [
          ['ph.read', reading],
          ...(setAside
            ? [
                ['jars.set_aside', { jars: [jar], why: 'tested' }] as [
                  'jars.set_aside',
                  { jars: number[]; why: 'tested' },
                ],
              ]
            : []),
        ],
        when,
      )
    )
      form.clear(['ph']);
  };
  const asked = needsReading(started.recipe.foodClass);
  return (
    <Sheet title="Acidity" aside={`released at pH ${started.phLimit} or below`}>
      <Typography sx={{ color: 'text.secondary' }}>
        {asked
          ? `Open a jar at least ${EQUILIBRIUM_HOURS} h after processing; blend solids and brine. Careful producers act above ${PH_ACT}.`
          : 'Not asked for in a fruit spread, but may be logged.'}
      </Typography>
      {batch.state.readings.map(r => {
        const faults = evidenceFaults(r);
        return (
          <Box key={r.by.eventId} sx={{ py: 1, borderBottom: 1, borderColor: 'rule.main' }}>
            <strong>pH {r.ph}</strong> in jar {r.jar}, {temperatureText(r.temp_C, kitchen)},{' '}
            {Math.floor(r.hoursSinceProcessing)} h, by {r.method}.{' '}
            {r.ph > started.phLimit ? (
              <Tag tone="ox">above {started.phLimit}: nothing is released</Tag>
            ) : faults.length === 0 ? (
              <Tag tone="leaf">counts</Tag>
            ) : (
              <Soft>Does not count: {faults.join('; ')}.</Soft>
            )}{' '}
            <Soft>{instantText(r.by.at_ms, kitchen)}</Soft>
          </Box>
        );
      })}
      <Box
        component="form"
        noValidate
        onSubmit={e => void read(e)}
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: '1fr 1fr', sm: 'repeat(4, 1fr)' },
          gap: 1.5,
          mt: 2,
          alignItems: 'start',
        }}
      >
        <TextField label="pH" inputMode="decimal" {...form.field('ph')} />
        <TextField label="Jar" inputMode="numeric" {...form.field('jar')} />
        <TextField label={`Sample, °${kitchen.temperature}`} inputMode="decimal" {...form.field('temp_C')} />
        <TextField
          label="Hours since processing"
          inputMode="decimal"
          {...form.field('hoursSinceProcessing')}
        />
        <TextField select label="By" value={method} onChange={e => setMethod(e.target.value as Method)}>
          <MenuItem value="meter">meter</MenuItem>
          <MenuItem value="laboratory">laboratory</MenuItem>
          <MenuItem value="paper">paper</MenuItem>
        </TextField>
        {method === 'meter' && (
          <TextField
            label="Calibrated today in buffers"
            {...form.field('buffers')}
            sx={{ gridColumn: { sm: 'span 2' } }}
          />
        )}
        {method === 'laboratory' && (
          <TextField label="Report" {...form.field('reference')} sx={{ gridColumn: { sm: 'span 2' } }} />
        )}
        <FormControlLabel
          sx={{ gridColumn: '1 / -1' }}
          control={<Checkbox checked={opened} onChange={(_, on) => setOpened(on)} />}
          label="The jar was opened for it and leaves the stock"
        />
        <Button type="submit" variant="contained" sx={{ gridColumn: '1 / -1', minHeight: 56 }}>
          Enter the reading
        </Button>
      </Box>
    </Sheet>
  );
}
