import type { Kitchen } from '@cocotte/core/kitchen';
import type { Recipe } from '@cocotte/core/recipes';
import { routeToSale } from '@cocotte/core/review';
import { Box, Button, TextField, Typography } from '@mui/material';
import { useState } from 'react';
import { Link } from 'react-router';
import { Sheet, ViewHead } from '../../kit/parts.tsx';
import { useMay } from '../../shell/session.tsx';
import { HistoryPanel } from './Experience.tsx';
import { say } from '../../words/views.ts';
import { StartDialog } from './StartDialog.tsx';

/** A recipe that is cooked first: nothing to scale yet, only jars to lay out and a trial to start. */
export function SketchSheet({
  recipe,
  recipeId,
  number,
  kitchen,
}: {
  recipe: Recipe;
  recipeId: string;
  number: number;
  kitchen: Kitchen;
}) {
  const mayCook = useMay('cook');
  const [count, setCount] = useState(String(recipe.makes.count));
  const [starting, setStarting] = useState(false);
  const jars = [
    { size: recipe.makes.size, count: Math.max(1, Math.min(60, Math.floor(Number(count) || 1))) },
  ];
  return (
    <>
      <ViewHead title={recipe.name} detail={`${recipe.code} · cooked first, written down afterwards`}>
        {mayCook && (
          <Button component={Link} to={`/recipes/${recipeId}/change`} variant="outlined">
            Write it now
          </Button>
        )}
        <Button component={Link} to={`/recipes/${recipeId}/rehearse`} variant="outlined">
          {say('dry.way')}
        </Button>
        {mayCook && (
          <Button variant="contained" size="large" onClick={() => setStarting(true)}>
            Start cooking
          </Button>
        )}
      </ViewHead>
      <Box sx={{ display: 'grid', gap: 2, maxWidth: 760 }}>
        <Sheet title="Cook first">
          <Typography>
            Start a trial, add each thing as it goes in by its weight, read the pot, fill the jars. From that
            batch the recipe is written for you. A trial is tasted and compared; it is never released for
            sale.
          </Typography>
          <TextField
            label={`Jars to lay out, ${recipe.makes.size}`}
            type="number"
            value={count}
            onChange={e => setCount(e.target.value)}
            sx={{ mt: 2, width: 220 }}
          />
        </Sheet>
        <HistoryPanel recipeId={recipeId} kitchen={kitchen} />
      </Box>
      {starting && (
        <StartDialog
          recipe={recipe}
          recipeId={recipeId}
          version={number}
          factor="1"
          jars={jars}
          route={routeToSale(recipe, kitchen)}
          pot={null}
          doublePectin={false}
          planId={null}
          onClose={() => setStarting(false)}
        />
      )}
    </>
  );
}
