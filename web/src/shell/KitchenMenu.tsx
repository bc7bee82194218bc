import { signOut, switchKitchen } from '@cocotte/contract';
import { altitudeText } from '@cocotte/core/measure';
import { Box, ButtonBase, Divider, Menu, MenuItem } from '@mui/material';
import { useColorScheme } from '@mui/material/styles';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { forgetList } from '../stores/planning/shopping-kept.ts';
import { call } from './call.ts';
import { useHere, useTakeSession } from './session.tsx';

/** Behind the kitchen's name: settings, people, other kitchens, day and night, signing out. */
export function KitchenMenu({ onKeys, onFind }: { onKeys: () => void; onFind: () => void }) {
  const { kitchen, session, role, person } = useHere();
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const { mode, setMode, systemMode } = useColorScheme();
  const take = useTakeSession();
  const navigate = useNavigate();
  const night = (mode === 'system' ? systemMode : mode) === 'dark';
  const close = () => setAnchor(null);
  const leave = async () => {
    close();
    await call(signOut);
    forgetList();
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
        <Box component="li" sx={{ px: 2, py: 1, color: 'text.secondary' }}>
          {person.name}, {role}
        </Box>
        <Divider component="li" />
        <MenuItem
          onClick={() => {
            close();
            void navigate('/account');
          }}
        >
          Your password and devices
        </MenuItem>
        <MenuItem
          onClick={() => {
            close();
            void navigate('/kitchen');
          }}
        >
          Kitchen settings
        </MenuItem>
        {role === 'owner' && (
          <MenuItem
            onClick={() => {
              close();
              void navigate('/kitchen/people');
            }}
          >
            People
          </MenuItem>
        )}
        {session.kitchens
          .filter(k => k.id !== kitchen.id)
          .map(k => (
            <MenuItem key={k.id} onClick={() => void go(k.id)}>
              Go to {k.name}
            </MenuItem>
          ))}
        <Divider component="li" />
        <MenuItem
          onClick={() => {
            close();
            onFind();
          }}
        >
          Find
        </MenuItem>
        <MenuItem
          onClick={() => {
            close();
            onKeys();
          }}
        >
          Keys
        </MenuItem>
        <MenuItem
          onClick={() => {
            setMode(night ? 'light' : 'dark');
            close();
          }}
        >
          {night ? 'Day colours' : 'Night colours'}
        </MenuItem>
        <Divider component="li" />
        <MenuItem onClick={() => void leave()}>Sign out</MenuItem>
      </Menu>
    </>
  );
}
