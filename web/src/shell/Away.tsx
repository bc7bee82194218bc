import { Box, Button, Typography } from '@mui/material';
import { useEffect } from 'react';
import { say } from '../words/index.ts';
import type { CallError } from './call.ts';

/** When the session cannot be read, and this device keeps none: says so, and tries again by itself. */
export function Away({ error, onRetry }: { error: CallError | null; onRetry: () => void }) {
  useEffect(() => {
    const timer = window.setInterval(onRetry, 3000);
    return () => window.clearInterval(timer);
  }, [onRetry]);
  return (
    <Box role="alert" sx={{ maxWidth: 520, mx: 'auto', mt: 12, px: 3 }}>
      <Typography variant="h1" gutterBottom>
        {say('away.title')}
      </Typography>
      <Typography sx={{ mb: 2 }}>
        {error?.faults[0]?.why || say('away.why')} {say('away.kept')}
      </Typography>
      <Button variant="contained" onClick={onRetry}>
        {say('away.try')}
      </Button>
    </Box>
  );
}
