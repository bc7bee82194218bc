import { clockText, countdownText } from '@cocotte/core/measure';
import { Box, Button } from '@mui/material';
import { visuallyHidden } from '@mui/utils';
import { lazy, type ReactNode, Suspense, useEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import { callOut, chimeIn, useBell, useNotices } from './bell.ts';
import { kitchenNow, useNow, useUnsureClock } from './clock.ts';
import { type RailTile, useRail } from './rail.ts';
import type { OwnTimer } from './timers.ts';
import { useHere } from './session.tsx';
import { useWakeLock } from './wake-lock.ts';
import { say } from '../words/index.ts';

const TimerDialog = lazy(async () => ({ default: (await import('./TimerDialog.tsx')).TimerDialog }));

/** The stove rail: one tile for each canner or wait, on every view, only while something runs. */
export function StoveRail() {
  const tiles = useRail(useHere().kitchen.id);
  const [changing, setChanging] = useState<OwnTimer | null>(null);
  const now = useNow();
  const silent = useBell();
  const unsure = useUnsureClock();
  const notices = useNotices();
  const atTheStove = tiles.some(t => t.kind !== 'wait');
  const staysOn = useWakeLock(atTheStove);
  const called = useRef(new Set<string>());
  const [spoken, setSpoken] = useState('');
  // The chimes are handed over ahead of their time, again whenever a time moves or the page may sound at last.
  const times = tiles.map(t => `${keyOf(t)} ${Math.round(t.until_ms / 1000)}`).join('\n');
  useEffect(() => {
    if (silent) return undefined;
    const takeBack = times
      .split('\n')
      .filter(Boolean)
      .map(t => chimeIn(Number(t.slice(t.lastIndexOf(' '))) - kitchenNow() / 1000));
    return () => {
      for (const back of takeBack) back();
    };
  }, [times, silent]);
  useEffect(() => {
    for (const tile of tiles) {
      const key = keyOf(tile);
      if (tile.until_ms > now || called.current.has(key)) continue;
      called.current.add(key);
      const words = say('rail.time', { what: tile.title });
      setSpoken(words);
      // A clock that ended long before this page was opened is shown, not called.
      if (now - tile.until_ms < 20_000) callOut(words);
    }
  }, [tiles, now]);
  if (tiles.length === 0) return null;
  return (
    <Box
      component="aside"
      aria-label="Stove rail"
      className="no-print"
      sx={{
        position: 'sticky',
        bottom: 0,
        zIndex: 20,
        mt: 'auto',
        borderTop: 1,
        borderColor: 'rule.strong',
        bgcolor: 'rule.strong',
      }}
    >
      <Box aria-live="assertive" sx={visuallyHidden}>
        {spoken}
      </Box>
      {unsure && <Line>{say('rail.unsure')}</Line>}
      {silent && atTheStove && <Line>{say('rail.silent')}</Line>}
      {!silent && !staysOn && <Line>{say('rail.dark')}</Line>}
      {!silent && atTheStove && notices.toAsk && (
        <Line>
          <Button size="small" onClick={notices.ask}>
            {say('rail.allow')}
          </Button>
        </Line>
      )}
      <Box
        component="ul"
        sx={{ listStyle: 'none', m: 0, p: 0, display: 'flex', gap: '1px', overflowX: 'auto' }}
      >
        {tiles.slice(0, 6).map(tile => (
          <Tile
            key={`${tile.batchId} ${tile.kind} ${tile.id}`}
            tile={tile}
            now={now}
            onChange={setChanging}
          />
        ))}
      </Box>
      <Suspense>{changing && <TimerDialog timer={changing} onClose={() => setChanging(null)} />}</Suspense>
    </Box>
  );
}

const keyOf = (tile: RailTile) => `${tile.batchId} ${tile.kind} ${tile.id} ${tile.since_ms}`;

/** A line above the tiles. */
function Line({ children }: { children: ReactNode }) {
  return <Box sx={{ bgcolor: 'live.tint', px: 2, py: 0.5, fontSize: '0.92rem' }}>{children}</Box>;
}

function Tile({ tile, now, onChange }: { tile: RailTile; now: number; onChange: (timer: OwnTimer) => void }) {
  const { kitchen } = useHere();
  const left_s = (tile.until_ms - now) / 1000;
  const over = left_s <= 0;
  const words =
    tile.kind === 'timer'
      ? say('rail.until', { time: clockText(tile.until_ms, kitchen) })
      : tile.kind === 'wait'
        ? say('rail.wait', {
            from: clockText(tile.until_ms, kitchen),
            to: clockText(tile.latest_ms ?? tile.until_ms, kitchen),
          })
        : over
          ? tile.kind === 'load'
            ? say('rail.over', { time: clockText(tile.until_ms, kitchen) })
            : say('rail.lift.now')
          : say(tile.kind === 'load' ? 'rail.heatOff' : 'rail.lift', {
              time: clockText(tile.until_ms, kitchen),
            });
  return (
    <Box component="li" sx={{ flex: '1 0 290px', minWidth: 0, display: 'flex' }}>
      <Box
        {...(tile.kind === 'timer'
          ? { component: 'button', type: 'button', onClick: () => onChange(tile.timer) }
          : { component: Link, to: `/cook/${tile.batchId}` })}
        sx={{
          flex: 1,
          minWidth: 0,
          display: 'flex',
          alignItems: 'center',
          gap: 1.75,
          minHeight: 68,
          px: 2.5,
          py: 1,
          color: 'text.primary',
          textDecoration: 'none',
          textAlign: 'left',
          font: 'inherit',
          border: 0,
          bgcolor: tile.kind === 'load' ? 'live.tint' : 'background.paper',
          boxShadow: tile.kind === 'load' ? t => `inset 0 4px 0 ${t.vars?.palette.live.fill}` : 'none',
          '&:focus-visible': { outline: '3px solid', outlineColor: 'live.fill', outlineOffset: -3 },
        }}
      >
        <Box
          component="span"
          role="timer"
          aria-label={tile.detail ? `${tile.title}, ${tile.detail}` : tile.title}
          sx={{
            fontSize: '1.7rem',
            fontWeight: 700,
            letterSpacing: '-0.01em',
            whiteSpace: 'nowrap',
            color: over ? 'live.main' : 'text.primary',
          }}
        >
          {over
            ? tile.kind === 'wait'
              ? say('rail.ready')
              : `+${countdownText(-left_s)}`
            : countdownText(left_s)}
        </Box>
        <Box sx={{ minWidth: 0, lineHeight: 1.25 }}>
          <Box sx={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap', maxWidth: 300 }}>
            {tile.title}
          </Box>
          <Box
            sx={{
              color: 'text.secondary',
              fontSize: '0.92rem',
              overflow: 'hidden',
              textOverflow: 'ellipsis',
              whiteSpace: 'nowrap',
            }}
          >
            {words}
            {tile.detail && ` · ${tile.detail}`}
          </Box>
        </Box>
      </Box>
    </Box>
  );
}
