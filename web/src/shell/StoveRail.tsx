import { clockText, countdownText } from '@cocotte/core/measure';
import { Box } from '@mui/material';
import { useEffect, useRef } from 'react';
import { Link } from 'react-router';
import { ring, useBell } from './bell.ts';
import { useNow } from './clock.ts';
import { type RailTile, useRail } from './rail.ts';
import { useHere } from './session.tsx';
import { say } from '../words/index.ts';

/** The stove rail: one tile for each canner or wait, on every view, only while something runs. */
export function StoveRail() {
  const tiles = useRail();
  const now = useNow();
  const silent = useBell();
  const rung = useRef(new Set<string>());
  useEffect(() => {
    for (const tile of tiles) {
      const key = `${tile.kind} ${tile.id} ${tile.since_ms}`;
      if (tile.until_ms > now || rung.current.has(key)) continue;
      rung.current.add(key);
      // A clock that ended long before this page was opened is shown, not rung.
      if (now - tile.until_ms < 20_000) ring(`${tile.title}: time`);
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
      {silent && tiles.some(t => t.kind !== 'wait') && (
        <Box sx={{ bgcolor: 'live.tint', px: 2, py: 0.5, fontSize: '0.92rem' }}>{say('rail.silent')}</Box>
      )}
      <Box
        component="ul"
        sx={{ listStyle: 'none', m: 0, p: 0, display: 'flex', gap: '1px', overflowX: 'auto' }}
      >
        {tiles.slice(0, 6).map(tile => (
          <Tile key={`${tile.batchId} ${tile.kind} ${tile.id}`} tile={tile} now={now} />
        ))}
      </Box>
    </Box>
  );
}

function Tile({ tile, now }: { tile: RailTile; now: number }) {
  const { kitchen } = useHere();
  const left_s = (tile.until_ms - now) / 1000;
  const over = left_s <= 0;
  const words =
    tile.kind === 'wait'
      ? say('rail.wait', {
          from: clockText(tile.until_ms, kitchen),
          to: clockText(tile.latest_ms ?? tile.until_ms, kitchen),
        })
      : over
        ? tile.kind === 'load'
          ? say('rail.over')
          : say('rail.lift.now')
        : say(tile.kind === 'load' ? 'rail.heatOff' : 'rail.lift', {
            time: clockText(tile.until_ms, kitchen),
          });
  return (
    <Box component="li" sx={{ flex: '1 0 290px', minWidth: 0, display: 'flex' }}>
      <Box
        component={Link}
        to={`/cook/${tile.batchId}`}
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
          bgcolor: tile.kind === 'load' ? 'live.tint' : 'background.paper',
          boxShadow: tile.kind === 'load' ? t => `inset 0 4px 0 ${t.vars?.palette.live.fill}` : 'none',
          '&:focus-visible': { outline: '3px solid', outlineColor: 'live.fill', outlineOffset: -3 },
        }}
      >
        <Box
          component="span"
          role="timer"
          aria-label={`${tile.title}, ${tile.detail}`}
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
            {words} · {tile.detail}
          </Box>
        </Box>
      </Box>
    </Box>
  );
}
