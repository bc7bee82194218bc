import { dayText, moneyText, numberText } from '@cocotte/core/measure';
import {
  Box,
  Button,
  FormControlLabel,
  Switch,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
  TextField,
} from '@mui/material';
import { useDeferredValue, useState } from 'react';
import { useSearchParams } from 'react-router';
import { Nothing, Sheet, Soft, Tag, ViewHead } from '../shell/parts.tsx';
import { useHere, useMay } from '../shell/session.tsx';
import { ItemDialog } from './ItemDialog.tsx';
import { PurchaseDialog } from './PurchaseDialog.tsx';
import { useLots } from './api.ts';

/** The lots: what is on the shelf, from whom, at what price. */
export function StoresPage() {
  const { kitchen } = useHere();
  const mayAdd = useMay('cook');
  const [params] = useSearchParams();
  const wanted = params.get('lot');
  const [search, setSearch] = useState('');
  const [empty, setEmpty] = useState(wanted !== null);
  const [open, setOpen] = useState<'item' | 'purchase' | null>(null);
  const { data, hasNextPage, fetchNextPage } = useLots(useDeferredValue(search.trim()), empty);
  const rows = data?.pages.flatMap(p => p.lots) ?? [];
  return (
    <>
      <ViewHead title="Stores" detail="Lots of ingredients, jars and lids.">
        {mayAdd && (
          <Button variant="outlined" onClick={() => setOpen('item')}>
            Add an item
          </Button>
        )}
        {mayAdd && (
          <Button variant="contained" onClick={() => setOpen('purchase')}>
            Record a purchase
          </Button>
        )}
      </ViewHead>
      <Sheet>
        <Box sx={{ display: 'flex', gap: 2, alignItems: 'center', flexWrap: 'wrap', mb: 1 }}>
          <TextField
            label="Find a lot"
            value={search}
            onChange={e => setSearch(e.target.value)}
            sx={{ width: 260 }}
          />
          <FormControlLabel
            control={<Switch checked={empty} onChange={(_, on) => setEmpty(on)} />}
            label="Used-up lots too"
          />
        </Box>
        {rows.length > 0 ? (
          <Box sx={{ overflowX: 'auto' }}>
            <Table size="small" sx={{ minWidth: 560 }}>
              <TableHead>
                <TableRow>
                  <TableCell>Item</TableCell>
                  <TableCell>Lot</TableCell>
                  <TableCell align="right">Left</TableCell>
                  <TableCell align="right">Cost of one</TableCell>
                  <TableCell>From</TableCell>
                  <TableCell>Came</TableCell>
                </TableRow>
              </TableHead>
              <TableBody>
                {rows.map(({ lot, item }) => (
                  <TableRow key={lot.id} selected={lot.id === wanted}>
                    <TableCell sx={{ fontWeight: 650 }}>
                      {item.name}
                      {lot.strength_pct !== null && (
                        <>
                          {' '}
                          <Tag tone={lot.strength_pct < 5 ? 'live' : 'plain'}>{lot.strength_pct} %</Tag>
                        </>
                      )}
                    </TableCell>
                    <TableCell>{lot.label}</TableCell>
                    <TableCell align="right" sx={{ whiteSpace: 'nowrap' }}>
                      {numberText(Number(lot.onHand), kitchen, item.unit === 'each' ? 0 : 1)}{' '}
                      {item.unit === 'each' ? '' : item.unit}
                    </TableCell>
                    <TableCell align="right" sx={{ whiteSpace: 'nowrap' }}>
                      {item.unit === 'each' ? (
                        moneyText(lot.unitCost, kitchen)
                      ) : (
                        <>
                          {moneyText(String(Number(lot.unitCost) * 1000), kitchen)}{' '}
                          <Soft>a {item.unit === 'g' ? 'kg' : 'L'}</Soft>
                        </>
                      )}
                    </TableCell>
                    <TableCell>{lot.supplier}</TableCell>
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
          </Box>
        ) : (
          data && (
            <Nothing>
              {search
                ? 'No lot has these words.'
                : 'The shelf is empty. Add an item, then record a purchase of it.'}
            </Nothing>
          )
        )}
        {hasNextPage && (
          <Box sx={{ textAlign: 'center', mt: 2 }}>
            <Button variant="outlined" onClick={() => void fetchNextPage()}>
              Show more
            </Button>
          </Box>
        )}
      </Sheet>
      {open === 'item' && <ItemDialog onClose={() => setOpen(null)} />}
      {open === 'purchase' && <PurchaseDialog onClose={() => setOpen(null)} />}
    </>
  );
}
