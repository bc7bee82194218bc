import { Button, Dialog, DialogActions, DialogContent, DialogTitle } from '@mui/material';
import { useEffect } from 'react';
import { useBlocker } from 'react-router';
import { say } from '../words/views.ts';

/** The browser asks before the page is closed or read anew, while something typed has not been taken. */
export function useCloseAsked(dirty: boolean): void {
  useEffect(() => {
    if (!dirty) return undefined;
    const ask = (e: BeforeUnloadEvent) => e.preventDefault();
    window.addEventListener('beforeunload', ask);
    return () => window.removeEventListener('beforeunload', ask);
  }, [dirty]);
}

/** Asks before another view is opened, while something typed here has not been taken. */
export function LeaveAsked({ dirty }: { dirty: boolean }) {
  useCloseAsked(dirty);
  const blocker = useBlocker(
    ({ currentLocation, nextLocation }) => dirty && currentLocation.pathname !== nextLocation.pathname,
  );
  if (blocker.state !== 'blocked') return null;
  return (
    <Dialog open onClose={() => blocker.reset()} maxWidth="xs" aria-labelledby="leave-title">
      <DialogTitle id="leave-title" variant="h2">
        {say('form.leave')}
      </DialogTitle>
      <DialogContent>{say('form.leave.why')}</DialogContent>
      <DialogActions sx={{ p: 2 }}>
        <Button variant="outlined" onClick={() => blocker.proceed()}>
          {say('form.leave.yes')}
        </Button>
        <Button autoFocus variant="contained" onClick={() => blocker.reset()}>
          {say('form.leave.no')}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
