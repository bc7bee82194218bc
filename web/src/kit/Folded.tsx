import { Box } from '@mui/material';
import { type ReactNode, useState } from 'react';

/** What is folded away until somebody opens it, and not drawn before: a table of ten years is long. */
export function Folded({
  summary,
  opened = false,
  children,
}: {
  summary: string;
  /** Open from the start. */
  opened?: boolean;
  children: () => ReactNode;
}) {
  const [open, setOpen] = useState(opened);
  return (
    <Box
      component="details"
      open={open}
      sx={{ mt: 1 }}
      onToggle={e => setOpen((e.target as HTMLDetailsElement).open)}
    >
      <summary>{summary}</summary>
      {open && children()}
    </Box>
  );
}
