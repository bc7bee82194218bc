import type { PotOnFire } from '@cocotte/core/batches';
import { potDepths } from '@cocotte/core/kitchen';
import { depthText, kitchenUnits, MM_PER_INCH, readNumber, volumeText } from '@cocotte/core/measure';
import type { Step } from '@cocotte/core/recipes';
import { Box } from '@mui/material';
import { Figure, OneOf } from '../../kit/fields.tsx';
import { useTyped } from '../../kit/form.ts';
import { FormDialog } from '../../kit/FormDialog.tsx';
import { List } from '../../kit/List.tsx';
import { Soft } from '../../kit/parts.tsx';
import { useHere } from '../../shell/session.tsx';
import { misread, say } from '../../words/views.ts';
import type { OpenBatch } from '../open-batch.ts';
import type { When } from '../when.ts';

/** How much is in the pot: its depth by a stick, or its weight where the pot can be lifted onto a scale. */
export function LevelDialog({
  batch,
  step,
  pot,
  when,
  potId,
  onClose,
}: {
  batch: OpenBatch;
  step: Step;
  pot: PotOnFire | null;
  when: When;
  /** Which of several pots; null for all of them alike. */
  potId: string | null;
  onClose: () => void;
}) {
  const { kitchen } = useHere();
  const { length } = kitchenUnits(kitchen);
  const rim_mm = pot ? (pot.capacity_mL * 1000) / (Math.PI * (pot.diameter_mm / 2) ** 2) : Infinity;
  const form = useTyped({ of: (pot ? 'depth' : 'weight') as 'depth' | 'weight', quantity: '' }, ({ of }) => ({
    quantity: (text: string) => {
      const deep = of === 'depth';
      const read = readNumber(text, kitchen.locale, {
        name: say(deep ? 'level.depth' : 'level.weight'),
        min: 0,
        above: true,
        max: deep ? 1000 : 100_000,
        unit: deep ? ` ${length.sign}` : ' g',
      });
      if (!read.ok || !deep) return read;
      const depth_mm = read.value * length.size;
      return depth_mm > rim_mm
        ? misread('above-rim', { rim: depthText(rim_mm, kitchen) })
        : { ok: true as const, value: depth_mm };
    },
  }));
  const keep = form.submit(async ({ of, quantity }) => {
    const body = { stepId: step.id, of, quantity, outletId: null, potId };
    if (await batch.enter([['level.read', body]], when)) onClose();
  });
  const deep = form.typed('of') === 'depth';
  return (
    <FormDialog
      title={say('pot.level')}
      action={say('level.action')}
      form={form}
      onClose={onClose}
      onSubmit={keep}
    >
      <Soft>{say('level.why')}</Soft>
      {pot && (
        <OneOf
          at={form.at('of')}
          label={say('level.by')}
          row
          of={[
            ['depth', say('level.depth')],
            ['weight', say('level.weight')],
          ]}
        />
      )}
      <Figure
        at={form.at('quantity')}
        label={say(deep ? 'level.depth' : 'level.weight')}
        unit={deep ? length.sign : 'g'}
        autoFocus
        sx={{ mt: 1.5 }}
      />
      {pot && deep && (
        <Box component="details" sx={{ mt: 1.5 }}>
          <summary>{say('level.table')}</summary>
          <List
            label={say('level.table')}
            sx={{ maxWidth: 320 }}
            rows={potDepths(pot, kitchen.measures === 'US' ? MM_PER_INCH / 2 : 10)}
            keyOf={d => d.depth_mm}
            columns={[
              { head: say('level.depth'), cell: d => depthText(d.depth_mm, kitchen) },
              { head: say('level.holds'), figure: true, cell: d => volumeText(d.volume_mL, kitchen) },
            ]}
          />
        </Box>
      )}
    </FormDialog>
  );
}
