import { Box, Button } from '@mui/material';
import type { ReactNode } from 'react';
import { Link } from 'react-router';

/** A line across the frame that says what holds for every view, with what can be done about it. */
export function Bar({
  tone,
  role,
  action,
  onAction,
  to,
  children,
}: {
  tone: 'live' | 'ox';
  role: 'status' | 'alert';
  action?: string | false;
  onAction?: () => void;
  /** Where it is done, instead. */
  to?: string;
  children: ReactNode;
}) {
  return (
    <Box
      role={role}
      sx={{
        bgcolor: `${tone}.tint`,
        borderBottom: 2,
        borderColor: tone === 'live' ? 'live.fill' : 'ox.main',
        px: { xs: 1.5, sm: 3.5 },
        py: 1,
        display: 'flex',
        gap: 2,
        alignItems: 'center',
        flexWrap: 'wrap',
      }}
    >
      <Box sx={{ flex: 1, minWidth: 240 }}>{children}</Box>
      {action && (
        <Button
          size="small"
          variant="outlined"
          {...(to === undefined ? { onClick: onAction } : { component: Link, to })}
        >
          {action}
        </Button>
      )}
    </Box>
  );
}
