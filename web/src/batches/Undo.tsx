import { type BatchEvent, complete, type CorrectableType } from '@cocotte/core/batches';
import { eventWords } from '@cocotte/core/records';
import { Button } from '@mui/material';
import { type ReactNode, useEffect, useState } from 'react';
import { Line } from '../kit/layout.tsx';
import { Soft } from '../kit/parts.tsx';
import { useHere } from '../shell/session.tsx';
import { say } from '../words/views.ts';
import type { Fact, OpenBatch } from './open-batch.ts';
import type { When } from './when.ts';

const OFFERED_MS = 20_000;

/** Offers for a while to take back what was entered last. What is undone stays in the record, with its reason. */
function useOffer(batch: OpenBatch) {
  const [last, setLast] = useState<{ words: string; entries: (readonly [string, CorrectableType])[] } | null>(
    null,
  );
  useEffect(() => {
    if (!last) return undefined;
    const timer = setTimeout(() => setLast(null), OFFERED_MS);
    return () => clearTimeout(timer);
  }, [last]);
  const entered = (words: string, facts: Fact[], ids: readonly string[]) =>
    setLast({ words, entries: ids.map((id, i) => [id, facts[i]?.[0] as CorrectableType] as const) });
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
  return { entered, offer };
}

/** Enters what was tapped, in words of one's own, and offers to take it back: a count is one tap too many soon enough. */
export function useUndo(batch: OpenBatch, when: When) {
  const { entered, offer } = useOffer(batch);
  const enter = async (words: string, facts: Fact[]) => {
    const ids = await batch.enter(facts, when);
    if (ids) entered(words, facts, ids);
    return ids !== null;
  };
  return { enter, offer };
}

/** The same batch, which offers to take back whatever is entered through it, in the words of the record. */
export function useUndoable(batch: OpenBatch): { undoable: OpenBatch; offer: ReactNode } {
  const { kitchen } = useHere();
  const { entered, offer } = useOffer(batch);
  const recipe = batch.state.started?.recipe ?? null;
  const undoable: OpenBatch = {
    ...batch,
    enter: async (facts, when) => {
      const ids = await batch.enter(facts, when);
      const said = facts.map(([type, body]) =>
        eventWords({ type, body: complete(type, body as never) } as BatchEvent, recipe, kitchen),
      );
      if (ids) entered(said.join(' '), facts, ids);
      return ids;
    },
  };
  return { undoable, offer };
}
