import { MenuItem, TextField, type TextFieldProps, ToggleButton, ToggleButtonGroup } from '@mui/material';
import type { ReactNode } from 'react';

export const shrink = { inputLabel: { shrink: true } };

/** What can be chosen: a value shows as itself unless it has words. */
export type Choices<T extends string> = readonly (T | readonly [value: T, words: string])[];

/** Where nothing chosen has words of its own, they stand in the field. */
export const hasNone = (of: Choices<string>) => of.some(o => typeof o !== 'string' && o[0] === '');

export const options = <T extends string>(of: Choices<T>) =>
  of.map(o => {
    const [value, words] = typeof o === 'string' ? [o, o] : o;
    return (
      <MenuItem key={value} value={value}>
        {words}
      </MenuItem>
    );
  });

/** A choice outside of a form: what is chosen takes effect at once. */
export function Switcher<T extends string>({
  of,
  onPick,
  ...props
}: Omit<TextFieldProps, 'onChange' | 'select' | 'value' | 'slotProps'> & {
  value: T | '';
  of: Choices<T>;
  onPick: (value: T) => void;
}) {
  return (
    <TextField
      select
      {...props}
      onChange={e => onPick(e.target.value as T)}
      slotProps={{ ...(hasNone(of) && { ...shrink, select: { displayEmpty: true } }) }}
    >
      {options(of)}
    </TextField>
  );
}

/** A text outside of a form, which takes effect as it is typed. */
export function FreeText({
  value,
  onText,
  fault,
  hint,
  ...props
}: Omit<TextFieldProps, 'onChange' | 'value' | 'error' | 'helperText'> & {
  value: string;
  onText: (text: string) => void;
  fault?: string | null | undefined;
  hint?: ReactNode;
}) {
  return (
    <TextField
      {...props}
      value={value}
      onChange={e => onText(e.target.value)}
      error={Boolean(fault)}
      helperText={fault || hint}
    />
  );
}

/** A whole number outside of a form, which takes effect as it is typed; what is none counts as the least. */
export function Count({
  value,
  min,
  max,
  onCount,
  ...props
}: Omit<TextFieldProps, 'onChange' | 'value' | 'type'> & {
  value: number;
  min: number;
  max: number;
  onCount: (count: number) => void;
}) {
  return (
    <TextField
      {...props}
      type="number"
      value={value}
      onChange={e => onCount(Math.max(min, Math.min(max, Math.floor(Number(e.target.value) || min))))}
    />
  );
}

/** One of a few, side by side as buttons. */
export function Toggle<T extends string>({
  label,
  value,
  of,
  onPick,
  small = false,
}: {
  label: string;
  value: T;
  of: Choices<T>;
  onPick: (value: T) => void;
  small?: boolean;
}) {
  return (
    <ToggleButtonGroup
      exclusive
      size="small"
      value={value}
      onChange={(_, picked: T | null) => picked && onPick(picked)}
      aria-label={label}
      sx={{ flexWrap: 'wrap' }}
    >
      {of.map(o => {
        const [v, words] = typeof o === 'string' ? [o, o] : o;
        return (
          <ToggleButton
            key={v}
            value={v}
            sx={{ textTransform: 'none', ...(small ? { px: 1, py: 0.25 } : { px: 1.75, minHeight: 44 }) }}
          >
            {words}
          </ToggleButton>
        );
      })}
    </ToggleButtonGroup>
  );
}

/** Words to look for, outside of a form. */
export const Search = (props: Parameters<typeof FreeText>[0]) => <FreeText type="search" {...props} />;
