import { UNITS, fieldText, readAmount, byName } from '@cocotte/core/measure';
import type { Kitchen } from '@cocotte/core/kitchen';
import { type Ingredient, LINE_ROLES, type LineRole, formsOf } from '@cocotte/core/ingredients';
import { PLACES, type Place, factsOf } from '@cocotte/core/recipes';
import {
  Autocomplete,
  Box,
  Button,
  Checkbox,
  FormControlLabel,
  TextField,
  ToggleButton,
  ToggleButtonGroup,
} from '@mui/material';
import { memo, useState } from 'react';
import { faultText } from '../../shell/entry.ts';
import { Soft } from '../../shell/parts.tsx';
import type { Library } from '../library.ts';
import type { DraftLine, DraftStep } from './draft.ts';
import { type At, Choice, Field, columns } from './fields.tsx';
import { AmountField } from './AmountField.tsx';

const WHERE: Record<Place, string> = {
  pot: 'the pot',
  brine: 'the brine',
  soak: 'a soak, partly poured away',
  infused: 'infused and lifted out',
  dip: 'a dip, never in the food',
  strained: 'strained off',
  'each jar': 'each jar (in one pint)',
};

type Put = (id: string, key: string, part: Partial<DraftLine>) => void;

/** One ingredient of the draft: what it is and how much in one row, its facts underneath when asked for. */
export const LineFields = memo(function LineFields({
  line,
  index,
  at,
  put,
  remove,
  library,
  kitchen,
  steps,
  lines,
}: {
  line: DraftLine;
  index: number;
  at: At;
  put: Put;
  remove: (id: string) => void;
  library: Library;
  kitchen: Kitchen;
  steps: DraftStep[];
  lines: { id: string; name: string }[];
}) {
  const path = `lines[${index}]`;
  const [open, setOpen] = useState(false);
  const set = (key: keyof DraftLine) => (text: string) => put(line.id, key, { [key]: text });
  const text = (key: keyof DraftLine & string, label: string, where: string = key) => (
    <Field label={label} value={line[key]} onText={set(key)} fault={at(`${path}.${where}`)} />
  );
  const choose = (ingredient: Ingredient) => {
    const read = readAmount(line.amount, kitchen.locale, ingredient);
    const amount = read.ok
      ? read.value
      : { text: '1', unit: 'each' as const, value: '1', upTo: null, toTaste: false };
    put(line.id, '', {
      name: ingredient.name,
      ...textOfFacts(factsOf(ingredient, amount, `${ingredient.name} ${line.preparation}`), kitchen.locale),
    });
  };
  const ingredient = line.ingredientId === null ? undefined : library.byId.get(line.ingredientId);
  const hidden = [
    'density_gPerMl',
    'each_g',
    'bushel_g',
    'trimYield',
    'labelName',
    'allergens',
    'minStrength_pct',
    'keptShare',
    'ratio',
    'solids_pct',
    'addedSugar_pct',
    'freshFactor',
  ].some(k => at(`${path}.${k}`));
  return (
    <>
      <Box sx={columns('2.2fr 1.1fr 1.5fr auto')}>
        <Autocomplete
          freeSolo
          options={library.all}
          getOptionLabel={o => (typeof o === 'string' ? o : o.name)}
          filterOptions={(options, { inputValue }) => matching(options, inputValue, library)}
          inputValue={line.name}
          onInputChange={(_, name, reason) => {
            if (reason !== 'reset') put(line.id, 'name', { name, ingredientId: null });
          }}
          onChange={(_, picked) => {
            if (picked && typeof picked !== 'string') choose(picked);
          }}
          value={ingredient ?? line.name}
          isOptionEqualToValue={(o, v) => typeof v !== 'string' && typeof o !== 'string' && o.id === v.id}
          renderOption={(props, o) => (
            <li {...props} key={o.id}>
              <span>
                {o.name} <Soft>{o.role}</Soft>
              </span>
            </li>
          )}
          renderInput={params => (
            <TextField
              {...params}
              label="Ingredient"
              error={at(`${path}.name`) !== undefined}
              helperText={helper(at(`${path}.name`), ingredient, line.name)}
            />
          )}
        />
        <AmountField line={line} at={at} path={path} put={put} kitchen={kitchen} ingredient={ingredient} />
        {text('preparation', 'Prepared how')}
        <Button
          variant="outlined"
          onClick={() => remove(line.id)}
          aria-label={`Remove ingredient ${index + 1}`}
        >
          Remove
        </Button>
      </Box>
      <Box sx={{ display: 'flex', gap: 1.5, mt: 1.25, flexWrap: 'wrap', alignItems: 'flex-start' }}>
        <Box sx={{ width: 185 }}>
          <Choice<LineRole> label="Role" value={line.role} of={LINE_ROLES} onPick={set('role')} />
        </Box>
        <Box sx={{ width: 180 }}>
          <Choice<Place>
            label="Goes into"
            value={line.where}
            of={PLACES}
            words={WHERE}
            onPick={where => put(line.id, '', { where, kept: usualKept(where, line.kept) })}
          />
        </Box>
        <ToggleButtonGroup
          exclusive
          size="small"
          value={line.basis}
          onChange={(_, basis: DraftLine['basis'] | null) => basis && put(line.id, '', { basis })}
          aria-label={`The amount of ingredient ${index + 1} means`}
        >
          <ToggleButton value="prepared" sx={{ textTransform: 'none', minHeight: 40, px: 1.5 }}>
            prepared
          </ToggleButton>
          <ToggleButton value="as bought" sx={{ textTransform: 'none', minHeight: 40, px: 1.5 }}>
            as bought
          </ToggleButton>
        </ToggleButtonGroup>
        {needsKept(line.where) && (
          <Box sx={{ width: 150 }}>{text('kept', 'Stays in the food, %', 'keptShare')}</Box>
        )}
        {line.role === 'acid' && (
          <Box sx={{ width: 125 }}>{text('strength', 'At least, % acid', 'minStrength_pct')}</Box>
        )}
        <Button
          size="small"
          variant="outlined"
          onClick={() => setOpen(o => !o)}
          aria-expanded={open || hidden}
          sx={{ minHeight: 40 }}
        >
          {open ? 'Less' : 'Facts'}
        </Button>
      </Box>
      {(open || hidden) && (
        <Box sx={{ mt: 1.5, borderLeft: 3, borderColor: 'rule.main', pl: 1.5 }}>
          <Box sx={columns('1fr 1fr 1fr 1fr')}>
            {ingredient && formsOf(ingredient).length > 1 && (
              <Choice
                label="Cut or packed"
                value={line.form}
                of={formsOf(ingredient)}
                onPick={form => {
                  const grams = ingredient.cup_g[form];
                  put(line.id, '', {
                    form,
                    ...(grams ? { density: fieldText(grams / CUP_ML, kitchen.locale) } : {}),
                  });
                }}
              />
            )}
            {text('density', 'Grams in a mL', 'density_gPerMl')}
            {text('each', 'Grams of one', 'each_g')}
            {text('bushel', 'Grams of a bushel', 'bushel_g')}
            {ingredient && waysToTrim(ingredient).length > 1 && (
              <Choice
                label="Prepared by"
                value={
                  waysToTrim(ingredient).find(w => fieldText(w.left * 100, kitchen.locale, 2) === line.trim)
                    ?.by ?? ''
                }
                of={waysToTrim(ingredient).map(w => w.by)}
                empty="as entered"
                onPick={by => {
                  const way = waysToTrim(ingredient).find(w => w.by === by);
                  if (way) put(line.id, '', { trim: fieldText(way.left * 100, kitchen.locale, 2) });
                }}
              />
            )}
            {text('trim', 'Left of what is bought, %', 'trimYield')}
            {text('solids', 'Soluble solids, %', 'solids_pct')}
            {text('addedSugar', 'Sugar added to it, %', 'addedSugar_pct')}
            {text('freshFactor', 'Stands for, times fresh', 'freshFactor')}
            {line.role === 'fruit' && (
              <Choice<'I' | 'II'>
                label="Standard-of-identity group"
                value={line.group}
                of={['I', 'II']}
                empty="none"
                onPick={set('group')}
              />
            )}
            {text('labelName', 'Name on the label')}
            {text('subIngredients', 'Its own ingredients')}
            {text('allergens', 'Allergens')}
            {text('weightSource', 'Where the weights come from')}
          </Box>
          {line.role === 'fruit' && (
            <FormControlLabel
              sx={{ mt: 0.5 }}
              control={
                <Checkbox
                  checked={line.safelyAcid}
                  onChange={(_, on) => put(line.id, '', { safelyAcid: on })}
                />
              }
              label="Safely acid by itself (not fig, Asian pear, white peach, elderberry, ripe mango, tomato and the like)"
            />
          )}
          <Box sx={{ ...columns('1.2fr 1.6fr 1fr'), mt: 1 }}>
            <Choice<'step' | 'line'>
              label="So much for each"
              value={line.ratioOf}
              of={['step', 'line']}
              words={{ step: 'measure taken in a step', line: 'amount of another line' }}
              empty="not a ratio"
              onPick={ratioOf =>
                put(line.id, '', {
                  ratioOf,
                  ratioId: '',
                  ...(ratioOf === ('' as never) ? { ratioPer: '' } : {}),
                })
              }
              fault={line.ratioOf === '' ? at(`${path}.ratio`) : undefined}
            />
            {line.ratioOf === 'step' && (
              <Choice
                label="Measured in"
                value={line.ratioId}
                of={steps.filter(s => s.kind === 'measure').map(s => s.id)}
                words={byName(steps.map(s => [s.id, s.text || 'a measuring step']))}
                onPick={set('ratioId')}
                fault={at(`${path}.ratio`)}
              />
            )}
            {line.ratioOf === 'line' && (
              <Choice
                label="Of"
                value={line.ratioId}
                of={lines.filter(l => l.id !== line.id).map(l => l.id)}
                words={byName(lines.map(l => [l.id, l.name || 'an ingredient']))}
                onPick={set('ratioId')}
                fault={at(`${path}.ratio`)}
              />
            )}
            {line.ratioOf !== '' && (
              <Field
                label="For each"
                placeholder="such as 1 L"
                value={line.ratioPer}
                onText={set('ratioPer')}
              />
            )}
          </Box>
        </Box>
      )}
    </>
  );
});

/** What each way of preparing leaves of what was bought; thawed fruit is drained. */
function waysToTrim(ingredient: Ingredient): { by: string; left: number }[] {
  const ways = Object.entries(ingredient.trim).map(([by, left]) => ({ by, left }));
  return ingredient.thawedYield === null
    ? ways
    : [...ways, { by: 'thawed, drained', left: ingredient.thawedYield }];
}

const CUP_ML = UNITS.cup.factor.valueOf();

function helper(fault: ReturnType<At>, ingredient: Ingredient | undefined, name: string) {
  if (fault) return faultText(fault);
  if (ingredient) return undefined;
  return name.trim() === '' ? undefined : 'Not from the library: enter its role and facts.';
}

/** Options by what is typed: names and aliases that hold it, the ones that begin with it first. */
function matching(options: readonly Ingredient[], typed: string, library: Library): Ingredient[] {
  const low = typed.trim().toLowerCase();
  if (low === '') return options.slice(0, 40);
  const found = options.filter(
    o => o.name.toLowerCase().includes(low) || o.aliases.some(a => a.includes(low)),
  );
  const best = library.index.find(low)?.ingredient;
  const order = (o: Ingredient) => (o === best ? 0 : o.name.toLowerCase().startsWith(low) ? 1 : 2);
  return [...new Set([...(best ? [best] : []), ...found])].sort((a, b) => order(a) - order(b)).slice(0, 40);
}

function textOfFacts(f: ReturnType<typeof factsOf>, locale: string): Partial<DraftLine> {
  const textOf = (value: number | null, places = 4) =>
    value === null ? '' : fieldText(value, locale, places);
  return {
    ingredientId: f.ingredientId,
    role: f.role,
    form: f.form,
    density: textOf(f.density_gPerMl),
    each: textOf(f.each_g),
    bushel: textOf(f.bushel_g, 0),
    weightSource: f.weightSource,
    trim: textOf(f.trimYield * 100, 2),
    solids: textOf(f.solids_pct),
    freshFactor: textOf(f.freshFactor),
    group: f.group ?? '',
    labelName: f.labelName,
    subIngredients: f.subIngredients,
    allergens: f.allergens.join(', '),
    strength: textOf(f.minStrength_pct),
    safelyAcid: f.safelyAcid,
  };
}

const needsKept = (where: Place) => where === 'soak' || where === 'infused' || where === 'strained';
function usualKept(where: Place, now: string): string {
  if (where === 'dip') return '0';
  if (where === 'infused') return '5';
  if (where === 'soak') return '20';
  return where === 'strained'
    ? '65'
    : now === '0' || now === '5' || now === '20' || now === '65'
      ? '100'
      : now;
}
