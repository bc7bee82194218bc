import { type LoadPhase } from '@cocotte/core/batches';
import type { JarState } from '@cocotte/core/batches';
import { MM_PER_INCH, mixedText, rangesText, readRanges } from '@cocotte/core/measure';
import { type JarSizeId, jarCountText, jarSize } from '@cocotte/core/jars';
import type { Line } from '@cocotte/core/recipes';
import { Box, Button, MenuItem, TextField, Typography } from '@mui/material';
import { useState } from 'react';
import { v7 } from 'uuid';
import { JarShelf } from '../shell/jars.tsx';
import { Caution, Fractions, Sheet, Soft, Tag } from '../shell/parts.tsx';
import type { OpenBatch } from './api.ts';
import type { When } from './when.ts';

/** Jars that one canner holds, proposed for the next load where the kitchen has none on record. Common practice for a round canner. */
const CANNER_HOLDS: Record<JarSizeId, number> = {
  'quarter-pint': 12,
  'half-pint': 8,
  'three-quarter-pint': 8,
  pint: 9,
  'pint-and-a-half': 7,
  quart: 7,
  'half-gallon': 4,
};

/** Filling, dosing and loading: by count and by "all but". */
export function JarPanel({ batch, when }: { batch: OpenBatch; when: When }) {
  const forms = new Map(batch.standing.forms.map(f => [f.number, f.form]));
  const started = batch.state.started as NonNullable<typeof batch.state.started>;
  const shelf = batch.state.jars.map(j => ({
    number: j.number,
    size: j.size,
    form: forms.get(j.number) ?? ('filled' as const),
  }));
  const planned = started.jars.reduce((n, j) => n + j.count, 0);
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr)', gap: 2 }}>
      <Sheet title="Jars" aside={`${batch.state.jars.length} of ${planned} filled`}>
        {shelf.length > 0 ? <JarShelf jars={shelf} /> : <Soft>No jar is filled yet.</Soft>}
      </Sheet>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: 'minmax(0, 1fr) minmax(0, 1fr)' },
          gap: 2,
          alignItems: 'start',
        }}
      >
        <FillEntry batch={batch} when={when} />
        <Box sx={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr)', gap: 2 }}>
          {started.recipe.lines
            .filter(l => l.where === 'each jar')
            .map(line => (
              <DoseEntry key={line.id} batch={batch} line={line} when={when} />
            ))}
          <LoadEntry batch={batch} when={when} />
        </Box>
      </Box>
      <LoadList batch={batch} />
    </Box>
  );
}

function FillEntry({ batch, when }: { batch: OpenBatch; when: When }) {
  const started = batch.state.started as NonNullable<typeof batch.state.started>;
  const filled = (size: JarSizeId) => batch.state.jars.filter(j => j.size === size).length;
  const open = started.jars.find(j => filled(j.size) < j.count) ?? started.jars[0];
  const [sizeChosen, setSize] = useState<JarSizeId | null>(null);
  const size = sizeChosen ?? open?.size ?? 'pint';
  const left = Math.max(0, (started.jars.find(j => j.size === size)?.count ?? 0) - filled(size));
  const proposed = Math.max(1, Math.min(left || 1, CANNER_HOLDS[size]));
  const [countChosen, setCount] = useState<number | null>(null);
  const count = countChosen ?? proposed;
  const drawn = batch.state.draws.flatMap(d => d.lots);
  const jarLots = drawn.filter(l => l.kind === 'jar' && l.jarSize === size);
  const lidLots = drawn.filter(l => l.kind === 'lid');
  const [jarLotChosen, setJarLot] = useState<string | null>(null);
  const [lidLotChosen, setLidLot] = useState<string | null>(null);
  const jarLotId = jarLotChosen ?? jarLots[0]?.lotId ?? '';
  const lidLotId = lidLotChosen ?? lidLots[0]?.lotId ?? '';
  const time = started.times.find(t => t.jarSize === size);
  const fill = async () => {
    const first = Math.max(0, ...batch.state.jars.map(j => j.number)) + 1;
    const jars = Array.from({ length: count }, (_, i) => first + i);
    if (
      await batch.enter(
        [['jars.filled', { size, jars, jarLotId: jarLotId || null, lidLotId: lidLotId || null }]],
        when,
      )
    )
      setCount(null);
  };
  const step = (by: number) => setCount(Math.max(1, Math.min(200, count + by)));
  return (
    <Sheet
      title="Fill"
      aside={
        time && (
          <Fractions
            text={`${time.pack} pack, ${time.jars} jars, ${mixedText(time.headspace_mm / MM_PER_INCH, true)} in headspace`}
          />
        )
      }
    >
      <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr' }, gap: 1.5, mt: 1 }}>
        {started.jars.length > 1 && (
          <TextField
            select
            label="Jar size"
            value={size}
            onChange={e => {
              setSize(e.target.value as JarSizeId);
              setCount(null);
              setJarLot(null);
            }}
          >
            {started.jars.map(j => (
              <MenuItem key={j.size} value={j.size}>
                {jarSize(j.size).name}
              </MenuItem>
            ))}
          </TextField>
        )}
        <TextField select label="Jar lot" value={jarLotId} onChange={e => setJarLot(e.target.value)}>
          <MenuItem value="">not drawn</MenuItem>
          {uniqueLots(jarLots).map(l => (
            <MenuItem key={l.lotId} value={l.lotId}>
              {l.lotLabel}
            </MenuItem>
          ))}
        </TextField>
        <TextField select label="Lid lot" value={lidLotId} onChange={e => setLidLot(e.target.value)}>
          <MenuItem value="">not drawn</MenuItem>
          {uniqueLots(lidLots).map(l => (
            <MenuItem key={l.lotId} value={l.lotId}>
              {l.lotLabel}
            </MenuItem>
          ))}
        </TextField>
      </Box>
      <Box sx={{ display: 'flex', alignItems: 'center', justifyContent: 'center', gap: 2, my: 2 }}>
        <Button
          variant="outlined"
          aria-label="One jar fewer"
          onClick={() => step(-1)}
          sx={{ minWidth: 64, minHeight: 64, fontSize: '1.6rem', borderRadius: '50%' }}
        >
          –
        </Button>
        <Box
          aria-live="polite"
          sx={{ fontSize: '3rem', fontWeight: 700, minWidth: 90, textAlign: 'center', lineHeight: 1 }}
        >
          {count}
        </Box>
        <Button
          variant="outlined"
          aria-label="One jar more"
          onClick={() => step(1)}
          sx={{ minWidth: 64, minHeight: 64, fontSize: '1.6rem', borderRadius: '50%' }}
        >
          +
        </Button>
      </Box>
      <Button
        fullWidth
        variant={left > 0 ? 'contained' : 'outlined'}
        sx={{ minHeight: 68, fontSize: '1.15rem' }}
        onClick={() => void fill()}
      >
        {jarCountText(count, size)} {left > 0 ? 'filled' : 'more filled'}
      </Button>
      <Caution>
        Hot food in hot jars, a cloth under them. A part-filled jar goes to the refrigerator, never to the
        shelf.
      </Caution>
    </Sheet>
  );
}

function uniqueLots<T extends { lotId: string }>(lots: T[]): T[] {
  return [...new Map(lots.map(l => [l.lotId, l])).values()];
}

/** "All but these": the numbers left out, typed; empty for none. */
function AllBut({
  label,
  among,
  action,
  onTake,
}: {
  label: string;
  among: number[];
  action: (n: number) => string;
  onTake: (taken: number[], left: number[]) => Promise<boolean>;
}) {
  const [text, setText] = useState('');
  const [fault, setFault] = useState('');
  const out = readRanges(text) ?? [];
  const taken = among.filter(n => !out.includes(n));
  const take = async () => {
    const left = readRanges(text);
    if (left === null || left.some(n => !among.includes(n))) {
      setFault(`Enter jar numbers among ${rangesText(among)}, such as 3, 5-6.`);
      return;
    }
    if (taken.length === 0) {
      setFault('That leaves none.');
      return;
    }
    if (await onTake(taken, left)) setText('');
  };
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: '1fr', sm: '1.3fr 1fr' },
        gap: 1.5,
        mt: 1.5,
        alignItems: 'start',
      }}
    >
      <Button variant="contained" sx={{ minHeight: 60, order: { sm: 0 } }} onClick={() => void take()}>
        {action(taken.length)}
      </Button>
      <TextField
        label={label}
        placeholder="none"
        value={text}
        onChange={e => {
          setText(e.target.value);
          setFault('');
        }}
        error={fault !== ''}
        helperText={fault}
      />
    </Box>
  );
}

function DoseEntry({ batch, line, when }: { batch: OpenBatch; line: Line; when: When }) {
  const waiting = batch.state.jars
    .filter(j => !j.setAside && j.doses[line.id] === undefined)
    .map(j => j.number);
  const given = batch.state.jars.filter(j => j.doses[line.id] === 'given').length;
  if (waiting.length === 0 && given === 0) return null;
  return (
    <Sheet title={`${line.name} in each jar`} aside={<>{given} given</>}>
      <Soft>
        <Fractions text={`${line.amount.text} in a pint, in proportion in other jars.`} />
      </Soft>
      {waiting.length === 0 ? (
        <Box sx={{ mt: 1 }}>
          <Tag tone="leaf">every filled jar</Tag>
        </Box>
      ) : (
        <AllBut
          label="All but jars"
          among={waiting}
          action={n => `Given to ${n === 1 ? '1 jar' : `${n} jars`}`}
          onTake={(taken, left) =>
            batch.enter(
              [
                ['dose.given', { lineId: line.id, jars: taken }],
                ...(left.length > 0
                  ? [
                      ['dose.missed', { lineId: line.id, jars: left }] as [
                        'dose.missed',
                        { lineId: string; jars: number[] },
                      ],
                    ]
                  : []),
              ],
              when,
            )
          }
        />
      )}
    </Sheet>
  );
}

/** Jars that may go in the canner next: never processed, short or failed before, and not set aside. */
function loadable(batch: OpenBatch): JarState[] {
  const loads = new Map(batch.state.loads.map(l => [l.id, l]));
  return batch.state.jars.filter(j => {
    if (j.setAside) return false;
    const load = loads.get(j.loadIds.at(-1) ?? '');
    if (!load) return true;
    return (
      load.lifted !== null &&
      (load.phase === 'short' || load.phase === 'unverified' || j.pressed?.sealed === false)
    );
  });
}

function LoadEntry({ batch, when }: { batch: OpenBatch; when: When }) {
  const among = loadable(batch);
  const lids = uniqueLots(batch.state.draws.flatMap(d => d.lots).filter(l => l.kind === 'lid'));
  const first = among.find(j => j.loadIds.length === 0);
  // Fresh jars and jars that go back in are separate loads.
  const jars = first ? among.filter(j => j.loadIds.length === 0) : among;
  const again = !first && jars.length > 0;
  const [lidLot, setLidLot] = useState('');
  const newLid = lidLot || lids[0]?.lotId || '';
  if (jars.length === 0) return null;
  const number = Math.max(0, ...batch.state.loads.map(l => l.number)) + 1;
  return (
    <Sheet title={`Load ${number}`} aside={again ? 'processed again' : 'into the canner'}>
      <Typography>
        {again
          ? 'These jars go back in with new lids, and the whole time runs again.'
          : 'On a rack, not touching, lids fingertip tight.'}
      </Typography>
      {again && (
        <TextField
          select
          label="New lids from"
          value={newLid}
          onChange={e => setLidLot(e.target.value)}
          sx={{ mt: 1.5 }}
        >
          {lids.map(l => (
            <MenuItem key={l.lotId} value={l.lotId}>
              {l.lotLabel}
            </MenuItem>
          ))}
        </TextField>
      )}
      <AllBut
        label="All but jars"
        among={jars.map(j => j.number)}
        action={n => `${n === 1 ? '1 jar' : `${n} jars`} in, load ${number}`}
        onTake={taken =>
          batch.enter(
            [
              [
                'load.packed',
                { loadId: v7(), number, jars: taken, newLidLotId: again ? newLid || null : null },
              ],
            ],
            when,
          )
        }
      />
    </Sheet>
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

function LoadList({ batch }: { batch: OpenBatch }) {
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
