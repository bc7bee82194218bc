import { mixLots } from '@cocotte/contract';
import { fieldText } from '@cocotte/core/measure';
import { type Item, type Lot } from '@cocotte/core/stores';
import { useState } from 'react';
import { v7 } from 'uuid';
import { Figure, Text, Tick } from '../../kit/fields.tsx';
import { useTyped } from '../../kit/form.ts';
import { FormDialog } from '../../kit/FormDialog.tsx';
import { Line } from '../../kit/layout.tsx';
import { Soft } from '../../kit/parts.tsx';
import { rows, unasked, useRead, words } from '../../kit/readers.ts';
import { call, faultsOf } from '../../shell/call.ts';
import { useHere } from '../../shell/session.tsx';
import { useStockChanged } from '../api.ts';
import { stockText } from '../words.ts';

/** A bin that was refilled: which lots are in it now. */
export function MixDialog({ item, lots, onClose }: { item: Item; lots: Lot[]; onClose: () => void }) {
  const { kitchen } = useHere();
  const changed = useStockChanged();
  const read = useRead();
  const [lotId] = useState(() => v7());
  const form = useTyped(
    {
      label: `${lots[0]?.label ?? ''} + ${lots[1]?.label ?? ''}`.slice(0, 40),
      lots: lots.map((l, i) => ({
        lotId: l.id,
        isIn: i < 2,
        quantity: fieldText(Number(l.onHand), kitchen.locale, 9),
      })),
    },
    () => ({
      label: words('The lot name'),
      lots: rows(({ isIn }: { lotId: string; isIn: boolean }) => ({
        quantity: isIn ? read.decimal({ name: 'The quantity', min: 0, above: true, max: 1e7 }) : unasked('0'),
      })),
    }),
  );
  const { at } = form;
  const typed = form.typed('lots');
  const save = form.submit(async v => {
    const chosen = v.lots.flatMap((l, row) => (l.isIn ? [{ ...l, row }] : []));
    try {
      const parts = chosen.map(l => ({ lotId: l.lotId, quantity: l.quantity }));
      await call(mixLots, { body: { lotId, label: v.label, parts } });
    } catch (error) {
      // The server counts only the lots that are in.
      return faultsOf(error).map(f => ({
        ...f,
        path: f.path.replace(/^parts\[(\d+)\]/, (_, k: string) => `lots.${chosen[Number(k)]?.row}`),
      }));
    }
    await changed();
    return onClose();
  });
  return (
    <FormDialog
      title="Poured together"
      action="Pour together"
      form={form}
      disabled={typed.filter(l => l.isIn).length < 2}
      onClose={onClose}
      onSubmit={save}
    >
      <Soft>
        What is in the bin now. It keeps the earliest best-by, the lowest strength and every allergen.
      </Soft>
      {lots.map((l, i) => (
        <Line key={l.id} mt={1}>
          <Tick
            at={at(`lots.${i}.isIn`)}
            label={`${l.label}, ${stockText(l.onHand, item, kitchen)} left`}
            sx={{ flex: 1 }}
          />
          {typed[i]?.isIn && (
            <Figure at={at(`lots.${i}.quantity`)} label={`Of ${l.label}`} sx={{ width: 170 }} />
          )}
        </Line>
      ))}
      <Text at={at('label')} label="Name of the mixed lot" sx={{ mt: 2 }} />
    </FormDialog>
  );
}
