import { startBatch } from '@cocotte/contract';
import { PURPOSES, type Purpose } from '@cocotte/core/batches';
import type { Fault } from '@cocotte/core/measure';
import { type JarsWanted, type Recipe, type RouteToSale, jarCountText } from '@cocotte/core/recipes';
import {
  Box,
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  FormControlLabel,
  Radio,
  RadioGroup,
  Typography,
} from '@mui/material';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { v7 } from 'uuid';
import { useWhen } from '../batches/when.ts';
import { WhenFields } from '../batches/WhenFields.tsx';
import { makeStamp } from '../outbox/index.ts';
import { call, faultsOf } from '../shell/call.ts';
import { Faults } from '../shell/parts.tsx';
import { useHere } from '../shell/session.tsx';

const WORDS: Record<Purpose, string> = {
  sale: 'For sale',
  home: 'For home',
  gift: 'As a gift',
  trial: 'A trial: tasted and compared, never released',
};

/** Starts a batch for a purpose. The purpose stays: a jar never moves from home or trial to sale. */
export function StartDialog({
  recipe,
  recipeId,
  version,
  factor,
  jars,
  route,
  onClose,
}: {
  recipe: Recipe;
  recipeId: string;
  version: number;
  factor: string;
  jars: JarsWanted[];
  route: RouteToSale;
  onClose: () => void;
}) {
  const { person, kitchen } = useHere();
  const [purpose, setPurpose] = useState<Purpose>(route.open ? 'sale' : 'trial');
  const [faults, setFaults] = useState<Fault[]>([]);
  const [busy, setBusy] = useState(false);
  const when = useWhen(kitchen);
  const [batchId] = useState(() => v7());
  const client = useQueryClient();
  const navigate = useNavigate();
  const start = async () => {
    const at = when.read();
    if (!at.ok) return;
    setBusy(true);
    try {
      const view = await call(startBatch, {
        body: {
          batchId,
          recipeId,
          recipeVersion: version,
          purpose,
          factor,
          jars,
          stamp: makeStamp(person.id, at.typedAt_ms, 0),
        },
      });
      client.setQueryData(['batch', batchId], view);
      void client.invalidateQueries({ queryKey: ['today'] });
      void client.invalidateQueries({ queryKey: ['recipes'] });
      void navigate(`/cook/${batchId}`);
    } catch (error) {
      setFaults(faultsOf(error));
    } finally {
      setBusy(false);
    }
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="start-title">
      <DialogTitle id="start-title" variant="h2">
        Start {jars.map(j => jarCountText(j.count, j.size)).join(' and ')} of {recipe.name}
      </DialogTitle>
      <DialogContent>
        <Typography sx={{ mb: 1, color: 'text.secondary' }}>
          The purpose stays with the jars. They get a lot code at once.
        </Typography>
        <RadioGroup aria-label="Purpose" value={purpose} onChange={(_, v) => setPurpose(v as Purpose)}>
          {PURPOSES.map(p => (
            <FormControlLabel
              key={p}
              value={p}
              control={<Radio />}
              label={WORDS[p]}
              disabled={p === 'sale' && !route.open}
              sx={{ minHeight: 46 }}
            />
          ))}
        </RadioGroup>
        {!route.open && (
          <Typography sx={{ color: 'ox.main' }}>
            Not for sale: {route.what} {route.why}
          </Typography>
        )}
        <Box sx={{ mt: 2 }}>
          <WhenFields when={when} />
        </Box>
        <Faults faults={faults} />
      </DialogContent>
      <DialogActions sx={{ p: 2 }}>
        <Button variant="outlined" onClick={onClose}>
          Not now
        </Button>
        <Button variant="contained" onClick={() => void start()} disabled={busy}>
          Start the batch
        </Button>
      </DialogActions>
    </Dialog>
  );
}
