import { leaveCounter, signOut, switchKitchen } from '@cocotte/contract';
import { altitudeText } from '@cocotte/core/measure';
import { Box, ButtonBase } from '@mui/material';
import { say } from '../words/index.ts';
import { useColorScheme } from '@mui/material/styles';
import { Suspense, lazy, useState, useSyncExternalStore } from 'react';
import { useNavigate } from 'react-router';
import { eraseKept, records } from '../device/index.ts';
import { outbox } from '../outbox/index.ts';
import { act } from './acting.ts';
import { call } from './call.ts';
import { LaterMenu } from './LaterMenu.tsx';
import type { MenuEntry } from './MenuOf.tsx';
import { useHere, useTakeSession } from './session.tsx';

const AddPersonDialog = lazy(async () => ({ default: (await import('./People.tsx')).AddPersonDialog }));
const UndeliveredAsked = lazy(async () => ({ default: (await import('./People.tsx')).UndeliveredAsked }));

/** Behind the kitchen's name: settings, people, other kitchens, day and night, signing out. */
export function KitchenMenu({
  onKeys,
  onFind,
  onSignOut,
}: {
  onKeys: () => void;
  onFind: () => void;
  /** Forgets what this device keeps for whoever was signed in. */
  onSignOut: () => Promise<void>;
}) {
  const { kitchen, session, role, person, atCounter } = useHere();
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const { mode, setMode, systemMode } = useColorScheme();
  const take = useTakeSession();
  const navigate = useNavigate();
  const night = (mode === 'system' ? systemMode : mode) === 'dark';
  const [asked, setAsked] = useState(false);
  const [adding, setAdding] = useState(false);
  const kept = useSyncExternalStore(outbox.subscribe, outbox.view).waiting.filter(w => !w.refused).length;
  const here = !useSyncExternalStore(records.subscribe, records.view).reached || kept > 0;
  const askToLeave = () => {
    if (kept > 0) setAsked(true);
    else void leave();
  };
  const leave = async () => {
    setAsked(false);
    await call(signOut);
    records.close();
    await onSignOut();
    take({ ...session, person: null, kitchens: [], kitchenId: null, demo: null });
    window.location.assign('/');
  };
  /** Who was tapped goes; the device works on in the name of whoever is signed in. */
  const leaves = async (personId: string) => {
    take({ ...(await call(leaveCounter, { params: { personId } })), kitchenId: kitchen.id });
    act(null);
    await eraseKept(personId);
  };
  const go = async (kitchenId: string) => {
    take(await call(switchKitchen, { body: { kitchenId } }));
    void navigate('/');
  };
  const to = (words: string, path: string): MenuEntry => ({ words, does: () => void navigate(path) });
  const entries: MenuEntry[] = [
    { said: `${person.name}, ${role}` },
    'rule',
    ...atCounter
      .filter(c => c.id !== person.id)
      .map(c => ({ words: say('counter.turn', { name: c.name }), does: () => act(c.id) })),
    { words: say('counter.add'), does: () => setAdding(true) },
    ...(person.id === session.person?.id
      ? []
      : [{ words: say('counter.leaves', { name: person.name }), does: () => void leaves(person.id) }]),
    'rule',
    to('Your password and devices', '/account'),
    to('Kitchen settings', '/kitchen'),
    to('Instruments', '/kitchen/instruments'),
    ...(role === 'owner' ? [to('People', '/kitchen/people')] : []),
    ...session.kitchens
      .filter(k => k.id !== kitchen.id)
      .map(k => ({ words: `Go to ${k.name}`, does: () => void go(k.id) })),
    'rule',
    { words: 'Find', does: onFind },
    { words: 'Keys', does: onKeys },
    {
      words: night ? 'Day colours' : 'Night colours',
      does: () => setMode(night ? 'light' : 'dark'),
    },
    'rule',
    { words: 'Sign out', does: askToLeave },
  ];
  return (
    <>
      <ButtonBase
        aria-haspopup="menu"
        aria-expanded={anchor !== null}
        onClick={e => setAnchor(e.currentTarget)}
        sx={{
          textAlign: 'right',
          display: 'block',
          px: 1,
          py: 0.5,
          borderRadius: 1,
          fontSize: '0.95rem',
          lineHeight: 1.3,
          color: 'text.secondary',
          maxWidth: { xs: 130, sm: 200, md: 260 },
        }}
      >
        <Box
          component="span"
          sx={{
            display: 'block',
            color: 'text.primary',
            overflow: 'hidden',
            textOverflow: 'ellipsis',
            whiteSpace: 'nowrap',
          }}
        >
          {kitchen.name}
        </Box>
        <Box
          component="span"
          sx={{
            display: 'block',
            color: here ? 'live.main' : undefined,
            overflow: 'hidden',
            textOverflow: 'ellipsis',
            whiteSpace: 'nowrap',
          }}
        >
          {here
            ? say('mark.here')
            : atCounter.length > 1
              ? person.name
              : kitchen.placed
                ? altitudeText(kitchen.altitude_m, kitchen)
                : 'not set up'}
          {!here && (
            <Box component="span" sx={{ display: { xs: 'none', md: 'inline' } }}>
              {' · '}
              {say('mark.there')}
            </Box>
          )}
        </Box>
      </ButtonBase>
      <LaterMenu anchor={anchor} entries={entries} onClose={() => setAnchor(null)} />
      <Suspense>
        {adding && <AddPersonDialog onClose={() => setAdding(false)} />}
        {asked && (
          <UndeliveredAsked kept={kept} onClose={() => setAsked(false)} onLeave={() => void leave()} />
        )}
      </Suspense>
    </>
  );
}
