import type { Instrument } from '@cocotte/core/kitchen';
import { numberText } from '@cocotte/core/measure';
import { Box, Button } from '@mui/material';
import { useEffect, useState } from 'react';
import { useInstruments } from '../../kit/TakeReading.tsx';
import { Soft } from '../../kit/parts.tsx';
import { useHere } from '../../shell/session.tsx';
import { say } from '../../words/views.ts';

/** Seconds of a reading that are drawn, and over which it has to stand still. */
const DRAWN = 60;
const STILL = 8;
/** A meter has settled where it moved by no more than this. Our choice: twice the step it shows. */
const STILL_PH = 0.02;
/** Faster than this it drifts: a worn electrode, or a sample that still mixes. Our choice. */
const DRIFT_PH_PER_MIN = 0.03;

/** What a meter on a line shows, second by second: it settles, or it drifts; one tap takes what it shows as a single reading. */
export function LiveMeter({ onTake }: { onTake: (ph: number) => void }) {
  return useInstruments('ph meter').map(meter => <One key={meter.id} meter={meter} onTake={onTake} />);
}

function One({ meter, onTake }: { meter: Instrument; onTake: (ph: number) => void }) {
  const { kitchen } = useHere();
  const { value } = meter;
  const [trace, setTrace] = useState<readonly number[]>([]);
  // A reading each second, also where it shows the same again.
  useEffect(() => {
    if (value === null) return;
    const keep = () => setTrace(t => [...t.slice(1 - DRAWN), value]);
    keep();
    const timer = setInterval(keep, 1000);
    return () => clearInterval(timer);
  }, [value]);
  const last = trace.slice(-STILL);
  const spread = Math.max(...last) - Math.min(...last);
  const still = last.length >= STILL && spread <= STILL_PH;
  const first = trace.at(-20);
  const drift = first === undefined ? 0 : (((trace.at(-1) ?? first) - first) / 20) * 60;
  const state =
    value === null ? null : still ? 'settled' : Math.abs(drift) > DRIFT_PH_PER_MIN ? 'drifts' : 'settles';
  return (
    <Box
      role="group"
      aria-label={meter.name}
      sx={{
        gridColumn: '1 / -1',
        display: 'flex',
        flexWrap: 'wrap',
        gap: 2,
        alignItems: 'center',
        border: 1,
        borderColor: still ? 'leaf.main' : 'live.fill',
        bgcolor: still ? 'transparent' : 'live.tint',
        borderRadius: 1,
        p: 1.25,
      }}
    >
      <Box sx={{ minWidth: 150 }}>
        <Soft>{meter.name}</Soft>
        {value === null ? (
          <Box sx={{ color: 'ox.main' }}>
            {say(meter.state === 'rubbish' ? 'instrument.rubbish' : 'instrument.silent')}
          </Box>
        ) : (
          <Box sx={{ fontSize: '2.2rem', fontWeight: 700, lineHeight: 1.1 }}>
            {numberText(value, kitchen, 2)}
          </Box>
        )}
        {state && (
          <Box aria-live="polite" sx={{ fontWeight: 600, color: still ? 'leaf.main' : 'live.main' }}>
            {say(`meter.${state}`, { by: numberText(Math.abs(drift), kitchen, 2) })}
          </Box>
        )}
      </Box>
      <Trace trace={trace} />
      <Button
        variant={still ? 'contained' : 'outlined'}
        sx={{ minHeight: 56 }}
        disabled={value === null}
        onClick={() => value !== null && onTake(Math.round(value * 100) / 100)}
      >
        {say('meter.take')}
      </Button>
    </Box>
  );
}

/** The last minute of it, on a scale of its own: never less than a tenth high. */
function Trace({ trace }: { trace: readonly number[] }) {
  if (trace.length < 2) return <Box sx={{ flex: 1 }} />;
  const [low, high] = [Math.min(...trace), Math.max(...trace)];
  const middle = (low + high) / 2;
  const half = Math.max(0.05, (high - low) / 2);
  const points = trace
    .map((v, i) => `${(i / (DRAWN - 1)) * 100},${(20 - ((v - middle) / half) * 18).toFixed(1)}`)
    .join(' ');
  return (
    <Box sx={{ flex: '1 1 140px', height: 56 }}>
      <svg viewBox="0 0 100 40" preserveAspectRatio="none" width="100%" height="100%" aria-hidden="true">
        <line
          x1="0"
          x2="100"
          y1="20"
          y2="20"
          stroke="var(--mui-palette-rule-main)"
          strokeWidth="1"
          vectorEffect="non-scaling-stroke"
        />
        <polyline
          points={points}
          fill="none"
          stroke="var(--mui-palette-primary-main)"
          strokeWidth="2"
          vectorEffect="non-scaling-stroke"
        />
      </svg>
    </Box>
  );
}
