import { Box, CircularProgress } from '@mui/material';
import { useQueryClient } from '@tanstack/react-query';
import { Suspense, useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { ErrorBoundary } from 'react-error-boundary';
import { Link, Outlet, useLocation, useNavigationType } from 'react-router';
import { outbox } from '../outbox/index.ts';
import { KitchenMenu } from './KitchenMenu.tsx';
import { useKeys } from './keys.ts';
import { OutboxBar } from './OutboxBar.tsx';
import { FindDialog, KeysDialog } from './Overlays.tsx';
import { useToday } from './rail.ts';
import { NotSetUp } from './NotSetUp.tsx';
import { type Here, HereContext, kitchenOfTab, useKitchen, useSession } from './session.tsx';
import { StoveRail } from './StoveRail.tsx';
import { ViewFailed } from './ViewFailed.tsx';
import { Workline } from './Workline.tsx';

/** The frame of every view inside a kitchen: workline above, stove rail below. */
export function Shell() {
  const { data: session } = useSession();
  const mine = session ? kitchenOfTab(session) : null;
  const { data: kitchen } = useKitchen(mine?.id ?? null);
  const here = useMemo<Here | null>(
    () =>
      session?.person && mine && kitchen
        ? { person: session.person, role: mine.role, maySign: mine.maySign, kitchen, session }
        : null,
    [session, mine, kitchen],
  );
  if (!here) return <Waiting />;
  return (
    <HereContext value={here}>
      <Frame here={here} />
    </HereContext>
  );
}

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

function Frame({ here }: { here: Here }) {
  const client = useQueryClient();
  const { pathname } = useLocation();
  const { data: today } = useToday();
  const [open, setOpen] = useState<'find' | 'keys' | null>(null);
  const find = useCallback(() => setOpen('find'), []);
  const help = useCallback(() => setOpen('keys'), []);
  useKeys({ find, help });
  useTop();
  const { person } = here;
  useEffect(() => {
    void outbox.open({ personId: person.id }, batchId => {
      void client.invalidateQueries({ queryKey: ['batch', batchId] });
      void client.invalidateQueries({ queryKey: ['today'] });
      void client.invalidateQueries({ queryKey: ['batches'] });
    });
  }, [client, person.id]);
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
          <svg width="28" height="28" viewBox="0 0 32 32" aria-hidden="true">
            <g fill="none" stroke="currentColor" strokeWidth="2.400" strokeLinecap="round">
              <path d="M4 15h24" />
              <path d="M7 11q9-5 18 0" />
              <path d="M16 8.500V5.500" />
            </g>
            <path d="M6 17.500h20v4q0 6-6 6h-8q-6 0-6-6z" fill="currentColor" />
          </svg>
          <Box component="span" sx={{ display: { xs: 'none', md: 'inline' } }}>
            Cocotte
          </Box>
        </Box>
        <Workline waiting={today?.waiting ?? {}} />
        <KitchenMenu onKeys={help} onFind={find} />
      </Box>
      <OutboxBar />
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
      <FindDialog open={open === 'find'} onClose={() => setOpen(null)} />
      <KeysDialog open={open === 'keys'} onClose={() => setOpen(null)} />
    </Box>
  );
}

/** While something is fetched. */
export function Waiting() {
  return (
    <Box sx={{ display: 'grid', placeItems: 'center', minHeight: 240 }}>
      <CircularProgress aria-label="One moment" />
    </Box>
  );
}
