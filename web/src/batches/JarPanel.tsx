import { sterilise_min } from '@cocotte/core/heat';
import { depthText, type Fault, Fraction, numberText } from '@cocotte/core/measure';
import { type JarSizeId, jarCountText, jarSize } from '@cocotte/core/jars';
import { type Line, scaleRecipe } from '@cocotte/core/recipes';
import { Box, Button } from '@mui/material';
import { returnLots } from '@cocotte/contract';
import { unusedOf } from '@cocotte/core/batches';
import { useState } from 'react';
import { Switcher } from '../kit/controls.tsx';
import { EntryForm } from '../kit/EntryForm.tsx';
import { Figure } from '../kit/fields.tsx';
import { useTyped } from '../kit/form.ts';
import { JarShelf } from '../kit/jars.tsx';
import { Cells, Columns, Stack } from '../kit/layout.tsx';
import { Caution, Faults, Fractions, Sheet, Soft, Tag } from '../kit/parts.tsx';
import { useRead } from '../kit/readers.ts';
import { call } from '../shell/call.ts';
import { useHere, useMay } from '../shell/session.tsx';
import { useStockChanged } from '../stores/api.ts';
import { AllBut } from './AllBut.tsx';
import type { Fact, OpenBatch } from './open-batch.ts';
import { ColdJars } from './ColdJars.tsx';
import { WeighJars } from './WeighJars.tsx';
import { LoadEntry, LoadList, uniqueLots } from './LoadPanel.tsx';
import { useUndo } from './Undo.tsx';
import type { When } from './when.ts';
import { say } from '../words/views.ts';

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
    <Stack>
      <Sheet title="Jars" aside={`${batch.state.jars.length} of ${planned} filled`}>
        {shelf.length > 0 ? <JarShelf jars={shelf} /> : <Soft>No jar is filled yet.</Soft>}
      </Sheet>
      <Columns>
        <Stack>
          <BoiledEntry batch={batch} when={when} />
          <FillEntry batch={batch} when={when} />
          <LeftOver batch={batch} />
          <ColdJars batch={batch} />
        </Stack>
        <Stack>
          {started.recipe.lines
            .filter(l => l.where === 'each jar')
            .map(line => (
              <DoseEntry key={line.id} batch={batch} line={line} when={when} />
            ))}
          <LoadEntry batch={batch} when={when} />
          <WeighJars batch={batch} when={when} />
        </Stack>
      </Columns>
      <LoadList batch={batch} />
    </Stack>
  );
}

/** Where a time keeps sterile jars, one tick that they were boiled, and how long. */
function BoiledEntry({ batch, when }: { batch: OpenBatch; when: When }) {
  const { kitchen } = useHere();
  const read = useRead();
  const { times, kitchen: there } = batch.state.started as NonNullable<typeof batch.state.started>;
  const least = sterilise_min(there.altitude_m);
  const form = useTyped({ minutes: numberText(least, kitchen) }, () => ({
    minutes: read.figure({ name: 'The minutes', min: 0, above: true, max: 180 }),
  }));
  const enter = form.submit(async v => {
    await batch.enter([['jars.boiled', v]], when);
  });
  if (!times.some(t => t.jars === 'sterile' && t.method === 'boiling water')) return null;
  const longest = Math.max(0, ...batch.state.boiled.map(b => b.minutes));
  return (
    <Sheet
      title={say('jars.boiled.title')}
      aside={
        longest > 0 && (
          <Tag tone={longest >= least ? 'leaf' : 'ox'}>{say('jars.boiled', { minutes: longest })}</Tag>
        )
      }
    >
      <Soft>{say('jars.boiled.why', { minutes: least })}</Soft>
      {longest < least && (
        <EntryForm form={form} action={say('jars.boiled.enter')} onSubmit={enter} tall>
          <Figure at={form.at('minutes')} label={say('jars.boiled.for')} unit="minutes" />
        </EntryForm>
      )}
    </Sheet>
  );
}

/** Filling is done: what is left is asked once. */
function LeftOver({ batch }: { batch: OpenBatch }) {
  const changed = useStockChanged();
  const mayCook = useMay('cook');
  const [faults, setFaults] = useState<Fault[]>([]);
  const started = batch.state.started as NonNullable<typeof batch.state.started>;
  const isDone = started.jars.every(
    j =>
      batch.state.jars.filter(f => f.size === j.size && f.setAside?.why !== 'part-filled').length >= j.count,
  );
  if (!isDone || batch.state.loads.some(l => l.lifted !== null)) return null;
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
      <Soft>{say('left.why')}</Soft>
      {unused.length > 0 && mayCook && (
        <Button variant="outlined" fullWidth sx={{ minHeight: 56, mt: 1.5 }} onClick={() => void putBack()}>
          {say('left.back', { what: unused.map(u => `${u.count} ${u.name}`).join(', ') })}
        </Button>
      )}
      <Faults faults={faults} />
    </Sheet>
  );
}

function FillEntry({ batch, when }: { batch: OpenBatch; when: When }) {
  const started = batch.state.started as NonNullable<typeof batch.state.started>;
  /** What was planned, then every other size that its time covers: an odd jar takes what is left. */
  const planned = started.jars.map(j => j.size);
  const sizes = [...planned, ...started.times.map(t => t.jarSize).filter(s => !planned.includes(s))];
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
  const { kitchen } = useHere();
  const time = started.times.find(t => t.jarSize === size);
  const { enter, offer } = useUndo(batch, when);
  const fill = async () => {
    const first = Math.max(0, ...batch.state.jars.map(j => j.number)) + 1;
    const jars = Array.from({ length: count }, (_, i) => first + i);
    const body = { size, jars, jarLotId: jarLotId || null, lidLotId: lidLotId || null };
    if (await enter(`${jarCountText(count, size)} filled`, [['jars.filled', body]])) setCount(null);
  };
  /** The last one is not full: it goes to the refrigerator as it is filled, and never to the shelf. */
  const fillPart = async () => {
    const number = Math.max(0, ...batch.state.jars.map(j => j.number)) + 1;
    await enter(say('jars.partFilled'), [
      ['jars.filled', { size, jars: [number], jarLotId: jarLotId || null, lidLotId: lidLotId || null }],
      ['jars.set_aside', { jars: [number], why: 'part-filled' }],
    ]);
  };
  const step = (by: number) => setCount(Math.max(1, Math.min(200, count + by)));
  return (
    <Sheet
      title="Fill"
      aside={
        time && (
          <Fractions
            text={`${time.pack} pack, ${time.jars} jars, ${depthText(time.headspace_mm, kitchen)} headspace`}
          />
        )
      }
    >
      <Cells gap={1.5}>
        {sizes.length > 1 && (
          <Switcher
            label="Jar size"
            value={size}
            of={sizes.map(
              s =>
                [
                  s,
                  started.jars.some(j => j.size === s) ? jarSize(s).name : `${jarSize(s).name}, not planned`,
                ] as const,
            )}
            onPick={(picked: JarSizeId) => {
              setSize(picked);
              setCount(null);
              setJarLot(null);
            }}
          />
        )}
        <Switcher label="Jar lot" value={jarLotId} of={lotChoices(jarLots)} onPick={setJarLot} />
        <Switcher label="Lid lot" value={lidLotId} of={lotChoices(lidLots)} onPick={setLidLot} />
      </Cells>
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
      <Button fullWidth variant="outlined" sx={{ minHeight: 56, mt: 1.5 }} onClick={() => void fillPart()}>
        {say('jars.partFilled')}
      </Button>
      {offer}
      <Caution>
        Hot food in hot jars, a cloth under them. A part-filled jar goes to the refrigerator, never to the
        shelf.
      </Caution>
    </Sheet>
  );
}

const lotChoices = (lots: { lotId: string; lotLabel: string }[]) => [
  ['', 'not drawn'] as const,
  ...uniqueLots(lots).map(l => [l.lotId, l.lotLabel] as const),
];

/** The dose of each size that is there or planned, "1 Tbsp in a pint, 2 Tbsp in a quart". */
function dosesOf(state: OpenBatch['state'], line: Line): string {
  const { recipe, factor, jars } = state.started as NonNullable<OpenBatch['state']['started']>;
  const sizes = new Set([...jars.map(j => j.size), ...state.jars.map(j => j.size)]);
  const scaled = scaleRecipe(
    recipe,
    new Fraction(factor),
    [...sizes].map(size => ({ size, count: 1 })),
  );
  const doses = scaled.lines.find(l => l.lineId === line.id)?.eachJar ?? [];
  return doses.map(d => `${d.measure} in a ${jarSize(d.size).name}`).join(', ');
}

function DoseEntry({ batch, line, when }: { batch: OpenBatch; line: Line; when: When }) {
  const waiting = batch.state.jars
    .filter(j => !j.setAside && j.doses[line.id] === undefined)
    .map(j => j.number);
  const given = batch.state.jars.filter(j => j.doses[line.id]?.is === 'given').length;
  const { enter, offer } = useUndo(batch, when);
  if (waiting.length === 0 && given === 0) return null;
  return (
    <Sheet title={`${line.name} in each jar`} aside={<>{given} given</>}>
      <Soft>
        <Fractions text={`${dosesOf(batch.state, line)}.`} />
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
            enter(`${line.name}: given to ${taken.length}`, [
              ['dose.given', { lineId: line.id, jars: taken }],
              ...(left.length > 0 ? [['dose.missed', { lineId: line.id, jars: left }] as Fact] : []),
            ])
          }
        />
      )}
      {offer}
    </Sheet>
  );
}
