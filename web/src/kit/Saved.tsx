import { Snackbar } from '@mui/material';
import { useState } from 'react';
import { say } from '../words/views.ts';

const SHOWN_MS = 5000;

/** Says "Saved." where the eye is, each time something was; read aloud as well. */
export function Saved({ times, words = say('form.saved') }: { times: number; words?: string }) {
  const [gone, setGone] = useState(0);
  return (
    <Snackbar
      key={times}
      open={times > gone}
      autoHideDuration={SHOWN_MS}
      onClose={(_, why) => why === 'timeout' && setGone(times)}
      message={words}
      anchorOrigin={{ vertical: 'bottom', horizontal: 'center' }}
      slotProps={{ content: { role: 'status' } }}
    />
  );
}
