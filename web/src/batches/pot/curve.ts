import { type Curve, followCurve, keepCurve, layCurve, listCurves, readCurve } from '@cocotte/contract';
import type { Instrument } from '@cocotte/core/kitchen';
import type { Fault } from '@cocotte/core/measure';
import { isStepDone } from '@cocotte/core/batches';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useState } from 'react';
import { v7 } from 'uuid';
import { useInstruments } from '../../kit/TakeReading.tsx';
import { call, faultsOf } from '../../shell/call.ts';
import type { OpenBatch } from '../open-batch.ts';

/** So often what was shown is laid beside the record, and so often the curve is drawn anew. */
const LAY_MS = 20_000;
const DRAW_MS = 5000;

/** A curve as it is drawn; nothing while there is none. */
export function useCurvePoints(batchId: string, curveId: string | null, live: boolean) {
  const { data } = useQuery({
    queryKey: ['curve', batchId, curveId],
    queryFn: () => call(readCurve, { params: { batchId, curveId: curveId as string } }),
    enabled: curveId !== null,
    refetchInterval: live ? DRAW_MS : false,
    staleTime: live ? DRAW_MS : Infinity,
    retry: false,
  });
  return curveId === null ? null : (data ?? null);
}

/**
 * Thermometers that are followed all along a cook. While this is open, what they show is laid beside the record, and a curve
 * whose step is done is kept in it.
 */
export function useCurves(batch: OpenBatch) {
  const client = useQueryClient();
  const thermometers: Instrument[] = useInstruments('thermometer');
  const params = { batchId: batch.id };
  const key = ['curves', batch.id];
  const asked = !batch.rehearsal && (thermometers.length > 0 || batch.state.curves.length > 0);
  const { data } = useQuery({
    queryKey: key,
    queryFn: () => call(listCurves, { params }),
    enabled: asked,
    retry: false,
  });
  const [faults, setFaults] = useState<Fault[]>([]);
  const curves = data?.curves ?? [];
  const again = useCallback(
    () => client.invalidateQueries({ queryKey: ['curves', batch.id] }),
    [client, batch.id],
  );
  const follow = async (instrumentId: string, stepId: string, potId: string | null) => {
    try {
      await call(followCurve, { params, body: { curveId: v7(), stepId, potId, instrumentId } });
      setFaults([]);
    } catch (error) {
      setFaults(faultsOf(error));
    }
    await again();
  };
  const keep = async (curve: Curve) => {
    setFaults(
      await batch.decide('curve.kept', stamp =>
        call(keepCurve, { params: { ...params, curveId: curve.curveId }, body: { stamp } }),
      ),
    );
    await again();
  };
  const open = curves.filter(c => c.keptAt === null);
  const openIds = open.map(c => c.curveId).join(' ');
  useEffect(() => {
    if (openIds === '') return undefined;
    const timer = setInterval(() => {
      for (const curveId of openIds.split(' '))
        // What is not laid now is laid with the next.
        void call(layCurve, { params: { batchId: batch.id, curveId } }).catch(() => undefined);
    }, LAY_MS);
    return () => clearInterval(timer);
  }, [openIds, batch.id]);
  // What is done needs no following.
  const over = open.find(c => {
    const step = batch.state.started?.recipe.steps.find(s => s.id === c.stepId);
    return step !== undefined && isStepDone(batch.state, step);
  });
  const overId = over?.curveId;
  useEffect(() => {
    if (over) void keep(over);
    // Once for each: what went wrong is said, and tried again with the next look.
    // oxlint-disable-next-line react/exhaustive-deps
  }, [overId]);
  return { curves, thermometers: batch.rehearsal ? [] : thermometers, follow, keep, faults };
}
export type Curves = ReturnType<typeof useCurves>;
