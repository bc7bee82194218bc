import { balance } from '@cocotte/core/balance';
import { observed } from '@cocotte/core/batches';
import type { Kitchen } from '@cocotte/core/kitchen';
import { Suspense, lazy, useMemo } from 'react';
import type { OpenBatch } from '../batches/open-batch.ts';

const BalancePanel = lazy(async () => ({
  default: (await import('../kit/balance/BalancePanel.tsx')).BalancePanel,
}));

/** Where everything went of a batch, as far as it is known; what did not happen yet is as planned. */
export function Went({ state, kitchen }: { state: OpenBatch['state']; kitchen: Kitchen }) {
  const process = useMemo(() => {
    try {
      return observed(state);
    } catch (error) {
      // A sketch whose lines nobody weighed yet has nowhere to go.
      if (error instanceof RangeError) return null;
      throw error;
    }
  }, [state]);
  const made = useMemo(() => process && balance(process), [process]);
  if (!process || !made || process.lines.length === 0) return null;
  return (
    <Suspense fallback={null}>
      <BalancePanel
        title="Where everything went"
        aside={state.jars.length > 0 ? 'as it happened' : 'what happened so far, the rest as planned'}
        process={process}
        made={made}
        kitchen={kitchen}
      />
    </Suspense>
  );
}
