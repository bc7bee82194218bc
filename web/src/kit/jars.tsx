import type { JarForm } from '@cocotte/core/checks';
import { type Holds, type JarSizeId, jarSize, rack_mm, type Standing, standOnRack } from '@cocotte/core/jars';
import { Box, ButtonBase } from '@mui/material';

/** Height of each size on the shelf, in units of the drawing. */
const HEIGHT: Record<JarSizeId, number> = {
  'quarter-pint': 38,
  'half-pint': 50,
  'three-quarter-pint': 58,
  pint: 64,
  'pint-and-a-half': 76,
  quart: 84,
  'half-gallon': 104,
};
const WIDTH: Record<JarSizeId, number> = {
  'quarter-pint': 32,
  'half-pint': 38,
  'three-quarter-pint': 38,
  pint: 42,
  'pint-and-a-half': 44,
  quart: 50,
  'half-gallon': 60,
};

const WORDS: Record<JarForm, string> = {
  empty: 'empty',
  filled: 'filled',
  'in the canner': 'in the canner',
  cooling: 'cooling',
  sealed: 'sealed',
  failed: 'seal failed',
  held: 'held',
  released: 'released',
  'set aside': 'set aside',
};

/** A jar drawn as a jar. Each state has a form of its own: lid, level and sign, never colour alone. */
export function JarGlyph({
  form,
  size = 'pint',
  scale = 1,
  label,
}: {
  form: JarForm;
  size?: JarSizeId;
  scale?: number;
  label?: string;
}) {
  const w = WIDTH[size];
  const h = HEIGHT[size];
  const lid = form !== 'empty';
  const full = form !== 'empty' && form !== 'set aside';
  const fill =
    form === 'failed' || form === 'held'
      ? 'var(--mui-palette-ox-tint)'
      : form === 'released'
        ? 'var(--mui-palette-leaf-main)'
        : 'var(--mui-palette-fruit-main)';
  const ink = form === 'set aside' ? 'var(--mui-palette-rule-strong)' : 'var(--mui-palette-text-secondary)';
  const mid = h * 0.6;
  return (
    <svg
      width={w * scale}
      height={h * scale}
      viewBox={`0 0 ${w} ${h}`}
      role="img"
      aria-label={label ?? WORDS[form]}
    >
      {lid && (
        <rect
          x="4"
          y="0.500"
          width={w - 8}
          height="6.500"
          rx="1.500"
          fill={form === 'failed' ? 'none' : ink}
          stroke={ink}
          strokeWidth="1.200"
        />
      )}
      <path
        d={`M5 8h${w - 10}q4 3 4 8v${h - 24}q0 6-6 6H7q-6 0-6-6V16q0-5 4-8z`}
        fill="none"
        stroke={ink}
        strokeWidth="1.600"
        strokeDasharray={form === 'set aside' || form === 'empty' ? '3 3' : undefined}
      />
      {full && (
        <path
          d={`M3.500 18h${w - 7}v${h - 26}q0 4.500-4.500 4.500H8q-4.500 0-4.500-4.500z`}
          fill={fill}
          stroke={form === 'failed' || form === 'held' ? 'var(--mui-palette-ox-main)' : 'none'}
        />
      )}
      {form === 'in the canner' && (
        <path
          d={`M6 ${mid}q4-5 8 0t8 0 8 0`}
          fill="none"
          stroke="var(--mui-palette-background-paper)"
          strokeWidth="2"
        />
      )}
      {form === 'cooling' && (
        <circle
          cx={w / 2}
          cy={mid}
          r="6"
          fill="none"
          stroke="var(--mui-palette-background-paper)"
          strokeWidth="2"
          strokeDasharray="3 2.500"
        />
      )}
      {form === 'sealed' && (
        <path
          d={`M${w / 2 - 7} ${mid + 4}h14`}
          stroke="var(--mui-palette-background-paper)"
          strokeWidth="2.600"
          strokeLinecap="round"
        />
      )}
      {form === 'released' && (
        <path
          d={`M${w / 2 - 7} ${mid}l5 5 9-11`}
          fill="none"
          stroke="var(--mui-palette-background-paper)"
          strokeWidth="2.600"
          strokeLinecap="round"
          strokeLinejoin="round"
        />
      )}
      {form === 'failed' && (
        <path
          d={`M${w / 2 - 6} ${mid - 6}l12 12m0-12l-12 12`}
          stroke="var(--mui-palette-ox-main)"
          strokeWidth="2.400"
          strokeLinecap="round"
        />
      )}
      {form === 'held' && (
        <path
          d={`M${w / 2 - 3.5} ${mid - 6}v12m7-12v12`}
          stroke="var(--mui-palette-ox-main)"
          strokeWidth="2.600"
          strokeLinecap="round"
        />
      )}
    </svg>
  );
}

export interface ShelfJar {
  number: number;
  size: JarSizeId;
  form: JarForm;
}

/** A batch's jars as a shelf one can count. With `onPress`, each is a button that marks or unmarks itself. */
export function JarShelf({
  jars,
  marked,
  onPress,
  markWord = 'marked',
}: {
  jars: ShelfJar[];
  marked?: ReadonlySet<number>;
  onPress?: (n: number) => void;
  markWord?: string;
}) {
  return (
    <Box
      component="ul"
      aria-label="Jars"
      sx={{
        listStyle: 'none',
        p: 0,
        m: 0,
        display: 'flex',
        flexWrap: 'wrap',
        alignItems: 'flex-end',
        rowGap: 1.5,
      }}
    >
      {jars.map(j => {
        const isMarked = marked?.has(j.number) ?? false;
        const words = `Jar ${j.number}, ${jarSize(j.size).name}, ${WORDS[j.form]}`;
        const body = (
          <>
            <JarGlyph form={isMarked ? 'failed' : j.form} size={j.size} label={words} />
            <Box
              component="span"
              aria-hidden="true"
              sx={{
                fontSize: '0.85rem',
                color: isMarked ? 'ox.main' : 'text.secondary',
                fontWeight: isMarked ? 700 : 500,
              }}
            >
              {j.number}
            </Box>
          </>
        );
        const stack = {
          display: 'flex',
          flexDirection: 'column',
          alignItems: 'center',
          justifyContent: 'flex-end',
          borderBottom: '3px solid',
          borderColor: 'rule.strong',
          minWidth: 46,
          px: 0.6,
        } as const;
        return (
          <Box component="li" key={j.number}>
            {onPress ? (
              <ButtonBase
                aria-pressed={isMarked}
                aria-label={`Jar ${j.number}, ${isMarked ? markWord : WORDS[j.form]}`}
                onClick={() => onPress(j.number)}
                sx={{ ...stack, minHeight: 84, minWidth: 56, borderRadius: 1 }}
              >
                {body}
              </ButtonBase>
            ) : (
              <Box sx={stack}>{body}</Box>
            )}
          </Box>
        );
      })}
    </Box>
  );
}

/** Half the side of the drawing of a canner, and the radius of its rim in it. */
const HALF = 135;
const RIM = 126;

/**
 * A canner seen from above, to scale: its jars in place with their numbers, places that stay free as broken rings, and the
 * share of its time around the rim.
 */
export function CannerGlyph({
  jars,
  holds,
  free = [],
  share = null,
  width = 230,
}: {
  jars: readonly { number: number; size: JarSizeId }[];
  /** What stands in it at once. */
  holds: Holds;
  /** Sizes of the places that stay free, for jars of water. */
  free?: readonly JarSizeId[];
  share?: number | null;
  width?: number;
}) {
  const sizes = [...jars.map(j => j.size), ...free];
  // A rack is at least as wide as what stands in it: what was packed is drawn, also where it is too much.
  const across_mm = Math.max(rack_mm(holds), ...sizes.map(s => jarSize(s).diameter_mm));
  const places = standOnRack(across_mm, sizes);
  const scale = (RIM - 10) / (across_mm / 2);
  const at = (i: number) => {
    const p = places[i] as Standing;
    return { x: HALF + p.x_mm * scale, y: HALF + p.y_mm * scale, r: p.r_mm * scale - 1 };
  };
  const angle = Math.min(0.9999, Math.max(0, share ?? 0)) * 2 * Math.PI;
  const end = { x: HALF + RIM * Math.sin(angle), y: HALF - RIM * Math.cos(angle) };
  return (
    <svg
      viewBox="0 0 270 270"
      role="img"
      aria-label={`Canner with ${jars.length} jars`}
      style={{ width: '100%', maxWidth: width, height: 'auto' }}
    >
      <circle
        cx="135"
        cy="135"
        r={RIM}
        fill="var(--mui-palette-background-paper)"
        stroke="var(--mui-palette-rule-strong)"
        strokeWidth="4"
      />
      {share !== null && share > 0 && (
        <path
          d={`M135 9A126 126 0 ${angle > Math.PI ? 1 : 0} 1 ${end.x.toFixed(2)} ${end.y.toFixed(2)}`}
          fill="none"
          stroke="var(--mui-palette-live-fill)"
          strokeWidth="10"
        />
      )}
      {free.map((_, i) => {
        const p = at(jars.length + i);
        return (
          <circle
            key={`free ${i}`}
            cx={p.x}
            cy={p.y}
            r={p.r}
            fill="none"
            stroke="var(--mui-palette-rule-strong)"
            strokeWidth="2"
            strokeDasharray="5 5"
          />
        );
      })}
      {jars.map(({ number: n }, i) => {
        const p = at(i);
        const { r } = p;
        return (
          <g key={n}>
            <circle
              cx={p.x}
              cy={p.y}
              r={r}
              fill="var(--mui-palette-background-default)"
              stroke="var(--mui-palette-text-secondary)"
              strokeWidth="2"
            />
            <circle cx={p.x} cy={p.y} r={r * 0.78} fill="var(--mui-palette-fruit-main)" />
            <text
              x={p.x}
              y={p.y}
              textAnchor="middle"
              dominantBaseline="central"
              fontSize={r * 0.62}
              fontWeight="700"
              fill="#2A211D"
            >
              {n}
            </text>
          </g>
        );
      })}
    </svg>
  );
}
