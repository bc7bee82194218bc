import { type Prepare, prepareLot } from '@cocotte/contract';
import { Decimal, type Fault, addDays, dayOf, readDecimal, readNumber } from '@cocotte/core/measure';
import { type Item, unitSign } from '@cocotte/core/stores';
import { Box, Button, MenuItem, TextField } from '@mui/material';
import { useState } from 'react';
import { v7 } from 'uuid';
import { call, faultsOf } from '../../shell/call.ts';
import { kitchenNow } from '../../shell/clock.ts';
import { anyWords, faultText, useEntry, words } from '../../shell/entry.ts';
import { Soft } from '../../shell/parts.tsx';
import { FormDialog } from '../../shell/FormDialog.tsx';
import { useHere } from '../../shell/session.tsx';
import { useShelf, useStockChanged } from '../api.ts';

const HOW: Record<Prepare['how'], { words: string; days: number }> = {
  frozen: { words: 'frozen', days: 300 },
  dried: { words: 'dried', days: 365 },
  juice: { words: 'pressed to juice', days: 3 },
  mixed: { words: 'mixed', days: 180 },
  other: { words: 'another way', days: 30 },
};
const VALUES = ['cost of what went in', 'cost and work', 'market value', 'nothing'] as const;

/** Makes a lot of an ingredient without jars: what went in, what came out, how long it keeps and what it is worth. */
export function PrepareDialog({ item, onClose }: { item: Item; onClose: () => void }) {
  const { kitchen } = useHere();
  const { data } = useShelf();
  const changed = useStockChanged();
  const [lotId] = useState(() => v7());
  const today = dayOf(kitchenNow(), kitchen.zone);
  const [how, setHow] = useState<Prepare['how']>('frozen');
  const [value, setValue] = useState<Prepare['value']>('cost of what went in');
  const [parts, setParts] = useState<{ key: string; lotId: string; text: string }[]>(() => [
    { key: v7(), lotId: '', text: '' },
  ]);
  const [faults, setFaults] = useState<Fault[]>([]);
  const lots = (data?.shelf ?? [])
    .filter(s => s.item.kind === 'ingredient')
    .flatMap(s => s.lots.map(lot => ({ lot, item: s.item })));
  const form = useEntry(
    {
      label: words('The lot name'),
      quantity: t => readDecimal(t, kitchen.locale, { name: 'What came out', min: 0, above: true, max: 1e7 }),
      keepsUntil: words('The keeping limit'),
      minutes: t =>
        readNumber(t.trim() === '' ? '0' : t, kitchen.locale, { name: 'The minutes', min: 0, max: 1440 }),
      unitCost: t =>
        readDecimal(t.trim() === '' ? '0' : t, kitchen.locale, { name: 'The value', min: 0, max: 1e6 }),
      note: anyWords,
    },
    { keepsUntil: addDays(today, HOW.frozen.days) },
  );
  const save = async () => {
    const v = form.read();
    const found: Fault[] = [];
    const given = parts
      .filter(p => p.lotId !== '')
      .map((p, i) => {
        const read = readDecimal(p.text, kitchen.locale, {
          name: 'The quantity',
          min: 0,
          above: true,
          max: 1e7,
        });
        if (!read.ok) found.push({ ...read.fault, path: `parts[${i}].quantity` });
        return { lotId: p.lotId, quantity: read.ok ? read.value : '0' };
      });
    if (given.length === 0)
      found.push({
        path: 'parts',
        code: 'missing',
        what: 'Nothing went in.',
        why: 'What is made traces to what it is made of.',
        next: 'Choose a lot.',
      });
    setFaults(found);
    if (!v || found.length > 0) return;
    try {
      await call(prepareLot, {
        body: {
          lotId,
          itemId: item.id,
          how,
          value,
          parts: given,
          ...v,
          unitCost: new Decimal(v.unitCost).div(v.quantity).toDecimalPlaces(18).toFixed(),
        },
      });
      await changed();
      onClose();
    } catch (error) {
      setFaults(form.place(faultsOf(error)));
    }
  };
  return (
    <FormDialog
      title={`Make a lot of ${item.name.toLowerCase()}`}
      action="Make the lot"
      faults={faults.filter(f => !/^parts\[\d+\]\.quantity$/.test(f.path))}
      width="md"
      onClose={onClose}
      onSubmit={() => void save()}
    >
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr' },
          gap: 2,
          mt: 1,
          alignItems: 'start',
        }}
      >
        <TextField
          select
          label="How it is kept"
          value={how}
          onChange={e => {
            const next = e.target.value as Prepare['how'];
            setHow(next);
            form.set('keepsUntil', addDays(today, HOW[next].days));
          }}
        >
          {(Object.keys(HOW) as Prepare['how'][]).map(h => (
            <MenuItem key={h} value={h}>
              {HOW[h].words}
            </MenuItem>
          ))}
        </TextField>
        <TextField label="Lot name" {...form.field('label')} />
        {parts.map((p, i) => {
          const row = lots.find(l => l.lot.id === p.lotId);
          const fault = faults.find(f => f.path === `parts[${i}].quantity`);
          return [
            <TextField
              key={`${p.key} lot`}
              select
              label={i === 0 ? 'Made of' : 'And of'}
              value={p.lotId}
              onChange={e =>
                setParts(list => list.map((x, k) => (k === i ? { ...x, lotId: e.target.value } : x)))
              }
            >
              {lots.map(l => (
                <MenuItem key={l.lot.id} value={l.lot.id}>
                  {l.item.name}, lot {l.lot.label} ({l.lot.onHand} {unitSign(l.item.unit)} left)
                </MenuItem>
              ))}
            </TextField>,
            <TextField
              key={`${p.key} quantity`}
              label={`Went in${row ? `, ${row.item.unit === 'each' ? 'pieces' : row.item.unit}` : ''}`}
              inputMode="decimal"
              value={p.text}
              onChange={e =>
                setParts(list => list.map((x, k) => (k === i ? { ...x, text: e.target.value } : x)))
              }
              error={fault !== undefined}
              helperText={fault && faultText(fault)}
            />,
          ];
        })}
        <Button
          variant="outlined"
          onClick={() => setParts(list => [...list, { key: v7(), lotId: '', text: '' }])}
          sx={{ gridColumn: '1 / -1', justifySelf: 'start' }}
        >
          Something else went in
        </Button>
        <TextField
          label={`Came out, ${item.unit === 'each' ? 'pieces' : item.unit}`}
          inputMode="decimal"
          {...form.field('quantity')}
        />
        <TextField
          label="Keeps until"
          type="date"
          {...form.field('keepsUntil')}
          slotProps={{ inputLabel: { shrink: true } }}
        />
        <TextField
          select
          label="What it is worth"
          value={value}
          onChange={e => setValue(e.target.value as Prepare['value'])}
        >
          {VALUES.map(v => (
            <MenuItem key={v} value={v}>
              {v}
            </MenuItem>
          ))}
        </TextField>
        {value === 'cost and work' && (
          <TextField label="Minutes of work" inputMode="decimal" {...form.field('minutes')} />
        )}
        {value === 'market value' && (
          <TextField
            label={`Worth, all of it, ${kitchen.currency}`}
            inputMode="decimal"
            {...form.field('unitCost')}
          />
        )}
        <TextField label="Note" {...form.field('note')} />
      </Box>
      {how === 'juice' && item.use === 'citrus juice' && (
        <Soft sx={{ display: 'block', mt: 1 }}>
          Pressed here it counts as fresh: it may not serve where acid is the barrier.
        </Soft>
      )}
    </FormDialog>
  );
}
