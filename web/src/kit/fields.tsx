import { type AmountHint, UNITS, type UnitId, readAmount } from '@cocotte/core/measure';
import {
  Autocomplete,
  Box,
  Button,
  Checkbox,
  FormControlLabel,
  InputAdornment,
  MenuItem,
  Radio,
  RadioGroup,
  TextField,
  type TextFieldProps,
  ToggleButton,
  ToggleButtonGroup,
} from '@mui/material';
import { type ReactNode, useEffect } from 'react';
import { useController } from 'react-hook-form';
import { useHere } from '../shell/session.tsx';
import type { At } from './form.ts';
import { Fractions, Soft } from './parts.tsx';
import { faultText } from './readers.ts';

/** The field's value, its fault, and that it is on screen. */
export function useShown({ control, name, shown }: At) {
  const { field, fieldState } = useController({ control, name });
  useEffect(() => {
    shown.set(name, (shown.get(name) ?? 0) + 1);
    return () => {
      const left = (shown.get(name) ?? 1) - 1;
      if (left > 0) shown.set(name, left);
      else shown.delete(name);
    };
  }, [name, shown]);
  return { field, fault: fieldState.error?.message };
}

type Common = Omit<TextFieldProps, 'name' | 'value' | 'onChange' | 'error' | 'helperText' | 'select'> & {
  at: At;
  label: string;
  /** Shown beneath the field while it has no fault. */
  hint?: ReactNode;
};

/** Text. The fault, or the hint, stands beneath it. */
export function Text({ at, hint, label, hiddenLabel = false, slotProps, ...props }: Common) {
  const { field, fault } = useShown(at);
  return (
    <TextField
      {...props}
      {...(hiddenLabel ? { hiddenLabel } : { label })}
      slotProps={{
        ...slotProps,
        htmlInput: { ...(hiddenLabel && { 'aria-label': label }), ...slotProps?.htmlInput },
      }}
      name={at.name}
      value={field.value ?? ''}
      onChange={field.onChange}
      onBlur={field.onBlur}
      inputRef={field.ref}
      error={fault !== undefined}
      helperText={fault ?? hint}
    />
  );
}

/** A figure; its unit stands in the field and is read aloud with its name. */
export function Figure({ unit, ...props }: Common & { unit?: string | undefined }) {
  return (
    <Text
      inputMode="decimal"
      {...props}
      slotProps={{
        ...(unit && {
          input: { endAdornment: <InputAdornment position="end">{unit}</InputAdornment> },
          inputLabel: { shrink: true },
        }),
        htmlInput: { inputMode: 'decimal', ...(unit && { 'aria-label': `${props.label}, ${unit}` }) },
      }}
    />
  );
}

/** Money, in the kitchen's currency. */
export function Money(props: Common) {
  const { kitchen } = useHere();
  return <Figure unit={kitchen.currency} {...props} />;
}

/** A temperature, in the kitchen's degrees. */
export function Temperature(props: Common) {
  const { kitchen } = useHere();
  return <Figure unit={`°${kitchen.temperature}`} {...props} />;
}

const shrink = { inputLabel: { shrink: true } };

/** A day of the calendar. */
export const Day = (props: Common) => <Text type="date" slotProps={shrink} {...props} />;

/** A day and a time on the kitchen's wall clock, to the second. */
export const Time = (props: Common) => (
  <Text type="datetime-local" slotProps={{ ...shrink, htmlInput: { step: 1 } }} {...props} />
);

type Choices<T extends string> = readonly (T | readonly [value: T, words: string])[];

/** Where nothing chosen has words of its own, they stand in the field. */
const hasNone = (of: Choices<string>) => of.some(o => typeof o !== 'string' && o[0] === '');

const options = <T extends string>(of: Choices<T>) =>
  of.map(o => {
    const [value, words] = typeof o === 'string' ? [o, o] : o;
    return (
      <MenuItem key={value} value={value}>
        {words}
      </MenuItem>
    );
  });

/** One of a list; a value shows as itself unless it has words. */
export function Pick<T extends string>({
  at,
  of,
  hint,
  onPick,
  usual = '',
  label,
  hiddenLabel = false,
  ...props
}: Omit<Common, 'slotProps'> & {
  of: Choices<T>;
  /** What is taken while nothing was chosen. */
  usual?: T | '';
  /** What else follows from the choice. */
  onPick?: (value: T) => void;
}) {
  const { field, fault } = useShown(at);
  const none = hasNone(of);
  return (
    <TextField
      select
      {...props}
      {...(hiddenLabel ? { hiddenLabel } : { label })}
      name={at.name}
      value={field.value || usual}
      onChange={e => {
        field.onChange(e.target.value);
        onPick?.(e.target.value as T);
      }}
      onBlur={field.onBlur}
      inputRef={field.ref}
      error={fault !== undefined}
      helperText={fault ?? hint}
      slotProps={{
        ...(none && shrink),
        select: {
          displayEmpty: none,
          ...(hiddenLabel && { SelectDisplayProps: { 'aria-label': label } }),
        },
      }}
    >
      {options(of)}
    </TextField>
  );
}

/** One of a few, all in sight; what may not be chosen here stays in sight too. */
export function OneOf<T extends string>({
  at,
  label,
  hiddenLabel = false,
  of,
  closed = [],
  row = false,
}: {
  at: At;
  label: string;
  hiddenLabel?: boolean;
  of: Choices<T>;
  closed?: readonly T[];
  row?: boolean;
}) {
  const { field } = useShown(at);
  return (
    <>
      {!hiddenLabel && <Soft>{label}</Soft>}
      <RadioGroup row={row} aria-label={label} value={field.value} onChange={field.onChange}>
        {of.map(o => {
          const [value, words] = typeof o === 'string' ? [o, o] : o;
          return (
            <FormControlLabel
              key={value}
              value={value}
              control={<Radio />}
              label={words}
              disabled={closed.includes(value)}
              sx={{ minHeight: 46 }}
            />
          );
        })}
      </RadioGroup>
    </>
  );
}

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

/** Yes or no. */
export function Tick({ at, label, ...props }: { at: At; label: string; sx?: object }) {
  const { field } = useShown(at);
  return (
    <FormControlLabel
      {...props}
      control={
        <Checkbox
          name={at.name}
          checked={Boolean(field.value)}
          onChange={(_, on) => field.onChange(on)}
          slotProps={{ input: { ref: field.ref } }}
        />
      }
      label={label}
    />
  );
}

/** A text for which the kitchen has suggestions; anything else may be typed as well. */
export function Suggested<T extends { id: string }>({
  at,
  of,
  nameOf,
  among,
  picked = null,
  detail,
  onPick,
  label,
  hint,
}: {
  at: At;
  of: readonly T[];
  nameOf: (one: T) => string;
  /** Which are offered for what is typed. */
  among?: (all: readonly T[], typed: string) => readonly T[];
  /** The one that stands there now. */
  picked?: T | null;
  /** Said beside the name of each. */
  detail?: (one: T) => ReactNode;
  /** One was chosen, or typed over. */
  onPick: (one: T | null) => void;
  label: string;
  hint?: ReactNode;
}) {
  const { field, fault } = useShown(at);
  return (
    <Autocomplete<T, false, false, true>
      freeSolo
      options={of}
      getOptionLabel={o => (typeof o === 'string' ? o : nameOf(o))}
      {...(among && {
        filterOptions: (all: T[], { inputValue }: { inputValue: string }) => [...among(all, inputValue)],
      })}
      value={picked ?? String(field.value ?? '')}
      isOptionEqualToValue={(o, v) => typeof o !== 'string' && typeof v !== 'string' && o.id === v.id}
      inputValue={String(field.value ?? '')}
      onInputChange={(_, text, reason) => {
        if (reason === 'reset') return;
        field.onChange(text);
        if (picked) onPick(null);
      }}
      onChange={(_, o) => {
        if (o === null || typeof o === 'string') return;
        field.onChange(nameOf(o));
        onPick(o);
      }}
      renderOption={(props, o) => (
        <li {...props} key={o.id}>
          <span>
            {nameOf(o)} {detail && <Soft>{detail(o)}</Soft>}
          </span>
        </li>
      )}
      renderInput={params => (
        <TextField
          {...params}
          label={label}
          inputRef={field.ref}
          onBlur={field.onBlur}
          error={fault !== undefined}
          helperText={fault ?? (hint || undefined)}
        />
      )}
    />
  );
}

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
