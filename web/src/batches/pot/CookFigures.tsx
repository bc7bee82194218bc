import { cookNow, type CookNow } from '@cocotte/core/batches';
import type { Kitchen } from '@cocotte/core/kitchen';
import { clockText, massText, numberText, temperatureText } from '@cocotte/core/measure';
import type { Step } from '@cocotte/core/recipes';
import { Box, Button } from '@mui/material';
import { lazy, memo, Suspense, useMemo, useState } from 'react';
import { Line } from '../../kit/layout.tsx';
import { Caution, Faults, Soft } from '../../kit/parts.tsx';
import { useNow } from '../../shell/clock.ts';
import { useHere } from '../../shell/session.tsx';
import { say } from '../../words/views.ts';
import type { OpenBatch } from '../open-batch.ts';
import type { When } from '../when.ts';
import { type Curves, useCurvePoints } from './curve.ts';
import { LevelDialog } from './LevelDialog.tsx';
import { PotPicture } from './PotPicture.tsx';

const HeatCurve = memo(lazy(async () => ({ default: (await import('./HeatCurve.tsx')).HeatCurve })));

/** From so far below its target a pot climbs fast. Common practice, in kelvin. */
const FAST_BELOW_C = 2.5;
/** A pot that boils hard rises: fuller than this it foams over. Common practice: fill it no more than two thirds. */
const FOAMS_FROM = 2 / 3;
/** From so thick it sits on the bottom unless it is stirred. Common practice, from memory. */
const SCORCHES_FROM_BRIX = 50;
const MINUTE_MS = 60_000;
const NONE: readonly never[] = [];

/** The pot that is cooked: how it stands, what is left to drive off, when it will be ready, and how hot it was. */
export function CookFigures({
  batch,
  step,
  when,
  potId,
  curves,
}: {
  batch: OpenBatch;
  step: Step;
  when: When;
  curves: Curves;
  /** Which of several pots; null for all of them alike. */
  potId: string | null;
}) {
  const { kitchen } = useHere();
  const minute_ms = Math.floor(useNow() / 5000) * 5000;
  const state = useMemo(() => ofPot(batch.state, potId), [batch.state, potId]);
  const pot = kitchen.pots.find(p => p.id === state.started?.potId) ?? null;
  const seen = useMemo(() => cookNow(state, step, pot, minute_ms), [state, step, pot, minute_ms]);
  const [levelling, setLevelling] = useState(false);
  // Drawn anew with a reading, not with the clock.
  const read = JSON.stringify(seen?.points ?? []);
  const points = useMemo(() => JSON.parse(read) as CookNow['points'], [read]);
  const curve = curves.curves.findLast(c => c.stepId === step.id && c.potId === potId) ?? null;
  const drawn = useCurvePoints(batch.id, curve?.curveId ?? null, curve?.keptAt === null);
  if (!seen) return null;
  const pots = state.started?.pots.count ?? 1;
  const last = seen.points.at(-1);
  const near = last && seen.target_C !== null && last.temp_C > seen.target_C - FAST_BELOW_C;
  return (
    <Box
      role="group"
      aria-label={say('pot.title')}
      sx={{ bgcolor: 'live.tint', border: 1, borderColor: 'live.fill', borderRadius: 1, p: 2, my: 1.5 }}
    >
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: seen.levels ? { xs: '1fr', sm: 'minmax(150px, 240px) 1fr' } : '1fr',
          gap: 2.5,
          alignItems: 'center',
        }}
      >
        {seen.levels && <PotPicture levels={seen.levels} boiling={seen.begun_ms !== null} habits={kitchen} />}
        <Box>
          {pots > 1 && <Soft sx={{ display: 'block' }}>{say('pot.each', { n: pots })}</Soft>}
          <Ready seen={seen} kitchen={kitchen} now_ms={minute_ms} />
          <Box sx={{ borderTop: 1, borderColor: 'live.fill', mt: 1.25, pt: 1.25, fontSize: '1.1rem' }}>
            {seen.target_C !== null && (
              <Box>
                {last ? (
                  <>
                    <strong>{temperatureText(last.temp_C, kitchen)}</strong>{' '}
                    {say('pot.readAt', { at: clockText(last.at_ms, kitchen) })}
                  </>
                ) : (
                  say('pot.notRead')
                )}
                {', '}
                {say('pot.target', { temp: temperatureText(seen.target_C, kitchen) })}
              </Box>
            )}
            {seen.brix > 1 && (
              <Soft>
                {seen.doneBrix === null
                  ? say('pot.brix', { brix: numberText(seen.brix, kitchen, 0) })
                  : say('pot.brixOf', {
                      brix: numberText(seen.brix, kitchen, 0),
                      done: numberText(seen.doneBrix, kitchen, 0),
                    })}
                {seen.rate_gPerMin !== null &&
                  ` · ${say(seen.measured ? 'pot.rateRead' : 'pot.ratePot', { off: massText(seen.rate_gPerMin, kitchen) })}`}
              </Soft>
            )}
            {near && !seen.past && <Caution>{say('pot.near')}</Caution>}
            {seen.levels && seen.levels.now_mm > seen.levels.rim_mm * FOAMS_FROM && !seen.past && (
              <Caution>{say('pot.foam')}</Caution>
            )}
            {seen.begun_ms !== null && seen.brix > SCORCHES_FROM_BRIX && !seen.past && (
              <Caution>{say('pot.scorch')}</Caution>
            )}
          </Box>
        </Box>
      </Box>
      {(seen.points.length > 1 || (drawn && drawn.points.length > 1)) && (
        <Suspense>
          <HeatCurve
            points={points}
            trace={drawn?.points ?? NONE}
            boils_C={seen.boils_C}
            target_C={seen.target_C}
            kitchen={kitchen}
          />
        </Suspense>
      )}
      <Line mt={1.5}>
        <Button variant="outlined" sx={{ minHeight: 56 }} onClick={() => setLevelling(true)}>
          {say('pot.level')}
        </Button>
        {!pot && <Soft>{say('pot.unknown')}</Soft>}
        {curve?.keptAt === null ? (
          <>
            <Button variant="outlined" sx={{ minHeight: 56 }} onClick={() => void curves.keep(curve)}>
              {say('curve.keep')}
            </Button>
            <Soft>{say('curve.follows', { name: curve.name })}</Soft>
          </>
        ) : (
          curves.thermometers.map(t => (
            <Button
              key={t.id}
              variant="outlined"
              sx={{ minHeight: 56 }}
              onClick={() => void curves.follow(t.id, step.id, potId)}
            >
              {say('curve.follow', { name: t.name })}
            </Button>
          ))
        )}
      </Line>
      <Faults faults={curves.faults} />
      {levelling && (
        <LevelDialog
          batch={batch}
          step={step}
          pot={pot}
          when={when}
          potId={potId}
          onClose={() => setLevelling(false)}
        />
      )}
    </Box>
  );
}

/** What was read of one pot, and what was read of all of them. */
function ofPot(state: OpenBatch['state'], potId: string | null): OpenBatch['state'] {
  const isOf = (r: { potId: string | null }) => potId === null || r.potId === null || r.potId === potId;
  return {
    ...state,
    temperatures: state.temperatures.filter(isOf),
    solids: state.solids.filter(isOf),
    levels: state.levels.filter(isOf),
  };
}

/** When it will be ready, as large as it can be read from the other side of the kitchen. */
function Ready({ seen, kitchen, now_ms }: { seen: CookNow; kitchen: Kitchen; now_ms: number }) {
  const big = { fontSize: 'clamp(2.6rem, 9vw, 4.6rem)', fontWeight: 720, lineHeight: 1.05 } as const;
  if (seen.past) return <Box sx={{ ...big, fontSize: '2rem' }}>{say('pot.past')}</Box>;
  if (seen.ready && seen.toGo_g !== null && seen.toGo_g > 0) {
    const min = (ms: number) => Math.max(0, Math.round((ms - now_ms) / MINUTE_MS));
    return (
      <>
        <Soft>{say('pot.readyAt')}</Soft>
        <Box sx={big}>{clockText(seen.ready.mid_ms, kitchen)}</Box>
        <Box sx={{ fontSize: '1.1rem' }}>
          {say('pot.more', {
            from: min(seen.ready.from_ms),
            to: min(seen.ready.to_ms),
            off: massText(seen.toGo_g, kitchen),
          })}
        </Box>
      </>
    );
  }
  if (seen.toGo_g === null) return <Box sx={{ ...big, fontSize: '1.6rem' }}>{say('pot.byEye')}</Box>;
  if (seen.toGo_g <= 0) return <Box sx={{ ...big, fontSize: '1.6rem' }}>{say('pot.nowReady')}</Box>;
  return (
    <>
      <Box sx={{ ...big, fontSize: '2.2rem' }}>{massText(seen.toGo_g, kitchen)}</Box>
      <Box sx={{ fontSize: '1.1rem' }}>{say(seen.begun_ms === null ? 'pot.toGoBegin' : 'pot.toGo')}</Box>
    </>
  );
}
