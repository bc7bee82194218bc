import { returnLots } from '@cocotte/contract';
import { type LeftOverWent, unusedOf } from '@cocotte/core/batches';
import { jarSize } from '@cocotte/core/jars';
import { dayText, type Fault, massText } from '@cocotte/core/measure';
import { eatBy } from '@cocotte/core/review';
import { Box, Button } from '@mui/material';
import { useState } from 'react';
import { Figure } from '../../kit/fields.tsx';
import { useTyped } from '../../kit/form.ts';
import { Cells } from '../../kit/layout.tsx';
import { Faults, Sheet, Soft } from '../../kit/parts.tsx';
import { orNone, useRead } from '../../kit/readers.ts';
import { call } from '../../shell/call.ts';
import { useHere, useMay } from '../../shell/session.tsx';
import { useStockChanged } from '../../stores/api.ts';
import { say } from '../../words/views.ts';
import type { Fact, OpenBatch } from '../open-batch.ts';
import { useUndo } from '../Undo.tsx';
import type { When } from '../when.ts';

/** Where the rest of a pot can go, each in the words of its button. */
const WAYS = {
  'kept for tomorrow': 'left.tomorrow',
  refrigerator: 'left.refrigerator',
  'over a refrigerator jar': 'left.over',
  eaten: 'left.eaten',
  'thrown away': 'left.thrown',
  'nothing left': 'left.nothing',
} as const satisfies { readonly [K in LeftOverWent]: string };

/** Filling is done: what is left is asked once, and what was not used goes back to the shelf. */
export function LeftOver({ batch, when }: { batch: OpenBatch; when: When }) {
  const { kitchen } = useHere();
  const read = useRead();
  const changed = useStockChanged();
  const mayCook = useMay('cook');
  const [faults, setFaults] = useState<Fault[]>([]);
  const [open, setOpen] = useState(false);
  const { enter, offer } = useUndo(batch, when);
  const started = batch.state.started as NonNullable<typeof batch.state.started>;
  const form = useTyped({ mass_g: '' }, () => ({
    mass_g: orNone(
      read.figure({ name: say('left.weight'), min: 0, above: true, max: 1_000_000, unit: ' g' }),
    ),
  }));
  const isDone = started.jars.every(
    j =>
      batch.state.jars.filter(f => f.size === j.size && f.setAside?.why !== 'part-filled').length >= j.count,
  );
  const told = batch.state.leftOver;
  if (batch.state.jars.length === 0) return null;
  const hasBrine = started.recipe.packing !== null;
  const ways = (
    [
      'refrigerator',
      'kept for tomorrow',
      'over a refrigerator jar',
      'eaten',
      'thrown away',
      'nothing left',
    ] as const
  ).filter(way => way !== 'over a refrigerator jar' || hasBrine);
  const went = (way: LeftOverWent) =>
    form.submit(async ({ mass_g }) => {
      const facts: Fact[] = [
        [
          'left.over',
          { went: way, what: way === 'over a refrigerator jar' ? 'brine' : 'pot', mass_g, text: '' },
        ],
      ];
      if (way === 'refrigerator') {
        // It is a jar of the batch, which never goes to the shelf.
        const number = Math.max(0, ...batch.state.jars.map(j => j.number)) + 1;
        const size =
          [...started.jars].sort((a, b) => jarSize(a.size).pints.compare(jarSize(b.size).pints))[0]?.size ??
          'pint';
        const drawn = batch.state.draws.flatMap(d => d.lots);
        const lot = (kind: 'jar' | 'lid') =>
          drawn.find(l => l.kind === kind && (kind === 'lid' || l.jarSize === size))?.lotId ?? null;
        facts.push(
          ['jars.filled', { size, jars: [number], jarLotId: lot('jar'), lidLotId: lot('lid') }],
          ['jars.set_aside', { jars: [number], why: 'part-filled' }],
        );
      }
      if (await enter(say(WAYS[way]), facts)) form.again();
    })();
  const unused = unusedOf(batch.state);
  const putBack = async () => {
    setFaults(
      await batch.decide('lots.returned', stamp =>
        call(returnLots, {
          params: { batchId: batch.id },
          body: {
            lots: unused.map(u => ({ lotId: u.lotId, quantity: String(u.count) })),
            reason: say('left.reason'),
            stamp,
          },
        }),
      ),
    );
    await changed();
  };
  return (
    <Sheet title={say('left.title')}>
      {told.length === 0 && !isDone && !open ? (
        <Button variant="outlined" fullWidth sx={{ minHeight: 56 }} onClick={() => setOpen(true)}>
          {say('left.ask')}
        </Button>
      ) : told.length === 0 ? (
        <>
          <Soft>{say('left.why', { day: dayText(eatBy(started.recipe, started.madeOn), kitchen) })}</Soft>
          <Figure at={form.at('mass_g')} label={say('left.weight')} unit="g" sx={{ mt: 1.5 }} />
          <Cells wide="1fr 1fr" gap={1.5} mt={1.5}>
            {ways.map(way => (
              <Button key={way} variant="outlined" sx={{ minHeight: 60 }} onClick={() => void went(way)}>
                {say(WAYS[way])}
              </Button>
            ))}
          </Cells>
        </>
      ) : (
        told.map(t => (
          <Box key={t.by.eventId}>
            {say(WAYS[t.went])}
            {t.mass_g !== null && `, ${massText(t.mass_g, kitchen)}`}
          </Box>
        ))
      )}
      {offer}
      {unused.length > 0 && mayCook && (isDone || open || told.length > 0) && (
        <Button variant="outlined" fullWidth sx={{ minHeight: 56, mt: 1.5 }} onClick={() => void putBack()}>
          {say('left.back', { what: unused.map(u => `${u.count} ${u.name}`).join(', ') })}
        </Button>
      )}
      <Faults faults={faults} />
    </Sheet>
  );
}
