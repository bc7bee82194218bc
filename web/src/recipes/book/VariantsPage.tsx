import { readRecipe } from '@cocotte/contract';
import { massText, numberText } from '@cocotte/core/measure';
import { type Recipe, lineMass_g, mainLine } from '@cocotte/core/recipes';
import { review } from '@cocotte/core/review';
import { Box, Link as MuiLink, Table, TableBody, TableCell, TableHead, TableRow } from '@mui/material';
import { useQueries } from '@tanstack/react-query';
import { Link, useParams } from 'react-router';
import { call } from '../../shell/call.ts';
import { Aloud, Fractions, Nothing, Sheet, Soft, Tag, ViewHead } from '../../shell/parts.tsx';
import { useHere } from '../../shell/session.tsx';
import { NO_FILTER, useRecipes } from '../api.ts';

/** Recipes that vary one another, side by side: what goes in for the same fruit, what it makes, what it may. */
export function VariantsPage() {
  const { recipeId } = useParams() as { recipeId: string };
  const { kitchen } = useHere();
  const rows = useRecipes({ ...NO_FILTER, variantOf: recipeId }).data?.pages.flatMap(p => p.recipes) ?? [];
  const queries = useQueries({
    queries: rows.map(r => ({
      queryKey: ['recipe', r.id],
      queryFn: () => call(readRecipe, { params: { recipeId: r.id } }),
    })),
  });
  const recipes = rows.flatMap((row, i) => {
    const recipe = queries[i]?.data?.recipe;
    return recipe ? [{ row, recipe }] : [];
  });
  recipes.sort((a, b) => Number(a.row.variantOf !== null) - Number(b.row.variantOf !== null));
  const names = [...new Set(recipes.flatMap(r => r.recipe.lines.map(l => l.name)))];
  return (
    <>
      <ViewHead title="Side by side" detail={recipes.map(r => r.recipe.name).join(', ')} />
      <Sheet sx={{ overflowX: 'auto' }}>
        {recipes.length === 0 ? (
          <Nothing>There is no variant of this recipe.</Nothing>
        ) : (
          <Table size="small" aria-label="Variants side by side" sx={{ '& td, & th': { pr: 3 } }}>
            <TableHead>
              <TableRow>
                <TableCell>
                  <Aloud>What is compared</Aloud>
                </TableCell>
                {recipes.map(({ row, recipe }) => (
                  <TableCell key={row.id}>
                    <MuiLink
                      component={Link}
                      to={`/recipes/${row.id}`}
                      sx={{ fontSize: '1.05rem', fontWeight: 700 }}
                    >
                      {recipe.name}
                    </MuiLink>
                  </TableCell>
                ))}
              </TableRow>
            </TableHead>
            <TableBody>
              {names.map(name => (
                <TableRow key={name}>
                  <TableCell component="th" scope="row">
                    {name}
                  </TableCell>
                  {recipes.map(({ row, recipe }) => {
                    const line = recipe.lines.find(l => l.name === name);
                    return (
                      <TableCell key={row.id}>
                        {line ? (
                          <>
                            <Fractions text={line.amount.text} />
                            <Soft> · {shareText(recipe, name)}</Soft>
                          </>
                        ) : (
                          <Soft>none</Soft>
                        )}
                      </TableCell>
                    );
                  })}
                </TableRow>
              ))}
              <Row words="Makes" cells={recipes.map(({ row }) => row.makes)} />
              <Row words="Set by" cells={recipes.map(({ recipe }) => recipe.setBy)} />
              <Row
                words="Low-acid share"
                cells={recipes.map(
                  ({ recipe }) => `${Math.round(review(recipe).balance.lowAcidShare * 100)} %`,
                )}
              />
              <TableRow>
                <TableCell component="th" scope="row">
                  For sale
                </TableCell>
                {recipes.map(({ row, recipe }) => {
                  const { route } = review(recipe);
                  return (
                    <TableCell key={row.id}>
                      <Tag tone={route.open ? 'leaf' : 'ox'}>
                        {route.open ? 'may be cooked for sale' : 'not for sale'}
                      </Tag>
                    </TableCell>
                  );
                })}
              </TableRow>
              <Row
                words="Tasted"
                cells={recipes.map(({ row }) =>
                  row.rating === null ? 'not yet' : `${numberText(row.rating, kitchen, 1)} of 5`,
                )}
              />
              <Row
                words="Cooked"
                cells={recipes.map(({ row }) =>
                  row.cooked === 0 ? 'not yet' : row.cooked === 1 ? 'once' : `${row.cooked} times`,
                )}
              />
              <Row words="Fruit" cells={recipes.map(({ recipe }) => massText(fruit_g(recipe), kitchen))} />
            </TableBody>
          </Table>
        )}
        <Box sx={{ mt: 1 }}>
          <Soft sx={{ fontSize: '0.9rem' }}>Percents are of the main fruit or produce, by weight.</Soft>
        </Box>
      </Sheet>
    </>
  );
}

function Row({ words, cells }: { words: string; cells: string[] }) {
  return (
    <TableRow>
      <TableCell component="th" scope="row">
        {words}
      </TableCell>
      {cells.map((c, i) => (
        // oxlint-disable-next-line react/no-array-index-key -- one cell for each recipe, in its order
        <TableCell key={i}>{c}</TableCell>
      ))}
    </TableRow>
  );
}

function fruit_g(recipe: Recipe): number {
  try {
    return lineMass_g(mainLine(recipe));
  } catch {
    return 0;
  }
}

/** A line's weight as a share of the main fruit; of one that cannot be weighed alone, nothing. */
function shareText(recipe: Recipe, name: string): string {
  const line = recipe.lines.find(l => l.name === name);
  const whole = fruit_g(recipe);
  if (!line || whole === 0 || line.ratio || line.where === 'each jar')
    return line?.ratio ? 'by ratio' : 'in each jar';
  try {
    const share = (lineMass_g(line) / whole) * 100;
    return `${share.toFixed(share < 10 ? 1 : 0)} %`;
  } catch {
    return '';
  }
}
