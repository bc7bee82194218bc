import { Box, CircularProgress } from '@mui/material';
import type { ReactNode } from 'react';
import { faultsOf } from '../shell/call.ts';
import { Faults } from './parts.tsx';

/** While something is fetched. */
export function Waiting() {
  return (
    <Box sx={{ display: 'grid', placeItems: 'center', minHeight: 240 }}>
      <CircularProgress aria-label="One moment" />
    </Box>
  );
}

/** What was fetched; until then that it is on its way, or why it did not come. What is here stays, even when a later look fails. */
export function Loaded<T>({
  query,
  children,
}: {
  query: { data?: T | null | undefined; error?: unknown };
  children: (data: T) => ReactNode;
}) {
  if (query.data !== undefined && query.data !== null) return children(query.data);
  return query.error ? <Faults faults={faultsOf(query.error)} /> : <Waiting />;
}
