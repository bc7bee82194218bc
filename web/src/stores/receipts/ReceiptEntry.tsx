import { addReceipt } from '@cocotte/contract';
import { type Fault, dayOf, moneyText } from '@cocotte/core/measure';
import { type LandedReceipt, landReceipt } from '@cocotte/core/stores';
import { Box, Button, TextField } from '@mui/material';
import { type FormEvent, useEffect, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { CallError, call, faultsOf } from '../../shell/call.ts';
import { kitchenNow } from '../../shell/clock.ts';
import { faultText } from '../../shell/entry.ts';
import { Faults, Nothing, Sheet, Soft, ViewHead } from '../../shell/parts.tsx';
import { useHere } from '../../shell/session.tsx';
import { useItems, useStockChanged } from '../api.ts';
import { ItemDialog } from '../shelf/ItemDialog.tsx';
import { StoresNav } from '../StoresNav.tsx';
import { LineSheet } from './LineSheet.tsx';
import { type LineTexts, type ReceiptTexts, kept, newLine, newReceipt, readReceipt } from './draft.ts';

/** A receipt with its lines: what came, in the units on the packages, and what it cost in the end. */
export function ReceiptEntry() {
  const { kitchen } = useHere();
  const { data } = useItems();
  const changed = useStockChanged();
  const navigate = useNavigate();
  const today = dayOf(kitchenNow(), kitchen.zone);
  const [texts, setTexts] = useState<ReceiptTexts>(() => kept.read() ?? newReceipt(today));
  const [faults, setFaults] = useState<Fault[]>([]);
  const [twin, setTwin] = useState(false);
  const [adding, setAdding] = useState<number | null>(null);
  const items = (data?.items ?? []).filter(i => i.kind !== 'tool');
  useEffect(() => kept.write(texts), [texts]);
  const byId = useMemo(() => new Map((data?.items ?? []).map(i => [i.id, i])), [data]);
  /** What the lines cost in the end, as far as everything can be read. */
  const landed = useMemo((): LandedReceipt | null => {
    const read = readReceipt(texts, [...byId.values()], kitchen.locale);
    const land = read.ok ? landReceipt(read.value, byId, today) : null;
    return land?.ok ? land.value : null;
  }, [texts, byId, kitchen.locale, today]);
  const set = (part: Partial<ReceiptTexts>, path?: string) => {
    setTexts(t => ({ ...t, ...part }));
    setTwin(false);
    if (path) setFaults(list => list.filter(f => f.path !== path));
  };
  const setLine = (i: number, part: Partial<LineTexts>, ...names: string[]) => {
    setTexts(t => ({ ...t, lines: t.lines.map((l, k) => (k === i ? { ...l, ...part } : l)) }));
    setTwin(false);
    setFaults(list => list.filter(f => !names.some(n => f.path === `lines[${i}].${n}`)));
  };
  const at = (path: string) => {
    const f = faults.find(x => x.path === path);
    return { error: f !== undefined, helperText: f && faultText(f) };
  };
  const save = async (again: boolean) => {
    const read = readReceipt(texts, items, kitchen.locale);
    if (!read.ok) return setFaults(read.faults);
    try {
      const view = await call(addReceipt, { body: { receipt: read.value, again } });
      kept.drop();
      await changed();
      void navigate(`/stores/receipts/${view.receipt.id}`);
    } catch (error) {
      setTwin(error instanceof CallError && error.code === 'same-receipt');
      setFaults(faultsOf(error).map(f => ({ ...f, path: f.path.replace(/^receipt\./, '') })));
    }
  };
  const known = (path: string) =>
    /^(supplier|day|number|discount|tax|delivery)$/.test(path) ||
    /^lines\[\d+\]\.(itemId|packages|quantity|unit|price|discount|label|bestBy|strength_pct|salt|juice|condition|pickedOn)$/.test(
      path,
    );
  if (data && items.length === 0)
    return (
      <>
        <ViewHead title="Record a receipt">
          <Button variant="contained" onClick={() => setAdding(0)}>
            Add an item
          </Button>
        </ViewHead>
        <StoresNav />
        <Sheet>
          <Nothing>Nothing is kept here yet. Add the first item: a receipt is of something.</Nothing>
        </Sheet>
        {adding !== null && <ItemDialog onClose={() => setAdding(null)} />}
      </>
    );
  return (
    <Box
      component="form"
      noValidate
      onSubmit={(e: FormEvent) => {
        e.preventDefault();
        void save(false);
      }}
    >
      <ViewHead
        title="Record a receipt"
        detail="Each line becomes a lot. Discount, tax and delivery are spread over the lines."
      >
        <Button
          variant="outlined"
          onClick={() => {
            kept.drop();
            setTexts(newReceipt(today));
            setFaults([]);
          }}
        >
          Begin again
        </Button>
        <Button type="submit" variant="contained">
          Record the receipt
        </Button>
      </ViewHead>
      <StoresNav />
      {twin ? (
        <Sheet tone="live" sx={{ mb: 2 }}>
          <Box role="alert">
            {faults.map(f => (
              <span key={f.code}>
                <strong>{f.what}</strong> {f.why}
              </span>
            ))}
          </Box>
          <Box sx={{ mt: 1 }}>
            <Button variant="outlined" onClick={() => void save(true)}>
              It is another one: record it
            </Button>
          </Box>
        </Sheet>
      ) : (
        <Faults faults={faults.filter(f => !known(f.path))} />
      )}
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: 'minmax(0, 1fr)', lg: 'minmax(0, 1fr) 300px' },
          gap: 2,
          alignItems: 'start',
        }}
      >
        <Box sx={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr)', gap: 2 }}>
          <Sheet>
            <Box
              sx={{
                display: 'grid',
                gridTemplateColumns: { xs: '1fr', sm: '2fr 1fr 1fr' },
                gap: 2,
                alignItems: 'start',
              }}
            >
              <TextField
                label="Supplier"
                value={texts.supplier}
                onChange={e => set({ supplier: e.target.value }, 'supplier')}
                {...at('supplier')}
              />
              <TextField
                label="Day on the receipt"
                type="date"
                value={texts.day}
                onChange={e => set({ day: e.target.value }, 'day')}
                slotProps={{ inputLabel: { shrink: true } }}
                {...at('day')}
              />
              <TextField
                label="Its number"
                value={texts.number}
                onChange={e => set({ number: e.target.value }, 'number')}
                {...(twin ? {} : at('number'))}
              />
            </Box>
          </Sheet>
          {texts.lines.map((line, i) => (
            <LineSheet
              key={line.id}
              index={i}
              line={line}
              items={items}
              landed={landed?.lines[i] ?? null}
              set={(part, ...names) => setLine(i, part, ...names)}
              at={name => at(`lines[${i}].${name}`)}
              onAdd={() => setAdding(i)}
              onRemove={
                texts.lines.length > 1
                  ? () => set({ lines: texts.lines.filter((_, k) => k !== i) })
                  : undefined
              }
            />
          ))}
          <Button
            variant="outlined"
            sx={{ justifySelf: 'start' }}
            onClick={() => set({ lines: [...texts.lines, newLine()] })}
          >
            Add a line
          </Button>
        </Box>
        <Sheet title="In the end" sx={{ position: { lg: 'sticky' }, top: 12 }}>
          <Box sx={{ display: 'grid', gap: 1.5 }}>
            {(['discount', 'tax', 'delivery'] as const).map(name => (
              <TextField
                key={name}
                label={{ discount: 'Discount on all', tax: 'Tax', delivery: 'Delivery' }[name]}
                inputMode="decimal"
                value={texts[name]}
                onChange={e => set({ [name]: e.target.value }, name)}
                {...at(name)}
              />
            ))}
            <Box sx={{ display: 'flex', justifyContent: 'space-between', alignItems: 'baseline', mt: 0.5 }}>
              <span>Total</span>
              <Box
                component="output"
                aria-label="Total of the receipt"
                sx={{ fontSize: '1.6rem', fontWeight: 700 }}
              >
                {landed ? moneyText(landed.total, kitchen) : '–'}
              </Box>
            </Box>
            <Soft sx={{ fontSize: '0.92rem' }}>Compare it with the receipt before you record it.</Soft>
          </Box>
        </Sheet>
      </Box>
      {adding !== null && (
        <ItemDialog
          onClose={saved => {
            if (saved) setLine(adding, { itemId: saved.id, unit: saved.unit }, 'itemId', 'unit');
            setAdding(null);
          }}
        />
      )}
    </Box>
  );
}
