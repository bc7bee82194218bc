import { LABEL_READS, type BatchState, type LabelContent, type LabelRead } from '@cocotte/core/batches';
import { allergensOf, labelSpelling } from '@cocotte/core/labels';
import { type JarSizeId, jarSize } from '@cocotte/core/jars';
import { dayText } from '@cocotte/core/measure';
import { Box, Checkbox, FormControlLabel } from '@mui/material';
import type { ReactNode } from 'react';
import { Sheet, Soft } from '../kit/parts.tsx';
import { useHere } from '../shell/session.tsx';
import { say } from '../words/views.ts';

/** What the label says beside what the batch says, ticked one by one, before the first labels of a lot are printed. */
export function ReadFirst({
  label,
  state,
  size,
  read,
  onRead,
}: {
  label: LabelContent;
  state: BatchState;
  size: JarSizeId;
  read: ReadonlySet<LabelRead>;
  onRead: (read: ReadonlySet<LabelRead>) => void;
}) {
  const { kitchen } = useHere();
  const started = state.started as NonNullable<BatchState['started']>;
  const lots = state.draws.flatMap(d => d.lots.filter(l => l.allergens.length > 0));
  const allergens = allergensOf(state);
  const day = (of: string) => dayText(of, kitchen);
  const net = started.recipe.jars.find(j => j.size === size)?.net;
  const sides: Record<LabelRead, [label: ReactNode, batch: ReactNode]> = {
    identity: [label.statementOfIdentity, `${started.recipe.name}: ${label.ingredients}`],
    allergens: [
      label.contains || label.emphasised.join(', ') || say('label.read.noAllergens'),
      allergens.length === 0
        ? say('label.read.noneDrawn')
        : `${labelSpelling(allergens.join(', '), label.locale)}${lots.length > 0 ? ` (${[...new Set(lots.map(l => l.lotLabel))].join(', ')})` : ''}`,
    ],
    'net contents': [
      label.netContents,
      `${jarSize(size).name}: ${net ? (net.kind === 'weight' ? `${net.oz} oz` : `${net.floz} fl oz`) : ''}`,
    ],
    dates: [
      [
        day(label.madeOn),
        day(label.bestBy),
        ...(label.readyFrom === null ? [] : [say('label.read.from', { day: day(label.readyFrom) })]),
      ].join(' · '),
      say('label.read.keeps', { day: day(started.madeOn), months: started.recipe.shelfLife_months }),
    ],
  };
  return (
    <Sheet title={say('label.read.title')} aside={say('label.read.aside')} tone="live">
      <Box sx={{ display: 'grid', gap: 0.5 }}>
        {LABEL_READS.map(one => (
          <Box
            key={one}
            sx={{
              display: 'grid',
              gridTemplateColumns: { xs: '1fr', sm: '150px 1fr 1fr' },
              columnGap: 2,
              alignItems: 'center',
              borderTop: 1,
              borderColor: 'rule.main',
              py: 0.5,
            }}
          >
            <FormControlLabel
              sx={{ textTransform: 'capitalize' }}
              control={
                <Checkbox
                  checked={read.has(one)}
                  onChange={(_, on) =>
                    onRead(new Set(LABEL_READS.filter(r => (r === one ? on : read.has(r)))))
                  }
                />
              }
              label={one}
            />
            <Box sx={{ overflowWrap: 'anywhere' }}>
              <Soft sx={{ fontSize: '0.85rem' }}>{say('label.read.label')}</Soft>
              <Box>{sides[one][0]}</Box>
            </Box>
            <Box sx={{ overflowWrap: 'anywhere' }}>
              <Soft sx={{ fontSize: '0.85rem' }}>{say('label.read.batch')}</Soft>
              <Box>{sides[one][1]}</Box>
            </Box>
          </Box>
        ))}
      </Box>
    </Sheet>
  );
}
