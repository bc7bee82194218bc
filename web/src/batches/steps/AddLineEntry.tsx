import type { Ingredient } from '@cocotte/core/ingredients';
import { type Amount as Measured, amount_g, readAmount } from '@cocotte/core/measure';
import { lineFrom } from '@cocotte/core/recipes';
import { Box } from '@mui/material';
import { useState } from 'react';
import { v7 } from 'uuid';
import { EntryForm } from '../../kit/EntryForm.tsx';
import { Amount } from '../../kit/Amount.tsx';
import { Suggested } from '../../kit/fields.tsx';
import { useTyped } from '../../kit/form.ts';
import { Sheet, Soft } from '../../kit/parts.tsx';
import { missing, words } from '../../kit/readers.ts';
import { useLibrary } from '../../recipes/library.ts';
import { useHere } from '../../shell/session.tsx';
import type { OpenBatch } from '../open-batch.ts';
import type { When } from '../when.ts';
import { misread } from '../../words/views.ts';

type Props = { batch: OpenBatch; when: When };
const startedOf = (batch: OpenBatch) => batch.state.started as NonNullable<typeof batch.state.started>;

/** Something goes in that the recipe does not name: all of it, when the batch is cooked first. */
export function AddLineEntry({ batch, when }: Props) {
  const { kitchen } = useHere();
  const library = useLibrary();
  const [picked, setPicked] = useState<Ingredient | null>(null);
  const { sketch } = startedOf(batch).recipe;
  const ingredientOf = (name: string) => picked ?? library.index.find(name)?.ingredient ?? null;
  /** What the amount of this weighs; nothing where it cannot be weighed from its unit. */
  const weighed = (amount: Measured, name: string) => {
    const line = { ...lineFrom(v7(), amount, name.trim(), ingredientOf(name)), basis: 'prepared' as const };
    try {
      return { line, mass_g: Math.round(amount_g(amount, line) * 1000) / 1000 };
    } catch {
      return null;
    }
  };
  const form = useTyped({ name: '', amount: '' }, ({ name }) => ({
    name: (text: string) => {
      const among = picked ? [] : library.index.choices(text);
      return among.length > 0
        ? misread('which', { name: text.trim(), among: among.map(i => i.name).join(', ') })
        : words('The ingredient')(text);
    },
    amount: (text: string) => {
      if (text.trim() === '') return { ok: false as const, fault: missing('How much is empty.') };
      const read = readAmount(text, kitchen.locale, ingredientOf(name) ?? {});
      if (!read.ok) return read;
      const found = weighed(read.value, name);
      if (found) return { ok: true as const, value: found };
      return misread('no-weight', { name });
    },
  }));
  const add = form.submit(async ({ amount: { line, mass_g } }) => {
    const put = await batch.enter(
      [
        ['line.added', { line }],
        ['line.weighed', { lineId: line.id, mass_g }],
      ],
      when,
    );
    if (!put) return;
    form.again();
    setPicked(null);
  });
  return (
    <Sheet title={sketch ? 'What goes in' : 'Something else went in'}>
      {!sketch && (
        <Soft>
          What the recipe does not name holds the batch: its authority covers the recipe as it stands.
        </Soft>
      )}
      <EntryForm form={form} action="It went in" onSubmit={add} wide="1fr 120px" tall>
        <Suggested
          at={form.at('name')}
          label="What"
          of={library.all}
          nameOf={i => i.name}
          picked={picked}
          onPick={setPicked}
        />
        <Amount at={form.at('amount')} label="How much" hint="such as 850 g" />
      </EntryForm>
      {batch.state.added.map(a => (
        <Box key={a.by.eventId} sx={{ mt: 1 }}>
          {a.line.amount.text} {a.line.name}
        </Box>
      ))}
    </Sheet>
  );
}
