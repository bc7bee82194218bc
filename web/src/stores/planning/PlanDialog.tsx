import { putPlan } from '@cocotte/contract';
import { addDays, dayOf } from '@cocotte/core/measure';
import { jarCountText } from '@cocotte/core/jars';
import type { JarsWanted } from '@cocotte/core/recipes';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { v7 } from 'uuid';
import { call } from '../../shell/call.ts';
import { kitchenNow } from '../../shell/clock.ts';
import { Day } from '../../kit/fields.tsx';
import { useTyped } from '../../kit/form.ts';
import { words } from '../../kit/readers.ts';
import { Soft } from '../../kit/parts.tsx';
import { FormDialog } from '../../kit/FormDialog.tsx';
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
  const form = useTyped({ day: addDays(dayOf(kitchenNow(), kitchen.zone), 3) }, () => ({
    day: words('The day'),
  }));
  const save = form.submit(async ({ day }) => {
    await call(putPlan, { params: { planId }, body: { id: planId, day, recipeId, factor, jars } });
    await changed();
    void navigate('/stores/shopping');
  });
  return (
    <FormDialog
      title="Plan this batch"
      action="Plan it"
      form={form}
      width="xs"
      onClose={onClose}
      onSubmit={save}
    >
      <Soft>{jars.map(j => jarCountText(j.count, j.size)).join(', ')}</Soft>
      <Day at={form.at('day')} label="Day" sx={{ mt: 2 }} />
    </FormDialog>
  );
}
