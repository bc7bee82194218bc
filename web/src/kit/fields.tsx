import {
  Autocomplete,
  Checkbox,
  FormControlLabel,
  FormHelperText,
  InputAdornment,
  Radio,
  RadioGroup,
  TextField,
  type TextFieldProps,
} from '@mui/material';
import { clockOf, dayText, type Habits, instantOf, instantText, plainLocale } from '@cocotte/core/measure';
import { type ReactNode, useEffect, useId } from 'react';
import { useController } from 'react-hook-form';
import { useHere } from '../shell/session.tsx';
import { type Choices, hasNone, options, shrink } from './controls.tsx';
import type { At } from './form.ts';
import { Soft } from './parts.tsx';

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

/** What every field of the kit takes. */
export type Common = Omit<
  TextFieldProps,
  'name' | 'value' | 'onChange' | 'error' | 'helperText' | 'select'
> & {
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

/** A day of the calendar. */
export function Day(props: Common) {
  const read = useReadBack(props.at, (day, kitchen) => dayText(day, kitchen));
  return <Text type="date" slotProps={shrink} {...props} hint={read ?? props.hint} />;
}

/** A day and a time on the kitchen's wall clock, to the second. */
export function Time(props: Common) {
  const read = useReadBack(props.at, (typed, kitchen) =>
    instantText(instantOf(typed, kitchen.zone), kitchen, true),
  );
  return (
    <Text
      type="datetime-local"
      slotProps={{ ...shrink, htmlInput: { step: 1 } }}
      {...props}
      hint={read ?? props.hint}
    />
  );
}

/**
 * A day or a time as the kitchen reads it, where the browser shows it in another way: its own fields follow the machine
 * (11/12 is a day in November or in December), and a kitchen has one clock on all of its devices.
 */
function useReadBack(at: At, words: (typed: string, habits: Habits) => string): string | null {
  const { kitchen } = useHere();
  const { field } = useController({ control: at.control, name: at.name });
  const typed = String(field.value ?? '');
  const alike =
    plainLocale(kitchen.locale) === navigator.language &&
    clockOf(kitchen.locale) === clockOf(navigator.language);
  return alike || Number.isNaN(Date.parse(typed)) ? null : words(typed, kitchen);
}

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

/** Yes or no. */
export function Tick({ at, label, ...props }: { at: At; label: string; sx?: object }) {
  const { field, fault } = useShown(at);
  const id = useId();
  return (
    <>
      <FormControlLabel
        {...props}
        control={
          <Checkbox
            name={at.name}
            checked={Boolean(field.value)}
            onChange={(_, on) => field.onChange(on)}
            slotProps={{ input: { ref: field.ref, ...(fault && { 'aria-describedby': id }) } }}
          />
        }
        label={label}
      />
      {fault && (
        <FormHelperText id={id} error>
          {fault}
        </FormHelperText>
      )}
    </>
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
