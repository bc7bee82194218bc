import { DEFAULT_HEADSPACE_MM, balance, plan as planned } from '@cocotte/core/balance';
import { type SeenYield, corrected } from '@cocotte/core/forecast';
import { jarCountText, jarSize } from '@cocotte/core/jars';
import type { Kitchen } from '@cocotte/core/kitchen';
import { dayText, numberText } from '@cocotte/core/measure';
import type { Recipe } from '@cocotte/core/recipes';
import { Link as MuiLink } from '@mui/material';
import { Suspense, lazy, useMemo } from 'react';
import { Link } from 'react-router';
import { Sheet, Soft } from '../../kit/parts.tsx';
import type { Foreseen, Plan } from './plan.ts';

const BalancePanel = lazy(async () => ({
  default: (await import('../../kit/balance/BalancePanel.tsx')).BalancePanel,
}));

/** Where everything goes that this plan takes, from the board to the jars that are wanted. */
export function Goes({
  recipe,
  plan,
  foreseen,
  correction,
  last,
  kitchen,
}: {
  recipe: Recipe;
  plan: Plan;
  foreseen: Foreseen;
  correction: SeenYield | null;
  /** The batch that was filled last. */
  last: { batchId: string; madeOn: string } | null;
  kitchen: Kitchen;
}) {
  const process = useMemo(() => {
    try {
      return planned(recipe, plan.factor, plan.jars, {
        ...kitchen,
        pot: plan.pot,
        pots: plan.pots.pots,
        headspace_mm: foreseen.headspace_mm ?? DEFAULT_HEADSPACE_MM,
      });
    } catch (error) {
      if (error instanceof RangeError) return null;
      throw error;
    }
  }, [recipe, plan, kitchen, foreseen.headspace_mm]);
  const made = useMemo(() => process && balance(process), [process]);
  if (!process || !made || !foreseen.made) return null;
  const size = plan.jars[0]?.size ?? recipe.makes.size;
  const each = jarSize(size).pints.valueOf();
  const range = corrected(foreseen.made.pints, correction);
  const n = (pints: number) => numberText(pints / each, kitchen, 0);
  return (
    <Suspense
      fallback={
        <Sheet title="Where everything goes">
          <Soft>The picture is coming.</Soft>
        </Sheet>
      }
    >
      <BalancePanel
        title="Where everything goes"
        aside={
          <>
            for {plan.jars.map(j => jarCountText(j.count, j.size)).join(', ')}
            {last && (
              <>
                {' · '}
                <MuiLink component={Link} to={`/records/${last.batchId}`}>
                  as it happened, {dayText(last.madeOn, kitchen)}
                </MuiLink>
              </>
            )}
          </>
        }
        process={process}
        made={made}
        kitchen={kitchen}
        jars={{
          figure: `${n(range.low)} to ${n(range.high)}`,
          words: `${jarSize(size).plural}, eight times in ten`,
        }}
      />
    </Suspense>
  );
}
