import { dayText, fieldText, instantOf, localTextOf, moneyText } from '@cocotte/core/measure';
import { ITEM_KINDS } from '@cocotte/core/stores';
import {
  Box,
  Button,
  MenuItem,
  Link as MuiLink,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
  TextField,
} from '@mui/material';
import { useDeferredValue, useState } from 'react';
import { Link } from 'react-router';
import { kitchenNow } from '../../shell/clock.ts';
import { Nothing, Sheet, ShowMore, Soft, Tag, ViewHead } from '../../shell/parts.tsx';
import { useHere, useMay } from '../../shell/session.tsx';
import { useStock } from '../api.ts';
import { StoresNav } from '../StoresNav.tsx';
import { KIND_WORDS, stockText } from '../words.ts';
import { ItemDialog } from './ItemDialog.tsx';
import { LotDialog } from './LotDialog.tsx';

const wide = { display: { xs: 'none', sm: 'table-cell' } };

/** The shelf: what there is, what it is worth, what runs out and what spoils first; now or at a past instant. */
export function ShelfPage() {
  const { kitchen } = useHere();
  const mayAdd = useMay('cook');
  const [search, setSearch] = useState('');
  const [kind, setKind] = useState('');
  const [only, setOnly] = useState('');
  const [past, setPast] = useState('');
  const [open, setOpen] = useState<'item' | 'lot' | null>(null);
  const at = past ? new Date(instantOf(past, kitchen.zone)).toISOString() : '';
  const list = useStock({
    search: useDeferredValue(search.trim()),
    kind,
    only,
    at,
  });
  const { data, error } = list;
  const rows = data?.pages.flatMap(p => p.rows) ?? [];
  const first = data?.pages[0];
  return (
    <>
      <ViewHead title="Stores" detail="Ingredients, jars, lids and what else a jar is made of.">
        {mayAdd && (
          <Button variant="outlined" onClick={() => setOpen('item')}>
            Add an item
          </Button>
        )}
        {mayAdd && (
          <Button variant="outlined" onClick={() => setOpen('lot')}>
            Add a lot without receipt
          </Button>
        )}
        {mayAdd && (
          <Button component={Link} to="/stores/receipts/new" variant="contained">
            Record a receipt
          </Button>
        )}
      </ViewHead>
      <StoresNav />
      <Sheet>
        <Box
          sx={{ display: 'flex', gap: 1.5, flexWrap: 'wrap', mb: 1.5, alignItems: 'center' }}
          role="search"
        >
          <TextField
            label="Find an item"
            value={search}
            onChange={e => setSearch(e.target.value)}
            sx={{ flex: '1 1 200px', width: 'auto' }}
          />
          <TextField
            select
            label="Kind"
            value={kind}
            onChange={e => setKind(e.target.value)}
            sx={{ width: 150 }}
          >
            <MenuItem value="">all kinds</MenuItem>
            {ITEM_KINDS.map(k => (
              <MenuItem key={k} value={k}>
                {KIND_WORDS[k].toLowerCase()}
              </MenuItem>
            ))}
          </TextField>
          <TextField
            label="As it was at"
            type="datetime-local"
            value={past}
            onChange={e => setPast(e.target.value)}
            slotProps={{
              inputLabel: { shrink: true },
              htmlInput: { max: localTextOf(kitchenNow(), kitchen.zone) },
            }}
            sx={{ width: 220 }}
          />
          {(['below minimum', 'spoiling soon'] as const).map(what => {
            const n = what === 'below minimum' ? first?.below : first?.spoiling;
            return (
              <Button
                key={what}
                variant={only === what ? 'contained' : 'outlined'}
                aria-pressed={only === what}
                onClick={() => setOnly(only === what ? '' : what)}
                disabled={past !== ''}
              >
                {n ?? 0} {what}
              </Button>
            );
          })}
        </Box>
        {past && (
          <Box role="status" sx={{ mb: 1 }}>
            <Tag tone="live">as it was at {past.replace('T', ' ')}</Tag>{' '}
            <Button size="small" onClick={() => setPast('')}>
              Show the shelf of today
            </Button>
          </Box>
        )}
        {rows.length > 0 ? (
          <Table size="small">
            <TableHead>
              <TableRow>
                <TableCell>Item</TableCell>
                <TableCell align="right">There is</TableCell>
                <TableCell align="right" sx={wide}>
                  Planned
                </TableCell>
                <TableCell align="right" sx={wide}>
                  Worth
                </TableCell>
                <TableCell sx={{ ...wide, pl: 4 }}>Open container</TableCell>
                <TableCell sx={wide}>Best by</TableCell>
              </TableRow>
            </TableHead>
            <TableBody>
              {rows.map(r => {
                const short = Number(r.reserved) > Number(r.quantity);
                return (
                  <TableRow key={r.item.id}>
                    <TableCell>
                      <MuiLink component={Link} to={`/stores/items/${r.item.id}`} sx={{ fontWeight: 650 }}>
                        {r.item.name}
                      </MuiLink>{' '}
                      {r.item.kind !== 'ingredient' && <Soft>{KIND_WORDS[r.item.kind].toLowerCase()}</Soft>}{' '}
                      {r.item.toolState && r.item.toolState !== 'good' && (
                        <Tag tone="live">{r.item.toolState}</Tag>
                      )}
                      {r.belowMinimum && (
                        <Box>
                          <Tag tone="live">below {stockText(r.item.minimum ?? '0', r.item, kitchen)}</Tag>
                        </Box>
                      )}
                    </TableCell>
                    <TableCell align="right" sx={{ whiteSpace: 'nowrap' }}>
                      {r.item.kind === 'tool' ? '' : stockText(r.quantity, r.item, kitchen)}
                    </TableCell>
                    <TableCell align="right" sx={{ ...wide, whiteSpace: 'nowrap' }}>
                      {Number(r.reserved) > 0 && (
                        <>
                          {stockText(r.reserved, r.item, kitchen)}
                          {short && (
                            <Box>
                              <Tag tone="live">not enough</Tag>
                            </Box>
                          )}
                        </>
                      )}
                    </TableCell>
                    <TableCell align="right" sx={wide}>
                      {Number(r.value) !== 0 && moneyText(r.value, kitchen)}
                    </TableCell>
                    <TableCell sx={{ ...wide, pl: 4 }}>
                      {r.open || (
                        <Soft>{r.lots > 0 ? `${fieldText(r.lots, kitchen.locale)} closed` : ''}</Soft>
                      )}
                    </TableCell>
                    <TableCell sx={{ ...wide, whiteSpace: 'nowrap' }}>
                      {r.soonestBestBy && dayText(r.soonestBestBy, kitchen)}
                    </TableCell>
                  </TableRow>
                );
              })}
            </TableBody>
          </Table>
        ) : (
          data &&
          !error && (
            <Nothing>
              {search || kind || only
                ? 'Nothing on the shelf fits.'
                : 'The shelf is empty. Add an item, then record the receipt it came with.'}
            </Nothing>
          )
        )}
        {error && <Nothing>{error.message}</Nothing>}
        <ShowMore list={list} />
      </Sheet>
      {open === 'item' && <ItemDialog onClose={() => setOpen(null)} />}
      {open === 'lot' && <LotDialog onClose={() => setOpen(null)} />}
    </>
  );
}
