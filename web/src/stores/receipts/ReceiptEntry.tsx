import { addReceipt } from '@cocotte/contract';
import { type Fault, dayOf, moneyText } from '@cocotte/core/measure';
import { landReceipt } from '@cocotte/core/stores';
import { Box, Button } from '@mui/material';
import { useEffect, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { Day, Money, Text } from '../../kit/fields.tsx';
import { useRows, useTyped } from '../../kit/form.ts';
import { Cells, Columns, Stack } from '../../kit/layout.tsx';
import { Faults, Nothing, Sheet, Soft, ViewHead } from '../../kit/parts.tsx';
import { useRead } from '../../kit/readers.ts';
import { CallError, call } from '../../shell/call.ts';
import { kitchenNow } from '../../shell/clock.ts';
import { useHere } from '../../shell/session.tsx';
import { useItems, useStockChanged } from '../api.ts';
import { ItemDialog } from '../shelf/ItemDialog.tsx';
import { StoresNav } from '../StoresNav.tsx';
import {
  type ReceiptTexts,
  kept,
  newLine,
  newReceipt,
  readReceipt,
  receiptOf,
  receiptShape,
} from './draft.ts';
import { LineSheet } from './LineSheet.tsx';

/** A receipt with its lines: what came, in the units on the packages, and what it cost in the end. */
export function ReceiptEntry() {
  const { kitchen } = useHere();
  const { data } = useItems();
  const changed = useStockChanged();
  const navigate = useNavigate();
  const read = useRead();
  const today = dayOf(kitchenNow(), kitchen.zone);
  const [twin, setTwin] = useState<{ fault: Fault; of: string } | null>(null);
  const [adding, setAdding] = useState<number | null>(null);
  const items = (data?.items ?? []).filter(i => i.kind !== 'tool');
  const [start] = useState(() => kept.read() ?? newReceipt(today));
  const form = useTyped(start, () => receiptShape(read));
  const { at } = form;
  const lines = useRows(form.form.control, 'lines');
  const texts = form.all();
  const written = JSON.stringify(texts);
  useEffect(() => kept.write(JSON.parse(written) as ReceiptTexts), [written]);
  /** What the lines cost in the end, as far as everything can be read. */
  const landed = useMemo(() => {
    const byId = new Map((data?.items ?? []).map(i => [i.id, i]));
    const found = readReceipt(JSON.parse(written) as ReceiptTexts, [...byId.values()], read);
    const land = found.ok ? landReceipt(found.value, byId, today) : null;
    return land?.ok ? land.value : null;
  }, [written, data, read, today]);
  const save = (again: boolean) =>
    form.submit(async v => {
      try {
        const view = await call(addReceipt, { body: { receipt: receiptOf(v, items), again } });
        kept.drop();
        await changed();
        void navigate(`/stores/receipts/${view.receipt.id}`);
      } catch (error) {
        if (!(error instanceof CallError) || error.code !== 'same-receipt') throw error;
        if (error.faults[0]) setTwin({ fault: error.faults[0], of: written });
      }
    });
  const setItem = (i: number, itemId: string, unit = items.find(x => x.id === itemId)?.unit) => {
    if (itemId === 'new') {
      setAdding(i);
      return form.set(`lines.${i}.itemId`, '');
    }
    form.set(`lines.${i}.itemId`, itemId);
    if (unit && texts.lines[i]?.unit === '') form.set(`lines.${i}.unit`, unit);
  };
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
    <form noValidate onSubmit={save(false)}>
      <ViewHead
        title="Record a receipt"
        detail="Each line becomes a lot. Discount, tax and delivery are spread over the lines. What you type is kept here until you record it."
      >
        <Button variant="outlined" onClick={() => form.again(newReceipt(today))}>
          Begin again
        </Button>
        <Button type="submit" variant="contained" disabled={form.busy}>
          Record the receipt
        </Button>
      </ViewHead>
      <StoresNav />
      {twin?.of === written && (
        <Sheet tone="live" sx={{ mb: 2 }}>
          <Box role="alert">
            <strong>{twin.fault.what}</strong> {twin.fault.why}
          </Box>
          <Button variant="outlined" sx={{ mt: 1 }} onClick={() => void save(true)()}>
            It is another one: record it
          </Button>
        </Sheet>
      )}
      <Faults faults={form.faults} />
      <Columns of="1fr 300px" from="lg">
        <Stack>
          <Sheet>
            <Cells wide="2fr 1fr 1fr" mt={0}>
              <Text at={at('supplier')} label="Supplier" />
              <Day at={at('day')} label="Day on the receipt" />
              <Text at={at('number')} label="Its number" />
            </Cells>
          </Sheet>
          {lines.fields.map((line, i) => (
            <LineSheet
              key={line.key}
              index={i}
              itemId={texts.lines[i]?.itemId ?? ''}
              items={items}
              landed={landed?.lines[i] ?? null}
              later={texts.lines[i]?.pricedBy === 'later'}
              at={name => at(`lines.${i}.${name}`)}
              onItem={itemId => setItem(i, itemId)}
              onRemove={lines.fields.length > 1 ? () => lines.remove(i) : undefined}
            />
          ))}
          <Button variant="outlined" sx={{ justifySelf: 'start' }} onClick={() => lines.append(newLine())}>
            Add a line
          </Button>
        </Stack>
        <Sheet title="In the end" sx={{ position: { lg: 'sticky' }, top: 12 }}>
          <Stack gap={1.5}>
            <Money at={at('discount')} label="Discount on all" />
            <Money at={at('tax')} label="Tax" />
            <Money at={at('delivery')} label="Delivery" />
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
          </Stack>
        </Sheet>
      </Columns>
      {adding !== null && (
        <ItemDialog
          onClose={saved => {
            if (saved) setItem(adding, saved.id, saved.unit);
            setAdding(null);
          }}
        />
      )}
    </form>
  );
}
