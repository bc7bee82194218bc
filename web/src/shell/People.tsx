import { setPin, signIn } from '@cocotte/contract';
import type { Fault } from '@cocotte/core/measure';
import { Box, Button, Dialog, DialogActions, DialogContent, DialogTitle } from '@mui/material';
import { useQueryClient } from '@tanstack/react-query';
import { Text } from '../kit/fields.tsx';
import { useTyped } from '../kit/form.ts';
import { FormDialog } from '../kit/FormDialog.tsx';
import { Stack } from '../kit/layout.tsx';
import { Soft } from '../kit/parts.tsx';
import { words } from '../kit/readers.ts';
import { say } from '../words/views.ts';
import { act } from './acting.ts';
import { call } from './call.ts';
import { tellOthers } from './here-kept.ts';
import { useHere, useTakeSession } from './session.tsx';

const digits = {
  type: 'password',
  autoComplete: 'off',
  slotProps: { htmlInput: { inputMode: 'numeric' as const } },
};

interface Asked {
  fault: Fault;
  /** Null where they would rather not. */
  onAnswer: (pin: string | null) => void;
}

/** Asks whoever acts for their PIN, or has them set one with their password. */
export function PinDialog(asked: Asked) {
  return asked.fault.code === 'pin' ? <EnterPin {...asked} /> : <SetPin {...asked} />;
}

function EnterPin({ fault, onAnswer }: Asked) {
  const { person } = useHere();
  const form = useTyped({ pin: '' }, () => ({ pin: words(say('pin.label')) }));
  return (
    <FormDialog
      title={say('pin.of', { name: person.name })}
      action={say('pin.sign')}
      form={form}
      width="xs"
      onClose={() => onAnswer(null)}
      onSubmit={form.submit(async ({ pin }) => onAnswer(pin))}
    >
      <Box role="status">
        {fault.what} {fault.next}
      </Box>
      <Text {...digits} at={form.at('pin')} label={say('pin.label')} autoFocus sx={{ mt: 2 }} />
    </FormDialog>
  );
}

function SetPin({ fault, onAnswer }: Asked) {
  const { person } = useHere();
  const client = useQueryClient();
  const form = useTyped({ password: '', pin: '' }, () => ({
    password: words(say('password.label')),
    pin: words(say('pin.label')),
  }));
  return (
    <FormDialog
      title={say('pin.new', { name: person.name })}
      action={say('pin.setAndSign')}
      form={form}
      width="xs"
      onClose={() => onAnswer(null)}
      onSubmit={form.submit(async body => {
        client.setQueryData(['session'], await call(setPin, { params: { personId: person.id }, body }));
        onAnswer(body.pin);
      })}
    >
      <Box role="status">
        {fault.what} {fault.next}
      </Box>
      <Stack sx={{ mt: 2 }}>
        <Text
          at={form.at('password')}
          label={say('password.of', { name: person.name })}
          type="password"
          autoComplete="current-password"
          autoFocus
        />
        <Text {...digits} at={form.at('pin')} label={say('pin.label')} hint={say('pin.hint')} />
      </Stack>
    </FormDialog>
  );
}

/** Somebody else signs in on this device: both names stand at the counter from then on. */
export function AddPersonDialog({ onClose }: { onClose: () => void }) {
  const { kitchen } = useHere();
  const take = useTakeSession();
  const form = useTyped({ email: '', password: '' }, () => ({
    email: words(say('email.label')),
    password: words(say('password.label')),
  }));
  return (
    <FormDialog
      title={say('counter.add')}
      action={say('counter.add.action')}
      form={form}
      width="xs"
      onClose={onClose}
      onSubmit={form.submit(async body => {
        const session = await call(signIn, { body });
        act(null);
        const stays = session.kitchens.some(k => k.id === kitchen.id);
        take({ ...session, kitchenId: stays ? kitchen.id : session.kitchenId });
        tellOthers();
        onClose();
      })}
    >
      <Soft>{say('counter.add.why')}</Soft>
      <Stack sx={{ mt: 2 }}>
        <Text at={form.at('email')} label={say('email.label')} type="email" autoComplete="off" autoFocus />
        <Text at={form.at('password')} label={say('password.label')} type="password" autoComplete="off" />
      </Stack>
    </FormDialog>
  );
}

/** Asks before somebody signs out whose entries have not arrived. */
export function UndeliveredAsked({
  kept,
  onClose,
  onLeave,
}: {
  kept: number;
  onClose: () => void;
  onLeave: () => void;
}) {
  return (
    <Dialog open onClose={onClose} maxWidth="xs" aria-labelledby="undelivered-title">
      <DialogTitle id="undelivered-title" variant="h2">
        {say('signOut.undelivered', { n: kept })}
      </DialogTitle>
      <DialogContent>{say('signOut.undelivered.why')}</DialogContent>
      <DialogActions sx={{ p: 2, flexWrap: 'wrap', gap: 1 }}>
        <Button variant="outlined" onClick={onLeave}>
          {say('signOut.anyway')}
        </Button>
        <Button autoFocus variant="contained" onClick={onClose}>
          {say('signOut.stay')}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
