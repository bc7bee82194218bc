import {
  type SessionView,
  acceptInvitation,
  makeFirstAccount,
  readInvitation,
  signIn,
} from '@cocotte/contract';
import { findHeights } from '@cocotte/core/kitchen';
import {
  type Clock,
  clockOf,
  type Fault,
  fieldText,
  type Habits,
  metresFromFeet,
  type PaperSize,
  type Reading,
  readNumber,
  usualPaper,
  type WeekStart,
  weekStartOf,
  withHabits,
} from '@cocotte/core/measure';
import { Box, Button, Paper, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { type FormEvent, type ReactNode, useState } from 'react';
import { FreeText } from '../kit/controls.tsx';
import { Figure, OneOf, Text } from '../kit/fields.tsx';
import { useTyped } from '../kit/form.ts';
import { Cells, Stack } from '../kit/layout.tsx';
import { Mark } from '../kit/Mark.tsx';
import { Faults } from '../kit/parts.tsx';
import { anyWords, words } from '../kit/readers.ts';
import { call, faultsOf } from '../shell/call.ts';
import { useTakeSession } from '../shell/session.tsx';
import { HabitFields } from './HabitFields.tsx';
import { say } from '../words/views.ts';

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
          <Mark size={36} />
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

/** The fields of a door, what is wrong with none of them, and its one button. */
function DoorForm({
  form,
  action,
  onSubmit,
  children,
}: {
  form: { faults: Fault[]; busy: boolean };
  action: string;
  onSubmit: (event: FormEvent) => void;
  children: ReactNode;
}) {
  return (
    <form noValidate onSubmit={onSubmit}>
      <Stack>
        {children}
        <Faults faults={form.faults} />
        <Button type="submit" variant="contained" size="large" disabled={form.busy}>
          {action}
        </Button>
      </Stack>
    </form>
  );
}

function SignIn({ session }: { session: SessionView }) {
  const take = useTakeSession();
  const form = useTyped({ email: '', password: '' }, () => ({
    email: words('The email'),
    password: words('The password'),
  }));
  const { at } = form;
  return (
    <Frame title="Sign in">
      <DoorForm
        form={form}
        action="Sign in"
        onSubmit={form.submit(async body => take(await call(signIn, { body })))}
      >
        <Text at={at('email')} label="Email" type="email" autoComplete="username" autoFocus />
        <Text at={at('password')} label="Password" type="password" autoComplete="current-password" />
      </DoorForm>
      {session.demo && <DemoDoor demo={session.demo} />}
    </Frame>
  );
}

function DemoDoor({ demo }: { demo: { email: string; password: string } }) {
  const take = useTakeSession();
  const [busy, setBusy] = useState(false);
  const [faults, setFaults] = useState<Fault[]>([]);
  const enter = async () => {
    setBusy(true);
    try {
      take(await call(signIn, { body: demo }));
    } catch (error) {
      setFaults(faultsOf(error));
      setBusy(false);
    }
  };
  return (
    <Box sx={{ mt: 3, pt: 2, borderTop: 1, borderColor: 'rule.main' }}>
      <Typography sx={{ mb: 1.5 }}>
        This is the demo kitchen, made up for looking around. Do not cook from it.
      </Typography>
      <Button variant="outlined" fullWidth disabled={busy} onClick={() => void enter()}>
        Enter the demo kitchen
      </Button>
      <Faults faults={faults} />
    </Box>
  );
}

const LOCALE = navigator.language || 'en-US';
/** Feet, pounds and Fahrenheit are at home where the browser says so. */
const inUS = () => /-(?:US|LR|MM)$/i.test(LOCALE);
/** Money of a region; elsewhere it is chosen under the settings. */
const MONEY: ReadonlyMap<string, string> = new Map([
  ['CA', 'CAD'],
  ['GB', 'GBP'],
  ['AU', 'AUD'],
  ['NZ', 'NZD'],
  ['JP', 'JPY'],
  ['CH', 'CHF'],
  ['SE', 'SEK'],
  ['NO', 'NOK'],
  ['DK', 'DKK'],
  ['PL', 'PLN'],
  ['IN', 'INR'],
  ['MX', 'MXN'],
  ['ZA', 'ZAR'],
  ...[
    'DE',
    'AT',
    'FR',
    'IT',
    'ES',
    'NL',
    'BE',
    'IE',
    'FI',
    'PT',
    'GR',
    'SI',
    'SK',
    'EE',
    'LV',
    'LT',
    'HR',
    'LU',
  ].map(r => [r, 'EUR'] as const),
]);
const habitsOf = (
  measures: Habits['measures'],
  own: { clock: Clock; weekStart: WeekStart; paper: PaperSize },
) => ({
  locale: withHabits(LOCALE, own),
  paper: own.paper,
  currency: MONEY.get(/-([A-Z]{2})$/i.exec(LOCALE)?.[1]?.toUpperCase() ?? '') ?? 'USD',
  measures,
  temperature: measures === 'US' ? ('F' as const) : ('C' as const),
  altitude: measures === 'US' ? ('ft' as const) : ('m' as const),
});

function FirstAccount() {
  const take = useTakeSession();
  const form = useTyped(
    {
      kitchen: '',
      measures: inUS() ? ('US' as const) : ('metric' as Habits['measures']),
      clock: clockOf(LOCALE),
      weekStart: weekStartOf(LOCALE),
      paper: usualPaper(LOCALE),
      altitude_m: '',
      zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
      name: '',
      email: '',
      password: '',
    },
    ({ measures }) => ({
      kitchen: words('The name of the kitchen'),
      altitude_m: (text: string): Reading<number> => {
        const inFeet = measures === 'US';
        const read = readNumber(text, LOCALE, {
          name: 'The altitude',
          min: inFeet ? -300 : -90,
          max: inFeet ? 10_000 : 3048,
          unit: inFeet ? ' ft' : ' m',
          why: 'The published tables end at 10,000 ft.',
        });
        return read.ok && inFeet ? { ok: true, value: metresFromFeet(read.value) } : read;
      },
      zone: words('The time zone'),
      name: words('Your name'),
      email: words('The email'),
      password: words('The password'),
    }),
  );
  const { at } = form;
  const measures = form.typed('measures');
  const make = form.submit(async ({ measures: chosen, clock, weekStart, paper, ...v }) =>
    take(
      await call(makeFirstAccount, { body: { ...v, habits: habitsOf(chosen, { clock, weekStart, paper }) } }),
    ),
  );
  const [place, setPlace] = useState('');
  const found = findHeights(place);
  const choosePlace = (name: string, height_ft: number) => {
    form.set(
      'altitude_m',
      fieldText(measures === 'US' ? height_ft : Math.round(height_ft * 0.3048), LOCALE, 0),
    );
    setPlace(name);
  };
  return (
    <Frame title="Your kitchen">
      <Typography sx={{ mb: 2 }}>
        Nobody is here yet. This first account owns the kitchen and can add others.
      </Typography>
      <DoorForm form={form} action="Open the kitchen" onSubmit={make}>
        <Text at={at('kitchen')} label="Name of the kitchen" autoFocus />
        <OneOf
          at={at('measures')}
          label={say('door.measures')}
          row
          of={[
            ['US', say('door.measures.US')],
            ['metric', say('door.measures.metric')],
          ]}
        />
        <Cells wide="1fr 1fr 1fr" mt={0}>
          <HabitFields at={at} />
        </Cells>
        <Cells wide="1fr 1.3fr" mt={0}>
          <Figure
            at={at('altitude_m')}
            label={say(measures === 'US' ? 'door.feet' : 'door.metres')}
            hint="Processing times follow from it"
          />
          <Text at={at('zone')} label="Time zone" />
        </Cells>
        <Box>
          <FreeText
            label={say('door.find')}
            value={place}
            onText={setPlace}
            fullWidth
            size="small"
            hint={say('door.find.why')}
          />
          <Box role="group" aria-label={say('door.found')}>
            {found
              .filter(([name]) => name !== place)
              .map(([name, height_ft]) => (
                <Button key={name} size="small" onClick={() => choosePlace(name, height_ft)}>
                  {name}
                </Button>
              ))}
          </Box>
        </Box>
        <Text at={at('name')} label="Your name" autoComplete="name" />
        <Text at={at('email')} label="Email" type="email" autoComplete="username" />
        <Text
          at={at('password')}
          label="Password"
          type="password"
          autoComplete="new-password"
          hint="10 characters or more"
        />
      </DoorForm>
    </Frame>
  );
}

function Join({ token }: { token: string }) {
  const { data, error } = useQuery({
    queryKey: ['invitation', token],
    queryFn: () => call(readInvitation, { params: { token } }),
    retry: false,
  });
  const take = useTakeSession();
  const form = useTyped({ name: '', email: '', password: '' }, () => ({
    name: words('Your name'),
    email: words('The email'),
    password: anyWords,
  }));
  const { at } = form;
  const join = form.submit(async body => {
    const session = await call(acceptInvitation, { params: { token }, body });
    window.history.replaceState(null, '', '/');
    take(session);
  });
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
      <DoorForm form={form} action="Join the kitchen" onSubmit={join}>
        <Text at={at('name')} label="Your name" autoComplete="name" autoFocus />
        <Text at={at('email')} label="Email" type="email" autoComplete="username" />
        <Text
          at={at('password')}
          label="Password"
          type="password"
          autoComplete="new-password"
          hint="10 characters or more"
        />
      </DoorForm>
    </Frame>
  );
}
