import { lidLines, lidText } from '@cocotte/core/labels';
import { jarCountText } from '@cocotte/core/jars';
import { rangesText } from '@cocotte/core/measure';
import { Box, Button } from '@mui/material';
import type { OpenBatch } from '../batches/open-batch.ts';
import { giveOut } from '../kit/give-out.ts';
import { Sheet, Soft } from '../kit/parts.tsx';
import { say } from '../words/views.ts';

/** What is written on each lid by hand, jars that are held among them: a lid tells where its jar belongs. */
export function LidList({ batch }: { batch: OpenBatch }) {
  const lines = lidLines(batch.state);
  if (lines.length === 0) return null;
  const save = () =>
    giveOut(
      new Blob([lidText(batch.state)], { type: 'text/plain;charset=utf-8' }),
      `${batch.state.started?.lotCode.replaceAll(/[^A-Za-z0-9-]/g, '-') ?? 'lot'}-lids.txt`,
    );
  return (
    <Sheet
      title={say('label.lids')}
      aside={
        <Button size="small" variant="outlined" onClick={save}>
          {say('label.lids.save')}
        </Button>
      }
    >
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: 'auto auto 1fr',
          columnGap: 2.5,
          rowGap: 0.5,
          alignItems: 'baseline',
        }}
      >
        {lines.map(l => (
          <Box key={`${l.lotCode} ${l.load} ${l.size}`} sx={{ display: 'contents' }}>
            <Box sx={{ fontSize: '1.25rem', fontWeight: 700, whiteSpace: 'nowrap' }}>{l.lotCode}</Box>
            <Box sx={{ fontSize: '1.25rem', whiteSpace: 'nowrap' }}>
              {l.load === null ? '–' : say('label.lids.load', { load: l.load })}
            </Box>
            <Soft>
              {say('label.lids.on', { jars: jarCountText(l.jars.length, l.size), of: rangesText(l.jars) })}
            </Soft>
          </Box>
        ))}
      </Box>
    </Sheet>
  );
}
