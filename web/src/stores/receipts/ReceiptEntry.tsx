import { addReceipt } from '@cocotte/contract';
import { type Fault, UNITS, dayOf, moneyText } from '@cocotte/core/measure';
import {
  BUYING_UNITS,
  type Item,
  type LandedReceipt,
  type PricedBy,
  landReceipt,
} from '@cocotte/core/stores';
import { Box, Button, Checkbox, FormControlLabel, MenuItem, TextField } from '@mui/material';
import { type FormEvent, useEffect, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { CallError, call, faultsOf } from '../../shell/call.ts';
import { kitchenNow } from '../../shell/clock.ts';
import { faultText } from '../../shell/entry.ts';
import { Faults, Nothing, Sheet, Soft, ViewHead } from '../../shell/parts.tsx';
import { useHere } from '../../shell/session.tsx';
import { useItems, useStockChanged } from '../api.ts';
import { FactFields } from '../FactFields.tsx';
import { ItemDialog } from '../shelf/ItemDialog.tsx';
import { StoresNav } from '../StoresNav.tsx';
import { unitCostText } from '../words.ts';
import { type LineTexts, type ReceiptTexts, kept, newLine, newReceipt, readReceipt } from './draft.ts';

const PRICED: Record<PricedBy, string> = { line: 'for the line', package: 'a package', unit: 'a unit' };

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

function LineSheet({
  index,
  line,
  items,
  landed,
  set,
  at,
  onAdd,
  onRemove,
}: {
  index: number;
  line: LineTexts;
  items: Item[];
  landed: LandedReceipt['lines'][number] | null;
  set: (part: Partial<LineTexts>, ...names: string[]) => void;
  at: (name: string) => { error: boolean; helperText: string | undefined };
  onAdd: () => void;
  onRemove: (() => void) | undefined;
}) {
  const { kitchen } = useHere();
  const [more, setMore] = useState(false);
  const item = items.find(i => i.id === line.itemId);
  const text = (
    label: string,
    name:
      | 'packages'
      | 'quantity'
      | 'price'
      | 'discount'
      | 'label'
      | 'supplierLot'
      | 'strength'
      | 'subIngredients'
      | 'allergens',
    path: string = name,
    decimal = true,
  ) => (
    <TextField
      label={label}
      value={line[name]}
      onChange={e => set({ [name]: e.target.value }, path)}
      {...(decimal ? { inputMode: 'decimal' as const } : {})}
      {...at(path)}
    />
  );
  return (
    <Sheet
      title={item?.name ?? `Line ${index + 1}`}
      aside={
        <Box sx={{ display: 'flex', gap: 1, alignItems: 'baseline' }}>
          {landed && item && (
            <span>
              <strong>{moneyText(landed.landed, kitchen)}</strong> in the end,{' '}
              {unitCostText(landed.unitCost, item, kitchen)}
            </span>
          )}
          {onRemove && (
            <Button size="small" onClick={onRemove} aria-label={`Remove line ${index + 1}`}>
              Remove
            </Button>
          )}
        </Box>
      }
    >
      <Box
        role="group"
        aria-label={`Line ${index + 1}`}
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: '1fr 1fr', md: '2.2fr 0.8fr 1fr 1fr 1fr 1.3fr' },
          gap: 1.5,
          alignItems: 'start',
          '& > :first-of-type': { gridColumn: { xs: '1 / -1', md: 'auto' } },
        }}
      >
        <TextField
          select
          label="Item"
          value={line.itemId}
          onChange={e => {
            if (e.target.value === 'new') return onAdd();
            const chosen = items.find(i => i.id === e.target.value);
            set({ itemId: e.target.value, unit: line.unit || (chosen?.unit ?? '') }, 'itemId', 'unit');
          }}
          {...at('itemId')}
        >
          {items.map(i => (
            <MenuItem key={i.id} value={i.id}>
              {i.name}
            </MenuItem>
          ))}
          <MenuItem value="new">Something else: add it</MenuItem>
        </TextField>
        {text('Packages', 'packages')}
        {text('Of', 'quantity')}
        <TextField
          select
          label="Unit"
          value={line.unit}
          onChange={e => set({ unit: e.target.value as LineTexts['unit'] }, 'unit')}
          {...at('unit')}
        >
          {BUYING_UNITS.map(u => (
            <MenuItem key={u} value={u}>
              {u === 'each' ? 'pieces' : UNITS[u].symbol || u}
            </MenuItem>
          ))}
        </TextField>
        {text(`Price, ${kitchen.currency}`, 'price')}
        <TextField
          select
          label="The price is"
          value={line.pricedBy}
          onChange={e => set({ pricedBy: e.target.value as PricedBy })}
        >
          {Object.entries(PRICED).map(([k, w]) => (
            <MenuItem key={k} value={k}>
              {w}
            </MenuItem>
          ))}
        </TextField>
      </Box>
      <Box
        role="group"
        aria-label={`Line ${index + 1}, its lot`}
        sx={{
          display: 'grid',
          gridTemplateColumns: 'repeat(auto-fill, minmax(180px, 1fr))',
          gap: 1.5,
          mt: 1.5,
          alignItems: 'start',
        }}
      >
        {text('Lot name', 'label', 'label', false)}
        <TextField
          label="Best by"
          type="date"
          value={line.bestBy}
          onChange={e => set({ bestBy: e.target.value }, 'bestBy')}
          slotProps={{ inputLabel: { shrink: true } }}
          {...at('bestBy')}
        />
        {item && (
          <FactFields
            use={item.use}
            facts={line.facts}
            set={part => set({ facts: { ...line.facts, ...part } }, ...Object.keys(part))}
            fault={name => at(name).helperText}
          />
        )}
        {item?.use === 'vinegar' && text('Strength, %', 'strength', 'strength_pct')}
        {more && (
          <>
            {text('Their lot', 'supplierLot', 'supplierLot', false)}
            {text('Off this line', 'discount')}
            <FormControlLabel
              control={<Checkbox checked={line.taxed} onChange={(_, on) => set({ taxed: on })} />}
              label="Taxed"
            />
            {item?.kind === 'ingredient' &&
              text('Its own ingredients', 'subIngredients', 'subIngredients', false)}
            {item?.kind === 'ingredient' && text('Allergens, with commas', 'allergens', 'allergens', false)}
          </>
        )}
      </Box>
      <Button size="small" onClick={() => setMore(m => !m)} sx={{ mt: 1 }} aria-expanded={more}>
        {more ? 'Less' : 'Their lot, discount, tax, ingredients'}
      </Button>
    </Sheet>
  );
}
