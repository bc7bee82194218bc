import type { Kitchen } from '@cocotte/core/kitchen';
import { durationText, numberText } from '@cocotte/core/measure';
import {
  amountsPerPot,
  type Recipe,
  stepText,
  targetAt,
  targetWords,
  windowText,
} from '@cocotte/core/recipes';
import { processFor, routeToSale } from '@cocotte/core/review';
import { needsOf, wantedOf } from '@cocotte/core/stores';
import { processWords } from '@cocotte/core/times';
import { Box, Button, Typography } from '@mui/material';
import { Suspense, lazy, useMemo, useState } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import { v7 } from 'uuid';
import { faultsOf } from '../../shell/call.ts';
import { Columns, Stack } from '../../kit/layout.tsx';
import { Faults, Fractions, Sheet, Soft, Tag, ViewHead } from '../../kit/parts.tsx';
import { useHere, useMay } from '../../shell/session.tsx';
import { Waiting } from '../../kit/Loaded.tsx';
import { usePlans, useShelf } from '../../stores/api.ts';
import { TakeInDialog } from '../../stores/planning/TakeInDialog.tsx';
import { PlannedCostPanel } from '../../stores/costs/PlannedCostPanel.tsx';
import { PlanDialog } from '../../stores/planning/PlanDialog.tsx';
import { say } from '../../words/views.ts';
import { useHistory, useRecipe } from '../api.ts';
import { useLibrary } from '../library.ts';
import { HistoryPanel, TastingPanel, VersionPanel } from './Experience.tsx';
import { Goes } from './Goes.tsx';
import { ForecastPanel } from './ForecastPanel.tsx';
import { LayOutPanel } from './LayOutPanel.tsx';
import { LineTable } from './LineTable.tsx';
import { type Plan, type Wanted, firstWanted, foresee, planOf, scaledOrNull, yieldSeen } from './plan.ts';
import { AuthorityPanel, ProcessPanel } from './ProcessPanel.tsx';
import { ReviewPanel } from './ReviewPanel.tsx';
import { ScalePanel } from './ScalePanel.tsx';
import { SketchSheet } from './SketchSheet.tsx';
import { StartDialog } from './StartDialog.tsx';

const AcidityForecastPanel = lazy(async () => ({
  default: (await import('./AcidityForecastPanel.tsx')).AcidityForecastPanel,
}));

/** A recipe as a sheet: how much, the lines at that scale, what it will make, and its process in this kitchen. */
export function RecipeSheet() {
  const { recipeId } = useParams();
  const { kitchen } = useHere();
  const { data, error } = useRecipe(recipeId);
  if (error) return <Faults faults={faultsOf(error)} />;
  if (!data) return <Waiting />;
  const key = `${data.recipeId} ${data.number}`;
  if (data.recipe.sketch || !hasMain(data.recipe))
    return (
      <SketchSheet
        key={key}
        recipe={data.recipe}
        recipeId={data.recipeId}
        number={data.number}
        kitchen={kitchen}
      />
    );
  return (
    <Opened key={key} recipe={data.recipe} recipeId={data.recipeId} number={data.number} kitchen={kitchen} />
  );
}

const hasMain = (recipe: Recipe) =>
  recipe.lines.some(l => l.role === 'fruit' || l.role === 'low-acid produce');

function Opened({
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
  const navigate = useNavigate();
  const [wanted, setWanted] = useState<Wanted>(() => firstWanted(recipe, kitchen));
  const [starting, setStarting] = useState(false);
  const [planning, setPlanning] = useState(false);
  const [needs, setNeeds] = useState(false);
  const { data: shelf } = useShelf();
  const [params] = useSearchParams();
  const { data: planned } = usePlans();
  const planId = planned?.plans.find(p => p.id === params.get('plan'))?.id ?? null;
  const { data: history } = useHistory(recipeId);
  const correction = useMemo(() => yieldSeen(history?.batches ?? []), [history]);
  const plan = useMemo(
    () => planOf(recipe, wanted, kitchen, correction),
    [recipe, wanted, kitchen, correction],
  );
  const scaled = useMemo(() => scaledOrNull(recipe, plan), [recipe, plan]);
  const foreseen = useMemo(() => foresee(recipe, plan, kitchen), [recipe, plan, kitchen]);
  const readings = useMemo(() => (history?.batches ?? []).flatMap(b => b.readings).reverse(), [history]);
  const route = useMemo(() => routeToSale(recipe, kitchen), [recipe, kitchen]);
  const solids =
    foreseen.made && !recipe.packing && foreseen.made.faults.length === 0 && foreseen.made.waterOff_g > 0
      ? foreseen.made.solids_pct
      : null;
  return (
    <>
      <ViewHead
        title={recipe.name}
        detail={
          <>
            {recipe.code} · {recipe.product} · version {number}
            {recipe.family && ` · ${recipe.family}`}
            {recipe.tags.length > 0 && ` · ${recipe.tags.join(', ')}`}
            {recipe.authority.grade === 'letter' && recipe.authority.demo && (
              <>
                {' '}
                · <Tag tone="ox">demo, do not cook from this</Tag>
              </>
            )}
          </>
        }
      >
        {mayCook && (
          <Button
            variant="outlined"
            onClick={() =>
              void navigate('/recipes/new', {
                state: {
                  recipe: {
                    ...recipe,
                    name: `${recipe.name}, a variant`.slice(0, 80),
                    code: '',
                    variantOf: recipe.variantOf ?? recipeId,
                  },
                },
              })
            }
          >
            Make a variant
          </Button>
        )}
        {mayCook && (
          <Button component={Link} to={`/recipes/${recipeId}/change`} variant="outlined">
            Change it
          </Button>
        )}
        <Button component={Link} to={`/recipes/${recipeId}/rehearse`} variant="outlined">
          {say('dry.way')}
        </Button>
        {mayCook && shelf && (
          <Button variant="outlined" onClick={() => setNeeds(true)}>
            {say('takeIn.needs')}
          </Button>
        )}
        {mayCook && (
          <Button
            variant="outlined"
            onClick={() => setPlanning(true)}
            disabled={plan.fault !== null || scaled === null}
          >
            Plan a batch
          </Button>
        )}
        {mayCook && (
          <Button
            variant="contained"
            size="large"
            onClick={() => setStarting(true)}
            disabled={plan.fault !== null || scaled === null}
          >
            Start a batch
          </Button>
        )}
      </ViewHead>
      <Columns of="1fr 360px">
        <Stack>
          <ScalePanel
            recipe={recipe}
            wanted={wanted}
            set={part => setWanted(w => ({ ...w, ...part }))}
            plan={plan}
            over={scaled?.over ?? 0}
            kitchen={kitchen}
          />
          {scaled ? (
            <LineTable
              recipe={recipe}
              lines={scaled.lines}
              pots={
                plan.pots.pots > 1
                  ? { count: plan.pots.pots, each: amountsPerPot(recipe, plan.factor, plan.pots.pots) }
                  : null
              }
              kitchen={kitchen}
            />
          ) : (
            <Sheet>
              A line of this recipe cannot be weighed, so it cannot be scaled. Change it to say what it
              weighs.
            </Sheet>
          )}
          <ForecastPanel
            recipe={recipe}
            plan={plan}
            foreseen={foreseen}
            correction={correction}
            kitchen={kitchen}
          />
          <Suspense fallback={null}>
            <AcidityForecastPanel recipe={recipe} foreseen={foreseen} kitchen={kitchen} />
          </Suspense>
          <Goes
            recipe={recipe}
            plan={plan}
            foreseen={foreseen}
            correction={correction}
            last={history?.batches.find(b => b.jars > 0) ?? null}
            kitchen={kitchen}
          />
          <StepList recipe={recipe} plan={plan} kitchen={kitchen} />
          <HistoryPanel recipeId={recipeId} kitchen={kitchen} />
        </Stack>
        <Stack>
          <ProcessPanel recipe={recipe} kitchen={kitchen} sizes={plan.jars.map(j => j.size)} />
          <AuthorityPanel recipe={recipe} route={route} recipeId={recipeId} number={number} />
          <ReviewPanel recipe={recipe} solids_pct={solids} readings={readings} />
          {scaled && (
            <PlannedCostPanel
              recipe={recipe}
              recipeId={recipeId}
              plan={plan}
              scaled={scaled}
              foreseen={foreseen}
            />
          )}
          <LayOutPanel recipe={recipe} jars={plan.jars} kitchen={kitchen} />
          <TastingPanel recipeId={recipeId} kitchen={kitchen} />
          <VersionPanel recipeId={recipeId} variantOf={recipe.variantOf} number={number} kitchen={kitchen} />
        </Stack>
      </Columns>
      {needs && <NeedsDialog recipe={recipe} plan={plan} onClose={() => setNeeds(false)} />}
      {planning && (
        <PlanDialog
          recipeId={recipeId}
          factor={plan.factor.toFraction()}
          jars={plan.jars}
          onClose={() => setPlanning(false)}
        />
      )}
      {starting && (
        <StartDialog
          recipe={recipe}
          recipeId={recipeId}
          version={number}
          factor={plan.factor.toFraction()}
          jars={plan.jars}
          route={route}
          pot={plan.pot}
          doublePectin={wanted.doublePectin}
          planId={planId}
          onClose={() => setStarting(false)}
        />
      )}
    </>
  );
}

/** What this batch needs and the shelf has not, to be put there at once. */
function NeedsDialog({ recipe, plan, onClose }: { recipe: Recipe; plan: Plan; onClose: () => void }) {
  const { data } = useShelf();
  const library = useLibrary();
  const [wanted] = useState(() => {
    const scaled = scaledOrNull(recipe, plan);
    const asBought = new Map((scaled?.lines ?? []).map(l => [l.lineId, l.asBought_g]));
    return wantedOf(needsOf(recipe.lines, asBought, plan.jars, data?.shelf ?? []), library.byId, v7);
  });
  return <TakeInDialog wanted={wanted} onClose={onClose} />;
}

function StepList({ recipe, plan, kitchen }: { recipe: Recipe; plan: Plan; kitchen: Kitchen }) {
  const { pots } = plan.pots;
  const heat = processWords(
    plan.jars.flatMap(j => {
      const answer = processFor(recipe, j.size, kitchen.altitude_m, kitchen);
      return answer.ok ? [answer.time] : [];
    }),
    kitchen,
  );
  return (
    <Sheet title="Steps">
      <Box component="ol" sx={{ m: 0, pl: 3, '& li': { mb: 1 } }}>
        {recipe.steps.map(s => {
          const asides = [
            targetWords(targetAt(s.target, plan.factor, pots), kitchen) +
              (pots > 1 && ['volume', 'depth'].includes(s.target.kind) ? ', in each pot' : ''),
            s.window ? windowText(s.window, kitchen) : '',
            s.part && `on the ${s.part}`,
            s.separates
              ? `${Math.round(s.separates.share * 100)} % set aside as the ${s.separates.part}`
              : '',
            s.expects ? `about ${s.expects.text} as written` : '',
            s.attention.kind === 'look in'
              ? `look in every ${durationText(s.attention.every_min * 60)}`
              : s.attention.kind === 'free'
                ? 'free'
                : '',
            s.mayStop_h === null ? '' : `one may stop here for ${numberText(s.mayStop_h, kitchen, 0)} h`,
          ].filter(Boolean);
          return (
            <li key={s.id}>
              <Fractions text={stepText(recipe, s, { factor: plan.factor, ...heat })} />
              {asides.length > 0 && <Soft> · {asides.join(' · ')}</Soft>}
            </li>
          );
        })}
      </Box>
      {recipe.notes && (
        <Typography sx={{ mt: 2, color: 'text.secondary', whiteSpace: 'pre-line' }}>
          {recipe.notes}
        </Typography>
      )}
    </Sheet>
  );
}
