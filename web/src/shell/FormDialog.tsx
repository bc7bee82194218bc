import type { Fault } from '@cocotte/core/measure';
import { Button, Dialog, DialogActions, DialogContent, DialogTitle } from '@mui/material';
import { type FormEvent, type ReactNode, useId } from 'react';
import { Faults } from './parts.tsx';

/** A form in a dialog: its fields, the faults that belong to none of them, and the one thing it does. */
export function FormDialog({
  title,
  action,
  faults,
  width = 'sm',
  disabled = false,
  onClose,
  onSubmit,
  children,
}: {
  title: string;
  /** What the button does, in words. */
  action: string;
  faults: Fault[];
  width?: 'xs' | 'sm' | 'md';
  disabled?: boolean;
  onClose: () => void;
  onSubmit: () => void;
  children: ReactNode;
}) {
  const id = useId();
  const submit = (e: FormEvent) => {
    e.preventDefault();
    onSubmit();
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth={width} aria-labelledby={id}>
      <form noValidate onSubmit={submit}>
        <DialogTitle id={id} variant="h2">
          {title}
        </DialogTitle>
        <DialogContent>
          {children}
          <Faults faults={faults} />
        </DialogContent>
        <DialogActions sx={{ p: 2 }}>
          <Button variant="outlined" onClick={onClose}>
            Not now
          </Button>
          <Button type="submit" variant="contained" disabled={disabled}>
            {action}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}
