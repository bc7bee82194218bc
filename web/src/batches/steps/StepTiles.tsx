import { batchStepText } from '@cocotte/core/batches';
import { countdownText } from '@cocotte/core/measure';
import type { Step } from '@cocotte/core/recipes';
import { Box, ButtonBase } from '@mui/material';
import { Fractions } from '../../kit/parts.tsx';
import { useNow } from '../../shell/clock.ts';
import { useHere } from '../../shell/session.tsx';
import { say } from '../../words/views.ts';
import type { OpenBatch } from '../open-batch.ts';

/** Steps that run side by side, one tile each, with what is left of a wait; the one in hand is marked. */
export function StepTiles({
  batch,
  open,
  inHand,
  onPick,
}: {
  batch: OpenBatch;
  open: readonly Step[];
  inHand: Step;
  onPick: (stepId: string) => void;
}) {
  const { kitchen } = useHere();
  const now_ms = useNow();
  if (open.length < 2) return null;
  const steps = batch.state.started?.recipe.steps ?? [];
  const left = (step: Step) => {
    const begun = batch.state.steps[step.id]?.started;
    if (!begun || !step.window) return '';
    const until_ms = begun.at_ms + step.window.from_min * 60_000;
    return until_ms > now_ms ? countdownText((until_ms - now_ms) / 1000) : say('steps.mayEnd');
  };
  return (
    <Box
      role="group"
      aria-label={say('steps.sideBySide')}
      sx={{
        display: 'grid',
        gridTemplateColumns: 'repeat(auto-fit, minmax(min(100%, 220px), 1fr))',
        gap: 1.5,
      }}
    >
      {open.map(step => {
        const chosen = step.id === inHand.id;
        return (
          <ButtonBase
            key={step.id}
            aria-pressed={chosen}
            onClick={() => onPick(step.id)}
            sx={{
              display: 'block',
              textAlign: 'left',
              minHeight: 84,
              p: 1.5,
              borderRadius: 1,
              border: 2,
              borderColor: chosen ? 'primary.main' : 'rule.strong',
              bgcolor: chosen ? 'background.paper' : 'background.default',
            }}
          >
            <Box sx={{ color: 'text.secondary' }}>
              {say('steps.number', { n: steps.indexOf(step) + 1 })}
              {left(step) && (
                <Box component="strong" sx={{ float: 'right', color: 'live.main' }}>
                  {left(step)}
                </Box>
              )}
            </Box>
            <Box
              sx={{
                display: '-webkit-box',
                WebkitLineClamp: 2,
                WebkitBoxOrient: 'vertical',
                overflow: 'hidden',
                fontWeight: chosen ? 700 : 400,
              }}
            >
              <Fractions text={batchStepText(batch.state, step, kitchen)} />
            </Box>
          </ButtonBase>
        );
      })}
    </Box>
  );
}
