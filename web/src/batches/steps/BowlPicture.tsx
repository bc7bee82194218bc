import { Box } from '@mui/material';

const INK = 'var(--mui-palette-text-secondary)';

/** A bowl on its scale: the fuller the nearer it is to what is wanted; over it, it heaps. What it weighs stands on the scale. */
export function BowlPicture({
  share,
  shows,
  label,
}: {
  /** Of what is wanted; 1 is right. */
  share: number;
  /** What the scale shows. */
  shows: string;
  label: string;
}) {
  const full = Math.min(1, Math.max(0, share));
  // The surface of a bowl widens as it rises.
  const y = 104 - full * 74;
  const half = 46 + full * 54;
  const heap = share > 1 ? Math.min(24, (share - 1) * 90) : 0;
  return (
    <Box
      component="svg"
      viewBox="0 0 240 190"
      role="img"
      aria-label={label}
      sx={{ width: '100%', maxWidth: 240, display: 'block' }}
    >
      {full > 0 && (
        <path
          d={`M${120 - half} ${y}Q120 ${y - heap * 2} ${120 + half} ${y}Q${112 + half} 112 150 112H90Q${128 - half} 112 ${120 - half} ${y}Z`}
          fill="var(--mui-palette-fruit-main)"
        />
      )}
      <path d="M16 30Q20 114 88 114H152Q220 114 224 30" fill="none" stroke={INK} strokeWidth={4} />
      <path d="M12 30H30M210 30H228" stroke={INK} strokeWidth={6} strokeLinecap="round" />
      <path d="M64 124H176" stroke={INK} strokeWidth={6} strokeLinecap="round" />
      <path
        d="M60 180L70 128H170L180 180Z"
        fill="var(--mui-palette-background-paper)"
        stroke={INK}
        strokeWidth={3}
        strokeLinejoin="round"
      />
      <text
        x={120}
        y={164}
        textAnchor="middle"
        fontSize={24}
        fontWeight={700}
        fill="var(--mui-palette-text-primary)"
      >
        {shows}
      </text>
    </Box>
  );
}
