import { Box, Button } from '@mui/material';
import { Sheet } from '../kit/parts.tsx';
import { loadAgain } from '../shell/renewal.ts';
import { say } from '../words/views.ts';
import type { OpenBatch } from './open-batch.ts';

/** Says that the record holds what this page is too old to read; clocks and entries go on beside it. */
export function NewerEntries({ batch }: { batch: OpenBatch }) {
  const n = batch.state.newer.length;
  if (n === 0) return null;
  return (
    <Sheet tone="ox" sx={{ mb: 2 }}>
      <strong>{say('newer.what')}</strong> {say('newer.why', { n })}
      <Box sx={{ mt: 1 }}>
        <Button variant="outlined" onClick={loadAgain}>
          {say('newer.load')}
        </Button>
      </Box>
    </Sheet>
  );
}
