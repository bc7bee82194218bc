import { clockText, countdownText, dayOf, instantText } from '@cocotte/core/measure';
import type { Step } from '@cocotte/core/recipes';
import { Box } from '@mui/material';
import { useNow } from '../shell/clock.ts';
import { useHere } from '../shell/session.tsx';
import { say } from '../words/views.ts';

/** A wait as a band: too early, its window, too late; with now on it. */
export function WaitBand({ step, begun_ms }: { step: Step; begun_ms: number }) {
  const { kitchen } = useHere();
  const now_ms = useNow();
  if (!step.window) return null;
  const from_ms = begun_ms + step.window.from_min * 60_000;
  const to_ms = begun_ms + step.window.to_min * 60_000;
  const end_ms = Math.max(to_ms, now_ms) + (to_ms - begun_ms) * 0.12;
  const at = (ms: number) =>
    `${(Math.min(1, Math.max(0, (ms - begun_ms) / (end_ms - begun_ms))) * 100).toFixed(2)}%`;
  const today = dayOf(now_ms, kitchen.zone);
  const read = (ms: number) =>
    dayOf(ms, kitchen.zone) === today ? clockText(ms, kitchen) : instantText(ms, kitchen);
  const words =
    now_ms < from_ms
      ? say('wait.early', { left: countdownText((from_ms - now_ms) / 1000), from: read(from_ms) })
      : now_ms <= to_ms
        ? say('wait.open', { left: countdownText((to_ms - now_ms) / 1000), to: read(to_ms) })
        : say('wait.over', { to: read(to_ms) });
  const over = now_ms > to_ms;
  return (
    <Box sx={{ my: 2 }}>
      <Box sx={{ fontSize: '1.5rem', fontWeight: 700, color: over ? 'ox.main' : 'text.primary', mb: 1 }}>
        {words}
      </Box>
      <Box
        aria-hidden="true"
        sx={{
          position: 'relative',
          height: 34,
          borderRadius: 1,
          overflow: 'hidden',
          border: 1,
          borderColor: 'rule.strong',
          bgcolor: 'background.default',
        }}
      >
        <Box
          sx={{
            position: 'absolute',
            inset: 0,
            left: at(from_ms),
            width: `calc(${at(to_ms)} - ${at(from_ms)})`,
            bgcolor: 'leaf.tint',
            borderLeft: 3,
            borderRight: 3,
            borderColor: 'leaf.main',
          }}
        />
        <Box
          sx={{
            position: 'absolute',
            top: 0,
            bottom: 0,
            left: at(now_ms),
            width: 6,
            ml: '-3px',
            bgcolor: over ? 'ox.main' : 'live.fill',
          }}
        />
      </Box>
      <Box sx={{ display: 'flex', justifyContent: 'space-between', color: 'text.secondary', mt: 0.5 }}>
        <span>{say('wait.from', { from: read(from_ms) })}</span>
        <span>{say('wait.to', { to: read(to_ms) })}</span>
      </Box>
    </Box>
  );
}
