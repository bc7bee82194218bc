import type { BatchRow } from '@cocotte/contract';
import type { Running } from '@cocotte/core/checks';
import { useEffect, useMemo, useState, useSyncExternalStore } from 'react';
import { records } from '../device/index.ts';
import { outbox } from '../outbox/index.ts';
import { type OwnTimer, useTimers } from './timers.ts';

/** A tile of the rail: something a batch runs, or a timer of somebody's own. */
export type RailTile =
  (Running & { batchId: string }) | (Omit<Running, 'kind'> & { kind: 'timer'; batchId: ''; timer: OwnTimer });

/** What Today and the rail are made of: every batch that is not finished. */
export interface TodayView {
  batches: BatchRow[];
  /** There are more than are held here. */
  more: boolean;
  waiting: Record<'cook' | 'check' | 'label', number>;
}

/** Batches that a device reads whole when it knows nothing, at most. */
const MOST_OPEN = 200;

type Summaries = typeof import('../device/summaries.ts');

/** The fold: the first page is drawn without it. */
function useSummaries(): Summaries | null {
  const [loaded, setLoaded] = useState<{ summaries: Summaries } | null>(null);
  useEffect(() => {
    import('../device/summaries.ts').then(
      summaries => setLoaded({ summaries }),
      () => undefined,
    );
  }, []);
  return loaded?.summaries ?? null;
}

/**
 * What runs and what is due, folded here from the records this device holds and from what still waits in its outbox: with
 * a connection and without, from the tap on. Undefined until the records were read.
 */
export function useToday(): { data: TodayView | undefined } {
  const { held, ready } = useSyncExternalStore(records.subscribe, records.view);
  const { waiting, sent } = useSyncExternalStore(outbox.subscribe, outbox.view);
  const summaries = useSummaries();
  const data = useMemo((): TodayView | undefined => {
    if (!ready || !summaries) return undefined;
    const own = [...sent, ...waiting.filter(w => !w.refused)];
    const batches = [...held.values()]
      .map((view): BatchRow => {
        const mine = own.filter(w => w.batchId === view.id);
        return { id: view.id, lastSeq: view.lastSeq, summary: summaries.summaryOf(view, mine) };
      })
      .filter(b => summaries.isOpen(b.summary))
      .sort((a, b) => (a.summary.madeOn + a.id < b.summary.madeOn + b.id ? 1 : -1));
    const count = (stage: string) => batches.filter(b => b.summary.stage === stage).length;
    return {
      batches,
      more: batches.length >= MOST_OPEN,
      waiting: {
        cook: count('cooking'),
        check: count('checking'),
        label: batches.filter(b => b.summary.released > b.summary.labelled).length,
      },
    };
  }, [held, ready, waiting, sent, summaries]);
  return { data };
}

/** What runs, in the order in which it will call: the clock starts at the tap and not at the answer. */
export function useRail(kitchenId: string): RailTile[] {
  const { data } = useToday();
  const timers = useTimers(kitchenId).map((timer): RailTile => ({
    ...timer,
    kind: 'timer',
    batchId: '',
    title: timer.name,
    detail: '',
    latest_ms: null,
    timer,
  }));
  return (data?.batches ?? [])
    .flatMap((row): RailTile[] => row.summary.running.map(r => ({ ...r, batchId: row.id })))
    .concat(timers)
    .sort((a, b) => a.until_ms - b.until_ms);
}
