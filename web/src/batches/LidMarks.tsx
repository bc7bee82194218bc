import { printLidMarks } from '@cocotte/contract';
import { lotOf, type LoadState } from '@cocotte/core/batches';
import type { Fault } from '@cocotte/core/measure';
import { Box, Button } from '@mui/material';
import { useState } from 'react';
import { Faults } from '../kit/parts.tsx';
import { useInstruments } from '../kit/TakeReading.tsx';
import { call, faultsOf } from '../shell/call.ts';
import { say } from '../words/views.ts';
import type { OpenBatch } from './open-batch.ts';

/** Lot and load as each lid is to be marked, and one tap that prints them where a label printer is connected. */
export function LidMarks({ batch, load }: { batch: OpenBatch; load: LoadState }) {
  const printers = useInstruments('label printer');
  const [told, setTold] = useState<{ printed: number } | { faults: Fault[] } | null>(null);
  const jar = load.jars[0];
  const lot =
    (jar === undefined ? null : lotOf(batch.state, jar)?.lotCode) ?? batch.state.started?.lotCode ?? '';
  const print = async (printerId: string) => {
    setTold(null);
    try {
      setTold(
        await call(printLidMarks, { params: { batchId: batch.id, loadId: load.id }, body: { printerId } }),
      );
    } catch (error) {
      setTold({ faults: faultsOf(error) });
    }
  };
  return (
    <Box sx={{ fontSize: '1.25rem', mt: 1.5 }}>
      {say('clock.markLids')} <strong>{say('clock.lidMark', { lot, load: load.number })}</strong>
      {!batch.rehearsal &&
        printers.map(p => (
          <Button
            key={p.id}
            variant="outlined"
            sx={{ minHeight: 56, ml: 1.5 }}
            disabled={p.value === null}
            onClick={() => void print(p.id)}
          >
            {say('clock.printLids', { n: load.jars.length, name: p.name })}
          </Button>
        ))}
      {told && 'printed' in told && (
        <Box role="status" sx={{ fontSize: '1rem', color: 'text.secondary' }}>
          {say('clock.printed', { n: told.printed })}
        </Box>
      )}
      {told && 'faults' in told && <Faults faults={told.faults} />}
    </Box>
  );
}
