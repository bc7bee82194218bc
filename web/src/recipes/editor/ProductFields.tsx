import { SET_BY, proposeCode, usualOf } from '@cocotte/core/recipes';
import { METHOD_CHOICES, type Method, PRODUCTS } from '@cocotte/core/times';
import { Box } from '@mui/material';
import { useEffect, useRef } from 'react';
import { Pick, Text } from '../../kit/fields.tsx';
import { Cells } from '../../kit/layout.tsx';
import { Sheet } from '../../kit/parts.tsx';
import { say } from '../../words/views.ts';
import { RecipePick } from '../RecipePick.tsx';
import type { DraftForm } from './form.ts';

/** Names, shelf of the book, and how it is made as far as safety hangs on it. */
export function ProductFields({
  form,
  recipeId,
  fresh,
}: {
  form: DraftForm;
  recipeId: string;
  /** It is not in the book yet. */
  fresh: boolean;
}) {
  const { at } = form;
  const product = form.typed('product');
  const usual = usualOf(product);
  const draft = form.all();
  /** What stands there because such a recipe usually has it says so. */
  const asUsual = (is: boolean) => (fresh && is ? say('kind.usual', { kind: product }) : undefined);
  const method = (key: keyof Method, label: string) => (
    <Pick
      at={at(`method.${key}`)}
      label={label}
      of={METHOD_CHOICES[key] as readonly string[]}
      hint={asUsual(draft.method[key] === usual.method[key])}
    />
  );
  const liquid = usual.covered || draft.method.liquid !== 'none' || product === 'other';
  const sets = usual.sets || draft.setBy !== 'not set' || product === 'other';
  const [name, code] = [form.typed('name'), form.typed('code')];
  /** Three letters of the name as it is typed, until somebody chose others: the code of a recipe that is there stays. */
  const proposed = useRef('');
  useEffect(() => {
    if (!fresh || code !== proposed.current) return;
    const next = proposeCode(name);
    if (next === code) return;
    proposed.current = next;
    form.set('code', next);
  }, [fresh, name, code, form]);
  /** What the label calls it is its name, until somebody wrote something else. */
  const statement = form.typed('statementOfIdentity');
  const called = useRef('');
  useEffect(() => {
    if (!fresh || statement !== called.current || statement === name) return;
    called.current = name;
    form.set('statementOfIdentity', name);
  }, [fresh, name, statement, form]);
  return (
    <Sheet title="What it is">
      <Cells wide="2fr 90px 2fr 1.2fr" narrow="1fr 1fr" gap={1.5} mt={0}>
        <Text at={at('name')} label="Name" />
        <Text at={at('code')} label="Code" />
        <Text at={at('statementOfIdentity')} label="Statement of identity" />
        <Pick at={at('product')} label="Kind of product" of={PRODUCTS} />
      </Cells>
      <Cells wide="1fr 1fr 1.1fr 1.4fr 0.8fr 1.3fr" narrow="1fr 1fr" gap={1.5} mt={1.5}>
        {method('cut', 'Cut')}
        {method('peel', 'Peel')}
        {method('strain', 'Strain')}
        {liquid && method('liquid', 'Packing liquid')}
        {method('pack', 'Packed')}
        {sets && (
          <Pick at={at('setBy')} label="Set by" of={SET_BY} hint={asUsual(draft.setBy === usual.setBy)} />
        )}
      </Cells>
      <Box
        component="details"
        open={!fresh || draft.family !== '' || draft.tags !== '' || draft.variantOf !== '' || undefined}
        sx={{ mt: 1.5, '& summary': { cursor: 'pointer' } }}
      >
        <summary>{say('kind.shelf')}</summary>
        <Cells wide="1fr 1.6fr 1.4fr" narrow="1fr 1fr" gap={1.5} mt={1.5}>
          <Text at={at('family')} label="Family" />
          <Text at={at('tags')} label="Tags" hint="with commas between" />
          <RecipePick at={at('variantOf')} label="A variant of" leaveOut={recipeId} rootsOnly />
        </Cells>
      </Box>
    </Sheet>
  );
}
