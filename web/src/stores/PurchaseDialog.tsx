import { receiveLot } from '@cocotte/contract';
import { Decimal, type Fault, dayOf, readDecimal, readNumber } from '@cocotte/core/measure';
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
import { kitchenNow } from '../shell/clock.ts';
import { anyWords, useEntry, words } from '../shell/entry.ts';
import { Faults, Nothing } from '../shell/parts.tsx';
import { useHere } from '../shell/session.tsx';
import { useItems } from './api.ts';

const COST_PLACES = 9;

/** Records a purchase: a lot with what came in and what was paid for all of it. */
export function PurchaseDialog({ onClose }: { onClose: () => void }) {
  const { kitchen } = useHere();
  const { data } = useItems();
  const client = useQueryClient();
  const [id] = useState(() => v7());
  const [itemId, setItemId] = useState('');
  const [faults, setFaults] = useState<Fault[]>([]);
  const items = data?.items ?? [];
  const item = items.find(i => i.id === itemId) ?? items[0];
  const vinegar = /vinegar/i.test(item?.name ?? '');
  const form = useEntry(
    {
      label: words('The lot name'),
      supplier: anyWords,
      receivedOn: words('The day it came'),
      bestBy: anyWords,
      quantity: t =>
        readDecimal(t, kitchen.locale, { name: 'The quantity', min: 0, above: true, max: 10_000_000 }),
      paid: t => readDecimal(t, kitchen.locale, { name: 'The price', min: 0, max: 1_000_000 }),
      strength_pct: t =>
        t.trim() === ''
          ? { ok: true as const, value: null }
          : readNumber(t, kitchen.locale, { name: 'The strength', min: 0, max: 30, unit: ' %' }),
    },
    { receivedOn: dayOf(kitchenNow(), kitchen.zone) },
  );
  const save = async (e: FormEvent) => {
    e.preventDefault();
    const v = form.read();
    if (!v || !item) return;
    const unitCost = new Decimal(v.paid).div(v.quantity).toDecimalPlaces(COST_PLACES).toFixed();
    try {
      await call(receiveLot, {
        body: {
          id,
          itemId: item.id,
          label: v.label,
          supplier: v.supplier,
          receivedOn: v.receivedOn,
          bestBy: v.bestBy || null,
          unitCost,
          strength_pct: vinegar ? v.strength_pct : null,
          quantity: v.quantity,
        },
      });
      await client.invalidateQueries({ queryKey: ['lots'] });
      onClose();
    } catch (error) {
      setFaults(form.place(faultsOf(error)));
    }
  };
  const unit = item ? (item.unit === 'each' ? 'pieces' : item.unit) : '';
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="purchase-title">
      <form noValidate onSubmit={e => void save(e)}>
        <DialogTitle id="purchase-title" variant="h2">
          Record a purchase
        </DialogTitle>
        <DialogContent>
          {item ? (
            <Box
              sx={{
                display: 'grid',
                gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr' },
                gap: 2,
                mt: 1,
                alignItems: 'start',
              }}
            >
              <TextField select label="Item" value={item.id} onChange={e => setItemId(e.target.value)}>
                {items.map(i => (
                  <MenuItem key={i.id} value={i.id}>
                    {i.name}
                  </MenuItem>
                ))}
              </TextField>
              <TextField label="Lot name" {...form.field('label')} />
              <TextField label={`Quantity in ${unit}`} inputMode="decimal" {...form.field('quantity')} />
              <TextField
                label={`Paid for all of it, ${kitchen.currency}`}
                inputMode="decimal"
                {...form.field('paid')}
              />
              <TextField label="Supplier" {...form.field('supplier')} />
              <TextField
                label="Day it came"
                type="date"
                {...form.field('receivedOn')}
                slotProps={{ inputLabel: { shrink: true } }}
              />
              <TextField
                label="Best by"
                type="date"
                {...form.field('bestBy')}
                slotProps={{ inputLabel: { shrink: true } }}
              />
              {vinegar && (
                <TextField
                  label="Strength on the bottle, %"
                  inputMode="decimal"
                  {...form.field('strength_pct')}
                />
              )}
            </Box>
          ) : (
            <Nothing>Add the item first: a purchase is of something.</Nothing>
          )}
          <Faults faults={faults} />
        </DialogContent>
        <DialogActions sx={{ p: 2 }}>
          <Button variant="outlined" onClick={onClose}>
            Not now
          </Button>
          <Button type="submit" variant="contained" disabled={!item}>
            Record the purchase
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}
