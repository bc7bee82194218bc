import type { RecipeFilter } from '@cocotte/contract';
import { dayText, numberText } from '@cocotte/core/measure';
import { PRODUCTS } from '@cocotte/core/times';
import {
  Box,
  Button,
  Link as MuiLink,
  ListItemText,
  Menu,
  MenuItem,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
  TextField,
} from '@mui/material';
import { useDeferredValue, useState } from 'react';
import { Link } from 'react-router';
import { Nothing, Sheet, ShowMore, Soft, Tag, ViewHead } from '../../shell/parts.tsx';
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
  const { data } = list;
  const { data: shelves } = useShelves();
  const rows = data?.pages.flatMap(p => p.recipes) ?? [];
  const filtered = Object.values(filter).some(v => v !== '');
  const wide = { display: { xs: 'none', sm: 'table-cell' } } as const;
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
          <Button component={Link} to="/recipes/new" variant="contained">
            Add a recipe
          </Button>
        )}
      </ViewHead>
      <Sheet>
        <Box sx={{ display: 'flex', gap: 1.5, flexWrap: 'wrap', mb: 1 }} role="search">
          <TextField
            label="Find a recipe"
            placeholder="name, code, ingredient, tag"
            value={filter.search}
            onChange={e => setFilter({ ...filter, search: e.target.value })}
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
        {rows.length > 0 ? (
          <Table>
            <TableHead>
              <TableRow>
                <TableCell>Recipe</TableCell>
                <TableCell>Authority</TableCell>
                <TableCell sx={wide}>Makes</TableCell>
                <TableCell sx={wide}>Tasted</TableCell>
                <TableCell sx={wide}>Cooked</TableCell>
              </TableRow>
            </TableHead>
            <TableBody>
              {rows.map(r => (
                <TableRow key={r.id}>
                  <TableCell>
                    <MuiLink
                      component={Link}
                      to={`/recipes/${r.id}`}
                      sx={{ fontWeight: 700, fontSize: '1.1rem' }}
                    >
                      {r.name}
                    </MuiLink>
                    <br />
                    <Soft>
                      {[r.code, r.product, r.family, ...r.tags].filter(Boolean).join(' · ')}
                      {r.variantOf && ' · a variant'}
                    </Soft>
                  </TableCell>
                  <TableCell>
                    {r.foodClass === 'refused' ? (
                      <Tag tone="ox">refused</Tag>
                    ) : (
                      <Tag tone={r.grade === 'published, untested' ? 'live' : 'plain'}>{r.grade}</Tag>
                    )}
                    {r.foodClass !== 'refused' && (
                      <>
                        <br />
                        <Soft sx={{ fontSize: '0.9rem' }}>{r.foodClass}</Soft>
                      </>
                    )}
                  </TableCell>
                  <TableCell sx={wide}>{r.makes}</TableCell>
                  <TableCell sx={wide}>
                    {r.rating === null ? <Soft>not yet</Soft> : `${numberText(r.rating, kitchen, 1)} of 5`}
                  </TableCell>
                  <TableCell sx={wide}>
                    {r.cooked === 0 ? (
                      <Soft>not yet</Soft>
                    ) : (
                      <>
                        {r.cooked === 1 ? 'once' : `${r.cooked} times`}
                        {r.lastCooked && (
                          <>
                            <br />
                            <Soft>{dayText(r.lastCooked, kitchen)}</Soft>
                          </>
                        )}
                      </>
                    )}
                  </TableCell>
                </TableRow>
              ))}
            </TableBody>
          </Table>
        ) : (
          data && (
            <Nothing>
              {filtered ? (
                <>
                  No recipe fits.{' '}
                  <Button size="small" variant="outlined" onClick={() => setFilter(NO_FILTER)}>
                    Show all
                  </Button>
                </>
              ) : (
                'The book is empty. Add the first recipe, paste one, or bring in a file.'
              )}
            </Nothing>
          )
        )}
        <ShowMore list={list} />
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
    <TextField select label={label} value={value} onChange={e => onPick(e.target.value)} sx={{ width: 170 }}>
      <MenuItem value="">all</MenuItem>
      {of.map(o => (
        <MenuItem key={o.name} value={o.name}>
          {o.name}
          {o.count !== null && <Soft>&nbsp;({o.count})</Soft>}
        </MenuItem>
      ))}
    </TextField>
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
