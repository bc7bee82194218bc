import { addRecipe } from '@cocotte/contract';
import { JAR_SIZES, type JarSizeId } from '@cocotte/core/jars';
import { emptyRecipe } from '@cocotte/core/recipes';
import { Typography } from '@mui/material';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { v7 } from 'uuid';
import { Pick, Text } from '../../kit/fields.tsx';
import { useTyped } from '../../kit/form.ts';
import { FormDialog } from '../../kit/FormDialog.tsx';
import { Cells } from '../../kit/layout.tsx';
import { words } from '../../kit/readers.ts';
import { call } from '../../shell/call.ts';

/** Names a recipe that is cooked first: a sketch with nothing in it, to start a trial of. */
export function CookFirst({ onClose }: { onClose: () => void }) {
  const navigate = useNavigate();
  const client = useQueryClient();
  const [id] = useState(() => v7());
  const form = useTyped({ name: '', code: '', size: 'half-pint' as JarSizeId }, () => ({
    name: words('The name'),
    code: words('The code'),
  }));
  const { at } = form;
  const open = form.submit(async ({ name, code, size }) => {
    const recipe = {
      ...emptyRecipe(),
      name,
      code: code.toUpperCase(),
      statementOfIdentity: name,
      makes: { size, count: 6 },
      jars: [{ size, net: { kind: 'weight' as const, oz: 8 } }],
      sketch: true,
    };
    await call(addRecipe, { body: { id, recipe } });
    void client.invalidateQueries({ queryKey: ['recipes'] });
    void navigate(`/recipes/${id}`);
  });
  return (
    <FormDialog title="Cook first" action="Open it" form={form} onClose={onClose} onSubmit={open}>
      <Typography sx={{ mb: 2, color: 'text.secondary' }}>
        Name what you are about to cook. Weigh each thing as it goes in; the batch becomes the recipe.
      </Typography>
      <Cells wide="2fr 110px 1fr" gap={1.5}>
        <Text at={at('name')} label="Name" autoFocus />
        <Text at={at('code')} label="Code" slotProps={{ htmlInput: { maxLength: 3 } }} />
        <Pick at={at('size')} label="Jar" of={JAR_SIZES.map(s => [s.id, s.name] as const)} />
      </Cells>
    </FormDialog>
  );
}
