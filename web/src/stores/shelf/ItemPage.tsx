import { openLot } from '@cocotte/contract';
import { type Fault, dayText, numberText } from '@cocotte/core/measure';
import { jarSize } from '@cocotte/core/jars';
import type { Item, Lot } from '@cocotte/core/stores';
import {
  Box,
  Button,
  FormControlLabel,
  Link as MuiLink,
  Switch,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
} from '@mui/material';
import { Fragment, useState } from 'react';
import { Link, useParams } from 'react-router';
import { v7 } from 'uuid';
import { call, faultsOf } from '../../shell/call.ts';
import { Faults, Nothing, Sheet, ShowMore, Soft, Tag, ViewHead } from '../../shell/parts.tsx';
import { useHere, useMay } from '../../shell/session.tsx';
import { Waiting } from '../../shell/Shell.tsx';
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
  const { data, error } = useShelf();
  if (error) return <Faults faults={faultsOf(error)} />;
  if (!data) return <Waiting />;
  const found = data.shelf.find(s => s.item.id === itemId);
  if (!found) return <Nothing>This item is not in this kitchen.</Nothing>;
  return <Opened key={itemId} item={found.item} lots={found.lots} reserved={found.reserved} />;
}

function Opened({ item, lots, reserved }: { item: Item; lots: Lot[]; reserved: string }) {
  const { kitchen } = useHere();
  const mayChange = useMay('cook');
  const changed = useStockChanged();
  const [dialog, setDialog] = useState<'item' | 'lot' | 'mix' | 'prepare' | null>(null);
  const [empty, setEmpty] = useState(false);
  const [faults, setFaults] = useState<Fault[]>([]);
  const [closed, setClosed] = useState<Lot | null>(null);
  const older = useLotsOf(item.id, true);
  const shown = empty ? (older.data?.pages.flatMap(p => p.lots.map(l => l.lot)) ?? []) : lots;
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
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: 'minmax(0, 1fr) 320px' },
          gap: 2,
          alignItems: 'start',
        }}
      >
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
            sx={{ overflowX: 'auto' }}
          >
            {shown.length > 0 ? (
              <Table size="small" sx={{ minWidth: 520 }}>
                <TableHead>
                  <TableRow>
                    <TableCell>Lot</TableCell>
                    <TableCell align="right">Left</TableCell>
                    <TableCell align="right">Cost</TableCell>
                    <TableCell sx={{ pl: 4 }}>From</TableCell>
                    <TableCell>Came</TableCell>
                  </TableRow>
                </TableHead>
                <TableBody>
                  {shown.map(lot => (
                    <TableRow key={lot.id}>
                      <TableCell>
                        <MuiLink component={Link} to={`/stores/lots/${lot.id}`} sx={{ fontWeight: 650 }}>
                          {lot.label}
                        </MuiLink>{' '}
                        {lot.openedOn !== null && Number(lot.onHand) > 0 && <Tag tone="plain">open</Tag>}{' '}
                        {lot.strength_pct !== null && (
                          <Tag tone={lot.strength_pct < 5 ? 'live' : 'plain'}>{lot.strength_pct} %</Tag>
                        )}{' '}
                        {(lot.facts.salt ?? lot.facts.juice ?? lot.facts.condition) && (
                          <Soft>{lot.facts.salt ?? lot.facts.juice ?? lot.facts.condition}</Soft>
                        )}
                      </TableCell>
                      <TableCell align="right" sx={{ whiteSpace: 'nowrap' }}>
                        {stockText(lot.onHand, item, kitchen)}
                      </TableCell>
                      <TableCell align="right" sx={{ whiteSpace: 'nowrap' }}>
                        {unitCostText(lot.unitCost, item, kitchen)}
                      </TableCell>
                      <TableCell sx={{ pl: 4 }}>{lot.supplier}</TableCell>
                      <TableCell sx={{ whiteSpace: 'nowrap' }}>
                        {dayText(lot.receivedOn, kitchen)}
                        {lot.bestBy && (
                          <Box>
                            <Soft>best by {dayText(lot.bestBy, kitchen)}</Soft>
                          </Box>
                        )}
                      </TableCell>
                    </TableRow>
                  ))}
                </TableBody>
              </Table>
            ) : (
              <Nothing>No lot has anything left.</Nothing>
            )}
            {empty && <ShowMore list={older} />}
            {mayChange && lots.length > 1 && (
              <Box sx={{ mt: 1.5, display: 'flex', gap: 1.5, alignItems: 'center', flexWrap: 'wrap' }}>
                <Button variant="outlined" onClick={() => setDialog('mix')}>
                  Poured together
                </Button>
                <Soft>A refilled bin is a lot of its own, and traces to what is in it.</Soft>
              </Box>
            )}
          </Sheet>
        )}
        <Sheet title="What is known">
          <Box
            component="dl"
            sx={{
              display: 'grid',
              gridTemplateColumns: '120px 1fr',
              gap: 0.75,
              m: 0,
              '& dt': { color: 'text.secondary' },
              '& dd': { m: 0 },
            }}
          >
            {facts
              .filter(([, v]) => v !== '')
              .map(([k, v]) => (
                <Fragment key={k}>
                  <dt>{k}</dt>
                  <dd>{v}</dd>
                </Fragment>
              ))}
          </Box>
        </Sheet>
      </Box>
      {dialog === 'item' && <ItemDialog item={item} onClose={() => setDialog(null)} />}
      {dialog === 'lot' && <LotDialog itemId={item.id} onClose={() => setDialog(null)} />}
      {dialog === 'mix' && <MixDialog item={item} lots={lots} onClose={() => setDialog(null)} />}
      {dialog === 'prepare' && <PrepareDialog item={item} onClose={() => setDialog(null)} />}
    </>
  );
}
