import { printOnRoll } from '@cocotte/contract';
import type { Fault } from '@cocotte/core/measure';
import { Box, Button } from '@mui/material';
import { useState } from 'react';
import { Faults } from '../kit/parts.tsx';
import { useInstruments } from '../kit/TakeReading.tsx';
import { call, faultsOf } from '../shell/call.ts';
import { say } from '../words/views.ts';

/** One tap that prints labels that were decided on each label printer that is connected. */
export function OnRoll({
  batchId,
  print,
}: {
  batchId: string;
  print: { eventId: string; jars: readonly number[]; spares: number };
}) {
  const printers = useInstruments('label printer');
  const [busy, setBusy] = useState(false);
  const [told, setTold] = useState<{ printed: number } | { faults: Fault[] } | null>(null);
  const go = async (printerId: string) => {
    setBusy(true);
    setTold(null);
    try {
      setTold(await call(printOnRoll, { params: { batchId, printId: print.eventId }, body: { printerId } }));
    } catch (error) {
      setTold({ faults: faultsOf(error) });
    }
    setBusy(false);
  };
  return (
    <>
      {printers.map(p => (
        <Button
          key={p.id}
          variant="outlined"
          disabled={busy || p.value === null}
          onClick={() => void go(p.id)}
        >
          {say('label.roll', { n: print.jars.length + print.spares, name: p.name })}
        </Button>
      ))}
      {told && 'printed' in told && (
        <Box role="status" sx={{ color: 'text.secondary' }}>
          {say('label.roll.done', { n: told.printed })}
        </Box>
      )}
      {told && 'faults' in told && <Faults faults={told.faults} />}
    </>
  );
}
