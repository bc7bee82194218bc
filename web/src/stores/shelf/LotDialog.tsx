import { receiveLot } from '@cocotte/contract';
import {
  Decimal,
  type Fault,
  type UnitId,
  UNITS,
  dayOf,
  readDecimal,
  readNumber,
} from '@cocotte/core/measure';
import { BUYING_UNITS, UNIT_COST_PLACES, inItemUnit, plainFacts } from '@cocotte/core/stores';
import { Box, MenuItem, TextField } from '@mui/material';
import { useState } from 'react';
import { v7 } from 'uuid';
import { call, faultsOf } from '../../shell/call.ts';
import { kitchenNow } from '../../shell/clock.ts';
import { anyWords, faultText, useEntry, words } from '../../shell/entry.ts';
import { Nothing } from '../../shell/parts.tsx';
import { FormDialog } from '../../shell/FormDialog.tsx';
import { useHere } from '../../shell/session.tsx';
import { useItems, useStockChanged } from '../api.ts';
import { FactFields } from '../FactFields.tsx';

const SOURCES = ['own harvest', 'gift', 'on the shelf'] as const;

/** A lot that came without a receipt: own harvest, a gift, what stood on the shelf; with its own value. */
export function LotDialog({ itemId: given, onClose }: { itemId?: string; onClose: () => void }) {
  const { kitchen } = useHere();
  const { data } = useItems();
  const changed = useStockChanged();
  const [id] = useState(() => v7());
  const items = (data?.items ?? []).filter(i => i.kind !== 'tool');
  const [itemId, setItemId] = useState(given ?? '');
  const item = items.find(i => i.id === itemId) ?? items[0];
  const [source, setSource] = useState<(typeof SOURCES)[number]>('own harvest');
  const [unit, setUnit] = useState<UnitId | ''>('');
  const [facts, setFacts] = useState(plainFacts());
  const [faults, setFaults] = useState<Fault[]>([]);
  const ownUnit: UnitId = unit || item?.unit || 'g';
  const form = useEntry(
    {
      label: words('The lot name'),
      supplier: anyWords,
      receivedOn: words('The day it came'),
      bestBy: anyWords,
      quantity: t => {
        const read = readDecimal(
          t,
          kitchen.locale,
          { name: 'The quantity', min: 0, above: true, max: 10_000_000 },
          9,
        );
        return read.ok && item ? inItemUnit(item, read.value, ownUnit) : read;
      },
      value: t =>
        readDecimal(t.trim() === '' ? '0' : t, kitchen.locale, { name: 'The value', min: 0, max: 1_000_000 }),
      strength_pct: t =>
        t.trim() === ''
          ? { ok: true as const, value: null }
          : readNumber(t, kitchen.locale, { name: 'The strength', min: 0, max: 30, unit: ' %' }),
    },
    { receivedOn: dayOf(kitchenNow(), kitchen.zone) },
  );
  const placed = (name: string) => faults.find(f => f.path === name);
  const save = async () => {
    const v = form.read();
    if (!v || !item) return;
    const worth = new Decimal(v.value);
    try {
      await call(receiveLot, {
        body: {
          id,
          itemId: item.id,
          label: v.label,
          supplier: v.supplier,
          receivedOn: v.receivedOn,
          bestBy: v.bestBy || null,
          unitCost: worth.div(v.quantity).toDecimalPlaces(UNIT_COST_PLACES).toFixed(),
          strength_pct: item.use === 'vinegar' ? v.strength_pct : null,
          facts: { ...facts, source, value: worth.isZero() ? 'nothing' : 'market value' },
          quantity: v.quantity,
        },
      });
      await changed();
      onClose();
    } catch (error) {
      setFaults(form.place(faultsOf(error)));
    }
  };
  const kinds = new Set(['salt', 'juice', 'condition', 'pickedOn']);
  return (
    <FormDialog
      title="Add a lot without receipt"
      action="Put it on the shelf"
      faults={faults.filter(f => !kinds.has(f.path))}
      disabled={!item}
      onClose={onClose}
      onSubmit={() => void save()}
    >
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
          <TextField
            select
            label="How it came"
            value={source}
            onChange={e => setSource(e.target.value as typeof source)}
          >
            {SOURCES.map(s => (
              <MenuItem key={s} value={s}>
                {s}
              </MenuItem>
            ))}
          </TextField>
          <TextField label="Lot name" {...form.field('label')} />
          <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 92px', gap: 1 }}>
            <TextField label="Quantity" inputMode="decimal" {...form.field('quantity')} />
            <TextField select label="Unit" value={ownUnit} onChange={e => setUnit(e.target.value as UnitId)}>
              {BUYING_UNITS.map(u => (
                <MenuItem key={u} value={u}>
                  {UNITS[u].symbol || u}
                </MenuItem>
              ))}
            </TextField>
          </Box>
          <TextField
            label={`Worth, all of it, ${kitchen.currency}`}
            inputMode="decimal"
            {...form.field('value')}
            helperText={form.field('value').helperText ?? 'What the market asks that day; empty for nothing'}
          />
          <TextField label="From" {...form.field('supplier')} />
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
          {item.use === 'vinegar' && (
            <TextField
              label="Strength on the bottle, %"
              inputMode="decimal"
              {...form.field('strength_pct')}
            />
          )}
          <FactFields
            use={item.use}
            facts={facts}
            set={part => {
              setFacts(f => ({ ...f, ...part }));
              setFaults(list => list.filter(f => !kinds.has(f.path)));
            }}
            fault={name => {
              const f = placed(name);
              return f && faultText(f);
            }}
          />
        </Box>
      ) : (
        <Nothing>Add the item first: a lot is of something.</Nothing>
      )}
    </FormDialog>
  );
}
