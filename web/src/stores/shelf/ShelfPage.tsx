import { dayText, instantOf, localTextOf, moneyText, numberText } from '@cocotte/core/measure';
import { ITEM_KINDS, type ItemKind } from '@cocotte/core/stores';
import { Box, Button, Link as MuiLink } from '@mui/material';
import { useDeferredValue, useState } from 'react';
import { Link } from 'react-router';
import { kitchenNow } from '../../shell/clock.ts';
import { FreeText, Search, Switcher } from '../../kit/controls.tsx';
import { List, pagesOf } from '../../kit/List.tsx';
import { Sheet, Soft, Tag, ViewHead } from '../../kit/parts.tsx';
import { useHere, useMay } from '../../shell/session.tsx';
import { say } from '../../words/views.ts';
import { useStock } from '../api.ts';
import { StoresNav } from '../StoresNav.tsx';
import { KIND_WORDS, stockText } from '../words.ts';
import { ItemDialog } from './ItemDialog.tsx';
import { LotDialog } from './LotDialog.tsx';

const ONLY = [
  ['below minimum', 'below'],
  ['spoiling soon', 'spoiling'],
  ['short', 'short'],
] as const;

/** The shelf: what there is, what it is worth, what runs out and what spoils first; now or at a past instant. */
export function ShelfPage() {
  const { kitchen } = useHere();
  const mayAdd = useMay('cook');
  const [search, setSearch] = useState('');
  const [kind, setKind] = useState<ItemKind | ''>('');
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
  const first = list.data?.pages[0];
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
          <Search
            label="Find an item"
            value={search}
            onText={setSearch}
            sx={{ flex: '1 1 200px', width: 'auto' }}
          />
          <Switcher
            label="Kind"
            value={kind}
            of={[['', 'all kinds'], ...ITEM_KINDS.map(k => [k, KIND_WORDS[k].toLowerCase()] as const)]}
            onPick={setKind}
            sx={{ width: 150 }}
          />
          <FreeText
            label="As it was at"
            type="datetime-local"
            value={past}
            onText={setPast}
            slotProps={{
              inputLabel: { shrink: true },
              htmlInput: { max: localTextOf(kitchenNow(), kitchen.zone) },
            }}
            sx={{ width: 220 }}
          />
          {ONLY.map(([what, count]) => {
            const n = first?.[count] ?? 0;
            // Nothing is short as a rule: it is asked for only where something is.
            if (what === 'short' && n === 0 && only !== what) return null;
            return (
              <Button
                key={what}
                variant={only === what ? 'contained' : 'outlined'}
                aria-pressed={only === what}
                onClick={() => setOnly(only === what ? '' : what)}
                disabled={past !== ''}
              >
                {n} {what === 'short' ? say('shelf.short') : what}
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
        <List
          label="The shelf"
          {...pagesOf(list, p => p.rows)}
          keyOf={r => r.item.id}
          nothing={
            search || kind || only
              ? 'Nothing on the shelf fits.'
              : 'The shelf is empty. Add an item, then record the receipt it came with.'
          }
          columns={[
            {
              head: 'Item',
              order: r => r.item.name,
              cell: r => (
                <>
                  <MuiLink component={Link} to={`/stores/items/${r.item.id}`} sx={{ fontWeight: 650 }}>
                    {r.item.name}
                  </MuiLink>{' '}
                  {r.item.kind !== 'ingredient' && <Soft>{KIND_WORDS[r.item.kind].toLowerCase()}</Soft>}{' '}
                  {r.item.toolState && r.item.toolState !== 'good' && (
                    <Tag tone="live">{r.item.toolState}</Tag>
                  )}
                  {r.short && (
                    <Box>
                      <MuiLink component={Link} to={`/stores/lots/${r.short.lotId}`}>
                        {say('shelf.short.lot', {
                          label: r.short.label,
                          quantity: stockText(r.short.quantity, r.item, kitchen),
                        })}
                      </MuiLink>
                    </Box>
                  )}
                  {r.belowMinimum && (
                    <Box>
                      <Tag tone="live">below {stockText(r.item.minimum ?? '0', r.item, kitchen)}</Tag>
                    </Box>
                  )}
                </>
              ),
            },
            {
              head: 'There is',
              figure: true,
              cell: r => (r.item.kind === 'tool' ? '' : stockText(r.quantity, r.item, kitchen)),
            },
            {
              head: 'Planned',
              figure: true,
              from: 'sm',
              cell: r =>
                Number(r.reserved) > 0 && (
                  <>
                    {stockText(r.reserved, r.item, kitchen)}
                    {Number(r.reserved) > Number(r.quantity) && (
                      <Box>
                        <Tag tone="live">not enough</Tag>
                      </Box>
                    )}
                  </>
                ),
            },
            {
              head: 'Worth',
              figure: true,
              from: 'sm',
              order: r => Number(r.value),
              cell: r => Number(r.value) !== 0 && moneyText(r.value, kitchen),
            },
            {
              head: 'Open container',
              from: 'sm',
              cell: r =>
                r.open || <Soft>{r.lots > 0 ? `${numberText(r.lots, kitchen, 0)} closed` : ''}</Soft>,
            },
            {
              head: 'Best by',
              from: 'sm',
              whole: true,
              order: r => r.soonestBestBy,
              cell: r => r.soonestBestBy && dayText(r.soonestBestBy, kitchen),
            },
          ]}
        />
      </Sheet>
      {open === 'item' && <ItemDialog onClose={() => setOpen(null)} />}
      {open === 'lot' && <LotDialog onClose={() => setOpen(null)} />}
    </>
  );
}
