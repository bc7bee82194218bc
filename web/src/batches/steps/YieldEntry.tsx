import { recipeFromBatch } from '@cocotte/core/batches';
import { pintsOf } from '@cocotte/core/jars';
import { numberText } from '@cocotte/core/measure';
import { Box, Button, Typography } from '@mui/material';
import { useNavigate } from 'react-router';
import { EntryForm } from '../../kit/EntryForm.tsx';
import { Text } from '../../kit/fields.tsx';
import { useTyped } from '../../kit/form.ts';
import { Sheet } from '../../kit/parts.tsx';
import { words } from '../../kit/readers.ts';
import { useHere } from '../../shell/session.tsx';
import type { OpenBatch } from '../open-batch.ts';
import type { When } from '../when.ts';
import { WentBar } from './WentBar.tsx';

/** What came out against what was foreseen, and why; and the way from a batch to its recipe. */
export function YieldEntry({ batch, when }: { batch: OpenBatch; when: When }) {
  const { kitchen } = useHere();
  const navigate = useNavigate();
  const started = batch.state.started as NonNullable<typeof batch.state.started>;
  const form = useTyped({ reason: '' }, () => ({ reason: words('The reason') }));
  const filled = batch.state.jars.filter(j => j.setAside?.why !== 'part-filled');
  const pints = pintsOf(filled.map(j => ({ size: j.size, count: 1 }))).valueOf();
  if (filled.length === 0) return null;
  const explain = form.submit(async v => {
    if (await batch.enter([['yield.explained', v]], when)) form.again();
  });
  const expected = started.expected?.pints ?? null;
  return (
    <Sheet title="What came out">
      <Typography>
        <strong>{numberText(pints, kitchen, 2)} pints</strong> filled
        {expected !== null &&
          expected > 0 &&
          ` of ${numberText(expected, kitchen, 2)} foreseen, ${Math.round((pints / expected) * 100)} %`}
        .
      </Typography>
      <WentBar batch={batch} onReason={reason => void batch.enter([['yield.explained', { reason }]], when)} />
      {batch.state.yieldReasons.map(y => (
        <Box key={y.by.eventId} sx={{ mt: 0.5, color: 'text.secondary' }}>
          {y.reason}
        </Box>
      ))}
      <EntryForm form={form} action="Keep the reason" onSubmit={explain} mt={1.5}>
        <Text at={form.at('reason')} label="Why more or less" />
      </EntryForm>
      {started.recipe.sketch && (
        <Button
          variant="contained"
          sx={{ mt: 2 }}
          onClick={() =>
            void navigate(`/recipes/${started.recipeId}/change`, {
              state: { recipe: recipeFromBatch(batch.state) },
            })
          }
        >
          Write the recipe from this batch
        </Button>
      )}
    </Sheet>
  );
}
