import { recordSheet } from '@cocotte/contract';
import { isDecision, timesInUse } from '@cocotte/core/batches';
import { type Fault, altitudeText, dayText, instantText, rangesText } from '@cocotte/core/measure';
import { jarCountText } from '@cocotte/core/jars';
import { KNOWN_WORDS, type RecordLine, eventWords, isRemark, recordOf } from '@cocotte/core/records';
import { Box, Button } from '@mui/material';
import { useMemo, useState } from 'react';
import { Link, useParams } from 'react-router';
import { type OpenBatch, useBatch } from '../batches/open-batch.ts';
import { NewerEntries } from '../batches/NewerEntries.tsx';
import { KeptCurves } from '../batches/pot/KeptCurves.tsx';
import { Pictures } from '../batches/Pictures.tsx';
import { addressOf } from '../shell/call.ts';
import { Facts, Line, Stack } from '../kit/layout.tsx';
import { List } from '../kit/List.tsx';
import { Loaded } from '../kit/Loaded.tsx';
import { Faults, Sheet, Soft, Tag, ViewHead } from '../kit/parts.tsx';
import { useHere, useMay, useMaySign } from '../shell/session.tsx';
import { say } from '../words/views.ts';
import { CorrectDialog } from './CorrectDialog.tsx';
import { Went } from './Went.tsx';

/** The batch on one page: every entry, who and when, corrections beside what they correct. */
export function RecordPage() {
  const { batchId = '' } = useParams();
  const { batch, error } = useBatch(batchId);
  return <Loaded query={{ data: batch, error }}>{open => <Record batch={open} />}</Loaded>;
}

function Record({ batch }: { batch: OpenBatch }) {
  const { kitchen } = useHere();
  const mayCorrect = useMay('cook');
  const maySign = useMaySign();
  const [correcting, setCorrecting] = useState<RecordLine | null>(null);
  const [picturing, setPicturing] = useState<RecordLine | null>(null);
  const started = batch.state.started as NonNullable<typeof batch.state.started>;
  const seq = new Map(batch.view.events.map(e => [e.id, e.receipt.seq]));
  const last = batch.view.events.at(-1);
  const released = batch.standing.released;
  const aside = batch.state.jars.filter(j => j.setAside);
  const who = (id: string) => batch.view.people[id] ?? say('record.you');
  const rows = useMemo(
    () =>
      recordOf(batch.events).flatMap(line => [
        { ...line, of: null as RecordLine | null },
        ...line.corrections.map(c => ({ ...c, corrections: [], of: line })),
      ]),
    [batch.events],
  );
  /** What became of a correction; null for what is none. */
  const told = (row: (typeof rows)[number]) =>
    row.of && batch.state.amendments[row.of.event.id]?.corrections.find(c => c.correctionId === row.event.id);
  const [faults, setFaults] = useState<Fault[]>([]);
  const sign = async (correctionId: string) =>
    setFaults(await batch.sign([['correction.signed', { correctionId }]]));
  return (
    <>
      <ViewHead
        title={`Record: ${started.recipe.name}`}
        detail={
          <>
            Lot <strong>{started.lotCode}</strong> · made {dayText(started.madeOn, kitchen)} · for{' '}
            {started.purpose} · {batch.standing.stage}
          </>
        }
      >
        <Button
          component={Link}
          to={`/${batch.standing.stage === 'cooking' ? 'cook' : 'check'}/${batch.id}`}
          variant="outlined"
        >
          {batch.standing.stage === 'cooking' ? 'Cook' : 'Check'}
        </Button>
        <Button
          component="a"
          href={addressOf(recordSheet, { batchId: batch.id })}
          target="_blank"
          variant="contained"
        >
          Record as PDF
        </Button>
      </ViewHead>
      <NewerEntries batch={batch} />
      <Faults faults={faults} />
      <Stack>
        <Sheet>
          <Facts
            of={[
              ['Authority', `${started.route.what} ${started.route.why}`],
              [
                'Process',
                timesInUse(batch.state)
                  .map(
                    t =>
                      `${jarCountText(1, t.jarSize).slice(2)}: ${t.minutes} min at ${altitudeText(t.altitude_m, kitchen)} (${t.band}), row ${t.rowId}`,
                  )
                  .join('; ') || started.noTime.map(n => n.what).join(' '),
              ],
              [
                'Jars',
                [
                  `${batch.state.jars.length} filled`,
                  released.length > 0 && `released ${rangesText(released)}`,
                  aside.length > 0 &&
                    `set aside ${aside.map(j => `${j.number} (${j.setAside?.why})`).join(', ')}`,
                ]
                  .filter(Boolean)
                  .join(', '),
              ],
              [
                'Chain',
                <>
                  last entry {last?.receipt.seq},{' '}
                  <Box component="span" sx={{ overflowWrap: 'anywhere', fontSize: '0.9rem' }}>
                    {last?.hash}
                  </Box>
                </>,
              ],
            ]}
          />
        </Sheet>
        <Went state={batch.state} kitchen={kitchen} />
        <KeptCurves batch={batch} kitchen={kitchen} />
        <Pictures
          batch={batch}
          of={
            picturing && {
              id: picturing.event.id,
              words: eventWords(picturing.event, started.recipe, kitchen),
            }
          }
          onDone={() => setPicturing(null)}
        />
        <Sheet title="Every entry">
          <List
            label="Every entry"
            minWidth={640}
            rows={rows}
            keyOf={r => r.event.id}
            rowSx={r => (r.of ? { '& td': { bgcolor: 'live.tint', pl: 1 } } : undefined)}
            columns={[
              {
                head: 'No.',
                whole: true,
                sx: { color: 'text.secondary' },
                cell: r => seq.get(r.event.id) ?? '',
              },
              {
                head: 'When',
                sx: { whiteSpace: { sm: 'nowrap' } },
                cell: r => (
                  <>
                    {instantText(r.at_ms, kitchen, true)}
                    <Box>
                      {r.trace.known === 'live' || r.trace.known === 'queued' ? (
                        <Soft>{KNOWN_WORDS[r.trace.known]}</Soft>
                      ) : (
                        <Tag tone="live">{KNOWN_WORDS[r.trace.known]}</Tag>
                      )}
                    </Box>
                  </>
                ),
              },
              {
                head: 'Who',
                sx: { whiteSpace: { sm: 'nowrap' } },
                cell: r => who(r.event.personId),
              },
              {
                head: 'What',
                cell: r => (
                  <>
                    {r.of && <Soft>Correction of entry {seq.get(r.of.event.id)}. </Soft>}
                    <Box
                      component="span"
                      sx={
                        !r.of && batch.state.amendments[r.event.id]?.standing
                          ? { textDecoration: 'line-through', color: 'text.secondary' }
                          : undefined
                      }
                    >
                      {eventWords(r.event, started.recipe, kitchen)}
                    </Box>
                    {isRemark(batch.state, r.event) && <Soft> {say('record.remark')}</Soft>}
                    {told(r)?.counts === false && (
                      <Box sx={{ color: 'ox.main' }}>{say('record.unsigned')}</Box>
                    )}
                  </>
                ),
              },
              {
                head: 'Action',
                action: true,
                cell: r => {
                  if (told(r)?.counts === false)
                    return (
                      maySign && (
                        <Button
                          size="small"
                          variant="outlined"
                          className="no-print"
                          sx={{ whiteSpace: 'nowrap' }}
                          aria-label={`Sign correction ${seq.get(r.event.id)}`}
                          onClick={() => void sign(r.event.id)}
                        >
                          {say('record.sign')}
                        </Button>
                      )
                    );
                  const { type } = r.event;
                  const fixed =
                    isDecision(type) || type === 'entry.corrected' || type === 'correction.signed';
                  const no = seq.get(r.event.id);
                  return (
                    mayCorrect &&
                    no !== undefined && (
                      <Line sx={{ flexWrap: 'nowrap', gap: 1, justifyContent: 'flex-end' }}>
                        {!fixed && (
                          <Button
                            size="small"
                            variant="outlined"
                            className="no-print"
                            aria-label={`Correct entry ${no}`}
                            onClick={() => setCorrecting(r)}
                          >
                            Correct
                          </Button>
                        )}
                        <Button
                          size="small"
                          className="no-print"
                          aria-label={say('pictures.ofEntry', { n: no })}
                          onClick={() => setPicturing(r)}
                        >
                          {say('pictures.short')}
                        </Button>
                      </Line>
                    )
                  );
                },
              },
            ]}
          />
        </Sheet>
      </Stack>
      {correcting && <CorrectDialog batch={batch} line={correcting} onClose={() => setCorrecting(null)} />}
    </>
  );
}
