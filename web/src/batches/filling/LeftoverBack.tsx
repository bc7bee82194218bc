import { loadable, nextFillingCode } from '@cocotte/core/batches';
import { isAcidInPot } from '@cocotte/core/checks';
import { temperatureText } from '@cocotte/core/measure';
import { Box } from '@mui/material';
import { EntryForm } from '../../kit/EntryForm.tsx';
import { Temperature, Tick, Time } from '../../kit/fields.tsx';
import { useTyped } from '../../kit/form.ts';
import { Caution, Sheet, Soft } from '../../kit/parts.tsx';
import { orNone, type Reader, useRead } from '../../kit/readers.ts';
import { useClock } from '../../shell/clock.ts';
import { useHere } from '../../shell/session.tsx';
import { say } from '../../words/views.ts';
import type { OpenBatch } from '../open-batch.ts';
import { pastInstant, type When } from '../when.ts';

/** By when it has to be how cold, as the gate asks of what is not acid yet. */
const COLD_C = [21, 5] as const;

/** What was put in the cold comes back: when it was put there, that it was boiled, and how it cooled where that matters. */
export function LeftoverBack({ batch, when }: { batch: OpenBatch; when: When }) {
  const { kitchen } = useHere();
  const read = useRead();
  const kept = batch.state.leftOver.findLast(l => l.went === 'kept for tomorrow');
  const acid = isAcidInPot(batch.state);
  const instant = pastInstant(kitchen.zone, useClock());
  const optional = (text: string) =>
    text.trim() === '' ? { ok: true as const, value: null } : instant(text);
  const temp = orNone(read.temperature_C({ name: say('leftover.read'), min: -5, max: 100 }));
  const form = useTyped({ at: '', boiled: false, firstAt: '', first: '', secondAt: '', second: '' }, () => ({
    at: instant,
    firstAt: optional as Reader<number | null>,
    first: temp,
    secondAt: optional as Reader<number | null>,
    second: temp,
  }));
  // What still stands open, waits for the canner or is in it comes first.
  const fresh =
    loadable(batch.state).some(j => j.loadIds.length === 0) || batch.state.loads.some(l => !l.lifted);
  if (fresh || !kept || batch.state.leftoversBack.some(b => b.by.at_ms > kept.by.at_ms)) return null;
  const lot = nextFillingCode(batch.state);
  const back = form.submit(async ({ at, boiled, firstAt, first, secondAt, second }) => {
    const cooled = [
      [firstAt, first],
      [secondAt, second],
    ].flatMap(([ms, temp_C]) =>
      typeof ms === 'number' && typeof temp_C === 'number'
        ? [{ at: new Date(ms).toISOString(), temp_C }]
        : [],
    );
    await batch.enter(
      [['leftover.back', { refrigeratedAt: new Date(at).toISOString(), boiled: Boolean(boiled), cooled }]],
      when,
    );
  });
  return (
    <Sheet tone="live" title={say('leftover.title')}>
      <Soft>{say('leftover.why', { lot })}</Soft>
      <EntryForm
        form={form}
        action={say('leftover.action')}
        onSubmit={back}
        wide="1fr 1fr"
        narrow="1fr"
        mt={2}
        tall
      >
        <Time at={form.at('at')} label={say('leftover.at')} />
        <Tick at={form.at('boiled')} label={say('leftover.boiled')} />
        {!acid && (
          <>
            <Box sx={{ gridColumn: '1 / -1' }}>
              <Caution>
                {say('leftover.cooling', {
                  first: temperatureText(COLD_C[0], kitchen),
                  second: temperatureText(COLD_C[1], kitchen),
                })}
              </Caution>
            </Box>
            <Time
              at={form.at('firstAt')}
              label={say('leftover.cold', { temp: temperatureText(COLD_C[0], kitchen) })}
            />
            <Temperature at={form.at('first')} label={say('leftover.read')} />
            <Time
              at={form.at('secondAt')}
              label={say('leftover.cold', { temp: temperatureText(COLD_C[1], kitchen) })}
            />
            <Temperature at={form.at('second')} label={say('leftover.read')} />
          </>
        )}
      </EntryForm>
    </Sheet>
  );
}
