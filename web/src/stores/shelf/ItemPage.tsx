import { openLot } from '@cocotte/contract';
import { type Fault, dayText, numberText } from '@cocotte/core/measure';
import { jarSize } from '@cocotte/core/jars';
import type { Item, Lot } from '@cocotte/core/stores';
import { Box, Button, FormControlLabel, Link as MuiLink, Switch } from '@mui/material';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { v7 } from 'uuid';
import { call, faultsOf } from '../../shell/call.ts';
import { Columns, Facts, Line } from '../../kit/layout.tsx';
import { List, type Listed, pagesOf } from '../../kit/List.tsx';
import { Faults, Nothing, Sheet, Soft, Tag, ViewHead } from '../../kit/parts.tsx';
import { useHere, useMay } from '../../shell/session.tsx';
import { Loaded } from '../../kit/Loaded.tsx';
import { useLotsOf, useShelf, useStockChanged } from '../api.ts';
import { StoresNav } from '../StoresNav.tsx';
import { KIND_WORDS, stockText, unitCostText } from '../words.ts';
import { ItemDialog } from './ItemDialog.tsx';
import { LotDialog } from './LotDialog.tsx';
import { MixDialog } from './MixDialog.tsx';
import { PrepareDialog } from './PrepareDialog.tsx';

/** One item: its lots in the order they are drawn, and what can be done with them. */
export function ItemPage() {
  const { itemId = '' } = useParams();
  const shelf = useShelf();
  return (
    <Loaded query={shelf}>
      {data => {
        const found = data.shelf.find(s => s.item.id === itemId);
        if (!found) return <Nothing>This item is not in this kitchen.</Nothing>;
        return (
          <Opened item={found.item} lots={found.lots} reserved={found.reserved} refetch={shelf.refetch} />
        );
      }}
    </Loaded>
  );
}

function Opened({
  item,
  lots,
  reserved,
  refetch,
}: {
  item: Item;
  lots: Lot[];
  reserved: string;
  refetch: () => Promise<unknown>;
}) {
  const { kitchen } = useHere();
  const mayChange = useMay('cook');
  const changed = useStockChanged();
  const [dialog, setDialog] = useState<'item' | 'lot' | 'mix' | 'prepare' | null>(null);
  const [empty, setEmpty] = useState(false);
  const [faults, setFaults] = useState<Fault[]>([]);
  const [closed, setClosed] = useState<Lot | null>(null);
  const older = useLotsOf(item.id, true);
  const listed: Listed<Lot> = empty ? pagesOf(older, p => p.lots.map(l => l.lot)) : { rows: lots };
  const next = lots.find(l => l.openedOn === null);
  const open = async (lot: Lot) => {
    try {
      const reply = await call(openLot, { params: { lotId: lot.id }, body: { id: v7() } });
      setFaults([]);
      setClosed(reply.closed);
    } catch (error) {
      setFaults(faultsOf(error));
    }
    await changed();
  };
  const total = lots.reduce((n, l) => n + Number(l.onHand), 0);
  const facts: [string, string][] = [
    ['There is', item.kind === 'tool' ? '' : stockText(String(total), item, kitchen)],
    ['For planned batches', Number(reserved) > 0 ? stockText(reserved, item, kitchen) : ''],
    ['Least to have', item.minimum === null ? '' : stockText(item.minimum, item, kitchen)],
    ['Size', item.jarSize ? jarSize(item.jarSize).name : ''],
    ['Mouth', item.mouth ?? ''],
    ['To the brim', item.brim_mL === null ? '' : `${numberText(item.brim_mL, kitchen, 0)} mL`],
    ['Empty', item.tare_g === null ? '' : `${numberText(item.tare_g, kitchen, 0)} g`],
    ['State', item.toolState ?? ''],
    ['On the label', item.labelName],
    ['Made of', item.subIngredients],
    ['Allergens', item.allergens.join(', ')],
    ['Sold in', item.packages.map(p => `${p.name} (${stockText(p.quantity, item, kitchen)})`).join(', ')],
    ['Here after', item.leadTime_days > 0 ? `${item.leadTime_days} days` : ''],
  ];
  return (
    <>
      <ViewHead title={item.name} detail={KIND_WORDS[item.kind]}>
        {mayChange && (
          <Button variant="outlined" onClick={() => setDialog('item')}>
            Change it
          </Button>
        )}
        {mayChange && item.kind === 'ingredient' && (
          <Button variant="outlined" onClick={() => setDialog('prepare')}>
            Make a lot of it
          </Button>
        )}
        {mayChange && item.kind !== 'tool' && (
          <Button variant="outlined" onClick={() => setDialog('lot')}>
            Add a lot
          </Button>
        )}
        {mayChange && next && (
          <Button variant="contained" onClick={() => void open(next)}>
            Opened a new one: {next.label}
          </Button>
        )}
      </ViewHead>
      <StoresNav />
      <Faults faults={faults} />
      {closed && (
        <Box role="status" sx={{ mb: 2 }}>
          <Sheet tone="live">
            Lot {closed.label} is taken as used up.{' '}
            <Button component={Link} to={`/stores/lots/${closed.id}`} size="small" variant="outlined">
              It was not empty
            </Button>
          </Sheet>
        </Box>
      )}
      <Columns of="1fr 320px">
        {item.kind === 'tool' ? (
          <Sheet>Tools are not used up. Change the item to say how it is: good, worn or out of use.</Sheet>
        ) : (
          <Sheet
            title="Lots"
            aside={
              <FormControlLabel
                control={<Switch checked={empty} onChange={(_, on) => setEmpty(on)} />}
                label="Used-up lots too"
              />
            }
          >
            <List
              label="Lots"
              minWidth={520}
              {...listed}
              keyOf={l => l.id}
              nothing="No lot has anything left."
              columns={[
                {
                  head: 'Lot',
                  order: l => l.label,
                  cell: l => (
                    <>
                      <MuiLink component={Link} to={`/stores/lots/${l.id}`} sx={{ fontWeight: 650 }}>
                        {l.label}
                      </MuiLink>{' '}
                      {l.openedOn !== null && Number(l.onHand) > 0 && <Tag tone="plain">open</Tag>}{' '}
                      {l.strength_pct !== null && (
                        <Tag tone={l.strength_pct < 5 ? 'live' : 'plain'}>
                          {numberText(l.strength_pct, kitchen)} %
                        </Tag>
                      )}{' '}
                      <Soft>{l.facts.salt ?? l.facts.juice ?? l.facts.condition}</Soft>
                    </>
                  ),
                },
                {
                  head: 'Left',
                  figure: true,
                  order: l => Number(l.onHand),
                  cell: l => stockText(l.onHand, item, kitchen),
                },
                {
                  head: 'Cost',
                  figure: true,
                  order: l => Number(l.unitCost),
                  cell: l => unitCostText(l.unitCost, item, kitchen),
                },
                { head: 'From', order: l => l.supplier, cell: l => l.supplier },
                {
                  head: 'Came',
                  whole: true,
                  order: l => l.receivedOn,
                  cell: l => (
                    <>
                      {dayText(l.receivedOn, kitchen)}
                      {l.bestBy && (
                        <Soft sx={{ display: 'block' }}>best by {dayText(l.bestBy, kitchen)}</Soft>
                      )}
                    </>
                  ),
                },
              ]}
            />
            {mayChange && lots.length > 1 && (
              <Line mt={1.5}>
                {/* What is in the bin is proposed by what is there now, not by what the page last read. */}
                <Button variant="outlined" onClick={() => void refetch().then(() => setDialog('mix'))}>
                  Poured together
                </Button>
                <Soft>A refilled bin is a lot of its own, and traces to what is in it.</Soft>
              </Line>
            )}
          </Sheet>
        )}
        <Sheet title="What is known">
          <Facts of={facts} />
        </Sheet>
      </Columns>
      {dialog === 'item' && <ItemDialog item={item} onClose={() => setDialog(null)} />}
      {dialog === 'lot' && <LotDialog itemId={item.id} onClose={() => setDialog(null)} />}
      {dialog === 'mix' && <MixDialog item={item} lots={lots} onClose={() => setDialog(null)} />}
      {dialog === 'prepare' && <PrepareDialog item={item} onClose={() => setDialog(null)} />}
    </>
  );
}
