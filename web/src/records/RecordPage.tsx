import { recordSheet } from '@cocotte/contract';
import { type BatchEvent, correctedInstant_ms, isDecision } from '@cocotte/core/batches';
import { altitudeText, dayText, instantText, rangesText } from '@cocotte/core/measure';
import { jarCountText } from '@cocotte/core/jars';
import { eventWords } from '@cocotte/core/records';
import { Box, Button } from '@mui/material';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { type OpenBatch, useBatch } from '../batches/api.ts';
import { addressOf } from '../shell/call.ts';
import { Facts, Stack } from '../kit/layout.tsx';
import { List } from '../kit/List.tsx';
import { Loaded } from '../kit/Loaded.tsx';
import { Sheet, Soft, Tag, ViewHead } from '../kit/parts.tsx';
import { useHere, useMay } from '../shell/session.tsx';
import { CorrectDialog } from './CorrectDialog.tsx';

/** The batch on one page: every entry, who and when, corrections beside what they correct. */
export function RecordPage() {
  const { batchId = '' } = useParams();
  const { batch, error } = useBatch(batchId);
  return <Loaded query={{ data: batch, error }}>{open => <Record batch={open} />}</Loaded>;
}

function Record({ batch }: { batch: OpenBatch }) {
  const { kitchen } = useHere();
  const mayCorrect = useMay('cook');
  const [correcting, setCorrecting] = useState<BatchEvent | null>(null);
  const started = batch.state.started as NonNullable<typeof batch.state.started>;
  const byId = new Map(batch.events.map(e => [e.id, e]));
  const seq = new Map(batch.view.events.map(e => [e.id, e.seq]));
  const order = [...batch.events].sort(
    (a, b) =>
      correctedInstant_ms(a) - correctedInstant_ms(b) ||
      (seq.get(a.id) ?? Infinity) - (seq.get(b.id) ?? Infinity),
  );
  const last = batch.view.events.at(-1);
  const released = batch.standing.released;
  const aside = batch.state.jars.filter(j => j.setAside);
  const who = (id: string) => batch.view.people[id] ?? 'you';
  const rows = order.flatMap(event => {
    if (event.type === 'entry.corrected' && byId.has(event.body.replaces)) return [];
    const own = order.filter(e => e.type === 'entry.corrected' && e.body.replaces === event.id);
    return [{ event, correction: false }, ...own.map(e => ({ event: e, correction: true }))];
  });
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
      <Stack>
        <Sheet>
          <Facts
            of={[
              ['Authority', `${started.route.what} ${started.route.why}`],
              [
                'Process',
                started.times
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
                  last entry {last?.seq},{' '}
                  <Box component="span" sx={{ overflowWrap: 'anywhere', fontSize: '0.9rem' }}>
                    {last?.hash}
                  </Box>
                </>,
              ],
            ]}
          />
        </Sheet>
        <Sheet title="Every entry">
          <List
            label="Every entry"
            minWidth={640}
            rows={rows}
            keyOf={r => r.event.id}
            rowSx={r => (r.correction ? { '& td': { bgcolor: 'live.tint', pl: 1 } } : undefined)}
            columns={[
              {
                head: 'No.',
                whole: true,
                sx: { color: 'text.secondary' },
                cell: ({ event }) => seq.get(event.id) ?? 'on its way',
              },
              {
                head: 'When',
                sx: { whiteSpace: { sm: 'nowrap' } },
                cell: ({ event }) => (
                  <>
                    {instantText(correctedInstant_ms(event), kitchen, true)}
                    {event.typedInAfterwards && (
                      <Box>
                        <Tag tone="live">typed in afterwards</Tag>
                      </Box>
                    )}
                  </>
                ),
              },
              {
                head: 'Who',
                sx: { whiteSpace: { sm: 'nowrap' } },
                cell: ({ event }) => who(event.personId),
              },
              {
                head: 'What',
                cell: ({ event, correction }) => (
                  <>
                    {correction && event.type === 'entry.corrected' && (
                      <Soft>Correction of entry {seq.get(event.body.replaces)}. </Soft>
                    )}
                    <Box
                      component="span"
                      sx={
                        batch.state.corrections[event.id]
                          ? { textDecoration: 'line-through', color: 'text.secondary' }
                          : undefined
                      }
                    >
                      {eventWords(event, started.recipe, kitchen)}
                    </Box>
                  </>
                ),
              },
              {
                head: 'Action',
                action: true,
                cell: ({ event }) =>
                  mayCorrect &&
                  !isDecision(event.type) &&
                  event.type !== 'entry.corrected' &&
                  seq.has(event.id) && (
                    <Button
                      size="small"
                      variant="outlined"
                      className="no-print"
                      aria-label={`Correct entry ${seq.get(event.id)}`}
                      onClick={() => setCorrecting(event)}
                    >
                      Correct
                    </Button>
                  ),
              },
            ]}
          />
        </Sheet>
      </Stack>
      {correcting && <CorrectDialog batch={batch} event={correcting} onClose={() => setCorrecting(null)} />}
    </>
  );
}
