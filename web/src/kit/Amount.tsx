import { type AmountHint, UNITS, type UnitId, readAmount } from '@cocotte/core/measure';
import { Box, Button, TextField } from '@mui/material';
import type { ReactNode } from 'react';
import { useHere } from '../shell/session.tsx';
import { type Common, useShown } from './fields.tsx';
import type { At } from './form.ts';
import { Fractions, Soft } from './parts.tsx';
import { faultText } from './readers.ts';

/**
 * An amount as it is typed, with what it reads as at once; one that can mean two things asks which.
 *
 * @param unitAt  the field that keeps which of two units was meant; without one nothing is asked
 * @param reading  what it comes to, beneath the field
 */
export function Amount({
  at,
  unitAt,
  knowing = {},
  reading,
  hint,
  ...props
}: Common & { unitAt?: At; knowing?: AmountHint; reading?: ReactNode }) {
  const { kitchen } = useHere();
  const { field, fault } = useShown(at);
  const text = String(field.value ?? '');
  const read = text.trim() === '' ? null : readAmount(text, kitchen.locale, knowing);
  const wrong = fault ?? (read && !read.ok ? faultText(read.fault) : undefined);
  return (
    <Box>
      <TextField
        {...props}
        name={at.name}
        value={text}
        onChange={field.onChange}
        onBlur={field.onBlur}
        inputRef={field.ref}
        error={fault !== undefined}
        helperText={
          fault ?? (wrong ? <Soft sx={{ color: 'ox.main' }}>{wrong}</Soft> : read ? (reading ?? hint) : hint)
        }
      />
      {unitAt && read?.ok && read.ask && <WhichUnit at={unitAt} ask={read.ask} />}
    </Box>
  );
}

function WhichUnit({
  at,
  ask,
}: {
  at: At;
  ask: { what: string; choices: readonly { label: string; amount: { unit: UnitId } }[] };
}) {
  const { field } = useShown(at);
  return (
    <Box role="group" aria-label={ask.what} sx={{ mt: 0.5 }}>
      <Soft sx={{ fontSize: '0.88rem' }}>{ask.what} Which is it?</Soft>
      {ask.choices.map(c => (
        <Button
          key={c.amount.unit}
          size="small"
          variant={field.value === c.amount.unit ? 'contained' : 'outlined'}
          aria-pressed={field.value === c.amount.unit}
          onClick={() => field.onChange(c.amount.unit)}
          sx={{ mr: 0.5, mt: 0.5 }}
        >
          {c.label}
        </Button>
      ))}
    </Box>
  );
}

/** An amount in words, with its fractions set as fractions: "2 1/2 cups". */
export function AmountWords({ value, upTo, unit }: { value: string; upTo: string | null; unit: UnitId }) {
  const mixed = value.replace(/^(\d+)\/(\d+)$/, (_, a: string, b: string) => {
    const whole = Math.floor(Number(a) / Number(b));
    return whole === 0 ? `${a}/${b}` : `${whole} ${Number(a) % Number(b)}/${b}`;
  });
  return <Fractions text={`${mixed}${upTo ? ` to ${upTo}` : ''} ${UNITS[unit].symbol}`.trim()} />;
}
