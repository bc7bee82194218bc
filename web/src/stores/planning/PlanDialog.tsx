import { putPlan } from '@cocotte/contract';
import { type Fault, addDays, dayOf } from '@cocotte/core/measure';
import { jarCountText } from '@cocotte/core/jars';
import type { JarsWanted } from '@cocotte/core/recipes';
import { TextField } from '@mui/material';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { v7 } from 'uuid';
import { call, faultsOf } from '../../shell/call.ts';
import { kitchenNow } from '../../shell/clock.ts';
import { faultText } from '../../shell/entry.ts';
import { Soft } from '../../shell/parts.tsx';
import { FormDialog } from '../../shell/FormDialog.tsx';
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
  const save = async () => {
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
    <FormDialog
      title="Plan this batch"
      action="Plan it"
      faults={faults.filter(f => f.path !== 'day')}
      width="xs"
      onClose={onClose}
      onSubmit={() => void save()}
    >
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
    </FormDialog>
  );
}
