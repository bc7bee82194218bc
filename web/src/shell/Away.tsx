import { Box, Button, Typography } from '@mui/material';
import { type ReactNode, useEffect } from 'react';
import { say } from '../words/index.ts';
import type { CallError } from './call.ts';

/** When even the session cannot be read: says so, and tries again by itself. */
export function Away({
  error,
  onRetry,
  children,
}: {
  error: CallError | null;
  onRetry: () => void;
  /** What this device can show all the same. */
  children?: ReactNode;
}) {
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
      {children}
    </Box>
  );
}
