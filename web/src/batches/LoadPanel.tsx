import type { LoadPhase } from '@cocotte/core/batches';
import { clockText, rangesText } from '@cocotte/core/measure';
import { steamFault, steamLoadFault } from '@cocotte/core/times';
import { Box, Button, Dialog, DialogActions, DialogContent, DialogTitle, Typography } from '@mui/material';
import { useState } from 'react';
import { v7 } from 'uuid';
import { Switcher } from '../kit/controls.tsx';
import { Caution, Sheet, Soft, Tag } from '../kit/parts.tsx';
import { AllBut } from './AllBut.tsx';
import type { Fact, OpenBatch } from './open-batch.ts';
import { useUndo } from './Undo.tsx';
import { loadable } from './loadable.ts';
import { useNow } from '../shell/clock.ts';
import { useHere } from '../shell/session.tsx';
import { say } from '../words/views.ts';
import type { When } from './when.ts';

/** Each lot once. */
export function uniqueLots<T extends { lotId: string }>(lots: T[]): T[] {
  return [...new Map(lots.map(l => [l.lotId, l])).values()];
}

/** A hot pack that waits longer for the canner has cooled below what its time was tested for. Common practice. */
const HOT_WAIT_MS = 20 * 60_000;

/** The next load: fresh jars, or jars that go back in with new lids. */
export function LoadEntry({ batch, when }: { batch: OpenBatch; when: When }) {
  const { kitchen } = useHere();
  const now = useNow();
  const among = loadable(batch);
  const lids = uniqueLots(batch.state.draws.flatMap(d => d.lots).filter(l => l.kind === 'lid'));
  const first = among.find(j => j.loadIds.length === 0);
  // Fresh jars and jars that go back in are separate loads.
  const jars = first ? among.filter(j => j.loadIds.length === 0) : among;
  const again = !first && jars.length > 0;
  const [lidLot, setLidLot] = useState('');
  const newLid = lidLot || lids[0]?.lotId || '';
  const [asked, setAsked] = useState<number[] | null>(null);
  const [chosen, setChosen] = useState<'boiling water' | 'steam' | null>(null);
  const { enter, offer } = useUndo(batch, when);
  if (jars.length === 0) return offer ? <Sheet>{offer}</Sheet> : null;
  const number = Math.max(0, ...batch.state.loads.map(l => l.number)) + 1;
  const times = [...new Set(jars.map(j => j.size))].flatMap(
    size => batch.state.started?.times.filter(t => t.jarSize === size) ?? [],
  );
  const unfit = steamLoadFault(times);
  const hotPack = times.some(t => t.pack === 'hot');
  const waited = jars.some(j => now - j.filled.at_ms > HOT_WAIT_MS);
  const wanted = chosen ?? batch.state.started?.heat ?? 'boiling water';
  const acids = (batch.state.started?.recipe.lines ?? []).filter(
    l => l.where === 'each jar' && l.role === 'acid',
  );
  const lacking = (taken: readonly number[]) =>
    acids.flatMap(line => {
      const without = jars.filter(j => taken.includes(j.number) && j.doses[line.id] === undefined);
      return without.length === 0 ? [] : [{ line, jars: without.map(j => j.number) }];
    });
  const pack = (taken: number[], before: Fact[] = []) =>
    enter(`${rangesText(taken)} in load ${number}`, [
      ...before,
      [
        'load.packed',
        {
          loadId: v7(),
          number,
          jars: taken,
          newLidLotId: again ? newLid || null : null,
          cannerId: null,
          heat: wanted,
        },
      ],
    ]);
  const takesSteam =
    times.some(t => steamFault(t) === null) &&
    (batch.state.started?.heat === 'steam' || kitchen.canners.some(c => c.kind === 'steam'));
  return (
    <Sheet title={`Load ${number}`} aside={again ? 'processed again' : 'into the canner'}>
      <Typography>
        {again
          ? 'These jars go back in with new lids, and the whole time runs again.'
          : 'On a rack, not touching, lids fingertip tight.'}
      </Typography>
      {again && (
        <Switcher
          label="New lids from"
          value={newLid}
          of={lids.map(l => [l.lotId, l.lotLabel] as const)}
          onPick={setLidLot}
          sx={{ mt: 1.5 }}
        />
      )}
      {takesSteam && (
        <Switcher
          label="Heated in"
          value={wanted}
          of={['boiling water', ['steam', 'atmospheric steam']]}
          onPick={setChosen}
          sx={{ mt: 1.5 }}
        />
      )}
      {!again && hotPack && waited && <Caution>{say('load.waited')}</Caution>}
      {again && <Caution>{say(hotPack ? 'load.again.hot' : 'load.again.raw')}</Caution>}
      {wanted === 'steam' && unfit && (
        <Caution>Not for all of these jars: {unfit} Leave those out of this load.</Caution>
      )}
      <AllBut
        label="All but jars"
        among={jars.map(j => j.number)}
        action={n => `${n === 1 ? '1 jar' : `${n} jars`} in, load ${number}`}
        onTake={async taken => {
          // Acid goes in before the lids: a jar without it is asked about while it is still open.
          if (lacking(taken).length === 0) return pack(taken);
          setAsked(taken);
          return false;
        }}
      />
      {offer}
      {asked && (
        <AcidAsked
          lacking={lacking(asked)}
          count={asked.length}
          onGiven={() => {
            const given = lacking(asked).map((l): Fact => [
              'dose.given',
              { lineId: l.line.id, jars: l.jars },
            ]);
            setAsked(null);
            void pack(asked, given);
          }}
          onWithout={() => {
            const missed = lacking(asked).map((l): Fact => [
              'dose.missed',
              { lineId: l.line.id, jars: l.jars },
            ]);
            setAsked(null);
            void pack(asked, missed);
          }}
          onLeaveOut={() => {
            const out = new Set(lacking(asked).flatMap(l => l.jars));
            const left = asked.filter(n => !out.has(n));
            setAsked(null);
            if (left.length > 0) void pack(left);
          }}
          onClose={() => setAsked(null)}
        />
      )}
    </Sheet>
  );
}

/** Jars about to go in without their acid: asked before the lids go on. */
function AcidAsked({
  lacking,
  count,
  onGiven,
  onWithout,
  onLeaveOut,
  onClose,
}: {
  lacking: { line: { id: string; name: string }; jars: number[] }[];
  /** Jars of the load. */
  count: number;
  onGiven: () => void;
  /** They were closed without it: a fact, and they are held. */
  onWithout: () => void;
  onLeaveOut: () => void;
  onClose: () => void;
}) {
  const n = new Set(lacking.flatMap(l => l.jars)).size;
  return (
    <Dialog open onClose={onClose} aria-labelledby="acid-title">
      <DialogTitle id="acid-title" variant="h2">
        {lacking
          .map(l =>
            say('load.acid', {
              jars: l.jars.length === 1 ? `Jar ${l.jars[0]}` : `Jars ${rangesText(l.jars)}`,
              acid: l.line.name.toLowerCase(),
            }),
          )
          .join('; ')}
      </DialogTitle>
      <DialogContent>
        <Typography>{say('load.acid.why')}</Typography>
      </DialogContent>
      <DialogActions sx={{ p: 2, flexWrap: 'wrap', gap: 1 }}>
        <Button variant="outlined" onClick={onClose} sx={{ minHeight: 56 }}>
          {say('form.notNow')}
        </Button>
        <Button
          variant="outlined"
          color="error"
          onClick={onWithout}
          sx={{ minHeight: 56, color: 'ox.main', borderColor: 'ox.main' }}
        >
          {say('load.acid.without')}
        </Button>
        {n < count && (
          <Button variant="outlined" onClick={onLeaveOut} sx={{ minHeight: 56 }}>
            {say('load.acid.out', { n })}
          </Button>
        )}
        <Button variant="contained" onClick={onGiven} sx={{ minHeight: 56 }}>
          {say('load.acid.in')}
        </Button>
      </DialogActions>
    </Dialog>
  );
}

const PHASES: Record<LoadPhase, { words: string; tone: 'leaf' | 'live' | 'ox' | 'plain' }> = {
  packed: { words: 'waiting for the boil', tone: 'plain' },
  boiling: { words: 'boiling', tone: 'live' },
  'boil lost': { words: 'boil lost', tone: 'ox' },
  resting: { words: 'resting', tone: 'live' },
  processed: { words: 'processed', tone: 'leaf' },
  short: { words: 'short: jars held', tone: 'ox' },
  unverified: { words: 'time unverified: jars held', tone: 'ox' },
  'no time': { words: 'no processing time: jars held', tone: 'ox' },
};

/** Two people ended the same load on two devices, neither seeing the other: both are told. */
export function EndedTwice({ batch }: { batch: OpenBatch }) {
  const { kitchen, atCounter } = useHere();
  const nameOf = (id: string) =>
    batch.view.people[id] ?? atCounter.find(c => c.id === id)?.name ?? say('record.you');
  return batch.state.loads.flatMap(l =>
    l.echoes.map(e => (
      <Box key={e.eventId} role="status" sx={{ mb: 2 }}>
        <Sheet tone="live">
          <strong>Load {l.number}.</strong>{' '}
          {say('load.endedToo', {
            first: nameOf(l.heatOff?.personId ?? ''),
            at: l.heatOff ? clockText(l.heatOff.at_ms, kitchen, true) : '',
            name: nameOf(e.personId),
            time: clockText(e.at_ms, kitchen, true),
          })}
        </Sheet>
      </Box>
    )),
  );
}

/** Every load with what became of it. */
export function LoadList({ batch }: { batch: OpenBatch }) {
  if (batch.state.loads.length === 0) return null;
  return (
    <Sheet title="Loads">
      {batch.state.loads.map(l => (
        <Box
          key={l.id}
          sx={{
            display: 'flex',
            gap: 2,
            py: 1,
            flexWrap: 'wrap',
            alignItems: 'baseline',
            borderBottom: 1,
            borderColor: 'rule.main',
            '&:last-of-type': { borderBottom: 0 },
          }}
        >
          <strong>Load {l.number}</strong>
          <span>jars {rangesText(l.jars)}</span>
          <Tag tone={PHASES[l.phase]?.tone ?? 'plain'}>{PHASES[l.phase]?.words}</Tag>
          {l.time_s !== null && (
            <Soft>
              {Math.floor(l.time_s / 60)} min {Math.floor(l.time_s % 60)} s of {(l.required_s ?? 0) / 60} min,{' '}
              {l.timeHow}
            </Soft>
          )}
          {l.voided_s.length > 0 && <Soft>{l.voided_s.length} void before</Soft>}
        </Box>
      ))}
    </Sheet>
  );
}
