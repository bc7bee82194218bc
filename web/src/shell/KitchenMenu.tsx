import { signOut, switchKitchen } from '@cocotte/contract';
import { altitudeText } from '@cocotte/core/measure';
import {
  Box,
  Button,
  ButtonBase,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  Divider,
  Menu,
  MenuItem,
} from '@mui/material';
import { say } from '../words/index.ts';
import { useColorScheme } from '@mui/material/styles';
import { useState, useSyncExternalStore } from 'react';
import { useNavigate } from 'react-router';
import { records } from '../device/index.ts';
import { outbox } from '../outbox/index.ts';
import { call } from './call.ts';
import { useHere, useTakeSession } from './session.tsx';

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
  const { kitchen, session, role, person } = useHere();
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const { mode, setMode, systemMode } = useColorScheme();
  const take = useTakeSession();
  const navigate = useNavigate();
  const night = (mode === 'system' ? systemMode : mode) === 'dark';
  const [asked, setAsked] = useState(false);
  const kept = useSyncExternalStore(outbox.subscribe, outbox.view).waiting.filter(w => !w.refused).length;
  const here = !useSyncExternalStore(records.subscribe, records.view).reached || kept > 0;
  const close = () => {
    setAnchor(null);
    setAsked(false);
  };
  const item = (words: string, then: () => void) => (
    <MenuItem
      onClick={() => {
        close();
        then();
      }}
    >
      {words}
    </MenuItem>
  );
  const askToLeave = () => {
    close();
    if (kept > 0) setAsked(true);
    else void leave();
  };
  const leave = async () => {
    close();
    await call(signOut);
    records.close();
    await onSignOut();
    take({ ...session, person: null, kitchens: [], kitchenId: null, demo: null });
    window.location.assign('/');
  };
  const go = async (kitchenId: string) => {
    close();
    take(await call(switchKitchen, { body: { kitchenId } }));
    void navigate('/');
  };
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
        <Box component="span" sx={{ color: here ? 'live.main' : undefined }}>
          {here
            ? say('mark.here')
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
      <Menu
        anchorEl={anchor}
        open={anchor !== null}
        onClose={close}
        slotProps={{ paper: { sx: { minWidth: 240 } } }}
      >
        <Box component="li" role="none" sx={{ px: 2, py: 1, color: 'text.secondary' }}>
          {person.name}, {role}
        </Box>
        <Divider component="li" />
        {item('Your password and devices', () => void navigate('/account'))}
        {item('Kitchen settings', () => void navigate('/kitchen'))}
        {role === 'owner' && item('People', () => void navigate('/kitchen/people'))}
        {session.kitchens
          .filter(k => k.id !== kitchen.id)
          .map(k => (
            <MenuItem key={k.id} onClick={() => void go(k.id)}>
              Go to {k.name}
            </MenuItem>
          ))}
        <Divider component="li" />
        {item('Find', onFind)}
        {item('Keys', onKeys)}
        {item(night ? 'Day colours' : 'Night colours', () => setMode(night ? 'light' : 'dark'))}
        <Divider component="li" />
        <MenuItem onClick={askToLeave}>Sign out</MenuItem>
      </Menu>
      <UndeliveredAsked
        open={asked}
        kept={kept}
        onClose={() => setAsked(false)}
        onLeave={() => void leave()}
      />
    </>
  );
}

/** Asks before somebody signs out whose entries have not arrived. */
function UndeliveredAsked({
  open,
  kept,
  onClose,
  onLeave,
}: {
  open: boolean;
  kept: number;
  onClose: () => void;
  onLeave: () => void;
}) {
  return (
    <Dialog open={open} onClose={onClose} maxWidth="xs" aria-labelledby="undelivered-title">
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
