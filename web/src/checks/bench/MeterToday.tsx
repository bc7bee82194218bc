import { calibrationRemarks } from '@cocotte/core/acid';
import { checkVerdict } from '@cocotte/core/kitchen';
import { clockText, dayOf, dayText } from '@cocotte/core/measure';
import { Box, Button } from '@mui/material';
import { useState } from 'react';
import { CheckDialog } from '../../kitchen/CheckDialog.tsx';
import { calibrationsOf, useInstrumentLogs } from '../../kitchen/instrument-logs.ts';
import { Soft, Tag } from '../../kit/parts.tsx';
import { kitchenNow } from '../../shell/clock.ts';
import { useHere } from '../../shell/session.tsx';
import { say } from '../../words/views.ts';

/** The meter, and whether its calibration supports a release today; what to do where it does not. */
export function MeterToday() {
  const { kitchen } = useHere();
  const { data } = useInstrumentLogs();
  const [open, setOpen] = useState(false);
  const logs = data?.instruments ?? [];
  const [meter] = calibrationsOf(logs);
  const day = (ms: number) => dayOf(ms, kitchen.zone);
  const today = day(kitchenNow());
  const at_ms = meter ? Date.parse(meter.calibration.at) : 0;
  const verdict = meter && checkVerdict({ kind: 'ph meter', ...meter }, kitchen, today, day);
  const remarks = meter ? calibrationRemarks(meter.calibration, today) : [];
  return (
    <Box
      sx={{
        display: 'flex',
        flexWrap: 'wrap',
        gap: 1.5,
        alignItems: 'center',
        mt: 2,
        p: 1.25,
        border: 1,
        borderColor: verdict?.good ? 'rule.strong' : 'live.fill',
        borderRadius: 1,
      }}
    >
      <Box sx={{ flex: 1, minWidth: 200 }}>
        {meter && verdict ? (
          <>
            <strong>{meter.name}</strong>{' '}
            <Tag tone={verdict.good ? 'leaf' : 'live'}>
              {day(at_ms) === today
                ? say('meter.calibratedAt', { at: clockText(at_ms, kitchen) })
                : say('meter.calibratedOn', { day: dayText(day(at_ms), kitchen) })}
            </Tag>
            <Box>{verdict.what}</Box>
            {verdict.next && <Box>{verdict.next}</Box>}
            {remarks.map(r => (
              <Soft key={r}>{r}</Soft>
            ))}
          </>
        ) : (
          say('meter.none')
        )}
      </Box>
      <Button
        variant={verdict?.good ? 'outlined' : 'contained'}
        sx={{ minHeight: 48 }}
        onClick={() => setOpen(true)}
      >
        {say(meter ? 'meter.again' : 'meter.first')}
      </Button>
      {open && (
        <CheckDialog
          kind="ph meter"
          log={logs.find(l => l.instrument.id === meter?.id) ?? null}
          onClose={() => setOpen(false)}
        />
      )}
    </Box>
  );
}
