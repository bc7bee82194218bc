import { SET_BY, proposeCode } from '@cocotte/core/recipes';
import { METHOD_CHOICES, type Method, PRODUCTS } from '@cocotte/core/times';
import { useEffect, useRef } from 'react';
import { Pick, Text } from '../../kit/fields.tsx';
import { Cells } from '../../kit/layout.tsx';
import { Sheet } from '../../kit/parts.tsx';
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
  const method = (key: keyof Method, label: string) => (
    <Pick at={at(`method.${key}`)} label={label} of={METHOD_CHOICES[key] as readonly string[]} />
  );
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
  return (
    <Sheet title="What it is">
      <Cells wide="2fr 90px 2fr 1.2fr" narrow="1fr 1fr" gap={1.5} mt={0}>
        <Text at={at('name')} label="Name" />
        <Text at={at('code')} label="Code" />
        <Text at={at('statementOfIdentity')} label="Statement of identity" />
        <Pick at={at('product')} label="Kind of product" of={PRODUCTS} />
      </Cells>
      <Cells wide="1fr 1.6fr 1.4fr" narrow="1fr 1fr" gap={1.5} mt={1.5}>
        <Text at={at('family')} label="Family" />
        <Text at={at('tags')} label="Tags" hint="with commas between" />
        <RecipePick at={at('variantOf')} label="A variant of" leaveOut={recipeId} rootsOnly />
      </Cells>
      <Cells wide="1fr 1fr 1fr 1fr 1fr 1.2fr" narrow="1fr 1fr" gap={1.5} mt={1.5}>
        {method('cut', 'Cut')}
        {method('peel', 'Peel')}
        {method('strain', 'Strain')}
        {method('liquid', 'Packing liquid')}
        {method('pack', 'Packed')}
        <Pick at={at('setBy')} label="Set by" of={SET_BY} />
      </Cells>
    </Sheet>
  );
}
