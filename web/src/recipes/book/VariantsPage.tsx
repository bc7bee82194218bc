import { type RecipeRow, readRecipe } from '@cocotte/contract';
import { type Habits, massText, numberText } from '@cocotte/core/measure';
import { type Recipe, lineMass_g, mainLine } from '@cocotte/core/recipes';
import { review } from '@cocotte/core/review';
import { Box, Link as MuiLink } from '@mui/material';
import { useQueries } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { Link, useParams } from 'react-router';
import { call } from '../../shell/call.ts';
import { List } from '../../kit/List.tsx';
import { Aloud, Fractions, Sheet, Soft, Tag, ViewHead } from '../../kit/parts.tsx';
import { useHere } from '../../shell/session.tsx';
import { NO_FILTER, useRecipes } from '../api.ts';

interface Variant {
  row: RecipeRow;
  recipe: Recipe;
}
/** One thing that is compared, and what each variant says of it. */
interface Compared {
  words: string;
  cell: (variant: Variant) => ReactNode;
}

/** Recipes that vary one another, side by side: what goes in for the same fruit, what it makes, what it may. */
export function VariantsPage() {
  const { recipeId } = useParams() as { recipeId: string };
  const { kitchen } = useHere();
  const list = useRecipes({ ...NO_FILTER, variantOf: recipeId });
  const found = list.data?.pages.flatMap(p => p.recipes) ?? [];
  const queries = useQueries({
    queries: found.map(r => ({
      queryKey: ['recipe', r.id],
      queryFn: () => call(readRecipe, { params: { recipeId: r.id } }),
    })),
  });
  const recipes = found.flatMap((row, i) => {
    const recipe = queries[i]?.data?.recipe;
    return recipe ? [{ row, recipe }] : [];
  });
  recipes.sort((a, b) => Number(a.row.variantOf !== null) - Number(b.row.variantOf !== null));
  const rows: Compared[] = [
    ...[...new Set(recipes.flatMap(r => r.recipe.lines.map(l => l.name)))].map(name => ({
      words: name,
      cell: ({ recipe }: Variant) => {
        const line = recipe.lines.find(l => l.name === name);
        return line ? (
          <>
            <Fractions text={line.amount.text} />
            <Soft> · {shareText(recipe, name, kitchen)}</Soft>
          </>
        ) : (
          <Soft>none</Soft>
        );
      },
    })),
    { words: 'Makes', cell: ({ row }) => row.makes },
    { words: 'Set by', cell: ({ recipe }) => recipe.setBy },
    {
      words: 'Low-acid share',
      cell: ({ recipe }) => `${numberText(review(recipe, kitchen).balance.lowAcidShare * 100, kitchen, 0)} %`,
    },
    {
      words: 'For sale',
      cell: ({ recipe }) => {
        const { open } = review(recipe, kitchen).route;
        return <Tag tone={open ? 'leaf' : 'ox'}>{open ? 'may be cooked for sale' : 'not for sale'}</Tag>;
      },
    },
    {
      words: 'Tasted',
      cell: ({ row }) => (row.rating === null ? 'not yet' : `${numberText(row.rating, kitchen, 1)} of 5`),
    },
    {
      words: 'Cooked',
      cell: ({ row }) => (row.cooked === 0 ? 'not yet' : row.cooked === 1 ? 'once' : `${row.cooked} times`),
    },
    { words: 'Fruit', cell: ({ recipe }) => massText(fruit_g(recipe), kitchen) },
  ];
  return (
    <>
      <ViewHead title="Side by side" detail={recipes.map(r => r.recipe.name).join(', ')} />
      <Sheet>
        <List
          label="Variants side by side"
          rows={recipes.length === 0 ? [] : rows}
          error={list.error}
          keyOf={r => r.words}
          nothing={list.data && 'There is no variant of this recipe.'}
          sx={{ '& td, & th': { pr: 3 } }}
          columns={[
            { head: <Aloud>What is compared</Aloud>, cell: r => r.words, row: true },
            ...recipes.map(one => ({
              head: (
                <MuiLink
                  component={Link}
                  to={`/recipes/${one.row.id}`}
                  sx={{ fontSize: '1.05rem', fontWeight: 700 }}
                >
                  {one.recipe.name}
                </MuiLink>
              ),
              cell: (r: Compared) => r.cell(one),
            })),
          ]}
        />
        <Box sx={{ mt: 1 }}>
          <Soft sx={{ fontSize: '0.9rem' }}>Percents are of the main fruit or produce, by weight.</Soft>
        </Box>
      </Sheet>
    </>
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
function shareText(recipe: Recipe, name: string, habits: Habits): string {
  const line = recipe.lines.find(l => l.name === name);
  const whole = fruit_g(recipe);
  if (!line || whole === 0 || line.ratio || line.where === 'each jar')
    return line?.ratio ? 'by ratio' : 'in each jar';
  try {
    const share = (lineMass_g(line) / whole) * 100;
    return `${numberText(share, habits, share < 10 ? 1 : 0)} %`;
  } catch {
    return '';
  }
}
