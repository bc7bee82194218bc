import { Box, Button } from '@mui/material';
import type { ReactNode } from 'react';
import { say } from '../words/views.ts';
import { Line } from './layout.tsx';
import { Sheet } from './parts.tsx';

/** Somebody else changed the same thing while this was typed: both are offered, and nothing is lost by asking. */
export function NewerAsked({
  children,
  onTake,
  onKeep,
}: {
  /** What theirs says. */
  children: ReactNode;
  onTake: () => void;
  onKeep: () => void;
}) {
  return (
    <Sheet tone="live" sx={{ mb: 2 }}>
      <Line>
        <Box role="alert" sx={{ flex: '1 1 280px' }}>
          <strong>{say('form.newer')}</strong> {children} {say('form.newer.kept')}
        </Box>
        <Button variant="outlined" onClick={onTake}>
          {say('form.newer.theirs')}
        </Button>
        <Button variant="outlined" onClick={onKeep}>
          {say('form.newer.mine')}
        </Button>
      </Line>
    </Sheet>
  );
}
