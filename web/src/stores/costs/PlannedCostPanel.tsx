import { moneyText } from '@cocotte/core/measure';
import type { Recipe, ScaledRecipe } from '@cocotte/core/recipes';
import { costSheet, plannedInput } from '@cocotte/core/stores';
import { Box, Button } from '@mui/material';
import { useMemo } from 'react';
import { Link } from 'react-router';
import type { Foreseen, Plan } from '../../recipes/sheet/plan.ts';
import { Sheet, Soft, Tag } from '../../kit/parts.tsx';
import { useHere } from '../../shell/session.tsx';
import { useRecipeCosts, useShelf } from '../api.ts';
import { PART_WORDS, PerJar } from './CostTable.tsx';
import { figuresOf, minutesFor } from './figures.ts';

/** What the batch on the sheet will cost, from today's lots and prices. */
export function PlannedCostPanel({
  recipe,
  recipeId,
  plan,
  scaled,
  foreseen,
}: {
  recipe: Recipe;
  recipeId: string;
  plan: Plan;
  scaled: ScaledRecipe;
  foreseen: Foreseen;
}) {
  const { kitchen } = useHere();
  const { data: shelf } = useShelf();
  const { data: past } = useRecipeCosts(recipeId);
  const sheet = useMemo(
    () =>
      shelf &&
      costSheet(
        plannedInput(
          figuresOf(
            recipe,
            scaled,
            plan.jars,
            shelf.shelf,
            kitchen,
            minutesFor(recipe, plan, foreseen, kitchen, past?.batches ?? []),
          ),
        ),
      ),
    [recipe, scaled, plan, foreseen, shelf, past, kitchen],
  );
  if (!sheet) return null;
  const parts = sheet.parts.filter(p => Number(p.amount) !== 0);
  return (
    <Sheet title="Planned cost">
      {sheet.bySize.length > 0 && <PerJar sheet={sheet} />}
      <Box sx={{ my: 1 }}>
        <Soft>
          {moneyText(sheet.total, kitchen)} in all:{' '}
          {parts.map(p => `${PART_WORDS[p.part].toLowerCase()} ${moneyText(p.amount, kitchen)}`).join(', ')}
        </Soft>
      </Box>
      {sheet.unpriced.length > 0 && (
        <Box sx={{ mb: 1 }}>
          <Tag tone="live">without a price</Tag> {sheet.unpriced.join(', ')}
        </Box>
      )}
      <Button component={Link} to={`/recipes/${recipeId}/cost`} size="small" variant="outlined">
        Price, what if, history
      </Button>
    </Sheet>
  );
}
