import { Autocomplete, TextField } from '@mui/material';
import { useDeferredValue, useState } from 'react';
import type { At } from '../kit/form.ts';
import { useShown } from '../kit/fields.tsx';
import { NO_FILTER, useRecipe, useRecipes } from './api.ts';

/** Picks a recipe of the book by typing part of its name; the field keeps its id, or nothing. */
export function RecipePick({
  at,
  label,
  leaveOut = '',
  rootsOnly = false,
}: {
  at: At;
  label: string;
  leaveOut?: string;
  /** Only recipes that are no variants themselves. */
  rootsOnly?: boolean;
}) {
  const { field, fault } = useShown(at);
  const [typed, setTyped] = useState('');
  const { data } = useRecipes({ ...NO_FILTER, search: useDeferredValue(typed.trim()) });
  const { data: picked } = useRecipe(field.value || undefined);
  const options = (data?.pages.flatMap(p => p.recipes) ?? [])
    .filter(r => r.id !== leaveOut && (!rootsOnly || r.variantOf === null))
    .map(r => ({ id: r.id, name: r.name }));
  return (
    <Autocomplete
      options={options}
      filterOptions={all => all}
      getOptionLabel={o => o.name}
      getOptionKey={o => o.id}
      isOptionEqualToValue={(a, b) => a.id === b.id}
      value={field.value && picked ? { id: String(field.value), name: picked.recipe.name } : null}
      onChange={(_, o) => field.onChange(o?.id ?? '')}
      onInputChange={(_, text, reason) => reason === 'input' && setTyped(text)}
      renderInput={params => (
        <TextField
          {...params}
          label={label}
          inputRef={field.ref}
          slotProps={{ ...params.slotProps, inputLabel: { ...params.slotProps.inputLabel, shrink: true } }}
          error={fault !== undefined}
          helperText={fault}
        />
      )}
    />
  );
}
