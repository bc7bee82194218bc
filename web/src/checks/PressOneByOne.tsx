import type { SealProof } from '@cocotte/core/batches';
import { Box, Button } from '@mui/material';
import { JarGlyph } from '../kit/jars.tsx';
import type { OpenBatch } from '../batches/open-batch.ts';
import type { When } from '../batches/when.ts';
import { Aloud } from '../kit/parts.tsx';
import { say } from '../words/views.ts';

/** One jar after the other, with the thumb: the jar in the hand, and two big answers. */
export function PressOneByOne({
  batch,
  when,
  jars,
  how,
}: {
  batch: OpenBatch;
  when: When;
  /** Jars that are still to be pressed, in the order in which they stand. */
  jars: readonly OpenBatch['state']['jars'][number][];
  how: SealProof;
}) {
  const [jar] = jars;
  if (!jar) return <Box sx={{ fontWeight: 600, color: 'leaf.main', mt: 1.5 }}>{say('press.allDone')}</Box>;
  const enter = (sealed: boolean) =>
    void batch.enter(
      [['jars.pressed', { sealed: sealed ? [jar.number] : [], failed: sealed ? [] : [jar.number], how }]],
      when,
    );
  return (
    <Box role="group" aria-label={say('press.oneJar', { jar: jar.number })}>
      <Box sx={{ display: 'flex', alignItems: 'center', justifyContent: 'center', gap: 2, my: 1 }}>
        <JarGlyph form="cooling" size={jar.size} scale={1.6} />
        <Box>
          <Box sx={{ fontSize: '2.6rem', fontWeight: 700, lineHeight: 1.1 }}>
            {say('press.oneJar', { jar: jar.number })}
          </Box>
          <Box sx={{ color: 'text.secondary' }}>{say('press.left', { n: jars.length })}</Box>
        </Box>
      </Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.5 }}>
        <Button variant="outlined" sx={{ minHeight: 84, fontSize: '1.2rem' }} onClick={() => enter(false)}>
          {say('press.gives')}
        </Button>
        <Button variant="contained" sx={{ minHeight: 84, fontSize: '1.2rem' }} onClick={() => enter(true)}>
          {say('press.holds')}
        </Button>
      </Box>
      <Aloud>{say('press.left', { n: jars.length })}</Aloud>
    </Box>
  );
}
