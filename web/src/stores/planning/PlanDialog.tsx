import { putPlan } from '@cocotte/contract';
import { type Fault, addDays, dayOf } from '@cocotte/core/measure';
import { type JarsWanted, jarCountText } from '@cocotte/core/recipes';
import { Button, Dialog, DialogActions, DialogContent, DialogTitle, TextField } from '@mui/material';
import { type FormEvent, useState } from 'react';
import { useNavigate } from 'react-router';
import { v7 } from 'uuid';
import { call, faultsOf } from '../../shell/call.ts';
import { kitchenNow } from '../../shell/clock.ts';
import { faultText } from '../../shell/entry.ts';
import { Faults, Soft } from '../../shell/parts.tsx';
import { useHere } from '../../shell/session.tsx';
import { useStockChanged } from '../api.ts';

/** Plans a batch at the scale of the sheet: what it needs is kept for it and goes on the shopping list. */
export function PlanDialog({
  recipeId,
  factor,
  jars,
  onClose,
}: {
  recipeId: string;
  factor: string;
  jars: JarsWanted[];
  onClose: () => void;
}) {
  const { kitchen } = useHere();
  const changed = useStockChanged();
  const navigate = useNavigate();
  const [planId] = useState(() => v7());
  const [day, setDay] = useState(addDays(dayOf(kitchenNow(), kitchen.zone), 3));
  const [faults, setFaults] = useState<Fault[]>([]);
  const save = async (e: FormEvent) => {
    e.preventDefault();
    try {
      await call(putPlan, { params: { planId }, body: { id: planId, day, recipeId, factor, jars } });
      await changed();
      void navigate('/stores/shopping');
    } catch (error) {
      setFaults(faultsOf(error));
    }
  };
  const ofDay = faults.find(f => f.path === 'day');
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="xs" aria-labelledby="plan-title">
      <form noValidate onSubmit={e => void save(e)}>
        <DialogTitle id="plan-title" variant="h2">
          Plan this batch
        </DialogTitle>
        <DialogContent>
          <Soft>{jars.map(j => jarCountText(j.count, j.size)).join(', ')}</Soft>
          <TextField
            label="Day"
            type="date"
            value={day}
            onChange={e => setDay(e.target.value)}
            slotProps={{ inputLabel: { shrink: true } }}
            error={ofDay !== undefined}
            helperText={ofDay && faultText(ofDay)}
            sx={{ mt: 2 }}
          />
          <Faults faults={faults.filter(f => f.path !== 'day')} />
        </DialogContent>
        <DialogActions sx={{ p: 2 }}>
          <Button variant="outlined" onClick={onClose}>
            Not now
          </Button>
          <Button type="submit" variant="contained">
            Plan it
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}
