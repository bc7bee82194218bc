import { type AtThePot, atThePot, lineMasses, withMass } from '@cocotte/core/batches';
import type { Ingredient } from '@cocotte/core/ingredients';
import { amount_g, Fraction, massText, readAmount } from '@cocotte/core/measure';
import { type Line, lineFrom } from '@cocotte/core/recipes';
import { Box, Button } from '@mui/material';
import { useState } from 'react';
import { Amount } from '../../kit/Amount.tsx';
import { Figure, OneOf, Pick, Suggested } from '../../kit/fields.tsx';
import { useTyped } from '../../kit/form.ts';
import { FormDialog } from '../../kit/FormDialog.tsx';
import { Sheet, Soft, Tag } from '../../kit/parts.tsx';
import { orNone, unasked, useRead, words } from '../../kit/readers.ts';
import { useLibrary } from '../../recipes/library.ts';
import { useHere } from '../../shell/session.tsx';
import { misread, say } from '../../words/views.ts';
import type { Fact, OpenBatch } from '../open-batch.ts';
import type { When } from '../when.ts';

/** Another amount, or something else in the place of a line: asked at the pot, and answered there before it goes in. */
export function PotChange({ batch, when }: { batch: OpenBatch; when: When }) {
  const [open, setOpen] = useState(false);
  if (batch.state.started?.recipe.sketch) return null;
  return (
    <Sheet>
      <Button variant="outlined" fullWidth sx={{ minHeight: 56 }} onClick={() => setOpen(true)}>
        {say('change.ask')}
      </Button>
      {batch.state.replaced.map(r => (
        <Box key={r.by.eventId} sx={{ mt: 1 }}>
          {say('change.replaced', { now: r.line.name, was: r.was.name })}
        </Box>
      ))}
      {open && <PotChangeDialog batch={batch} when={when} onClose={() => setOpen(false)} />}
    </Sheet>
  );
}

const TONES = { covered: 'leaf', free: 'leaf', costs: 'ox' } as const;
const ANSWERS = { covered: 'change.covered', free: 'change.free', costs: 'change.costs' } as const;

function PotChangeDialog({ batch, when, onClose }: { batch: OpenBatch; when: When; onClose: () => void }) {
  const { kitchen } = useHere();
  const read = useRead();
  const library = useLibrary();
  const [picked, setPicked] = useState<Ingredient | null>(null);
  const started = batch.state.started as NonNullable<typeof batch.state.started>;
  const factor = new Fraction(started.factor).valueOf();
  // What is dosed by jar is a matter of each jar.
  const masses = lineMasses(batch.state).filter(m => m.line.where !== 'each jar');
  const ingredientOf = (name: string) => picked ?? library.index.find(name)?.ingredient ?? null;
  const form = useTyped(
    {
      lineId: masses[0]?.line.id ?? '',
      how: 'amount' as 'amount' | 'other',
      amount: '',
      name: '',
      strength: '',
    },
    ({ lineId, how }) => {
      const mass = masses.find(m => m.line.id === lineId);
      return {
        amount:
          how === 'other'
            ? unasked(null)
            : (text: string) => {
                const amount = readAmount(text, kitchen.locale);
                if (!amount.ok) return amount;
                let mass_g: number;
                try {
                  mass_g = amount_g(amount.value, mass?.line as Line);
                } catch {
                  return misread('no-weight', { name: mass?.line.name ?? '' });
                }
                const weighed_g = mass?.basis === 'weighed' ? mass.actual_g : 0;
                return mass_g <= weighed_g
                  ? misread('already-in', { mass: massText(weighed_g, kitchen) })
                  : { ok: true as const, value: mass_g };
              },
        name: how === 'amount' ? unasked('') : words(say('change.what')),
        strength:
          how === 'amount' || mass?.line.role !== 'acid'
            ? unasked(null)
            : orNone(
                read.figure({ name: say('change.strength'), min: 0, above: true, max: 100, unit: ' %' }),
              ),
      };
    },
  );
  const lineId = form.typed('lineId');
  const how = form.typed('how');
  const mass = masses.find(m => m.line.id === lineId);
  /** The line as it would be; null while what is typed says nothing yet. */
  const lineAs = (typed: { amount: string; name: string; strength: string }): Line | null => {
    if (!mass) return null;
    if (how === 'amount') {
      const amount = readAmount(typed.amount, kitchen.locale);
      if (!amount.ok) return null;
      try {
        const mass_g = amount_g(amount.value, mass.line);
        return mass_g > 0 ? withMass(mass.line, mass_g / factor) : null;
      } catch {
        return null;
      }
    }
    if (typed.name.trim() === '') return null;
    const strength = Number(typed.strength.replace(',', '.'));
    const other = lineFrom(
      mass.line.id,
      mass.line.amount,
      typed.name.trim(),
      ingredientOf(typed.name),
      mass.line.preparation,
    );
    return {
      ...other,
      where: mass.line.where,
      ratio: mass.line.ratio,
      ...(mass.line.role === 'acid' && strength > 0 && { minStrength_pct: strength }),
    };
  };
  const line = lineAs({
    amount: form.typed('amount'),
    name: form.typed('name'),
    strength: form.typed('strength'),
  });
  const answer = line && answered(started.recipe, line, kitchen);
  const enter = form.submit(async ({ amount }) => {
    if (!line || !mass) return;
    const weighed_g = mass.basis === 'weighed' ? mass.actual_g : 0;
    const fact: Fact =
      amount === null
        ? ['line.replaced', { lineId: mass.line.id, line }]
        : ['line.weighed', { lineId: mass.line.id, mass_g: Math.round((amount - weighed_g) * 1000) / 1000 }];
    if (await batch.enter([fact], when)) onClose();
  });
  return (
    <FormDialog
      title={say('change.title')}
      action={say('change.enter')}
      form={form}
      onClose={onClose}
      onSubmit={enter}
    >
      <Pick
        at={form.at('lineId')}
        label={say('change.line')}
        of={masses.map(m => [m.line.id, `${m.line.name}, ${massText(m.planned_g, kitchen)}`] as const)}
        sx={{ mt: 1 }}
      />
      <OneOf
        at={form.at('how')}
        label={say('change.how')}
        row
        of={[
          ['amount', say('change.amount')],
          ['other', say('change.other')],
        ]}
      />
      {how === 'amount' ? (
        <Amount
          at={form.at('amount')}
          label={say('change.altogether')}
          hint={say('change.altogether.hint')}
        />
      ) : (
        <>
          <Suggested
            at={form.at('name')}
            label={say('change.what')}
            of={library.all}
            nameOf={i => i.name}
            picked={picked}
            onPick={setPicked}
          />
          {mass?.line.role === 'acid' && (
            <Figure at={form.at('strength')} label={say('change.strength')} unit="%" />
          )}
        </>
      )}
      <Box role="status" sx={{ minHeight: 80 }}>
        {answer && (
          <>
            <Tag tone={TONES[answer.answer]}>{say(ANSWERS[answer.answer])}</Tag>
            <Box component="ul" sx={{ pl: 2.5, my: 1 }}>
              {answer.says.map(s => (
                <li key={s.what}>
                  {s.what} <Soft>{s.why}</Soft>
                </li>
              ))}
              {answer.namesLost.length > 0 && (
                <li>{say('change.names', { names: answer.namesLost.join(', ') })}</li>
              )}
            </Box>
          </>
        )}
      </Box>
    </FormDialog>
  );
}

/** What it does; null where the recipe cannot be judged with it. */
function answered(
  recipe: Parameters<typeof atThePot>[0],
  line: Line,
  kitchen: Parameters<typeof atThePot>[2],
): AtThePot | null {
  try {
    return atThePot(recipe, r => ({ ...r, lines: r.lines.map(l => (l.id === line.id ? line : l)) }), kitchen);
  } catch {
    return null;
  }
}
