import { Box } from '@mui/material';
import type { ReactNode } from 'react';

/** One thing on Today: what it is, and its button. */
export const TodayRow = ({ wrap = false, children }: { wrap?: boolean; children: ReactNode }) => (
  <Box
    sx={{
      display: 'flex',
      alignItems: 'center',
      gap: 2,
      py: 1.25,
      borderBottom: 1,
      borderColor: 'rule.main',
      flexWrap: wrap ? 'wrap' : 'nowrap',
      '&:last-of-type': { borderBottom: 0 },
    }}
  >
    {children}
  </Box>
);
