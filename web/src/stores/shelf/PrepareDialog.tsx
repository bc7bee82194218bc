import { type Prepare, prepareLot } from '@cocotte/contract';
import { Decimal, addDays, dayOf } from '@cocotte/core/measure';
import { type Item, UNIT_COST_PLACES } from '@cocotte/core/stores';
import { Button } from '@mui/material';
import { useState } from 'react';
import { v7 } from 'uuid';
import { Day, Figure, Money, Pick, Text } from '../../kit/fields.tsx';
import { useRows, useTyped } from '../../kit/form.ts';
import { FormDialog } from '../../kit/FormDialog.tsx';
import { Cells } from '../../kit/layout.tsx';
import { Soft } from '../../kit/parts.tsx';
import { anyWords, chosen, orElse, rows, unasked, useRead, words } from '../../kit/readers.ts';
import { call } from '../../shell/call.ts';
import { kitchenNow } from '../../shell/clock.ts';
import { useHere } from '../../shell/session.tsx';
import { useShelf, useStockChanged } from '../api.ts';
import { stockText } from '../words.ts';

type How = Prepare['how'];
const HOW = {
  frozen: ['frozen', 300],
  dried: ['dried', 365],
  juice: ['pressed to juice', 3],
  mixed: ['mixed', 180],
  other: ['another way', 30],
} satisfies Record<How, [words: string, keeps_days: number]>;
const VALUES = ['cost of what went in', 'cost and work', 'market value', 'nothing'] as const;

const pieces = (unit: Item['unit']) => (unit === 'each' ? 'pieces' : unit);

/** Makes a lot of an ingredient without jars: what went in, what came out, how long it keeps and what it is worth. */
export function PrepareDialog({ item, onClose }: { item: Item; onClose: () => void }) {
  const { kitchen } = useHere();
  const { data } = useShelf();
  const changed = useStockChanged();
  const read = useRead();
  const [lotId] = useState(() => v7());
  const keeps = (how: How) => addDays(dayOf(kitchenNow(), kitchen.zone), HOW[how][1]);
  const lots = (data?.shelf ?? [])
    .filter(s => s.item.kind === 'ingredient')
    .flatMap(s => s.lots.map(lot => ({ lot, item: s.item })));
  const amount = (name: string) => read.decimal({ name, min: 0, above: true, max: 1e7 });
  const form = useTyped(
    {
      how: 'frozen' as How,
      value: VALUES[0] as Prepare['value'],
      label: '',
      parts: [{ lotId: '', quantity: '' }],
      quantity: '',
      keepsUntil: keeps('frozen'),
      minutes: '',
      unitCost: '',
      note: '',
    },
    ({ value }) => ({
      label: words('The lot name'),
      parts: rows(() => ({
        lotId: chosen<string>(
          'Nothing was chosen.',
          'What is made traces to what it is made of.',
          'Choose a lot.',
        ),
        quantity: amount('The quantity'),
      })),
      quantity: amount('What came out'),
      keepsUntil: words('The keeping limit'),
      minutes:
        value === 'cost and work'
          ? orElse(0, read.figure({ name: 'The minutes', min: 0, max: 1440 }))
          : unasked(0),
      unitCost:
        value === 'market value'
          ? orElse('0', read.decimal({ name: 'The value', min: 0, max: 1e6 }))
          : unasked('0'),
      note: anyWords,
    }),
  );
  const { at } = form;
  const { how, value, parts: typed } = form.all();
  const parts = useRows(form.form.control, 'parts');
  const save = form.submit(async v => {
    const unitCost = new Decimal(v.unitCost).div(v.quantity).toDecimalPlaces(UNIT_COST_PLACES).toFixed();
    const made = v.parts.map(p => ({ lotId: p.lotId, quantity: p.quantity }));
    await call(prepareLot, { body: { ...v, lotId, itemId: item.id, parts: made, unitCost } });
    await changed();
    onClose();
  });
  return (
    <FormDialog
      title={`Make a lot of ${item.name.toLowerCase()}`}
      action="Make the lot"
      form={form}
      width="md"
      onClose={onClose}
      onSubmit={save}
    >
      <Cells>
        <Pick
          at={at('how')}
          label="How it is kept"
          of={Object.entries(HOW).map(([h, [w]]) => [h, w] as [How, string])}
          onPick={h => form.set('keepsUntil', keeps(h))}
        />
        <Text at={at('label')} label="Lot name" />
        {parts.fields.map((p, i) => {
          const row = lots.find(l => l.lot.id === typed[i]?.lotId);
          return [
            <Pick
              key={`${p.key} lot`}
              at={at(`parts.${i}.lotId`)}
              label={i === 0 ? 'Made of' : 'And of'}
              of={lots.map(
                l =>
                  [
                    l.lot.id,
                    `${l.item.name}, lot ${l.lot.label} (${stockText(l.lot.onHand, l.item, kitchen)} left)`,
                  ] as const,
              )}
            />,
            <Figure
              key={`${p.key} quantity`}
              at={at(`parts.${i}.quantity`)}
              label="Went in"
              unit={row && pieces(row.item.unit)}
            />,
          ];
        })}
        <Button
          variant="outlined"
          onClick={() => parts.append({ lotId: '', quantity: '' })}
          sx={{ gridColumn: '1 / -1', justifySelf: 'start' }}
        >
          Something else went in
        </Button>
        <Figure at={at('quantity')} label="Came out" unit={pieces(item.unit)} />
        <Day at={at('keepsUntil')} label="Keeps until" />
        <Pick at={at('value')} label="What it is worth" of={VALUES} />
        {value === 'cost and work' && <Figure at={at('minutes')} label="Minutes of work" />}
        {value === 'market value' && <Money at={at('unitCost')} label="Worth, all of it" />}
        <Text at={at('note')} label="Note" />
      </Cells>
      {how === 'juice' && item.use === 'citrus juice' && (
        <Soft sx={{ display: 'block', mt: 1 }}>
          Pressed here it counts as fresh: it may not serve where acid is the barrier.
        </Soft>
      )}
    </FormDialog>
  );
}
