import { Box, IconButton, useMediaQuery } from '@mui/material';
import { useTheme } from '@mui/material/styles';
import { useState } from 'react';
import { Link, useLocation, useNavigate } from 'react-router';
import { Aloud } from '../kit/parts.tsx';
import { say } from '../words/index.ts';
import { LaterMenu } from './LaterMenu.tsx';
import { STOPS, type Stop, stopOf } from './stops.ts';

/** The workline: the stops of the work as beads on a line, each with the number of things that wait there. */
export function Workline({ waiting }: { waiting: Partial<Record<'cook' | 'check' | 'label', number>> }) {
  const here = stopOf(useLocation().pathname);
  const narrow = useMediaQuery(useTheme().breakpoints.down(700));
  const at = here ? STOPS.indexOf(here) : -1;
  const shown = narrow
    ? STOPS.slice(Math.max(0, Math.min(at - 1, STOPS.length - 3)), Math.max(3, at + 2))
    : STOPS;
  return (
    <Box
      component="nav"
      aria-label="Stops of the work"
      sx={{ flex: 1, display: 'flex', alignItems: 'center', minWidth: 0 }}
    >
      <Box
        component="ol"
        sx={{
          position: 'relative',
          flex: 1,
          display: 'flex',
          justifyContent: 'space-between',
          listStyle: 'none',
          m: 0,
          p: 0,
          px: { xs: 0, sm: 1 },
          '&::before': {
            content: '""',
            position: 'absolute',
            left: 34,
            right: 34,
            top: 15,
            height: 2,
            bgcolor: 'rule.strong',
          },
        }}
      >
        {shown.map(stop => (
          <Bead
            key={stop.key}
            stop={stop}
            on={stop === here}
            count={stop.counts ? (waiting[stop.counts] ?? 0) : 0}
          />
        ))}
      </Box>
      {narrow && <AllStops waiting={waiting} />}
    </Box>
  );
}

function Bead({ stop, on, count }: { stop: Stop; on: boolean; count: number }) {
  return (
    <Box component="li" sx={{ position: 'relative' }}>
      <Box
        component={Link}
        to={stop.path}
        aria-current={on ? 'page' : undefined}
        sx={{
          display: 'flex',
          flexDirection: 'column',
          alignItems: 'center',
          minWidth: 66,
          minHeight: 54,
          pt: '3px',
          textDecoration: 'none',
          fontSize: '0.95rem',
          borderRadius: 1,
          color: on ? 'primary.main' : 'text.secondary',
          fontWeight: on ? 700 : 400,
          '&:focus-visible': { outline: '3px solid', outlineColor: 'live.fill' },
          '&:hover': { color: 'text.primary' },
        }}
      >
        <Box sx={{ height: 26, display: 'grid', placeItems: 'center' }}>
          {count > 0 ? (
            <Box
              component="span"
              sx={{
                minWidth: 24,
                height: 24,
                px: 0.75,
                borderRadius: 12,
                bgcolor: on ? 'primary.main' : 'live.tint',
                border: '2px solid',
                borderColor: on ? 'primary.main' : 'live.fill',
                color: on ? 'primary.contrastText' : 'text.primary',
                fontSize: '0.85rem',
                lineHeight: '20px',
                textAlign: 'center',
                fontWeight: 700,
              }}
            >
              {count}
              <Aloud> waiting at </Aloud>
            </Box>
          ) : (
            <Box
              component="span"
              sx={{
                width: 14,
                height: 14,
                borderRadius: '50%',
                bgcolor: on ? 'primary.main' : 'background.default',
                border: '2px solid',
                borderColor: on ? 'primary.main' : 'rule.strong',
                boxShadow: on ? theme => `0 0 0 5px ${theme.vars?.palette.aub.tint}` : 'none',
              }}
            />
          )}
        </Box>
        {stop.name}
      </Box>
    </Box>
  );
}

function AllStops({ waiting }: { waiting: Partial<Record<'cook' | 'check' | 'label', number>> }) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const navigate = useNavigate();
  return (
    <>
      <IconButton
        aria-label="All stops"
        aria-haspopup="menu"
        onClick={e => setAnchor(e.currentTarget)}
        sx={{ width: 44, height: 44, color: 'text.secondary' }}
      >
        <svg width="22" height="22" viewBox="0 0 22 22" aria-hidden="true">
          <path d="M11 2v18" stroke="currentColor" strokeWidth="1.800" />
          <g fill="currentColor">
            <circle cx="11" cy="4" r="2.600" />
            <circle cx="11" cy="11" r="2.600" />
            <circle cx="11" cy="18" r="2.600" />
          </g>
        </svg>
      </IconButton>
      <LaterMenu
        anchor={anchor}
        entries={STOPS.map(stop => ({
          words:
            stop.counts && waiting[stop.counts]
              ? say('stop.waiting', { stop: stop.name, n: waiting[stop.counts] ?? 0 })
              : stop.name,
          does: () => void navigate(stop.path),
        }))}
        onClose={() => setAnchor(null)}
      />
    </>
  );
}
