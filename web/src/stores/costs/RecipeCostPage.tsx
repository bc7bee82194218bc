import { fieldText } from '@cocotte/core/measure';
import type { Recipe } from '@cocotte/core/recipes';
import { costSheet, plannedInput, whatIf } from '@cocotte/core/stores';
import { Box, Button, Slider, Typography } from '@mui/material';
import { Suspense, lazy, useMemo, useState } from 'react';
import { Link, useParams } from 'react-router';
import { useRecipe } from '../../recipes/api.ts';
import { type Wanted, firstWanted, foresee, planOf, scaledOrNull } from '../../recipes/sheet/plan.ts';
import { ScalePanel } from '../../recipes/sheet/ScalePanel.tsx';
import { Figure, Pick } from '../../kit/fields.tsx';
import { useTyped } from '../../kit/form.ts';
import { Cells, Columns, Stack } from '../../kit/layout.tsx';
import { Nothing, Sheet, Soft, ViewHead } from '../../kit/parts.tsx';
import { useHere } from '../../shell/session.tsx';
import { Loaded, Waiting } from '../../kit/Loaded.tsx';
import { orNone, useRead } from '../../kit/readers.ts';
import { useRecipeCosts, useShelf } from '../api.ts';
import { CostHistory } from './CostHistory.tsx';
import { CostTable, PerJar } from './CostTable.tsx';
import { figuresOf, minutesFor } from './figures.ts';
import { PricePanel } from './PricePanel.tsx';
import { rescaledFigures } from './what-if-figures.ts';

const SwingChart = lazy(async () => ({ default: (await import('./SwingChart.tsx')).SwingChart }));

/** What a recipe will cost, what to charge for it, what would change that, and what it has cost. */
export function RecipeCostPage() {
  const { recipeId = '' } = useParams();
  return (
    <Loaded query={useRecipe(recipeId)}>
      {({ recipe, number }) =>
        recipe.sketch || !recipe.lines.some(l => l.role === 'fruit' || l.role === 'low-acid produce') ? (
          <Nothing>This recipe has no lines to price yet.</Nothing>
        ) : (
          <Opened key={number} recipe={recipe} recipeId={recipeId} />
        )
      }
    </Loaded>
  );
}

function Opened({ recipe, recipeId }: { recipe: Recipe; recipeId: string }) {
  const { kitchen } = useHere();
  const { data: shelf } = useShelf();
  const { data: past } = useRecipeCosts(recipeId);
  const [wanted, setWanted] = useState<Wanted>(() => firstWanted(recipe, kitchen));
  const [turns, setTurns] = useState({ fruit_pct: 30, yield_pct: 10, minutes_pct: 25, sugar_pct: 30 });
  const plan = useMemo(() => planOf(recipe, wanted, kitchen), [recipe, wanted, kitchen]);
  const scaled = useMemo(() => scaledOrNull(recipe, plan), [recipe, plan]);
  const minutes = useMemo(
    () => minutesFor(recipe, plan, foresee(recipe, plan, kitchen), kitchen, past?.batches ?? []),
    [recipe, plan, kitchen, past],
  );
  const reader = useRead();
  const minutesRead = orNone(reader.figure({ name: 'The minutes', min: 0, max: 5000 }));
  const form = useTyped(
    { minutes: '', kitchen: '', burner: '', burnerId: kitchen.costs.burners[0]?.id ?? '' },
    () => ({ minutes: minutesRead, kitchen: minutesRead, burner: minutesRead }),
    { live: true },
  );
  const { at } = form;
  const read = form.now();
  const burnerId = form.typed('burnerId');
  /** What was typed, or what the plan says while nothing was. */
  const attended = (read.minutes.ok ? read.minutes.value : null) ?? minutes.attended;
  const opening = (read.kitchen.ok ? read.kitchen.value : null) ?? minutes.kitchen;
  const burner = (read.burner.ok ? read.burner.value : null) ?? minutes.burner;
  const figures = useMemo(
    () =>
      scaled && shelf
        ? {
            ...figuresOf(recipe, scaled, plan.jars, shelf.shelf, kitchen, {
              attended,
              kitchen: opening,
              burner,
            }),
            burnerId,
          }
        : null,
    [recipe, scaled, plan.jars, shelf, kitchen, attended, opening, burner, burnerId],
  );
  const sheet = useMemo(() => figures && costSheet(plannedInput(figures)), [figures]);
  const rescaled = useMemo(
    () => (figures ? rescaledFigures(recipe, plan, kitchen, figures) : []),
    [recipe, plan, kitchen, figures],
  );
  const swung = useMemo(() => figures && whatIf(figures, turns, rescaled), [figures, turns, rescaled]);
  const minuteField = (
    name: 'minutes' | 'kitchen' | 'burner',
    label: string,
    reckoned: number,
    hint = '',
  ) => (
    <Figure
      at={at(name)}
      label={label}
      placeholder={fieldText(reckoned, kitchen.locale, 0)}
      slotProps={{ inputLabel: { shrink: true } }}
      hint={hint}
    />
  );
  const turn = (name: keyof typeof turns, label: string, max: number) => (
    <Box>
      <Typography component="span" id={`turn-${name}`}>
        {label}: {turns[name]} %
      </Typography>
      <Slider
        value={turns[name]}
        min={5}
        max={max}
        step={5}
        aria-labelledby={`turn-${name}`}
        onChange={(_, v) => setTurns(t => ({ ...t, [name]: v as number }))}
      />
    </Box>
  );
  return (
    <>
      <ViewHead title={`Cost: ${recipe.name}`} detail="From today's lots and prices.">
        <Button component={Link} to={`/recipes/${recipeId}`} variant="outlined">
          The recipe
        </Button>
        <Button component={Link} to={`/stores/offer?recipe=${recipeId}`} variant="outlined">
          Buy or leave
        </Button>
      </ViewHead>
      <Columns>
        <Stack>
          <ScalePanel
            recipe={recipe}
            wanted={wanted}
            set={part => setWanted(w => ({ ...w, ...part }))}
            plan={plan}
            over={scaled?.over ?? 0}
            kitchen={kitchen}
          />
          <Sheet title="Planned cost" aside={sheet && sheet.bySize.length > 0 && <PerJar sheet={sheet} />}>
            {!scaled ? (
              <Soft>A line of this recipe cannot be weighed, so it cannot be priced.</Soft>
            ) : (
              sheet && <CostTable sheet={sheet} label="Planned cost" />
            )}
            <Cells
              wide="repeat(auto-fit, minmax(140px, 1fr))"
              narrow="repeat(auto-fit, minmax(140px, 1fr))"
              gap={1.5}
              mt={2}
            >
              {minuteField('minutes', 'Attended minutes', minutes.attended, `from ${minutes.from}`)}
              {minuteField('kitchen', 'Opening and cleaning', minutes.kitchen)}
              {minuteField('burner', 'Minutes on the burner', minutes.burner)}
              {kitchen.costs.burners.length > 0 && (
                <Pick
                  at={at('burnerId')}
                  label="Burner"
                  of={kitchen.costs.burners.map(b => [b.id, b.name] as const)}
                />
              )}
            </Cells>
          </Sheet>
        </Stack>
        <Stack>
          {sheet && sheet.bySize.length > 0 && <PricePanel sheet={sheet} />}
          <Sheet title="What if" aside="what moves the cost of a jar most">
            {swung && (
              <Suspense fallback={<Waiting />}>
                <SwingChart cost={swung.cost} swings={swung.swings} currency={kitchen.currency} />
              </Suspense>
            )}
            <Cells mt={2} sx={{ columnGap: 4 }}>
              {turn('fruit_pct', 'Price of the fruit', 100)}
              {turn('yield_pct', 'Jars that fail to come out', 50)}
              {turn('minutes_pct', 'Attended minutes', 100)}
              {turn('sugar_pct', 'Price of sugar', 100)}
            </Cells>
          </Sheet>
        </Stack>
      </Columns>
      <Box sx={{ mt: 2 }}>{past && <CostHistory batches={past.batches} />}</Box>
    </>
  );
}
