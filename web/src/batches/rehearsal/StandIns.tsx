import { depthText, temperatureText } from '@cocotte/core/measure';
import { Box, Button } from '@mui/material';
import type { ReactNode } from 'react';
import { Toggle } from '../../kit/controls.tsx';
import { Soft } from '../../kit/parts.tsx';
import { useHere } from '../../shell/session.tsx';
import { say } from '../../words/views.ts';
import type { Rehearsal } from './rehearsal.ts';

const FIRES = [
  ['0', 'dry.fire.off'],
  ['0.3', 'dry.fire.low'],
  ['0.6', 'dry.fire.half'],
  ['1', 'dry.fire.full'],
] as const;
/** What one tap lays on the scale. */
const HANDS_G = [500, 50, 5] as const;
const INK = 'var(--mui-palette-text-secondary)';

/** The kitchen that is played: what a person would see and do with their hands, beside the counter. */
export function StandIns({ rehearsal }: { rehearsal: Rehearsal }) {
  const { kitchen } = useHere();
  const seen = rehearsal.dry.see();
  const doing = (words: string, act: () => void) => (
    <Button key={words} variant="outlined" size="small" sx={{ minHeight: 44, px: 1.25 }} onClick={act}>
      {words}
    </Button>
  );
  return (
    <Box
      component="section"
      aria-label={say('dry.standIns')}
      sx={{
        display: 'grid',
        gap: 2,
        gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr 1fr' },
        bgcolor: 'background.paper',
        border: 1,
        borderColor: 'live.fill',
        borderRadius: 1,
        p: 1.5,
        mb: 2,
      }}
    >
      <Place
        name={say('dry.pot')}
        picture={<Vessel fire={seen.potFlame} boils={seen.potBoils} level={0.55} jars={false} />}
        shows={say(seen.potBoils ? 'dry.boils' : seen.potFlame > 0 ? 'dry.warms' : 'dry.stands')}
      >
        <Fire
          label={say('dry.fire.pot')}
          share={seen.potFlame}
          onFire={share => rehearsal.do(d => d.fire(share))}
        />
        {doing(say('dry.stir'), () => rehearsal.do(d => d.liftProbe()))}
        {seen.rubbish && (
          <>
            <Soft>{say('dry.dial', { temp: temperatureText(Math.round(seen.pot_C * 2) / 2, kitchen) })}</Soft>
            {doing(say('dry.plug'), () => rehearsal.do(d => d.plug()))}
          </>
        )}
      </Place>
      <Place
        name={say('dry.canner')}
        picture={
          <Vessel
            fire={seen.cannerFlame}
            boils={seen.cannerBoils}
            level={seen.cover_mm > 0 ? 0.85 : 0.5}
            jars={seen.loaded}
          />
        }
        shows={`${say(seen.cannerBoils ? 'dry.fullBoil' : seen.cannerFlame > 0 ? 'dry.noBoil' : 'dry.out')} · ${
          seen.cover_mm > 0 ? say('dry.cover', { depth: depthText(seen.cover_mm, kitchen) }) : say('dry.bare')
        }`}
      >
        <Fire
          label={say('dry.fire.canner')}
          share={seen.cannerFlame}
          onFire={share => rehearsal.do(d => d.cannerFire(share))}
        />
        {doing(say('dry.pour'), () => rehearsal.do(d => d.pour()))}
      </Place>
      <Place
        name={say('dry.scale')}
        picture={<Bowl grams={seen.weighs_g} />}
        shows={say('dry.lies', { g: seen.weighs_g })}
      >
        {HANDS_G.map(g => doing(say('dry.lay', { g }), () => rehearsal.do(d => d.weigh(g))))}
        {doing(say('dry.empty'), () => rehearsal.do(d => d.weigh(0)))}
        {doing(say('dry.zero'), () => rehearsal.do(d => d.zero()))}
      </Place>
    </Box>
  );
}

function Place({
  name,
  picture,
  shows,
  children,
}: {
  name: string;
  picture: ReactNode;
  shows: string;
  children: ReactNode;
}) {
  return (
    <Box role="group" aria-label={name}>
      <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'center' }}>
        {picture}
        <Box>
          <strong>{name}</strong>
          <Box sx={{ color: 'text.secondary' }}>{shows}</Box>
        </Box>
      </Box>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 1, alignItems: 'center' }}>{children}</Box>
    </Box>
  );
}

function Fire({ label, share, onFire }: { label: string; share: number; onFire: (share: number) => void }) {
  return (
    <Toggle
      label={label}
      value={String(share)}
      of={FIRES.map(([value, words]) => [value, say(words)] as const)}
      onPick={value => onFire(Number(value))}
      small
    />
  );
}

/** A vessel on its flame: level, bubbles, and jars where it is the canner. */
function Vessel({
  fire,
  boils,
  level,
  jars,
}: {
  fire: number;
  boils: boolean;
  level: number;
  jars: boolean;
}) {
  const top = 54 - level * 40;
  return (
    <Box component="svg" viewBox="0 0 80 84" aria-hidden="true" sx={{ width: 56, flex: 'none' }}>
      <path d={`M12 ${top}H68V52H12Z`} fill="var(--mui-palette-fruit-main)" opacity={jars ? 0.35 : 0.9} />
      {jars &&
        [18, 34, 50].map(x => (
          <rect
            key={x}
            x={x}
            y={22}
            width={12}
            height={29}
            rx={2}
            fill="var(--mui-palette-background-paper)"
            stroke={INK}
            strokeWidth={1.5}
          />
        ))}
      {boils &&
        [20, 34, 48, 60].map((x, i) => (
          <circle
            key={x}
            cx={x}
            cy={top + 6 + (i % 2) * 8}
            r={3.5}
            fill="var(--mui-palette-background-paper)"
          />
        ))}
      <path d="M10 10V48Q10 56 18 56H62Q70 56 70 48V10" fill="none" stroke={INK} strokeWidth={3} />
      {fire > 0 && (
        <path
          d={`M24 82q4 ${-20 * fire} 8 -2q4 ${-26 * fire} 8 0q4 ${-26 * fire} 8 0q4 ${-20 * fire} 8 2`}
          fill="none"
          stroke="var(--mui-palette-live-main)"
          strokeWidth={3}
        />
      )}
      <path d="M14 60H66" stroke={INK} strokeWidth={2} />
    </Box>
  );
}

/** A bowl on its scale, the fuller the more lies in it. */
function Bowl({ grams }: { grams: number }) {
  const fill = Math.min(1, grams / 2000);
  return (
    <Box component="svg" viewBox="0 0 80 84" aria-hidden="true" sx={{ width: 56, flex: 'none' }}>
      {grams > 0 && (
        <path
          d={`M${22 - fill * 8} ${46 - fill * 18}H${58 + fill * 8}Q56 50 50 52H30Q24 50 22 46Z`}
          fill="var(--mui-palette-fruit-main)"
        />
      )}
      <path d="M10 22Q12 54 32 54H48Q68 54 70 22" fill="none" stroke={INK} strokeWidth={3} />
      <path d="M16 78V64H64V78Z" fill="none" stroke={INK} strokeWidth={3} />
      <path d="M40 54V64" stroke={INK} strokeWidth={3} />
    </Box>
  );
}
