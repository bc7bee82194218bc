import { startBatch } from '@cocotte/contract';
import { PURPOSES, type Purpose } from '@cocotte/core/batches';
import type { Fault } from '@cocotte/core/measure';
import type { Pot } from '@cocotte/core/kitchen';
import { jarCountText } from '@cocotte/core/jars';
import type { JarsWanted, Recipe } from '@cocotte/core/recipes';
import { type RouteToSale, processFor, reviewFaults } from '@cocotte/core/review';
import { steamFault } from '@cocotte/core/times';
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
import { useWhen } from '../../batches/when.ts';
import { WhenFields } from '../../batches/WhenFields.tsx';
import { makeStamp } from '../../outbox/index.ts';
import { call, faultsOf } from '../../shell/call.ts';
import { Faults } from '../../shell/parts.tsx';
import { useHere } from '../../shell/session.tsx';

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
  pot,
  doublePectin,
  planId,
  onClose,
}: {
  recipe: Recipe;
  recipeId: string;
  version: number;
  factor: string;
  jars: JarsWanted[];
  route: RouteToSale;
  pot: Pot | null;
  doublePectin: boolean;
  /** The plan this batch was; it is started under its id. */
  planId: string | null;
  onClose: () => void;
}) {
  const { person, kitchen } = useHere();
  const [purpose, setPurpose] = useState<Purpose>(route.open ? 'sale' : 'trial');
  const [faults, setFaults] = useState<Fault[]>([]);
  const [busy, setBusy] = useState(false);
  const [heat, setHeat] = useState<'boiling water' | 'steam'>('boiling water');
  const refusal = reviewFaults(recipe).find(f => f.level === 'refused');
  const times = jars
    .map(j => processFor(recipe, j.size, kitchen.altitude_m))
    .flatMap(a => (a.ok ? [a.time] : []));
  const hotFill = times.some(t => t.method === 'hot-fill-hold');
  const noSteam =
    times.map(steamFault).find(f => f !== null) ??
    (times.length === 0 ? 'There is no time to run in steam.' : null);
  const when = useWhen(kitchen);
  const [batchId] = useState(() => planId ?? v7());
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
          heat,
          potId: pot?.id ?? null,
          doublePectin,
          stamp: makeStamp(person.id, at.typedAt_ms, 0),
        },
      });
      client.setQueryData(['batch', batchId], view);
      void client.invalidateQueries({ queryKey: ['today'] });
      void client.invalidateQueries({ queryKey: ['recipes'] });
      void client.invalidateQueries({ queryKey: ['plans'] });
      void client.invalidateQueries({ queryKey: ['shopping'] });
      void client.invalidateQueries({ queryKey: ['shelf'] });
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
        {refusal && (
          <Typography sx={{ color: 'ox.main' }}>
            {refusal.what} {refusal.why} {refusal.next}
          </Typography>
        )}
        {times.length > 0 && !hotFill && (
          <Box sx={{ mt: 1 }}>
            <Typography component="div" id="heat-label" sx={{ color: 'text.secondary' }}>
              The jars are processed in
            </Typography>
            <RadioGroup
              row
              aria-labelledby="heat-label"
              value={heat}
              onChange={(_, v) => setHeat(v as typeof heat)}
            >
              <FormControlLabel value="boiling water" control={<Radio />} label="boiling water" />
              <FormControlLabel
                value="steam"
                control={<Radio />}
                label="atmospheric steam"
                disabled={noSteam !== null}
              />
            </RadioGroup>
            {noSteam && <Typography sx={{ color: 'text.secondary' }}>No steam: {noSteam}</Typography>}
          </Box>
        )}
        {!route.open && !refusal && (
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
        <Button variant="contained" onClick={() => void start()} disabled={busy || refusal !== undefined}>
          Start the batch
        </Button>
      </DialogActions>
    </Dialog>
  );
}
