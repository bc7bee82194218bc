import { addItem } from '@cocotte/contract';
import { type Fault, readNumber } from '@cocotte/core/measure';
import { JAR_SIZES, type JarSizeId } from '@cocotte/core/recipes';
import type { Item, ItemKind } from '@cocotte/core/stores';
import {
  Box,
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  MenuItem,
  TextField,
} from '@mui/material';
import { useQueryClient } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { v7 } from 'uuid';
import { call, faultsOf } from '../shell/call.ts';
import { anyWords, useEntry, words } from '../shell/entry.ts';
import { Faults } from '../shell/parts.tsx';
import { useHere } from '../shell/session.tsx';

const UNITS: Record<Item['unit'], string> = { g: 'grams', mL: 'millilitres', each: 'pieces' };

/** Adds something the kitchen keeps. */
export function ItemDialog({ onClose }: { onClose: () => void }) {
  const { kitchen } = useHere();
  const client = useQueryClient();
  const [id] = useState(() => v7());
  const [kind, setKind] = useState<ItemKind>('ingredient');
  const [unit, setUnit] = useState<Item['unit']>('g');
  const [jarSize, setJarSize] = useState<JarSizeId>('pint');
  const [faults, setFaults] = useState<Fault[]>([]);
  const form = useEntry({
    name: words('The name'),
    labelName: anyWords,
    subIngredients: anyWords,
    allergens: anyWords,
    unit_g: t =>
      kind === 'ingredient' && unit !== 'g'
        ? readNumber(t, kitchen.locale, {
            name: 'The weight of one',
            min: 0,
            above: true,
            max: 20_000,
            unit: ' g',
          })
        : { ok: true as const, value: 1 },
  });
  const save = async (e: FormEvent) => {
    e.preventDefault();
    const v = form.read();
    if (!v) return;
    const ingredient = kind === 'ingredient';
    const body: Item = {
      id,
      kind,
      name: v.name,
      unit: ingredient ? unit : 'each',
      unit_g: ingredient ? v.unit_g : null,
      jarSize: kind === 'jar' ? jarSize : null,
      labelName: ingredient ? v.labelName || v.name.toLowerCase() : '',
      subIngredients: v.subIngredients,
      allergens: v.allergens
        .split(',')
        .map(a => a.trim())
        .filter(Boolean),
    };
    try {
      await call(addItem, { body });
      await client.invalidateQueries({ queryKey: ['items'] });
      onClose();
    } catch (error) {
      setFaults(form.place(faultsOf(error)));
    }
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="item-title">
      <form noValidate onSubmit={e => void save(e)}>
        <DialogTitle id="item-title" variant="h2">
          Add an item
        </DialogTitle>
        <DialogContent>
          <Box
            sx={{
              display: 'grid',
              gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr' },
              gap: 2,
              mt: 1,
              alignItems: 'start',
            }}
          >
            <TextField select label="Kind" value={kind} onChange={e => setKind(e.target.value as ItemKind)}>
              <MenuItem value="ingredient">ingredient</MenuItem>
              <MenuItem value="jar">jar</MenuItem>
              <MenuItem value="lid">lid</MenuItem>
            </TextField>
            <TextField label="Name" {...form.field('name')} />
            {kind === 'jar' && (
              <TextField
                select
                label="Jar size"
                value={jarSize}
                onChange={e => setJarSize(e.target.value as JarSizeId)}
              >
                {JAR_SIZES.map(s => (
                  <MenuItem key={s.id} value={s.id}>
                    {s.name}
                  </MenuItem>
                ))}
              </TextField>
            )}
            {kind === 'ingredient' && (
              <>
                <TextField
                  select
                  label="Counted in"
                  value={unit}
                  onChange={e => setUnit(e.target.value as Item['unit'])}
                >
                  {Object.entries(UNITS).map(([u, w]) => (
                    <MenuItem key={u} value={u}>
                      {w}
                    </MenuItem>
                  ))}
                </TextField>
                {unit !== 'g' && (
                  <TextField
                    label={unit === 'mL' ? 'Grams in one mL' : 'Grams of one piece'}
                    inputMode="decimal"
                    {...form.field('unit_g')}
                  />
                )}
                <TextField label="Name on the label" {...form.field('labelName')} />
                <TextField label="Its own ingredients, if bought mixed" {...form.field('subIngredients')} />
                <TextField label="Allergens, with commas" {...form.field('allergens')} />
              </>
            )}
          </Box>
          <Faults faults={faults} />
        </DialogContent>
        <DialogActions sx={{ p: 2 }}>
          <Button variant="outlined" onClick={onClose}>
            Not now
          </Button>
          <Button type="submit" variant="contained">
            Add the item
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}
