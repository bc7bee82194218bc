import type { Fault } from '@cocotte/core/measure';
import { Box, Button, Dialog, DialogActions, DialogContent, DialogTitle } from '@mui/material';
import { type FormEvent, type ReactNode, useId, useRef, useState } from 'react';
import { say } from '../words/views.ts';
import { LeaveAsked } from './leaving.tsx';
import { Faults } from './parts.tsx';

/**
 * A form in a dialog: its fields, the faults that belong to none of them, and the one thing it does. A tap beside it
 * or a stray key does not lose what was typed: that is asked about first.
 */
export function FormDialog({
  title,
  action,
  form,
  width = 'sm',
  disabled = false,
  also,
  leave = say('form.notNow'),
  readOnly = false,
  onClose,
  onSubmit,
  children,
}: {
  title: string;
  /** What the button does, in words. */
  action: string;
  form: { faults: readonly Fault[]; dirty: boolean; busy: boolean };
  width?: 'xs' | 'sm' | 'md';
  disabled?: boolean;
  /** What else can be done with it. */
  also?: ReactNode;
  /** What the button says that leaves it. */
  leave?: string;
  /** To be looked at only. */
  readOnly?: boolean;
  onClose: () => void;
  onSubmit: (event: FormEvent) => void;
  children: ReactNode;
}) {
  const id = useId();
  const [asked, setAsked] = useState(false);
  const before = useRef<Element | null>(null);
  const ask = () => {
    before.current = document.activeElement;
    setAsked(true);
  };
  const goOn = () => {
    setAsked(false);
    if (before.current instanceof HTMLElement) before.current.focus();
  };
  return (
    <Dialog
      open
      // Only what a hand did by mistake comes this way; "Not now" is meant.
      onClose={() => (form.dirty ? ask() : onClose())}
      fullWidth
      maxWidth={width}
      aria-labelledby={id}
    >
      <LeaveAsked dirty={form.dirty && !form.busy} />
      <form noValidate onSubmit={onSubmit}>
        <DialogTitle id={id} variant="h2">
          {title}
        </DialogTitle>
        <DialogContent>
          <Box component="fieldset" disabled={readOnly} sx={{ border: 0, p: 0, m: 0, minWidth: 0 }}>
            {children}
          </Box>
          <Faults faults={form.faults} />
        </DialogContent>
        {asked ? (
          // A place of its own: a button that turned into another under the finger would do what that one does.
          <DialogActions key="asked" sx={{ p: 2, flexWrap: 'wrap', rowGap: 1 }}>
            <Box role="alert" sx={{ flex: '1 1 180px', fontWeight: 600 }}>
              {say('form.leave')}
            </Box>
            <Button variant="outlined" onClick={onClose}>
              {say('form.leave.yes')}
            </Button>
            <Button autoFocus variant="contained" onClick={goOn}>
              {say('form.leave.no')}
            </Button>
          </DialogActions>
        ) : (
          <DialogActions key="actions" sx={{ p: 2, flexWrap: 'wrap', rowGap: 1 }}>
            {also && <Box sx={{ mr: 'auto' }}>{also}</Box>}
            <Button variant="outlined" onClick={onClose}>
              {leave}
            </Button>
            {!readOnly && (
              <Button type="submit" variant="contained" disabled={disabled || form.busy}>
                {action}
              </Button>
            )}
          </DialogActions>
        )}
      </form>
    </Dialog>
  );
}
