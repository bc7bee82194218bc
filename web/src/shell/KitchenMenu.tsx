import { signOut, switchKitchen } from '@cocotte/contract';
import { altitudeText } from '@cocotte/core/measure';
import { Box, ButtonBase, Divider, Menu, MenuItem } from '@mui/material';
import { useColorScheme } from '@mui/material/styles';
import { useState } from 'react';
import { useNavigate } from 'react-router';
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
  onSignOut: () => void;
}) {
  const { kitchen, session, role, person } = useHere();
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const { mode, setMode, systemMode } = useColorScheme();
  const take = useTakeSession();
  const navigate = useNavigate();
  const night = (mode === 'system' ? systemMode : mode) === 'dark';
  const close = () => setAnchor(null);
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
  const leave = async () => {
    close();
    await call(signOut);
    onSignOut();
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
          maxWidth: { xs: 130, sm: 200 },
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
        <Box component="span">
          {kitchen.placed ? altitudeText(kitchen.altitude_m, kitchen) : 'not set up'}
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
        <MenuItem onClick={() => void leave()}>Sign out</MenuItem>
      </Menu>
    </>
  );
}
