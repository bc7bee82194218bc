import { type CorrectableType, type Correction, type Entered, retyped } from '@cocotte/core/batches';
import { type Rule, bodyRule, check } from '@cocotte/contract';
import {
  type Reading,
  byName,
  fahrenheit,
  fieldText,
  localTextOf,
  ofNames,
  rangesText,
  readRanges,
} from '@cocotte/core/measure';
import { type RecordLine, eventWords } from '@cocotte/core/records';
import { Button, Typography } from '@mui/material';
import type { OpenBatch } from '../batches/open-batch.ts';
import { pastInstant } from '../batches/when.ts';
import { kitchenNow } from '../shell/clock.ts';
import { Text, Time } from '../kit/fields.tsx';
import { useTyped } from '../kit/form.ts';
import { FormDialog } from '../kit/FormDialog.tsx';
import { Stack } from '../kit/layout.tsx';
import { rows, useRead, words } from '../kit/readers.ts';
import { useHere } from '../shell/session.tsx';
import { misread } from '../words/views.ts';

const NAMES = byName<string>({
  mass_g: 'Grams',
  temp_C: 'Temperature',
  brix_pct: '°Brix',
  ph: 'pH',
  jar: 'Jar',
  jars: 'Jar numbers',
  sealed: 'Sealed jars',
  failed: 'Failed jars',
  minutes: 'Minutes',
  text: 'Note',
  reason: 'Reason given',
  number: 'Load number',
});

/** Corrects an entry: the first stays in the record, the correction stands beside it with its reason. */
export function CorrectDialog({
  batch,
  line: { event, at_ms },
  onClose,
}: {
  batch: OpenBatch;
  line: RecordLine;
  onClose: () => void;
}) {
  const { kitchen } = useHere();
  const read = useRead();
  const inF = kitchen.temperature === 'F';
  const body = event.body as unknown as Record<string, unknown>;
  const fields = Object.keys(body).filter(
    k =>
      k in NAMES &&
      (typeof body[k] === 'number' ||
        k === 'text' ||
        k === 'reason' ||
        (Array.isArray(body[k]) && k !== 'buffers')),
  );
  const show = (k: string): string => {
    const v = body[k];
    if (Array.isArray(v)) return rangesText(v as number[]);
    if (typeof v === 'number') return fieldText(k === 'temp_C' && inF ? fahrenheit(v) : v, kitchen.locale);
    return String(v ?? '');
  };
  const firstAt = localTextOf(at_ms, kitchen.zone);
  const reasonReader = words('The reason', 'An inspector reads it beside the first entry.', 'Say why.');
  /** The text as the body keeps it; what was not touched stays to the last digit. */
  const readerOf =
    (k: string) =>
    (text: string): Reading<unknown> => {
      if (text === show(k)) return { ok: true, value: body[k] };
      if (Array.isArray(body[k])) {
        const numbers = readRanges(text);
        return numbers ? { ok: true, value: numbers } : misread('not-numbers');
      }
      if (typeof body[k] !== 'number') return { ok: true, value: text };
      return k === 'temp_C'
        ? read.temperature_C({ name: 'The temperature', min: -20, max: 400 })(text)
        : read.figure({ name: NAMES[k] as string })(text);
    };
  const form = useTyped(
    { occurredAt: firstAt, reason: '', body: fields.map(k => ({ k, text: show(k) })) },
    () => ({
      occurredAt: pastInstant(kitchen.zone, kitchenNow),
      reason: reasonReader,
      body: rows((row: { k: string }) => ({ text: readerOf(row.k) })),
    }),
  );
  const { at } = form;
  const enter = async (correction: Omit<Entered<'entry.corrected'>, 'replaces' | 'type'>) => {
    const whole = { replaces: event.id, type: event.type as CorrectableType, ...correction };
    if (await batch.enter([['entry.corrected', whole]])) onClose();
  };
  const correct = form.submit(async v => {
    const next = retyped(body, { ...body, ...ofNames(v.body.map(({ k, text }) => [k, text])) });
    const checked = check(bodyRule(event.type as CorrectableType) as Rule<unknown>, next);
    if (!checked.ok)
      return checked.faults.map(f => {
        const row = fields.indexOf(f.path.replace(/\[\d+\]$/, ''));
        return row < 0 ? f : { ...f, path: `body.${row}.text` };
      });
    return enter({
      body: next as unknown as Correction['body'],
      reason: v.reason,
      occurredAt: form.form.getValues('occurredAt') === firstAt ? null : new Date(v.occurredAt).toISOString(),
    });
  });
  const takeBack = () => {
    const reason = reasonReader(form.form.getValues('reason'));
    if (!reason.ok) return form.place([{ ...reason.fault, path: 'reason' }]);
    return void enter({ body: null, reason: reason.value, occurredAt: null });
  };
  return (
    <FormDialog
      title="Correct an entry"
      action="Enter the correction"
      form={form}
      onClose={onClose}
      onSubmit={correct}
      also={
        <Button variant="outlined" color="error" onClick={takeBack}>
          Take it back
        </Button>
      }
    >
      <Typography sx={{ mb: 2 }}>
        {eventWords(event, batch.state.started?.recipe ?? null, kitchen)} The first entry stays in the record;
        the correction stands beside it.
      </Typography>
      <Stack>
        {fields.map((k, i) => (
          <Text
            key={k}
            at={at(`body.${i}.text`)}
            label={k === 'temp_C' ? `Temperature, °${kitchen.temperature}` : (NAMES[k] as string)}
          />
        ))}
        <Time at={at('occurredAt')} label="It happened at" />
        <Text at={at('reason')} label="Reason" />
      </Stack>
    </FormDialog>
  );
}
