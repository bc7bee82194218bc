import { type Fault, fieldText, readNumber } from '@cocotte/core/measure';
import type { Recipe } from '@cocotte/core/recipes';
import { costSheet, plannedInput, whatIf } from '@cocotte/core/stores';
import { Box, Button, MenuItem, Slider, TextField, Typography } from '@mui/material';
import { Suspense, lazy, useMemo, useState } from 'react';
import { Link, useParams } from 'react-router';
import { useRecipe } from '../../recipes/api.ts';
import { type Wanted, firstWanted, foresee, planOf, scaledOrNull } from '../../recipes/sheet/plan.ts';
import { ScalePanel } from '../../recipes/sheet/ScalePanel.tsx';
import { faultsOf } from '../../shell/call.ts';
import { faultText } from '../../shell/entry.ts';
import { Faults, Nothing, Sheet, Soft, ViewHead } from '../../shell/parts.tsx';
import { useHere } from '../../shell/session.tsx';
import { Waiting } from '../../shell/Shell.tsx';
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
  const { data, error } = useRecipe(recipeId);
  if (error) return <Faults faults={faultsOf(error)} />;
  if (!data) return <Waiting />;
  const { recipe } = data;
  if (recipe.sketch || !recipe.lines.some(l => l.role === 'fruit' || l.role === 'low-acid produce'))
    return <Nothing>This recipe has no lines to price yet.</Nothing>;
  return <Opened key={`${recipeId} ${data.number}`} recipe={recipe} recipeId={recipeId} />;
}

function Opened({ recipe, recipeId }: { recipe: Recipe; recipeId: string }) {
  const { kitchen } = useHere();
  const { data: shelf } = useShelf();
  const { data: past } = useRecipeCosts(recipeId);
  const [wanted, setWanted] = useState<Wanted>(() => firstWanted(recipe, kitchen));
  const [typed, setTyped] = useState<{ minutes?: string; kitchen?: string; burner?: string }>({});
  const [burnerId, setBurner] = useState(kitchen.costs.burners[0]?.id ?? '');
  const [turns, setTurns] = useState({ fruit_pct: 30, yield_pct: 10, minutes_pct: 25, sugar_pct: 30 });
  const plan = useMemo(() => planOf(recipe, wanted, kitchen), [recipe, wanted, kitchen]);
  const scaled = useMemo(() => scaledOrNull(recipe, plan), [recipe, plan]);
  const minutes = useMemo(
    () => minutesFor(recipe, plan, foresee(recipe, plan, kitchen), kitchen, past?.batches ?? []),
    [recipe, plan, kitchen, past],
  );
  const figure = (
    text: string | undefined,
    fallback: number,
    name: string,
  ): { value: number; fault: Fault | null } => {
    if (text === undefined) return { value: fallback, fault: null };
    const read = readNumber(text, kitchen.locale, { name, min: 0, max: 5000 });
    return read.ok ? { value: read.value, fault: null } : { value: fallback, fault: read.fault };
  };
  const attended = figure(typed.minutes, minutes.attended, 'The minutes');
  const opening = figure(typed.kitchen, minutes.kitchen, 'The minutes');
  const burner = figure(typed.burner, minutes.burner, 'The minutes');
  const figures = useMemo(
    () =>
      scaled && shelf
        ? {
            ...figuresOf(recipe, scaled, plan.jars, shelf.shelf, kitchen, {
              attended: attended.value,
              kitchen: opening.value,
              burner: burner.value,
            }),
            burnerId,
          }
        : null,
    [recipe, scaled, plan.jars, shelf, kitchen, attended.value, opening.value, burner.value, burnerId],
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
    now: { value: number; fault: Fault | null },
    hint?: string,
  ) => (
    <TextField
      label={label}
      inputMode="decimal"
      value={typed[name] ?? fieldText(now.value, kitchen.locale, 0)}
      onChange={e => setTyped(t => ({ ...t, [name]: e.target.value }))}
      error={now.fault !== null}
      helperText={now.fault ? faultText(now.fault) : hint}
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
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: 'minmax(0, 1fr) minmax(0, 1fr)' },
          gap: 2,
          alignItems: 'start',
        }}
      >
        <Box sx={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr)', gap: 2 }}>
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
            <Box
              sx={{
                display: 'grid',
                gridTemplateColumns: 'repeat(auto-fit, minmax(140px, 1fr))',
                gap: 1.5,
                mt: 2,
                alignItems: 'start',
              }}
            >
              {minuteField(
                'minutes',
                'Attended minutes',
                attended,
                typed.minutes === undefined ? `from ${minutes.from}` : undefined,
              )}
              {minuteField('kitchen', 'Opening and cleaning', opening)}
              {minuteField('burner', 'Minutes on the burner', burner)}
              {kitchen.costs.burners.length > 0 && (
                <TextField select label="Burner" value={burnerId} onChange={e => setBurner(e.target.value)}>
                  {kitchen.costs.burners.map(b => (
                    <MenuItem key={b.id} value={b.id}>
                      {b.name}
                    </MenuItem>
                  ))}
                </TextField>
              )}
            </Box>
          </Sheet>
        </Box>
        <Box sx={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr)', gap: 2 }}>
          {sheet && sheet.bySize.length > 0 && <PricePanel sheet={sheet} />}
          <Sheet title="What if" aside="what moves the cost of a jar most">
            {swung && (
              <Suspense fallback={<Waiting />}>
                <SwingChart cost={swung.cost} swings={swung.swings} currency={kitchen.currency} />
              </Suspense>
            )}
            <Box
              sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr' }, columnGap: 4, mt: 2 }}
            >
              {turn('fruit_pct', 'Price of the fruit', 100)}
              {turn('yield_pct', 'Jars that fail to come out', 50)}
              {turn('minutes_pct', 'Attended minutes', 100)}
              {turn('sugar_pct', 'Price of sugar', 100)}
            </Box>
          </Sheet>
        </Box>
      </Box>
      <Box sx={{ mt: 2 }}>{past && <CostHistory batches={past.batches} />}</Box>
    </>
  );
}
