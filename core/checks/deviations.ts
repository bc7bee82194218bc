import type { BatchState, CorrectiveAction, Deviation } from '../batches/index.ts';
import { REPROCESS_HOURS } from './due.ts';

/** What kind of trouble a deviation is: what may be done about it hangs on it. */
export type DeviationKind = 'above the limit' | 'acid' | 'process' | 'entry';

const KINDS: { readonly [code: string]: DeviationKind } = {
  ph_above: 'above the limit',
  dose_missed: 'acid',
  dose_late: 'acid',
  bottle_short: 'acid',
  line_added: 'acid',
  line_replaced: 'acid',
  used_unfit: 'acid',
  short: 'process',
  time_unverified: 'process',
  no_time: 'process',
  steam_untested: 'process',
  overfull: 'process',
  filled_after: 'process',
  packed_late: 'process',
};

/** What kind a deviation is of. What is only entered twice or for nothing is a matter of the entry. */
export const kindOfDeviation = ({ code }: Pick<Deviation, 'code'>): DeviationKind =>
  Object.hasOwn(KINDS, code) ? (KINDS[code] as DeviationKind) : 'entry';

/** One deviation as it is kept in the list of them, apart from the batch's record. */
export interface DeviationRecord {
  key: string;
  code: string;
  kind: DeviationKind;
  what: string;
  /** Jars of it that are still there; null for all of the batch. */
  jars: number[] | null;
  /** `open` holds; `settled` was shown right; `gone`: each of its jars went its way, or into a later load in full. */
  state: 'open' | 'settled' | 'gone';
  actions: {
    action: CorrectiveAction;
    reason: string;
    cause: string;
    paperId: string | null;
    personId: string;
    at_ms: number;
  }[];
  secondLook: { agrees: boolean; text: string; personId: string; at_ms: number } | null;
  /** It can be shown right, by a reason or by the minutes seen. */
  settles: Deviation['settles'];
  /** When the first of its jars was lifted; null where none was. */
  lifted_ms: number | null;
  /** A second person has not looked at what was done yet. */
  unseen: boolean;
}

/** What may be done about a deviation now; `why` says what closes an action, and is empty where it is open. */
export interface OpenAction {
  action: CorrectiveAction;
  why: string;
}

/**
 * What may be done about a deviation: it hangs on its kind, and on the hours since its jars were lifted. Above the limit there
 * is only holding, a process authority's written word, and destruction.
 *
 * @param hours  since its jars were lifted; null where none were
 * @source 21 CFR 114.89 (from memory); reprocessing within 24 h: USDA Complete Guide (2015), guide 1 (from memory)
 * @example
 * openActions({ kind: 'process', settles: null }, 30).find(a => a.action === 'processed again')?.why; // 'Jars are processed again within 24 h of being lifted; 30 h have passed.'
 */
export function openActions(
  { kind, settles }: Pick<DeviationRecord, 'kind' | 'settles'>,
  hours: number | null,
): OpenAction[] {
  const rest = (['held', 'authority asked', 'destroyed'] as const).map(action => ({ action, why: '' }));
  if (kind === 'above the limit') return rest;
  const right: OpenAction[] =
    kind === 'entry' || settles !== null
      ? [
          {
            action: 'shown right',
            why: settles === null ? 'It is not settled by a word: the entry is corrected in the record.' : '',
          },
        ]
      : [];
  const again: OpenAction[] =
    kind === 'process'
      ? [
          {
            action: 'processed again',
            why:
              hours !== null && hours > REPROCESS_HOURS
                ? `Jars are processed again within ${REPROCESS_HOURS} h of being lifted; ${Math.floor(hours)} h have passed.`
                : '',
          },
        ]
      : [];
  return [...right, ...again, { action: 'refrigerated', why: '' }, ...rest];
}

/** The deviations of a batch as they are kept apart: what came about, why, what was done, by whom and with what evidence. */
export function deviationRecords(state: BatchState): DeviationRecord[] {
  const present = new Map(state.jars.filter(j => !j.setAside).map(j => [j.number, j]));
  return state.deviations.map(d => {
    const named = d.jars === null || d.jars.length === 0 ? [...present.keys()] : d.jars;
    const left = named.filter(n => {
      const jar = present.get(n);
      return jar !== undefined && (d.loadId === null || jar.loadIds.at(-1) === d.loadId);
    });
    // What was given away without the gate is not over because it is gone: somebody has it.
    const gone =
      d.code === 'ungated'
        ? d.actions.length > 0
        : state.jars.length > 0 && (d.jars?.length ?? 1) > 0 && left.length === 0;
    const lifted = named.flatMap(n => {
      const load = state.loads.find(l => l.id === state.jars.find(j => j.number === n)?.loadIds.at(-1));
      return load?.lifted?.at_ms ?? [];
    });
    const last = d.actions.at(-1);
    return {
      key: d.key,
      code: d.code,
      kind: kindOfDeviation(d),
      what: d.what,
      jars: d.jars === null || d.jars.length === 0 ? null : left,
      state: d.settled ? ('settled' as const) : gone ? ('gone' as const) : ('open' as const),
      actions: d.actions.map(({ action, reason, cause, paper, by }) => ({
        action,
        reason,
        cause,
        paperId: paper?.paperId ?? null,
        personId: by.personId,
        at_ms: by.at_ms,
      })),
      secondLook: d.secondLook && {
        agrees: d.secondLook.agrees,
        text: d.secondLook.text,
        personId: d.secondLook.by.personId,
        at_ms: d.secondLook.by.at_ms,
      },
      settles: d.settles,
      lifted_ms: lifted.length === 0 ? null : Math.min(...lifted),
      unseen: last !== undefined && (d.secondLook === null || d.secondLook.by.at_ms < last.by.at_ms),
    };
  });
}
