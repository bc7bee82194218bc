import { freeText, letterReminders } from '@cocotte/core/review';
import { Fraction, clockText, durationText, massText, temperatureText } from '@cocotte/core/measure';
import { type Line, type Recipe, type Step, targetAt, targetWords, windowText } from '@cocotte/core/recipes';
import { batchStepText, isStepDone, lineMasses } from '@cocotte/core/batches';
import { Box, Button, Typography } from '@mui/material';
import { useState } from 'react';
import { Cells, Columns, Stack } from '../kit/layout.tsx';
import { Caution, CheckMark, Fractions, Sheet, Soft } from '../kit/parts.tsx';
import { useHere } from '../shell/session.tsx';
import { say } from '../words/views.ts';
import type { OpenBatch } from './open-batch.ts';
import { EndedDialog } from './EndedDialog.tsx';
import { useUndoable } from './Undo.tsx';
import { TemperatureEntry, isUnproven } from './TemperatureEntry.tsx';
import { CookFigures } from './pot/CookFigures.tsx';
import { WaitBand } from './WaitBand.tsx';
import { WeighEntry } from './WeighEntry.tsx';
import { WorkEntry } from './WorkEntry.tsx';
import { AddLineEntry, MeasureEntry, YieldEntry } from './CookEntries.tsx';
import type { When } from './when.ts';

/** The steps, the one now in front; and what is weighed, read and written beside them. */
export function StepPanel({ batch: opened, when }: { batch: OpenBatch; when: When }) {
  const { kitchen } = useHere();
  const { undoable: batch, offer } = useUndoable(opened);
  const started = batch.state.started as NonNullable<typeof batch.state.started>;
  const { steps } = started.recipe;
  const pots = started.pots.count;
  const now = steps.find(s => !isStepDone(batch.state, s));
  const target = (step: Step): string =>
    step.target.kind === 'gel point'
      ? `To the gel point, ${temperatureText(started.gelPoint_C, kitchen)} on your thermometer`
      : sentence(targetWords(targetAt(step.target, new Fraction(started.factor), pots), kitchen)) +
        (pots > 1 && ['volume', 'depth'].includes(step.target.kind) ? ', in each pot' : '');
  const begun = now && batch.state.steps[now.id]?.started;
  const lines = new Map(lineMasses(batch.state).map(m => [m.line.id, m]));
  const pot_g = [...lines.values()]
    .filter(m => m.line.where === 'pot' || m.line.where === 'brine')
    .reduce((sum, m) => sum + m.planned_g, 0);
  // What the step in hand needs stands right under it, the rest beside.
  const inHand = {
    measure: now?.kind === 'measure',
    temperature: now?.kind === 'cook',
    weigh: now?.adds.some(a => lines.get(a.lineId)?.line.where !== 'each jar') ?? false,
  };
  const measure = <MeasureEntry batch={batch} when={when} />;
  const temperature = <TemperatureEntry batch={batch} when={when} />;
  const weigh = lines.size > 0 && <WeighEntry key={now?.id} batch={batch} when={when} first={now} />;
  const [ending, setEnding] = useState<Step | null>(null);
  const finish = (step: Step) =>
    step.kind === 'cook'
      ? setEnding(step)
      : void batch.enter([['step.done', { stepId: step.id, ended: null }]], when);
  return (
    <Columns of="1.5fr 1fr">
      <Stack>
        {now ? (
          <Sheet title={`Step ${steps.indexOf(now) + 1} of ${steps.length}`} aside={now.kind}>
            <Typography sx={{ fontSize: '1.5rem', lineHeight: 1.3, my: 1 }}>
              <Fractions text={batchStepText(batch.state, now, kitchen)} />
            </Typography>
            {target(now) && <Box sx={{ fontSize: '1.25rem', fontWeight: 700 }}>{target(now)}</Box>}
            <Attention step={now} />
            {now.kind === 'cook' && <CookFigures batch={batch} step={now} when={when} />}
            {begun && <WaitBand step={now} begun_ms={begun.at_ms} />}
            {now.adds.length > 0 && (
              <Box component="ul" sx={{ pl: 2.5, my: 1, fontSize: '1.1rem' }}>
                {now.adds
                  .map(a => ({ m: lines.get(a.lineId), share: new Fraction(a.share) }))
                  .map(
                    ({ m, share }) =>
                      m && (
                        <li key={m.line.id}>
                          {!share.equals(1) && (
                            <>
                              <Fractions text={share.toFraction(true)} /> of the{' '}
                            </>
                          )}
                          {m.line.name}
                          {m.line.where === 'each jar' ? (
                            <Soft> in each jar</Soft>
                          ) : (
                            <>
                              , <strong>{massText(m.planned_g * share.valueOf(), kitchen)}</strong>
                              {pots > 1 && (
                                <Soft>
                                  {' '}
                                  ({massText((m.planned_g * share.valueOf()) / pots, kitchen)} in each of{' '}
                                  {pots} pots)
                                </Soft>
                              )}
                              {m.line.amount.upTo !== null && <Soft> to taste, then weighed</Soft>}
                              <Free recipe={started.recipe} line={m.line} pot_g={pot_g} />
                              {m.basis === 'weighed' && (
                                <Soft> (weighed {massText(m.actual_g, kitchen)})</Soft>
                              )}
                            </>
                          )}
                        </li>
                      ),
                  )}
              </Box>
            )}
            {now.caution && <Caution>{now.caution}</Caution>}
            {letterReminders(started.recipe, now.kind, kitchen).map(text => (
              <Caution key={text}>{say('letter.reminds', { text })}</Caution>
            ))}
            <Cells wide="2fr 1fr" gap={1.75} mt={2}>
              <Button
                variant="contained"
                sx={{ minHeight: 72, fontSize: '1.2rem' }}
                onClick={() => finish(now)}
              >
                Done
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
                  onClick={() => void batch.enter([['step.started', { stepId: now.id }]], when)}
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
                    color: isDone || step === now ? 'text.primary' : 'text.secondary',
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
                      borderColor: isDone ? 'leaf.main' : step === now ? 'live.fill' : 'rule.strong',
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
                  </Box>
                  {!isDone && step !== now && (
                    <Button
                      size="small"
                      variant="outlined"
                      aria-label={`Done: step ${i + 1}`}
                      onClick={() => finish(step)}
                    >
                      Done
                    </Button>
                  )}
                </Box>
              );
            })}
          </Box>
        </Sheet>
      </Stack>
      <Stack>
        {!inHand.measure && measure}
        {started.recipe.sketch && <AddLineEntry batch={batch} when={when} />}
        {!inHand.temperature && temperature}
        {!inHand.weigh && weigh}
        <WorkEntry batch={batch} when={when} />
        <YieldEntry batch={batch} when={when} />
        {!started.recipe.sketch && <AddLineEntry batch={batch} when={when} />}
      </Stack>
      {ending && (
        <EndedDialog
          batch={batch}
          step={ending}
          when={when}
          unproven={isUnproven(batch)}
          onClose={() => setEnding(null)}
        />
      )}
    </Columns>
  );
}

/** What is free to change of a line, where it goes in. */
function Free({ recipe, line, pot_g }: { recipe: Recipe; line: Line; pot_g: number }) {
  const { kitchen } = useHere();
  const text = freeText(recipe, line, pot_g, kitchen);
  return text && <Soft> ({text})</Soft>;
}

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
