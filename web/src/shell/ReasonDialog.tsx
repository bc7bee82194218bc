import { Button, Dialog, DialogActions, DialogContent, DialogTitle, TextField } from '@mui/material';
import { type FormEvent, useState } from 'react';

/** Asks for the reason of something that stays in the record. */
export function ReasonDialog({
  title,
  action,
  onReason,
  onClose,
}: {
  title: string;
  action: string;
  onReason: (reason: string) => void;
  onClose: () => void;
}) {
  const [text, setText] = useState('');
  const [fault, setFault] = useState('');
  const submit = (e: FormEvent) => {
    e.preventDefault();
    if (text.trim().length < 3) setFault('Say why: it stands in the record.');
    else onReason(text.trim());
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="xs" aria-labelledby="reason-title">
      <form noValidate onSubmit={submit}>
        <DialogTitle id="reason-title" variant="h2">
          {title}
        </DialogTitle>
        <DialogContent>
          <TextField
            autoFocus
            label="Reason"
            value={text}
            onChange={e => {
              setText(e.target.value);
              setFault('');
            }}
            error={fault !== ''}
            helperText={fault}
            sx={{ mt: 1 }}
          />
        </DialogContent>
        <DialogActions sx={{ p: 2 }}>
          <Button variant="outlined" onClick={onClose}>
            Not now
          </Button>
          <Button type="submit" variant="contained">
            {action}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}
