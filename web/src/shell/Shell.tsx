import { Box } from '@mui/material';
import { Mark } from '../kit/Mark.tsx';
import { Waiting } from '../kit/Loaded.tsx';
import { useQueryClient } from '@tanstack/react-query';
import {
  Suspense,
  lazy,
  useCallback,
  useEffect,
  useMemo,
  useRef,
  useState,
  useSyncExternalStore,
} from 'react';
import { ErrorBoundary } from 'react-error-boundary';
import { Link, Outlet, useLocation, useNavigationType } from 'react-router';
import { type Changed, records } from '../device/index.ts';
import { outbox } from '../outbox/index.ts';
import { actingId, counterOf, onActing } from './acting.ts';
import { askTime } from './call.ts';
import { askingBy } from './clock.ts';
import { KitchenMenu } from './KitchenMenu.tsx';
import { useKeys } from './keys.ts';
import { DeviceBars } from './DeviceBars.tsx';
import { OutboxBar } from './OutboxBar.tsx';
import { pinAsked } from './pin.ts';
import { useToday } from './rail.ts';
import { NotSetUp } from './NotSetUp.tsx';
import { type Here, HereContext, kitchenOfTab, useKitchen, useSession } from './session.tsx';
import { StoveRail } from './StoveRail.tsx';
import { ViewFailed } from './ViewFailed.tsx';
import { Workline } from './Workline.tsx';
import { figuresAsIn } from '../words/index.ts';

// Fetched when they are first asked for.
const FindDialog = lazy(async () => ({ default: (await import('./Overlays.tsx')).FindDialog }));
const KeysDialog = lazy(async () => ({ default: (await import('./Overlays.tsx')).KeysDialog }));
const PinDialog = lazy(async () => ({ default: (await import('./People.tsx')).PinDialog }));

/** The frame of every view inside a kitchen: workline above, stove rail below. */
export function Shell({ onSignOut }: { onSignOut: () => Promise<void> }) {
  const { data: session } = useSession();
  const mine = session ? kitchenOfTab(session) : null;
  const { data: kitchen } = useKitchen(mine?.id ?? null);
  const acting = useSyncExternalStore(onActing, actingId);
  const here = useMemo<Here | null>(() => {
    if (!session?.person || !mine || !kitchen) return null;
    const users = counterOf(session, mine.id);
    const atCounter = users.filter(c => !c.left);
    const { id, name, role, maySign } = atCounter.find(c => c.id === acting) ?? {
      ...session.person,
      role: mine.role,
      maySign: mine.maySign,
    };
    return { person: { id, name }, role, maySign, kitchen, session, atCounter, shared: mine.shared };
  }, [session, mine, kitchen, acting]);
  if (!here) return <Waiting />;
  figuresAsIn(here.kitchen);
  return (
    <HereContext value={here}>
      <Frame here={here} onSignOut={onSignOut} />
    </HereContext>
  );
}

/** What is asked of the server anew when a part of the kitchen moved. */
const ASKED_ANEW: Record<Changed, readonly string[]> = {
  seq: ['batches', 'cost', 'costs', 'find'],
  recipes: ['recipes', 'recipe', 'ingredients', 'shopping', 'costs'],
  stock: [
    'stock',
    'shelf',
    'lots',
    'lot',
    'items',
    'receipts',
    'receipt',
    'mappings',
    'plans',
    'shopping',
    'costs',
  ],
  settings: ['kitchen', 'people', 'invitations', 'session', 'label setup', 'label settings', 'label touched'],
};

/** Another view begins at its top; going back, the browser finds its place itself. */
function useTop(): void {
  const { pathname } = useLocation();
  const back = useNavigationType() === 'POP';
  const seen = useRef(pathname);
  useEffect(() => {
    if (seen.current !== pathname && !back) window.scrollTo(0, 0);
    seen.current = pathname;
  }, [pathname, back]);
}

/** The kitchen's clock is asked for when the device wakes, is back on the net, or does not know. */
function useAskedClock(): void {
  useEffect(() => {
    const ask = () => void askTime();
    const seen = () => document.visibilityState === 'visible' && ask();
    askingBy(ask);
    document.addEventListener('visibilitychange', seen);
    window.addEventListener('online', ask);
    window.addEventListener('pageshow', ask);
    return () => {
      document.removeEventListener('visibilitychange', seen);
      window.removeEventListener('online', ask);
      window.removeEventListener('pageshow', ask);
    };
  }, []);
}

function Frame({ here, onSignOut }: { here: Here; onSignOut: () => Promise<void> }) {
  const client = useQueryClient();
  const { pathname } = useLocation();
  const { data: today } = useToday();
  const [open, setOpen] = useState<'find' | 'keys' | null>(null);
  const [code, setCode] = useState('');
  const find = useCallback((scanned = '') => {
    setCode(scanned);
    setOpen('find');
  }, []);
  const help = useCallback(() => setOpen('keys'), []);
  useAskedClock();
  useKeys({ find, help });
  useTop();
  const { kitchen, atCounter, session } = here;
  // The records are kept for whoever is signed in, whoever acts: a tap on a name changes nothing of what is held.
  const keeperId = session.person?.id ?? '';
  useEffect(
    () =>
      records.open(kitchen.id, keeperId, what => {
        for (const queryKey of what.flatMap(w => ASKED_ANEW[w]))
          void client.invalidateQueries({ queryKey: [queryKey] });
      }),
    [client, keeperId, kitchen.id],
  );
  const present = [...new Set([keeperId, ...atCounter.map(c => c.id)])].join(' ');
  useEffect(() => void outbox.open(present.split(' '), () => records.look()), [present]);
  const pin = useSyncExternalStore(pinAsked.subscribe, pinAsked.view);
  return (
    <Box sx={{ minHeight: '100dvh', display: 'flex', flexDirection: 'column' }}>
      <Box
        component="a"
        href="#view"
        sx={{
          position: 'absolute',
          left: -9999,
          '&:focus': { left: 12, top: 8, zIndex: 50, bgcolor: 'background.paper', p: 1 },
        }}
      >
        Go to the view
      </Box>
      <Box
        component="header"
        className="no-print"
        sx={{
          display: 'flex',
          alignItems: 'center',
          gap: { xs: 1, sm: 3 },
          px: { xs: 1.5, sm: 3.5 },
          pt: 1,
          pb: 0.5,
        }}
      >
        <Box
          component={Link}
          to="/"
          aria-label="Cocotte, today"
          sx={{
            display: { xs: 'none', sm: 'flex' },
            alignItems: 'center',
            gap: 1,
            fontFamily: "'Fraunces Variable', serif",
            fontWeight: 640,
            fontSize: '1.35rem',
            color: 'primary.main',
            textDecoration: 'none',
          }}
        >
          <Mark size={28} />
          <Box component="span" sx={{ display: { xs: 'none', md: 'inline' } }}>
            Cocotte
          </Box>
        </Box>
        <Workline waiting={today?.waiting ?? {}} />
        <KitchenMenu onKeys={help} onFind={() => find()} onSignOut={onSignOut} />
      </Box>
      <OutboxBar />
      <DeviceBars />
      <NotSetUp />
      <Box
        component="main"
        id="view"
        tabIndex={-1}
        sx={{
          flex: 1,
          px: { xs: 1.5, sm: 3.5 },
          py: 2,
          width: '100%',
          maxWidth: 1600,
          mx: 'auto',
          outline: 'none',
        }}
      >
        {/* Each address has its own view: nothing that was typed for one batch is left in the fields of another. */}
        <ErrorBoundary key={pathname} FallbackComponent={ViewFailed}>
          <Suspense fallback={<Waiting />}>
            <Outlet />
          </Suspense>
        </ErrorBoundary>
      </Box>
      <StoveRail />
      <Suspense>
        {open === 'find' && <FindDialog key={code} code={code} onClose={() => setOpen(null)} />}
        {open === 'keys' && <KeysDialog onClose={() => setOpen(null)} />}
        {pin && <PinDialog key={pin.fault.what} fault={pin.fault} onAnswer={pin.answer} />}
      </Suspense>
    </Box>
  );
}
