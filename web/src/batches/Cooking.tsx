import { blankSheet } from '@cocotte/contract';
import { isStepDone } from '@cocotte/core/batches';
import { Box, Button, Link as MuiLink, Tab, Tabs } from '@mui/material';
import { useState } from 'react';
import { Link } from 'react-router';
import { addressOf } from '../shell/call.ts';
import { Line } from '../kit/layout.tsx';
import { Tag, ViewHead } from '../kit/parts.tsx';
import { NameTiles } from '../shell/Counter.tsx';
import { useHere, useMay } from '../shell/session.tsx';
import type { OpenBatch } from './open-batch.ts';
import { ClockPanel } from './ClockPanel.tsx';
import { NewerEntries } from './NewerEntries.tsx';
import { DrawPanel } from './DrawPanel.tsx';
import { JarPanel } from './JarPanel.tsx';
import { LastEntry } from './LastEntry.tsx';
import { EndedTwice } from './LoadPanel.tsx';
import { TimerButton } from './TimerButton.tsx';
import { StepPanel } from './StepPanel.tsx';
import { say } from '../words/views.ts';
import { useWhen } from './when.ts';
import { WhenFields } from './WhenFields.tsx';

type Part = 'steps' | 'lots' | 'jars';

/** Where a batch stands tells which part is wanted first. */
function firstPart(batch: OpenBatch): Part {
  const { state } = batch;
  if (state.jars.length > 0) return 'jars';
  const open = state.started?.recipe.steps.find(s => !isStepDone(state, s));
  if (open?.kind === 'fill' || open?.kind === 'process') return 'jars';
  return state.draws.length === 0 && !batch.rehearsal ? 'lots' : 'steps';
}

/** The batch on the go: the clock, then one thing at a time. */
export function Cooking({ batch }: { batch: OpenBatch }) {
  const { kitchen } = useHere();
  const mayCook = useMay('cook');
  const [part, setPart] = useState<Part>(() => firstPart(batch));
  const when = useWhen(kitchen);
  const { started } = batch.state;
  if (!started) return null;
  return (
    <>
      <ViewHead
        title={started.recipe.name}
        detail={
          <>
            {batch.rehearsal ? (
              say('dry.noLot')
            ) : (
              <>
                Lot <strong>{started.lotCode}</strong>
              </>
            )}{' '}
            ·{' '}
            {started.purpose === 'sale' ? (
              'for sale'
            ) : (
              <Tag tone="live">{batch.rehearsal ? say('dry.tag') : started.purpose}</Tag>
            )}
            {started.pots.count > 1 && ` · in ${started.pots.count} pots`}
            {started.pots.overridden && ' · pectin doubled, by decision'}
            {started.heat === 'steam' && ' · in steam'}
            {started.recipe.authority.grade === 'letter' && started.recipe.authority.demo && (
              <>
                {' '}
                · <Tag tone="ox">demo, do not cook from this</Tag>
              </>
            )}
          </>
        }
      >
        {!batch.rehearsal && (
          <>
            <Button
              component="a"
              href={addressOf(blankSheet, { batchId: batch.id })}
              target="_blank"
              variant="outlined"
            >
              Sheet to write on
            </Button>
            {mayCook && (
              <Button component={Link} to={`/cook/${batch.id}/write-up`} variant="outlined">
                {say('writeUp.way')}
              </Button>
            )}
            <TimerButton />
            <Button component={Link} to={`/records/${batch.id}`} variant="outlined">
              Record
            </Button>
          </>
        )}
      </ViewHead>
      {!batch.rehearsal && <NameTiles />}
      <NewerEntries batch={batch} />
      <EndedTwice batch={batch} />
      {batch.state.loads
        .filter(l => !l.lifted)
        .map(load => (
          <ClockPanel key={load.id} batch={batch} load={load} when={when} mayCook={mayCook} />
        ))}
      <Line sx={{ justifyContent: 'space-between', mb: 2 }}>
        <Tabs value={part} onChange={(_, p: Part) => setPart(p)} aria-label="Parts of the batch">
          <Tab
            value="steps"
            label="Steps"
            sx={{ minHeight: 56, textTransform: 'none', fontSize: '1.05rem' }}
          />
          {!batch.rehearsal && (
            <Tab
              value="lots"
              label="Lots"
              sx={{ minHeight: 56, textTransform: 'none', fontSize: '1.05rem' }}
            />
          )}
          <Tab
            value="jars"
            label="Jars and loads"
            sx={{ minHeight: 56, textTransform: 'none', fontSize: '1.05rem' }}
          />
        </Tabs>
        {mayCook && <WhenFields when={when} />}
      </Line>
      <Box component="fieldset" disabled={!mayCook} sx={{ border: 0, p: 0, m: 0, minWidth: 0 }}>
        {part === 'steps' && <StepPanel batch={batch} when={when} onJars={() => setPart('jars')} />}
        {part === 'lots' && <DrawPanel batch={batch} when={when} />}
        {part === 'jars' && <JarPanel batch={batch} when={when} />}
      </Box>
      {mayCook && <LastEntry batch={batch} />}
      {batch.standing.stage !== 'cooking' && !batch.rehearsal && (
        <Box sx={{ mt: 2 }}>
          <MuiLink component={Link} to={`/check/${batch.id}`}>
            All jars are out of the canner: go on to check them
          </MuiLink>
        </Box>
      )}
    </>
  );
}
