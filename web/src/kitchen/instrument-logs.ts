import { type InstrumentLog, listInstrumentChecks } from '@cocotte/contract';
import type { Calibration } from '@cocotte/core/acid';
import { type CheckedKind, checkVerdict, dueAgain, type Kitchen } from '@cocotte/core/kitchen';
import { type Day, dayOf } from '@cocotte/core/measure';
import { useQuery } from '@tanstack/react-query';
import { call } from '../shell/call.ts';

/** The kitchen's instruments with their logs. */
export const useInstrumentLogs = () =>
  useQuery({ queryKey: ['instrument-checks'], queryFn: () => call(listInstrumentChecks) });

/** The last check of an instrument, and the day from which the next is due; null where it is due now. */
export function lastCheck({ instrument, checks }: InstrumentLog, kitchen: Kitchen) {
  const [last] = checks;
  const day = (ms: number) => dayOf(ms, kitchen.zone);
  const on = last && day(Date.parse(last.at));
  const verdict = last && on ? checkVerdict(last.body, kitchen, on, day) : null;
  return {
    last: last ?? null,
    on: on ?? null,
    verdict,
    due: dueAgain(instrument.kind, on && verdict ? { on, good: verdict.good } : null),
  };
}

/** Instruments in use of these kinds whose check is due on a day. */
export const dueInstruments = (
  logs: readonly InstrumentLog[],
  kinds: readonly CheckedKind[],
  kitchen: Kitchen,
  today: Day,
): InstrumentLog[] =>
  logs.filter(log => {
    const { due } = lastCheck(log, kitchen);
    return !log.retired && kinds.includes(log.instrument.kind) && (due === null || due <= today);
  });

/** The newest calibration of each meter in use, with the meter: the last one made comes first. */
export const calibrationsOf = (
  logs: readonly InstrumentLog[],
): { id: string; name: string; calibration: Calibration }[] =>
  logs
    .filter(log => log.instrument.kind === 'ph meter' && !log.retired)
    .flatMap(log => {
      const body = log.checks[0]?.body;
      return body?.kind === 'ph meter'
        ? [{ id: log.instrument.id, name: log.instrument.name, calibration: body.calibration }]
        : [];
    })
    .sort((a, b) => (a.calibration.at < b.calibration.at ? 1 : -1));
