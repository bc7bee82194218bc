import type { CorrectableType } from '@cocotte/core/batches';
import { Button } from '@mui/material';
import { useEffect, useState } from 'react';
import { Line } from '../kit/layout.tsx';
import { Soft } from '../kit/parts.tsx';
import { say } from '../words/views.ts';
import type { Fact, OpenBatch } from './open-batch.ts';
import type { When } from './when.ts';

const OFFERED_MS = 20_000;

/**
 * Enters what was tapped, and offers for a while to take it back: a count is one tap too many soon enough. What is
 * undone stays in the record, with its reason.
 */
export function useUndo(batch: OpenBatch, when: When) {
  const [last, setLast] = useState<{ words: string; entries: (readonly [string, CorrectableType])[] } | null>(
    null,
  );
  useEffect(() => {
    if (!last) return undefined;
    const timer = setTimeout(() => setLast(null), OFFERED_MS);
    return () => clearTimeout(timer);
  }, [last]);
  const enter = async (words: string, facts: Fact[]) => {
    const ids = await batch.enter(facts, when);
    if (ids) setLast({ words, entries: ids.map((id, i) => [id, facts[i]?.[0] as CorrectableType] as const) });
    return ids !== null;
  };
  const undo = async () => {
    if (!last) return;
    setLast(null);
    await batch.enter(
      last.entries
        .toReversed()
        .map(([replaces, type]): Fact => [
          'entry.corrected',
          { replaces, type, body: null, occurredAt: null, reason: say('undo.reason') },
        ]),
    );
  };
  const offer = last && (
    <Line mt={1} sx={{ justifyContent: 'space-between' }}>
      <Soft>
        <span role="status">{last.words}</span>
      </Soft>
      <Button variant="outlined" onClick={() => void undo()} sx={{ minHeight: 56 }}>
        {say('form.undo')}
      </Button>
    </Line>
  );
  return { enter, offer };
}
