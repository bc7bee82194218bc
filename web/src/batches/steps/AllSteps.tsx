import { batchStepText, isStepDone } from '@cocotte/core/batches';
import { clockText } from '@cocotte/core/measure';
import type { Step } from '@cocotte/core/recipes';
import { Box, Button } from '@mui/material';
import { CheckMark, Fractions, Sheet, Soft } from '../../kit/parts.tsx';
import { useHere } from '../../shell/session.tsx';
import { say } from '../../words/views.ts';
import type { OpenBatch } from '../open-batch.ts';

/** Every step of the recipe, with what is done; another than the one in hand may be done too. */
export function AllSteps({
  batch,
  inHand,
  onDone,
}: {
  batch: OpenBatch;
  inHand: Step | undefined;
  onDone: (step: Step) => void;
}) {
  const { kitchen } = useHere();
  const steps = batch.state.started?.recipe.steps ?? [];
  return (
    <Sheet title="All steps">
      <Box component="ol" sx={{ listStyle: 'none', p: 0, m: 0 }}>
        {steps.map((step, i) => {
          const progress = batch.state.steps[step.id];
          const isDone = isStepDone(batch.state, step);
          return (
            <Box
              component="li"
              key={step.id}
              sx={{
                display: 'flex',
                gap: 1.5,
                py: 1,
                borderBottom: 1,
                borderColor: 'rule.main',
                '&:last-of-type': { borderBottom: 0 },
                color: isDone || step === inHand ? 'text.primary' : 'text.secondary',
              }}
            >
              <Box
                sx={{
                  width: 26,
                  height: 26,
                  flex: 'none',
                  borderRadius: '50%',
                  display: 'grid',
                  placeItems: 'center',
                  border: '2px solid',
                  borderColor: isDone ? 'leaf.main' : step === inHand ? 'live.fill' : 'rule.strong',
                  bgcolor: isDone ? 'leaf.main' : 'transparent',
                  color: 'background.paper',
                  fontSize: '0.85rem',
                }}
              >
                {isDone ? (
                  <CheckMark size={13} />
                ) : (
                  <Box component="span" sx={{ color: 'text.primary' }}>
                    {i + 1}
                  </Box>
                )}
              </Box>
              <Box sx={{ flex: 1 }}>
                <Fractions text={batchStepText(batch.state, step, kitchen)} />
                {progress?.done && <Soft> · {clockText(progress.done.at_ms, kitchen)}</Soft>}
                {progress?.outOfOrder && (
                  <Soft> · {say('steps.beforeTurn', { reason: progress.outOfOrder })}</Soft>
                )}
              </Box>
              {!isDone && step !== inHand && (
                <Button
                  size="small"
                  variant="outlined"
                  sx={{ alignSelf: 'center', flex: 'none' }}
                  aria-label={`Done: step ${i + 1}`}
                  onClick={() => onDone(step)}
                >
                  Done
                </Button>
              )}
            </Box>
          );
        })}
      </Box>
    </Sheet>
  );
}
