import { bottleCheck, type JarState } from '@cocotte/core/batches';
import { Fraction, numberText, rangesText } from '@cocotte/core/measure';
import { jarSize } from '@cocotte/core/jars';
import { type Line, scaleRecipe } from '@cocotte/core/recipes';
import { Box, Button } from '@mui/material';
import { useState } from 'react';
import { EntryForm } from '../../kit/EntryForm.tsx';
import { Figure } from '../../kit/fields.tsx';
import { useTyped } from '../../kit/form.ts';
import { JarShelf } from '../../kit/jars.tsx';
import { Caution, Fractions, Sheet, Soft, Tag } from '../../kit/parts.tsx';
import { useRead } from '../../kit/readers.ts';
import { useHere } from '../../shell/session.tsx';
import { say } from '../../words/views.ts';
import { AllBut } from '../AllBut.tsx';
import type { Fact, OpenBatch } from '../open-batch.ts';
import { useUndo } from '../Undo.tsx';
import type { When } from '../when.ts';

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

/** Whether it is poured or spooned as a powder: half or more of a dry one is solid. */
const isPowder = (line: Line) => line.solids_pct >= 50;

/** A spoon with what is on it: a level pool, or a levelled heap of grains. Two shapes, so that one is not taken for the other. */
function DoseGlyph({ powder }: { powder: boolean }) {
  const ink = 'var(--mui-palette-text-secondary)';
  return (
    <svg
      width="84"
      height="52"
      viewBox="0 0 84 52"
      role="img"
      aria-label={say(powder ? 'dose.powder' : 'dose.juice')}
    >
      <path d="M46 30H80" stroke={ink} strokeWidth="5" strokeLinecap="round" />
      {powder ? (
        <>
          <path
            d="M6 28Q26 2 46 28Z"
            fill="var(--mui-palette-background-paper)"
            stroke={ink}
            strokeWidth="2.500"
          />
          {[
            [16, 22],
            [22, 17],
            [27, 22],
            [33, 19],
            [37, 24],
            [26, 12],
          ].map(([x, y]) => (
            <circle key={`${x} ${y}`} cx={x} cy={y} r="1.800" fill={ink} />
          ))}
        </>
      ) : (
        <path d="M26 2q7 9 7 14a7 7 0 0 1-14 0q0-5 7-14z" fill="var(--mui-palette-fruit-main)" />
      )}
      <path
        d="M4 28H48Q46 48 26 48T4 28Z"
        fill={powder ? 'var(--mui-palette-background-paper)' : 'var(--mui-palette-fruit-main)'}
        stroke={ink}
        strokeWidth="2.500"
      />
    </svg>
  );
}

/** One addition in a row of its own: what, how much for each size, and the jars that have it. */
export function DoseRow({ batch, line, when }: { batch: OpenBatch; line: Line; when: When }) {
  const { kitchen } = useHere();
  const read = useRead();
  const jars = batch.state.jars.filter(j => !j.setAside);
  const without = jars.filter(j => j.doses[line.id] === undefined);
  const given = batch.state.jars.filter(j => j.doses[line.id]?.is === 'given').length;
  const [single, setSingle] = useState(false);
  const { enter, offer } = useUndo(batch, when);
  const powder = isPowder(line);
  const unit = powder ? ('g' as const) : ('mL' as const);
  const form = useTyped({ quantity: '' }, () => ({
    quantity: read.figure({ name: say('dose.left'), min: 0, max: 100_000, unit: ` ${unit}` }),
  }));
  const check = form.submit(async ({ quantity }) => {
    if (await enter(say('dose.checked'), [['dose.checked', { lineId: line.id, quantity, unit }]]))
      form.again();
  });
  if (without.length === 0 && given === 0) return null;
  const last = batch.state.doseChecks.findLast(c => c.lineId === line.id);
  const held = last && bottleCheck(batch.state.started?.recipe.lines ?? [], batch.state.jars, last);
  const give = (taken: readonly JarState['number'][], left: readonly number[]) =>
    enter(`${line.name}: given to ${taken.length}`, [
      ['dose.given', { lineId: line.id, jars: [...taken] }],
      ...(left.length > 0 ? [['dose.missed', { lineId: line.id, jars: [...left] }] as Fact] : []),
    ]);
  return (
    <Sheet title={`${line.name} in each jar`} aside={<>{given} given</>}>
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'center' }}>
        <DoseGlyph powder={powder} />
        <Box>
          <Box sx={{ fontSize: '1.35rem', fontWeight: 700 }}>
            <Fractions text={dosesOf(batch.state, line)} />
          </Box>
          <Soft>{say(powder ? 'dose.powder' : 'dose.juice')}</Soft>
        </Box>
      </Box>
      {without.length === 0 ? (
        <Box sx={{ mt: 1 }}>
          <Tag tone="leaf">every filled jar</Tag>
        </Box>
      ) : (
        <>
          <AllBut
            label="All but jars"
            among={without.map(j => j.number)}
            action={n => `Given to ${n === 1 ? '1 jar' : `${n} jars`}`}
            onTake={give}
          />
          <Button sx={{ minHeight: 48, mt: 1 }} aria-expanded={single} onClick={() => setSingle(!single)}>
            {say('dose.byJar')}
          </Button>
        </>
      )}
      {single && without.length > 0 && (
        <JarShelf
          jars={without.map(j => ({ number: j.number, size: j.size, form: 'filled' as const }))}
          onPress={n => void give([n], [])}
        />
      )}
      {offer}
      {line.role === 'acid' && given > 0 && (
        <EntryForm form={form} action={say('dose.check')} onSubmit={check} mt={2} tall>
          <Figure at={form.at('quantity')} label={say('dose.left')} unit={unit} />
        </EntryForm>
      )}
      {held &&
        (held.doses < 0 ? (
          <Caution>
            {say('dose.short', {
              n: -held.doses,
              wanted: `${numberText(held.wanted, kitchen, 1)} ${held.unit}`,
              jars: rangesText(held.jars),
            })}
          </Caution>
        ) : (
          <Soft>
            {say(held.doses === 0 ? 'dose.agrees' : 'dose.over', {
              wanted: `${numberText(held.wanted, kitchen, 1)} ${held.unit}`,
            })}
          </Soft>
        ))}
    </Sheet>
  );
}
