import { addTasting } from '@cocotte/contract';
import { causesOf } from '@cocotte/core/checks';
import { Box, Button } from '@mui/material';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { v7 } from 'uuid';
import type { OpenBatch } from '../batches/open-batch.ts';
import { EntryForm } from '../kit/EntryForm.tsx';
import { Pick, Text } from '../kit/fields.tsx';
import { useTyped } from '../kit/form.ts';
import { List } from '../kit/List.tsx';
import { Line } from '../kit/layout.tsx';
import { words } from '../kit/readers.ts';
import { call } from '../shell/call.ts';
import { useHere } from '../shell/session.tsx';
import { say } from '../words/views.ts';

/** What may have caused what was seen, by this batch's own record, and what to do with a set that stayed thin. */
export function Causes({ batch }: { batch: OpenBatch }) {
  const { kitchen } = useHere();
  const { state } = batch;
  const causes = causesOf(state, kitchen);
  const soft = state.looks.findLast(l => l.set !== null)?.set === 'too soft';
  const recipeId = state.started?.recipeId ?? '';
  if (causes.length === 0) return null;
  return (
    <Box sx={{ mt: 2 }}>
      <List
        label={say('causes.title')}
        rows={causes}
        keyOf={c => `${c.of} ${c.what}`}
        columns={[
          { head: say('causes.seen'), row: true, cell: c => c.of },
          { head: say('causes.shows'), cell: c => c.what },
          { head: say('causes.change'), cell: c => c.change },
        ]}
      />
      {soft && (
        <Box sx={{ mt: 1.5 }}>
          <Box>{say('causes.soft')}</Box>
          <Line mt={1}>
            <Button component={Link} to={`/recipes/${recipeId}/change`} variant="outlined">
              {say('causes.rename')}
            </Button>
            <Button component="a" href="#into-another-batch" variant="outlined">
              {say('causes.recook')}
            </Button>
          </Line>
        </Box>
      )}
    </Box>
  );
}

const RATINGS = ['1', '2', '3', '4', '5'] as const;

/** How it tastes: kept with the recipe, and with the lot it was of. */
export function TasteEntry({ batch }: { batch: OpenBatch }) {
  const client = useQueryClient();
  const [kept, setKept] = useState(0);
  const started = batch.state.started as NonNullable<typeof batch.state.started>;
  const form = useTyped({ rating: '4' as (typeof RATINGS)[number], notes: '' }, () => ({
    notes: words(say('taste.notes')),
  }));
  const enter = form.submit(async ({ rating, notes }) => {
    await call(addTasting, {
      params: { recipeId: started.recipeId },
      body: { id: v7(), rating: Number(rating), notes, lotCode: started.lotCode },
    });
    await client.invalidateQueries({ queryKey: ['recipes'] });
    setKept(kept + 1);
    form.again({ rating });
  });
  return (
    <Box sx={{ mt: 2 }}>
      <EntryForm form={form} action={say('taste.enter')} onSubmit={enter} wide="110px 1fr" narrow="110px 1fr">
        <Pick at={form.at('rating')} label={say('taste.rating')} of={RATINGS} />
        <Text at={form.at('notes')} label={say('taste.notes')} />
      </EntryForm>
      {kept > 0 && <Box role="status">{say('taste.kept', { n: kept })}</Box>}
    </Box>
  );
}
