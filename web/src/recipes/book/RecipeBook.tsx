import { dayText } from '@cocotte/core/measure';
import {
  Box,
  Button,
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
import { Nothing, Sheet, Soft, Tag, ViewHead } from '../shell/parts.tsx';
import { useHere, useMay } from '../shell/session.tsx';
import { useRecipes } from './api.ts';

/** The book: every recipe, its authority and when it was last cooked. */
export function RecipeBook() {
  const { kitchen } = useHere();
  const mayAdd = useMay('cook');
  const [search, setSearch] = useState('');
  const { data, hasNextPage, fetchNextPage } = useRecipes(useDeferredValue(search.trim()));
  const rows = data?.pages.flatMap(p => p.recipes) ?? [];
  return (
    <>
      <ViewHead title="Recipes" detail="Open one to scale it and start a batch.">
        <TextField
          label="Find a recipe"
          value={search}
          onChange={e => setSearch(e.target.value)}
          sx={{ width: 240 }}
        />
        {mayAdd && (
          <Button component={Link} to="/recipes/new" variant="outlined">
            Add a recipe
          </Button>
        )}
      </ViewHead>
      <Sheet>
        {rows.length > 0 ? (
          <Table>
            <TableHead>
              <TableRow>
                <TableCell>Recipe</TableCell>
                <TableCell>Authority</TableCell>
                <TableCell sx={{ display: { xs: 'none', sm: 'table-cell' } }}>Makes</TableCell>
                <TableCell sx={{ display: { xs: 'none', sm: 'table-cell' } }}>Cooked</TableCell>
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
                      {r.code} · {r.foodClass} · version {r.version}
                    </Soft>
                  </TableCell>
                  <TableCell>
                    <Tag tone={r.grade === 'published, untested' ? 'live' : 'plain'}>{r.grade}</Tag>
                  </TableCell>
                  <TableCell sx={{ display: { xs: 'none', sm: 'table-cell' } }}>{r.makes}</TableCell>
                  <TableCell sx={{ display: { xs: 'none', sm: 'table-cell' } }}>
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
              {search ? 'No recipe has these words.' : 'The book is empty. Add the first recipe.'}
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
    </>
  );
}
