import type { Fault } from '@cocotte/core/measure';
import { Button } from '@mui/material';
import type { FormEvent, ReactNode } from 'react';
import { Cells } from './layout.tsx';
import { Faults } from './parts.tsx';

/** A short form on a sheet: its fields, its one button across, and the faults that have no field. */
export function EntryForm({
  form,
  action,
  onSubmit,
  wide = '1fr',
  narrow = wide,
  tall = false,
  strong = false,
  mt = 1,
  children,
}: {
  form: { faults: readonly Fault[]; busy: boolean };
  action: string;
  onSubmit: (event: FormEvent) => void;
  wide?: string;
  narrow?: string;
  /** For wet hands. */
  tall?: boolean;
  strong?: boolean;
  mt?: number;
  children: ReactNode;
}) {
  return (
    <form noValidate onSubmit={onSubmit}>
      <Cells wide={wide} narrow={narrow} gap={1.5} mt={mt}>
        {children}
        <Button
          type="submit"
          variant={strong ? 'contained' : 'outlined'}
          disabled={form.busy}
          sx={{ gridColumn: '1 / -1', minHeight: tall ? 56 : 44 }}
        >
          {action}
        </Button>
      </Cells>
      <Faults faults={form.faults} />
    </form>
  );
}
