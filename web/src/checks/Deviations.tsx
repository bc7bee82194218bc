import { drawLots, moveLot, readLot } from '@cocotte/contract';
import type { Note } from '@cocotte/core/batches';
import { type DeviationRecord, deviationRecords, openActions } from '@cocotte/core/checks';
import { batchSubject } from '@cocotte/core/kitchen';
import { type Fault, dayOf, fieldText, instantText } from '@cocotte/core/measure';
import { ACTION_WORDS } from '@cocotte/core/records';
import { Box, Button } from '@mui/material';
import { useState } from 'react';
import { Link } from 'react-router';
import { v7 } from 'uuid';
import type { Fact, OpenBatch } from '../batches/open-batch.ts';
import { drawingOf, missingDraw } from '../batches/draws.ts';
import type { When } from '../batches/when.ts';
import { EntryForm } from '../kit/EntryForm.tsx';
import { AttachPaper, type Attached } from '../kit/AttachPaper.tsx';
import { Figure, OneOf, Text } from '../kit/fields.tsx';
import { useTyped } from '../kit/form.ts';
import { Line } from '../kit/layout.tsx';
import { PaperLink } from '../kit/PaperLink.tsx';
import { Faults, Sheet, Soft, Tag } from '../kit/parts.tsx';
import { unasked, useRead, words } from '../kit/readers.ts';
import { call, faultsOf } from '../shell/call.ts';
import { kitchenNow, useNow } from '../shell/clock.ts';
import { useHere, useMaySign } from '../shell/session.tsx';
import { useShelf, useStockChanged } from '../stores/api.ts';
import { stockText } from '../stores/words.ts';
import { misread, say } from '../words/views.ts';

const row = {
  py: 1.25,
  borderBottom: 1,
  borderColor: 'rule.main',
  '&:last-of-type': { borderBottom: 0 },
} as const;

/** Facts that break a rule: they hold their jars until what was done about them ends it. */
export function DeviationPanel({ batch, when }: { batch: OpenBatch; when: When }) {
  const records = deviationRecords(batch.state);
  if (records.length === 0) return null;
  const open = records.filter(r => r.state === 'open').length;
  return (
    <Sheet title={say('deviations.title')} aside={say('deviations.open', { n: open })}>
      {records.map(r => (
        <Box key={r.key} sx={row}>
          <DeviationRow
            batch={batch}
            record={r}
            next={batch.state.deviations.find(d => d.key === r.key)?.next ?? ''}
            when={when}
          />
        </Box>
      ))}
    </Sheet>
  );
}

function DeviationRow({
  batch,
  record,
  next,
  when,
}: {
  batch: OpenBatch;
  record: DeviationRecord;
  next: string;
  when: When;
}) {
  const { kitchen, person } = useHere();
  const last = record.actions.at(-1);
  const mine = last?.personId === person.id;
  const look = (agrees: boolean) =>
    void batch.sign([['deviation.looked', { key: record.key, agrees, text: '' }]], when);
  return (
    <>
      <strong>{record.what}</strong>{' '}
      <Tag tone={record.state === 'open' ? 'ox' : record.state === 'settled' ? 'leaf' : 'plain'}>
        {say(`deviations.state.${record.state}`)}
      </Tag>
      {record.state === 'open' && <Box sx={{ color: 'text.secondary' }}>{next}</Box>}
      {record.actions.map(a => (
        <Box key={`${a.at_ms}`} sx={{ mt: 0.5 }}>
          {ACTION_WORDS[a.action]}: {a.reason}
          {a.cause && ` ${say('deviations.cause', { cause: a.cause })}`}{' '}
          {a.paperId && <PaperLink paperId={a.paperId} />}{' '}
          <Soft>
            {batch.view.people[a.personId] ?? say('record.you')}, {instantText(a.at_ms, kitchen)}
          </Soft>
        </Box>
      ))}
      {record.secondLook && (
        <Soft>
          {say(record.secondLook.agrees ? 'deviations.agreed' : 'deviations.disagreed', {
            name: batch.view.people[record.secondLook.personId] ?? say('record.you'),
          })}
        </Soft>
      )}
      {last && record.unseen && !mine && (
        <Line mt={1}>
          <Button variant="outlined" onClick={() => look(true)}>
            {say('deviations.agree')}
          </Button>
          <Button variant="outlined" onClick={() => look(false)}>
            {say('deviations.disagree')}
          </Button>
        </Line>
      )}
      {record.state === 'open' && <ActionEntry batch={batch} record={record} when={when} />}
    </>
  );
}

/** What is done about it: the actions that are open for its kind and its hours, with the cause and what shows it. */
function ActionEntry({ batch, record, when }: { batch: OpenBatch; record: DeviationRecord; when: When }) {
  const read = useRead();
  const maySign = useMaySign();
  const now_ms = useNow();
  const hours = record.lifted_ms === null ? null : (now_ms - record.lifted_ms) / 3_600_000;
  const actions = openActions(record, hours);
  const [paper, setPaper] = useState<Attached | null>(null);
  const first = actions.find(a => a.why === '' && (a.action !== 'shown right' || maySign));
  const form = useTyped(
    { action: first?.action ?? 'held', minutes: '', cause: '', reason: '' },
    ({ action }) => ({
      minutes:
        action === 'shown right' && record.settles === 'minutes'
          ? read.figure({ name: say('deviations.minutesName'), min: 0, max: 1440 })
          : unasked(null),
      reason: words(say('deviations.reasonName')),
    }),
  );
  const action = form.typed('action');
  const byMinutes = action === 'shown right' && record.settles === 'minutes';
  const closed = actions.filter(a => a.why !== '' || (a.action === 'shown right' && !maySign));
  const jars = record.jars ?? batch.state.jars.flatMap(j => (j.setAside ? [] : j.number));
  const enter = form.submit(async v => {
    if (action === 'authority asked' && !paper) return [misread('no-authority-paper').fault];
    const settled = {
      key: record.key,
      ...v,
      paper: paper && { paperId: paper.paperId, sha256: paper.sha256 },
    };
    const facts: Fact[] = [['deviation.settled', settled]];
    if (action === 'refrigerated' && jars.length > 0)
      facts.push(['jars.moved', { jars, to: 'refrigerator' }]);
    if (action === 'destroyed' && jars.length > 0) facts.push(['jars.set_aside', { jars, why: 'destroyed' }]);
    return action === 'shown right' ? batch.sign(facts, when) : void (await batch.enter(facts, when));
  });
  return (
    <EntryForm
      form={form}
      action={say(`deviations.do.${ACTION_KEYS[action]}`)}
      onSubmit={enter}
      wide={byMinutes ? '140px 1fr 1fr' : '1fr 1fr'}
      narrow="1fr"
    >
      <Box sx={{ gridColumn: '1 / -1' }}>
        <OneOf
          at={form.at('action')}
          label={say('deviations.what')}
          row
          closed={closed.map(a => a.action)}
          of={actions.map(a => [a.action, say(`deviations.choose.${ACTION_KEYS[a.action]}`)] as const)}
        />
        {closed.map(a => (
          <Soft key={a.action}>{a.why || say('settle.noRight')} </Soft>
        ))}
        {action === 'authority asked' && <Box>{say('deviations.authority')}</Box>}
        {action === 'processed again' && <Box>{say('deviations.again')}</Box>}
      </Box>
      {byMinutes && <Figure at={form.at('minutes')} label={say('deviations.minutes')} />}
      <Text at={form.at('cause')} label={say('deviations.causeField')} />
      <Text
        at={form.at('reason')}
        label={say(byMinutes ? 'deviations.reasonMinutes' : 'deviations.reason')}
      />
      <AttachPaper
        subject={batchSubject(batch.id)}
        label={say('deviations.paper')}
        attached={paper}
        onAttached={setPaper}
      />
    </EntryForm>
  );
}

const ACTION_KEYS = {
  'shown right': 'right',
  'processed again': 'again',
  refrigerated: 'cold',
  held: 'held',
  'authority asked': 'authority',
  destroyed: 'destroyed',
} as const;

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
