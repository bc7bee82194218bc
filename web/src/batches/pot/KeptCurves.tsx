import { curveTable } from '@cocotte/contract';
import { boilingPoint_C } from '@cocotte/core/heat';
import type { Kitchen } from '@cocotte/core/kitchen';
import { instantText, numberText } from '@cocotte/core/measure';
import { Box, Link as MuiLink } from '@mui/material';
import { lazy, Suspense } from 'react';
import { Line } from '../../kit/layout.tsx';
import { Sheet, Soft } from '../../kit/parts.tsx';
import { addressOf } from '../../shell/call.ts';
import { say } from '../../words/views.ts';
import type { OpenBatch } from '../open-batch.ts';
import { useCurvePoints } from './curve.ts';

const HeatCurve = lazy(async () => ({ default: (await import('./HeatCurve.tsx')).HeatCurve }));

/** Curves that were kept with the record, each with all of its readings as a file. */
export function KeptCurves({ batch, kitchen }: { batch: OpenBatch; kitchen: Kitchen }) {
  return batch.state.curves.map(curve => (
    <Sheet
      key={curve.curveId}
      title={say('curve.title', { at: instantText(Date.parse(curve.from), kitchen) })}
    >
      <Kept batch={batch} curve={curve} kitchen={kitchen} />
      <Line mt={1}>
        <MuiLink
          href={addressOf(curveTable, { batchId: batch.id, curveId: curve.curveId })}
          sx={{ minHeight: 44, display: 'inline-flex', alignItems: 'center' }}
        >
          {say('curve.file')}
        </MuiLink>
        <Soft>{say('curve.readings', { n: numberText(curve.readings, kitchen, 0) })}</Soft>
        <Box component="span" sx={{ color: 'text.secondary', overflowWrap: 'anywhere', fontSize: '0.9rem' }}>
          {curve.hash}
        </Box>
      </Line>
    </Sheet>
  ));
}

function Kept({
  batch,
  curve,
  kitchen,
}: {
  batch: OpenBatch;
  curve: OpenBatch['state']['curves'][number];
  kitchen: Kitchen;
}) {
  const drawn = useCurvePoints(batch.id, curve.curveId, false);
  const { started } = batch.state;
  if (!drawn || !started) return null;
  const target = started.recipe.steps.find(s => s.id === curve.stepId)?.target;
  const [from, to] = [Date.parse(curve.from), Date.parse(curve.to)];
  const logged = batch.state.temperatures.filter(
    t => t.where === 'pot' && t.part === '' && t.by.at_ms >= from && t.by.at_ms <= to,
  );
  return (
    <Suspense>
      <HeatCurve
        points={logged.map(t => ({ at_ms: t.by.at_ms, temp_C: t.temp_C }))}
        trace={drawn.points}
        boils_C={boilingPoint_C(started.kitchen.altitude_m) + started.kitchen.thermometerError_C}
        target_C={
          target?.kind === 'gel point'
            ? started.gelPoint_C
            : target?.kind === 'temperature'
              ? target.temp_C
              : null
        }
        kitchen={kitchen}
      />
    </Suspense>
  );
}
