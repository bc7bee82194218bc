import { takeIn } from '@cocotte/contract';
import {
  dayOf,
  fieldText,
  type Habits,
  kitchenVolume,
  kitchenWeight,
  readNumber,
  UNITS,
  type UnitId,
} from '@cocotte/core/measure';
import {
  CONDITIONS,
  JUICE_KINDS,
  SALT_KINDS,
  asksOf,
  factsByName,
  unitSign,
  type Wanted,
} from '@cocotte/core/stores';
import { Box, Button } from '@mui/material';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { v7 } from 'uuid';
import { Figure, Pick } from '../../kit/fields.tsx';
import { useTyped } from '../../kit/form.ts';
import { FormDialog } from '../../kit/FormDialog.tsx';
import { Cells } from '../../kit/layout.tsx';
import { Soft } from '../../kit/parts.tsx';
import { orNone, rows, useRead, wordsOrNone } from '../../kit/readers.ts';
import { call, faultsOf } from '../../shell/call.ts';
import { kitchenNow } from '../../shell/clock.ts';
import { useHere } from '../../shell/session.tsx';
import { say } from '../../words/views.ts';
import { useStockChanged } from '../api.ts';
import { kept, newLine, newReceipt } from '../receipts/draft.ts';

/** The quantity as a kitchen of cups and pounds says it; nothing in one of grams. */
function inCups({ item }: Wanted, text: string, kitchen: Habits): string | undefined {
  const read =
    kitchen.measures === 'US' && item.unit !== 'each'
      ? readNumber(text, kitchen.locale, { name: 'The quantity' })
      : null;
  if (!read?.ok) return undefined;
  return item.unit === 'g' ? kitchenWeight(read.value) : kitchenVolume(read.value).text;
}

/**
 * What is needed and not on the shelf, all of it at once: put there as bought today, its price later, or written down as a
 * receipt. What the kitchen does not keep yet is made from the library on the way.
 */
export function TakeInDialog({
  wanted,
  onClose,
}: {
  wanted: readonly Wanted[];
  onClose: (done: boolean) => void;
}) {
  const { kitchen } = useHere();
  const changed = useStockChanged();
  const navigate = useNavigate();
  const read = useRead();
  const [ids] = useState(() => wanted.map(() => v7()));
  const form = useTyped(
    {
      rows: wanted.map(w => ({
        quantity: fieldText(Number(w.quantity), kitchen.locale, 3),
        strength_pct: '',
        // What no entry of the library says is asked, and nothing stands there before somebody looked.
        condition: '',
        salt: '',
        juice: '',
      })),
    },
    () => ({
      rows: rows(() => ({
        quantity: read.decimal({ name: 'The quantity', min: 0, max: 10_000_000 }),
        strength_pct: orNone(read.figure({ name: 'The strength', min: 0, max: 30, unit: ' %' })),
        condition: wordsOrNone,
        salt: wordsOrNone,
        juice: wordsOrNone,
      })),
    }),
  );
  const typed = form.typed('rows');
  const unitOf = ({ item }: Wanted): UnitId => item.unit;
  const items = wanted.map(w => w.item);
  const save = form.submit(async v => {
    const lots = wanted.flatMap((w, i) => {
      const row = v.rows[i];
      if (!row || Number(row.quantity) === 0) return [];
      const byName = factsByName(w.item);
      return [
        {
          i,
          lot: {
            id: ids[i] as string,
            itemId: w.item.id,
            label: '',
            bestBy: null,
            strength_pct: row.strength_pct,
            quantity: row.quantity,
            unit: unitOf(w),
            facts: {
              ...byName,
              condition: (row.condition ?? null) as (typeof CONDITIONS)[number] | null,
              salt: byName.salt ?? ((row.salt ?? null) as (typeof SALT_KINDS)[number] | null),
              juice: byName.juice ?? ((row.juice ?? null) as (typeof JUICE_KINDS)[number] | null),
            },
          },
        },
      ];
    });
    try {
      await call(takeIn, { body: { items, lots: lots.map(l => l.lot) } });
    } catch (error) {
      // A lot's field is that of its row.
      return faultsOf(error).map(f => ({
        ...f,
        path: f.path.replace(/^lots\[(\d+)\]/, (_, k: string) => `rows.${lots[Number(k)]?.i ?? 0}`),
      }));
    }
    await changed();
    onClose(true);
    return [];
  });
  const asReceipt = async () => {
    const made = await call(takeIn, { body: { items, lots: [] } });
    await changed();
    const blank = newReceipt(dayOf(kitchenNow(), kitchen.zone));
    kept.write({
      ...blank,
      lines: wanted.map((w, i) => ({
        ...newLine(),
        itemId: made.items[i]?.id ?? w.item.id,
        quantity: typed[i]?.quantity ?? '',
        unit: made.items[i]?.unit ?? unitOf(w),
        condition: typed[i]?.condition ?? '',
        salt: factsByName(w.item).salt ?? '',
        juice: factsByName(w.item).juice ?? '',
      })),
    });
    void navigate('/stores/receipts/new');
  };
  return (
    <FormDialog
      title={say('takeIn.title')}
      action={say('takeIn.action')}
      form={form}
      width="md"
      onClose={() => onClose(false)}
      onSubmit={save}
      readOnly={wanted.length === 0}
      also={
        wanted.length > 0 && (
          <Button variant="outlined" onClick={() => void asReceipt()}>
            {say('takeIn.receipt')}
          </Button>
        )
      }
    >
      <Soft>{say(wanted.length === 0 ? 'takeIn.enough' : 'takeIn.why')}</Soft>
      {wanted.map((w, i) => {
        const asks = asksOf(w.item);
        return (
          <Cells
            key={w.item.id}
            role="group"
            aria-label={w.item.name}
            wide="1.6fr 1fr 1.2fr"
            narrow="1fr 1fr"
            gap={1.5}
            mt={1.5}
          >
            <Box sx={{ alignSelf: 'center', gridColumn: { xs: '1 / -1', sm: 'auto' } }}>
              <strong>{w.item.name}</strong>{' '}
              {!w.kept && <Soft sx={{ fontSize: '0.88rem' }}>{say('takeIn.new')}</Soft>}
            </Box>
            <Figure
              at={form.at(`rows.${i}.quantity`)}
              label={say('takeIn.quantity', { name: w.item.name })}
              unit={unitSign(w.item.unit) || UNITS.each.symbol}
              hint={inCups(w, typed[i]?.quantity ?? '', kitchen)}
            />
            {asks.includes('strength') ? (
              <Figure at={form.at(`rows.${i}.strength_pct`)} label={say('takeIn.strength')} unit="%" />
            ) : asks.includes('condition') ? (
              <Pick at={form.at(`rows.${i}.condition`)} label={say('takeIn.condition')} of={CONDITIONS} />
            ) : asks.includes('salt') ? (
              <Pick at={form.at(`rows.${i}.salt`)} label={say('takeIn.salt')} of={SALT_KINDS} />
            ) : asks.includes('juice') ? (
              <Pick at={form.at(`rows.${i}.juice`)} label={say('takeIn.juice')} of={JUICE_KINDS} />
            ) : (
              <span />
            )}
          </Cells>
        );
      })}
    </FormDialog>
  );
}
