import type { Fault } from '@cocotte/core/measure';
import { Autocomplete, TextField } from '@mui/material';
import { useDeferredValue, useState } from 'react';
import { faultText } from '../shell/entry.ts';
import { NO_FILTER, useRecipe, useRecipes } from './api.ts';

/** Picks a recipe of the book by typing part of its name. */
export function RecipePick({
  label,
  value,
  onPick,
  leaveOut = '',
  rootsOnly = false,
  fault,
}: {
  label: string;
  /** Id of the recipe picked, or empty. */
  value: string;
  onPick: (recipeId: string) => void;
  leaveOut?: string;
  /** Only recipes that are no variants themselves. */
  rootsOnly?: boolean;
  fault?: Fault | undefined;
}) {
  const [typed, setTyped] = useState('');
  const { data } = useRecipes({ ...NO_FILTER, search: useDeferredValue(typed.trim()) });
  const { data: picked } = useRecipe(value || undefined);
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
      value={value && picked ? { id: value, name: picked.recipe.name } : null}
      onChange={(_, o) => onPick(o?.id ?? '')}
      onInputChange={(_, text, reason) => reason === 'input' && setTyped(text)}
      renderInput={params => (
        <TextField
          {...params}
          label={label}
          slotProps={{ ...params.slotProps, inputLabel: { ...params.slotProps.inputLabel, shrink: true } }}
          error={fault !== undefined}
          helperText={fault ? faultText(fault) : undefined}
        />
      )}
    />
  );
}
