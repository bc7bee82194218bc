import { termsOf } from '@cocotte/core/review';
import { useWorseLids } from '../../checks/history.ts';
import { depthText } from '@cocotte/core/measure';
import { isFlatLid, type JarSizeId, jarCountText, jarSize, USUAL_HOLDS } from '@cocotte/core/jars';
import { Box, Button } from '@mui/material';
import { useState } from 'react';
import { Switcher } from '../../kit/controls.tsx';
import { Cells } from '../../kit/layout.tsx';
import { Caution, Fractions, Sheet, Soft } from '../../kit/parts.tsx';
import { useHere } from '../../shell/session.tsx';
import { say } from '../../words/views.ts';
import { uniqueLots } from '../LoadPanel.tsx';
import type { OpenBatch } from '../open-batch.ts';
import { useUndo } from '../Undo.tsx';
import type { When } from '../when.ts';
import { GlassDialog } from './GlassDialog.tsx';

/** Headspaces that a jar may be found with, in millimetres, by what a kitchen measures in. */
const HEADSPACES = {
  US: [0, 3.175, 6.35, 9.525, 12.7, 15.875, 19.05, 25.4, 31.75, 38.1],
  metric: [0, 3, 6, 10, 13, 16, 19, 25, 32, 38],
} as const;

const lotChoices = (lots: { lotId: string; lotLabel: string }[]) => [
  ['', 'not drawn'] as const,
  ...uniqueLots(lots).map(l => [l.lotId, l.lotLabel] as const),
];

/** Filling by count, of any size its time covers, with the headspace where it departs from what is asked. */
export function FillEntry({ batch, when }: { batch: OpenBatch; when: When }) {
  const started = batch.state.started as NonNullable<typeof batch.state.started>;
  /** What was planned, then every other size that its time covers: an odd jar takes what is left. */
  const planned = started.jars.map(j => j.size);
  const sizes = [...planned, ...started.times.map(t => t.jarSize).filter(s => !planned.includes(s))];
  const filled = (size: JarSizeId) => batch.state.jars.filter(j => j.size === size).length;
  const open = started.jars.find(j => filled(j.size) < j.count) ?? started.jars[0];
  const [sizeChosen, setSize] = useState<JarSizeId | null>(null);
  const size = sizeChosen ?? open?.size ?? 'pint';
  const left = Math.max(0, (started.jars.find(j => j.size === size)?.count ?? 0) - filled(size));
  const { kitchen } = useHere();
  const holds = kitchen.canners.map(c => c.holds[size] ?? 0);
  const atOnce = Math.max(0, ...holds) || USUAL_HOLDS[size];
  const proposed = Math.max(1, Math.min(left || 1, atOnce));
  const [countChosen, setCount] = useState<number | null>(null);
  const count = countChosen ?? proposed;
  const drawn = batch.state.draws.flatMap(d => d.lots);
  const jarLots = drawn.filter(l => l.kind === 'jar' && l.jarSize === size);
  const lidLots = drawn.filter(l => l.kind === 'lid');
  const [jarLotChosen, setJarLot] = useState<string | null>(null);
  const [lidLotChosen, setLidLot] = useState<string | null>(null);
  const jarLotId = jarLotChosen ?? jarLots[0]?.lotId ?? '';
  const worse = useWorseLids(!batch.rehearsal).ids;
  const lidLotId = lidLotChosen ?? (lidLots.find(l => !worse.has(l.lotId)) ?? lidLots[0])?.lotId ?? '';
  const time = started.times.find(t => t.jarSize === size);
  const [more, setMore] = useState(false);
  const [glass, setGlass] = useState(false);
  const [spaceChosen, setSpace] = useState('');
  // A letter that names another closure than flat lids has it proposed.
  const named = termsOf(started.recipe)?.closure ?? '';
  const byLetter = isFlatLid(named) ? '' : named;
  const [closure, setClosure] = useState(byLetter);
  const headspace_mm = spaceChosen === '' ? null : Number(spaceChosen);
  const { enter, offer } = useUndo(batch, when);
  const fill = async () => {
    const first = Math.max(0, ...batch.state.jars.map(j => j.number)) + 1;
    const jars = Array.from({ length: count }, (_, i) => first + i);
    const body = {
      size,
      jars,
      jarLotId: jarLotId || null,
      lidLotId: lidLotId || null,
      headspace_mm,
      closure,
    };
    if (await enter(`${jarCountText(count, size)} filled`, [['jars.filled', body]])) {
      setCount(null);
      setSpace('');
    }
  };
  const allFilled = started.jars.every(j => filled(j.size) >= j.count);
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
      {allFilled && !more ? (
        <>
          <Button variant="outlined" fullWidth sx={{ minHeight: 56 }} onClick={() => setMore(true)}>
            {say('fill.more')}
          </Button>
          {offer}
        </>
      ) : (
        <>
          <Cells gap={1.5}>
            {sizes.length > 1 && (
              <Switcher
                label="Jar size"
                value={size}
                of={sizes.map(
                  s =>
                    [
                      s,
                      started.jars.some(j => j.size === s)
                        ? jarSize(s).name
                        : `${jarSize(s).name}, not planned`,
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
            {(byLetter !== '' || more) && (
              <Switcher
                label={say('fill.closure')}
                value={closure}
                of={[
                  ['', say('fill.closure.flat')],
                  ...(byLetter === '' ? [] : [[byLetter, byLetter] as const]),
                  ['another', say('fill.closure.other')],
                ]}
                onPick={setClosure}
              />
            )}
            {time && (
              <Switcher
                label={say('fill.headspace')}
                value={spaceChosen}
                of={[
                  [
                    '',
                    say('fill.headspace.asked', { depth: depthText(time.headspace_mm, kitchen) }),
                  ] as const,
                  ...HEADSPACES[kitchen.measures]
                    .filter(mm => Math.abs(mm - time.headspace_mm) > 1)
                    .map(mm => [String(mm), depthText(mm, kitchen)] as const),
                ]}
                onPick={setSpace}
              />
            )}
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
          {headspace_mm !== null && time && (
            <Soft>
              {say(headspace_mm > time.headspace_mm ? 'fill.headspace.more' : 'fill.headspace.less')}
            </Soft>
          )}
          <Button sx={{ minHeight: 48, mt: 1 }} onClick={() => setGlass(true)}>
            {say('glass.ask')}
          </Button>
          {glass && <GlassDialog batch={batch} when={when} onClose={() => setGlass(false)} />}
          {offer}
          <Caution>{say('fill.caution')}</Caution>
        </>
      )}
    </Sheet>
  );
}
