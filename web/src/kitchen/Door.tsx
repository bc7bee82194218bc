import {
  type SessionView,
  acceptInvitation,
  makeFirstAccount,
  readInvitation,
  signIn,
} from '@cocotte/contract';
import { type Fault, metresFromFeet, readNumber } from '@cocotte/core/measure';
import { Box, Button, Paper, TextField, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { type FormEvent, type ReactNode, useState } from 'react';
import { call, faultsOf } from '../shell/call.ts';
import { anyWords, useEntry, words } from '../shell/entry.ts';
import { Faults } from '../shell/parts.tsx';
import { useTakeSession } from '../shell/session.tsx';

/** Everything outside a kitchen: signing in, the first account, a link to join. */
export function Door({ session }: { session: SessionView }) {
  const token = /^\/join\/([^/]+)/.exec(window.location.pathname)?.[1];
  if (token) return <Join token={token} />;
  if (session.empty) return <FirstAccount />;
  if (session.person)
    return (
      <Frame title="No kitchen yet">
        <Typography>
          You belong to no kitchen. Ask its owner for a link, open it here, and sign in with your present
          password.
        </Typography>
      </Frame>
    );
  return <SignIn session={session} />;
}

function Frame({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Box component="main" sx={{ minHeight: '100dvh', display: 'grid', placeItems: 'center', p: 2 }}>
      <Box sx={{ width: '100%', maxWidth: 460 }}>
        <Box
          sx={{
            display: 'flex',
            alignItems: 'center',
            gap: 1.25,
            color: 'primary.main',
            mb: 2,
            fontFamily: "'Fraunces Variable', serif",
            fontWeight: 640,
            fontSize: '1.6rem',
          }}
        >
          <svg width="36" height="36" viewBox="0 0 32 32" aria-hidden="true">
            <g fill="none" stroke="currentColor" strokeWidth="2.400" strokeLinecap="round">
              <path d="M4 15h24" />
              <path d="M7 11q9-5 18 0" />
              <path d="M16 8.500V5.500" />
            </g>
            <path d="M6 17.500h20v4q0 6-6 6h-8q-6 0-6-6z" fill="currentColor" />
          </svg>
          Cocotte
        </Box>
        <Paper sx={{ border: 1, borderColor: 'rule.main', p: { xs: 2.5, sm: 4 } }}>
          <Typography variant="h1" sx={{ fontSize: '1.7rem', mb: 2.5 }}>
            {title}
          </Typography>
          {children}
        </Paper>
      </Box>
    </Box>
  );
}

/** A form that calls, shows faults beside their fields and keeps what was typed. */
function useSend(onDone: (view: SessionView) => void) {
  const [faults, setFaults] = useState<Fault[]>([]);
  const [busy, setBusy] = useState(false);
  const send = async (work: () => Promise<SessionView>, place: (faults: Fault[]) => Fault[]) => {
    setBusy(true);
    setFaults([]);
    try {
      onDone(await work());
    } catch (error) {
      setFaults(place(faultsOf(error)));
    } finally {
      setBusy(false);
    }
  };
  return { send, faults, busy };
}

function SignIn({ session }: { session: SessionView }) {
  const form = useEntry({ email: words('The email'), password: words('The password') });
  const { send, faults, busy } = useSend(useTakeSession());
  const onSubmit = (e: FormEvent) => {
    e.preventDefault();
    const body = form.read();
    if (body) void send(() => call(signIn, { body }), form.place);
  };
  return (
    <Frame title="Sign in">
      <Box component="form" noValidate onSubmit={onSubmit} sx={{ display: 'grid', gap: 2 }}>
        <TextField label="Email" type="email" autoComplete="username" autoFocus {...form.field('email')} />
        <TextField
          label="Password"
          type="password"
          autoComplete="current-password"
          {...form.field('password')}
        />
        <Faults faults={faults} />
        <Button type="submit" variant="contained" size="large" disabled={busy}>
          Sign in
        </Button>
      </Box>
      {session.demo && (
        <Box sx={{ mt: 3, pt: 2, borderTop: 1, borderColor: 'rule.main' }}>
          <Typography sx={{ mb: 1.5 }}>
            This is the demo kitchen, made up for looking around. Do not cook from it.
          </Typography>
          <Button
            variant="outlined"
            fullWidth
            disabled={busy}
            onClick={() =>
              void send(
                () => call(signIn, { body: session.demo as { email: string; password: string } }),
                f => f,
              )
            }
          >
            Enter the demo kitchen
          </Button>
        </Box>
      )}
    </Frame>
  );
}

const feet = (text: string) =>
  readNumber(text, 'en-US', {
    name: 'The altitude',
    min: -300,
    max: 10_000,
    unit: ' ft',
    why: 'The published tables end at 10,000 ft.',
  });

function FirstAccount() {
  const form = useEntry(
    {
      kitchen: words('The name of the kitchen'),
      altitude_m: feet,
      zone: words('The time zone'),
      name: words('Your name'),
      email: words('The email'),
      password: words('The password'),
    },
    { zone: Intl.DateTimeFormat().resolvedOptions().timeZone },
  );
  const { send, faults, busy } = useSend(useTakeSession());
  const onSubmit = (e: FormEvent) => {
    e.preventDefault();
    const values = form.read();
    if (values)
      void send(
        () => call(makeFirstAccount, { body: { ...values, altitude_m: metresFromFeet(values.altitude_m) } }),
        form.place,
      );
  };
  return (
    <Frame title="Your kitchen">
      <Typography sx={{ mb: 2 }}>
        Nobody is here yet. This first account owns the kitchen and can add others.
      </Typography>
      <Box component="form" noValidate onSubmit={onSubmit} sx={{ display: 'grid', gap: 2 }}>
        <TextField label="Name of the kitchen" autoFocus {...form.field('kitchen')} />
        <Box sx={{ display: 'grid', gridTemplateColumns: { sm: '1fr 1.3fr' }, gap: 2, alignItems: 'start' }}>
          <TextField
            label="Altitude in feet"
            inputMode="decimal"
            {...form.field('altitude_m')}
            helperText={form.field('altitude_m').helperText ?? 'Processing times follow from it'}
          />
          <TextField label="Time zone" {...form.field('zone')} />
        </Box>
        <TextField label="Your name" autoComplete="name" {...form.field('name')} />
        <TextField label="Email" type="email" autoComplete="username" {...form.field('email')} />
        <TextField
          label="Password"
          type="password"
          autoComplete="new-password"
          {...form.field('password')}
          helperText={form.field('password').helperText ?? '10 characters or more'}
        />
        <Faults faults={faults} />
        <Button type="submit" variant="contained" size="large" disabled={busy}>
          Open the kitchen
        </Button>
      </Box>
    </Frame>
  );
}

function Join({ token }: { token: string }) {
  const { data, error } = useQuery({
    queryKey: ['invitation', token],
    queryFn: () => call(readInvitation, { params: { token } }),
    retry: false,
  });
  const form = useEntry({ name: words('Your name'), email: words('The email'), password: anyWords });
  const take = useTakeSession();
  const { send, faults, busy } = useSend(view => {
    window.history.replaceState(null, '', '/');
    take(view);
  });
  const onSubmit = (e: FormEvent) => {
    e.preventDefault();
    const body = form.read();
    if (body) void send(() => call(acceptInvitation, { params: { token }, body }), form.place);
  };
  if (error)
    return (
      <Frame title="Join a kitchen">
        <Faults faults={faultsOf(error)} />
        <Button variant="outlined" href="/">
          Go to the sign-in
        </Button>
      </Frame>
    );
  if (!data)
    return (
      <Frame title="Join a kitchen">
        <Typography>One moment.</Typography>
      </Frame>
    );
  return (
    <Frame title={`Join ${data.kitchen}`}>
      <Typography sx={{ mb: 2 }}>
        You are asked in as {data.role}
        {data.role === 'cook' && data.maySign && ', with the right to release and sign'}. With an account
        already, use its email and its present password.
      </Typography>
      <Box component="form" noValidate onSubmit={onSubmit} sx={{ display: 'grid', gap: 2 }}>
        <TextField label="Your name" autoComplete="name" autoFocus {...form.field('name')} />
        <TextField label="Email" type="email" autoComplete="username" {...form.field('email')} />
        <TextField
          label="Password"
          type="password"
          autoComplete="new-password"
          {...form.field('password')}
          helperText={form.field('password').helperText ?? '10 characters or more'}
        />
        <Faults faults={faults} />
        <Button type="submit" variant="contained" size="large" disabled={busy}>
          Join the kitchen
        </Button>
      </Box>
    </Frame>
  );
}
