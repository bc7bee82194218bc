import type { Step } from '@cocotte/core/recipes';
import { Box } from '@mui/material';

const INK = 'var(--mui-palette-text-secondary)';
const FRUIT = 'var(--mui-palette-fruit-main)';

/** What waits is drawn as what it is: a bag that drips, a bowl of what soaks. Nothing for other steps. */
export function StepPicture({ step, runs }: { step: Step; runs: boolean }) {
  if (step.kind !== 'strain' && step.kind !== 'soak') return null;
  return (
    <Box
      component="svg"
      viewBox="0 0 160 170"
      aria-hidden="true"
      sx={{
        width: 120,
        float: 'right',
        ml: 2,
        '& .drop': { animation: runs ? 'drip 1.6s ease-in infinite' : 'none' },
        '@keyframes drip': {
          from: { transform: 'translateY(0)', opacity: 1 },
          to: { transform: 'translateY(34px)', opacity: 0.2 },
        },
        '@media (prefers-reduced-motion: reduce)': { '& .drop': { animation: 'none' } },
      }}
    >
      {step.kind === 'strain' ? (
        <>
          <path d="M30 8H130" stroke={INK} strokeWidth={5} strokeLinecap="round" />
          <path d="M44 8L80 92L116 8" fill={FRUIT} fillOpacity={0.35} stroke={INK} strokeWidth={3} />
          <path d="M56 36L80 92L104 36Q80 48 56 36Z" fill={FRUIT} />
          <path className="drop" d="M80 98q-5 8 0 10q5 -2 0 -10" fill={FRUIT} />
          <path d="M40 140H120Q118 158 104 160H56Q42 158 40 140Z" fill={FRUIT} />
          <path d="M34 124Q36 162 60 162H100Q124 162 126 124" fill="none" stroke={INK} strokeWidth={4} />
        </>
      ) : (
        <>
          <path d="M26 74H134Q130 148 104 150H56Q30 148 26 74Z" fill={FRUIT} fillOpacity={0.3} />
          {[48, 72, 96, 60, 86, 108].map((x, i) => (
            <circle key={x} cx={x} cy={i < 3 ? 96 : 122} r={9} fill={FRUIT} />
          ))}
          <path d="M20 56Q24 154 60 154H100Q136 154 140 56" fill="none" stroke={INK} strokeWidth={4} />
          <path d="M26 74q13 -7 27 0t27 0t27 0t27 0" fill="none" stroke={INK} strokeWidth={2} />
        </>
      )}
    </Box>
  );
}
