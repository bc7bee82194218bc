import { labelSheet } from '@cocotte/contract';
import type { LabelContent } from '@cocotte/core/batches';
import { type JarSizeId, jarCountText } from '@cocotte/core/jars';
import { labelChanges, type LabelCount, labelCounts } from '@cocotte/core/labels';
import { instantText, rangesText } from '@cocotte/core/measure';
import { Box, Button } from '@mui/material';
import { useState } from 'react';
import type { OpenBatch } from '../batches/open-batch.ts';
import { Line } from '../kit/layout.tsx';
import { Caution, Sheet, Soft, Tag } from '../kit/parts.tsx';
import { addressOf } from '../shell/call.ts';
import { useHere, useMay } from '../shell/session.tsx';
import { say } from '../words/views.ts';
import { CountDialog } from './CountDialog.tsx';
import { OnRoll } from './OnRoll.tsx';

/** Sheets that were made, the newest first: what they would say otherwise today, and whether they may be printed again. */
export function SheetsMade({
  batch,
  now,
}: {
  batch: OpenBatch;
  /** What the label of these jars says now, or null where it cannot be made. */
  now: (size: JarSizeId, jars: readonly number[]) => LabelContent | null;
}) {
  const { kitchen } = useHere();
  const mayCount = useMay('cook');
  const [counting, setCounting] = useState<LabelCount | null>(null);
  const counts = new Map(labelCounts(batch.state, batch.standing.released).map(c => [c.printId, c]));
  if (batch.state.labels.length === 0) return null;
  return (
    <Sheet title={say('label.sheets')} aside={say('label.sheets.aside')}>
      {batch.state.labels.toReversed().map(l => {
        const today = now(l.size, l.jars);
        const changes = today ? labelChanges(l.label, today) : [];
        const count = counts.get(l.eventId) as LabelCount;
        return (
          <Box key={l.eventId} sx={{ py: 1, borderTop: 1, borderColor: 'rule.main' }}>
            <Line>
              <Box sx={{ flex: '1 1 240px' }}>
                {say('label.sheet', { jars: jarCountText(l.jars.length, l.size), of: rangesText(l.jars) })}{' '}
                <Soft>
                  {l.stock.name}
                  {l.spares > 0 && `, ${say('label.sheet.spares', { n: l.spares })}`} ·{' '}
                  {instantText(l.by.at_ms, kitchen)}
                </Soft>
              </Box>
              {l.jars.every(n => batch.standing.released.includes(n)) ? (
                <Button
                  component="a"
                  href={addressOf(labelSheet, { batchId: batch.id, printId: l.eventId })}
                  target="_blank"
                  variant="outlined"
                >
                  {say('label.sheet.open')}
                </Button>
              ) : (
                <Soft>{say('label.heldAgain')}</Soft>
              )}
            </Line>
            <Line sx={{ mt: 0.5 }}>
              <Soft>
                {say('label.count.line', {
                  printed: count.printed,
                  used: count.used,
                  spoiled: count.spoiled,
                  destroyed: count.destroyed,
                  left: count.left,
                })}
              </Soft>
              {mayCount && (
                <Button size="small" variant="outlined" onClick={() => setCounting(count)}>
                  {say('label.count')}
                </Button>
              )}
              {mayCount && l.stock.form === 'roll' && count.held.length === 0 && (
                <OnRoll batchId={batch.id} print={l} />
              )}
            </Line>
            {count.askedBack > 0 && (
              <Caution>{say('label.askBack', { jars: rangesText(count.held), n: count.askedBack })}</Caution>
            )}
            {changes.length > 0 && (
              <Box sx={{ mt: 0.5 }}>
                <Tag tone="ox">{say('label.outOfDate')}</Tag>{' '}
                {changes
                  .map(c =>
                    c.was === '' && c.is === ''
                      ? say('label.changed', { name: c.name })
                      : say('label.changed.from', { name: c.name, was: c.was || '–', is: c.is || '–' }),
                  )
                  .join(' ')}
              </Box>
            )}
          </Box>
        );
      })}
      {counting && <CountDialog batch={batch} count={counting} onClose={() => setCounting(null)} />}
    </Sheet>
  );
}
