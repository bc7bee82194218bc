import type { Fault } from '@cocotte/core/measure';
import { MenuItem, TextField, type TextFieldProps } from '@mui/material';
import type { ReactNode } from 'react';
import { faultText } from '../../shell/entry.ts';

/** Columns that fold to two on a narrow screen. */
export const columns = (wide: string) => ({
  display: 'grid',
  gridTemplateColumns: {
    xs: 'minmax(0, 1fr) minmax(0, 1fr)',
    sm: wide.replaceAll(/([\d.]+fr)/g, 'minmax(0, $1)'),
  },
  gap: 1.5,
  alignItems: 'start',
});

/** Finds the fault of a path, to show beneath its field. */
export type At = (path: string) => Fault | undefined;

export function Field({
  fault,
  hint,
  onText,
  ...props
}: Omit<TextFieldProps, 'onChange'> & {
  fault?: Fault | undefined;
  hint?: ReactNode;
  onText: (text: string) => void;
}) {
  return (
    <TextField
      {...props}
      error={fault !== undefined}
      helperText={fault ? faultText(fault) : hint}
      onChange={e => onText(e.target.value)}
      // Many fields are narrower than their labels are in full size.
      slotProps={{ inputLabel: { shrink: true } }}
    />
  );
}

/** One of a list of words; each word shows as itself unless it has a label. */
export function Choice<T extends string>({
  label,
  value,
  of,
  words,
  onPick,
  fault,
  empty,
  disabled = false,
}: {
  label: string;
  value: T | '';
  of: readonly T[];
  words?: Partial<Record<T, string>>;
  onPick: (value: T) => void;
  fault?: Fault | undefined;
  /** Label of "none of them", when that may be. */
  empty?: string;
  disabled?: boolean;
}) {
  return (
    <TextField
      select
      label={label}
      value={value}
      disabled={disabled}
      error={fault !== undefined}
      helperText={fault ? faultText(fault) : undefined}
      onChange={e => onPick(e.target.value as T)}
      slotProps={{ inputLabel: { shrink: true } }}
    >
      {empty !== undefined && <MenuItem value="">{empty}</MenuItem>}
      {of.map(v => (
        <MenuItem key={v} value={v}>
          {words?.[v] ?? v}
        </MenuItem>
      ))}
    </TextField>
  );
}
