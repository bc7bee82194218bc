import { letterReminders } from '@cocotte/core/review';
import {
  Fraction,
  clockText,
  dayOf,
  durationText,
  instantText,
  temperatureText,
} from '@cocotte/core/measure';
import { type Step, targetAt, targetWords, windowText } from '@cocotte/core/recipes';
import { batchStepText, lineMasses, openNow, turnOf } from '@cocotte/core/batches';
import { Box, Button, Typography } from '@mui/material';
import { useState } from 'react';
import { Cells, Columns, Stack } from '../kit/layout.tsx';
import { Caution, Fractions, Sheet, Soft } from '../kit/parts.tsx';
import { ReasonDialog } from '../kit/ReasonDialog.tsx';
import { useClock } from '../shell/clock.ts';
import { useHere } from '../shell/session.tsx';
import { say } from '../words/views.ts';
import type { Fact, OpenBatch } from './open-batch.ts';
import { EndedDialog } from './EndedDialog.tsx';
import { Pictures } from './Pictures.tsx';
import { useUndoable } from './Undo.tsx';
import { TemperatureEntry, isUnproven } from './TemperatureEntry.tsx';
import { useCurves } from './pot/curve.ts';
import { CookFigures } from './pot/CookFigures.tsx';
import { WaitBand } from './WaitBand.tsx';
import { AddLineEntry } from './steps/AddLineEntry.tsx';
import { AllSteps } from './steps/AllSteps.tsx';
import { Amounts } from './steps/Amounts.tsx';
import { MeasureEntry } from './steps/MeasureEntry.tsx';
import { PotChange } from './steps/PotChange.tsx';
import { PotTaking } from './steps/PotTaking.tsx';
import { YieldEntry } from './steps/YieldEntry.tsx';
import { PotTiles } from './steps/PotTiles.tsx';
import { StepPicture } from './steps/StepPicture.tsx';
import { StepTiles } from './steps/StepTiles.tsx';
import { Washed } from './steps/Washed.tsx';
import { WeighEntry } from './WeighEntry.tsx';
import { WorkEntry } from './WorkEntry.tsx';
import type { When } from './when.ts';

/** The steps, the one now in front; and what is weighed, read and written beside them. */
export function StepPanel({
  batch: opened,
  when,
  onJars,
}: {
  batch: OpenBatch;
  when: When;
  /** Goes where jars are filled, dosed and loaded. */
  onJars: () => void;
}) {
  const { kitchen } = useHere();
  const { undoable: batch, offer } = useUndoable(opened);
  const started = batch.state.started as NonNullable<typeof batch.state.started>;
  const curves = useCurves(opened);
  const { steps } = started.recipe;
  const pots = started.pots.count;
  const open = openNow(batch.state);
  const [picked, setPicked] = useState<string | null>(null);
  const [potPicked, setPot] = useState<string | null>(null);
  const now = open.find(s => s.id === picked) ?? inHandOf(batch.state, open);
  const potId = pots > 1 ? potPicked : null;
  const target = (step: Step): string =>
    step.target.kind === 'gel point'
      ? `To the gel point, ${temperatureText(started.gelPoint_C, kitchen)} on your thermometer`
      : sentence(targetWords(targetAt(step.target, new Fraction(started.factor), pots), kitchen)) +
        (pots > 1 && ['volume', 'depth'].includes(step.target.kind) ? ', in each pot' : '');
  const begun = now && batch.state.steps[now.id]?.started;
  const lines = new Map(lineMasses(batch.state).map(m => [m.line.id, m]));
  // What the step in hand needs stands right under it, the rest beside.
  const inHand = {
    measure: now?.kind === 'measure',
    temperature: now?.kind === 'cook',
    weigh: now?.adds.some(a => lines.get(a.lineId)?.line.where !== 'each jar') ?? false,
  };
  const measure = <MeasureEntry batch={batch} when={when} />;
  const temperature = <TemperatureEntry batch={batch} when={when} potId={potId} />;
  const weigh = lines.size > 0 && <WeighEntry key={now?.id} batch={batch} when={when} first={now} />;
  const [ending, setEnding] = useState<{ step: Step; outOfOrder: string } | null>(null);
  /** A step before its turn, and what is to be entered once its reason is said. */
  const [early, setEarly] = useState<Step | null>(null);
  /** A wait whose window has not opened yet, and that is said to be done. */
  const [soon, setSoon] = useState<{ step: Step; outOfOrder: string; from_ms: number } | null>(null);
  const now_ms = useClock();
  const finish = (step: Step, outOfOrder = '') => {
    const begunAt_ms = batch.state.steps[step.id]?.started?.at_ms;
    const from_ms = step.window && begunAt_ms ? begunAt_ms + step.window.from_min * 60_000 : null;
    if (from_ms !== null && now_ms() < from_ms && !when.typed) setSoon({ step, outOfOrder, from_ms });
    else end(step, outOfOrder);
  };
  const end = (step: Step, outOfOrder: string, why = '') =>
    step.kind === 'cook'
      ? setEnding({ step, outOfOrder })
      : void batch.enter(
          [
            ['step.done', { stepId: step.id, potId, outOfOrder }],
            ...(why ? [['note.written', { text: say('wait.soon.note', { why }) }] satisfies Fact] : []),
          ],
          when,
        );
  const ask = (step: Step) => (turnOf(batch.state, step) === 'out of order' ? setEarly(step) : finish(step));
  return (
    <Columns of="1.5fr 1fr">
      <Stack>
        {!batch.rehearsal && <Washed batch={batch} when={when} />}
        {now && <StepTiles batch={batch} open={open} inHand={now} onPick={setPicked} />}
        {now ? (
          <Sheet title={`Step ${steps.indexOf(now) + 1} of ${steps.length}`} aside={now.kind}>
            <StepPicture step={now} runs={Boolean(begun)} />
            <Typography sx={{ fontSize: '1.5rem', lineHeight: 1.3, my: 1 }}>
              <Fractions text={batchStepText(batch.state, now, kitchen)} />
            </Typography>
            {target(now) && <Box sx={{ fontSize: '1.25rem', fontWeight: 700 }}>{target(now)}</Box>}
            <Attention step={now} />
            <PotTiles batch={batch} step={now} potId={potId} onPick={setPot} />
            {now.kind === 'cook' && (
              <CookFigures batch={batch} step={now} when={when} potId={potId} curves={curves} />
            )}
            {begun && <WaitBand step={now} begun_ms={begun.at_ms} />}
            <Amounts batch={batch} step={now} lines={lines} />
            {now.caution && <Caution>{now.caution}</Caution>}
            {letterReminders(started.recipe, now.kind, kitchen).map(text => (
              <Caution key={text}>{say('letter.reminds', { text })}</Caution>
            ))}
            {atJars(now) && (
              <Button
                variant="contained"
                fullWidth
                sx={{ minHeight: 72, fontSize: '1.2rem', mt: 2 }}
                onClick={onJars}
              >
                {say(now.kind === 'fill' ? 'steps.fill' : 'steps.load')}
              </Button>
            )}
            <Cells wide="2fr 1fr" gap={1.75} mt={2}>
              <Button
                variant={atJars(now) ? 'outlined' : 'contained'}
                sx={{ minHeight: 72, fontSize: '1.2rem' }}
                onClick={() => finish(now)}
              >
                {potId === null ? 'Done' : say('pots.doneIn', { id: potId })}
              </Button>
              {batch.state.steps[now.id]?.started ? (
                <Box sx={{ alignSelf: 'center', color: 'text.secondary' }}>
                  Begun at {clockText(batch.state.steps[now.id]?.started?.at_ms ?? 0, kitchen)}
                  {now.window && <>: {windowText(now.window, kitchen)}</>}
                </Box>
              ) : (
                <Button
                  variant="outlined"
                  sx={{ minHeight: 72 }}
                  onClick={() => void batch.enter([['step.started', { stepId: now.id, potId }]], when)}
                >
                  {now.window ? 'Start the wait' : 'Begin'}
                </Button>
              )}
            </Cells>
          </Sheet>
        ) : (
          <Sheet title="Every step is done">
            <Soft>The rest is with the jars, and at the check.</Soft>
          </Sheet>
        )}
        {offer && <Sheet>{offer}</Sheet>}
        {inHand.measure && measure}
        {inHand.temperature && temperature}
        {inHand.weigh && weigh}
        {now && <PotChange batch={batch} when={when} />}
        <AllSteps batch={batch} inHand={now} onDone={ask} />
        <YieldEntry batch={batch} when={when} />
        {!batch.rehearsal && <PotTaking batch={opened} />}
        {!batch.rehearsal && <Pictures batch={opened} />}
      </Stack>
      <Stack>
        {!inHand.measure && measure}
        {started.recipe.sketch && <AddLineEntry batch={batch} when={when} />}
        {!inHand.temperature && temperature}
        {!inHand.weigh && weigh}
        {!batch.rehearsal && <WorkEntry batch={batch} when={when} />}
        {!started.recipe.sketch && <AddLineEntry batch={batch} when={when} />}
      </Stack>
      {ending && (
        <EndedDialog
          batch={batch}
          step={ending.step}
          outOfOrder={ending.outOfOrder}
          potId={potId}
          when={when}
          unproven={isUnproven(batch)}
          onClose={() => setEnding(null)}
        />
      )}
      {soon && (
        <ReasonDialog
          title={say('wait.soon', {
            from:
              dayOf(soon.from_ms, kitchen.zone) === dayOf(now_ms(), kitchen.zone)
                ? clockText(soon.from_ms, kitchen)
                : instantText(soon.from_ms, kitchen),
          })}
          action={say('steps.early.done')}
          onClose={() => setSoon(null)}
          onReason={why => {
            setSoon(null);
            end(soon.step, soon.outOfOrder, why);
          }}
        />
      )}
      {early && (
        <ReasonDialog
          title={say('steps.early', { n: steps.indexOf(early) + 1 })}
          action={say('steps.early.done')}
          onClose={() => setEarly(null)}
          onReason={reason => {
            setEarly(null);
            finish(early, reason);
          }}
        />
      )}
    </Columns>
  );
}

/** What wants hands now: beside a wait that runs, the step that does not wait. */
function inHandOf(state: OpenBatch['state'], open: readonly Step[]): Step | undefined {
  const waits = (s: Step) => s.window !== null && Boolean(state.steps[s.id]?.started);
  return open.find(s => !waits(s)) ?? open[0];
}

/** What such a step needs is done at the jars, and shows there when it is done. */
const atJars = (step: Step) => step.kind === 'fill' || step.kind === 'process';

const sentence = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

/** How much of a person the step takes, and whether one may stop after it. */
function Attention({ step }: { step: Step }) {
  const said = [
    step.attention.kind === 'look in'
      ? `Look in every ${durationText(step.attention.every_min * 60)}`
      : step.attention.kind === 'free'
        ? 'Needs nobody'
        : '',
    step.part ? `On the ${step.part} alone` : '',
    step.separates
      ? `Set ${Math.round(step.separates.share * 100)} % aside as the ${step.separates.part}`
      : '',
    step.mayStop_h === null ? '' : `One may stop here for ${Math.round(step.mayStop_h)} hours`,
  ].filter(Boolean);
  return said.length === 0 ? null : <Soft>{said.join(' · ')}</Soft>;
}
