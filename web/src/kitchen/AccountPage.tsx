import { type SessionRow, changePassword, endSession, listSessions } from '@cocotte/contract';
import { type Fault, instantText } from '@cocotte/core/measure';
import { Box, Button, Table, TableBody, TableCell, TableHead, TableRow, TextField } from '@mui/material';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { call, faultsOf } from '../shell/call.ts';
import { useEntry, words } from '../shell/entry.ts';
import { Aloud, Faults, Sheet, Soft, ViewHead } from '../shell/parts.tsx';
import { useHere } from '../shell/session.tsx';
import { browserWords } from './browser-words.ts';

/** A person's own: where they are signed in, and their password. */
export function AccountPage() {
  const { person } = useHere();
  return (
    <>
      <ViewHead title="Your password and devices" detail={`${person.name}, ${person.email}`} />
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: 'minmax(0, 1.6fr) minmax(0, 1fr)' },
          gap: 2,
          alignItems: 'start',
        }}
      >
        <Sessions />
        <PasswordForm />
      </Box>
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
    <Sheet title="Where you are signed in" sx={{ overflowX: 'auto' }}>
      <Faults faults={error ? faultsOf(error) : faults} />
      <Table>
        <TableHead>
          <TableRow>
            <TableCell>Browser</TableCell>
            <TableCell>Since</TableCell>
            <TableCell>Last seen</TableCell>
            <TableCell>
              <Aloud>Action</Aloud>
            </TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {data?.sessions.map(s => (
            <TableRow key={s.id}>
              <TableCell>
                {browserWords(s.browser)}
                <Soft sx={{ display: 'block', fontSize: '0.9rem' }}>
                  {s.present ? 'this device' : s.address}
                </Soft>
              </TableCell>
              <TableCell>{at(s.signedInAt)}</TableCell>
              <TableCell>{s.present ? 'now' : at(s.lastSeenAt)}</TableCell>
              <TableCell align="right">
                {!s.present && (
                  <Button
                    size="small"
                    variant="outlined"
                    onClick={() => void end(s)}
                    sx={{ whiteSpace: 'nowrap' }}
                    aria-label={`End it: the session of ${browserWords(s.browser)}, since ${at(s.signedInAt)}`}
                  >
                    End it
                  </Button>
                )}
              </TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
    </Sheet>
  );
}

function PasswordForm() {
  const client = useQueryClient();
  const form = useEntry({ present: words('The present password'), next: words('The new password') });
  const [faults, setFaults] = useState<Fault[]>([]);
  const [busy, setBusy] = useState(false);
  const [done, setDone] = useState(false);
  const onSubmit = async (e: FormEvent) => {
    e.preventDefault();
    const body = form.read();
    if (!body) return;
    setBusy(true);
    setFaults([]);
    setDone(false);
    try {
      await call(changePassword, { body });
      form.clear();
      setDone(true);
      await client.invalidateQueries({ queryKey: ['sessions'] });
    } catch (error) {
      setFaults(form.place(faultsOf(error)));
    } finally {
      setBusy(false);
    }
  };
  return (
    <Sheet title="Your password">
      <Box
        component="form"
        noValidate
        onSubmit={e => void onSubmit(e)}
        sx={{ display: 'grid', gap: 2, mt: 1 }}
      >
        <TextField
          label="Present password"
          type="password"
          autoComplete="current-password"
          {...form.field('present')}
        />
        <TextField
          label="New password"
          type="password"
          autoComplete="new-password"
          {...form.field('next')}
          helperText={
            form.field('next').helperText ?? '10 characters or more. You are signed out everywhere else.'
          }
        />
        <Faults faults={faults} />
        {done && (
          <Box role="status" sx={{ color: 'leaf.main', fontWeight: 600 }}>
            Changed. Your other sessions are over.
          </Box>
        )}
        <Button type="submit" variant="contained" disabled={busy} sx={{ justifySelf: 'start' }}>
          Change the password
        </Button>
      </Box>
    </Sheet>
  );
}
