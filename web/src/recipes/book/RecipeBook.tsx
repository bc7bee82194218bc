import type { RecipeFilter } from '@cocotte/contract';
import { dayText, numberText } from '@cocotte/core/measure';
import { PRODUCTS } from '@cocotte/core/times';
import { Box, Button, Link as MuiLink, ListItemText, Menu, MenuItem } from '@mui/material';
import { useDeferredValue, useState } from 'react';
import { Link } from 'react-router';
import { Search, Switcher } from '../../kit/controls.tsx';
import { List, pagesOf } from '../../kit/List.tsx';
import { Sheet, Soft, Tag, ViewHead } from '../../kit/parts.tsx';
import { useHere, useMay } from '../../shell/session.tsx';
import { NO_FILTER, useRecipes, useShelves } from '../api.ts';
import { CookFirst } from './CookFirst.tsx';

/** The book: every recipe by family, tag and kind; its authority, its rating and when it was last cooked. */
export function RecipeBook() {
  const { kitchen } = useHere();
  const mayAdd = useMay('cook');
  const [filter, setFilter] = useState<RecipeFilter>(NO_FILTER);
  const [cookFirst, setCookFirst] = useState(false);
  const list = useRecipes(useDeferredValue({ ...filter, search: filter.search.trim() }));
  const { data: shelves } = useShelves();
  const filtered = Object.values(filter).some(v => v !== '');
  return (
    <>
      <ViewHead title="Recipes" detail="Open one to scale it and start a batch.">
        {mayAdd && <More onCookFirst={() => setCookFirst(true)} />}
        {mayAdd && (
          <Button component={Link} to="/recipes/paste" variant="outlined">
            Paste a recipe
          </Button>
        )}
        {mayAdd && (
          <Button component={Link} to="/recipes/begin" variant="contained">
            Add a recipe
          </Button>
        )}
      </ViewHead>
      <Sheet>
        <Box sx={{ display: 'flex', gap: 1.5, flexWrap: 'wrap', mb: 1 }} role="search">
          <Search
            label="Find a recipe"
            placeholder="name, code, ingredient, tag"
            value={filter.search}
            onText={search => setFilter({ ...filter, search })}
            sx={{ flex: '1 1 240px', width: 'auto' }}
          />
          <Filter
            label="Family"
            value={filter.family}
            of={shelves?.families ?? []}
            onPick={family => setFilter({ ...filter, family })}
          />
          <Filter
            label="Tag"
            value={filter.tag}
            of={shelves?.tags ?? []}
            onPick={tag => setFilter({ ...filter, tag })}
          />
          <Filter
            label="Kind"
            value={filter.product}
            of={PRODUCTS.map(name => ({ name, count: null }))}
            onPick={product => setFilter({ ...filter, product })}
          />
        </Box>
        <List
          label="Recipes"
          size="medium"
          {...pagesOf(list, p => p.recipes)}
          keyOf={r => r.id}
          nothing={
            filtered ? (
              <>
                No recipe fits.{' '}
                <Button size="small" variant="outlined" onClick={() => setFilter(NO_FILTER)}>
                  Show all
                </Button>
              </>
            ) : (
              'The book is empty. Begin the first recipe from a published entry, paste one, or bring in a file.'
            )
          }
          columns={[
            {
              head: 'Recipe',
              order: r => r.name,
              cell: r => (
                <>
                  <MuiLink
                    component={Link}
                    to={`/recipes/${r.id}`}
                    sx={{ fontWeight: 700, fontSize: '1.1rem' }}
                  >
                    {r.name}
                  </MuiLink>
                  <Soft sx={{ display: 'block' }}>
                    {[r.code, r.product, r.family, ...r.tags].filter(Boolean).join(' · ')}
                    {r.variantOf && ' · a variant'}
                  </Soft>
                </>
              ),
            },
            {
              head: 'Authority',
              order: r => r.grade,
              cell: r =>
                r.foodClass === 'refused' ? (
                  <Tag tone="ox">refused</Tag>
                ) : (
                  <>
                    <Tag tone={r.grade === 'published, untested' ? 'live' : 'plain'}>{r.grade}</Tag>
                    <Soft sx={{ fontSize: '0.9rem', display: 'block' }}>{r.foodClass}</Soft>
                  </>
                ),
            },
            { head: 'Makes', from: 'sm', cell: r => r.makes },
            {
              head: 'Tasted',
              from: 'sm',
              order: r => r.rating,
              cell: r =>
                r.rating === null ? <Soft>not yet</Soft> : `${numberText(r.rating, kitchen, 1)} of 5`,
            },
            {
              head: 'Cooked',
              from: 'sm',
              order: r => r.lastCooked,
              cell: r => (
                <>
                  {r.cooked === 0 ? <Soft>not yet</Soft> : r.cooked === 1 ? 'once' : `${r.cooked} times`}
                  {r.lastCooked && <Soft sx={{ display: 'block' }}>{dayText(r.lastCooked, kitchen)}</Soft>}
                </>
              ),
            },
          ]}
        />
      </Sheet>
      {cookFirst && <CookFirst onClose={() => setCookFirst(false)} />}
    </>
  );
}

function Filter({
  label,
  value,
  of,
  onPick,
}: {
  label: string;
  value: string;
  of: { name: string; count: number | null }[];
  onPick: (name: string) => void;
}) {
  return (
    <Switcher
      label={label}
      value={value}
      of={[
        ['', 'all'],
        ...of.map(o => [o.name, o.count === null ? o.name : `${o.name} (${o.count})`] as const),
      ]}
      onPick={onPick}
      sx={{ width: 170 }}
    />
  );
}

function More({ onCookFirst }: { onCookFirst: () => void }) {
  const [at, setAt] = useState<HTMLElement | null>(null);
  const close = () => setAt(null);
  return (
    <>
      <Button
        variant="outlined"
        aria-haspopup="menu"
        aria-expanded={at !== null}
        onClick={e => setAt(e.currentTarget)}
      >
        More
      </Button>
      <Menu anchorEl={at} open={at !== null} onClose={close}>
        <MenuItem
          onClick={() => {
            close();
            onCookFirst();
          }}
        >
          <ListItemText
            primary="Cook first, write it down afterwards"
            secondary="a trial batch becomes the recipe"
          />
        </MenuItem>
        <MenuItem component={Link} to="/recipes/exchange" onClick={close}>
          <ListItemText primary="Bring in or take out a file" secondary="JSON, CSV, schema.org" />
        </MenuItem>
        <MenuItem component={Link} to="/recipes/ingredients" onClick={close}>
          <ListItemText primary="Ingredients" secondary="what the library knows, and what you measured" />
        </MenuItem>
      </Menu>
    </>
  );
}
