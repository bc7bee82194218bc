import { MARKET_STEPS, type MarketStep } from '@cocotte/core/batches';
import { rangesText } from '@cocotte/core/measure';
import { Box, Button, Checkbox, FormControlLabel } from '@mui/material';
import { useState } from 'react';
import type { OpenBatch } from '../batches/open-batch.ts';
import type { When } from '../batches/when.ts';
import { JarShelf } from '../kit/jars.tsx';
import { Sheet, Soft } from '../kit/parts.tsx';
import { say } from '../words/views.ts';
import { SuspectJars } from './SuspectJars.tsx';

/** Before market each jar is taken in the hand once more: band off, washed, looked at, and a clean band on. */
export function MarketPanel({ batch, when }: { batch: OpenBatch; when: When }) {
  const { released } = batch.standing;
  const [done, setDone] = useState<ReadonlySet<MarketStep>>(new Set(MARKET_STEPS));
  const [bad, setBad] = useState<ReadonlySet<number>>(new Set());
  if (released.length === 0) return null;
  const jars = batch.state.jars.filter(j => released.includes(j.number));
  const waiting = jars.filter(j => !j.market || j.market.done.length < MARKET_STEPS.length);
  const toggle = (step: MarketStep) =>
    setDone(d => new Set(d.has(step) ? [...d].filter(x => x !== step) : [...d, step]));
  const good = waiting.filter(j => !bad.has(j.number)).map(j => j.number);
  const marked = jars.filter(j => bad.has(j.number)).map(j => j.number);
  return (
    <Sheet
      title={say('market.title')}
      aside={say('market.aside', { done: jars.length - waiting.length, of: jars.length })}
    >
      <Soft>{say('market.why')}</Soft>
      <Box
        role="group"
        aria-label={say('market.done')}
        sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 2 }}
      >
        {MARKET_STEPS.map(step => (
          <FormControlLabel
            key={step}
            control={<Checkbox checked={done.has(step)} onChange={() => toggle(step)} />}
            label={step}
            sx={{ minHeight: 46 }}
          />
        ))}
      </Box>
      <JarShelf
        jars={jars.map(j => ({ number: j.number, size: j.size, form: 'released' as const }))}
        marked={bad}
        onPress={n => setBad(b => new Set(b.has(n) ? [...b].filter(x => x !== n) : [...b, n]))}
        markWord={say('market.bad')}
      />
      {good.length > 0 && (
        <Button
          fullWidth
          variant="outlined"
          disabled={done.size === 0}
          sx={{ minHeight: 56, mt: 1.5 }}
          onClick={() =>
            void batch.enter(
              [['jars.market_checked', { jars: good, done: MARKET_STEPS.filter(s => done.has(s)) }]],
              when,
            )
          }
        >
          {say('market.enter', { jars: rangesText(good) })}
        </Button>
      )}
      {marked.length > 0 && (
        <SuspectJars
          jars={marked}
          onDestroyed={why =>
            void batch
              .enter([['jars.set_aside', { jars: marked, why }]], when)
              .then(there => there && setBad(new Set()))
          }
        />
      )}
    </Sheet>
  );
}
