import { type Ingredient, formsOf, libraryOf } from '@cocotte/core/ingredients';
import { numberText } from '@cocotte/core/measure';
import type { Kitchen } from '@cocotte/core/kitchen';
import { Box, Button } from '@mui/material';
import { useDeferredValue, useMemo, useState } from 'react';
import { Search } from '../../kit/controls.tsx';
import { List } from '../../kit/List.tsx';
import { Sheet, Soft, Tag, ViewHead } from '../../kit/parts.tsx';
import { useHere, useMay } from '../../shell/session.tsx';
import { useLibrary, useOwnIngredients } from '../library.ts';
import { IngredientDialog } from './IngredientDialog.tsx';

const SHOWN = 60;
const SHIPPED = new Map(libraryOf([]).map(i => [i.id, i]));

/** What the library knows of each ingredient, and what this kitchen measured itself. */
export function IngredientsPage() {
  const { kitchen } = useHere();
  const mayAdd = useMay('cook');
  const library = useLibrary();
  const { data: own } = useOwnIngredients();
  const [search, setSearch] = useState('');
  const [open, setOpen] = useState<Ingredient | 'new' | null>(null);
  const [more, setMore] = useState(SHOWN);
  const words = useDeferredValue(search.trim().toLowerCase());
  const mine = useMemo(() => new Map(own?.ingredients.map(o => [o.ingredient.id, o]) ?? []), [own]);
  const rows = useMemo(
    () =>
      library.all
        .filter(
          i =>
            words === '' ||
            i.name.toLowerCase().includes(words) ||
            i.aliases.some(a => a.includes(words)) ||
            i.role.includes(words),
        )
        .sort((a, b) => Number(mine.has(b.id)) - Number(mine.has(a.id)) || a.name.localeCompare(b.name)),
    [library, words, mine],
  );
  return (
    <>
      <ViewHead
        title="Ingredients"
        detail={`${library.all.length} of the trade. Change one, and your own figure stands in front; the shipped one stays.`}
      >
        <Search
          label="Find an ingredient"
          value={search}
          onText={text => {
            setSearch(text);
            setMore(SHOWN);
          }}
          sx={{ width: 240 }}
        />
        {mayAdd && (
          <Button variant="contained" onClick={() => setOpen('new')}>
            Add an ingredient
          </Button>
        )}
      </ViewHead>
      <Sheet>
        <List
          label="Ingredients"
          rows={rows.slice(0, more)}
          more={rows.length > more ? () => setMore(m => m + SHOWN) : undefined}
          keyOf={i => i.id}
          nothing="No ingredient has these words."
          columns={[
            {
              head: 'Ingredient',
              order: i => i.name,
              cell: i => (
                <>
                  <strong>{i.name}</strong>{' '}
                  {mine.has(i.id) && <Tag tone="leaf">{SHIPPED.has(i.id) ? 'yours' : 'your own'}</Tag>}
                  {i.refused && <Tag tone="ox">refused</Tag>}
                  <Soft sx={{ fontSize: '0.9rem', display: 'block' }}>
                    {i.role}
                    {i.role === 'fruit' && (i.safelyAcid ? ', acid by itself' : ', not safely acid')}
                    {i.strength_pct !== null && `, ${numberText(i.strength_pct, kitchen, 0)} % acid`}
                    {i.allergens.length > 0 && `, ${i.allergens.join(', ')}`}
                  </Soft>
                </>
              ),
            },
            {
              head: 'A cup weighs',
              cell: i =>
                formsOf(i).map(form => (
                  <Box key={form}>
                    {numberText(i.cup_g[form] ?? 0, kitchen, 0)} g <Soft>{form}</Soft>
                  </Box>
                )),
            },
            { head: 'One weighs', from: 'md', cell: i => pieces(i, kitchen) },
            {
              head: 'Left after trimming',
              from: 'md',
              cell: i =>
                Object.entries(i.trim).map(([by, share]) => (
                  <Box key={by}>
                    {Math.round(share * 100)} % <Soft>{by}</Soft>
                  </Box>
                )),
            },
            {
              head: '°Brix',
              from: 'md',
              order: i => i.solids_pct,
              cell: i => (i.solids_pct > 0 ? numberText(i.solids_pct, kitchen, 0) : ''),
            },
            {
              head: 'pH',
              whole: true,
              order: i => i.ph?.[0] ?? null,
              cell: i =>
                i.ph ? `${numberText(i.ph[0], kitchen, 1)} to ${numberText(i.ph[1], kitchen, 1)}` : '',
            },
            {
              head: 'Open',
              action: true,
              cell: i => (
                <Button
                  size="small"
                  variant="outlined"
                  onClick={() => setOpen(i)}
                  aria-label={`Open ${i.name}`}
                >
                  Open
                </Button>
              ),
            },
          ]}
        />
      </Sheet>
      {open && (
        <IngredientDialog
          ingredient={open === 'new' ? null : open}
          own={open === 'new' ? null : (mine.get(open.id) ?? null)}
          shipped={open === 'new' ? null : (SHIPPED.get(open.id) ?? null)}
          onClose={() => setOpen(null)}
        />
      )}
    </>
  );
}

function pieces(i: Ingredient, kitchen: Kitchen) {
  return Object.entries(i.one_g).map(([unit, grams]) => (
    <Box key={unit}>
      {numberText(grams, kitchen, grams < 10 ? 1 : 0)} g{' '}
      <Soft>{unit === 'each' ? 'a medium one' : unit}</Soft>
    </Box>
  ));
}
