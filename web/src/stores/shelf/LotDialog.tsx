import { receiveLot } from '@cocotte/contract';
import { Decimal, type UnitId, dayOf } from '@cocotte/core/measure';
import { UNIT_COST_PLACES, inItemUnit, plainFacts } from '@cocotte/core/stores';
import { useState } from 'react';
import { v7 } from 'uuid';
import { Day, Figure, Money, Pick, Text } from '../../kit/fields.tsx';
import { useTyped } from '../../kit/form.ts';
import { FormDialog } from '../../kit/FormDialog.tsx';
import { Cells } from '../../kit/layout.tsx';
import { Nothing } from '../../kit/parts.tsx';
import { anyWords, orElse, orNone, useRead, words, wordsOrNone } from '../../kit/readers.ts';
import { call } from '../../shell/call.ts';
import { kitchenNow } from '../../shell/clock.ts';
import { useHere } from '../../shell/session.tsx';
import { useItems, useStockChanged } from '../api.ts';
import { FactFields, NO_FACTS, factReaders, factsOf } from '../FactFields.tsx';
import { BUYING_UNIT_WORDS } from '../words.ts';

const SOURCES = ['own harvest', 'gift', 'on the shelf'] as const;

/** A lot that came without a receipt: own harvest, a gift, what stood on the shelf; with its own value. */
export function LotDialog({ itemId: given, onClose }: { itemId?: string; onClose: () => void }) {
  const { kitchen } = useHere();
  const { data } = useItems();
  const changed = useStockChanged();
  const read = useRead();
  const [id] = useState(() => v7());
  const items = (data?.items ?? []).filter(i => i.kind !== 'tool');
  const itemOf = (itemId: string) => items.find(i => i.id === itemId) ?? items[0];
  const form = useTyped(
    {
      ...NO_FACTS,
      itemId: given ?? items[0]?.id ?? '',
      source: SOURCES[0] as (typeof SOURCES)[number],
      label: '',
      supplier: '',
      receivedOn: dayOf(kitchenNow(), kitchen.zone),
      bestBy: '',
      quantity: '',
      unit: '' as UnitId | '',
      value: '',
      strength_pct: '',
    },
    ({ itemId, unit }) => ({
      ...factReaders,
      label: words('The lot name'),
      supplier: anyWords,
      receivedOn: words('The day it came'),
      bestBy: wordsOrNone,
      quantity: (t: string) => {
        const item = itemOf(itemId);
        const quantity = read.decimal({ name: 'The quantity', min: 0, above: true, max: 10_000_000 }, 9)(t);
        return quantity.ok && item ? inItemUnit(item, quantity.value, unit || item.unit) : quantity;
      },
      value: orElse('0', read.decimal({ name: 'The value', min: 0, max: 1_000_000 })),
      strength_pct: orNone(read.figure({ name: 'The strength', min: 0, max: 30, unit: ' %' })),
    }),
  );
  const { at } = form;
  const item = itemOf(form.typed('itemId'));
  const save = form.submit(async v => {
    if (!item) return;
    const worth = new Decimal(v.value);
    await call(receiveLot, {
      body: {
        id,
        itemId: item.id,
        label: v.label,
        supplier: v.supplier,
        receivedOn: v.receivedOn,
        bestBy: v.bestBy,
        unitCost: worth.div(v.quantity).toDecimalPlaces(UNIT_COST_PLACES).toFixed(),
        strength_pct: item.use === 'vinegar' ? v.strength_pct : null,
        facts: plainFacts({
          ...factsOf(v),
          source: v.source,
          value: worth.isZero() ? 'nothing' : 'market value',
        }),
        quantity: v.quantity,
      },
    });
    await changed();
    onClose();
  });
  return (
    <FormDialog
      title="Add a lot without receipt"
      action="Put it on the shelf"
      form={form}
      disabled={!item}
      onClose={onClose}
      onSubmit={save}
    >
      {item ? (
        <Cells>
          <Pick at={at('itemId')} label="Item" of={items.map(i => [i.id, i.name] as const)} />
          <Pick at={at('source')} label="How it came" of={SOURCES} />
          <Text at={at('label')} label="Lot name" />
          <Cells wide="1fr 92px" narrow="1fr 92px" gap={1} mt={0}>
            <Figure at={at('quantity')} label="Quantity" />
            <Pick at={at('unit')} label="Unit" of={BUYING_UNIT_WORDS} usual={item.unit} />
          </Cells>
          <Money
            at={at('value')}
            label="Worth, all of it"
            hint="What the market asks that day; empty for nothing"
          />
          <Text at={at('supplier')} label="From" />
          <Day at={at('receivedOn')} label="Day it came" />
          <Day at={at('bestBy')} label="Best by" />
          {item.use === 'vinegar' && (
            <Figure at={at('strength_pct')} label="Strength on the bottle" unit="%" />
          )}
          <FactFields use={item.use} at={at} />
        </Cells>
      ) : (
        <Nothing>Add the item first: a lot is of something.</Nothing>
      )}
    </FormDialog>
  );
}
