import type { PotLevels } from '@cocotte/core/batches';
import { depthText, type Habits, MM_PER_INCH } from '@cocotte/core/measure';
import { Box } from '@mui/material';
import { say } from '../../words/views.ts';

const LEFT = 30;
const RIGHT = 270;
const TOP = 46;
const BOTTOM = 232;
const INK = 'var(--mui-palette-text-secondary)';
const TEXT = 'var(--mui-palette-text-primary)';
/** Levels this near to one another share a word: two would lie over each other. */
const NEAR = 20;

/** A depth as a stick shows it: by eighths of an inch, or by millimetres. */
const onTheStick_mm = (mm: number, { measures }: Pick<Habits, 'measures'>) => {
  const step_mm = measures === 'US' ? MM_PER_INCH / 8 : 1;
  return Math.round(mm / step_mm) * step_mm;
};

/** A pot from the side: where it began, where it stands now, and where it is done, to scale between bottom and rim. */
export function PotPicture({
  levels,
  boiling,
  habits,
}: {
  levels: PotLevels;
  /** It is on the fire. */
  boiling: boolean;
  habits: Pick<Habits, 'locale' | 'measures'>;
}) {
  // A pot that is nearly empty is drawn as if it were half as high: its levels stay apart.
  const top_mm = Math.min(levels.rim_mm, Math.max(levels.began_mm * 1.5, 1));
  const y = (mm: number) => BOTTOM - (Math.min(top_mm, Math.max(0, mm)) / top_mm) * (BOTTOM - TOP);
  const now = y(levels.now_mm);
  const began = y(levels.began_mm);
  const done = levels.done_mm === null ? null : y(levels.done_mm);
  const wave = boiling ? 7 : 0;
  const read = (mm: number) => depthText(onTheStick_mm(mm, habits), habits);
  return (
    <Box
      component="svg"
      viewBox="0 0 300 280"
      role="img"
      aria-label={say(levels.done_mm === null ? 'pot.pictureByEye' : 'pot.picture', {
        began: read(levels.began_mm),
        now: read(levels.now_mm),
        done: levels.done_mm === null ? '' : read(levels.done_mm),
      })}
      sx={{ width: '100%', maxWidth: 300, display: 'block', '& text': { fontSize: 15 } }}
    >
      <path
        d={`M${LEFT} ${TOP - 14}H${RIGHT}V${BOTTOM - 22}Q${RIGHT} ${BOTTOM + 4} ${RIGHT - 26} ${BOTTOM + 4}H${LEFT + 26}Q${LEFT} ${BOTTOM + 4} ${LEFT} ${BOTTOM - 22}Z`}
        fill="var(--mui-palette-background-paper)"
        stroke={INK}
        strokeWidth={4}
      />
      <path
        d={`M${LEFT + 4} ${now}q29 ${-wave} 58 0t58 0t58 0t58 0V${BOTTOM - 24}Q${RIGHT - 4} ${BOTTOM} ${RIGHT - 28} ${BOTTOM}H${LEFT + 28}Q${LEFT + 4} ${BOTTOM} ${LEFT + 4} ${BOTTOM - 24}Z`}
        fill="var(--mui-palette-fruit-main)"
      />
      <path d="M12 62H28M272 62H288" stroke={INK} strokeWidth={9} strokeLinecap="round" />
      {now - began > 3 && (
        <>
          <path d={`M${LEFT + 4} ${began}H${RIGHT - 4}`} stroke={INK} strokeWidth={2} strokeDasharray="4 6" />
          <text x={RIGHT - 10} y={began - 6} textAnchor="end" fill={INK}>
            {say('pot.began', { depth: read(levels.began_mm) })}
          </text>
        </>
      )}
      {done !== null && (
        <>
          <path d={`M20 ${done}H280`} stroke="var(--mui-palette-live-main)" strokeWidth={4} />
          <text
            x={RIGHT - 10}
            y={Math.abs(done - now) < NEAR && done < now ? done - 6 : done + 18}
            textAnchor="end"
            fill={done >= now - 2 ? 'var(--mui-palette-common-black)' : TEXT}
            fontWeight={700}
          >
            {say('pot.done', { depth: read(levels.done_mm ?? 0) })}
          </text>
        </>
      )}
      {boiling && (
        <path
          d="M56 256q8 -12 16 0t16 0t16 0M132 256q8 -12 16 0t16 0t16 0M208 256q8 -12 16 0t16 0t16 0"
          fill="none"
          stroke="var(--mui-palette-live-fill)"
          strokeWidth={4}
        />
      )}
    </Box>
  );
}
