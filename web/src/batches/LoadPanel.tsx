import {
  loadable,
  type LoadPhase,
  loadPlan,
  type LoadState,
  type NextLoad,
  nextLoads,
} from '@cocotte/core/batches';
import { jarSize, rack_mm, waterToStart_mL } from '@cocotte/core/jars';
import {
  clockText,
  depthText,
  durationText,
  numberText,
  rangesText,
  volumeText,
  warmthText,
} from '@cocotte/core/measure';
import { START_WATER_C, waterCover_mm } from '@cocotte/core/times';
import { Box, Button, Dialog, DialogActions, DialogContent, DialogTitle, Typography } from '@mui/material';
import { useState } from 'react';
import { v7 } from 'uuid';
import { Switcher } from '../kit/controls.tsx';
import { CannerGlyph } from '../kit/jars.tsx';
import { Cells } from '../kit/layout.tsx';
import { Caution, Sheet, Soft, Tag } from '../kit/parts.tsx';
import { AllBut } from './AllBut.tsx';
import type { Fact, OpenBatch } from './open-batch.ts';
import { useUndo } from './Undo.tsx';
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

const canningNames: { readonly [K in NextLoad['heat']]: 'load.water' | 'load.steam' } = {
  'boiling water': 'load.water',
  steam: 'load.steam',
};

/** The next load: fresh jars, or jars that go back in with new lids; no more than stand in the canner. */
export function LoadEntry({ batch, when }: { batch: OpenBatch; when: When }) {
  const { kitchen } = useHere();
  const now = useNow();
  const among = loadable(batch.state);
  const lids = uniqueLots(batch.state.draws.flatMap(d => d.lots).filter(l => l.kind === 'lid'));
  const again = among.length > 0 && among.every(j => j.loadIds.length > 0);
  const [lidLot, setLidLot] = useState('');
  const newLid = lidLot || lids[0]?.lotId || '';
  const [asked, setAsked] = useState<number[] | null>(null);
  const [chosen, setChosen] = useState<string | null>(null);
  const { enter, offer } = useUndo(batch, when);
  if (among.length === 0) return offer ? <Sheet>{offer}</Sheet> : null;
  const loads = nextLoads(batch.state, kitchen.canners);
  const nameOf = (l: NextLoad) => l.canner?.name ?? say(canningNames[l.heat]);
  const idOf = (l: NextLoad) => l.canner?.id ?? l.heat;
  const load = loads.find(l => idOf(l) === chosen) ?? (loads[0] as NextLoad);
  const waiting = among.filter(j => again || j.loadIds.length === 0);
  const jars = load.jars;
  const plan = loadPlan(batch.state, load, jars);
  const number = Math.max(0, ...batch.state.loads.map(l => l.number)) + 1;
  const hotPack = plan.times.some(t => t.pack === 'hot');
  const waited = waiting.some(j => now - j.filled.at_ms > HOT_WAIT_MS);
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
          cannerId: load.canner?.id ?? null,
          heat: load.heat,
        },
      ],
    ]);
  return (
    <Sheet title={`Load ${number}`} aside={again ? 'processed again' : 'into the canner'}>
      {loads.length > 1 && (
        <Switcher
          label={say('load.canner')}
          value={idOf(load)}
          of={loads.map(l => [idOf(l), l.busy ? say('load.inUse', { name: nameOf(l) }) : nameOf(l)] as const)}
          onPick={setChosen}
          fullWidth
          sx={{ mb: 1.5 }}
        />
      )}
      <Cells wide="minmax(150px, 220px) 1fr" gap={2.5}>
        <CannerGlyph
          jars={jars}
          holds={load.holds}
          free={Array.from({ length: plan.free }, () => jars[0]?.size ?? 'pint')}
        />
        <Box>
          <Box sx={{ fontSize: '1.5rem', fontWeight: 700 }}>
            {jars.length === waiting.length
              ? say('load.all', { n: jars.length })
              : say('load.some', { n: jars.length, of: waiting.length })}
          </Box>
          <Typography>{again ? say('load.again') : say('load.rack')}</Typography>
          {plan.minutes !== null && (
            <Typography sx={{ mt: 0.5 }}>
              {plan.shorter.length === 0
                ? say('load.runs', { minutes: plan.minutes })
                : say('load.mixed', {
                    minutes: plan.minutes,
                    shorter: plan.shorter
                      .map(s => `${jarSize(s.size).plural} ${numberText(s.minutes, kitchen)}`)
                      .join(', '),
                  })}
            </Typography>
          )}
          {plan.minutes !== null && jars.length > 0 && (
            <Soft>
              {load.heat === 'steam'
                ? say('load.steam.begin')
                : say('load.water.begin', {
                    water: volumeText(
                      waterToStart_mL(
                        rack_mm(load.holds),
                        jars.map(j => j.size),
                        waterCover_mm(plan.minutes),
                      ),
                      kitchen,
                    ),
                    warmth: warmthText(hotPack ? START_WATER_C.hot : START_WATER_C.raw, kitchen),
                    cover: depthText(waterCover_mm(plan.minutes), kitchen),
                  })}
            </Soft>
          )}
          {plan.free > 0 && <Soft>{say('load.free', { n: plan.free })}</Soft>}
        </Box>
      </Cells>
      {again && (
        <Switcher
          label="New lids from"
          value={newLid}
          of={lids.map(l => [l.lotId, l.lotLabel] as const)}
          onPick={setLidLot}
          sx={{ mt: 1.5 }}
        />
      )}
      {load.unfit.map(u => (
        <Caution key={u.size}>
          {say('load.unfit', {
            size: jarSize(u.size).plural,
            why: u.why === 'no-room' ? say('load.noRoom', { name: nameOf(load) }) : u.why,
          })}
        </Caution>
      ))}
      {load.busy && <Caution>{say('load.busy', { name: nameOf(load) })}</Caution>}
      {!again && hotPack && waited && <Caution>{say('load.waited')}</Caution>}
      {again && <Caution>{say(hotPack ? 'load.again.hot' : 'load.again.raw')}</Caution>}
      {jars.length > 0 && (
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
      )}
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

/** Beyond this a longer boil shows in the jar: soft pieces, a dark colour, a thin set. Our choice, from no source. */
const OVER_SHOWS_S = 5 * 60;
const overTime_s = (l: LoadState) =>
  l.time_s === null || l.required_s === null || l.time_s - l.required_s < OVER_SHOWS_S
    ? 0
    : l.time_s - l.required_s;

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
          {overTime_s(l) > 0 && <Soft>{say('load.over', { time: durationText(overTime_s(l)) })}</Soft>}
          {l.lifted && (
            <Soft>{say('load.lids', { lot: batch.state.started?.lotCode ?? '', load: l.number })}</Soft>
          )}
        </Box>
      ))}
    </Sheet>
  );
}
