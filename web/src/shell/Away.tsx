import { Box, Button, Typography } from '@mui/material';
import { Suspense, lazy, useEffect } from 'react';
import type { CallError } from './call.ts';

const KeptShopping = lazy(async () => ({
  default: (await import('../stores/planning/KeptShopping.tsx')).KeptShopping,
}));

/** When even the session cannot be read: says so, and tries again by itself. */
export function Away({ error, onRetry }: { error: CallError | null; onRetry: () => void }) {
  useEffect(() => {
    const timer = window.setInterval(onRetry, 3000);
    return () => window.clearInterval(timer);
  }, [onRetry]);
  return (
    <Box role="alert" sx={{ maxWidth: 520, mx: 'auto', mt: 12, px: 3 }}>
      <Typography variant="h1" gutterBottom>
        The kitchen's book cannot be reached
      </Typography>
      <Typography sx={{ mb: 2 }}>
        {error?.faults[0]?.why || 'There is no answer.'} What was entered on this device is kept. This page
        tries again every few seconds.
      </Typography>
      <Button variant="contained" onClick={onRetry}>
        Try now
      </Button>
      <Suspense>
        <KeptShopping />
      </Suspense>
    </Box>
  );
}
