import { type LotRow, type LotView, type MoveLot, moveLot, priceLot } from '@cocotte/contract';
import { type Fault, dayText, instantText, massText, numberText } from '@cocotte/core/measure';
import { contentsOf, unitSign } from '@cocotte/core/stores';
import { Box, Button, Link as MuiLink } from '@mui/material';
import { type ReactNode, useState } from 'react';
import { Link, useParams } from 'react-router';
import { v7 } from 'uuid';
import { EntryForm } from '../../kit/EntryForm.tsx';
import { Figure, Money, Pick, Text } from '../../kit/fields.tsx';
import { useTyped } from '../../kit/form.ts';
import { Columns, Facts, Stack } from '../../kit/layout.tsx';
import { List } from '../../kit/List.tsx';
import { Faults, Sheet, Soft, Tag, ViewHead } from '../../kit/parts.tsx';
import { useRead, words } from '../../kit/readers.ts';
import { Loaded } from '../../kit/Loaded.tsx';
import { call, faultsOf } from '../../shell/call.ts';
import { useHere, useMay } from '../../shell/session.tsx';
import { say } from '../../words/views.ts';
import { useLot, useStockChanged } from '../api.ts';
import { StoresNav } from '../StoresNav.tsx';
import { REASON_WORDS, SOURCE_WORDS, stockText, unitCostText } from '../words.ts';

/** One lot: what it says of itself, every movement, and where it came from and went. */
export function LotPage() {
  const { lotId = '' } = useParams();
  return <Loaded query={useLot(lotId)}>{view => <Opened view={view} />}</Loaded>;
}

function Opened({ view }: { view: LotView }) {
  const { kitchen } = useHere();
  const mayMove = useMay('cook');
  const { lot, item, movements } = view;
  const contents = contentsOf(item, lot.facts);
  return (
    <>
      <ViewHead
        title={`Lot ${lot.label}`}
        detail={
          <>
            <MuiLink component={Link} to={`/stores/items/${item.id}`}>
              {item.name}
            </MuiLink>
            {!lot.facts.released && (
              <>
                {' '}
                <Tag tone="ox">not for batches that are sold</Tag>
              </>
            )}
          </>
        }
      />
      <StoresNav />
      <Columns of="1fr 360px">
        <Stack>
          {mayMove && Number(lot.onHand) < 0 && <ShortSheet view={view} />}
          {mayMove && lot.facts.value === 'price to come' && <PriceSheet lotId={lot.id} />}
          <Sheet title="Movements" aside="never edited, only added">
            <List
              label="Movements"
              minWidth={480}
              rows={movements}
              keyOf={m => m.id}
              columns={[
                {
                  head: 'When',
                  whole: true,
                  cell: m => instantText(Date.parse(m.at), kitchen),
                  order: m => m.at,
                },
                {
                  head: 'What',
                  order: m => REASON_WORDS[m.reason],
                  cell: m => (
                    <>
                      {REASON_WORDS[m.reason]}{' '}
                      {m.batchId && (
                        <MuiLink component={Link} to={`/records/${m.batchId}`}>
                          {m.lotCode}
                        </MuiLink>
                      )}
                      {m.note && <Soft sx={{ display: 'block' }}>{m.note}</Soft>}
                    </>
                  ),
                },
                {
                  head: 'Change',
                  figure: true,
                  sx: { fontWeight: 650 },
                  order: m => Number(m.quantity),
                  cell: m =>
                    `${Number(m.quantity) > 0 ? '+' : '−'}${numberText(Math.abs(Number(m.quantity)), kitchen, item.unit === 'each' ? 0 : 1)} ${unitSign(item.unit)}`,
                },
                { head: 'Who', cell: m => m.person },
              ]}
            />
          </Sheet>
          <TraceSheet view={view} />
        </Stack>
        <Stack>
          <Sheet title="What it says">
            <Facts
              of={[
                ['Left', stockText(lot.onHand, item, kitchen)],
                [
                  'Cost',
                  lot.facts.value === 'price to come'
                    ? say('lot.noPrice')
                    : unitCostText(lot.unitCost, item, kitchen),
                ],
                ['How it came', SOURCE_WORDS[lot.facts.source]],
                ['Valued by', lot.facts.value === 'paid' ? 'what was paid' : lot.facts.value],
                ['From', lot.supplier],
                ['Their lot', lot.facts.supplierLot],
                ['Came', dayText(lot.receivedOn, kitchen)],
                ['Best by', lot.bestBy && dayText(lot.bestBy, kitchen)],
                ['Opened', lot.openedOn && dayText(lot.openedOn, kitchen)],
                ['Strength', lot.strength_pct !== null && `${numberText(lot.strength_pct, kitchen)} %`],
                ['Kind', lot.facts.salt ?? lot.facts.juice],
                ['Condition', lot.facts.condition],
                ['Picked', lot.facts.pickedOn && dayText(lot.facts.pickedOn, kitchen)],
                ['Highest pH', lot.facts.ph !== null && numberText(lot.facts.ph, kitchen)],
                ['Made of', contents.subIngredients],
                ['Allergens', contents.allergens.join(', ')],
                ['Note', lot.facts.note],
                [
                  'Receipt',
                  lot.receiptId && (
                    <MuiLink key="receipt" component={Link} to={`/stores/receipts/${lot.receiptId}`}>
                      the receipt it came with
                    </MuiLink>
                  ),
                ],
              ]}
            />
          </Sheet>
          {mayMove && <MoveSheet view={view} usedUp={movements[0]?.reason === 'used up'} />}
        </Stack>
      </Columns>
    </>
  );
}

function TraceSheet({ view: { lot, item, trace } }: { view: LotView }) {
  const { kitchen } = useHere();
  const lots = (rows: LotRow[]) =>
    rows.map(({ lot: l, item: of }) => (
      <li key={l.id}>
        <MuiLink component={Link} to={`/stores/lots/${l.id}`}>
          {of.name}, lot {l.label}
        </MuiLink>{' '}
        <Soft>{l.supplier}</Soft>
      </li>
    ));
  const batch = (id: string, name: string, code: string, more: string) => (
    <li key={id}>
      <MuiLink component={Link} to={`/records/${id}`}>
        {name}, lot {code}
      </MuiLink>{' '}
      <Soft>{more}</Soft>
    </li>
  );
  const jars = lot.facts.from.flatMap(p =>
    p.kind === 'jars'
      ? [batch(p.batchId, p.name, p.lotCode, `jars ${p.jars.join(', ')}`)]
      : p.kind === 'pot'
        ? [batch(p.batchId, p.name, p.lotCode, massText(p.mass_g, kitchen))]
        : [],
  );
  const parts: [string, ReactNode[]][] = [
    ['Came out of', [...jars, ...lots(trace.from)]],
    ['Went into lots', lots(trace.into)],
    [
      'Went into batches',
      trace.batches.map(b => batch(b.batchId, b.name, b.lotCode, stockText(b.quantity, item, kitchen))),
    ],
  ];
  const there = parts.filter(([, list]) => list.length > 0);
  if (there.length === 0) return null;
  return (
    <Sheet title="Trace">
      {there.map(([name, list]) => (
        <Box key={name}>
          <Soft>{name}</Soft>
          <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
            {list}
          </Box>
        </Box>
      ))}
    </Sheet>
  );
}

/** More was used than the books had: one tap says that it was there. */
function ShortSheet({ view: { lot, item } }: { view: LotView }) {
  const { kitchen } = useHere();
  const changed = useStockChanged();
  const [id] = useState(() => v7());
  const [faults, setFaults] = useState<Fault[]>([]);
  const count = async () => {
    try {
      const body = { id, kind: 'count' as const, quantity: '0', reason: say('lot.short.reason') };
      await call(moveLot, { params: { lotId: lot.id }, body });
    } catch (error) {
      setFaults(faultsOf(error));
    }
    await changed();
  };
  return (
    <Sheet tone="live">
      {say('lot.short', { quantity: stockText(String(-Number(lot.onHand)), item, kitchen) })}
      <Box sx={{ mt: 1.5 }}>
        <Button variant="contained" onClick={() => void count()}>
          {say('lot.short.count')}
        </Button>
      </Box>
      <Faults faults={faults} />
    </Sheet>
  );
}

const KINDS = [
  ['count', 'Counted: there is'],
  ['loss', 'Lost or thrown out'],
  ['to supplier', 'Back to the supplier'],
] as const;

function MoveSheet({ view: { lot, item }, usedUp }: { view: LotView; usedUp: boolean }) {
  const changed = useStockChanged();
  const read = useRead();
  const [id, setId] = useState(() => v7());
  const form = useTyped({ kind: 'count' as MoveLot['kind'], quantity: '', reason: '' }, ({ kind }) => ({
    quantity: read.decimal({ name: 'The quantity', min: 0, above: kind !== 'count', max: 1e7 }),
    reason: words('The reason'),
  }));
  const { at } = form;
  const send = async (body: Omit<MoveLot, 'id'>) => {
    await call(moveLot, { params: { lotId: lot.id }, body: { id, ...body } });
    form.again({ kind: form.typed('kind') });
    setId(v7());
    await changed();
  };
  return (
    <Sheet title="Put it right">
      {usedUp && (
        <Button
          variant="contained"
          sx={{ mb: 2 }}
          onClick={() =>
            void form.attempt(() =>
              send({ kind: 'undo used up', quantity: '0', reason: 'It was not empty.' }),
            )
          }
        >
          It was not empty: take that back
        </Button>
      )}
      <form noValidate onSubmit={form.submit(send)}>
        <Stack gap={1.5}>
          <Pick at={at('kind')} label="What happened" of={KINDS} />
          <Figure at={at('quantity')} label="How much" unit={item.unit === 'each' ? undefined : item.unit} />
          <Text at={at('reason')} label="Why" />
          <Button type="submit" variant="outlined" disabled={form.busy}>
            Add the movement
          </Button>
        </Stack>
      </form>
      <Faults faults={form.faults} />
    </Sheet>
  );
}

/** What came without a price gets it. */
function PriceSheet({ lotId }: { lotId: string }) {
  const changed = useStockChanged();
  const read = useRead();
  const form = useTyped({ price: '' }, () => ({
    price: read.decimal({ name: 'The price', min: 0, max: 1_000_000 }, 9),
  }));
  const save = form.submit(async ({ price }) => {
    await call(priceLot, { params: { lotId }, body: { price } });
    await changed();
  });
  return (
    <EntryForm form={form} action={say('lot.price.action')} onSubmit={save}>
      <Soft>{say('lot.price.why')}</Soft>
      <Money at={form.at('price')} label={say('lot.price')} />
    </EntryForm>
  );
}
