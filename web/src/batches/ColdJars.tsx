import { coldJars } from '@cocotte/core/checks';
import { jarSize } from '@cocotte/core/jars';
import { dayText } from '@cocotte/core/measure';
import { Box } from '@mui/material';
import { Sheet, Soft } from '../kit/parts.tsx';
import { useHere } from '../shell/session.tsx';
import { say } from '../words/views.ts';
import type { OpenBatch } from './open-batch.ts';

/** Jars that stand in the cold, each with the day it is eaten by. */
export function ColdJars({ batch }: { batch: OpenBatch }) {
  const { kitchen } = useHere();
  const jars = coldJars(batch.state);
  if (jars.length === 0) return null;
  return (
    <Sheet title={say('cold.title')}>
      <Box component="ul" sx={{ listStyle: 'none', p: 0, m: 0, mb: 1, '& li': { mb: 0.5 } }}>
        {jars.map(jar => (
          <li key={jar.number}>
            {say('cold.jar', { number: jar.number, size: jarSize(jar.size).name })}:{' '}
            <strong>
              {jar.eatBy === null
                ? say('cold.frozen')
                : say('cold.eatBy', { day: dayText(jar.eatBy, kitchen) })}
            </strong>
          </li>
        ))}
      </Box>
      <Soft>{say('cold.why')}</Soft>
    </Sheet>
  );
}
