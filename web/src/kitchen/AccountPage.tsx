import {
  type Person,
  type SessionRow,
  changePassword,
  endSession,
  listSessions,
  setPin,
} from '@cocotte/contract';
import { type Fault, instantText } from '@cocotte/core/measure';
import { Button } from '@mui/material';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Text } from '../kit/fields.tsx';
import { useTyped } from '../kit/form.ts';
import { Columns, Stack } from '../kit/layout.tsx';
import { List } from '../kit/List.tsx';
import { Faults, Sheet, Soft, ViewHead } from '../kit/parts.tsx';
import { words } from '../kit/readers.ts';
import { Saved } from '../kit/Saved.tsx';
import { call, faultsOf } from '../shell/call.ts';
import { useHere } from '../shell/session.tsx';
import { say } from '../words/views.ts';
import { browserWords } from './browser-words.ts';

/** A person's own: where they are signed in, and their password. */
export function AccountPage() {
  const person = useHere().session.person as Person;
  return (
    <>
      <ViewHead title="Your password and devices" detail={`${person.name}, ${person.email}`} />
      <Columns of="1.6fr 1fr">
        <Sessions />
        <Stack>
          <PasswordForm />
          <PinForm personId={person.id} />
        </Stack>
      </Columns>
    </>
  );
}

function Sessions() {
  const { kitchen } = useHere();
  const client = useQueryClient();
  const { data, error } = useQuery({ queryKey: ['sessions'], queryFn: () => call(listSessions) });
  const [faults, setFaults] = useState<Fault[]>([]);
  const end = async (session: SessionRow) => {
    setFaults([]);
    try {
      await call(endSession, { params: { sessionId: session.id } });
      await client.invalidateQueries({ queryKey: ['sessions'] });
    } catch (caught) {
      setFaults(faultsOf(caught));
    }
  };
  const at = (instant: string) => instantText(Date.parse(instant), kitchen);
  return (
    <Sheet title="Where you are signed in">
      <Faults faults={faults} />
      <List
        label="Where you are signed in"
        size="medium"
        rows={data?.sessions}
        error={error}
        keyOf={s => s.id}
        columns={[
          {
            head: 'Browser',
            order: s => browserWords(s.browser),
            cell: s => (
              <>
                {browserWords(s.browser)}
                <Soft sx={{ display: 'block', fontSize: '0.9rem' }}>
                  {s.present ? 'this device' : s.address}
                </Soft>
              </>
            ),
          },
          { head: 'Since', cell: s => at(s.signedInAt), order: s => s.signedInAt },
          {
            head: 'Last seen',
            cell: s => (s.present ? 'now' : at(s.lastSeenAt)),
            order: s => s.lastSeenAt,
          },
          {
            head: 'Action',
            action: true,
            cell: s =>
              !s.present && (
                <Button
                  size="small"
                  variant="outlined"
                  onClick={() => void end(s)}
                  sx={{ whiteSpace: 'nowrap' }}
                  aria-label={`End it: the session of ${browserWords(s.browser)}, since ${at(s.signedInAt)}`}
                >
                  End it
                </Button>
              ),
          },
        ]}
      />
    </Sheet>
  );
}

function PasswordForm() {
  const client = useQueryClient();
  const [saved, setSaved] = useState(0);
  const form = useTyped({ present: '', next: '' }, () => ({
    present: words('The present password'),
    next: words('The new password'),
  }));
  const change = form.submit(async body => {
    await call(changePassword, { body });
    form.again();
    setSaved(n => n + 1);
    await client.invalidateQueries({ queryKey: ['sessions'] });
  });
  return (
    <Sheet title="Your password">
      <form noValidate onSubmit={change}>
        <Stack sx={{ mt: 1 }}>
          <Text
            at={form.at('present')}
            label="Present password"
            type="password"
            autoComplete="current-password"
          />
          <Text
            at={form.at('next')}
            label="New password"
            type="password"
            autoComplete="new-password"
            hint="10 characters or more. You are signed out everywhere else."
          />
          <Faults faults={form.faults} />
          <Button type="submit" variant="contained" disabled={form.busy} sx={{ justifySelf: 'start' }}>
            Change the password
          </Button>
        </Stack>
      </form>
      <Saved times={saved} words="Changed. Your other sessions are over." />
    </Sheet>
  );
}

/** The PIN by which a person is known on this device, where several use it. */
function PinForm({ personId }: { personId: string }) {
  const client = useQueryClient();
  const [saved, setSaved] = useState(0);
  const form = useTyped({ password: '', pin: '' }, () => ({
    password: words(say('password.label')),
    pin: words(say('pin.label')),
  }));
  const set = form.submit(async body => {
    client.setQueryData(['session'], await call(setPin, { params: { personId }, body }));
    form.again();
    setSaved(n => n + 1);
  });
  return (
    <Sheet title={say('pin.title')}>
      <Soft>{say('pin.why')}</Soft>
      <form noValidate onSubmit={set}>
        <Stack sx={{ mt: 2 }}>
          <Text
            at={form.at('password')}
            label={say('password.label')}
            type="password"
            autoComplete="current-password"
          />
          <Text
            at={form.at('pin')}
            label={say('pin.label')}
            type="password"
            autoComplete="off"
            slotProps={{ htmlInput: { inputMode: 'numeric' } }}
            hint={say('pin.hint')}
          />
          <Faults faults={form.faults} />
          <Button type="submit" variant="outlined" disabled={form.busy} sx={{ justifySelf: 'start' }}>
            {say('pin.set')}
          </Button>
        </Stack>
      </form>
      <Saved times={saved} words={say('pin.saved')} />
    </Sheet>
  );
}
