import { potBefore } from '@cocotte/core/batches';
import { Button } from '@mui/material';
import { useMemo, useSyncExternalStore } from 'react';
import { records } from '../../device/index.ts';
import { assessed } from '../../device/summaries.ts';
import { Line } from '../../kit/layout.tsx';
import { Caution, Sheet, Soft } from '../../kit/parts.tsx';
import { say } from '../../words/views.ts';
import type { OpenBatch } from '../open-batch.ts';
import type { When } from '../when.ts';

/** Whether the pot was washed, where something with an allergen that this lacks was in it today. */
export function Washed({ batch, when }: { batch: OpenBatch; when: When }) {
  const { held } = useSyncExternalStore(records.subscribe, records.view);
  const { state } = batch;
  const madeOn = state.started?.madeOn;
  const before = useMemo(() => {
    const others = [...held].filter(([id]) => id !== batch.id).map(([, view]) => assessed(view, []).state);
    return potBefore(
      state,
      others.filter(o => o.started?.madeOn === madeOn),
    );
  }, [held, batch.id, state, madeOn]);
  // Once it is in jars nothing can be washed any more.
  if (!before || state.jars.length > 0) return null;
  const answer = (washed: boolean) =>
    void batch.enter([['pot.washed', { washed, allergens: before.allergens }]], when);
  return (
    <Sheet tone="live" title={say('washed.title')}>
      <Soft>
        {say('washed.why', { names: before.names.join(', '), allergens: before.allergens.join(', ') })}
      </Soft>
      <Line mt={1.5}>
        <Button variant="contained" sx={{ minHeight: 56 }} onClick={() => answer(true)}>
          {say('washed.yes')}
        </Button>
        <Button variant="outlined" sx={{ minHeight: 56 }} onClick={() => answer(false)}>
          {say('washed.no')}
        </Button>
      </Line>
      <Caution>{say('washed.no.then', { allergens: before.allergens.join(', ') })}</Caution>
    </Sheet>
  );
}
