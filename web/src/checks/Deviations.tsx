import { drawLots, moveLot, readLot } from '@cocotte/contract';
import type { Deviation, Note } from '@cocotte/core/batches';
import { type Fault, dayOf, fieldText } from '@cocotte/core/measure';
import { Box, Button } from '@mui/material';
import { useState } from 'react';
import { Link } from 'react-router';
import { v7 } from 'uuid';
import type { OpenBatch } from '../batches/open-batch.ts';
import { drawingOf, missingDraw } from '../batches/draws.ts';
import type { When } from '../batches/when.ts';
import { EntryForm } from '../kit/EntryForm.tsx';
import { Figure, Text } from '../kit/fields.tsx';
import { useTyped } from '../kit/form.ts';
import { Line } from '../kit/layout.tsx';
import { Faults, Sheet, Soft } from '../kit/parts.tsx';
import { unasked, useRead, words } from '../kit/readers.ts';
import { call, faultsOf } from '../shell/call.ts';
import { kitchenNow } from '../shell/clock.ts';
import { useHere, useMaySign } from '../shell/session.tsx';
import { useShelf, useStockChanged } from '../stores/api.ts';
import { stockText } from '../stores/words.ts';
import { say } from '../words/views.ts';

const row = {
  py: 1.25,
  borderBottom: 1,
  borderColor: 'rule.main',
  '&:last-of-type': { borderBottom: 0 },
} as const;

/** Facts that break a rule: they hold their jars until they are settled, where they can be. */
export function DeviationPanel({ batch, when }: { batch: OpenBatch; when: When }) {
  const { deviations } = batch.state;
  const maySign = useMaySign();
  if (deviations.length === 0) return null;
  return (
    <Sheet title="Deviations">
      {deviations.map(d => (
        <Box key={d.key} sx={row}>
          <strong>{d.what}</strong>{' '}
          {d.settled ? <Soft>Settled: {d.settled.reason}</Soft> : <Soft>{d.next}</Soft>}
          {d.settles && !d.settled && maySign && <SettleEntry batch={batch} deviation={d} when={when} />}
          {d.settles && !d.settled && !maySign && <Box sx={{ mt: 0.5 }}>{say('settle.noRight')}</Box>}
        </Box>
      ))}
    </Sheet>
  );
}

function SettleEntry({ batch, deviation, when }: { batch: OpenBatch; deviation: Deviation; when: When }) {
  const read = useRead();
  const byMinutes = deviation.settles === 'minutes';
  const form = useTyped({ minutes: '', reason: '' }, () => ({
    minutes: byMinutes ? read.figure({ name: 'The minutes', min: 0, max: 1440 }) : unasked(null),
    reason: words('The reason'),
  }));
  const settle = form.submit(v => batch.sign([['deviation.settled', { key: deviation.key, ...v }]], when));
  return (
    <EntryForm
      form={form}
      action="Settle it"
      onSubmit={settle}
      wide={byMinutes ? '140px 1fr' : '1fr'}
      narrow="1fr"
    >
      {byMinutes && <Figure at={form.at('minutes')} label="Minutes seen" />}
      <Text
        at={form.at('reason')}
        label={byMinutes ? 'On which clock, and why it holds' : 'What it was, and why it holds'}
      />
    </EntryForm>
  );
}

/** Differences in the books: they hold nothing, and one tap settles each. */
export function BookPanel({ batch }: { batch: OpenBatch }) {
  const open = batch.state.books.filter(b => !b.settled);
  if (open.length === 0) return null;
  return (
    <Sheet title={say('books.title')} aside={say('books.hold')}>
      {open.map(note => (
        <Box key={note.key} sx={row}>
          <NoteEntry batch={batch} note={note} />
        </Box>
      ))}
    </Sheet>
  );
}

function NoteEntry({ batch, note }: { batch: OpenBatch; note: Note }) {
  const { kitchen } = useHere();
  const shelf = useShelf().data?.shelf ?? [];
  const changed = useStockChanged();
  const [faults, setFaults] = useState<Fault[]>([]);
  const missing = note.draw && missingDraw(batch.state, shelf, note.draw);
  const draw = async () => {
    if (!missing) return;
    const { need, quantity } = missing;
    const started = batch.state.started as NonNullable<typeof batch.state.started>;
    const read = drawingOf(
      need,
      fieldText(quantity, kitchen.locale),
      kitchen,
      {
        line: null,
        recipe: started.recipe,
        purpose: started.purpose,
        today: dayOf(kitchenNow(), kitchen.zone),
      },
      '',
    );
    if (!read.ok) return setFaults([read.fault]);
    const lots = read.value.lots.map(l => ({
      lotId: l.lotId,
      lineId: need.line?.id ?? null,
      quantity: l.quantity,
    }));
    setFaults(
      await batch.decide('lot.drawn', stamp =>
        call(drawLots, { params: { batchId: batch.id }, body: { lots, stamp } }),
      ),
    );
    await changed();
  };
  const count = async (lotId: string) => {
    try {
      const { lot } = await call(readLot, { params: { lotId } });
      if (Number(lot.onHand) < 0)
        await call(moveLot, {
          params: { lotId },
          body: { id: v7(), kind: 'count', quantity: '0', reason: say('lot.short.reason') },
        });
      await batch.enter([
        ['deviation.settled', { key: note.key, reason: say('lot.short.reason'), minutes: null }],
      ]);
    } catch (error) {
      setFaults(faultsOf(error));
    }
    await changed();
  };
  const leave = () =>
    void batch.enter([
      ['deviation.settled', { key: note.key, reason: say('books.asItIs.reason'), minutes: null }],
    ]);
  return (
    <>
      {note.what}
      <Line mt={1}>
        {missing?.need.shelf && (
          <Button variant="outlined" disabled={batch.busy} onClick={() => void draw()}>
            {say('books.draw', {
              quantity: stockText(String(missing.quantity), missing.need.shelf.item, kitchen),
              of: missing.need.title,
            })}
          </Button>
        )}
        {note.lot ? (
          <>
            <Button variant="outlined" onClick={() => void count(note.lot?.lotId ?? '')}>
              {say('lot.short.count')}
            </Button>
            <Button component={Link} to={`/stores/lots/${note.lot.lotId}`} variant="outlined">
              {say('books.lot', { label: note.lot.label })}
            </Button>
          </>
        ) : (
          <Button variant="outlined" onClick={leave}>
            {say('books.asItIs')}
          </Button>
        )}
      </Line>
      <Faults faults={faults} />
    </>
  );
}
