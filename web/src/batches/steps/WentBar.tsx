import { wentWhere } from '@cocotte/core/batches';
import { massText } from '@cocotte/core/measure';
import { Box, Button } from '@mui/material';
import { useMemo } from 'react';
import { Line } from '../../kit/layout.tsx';
import { Caution, Soft } from '../../kit/parts.tsx';
import { useHere } from '../../shell/session.tsx';
import { say } from '../../words/views.ts';
import type { OpenBatch } from '../open-batch.ts';

/** So much may be missing without being asked for: what scales and spoons differ by. Our choice, from no source. */
const ASKED_FROM = { g: 50, share: 0.03 };

/** Where what came in went, as a bar with its figures; what is missing is asked once, in three taps. */
export function WentBar({ batch, onReason }: { batch: OpenBatch; onReason: (reason: string) => void }) {
  const { kitchen } = useHere();
  const went = useMemo(() => wentWhere(batch.state), [batch.state]);
  if (!went || went.in_g <= 0) return null;
  const asked = Math.max(ASKED_FROM.g, went.in_g * ASKED_FROM.share);
  const missing_g = went.missing_g > asked ? went.missing_g : 0;
  // What is left over and was not weighed explains it.
  const unweighed = batch.state.leftOver.some(l => l.mass_g === null && l.went !== 'nothing left');
  const parts = [
    { name: say('went.jars'), mass_g: went.jars_g, fill: 'fruit.main' },
    { name: say('went.taken'), mass_g: went.taken_g, fill: 'leaf.main' },
    { name: say('went.left'), mass_g: went.left_g, fill: 'leaf.tint' },
    { name: say('went.off'), mass_g: went.off_g, fill: 'rule.main' },
    unweighed
      ? { name: say('went.unweighed'), mass_g: missing_g, fill: 'leaf.tint' }
      : { name: say('went.missing'), mass_g: missing_g, fill: 'ox.tint' },
  ].filter(p => p.mass_g >= 1);
  const whole_g = Math.max(
    went.in_g,
    parts.reduce((sum, p) => sum + p.mass_g, 0),
  );
  return (
    <Box sx={{ my: 1.5 }}>
      <Soft>{say('went.in', { mass: massText(went.in_g, kitchen) })}</Soft>
      <Box
        aria-hidden="true"
        sx={{
          display: 'flex',
          height: 30,
          border: 1,
          borderColor: 'rule.strong',
          borderRadius: 1,
          overflow: 'hidden',
          my: 0.75,
        }}
      >
        {parts.map(p => (
          <Box
            key={p.name}
            sx={{
              width: `${(p.mass_g / whole_g) * 100}%`,
              bgcolor: p.fill,
              borderRight: 1,
              borderColor: 'rule.strong',
            }}
          />
        ))}
      </Box>
      <Box component="ul" sx={{ listStyle: 'none', p: 0, m: 0 }}>
        {parts.map(p => (
          <Box component="li" key={p.name} sx={{ display: 'flex', gap: 1, alignItems: 'center' }}>
            <Box
              aria-hidden="true"
              sx={{ width: 14, height: 14, bgcolor: p.fill, border: 1, borderColor: 'rule.strong' }}
            />
            <span>{p.name}</span>
            <Box component="strong" sx={{ ml: 'auto' }}>
              {massText(p.mass_g, kitchen)}
            </Box>
          </Box>
        ))}
      </Box>
      {went.missing_g < -asked && (
        <Caution>{say('went.more', { mass: massText(-went.missing_g, kitchen) })}</Caution>
      )}
      {missing_g > 0 && !unweighed && batch.state.yieldReasons.length === 0 && (
        <Box sx={{ mt: 1 }}>
          {say('went.ask', { mass: massText(missing_g, kitchen) })}
          <Line mt={0.75}>
            {[say('went.stuck'), say('went.foamed'), say('went.tasted')].map(reason => (
              <Button key={reason} variant="outlined" sx={{ minHeight: 56 }} onClick={() => onReason(reason)}>
                {reason}
              </Button>
            ))}
          </Line>
        </Box>
      )}
    </Box>
  );
}
