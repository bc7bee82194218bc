import { Button } from '@mui/material';
import { useState } from 'react';
import { TimerDialog } from '../shell/TimerDialog.tsx';
import { say } from '../words/views.ts';

/** Sets a timer for anything. */
export function TimerButton() {
  const [open, setOpen] = useState(false);
  return (
    <>
      <Button variant="outlined" onClick={() => setOpen(true)}>
        {say('timer.new')}
      </Button>
      {open && <TimerDialog onClose={() => setOpen(false)} />}
    </>
  );
}
