import { recordSheet } from '@cocotte/contract';
import { type BatchEvent, correctedInstant_ms, isDecision } from '@cocotte/core/batches';
import { altitudeText, dayText, instantText, rangesText } from '@cocotte/core/measure';
import { jarCountText } from '@cocotte/core/jars';
import { eventWords } from '@cocotte/core/records';
import { Box, Button, Table, TableBody, TableCell, TableHead, TableRow } from '@mui/material';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { type OpenBatch, useBatch } from '../batches/api.ts';
import { addressOf, faultsOf } from '../shell/call.ts';
import { Aloud, Faults, Sheet, Soft, Tag, ViewHead } from '../shell/parts.tsx';
import { useHere, useMay } from '../shell/session.tsx';
import { Waiting } from '../shell/Shell.tsx';
import { CorrectDialog } from './CorrectDialog.tsx';

/** The batch on one page: every entry, who and when, corrections beside what they correct. */
export function RecordPage() {
  const { batchId = '' } = useParams();
  const { batch, error } = useBatch(batchId);
  if (error && !batch) return <Faults faults={faultsOf(error)} />;
  if (!batch) return <Waiting />;
  return <Record batch={batch} />;
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
  const who = (id: string) => batch.view.people[id] ?? 'you';
  const row = (event: BatchEvent, correction: boolean) => (
    <TableRow key={event.id} sx={correction ? { '& td': { bgcolor: 'live.tint', pl: 1 } } : undefined}>
      <TableCell sx={{ color: 'text.secondary', whiteSpace: 'nowrap' }}>
        {seq.get(event.id) ?? 'on its way'}
      </TableCell>
      <TableCell sx={{ whiteSpace: { sm: 'nowrap' } }}>
        {instantText(correctedInstant_ms(event), kitchen, true)}
        {event.typedInAfterwards && (
          <Box>
            <Tag tone="live">typed in afterwards</Tag>
          </Box>
        )}
      </TableCell>
      <TableCell sx={{ whiteSpace: { sm: 'nowrap' } }}>{who(event.personId)}</TableCell>
      <TableCell>
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
      </TableCell>
      <TableCell align="right">
        {mayCorrect && !isDecision(event.type) && event.type !== 'entry.corrected' && seq.has(event.id) && (
          <Button
            size="small"
            variant="outlined"
            className="no-print"
            aria-label={`Correct entry ${seq.get(event.id)}`}
            onClick={() => setCorrecting(event)}
          >
            Correct
          </Button>
        )}
      </TableCell>
    </TableRow>
  );
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
      <Box sx={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr)', gap: 2 }}>
        <Sheet>
          <Box
            component="dl"
            sx={{
              display: 'grid',
              gridTemplateColumns: { xs: '1fr', sm: '150px 1fr' },
              columnGap: 2,
              rowGap: 0.75,
              m: 0,
              '& dt': { color: 'text.secondary' },
              '& dd': { m: 0 },
            }}
          >
            <dt>Authority</dt>
            <dd>
              {started.route.what} {started.route.why}
            </dd>
            <dt>Process</dt>
            <dd>
              {started.times
                .map(
                  t =>
                    `${jarCountText(1, t.jarSize).slice(2)}: ${t.minutes} min at ${altitudeText(t.altitude_m, kitchen)} (${t.band}), row ${t.rowId}`,
                )
                .join('; ') || started.noTime.map(n => n.what).join(' ')}
            </dd>
            <dt>Jars</dt>
            <dd>
              {batch.state.jars.length} filled{released.length > 0 && <>, released {rangesText(released)}</>}
              {batch.state.jars.some(j => j.setAside) && (
                <>
                  , set aside{' '}
                  {batch.state.jars
                    .filter(j => j.setAside)
                    .map(j => `${j.number} (${j.setAside?.why})`)
                    .join(', ')}
                </>
              )}
            </dd>
            <dt>Chain</dt>
            <dd>
              last entry {last?.seq},{' '}
              <Box component="span" sx={{ overflowWrap: 'anywhere', fontSize: '0.9rem' }}>
                {last?.hash}
              </Box>
            </dd>
          </Box>
        </Sheet>
        <Sheet title="Every entry" sx={{ overflowX: 'auto' }}>
          <Table size="small" sx={{ minWidth: 640 }}>
            <TableHead>
              <TableRow>
                <TableCell>No.</TableCell>
                <TableCell>When</TableCell>
                <TableCell>Who</TableCell>
                <TableCell>What</TableCell>
                <TableCell>
                  <Aloud>Action</Aloud>
                </TableCell>
              </TableRow>
            </TableHead>
            <TableBody>
              {order.flatMap(event => {
                if (event.type === 'entry.corrected' && byId.has(event.body.replaces)) return [];
                const own = order.filter(e => e.type === 'entry.corrected' && e.body.replaces === event.id);
                return [row(event, false), ...own.map(e => row(e, true))];
              })}
            </TableBody>
          </Table>
        </Sheet>
      </Box>
      {correcting && <CorrectDialog batch={batch} event={correcting} onClose={() => setCorrecting(null)} />}
    </>
  );
}
