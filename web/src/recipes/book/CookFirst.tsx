import { addRecipe } from '@cocotte/contract';
import type { Fault } from '@cocotte/core/measure';
import { JAR_SIZES, type JarSizeId } from '@cocotte/core/jars';
import { type Recipe, emptyRecipe } from '@cocotte/core/recipes';
import {
  Box,
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  MenuItem,
  TextField,
  Typography,
} from '@mui/material';
import { useQueryClient } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { useNavigate } from 'react-router';
import { v7 } from 'uuid';
import { call, faultsOf } from '../../shell/call.ts';
import { useEntry, words } from '../../shell/entry.ts';
import { Faults } from '../../shell/parts.tsx';

/** Names a recipe that is cooked first: a sketch with nothing in it, to start a trial of. */
export function CookFirst({ onClose }: { onClose: () => void }) {
  const navigate = useNavigate();
  const client = useQueryClient();
  const [id] = useState(() => v7());
  const [size, setSize] = useState<JarSizeId>('half-pint');
  const [faults, setFaults] = useState<Fault[]>([]);
  const form = useEntry({ name: words('The name'), code: words('The code') });
  const onSubmit = async (e: FormEvent) => {
    e.preventDefault();
    const v = form.read();
    if (!v) return;
    const recipe: Recipe = {
      ...emptyRecipe(),
      name: v.name,
      code: v.code.toUpperCase(),
      statementOfIdentity: v.name,
      makes: { size, count: 6 },
      jars: [{ size, net: { kind: 'weight', oz: 8 } }],
      sketch: true,
    };
    try {
      await call(addRecipe, { body: { id, recipe } });
      void client.invalidateQueries({ queryKey: ['recipes'] });
      void navigate(`/recipes/${id}`);
    } catch (error) {
      setFaults(form.place(faultsOf(error)));
    }
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="cook-first-title">
      <DialogTitle id="cook-first-title" variant="h2">
        Cook first
      </DialogTitle>
      <Box component="form" noValidate onSubmit={e => void onSubmit(e)}>
        <DialogContent>
          <Typography sx={{ mb: 2, color: 'text.secondary' }}>
            Name what you are about to cook. Weigh each thing as it goes in; the batch becomes the recipe.
          </Typography>
          <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', sm: '2fr 110px 1fr' }, gap: 1.5 }}>
            <TextField label="Name" {...form.field('name')} autoFocus />
            <TextField label="Code" {...form.field('code')} slotProps={{ htmlInput: { maxLength: 3 } }} />
            <TextField select label="Jar" value={size} onChange={e => setSize(e.target.value as JarSizeId)}>
              {JAR_SIZES.map(s => (
                <MenuItem key={s.id} value={s.id}>
                  {s.name}
                </MenuItem>
              ))}
            </TextField>
          </Box>
          <Faults faults={faults} />
        </DialogContent>
        <DialogActions sx={{ p: 2 }}>
          <Button variant="outlined" onClick={onClose}>
            Not now
          </Button>
          <Button type="submit" variant="contained">
            Open it
          </Button>
        </DialogActions>
      </Box>
    </Dialog>
  );
}
