import { type OwnIngredient, PIECE_UNITS, putIngredient, removeIngredient } from '@cocotte/contract';
import { type Ingredient, LINE_ROLES, sourceOf } from '@cocotte/core/ingredients';
import { Box, Button, Typography } from '@mui/material';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { v7 } from 'uuid';
import { Figure, Pick, Text, Tick } from '../../kit/fields.tsx';
import { useReadForm, useRows } from '../../kit/form.ts';
import { FormDialog } from '../../kit/FormDialog.tsx';
import { Cells } from '../../kit/layout.tsx';
import { List } from '../../kit/List.tsx';
import { NewerAsked } from '../../kit/NewerAsked.tsx';
import { Soft } from '../../kit/parts.tsx';
import { CallError, call } from '../../shell/call.ts';
import { useHere, useMay } from '../../shell/session.tsx';
import { BLANK, type Texts, readTexts, textsOf } from './ingredient-texts.ts';

/** One ingredient: every value with its source, and the kitchen's own figures in their place. */
export function IngredientDialog({
  ingredient,
  own,
  shipped,
  onClose,
}: {
  /** What is opened, as the kitchen has it; null for a new one. */
  ingredient: Ingredient | null;
  own: OwnIngredient | null;
  shipped: Ingredient | null;
  onClose: () => void;
}) {
  const { kitchen } = useHere();
  const mayChange = useMay('cook');
  const client = useQueryClient();
  const base = ingredient ?? BLANK;
  const [id] = useState(() => ingredient?.id ?? `own-${v7()}`);
  const [version, setVersion] = useState(own?.version ?? 0);
  const [newer, setNewer] = useState<OwnIngredient | null>(null);
  const form = useReadForm(textsOf(base, kitchen.locale), typed =>
    readTexts(typed, base, id, kitchen.locale),
  );
  const { at } = form;
  const cups = useRows(form.form.control, 'cups');
  const pieces = useRows(form.form.control, 'pieces');
  const { role } = form.all();
  const done = () => {
    void client.invalidateQueries({ queryKey: ['ingredients'] });
    onClose();
  };
  const save = form.submit(async read => {
    try {
      await call(putIngredient, {
        params: { ingredientId: id },
        body: { version, ingredient: read as Ingredient },
      });
      done();
    } catch (error) {
      if (!(error instanceof CallError) || !error.newer) throw error;
      setNewer(error.newer as OwnIngredient);
    }
  });
  const takeBack = () =>
    form.attempt(async () => {
      await call(removeIngredient, { params: { ingredientId: id } });
      done();
    });
  const text = (key: keyof Texts & string, label: string) => <Text at={at(key)} label={label} />;
  const figure = (key: keyof Texts & string, label: string, unit?: string) => (
    <Figure at={at(key)} label={label} unit={unit} />
  );
  return (
    <FormDialog
      title={ingredient?.name ?? 'A new ingredient'}
      action="Keep these figures"
      leave="Close"
      form={form}
      width="md"
      readOnly={!mayChange}
      onClose={onClose}
      onSubmit={save}
      also={
        own &&
        mayChange && (
          <Button variant="outlined" onClick={() => void takeBack()}>
            {shipped ? 'Go back to the shipped figures' : 'Remove it'}
          </Button>
        )
      }
    >
      {newer && (
        <NewerAsked
          onTake={() => {
            setVersion(newer.version);
            setNewer(null);
            form.again(textsOf(newer.ingredient, kitchen.locale));
          }}
          onKeep={() => {
            setVersion(newer.version);
            setNewer(null);
          }}
        >
          {null}
        </NewerAsked>
      )}
      <Cells wide="2fr 2fr 1.2fr" narrow="1fr 1fr" gap={1.5}>
        {text('name', 'Name')}
        {text('aliases', 'Other names, with commas')}
        <Pick at={at('role')} label="Role" of={LINE_ROLES} />
      </Cells>
      <Cells gap={3} mt={2}>
        <Box role="group" aria-label="Weight of a cup">
          {cups.fields.map((row, i) => (
            <Cells key={row.key} wide="1.4fr 1fr" narrow="1fr 1fr" gap={1.5}>
              <Text at={at(`cups.${i}.key`)} label="Cut or packed" />
              <Figure at={at(`cups.${i}.grams`)} label="Grams in a cup" />
            </Cells>
          ))}
          <MoreRows onClick={() => cups.append({ key: '', grams: '' })}>Another cut</MoreRows>
        </Box>
        <Box role="group" aria-label="Weight of one">
          {pieces.fields.map((row, i) => (
            <Cells key={row.key} wide="1.4fr 1fr" narrow="1fr 1fr" gap={1.5}>
              <Pick
                at={at(`pieces.${i}.key`)}
                label="Counted as"
                of={[['', ' '], ...PIECE_UNITS.map(u => [u, u === 'each' ? 'a medium one' : u] as const)]}
              />
              <Figure at={at(`pieces.${i}.grams`)} label="Grams of one" />
            </Cells>
          ))}
          <MoreRows onClick={() => pieces.append({ key: '', grams: '' })}>Another unit</MoreRows>
        </Box>
      </Cells>
      <Cells wide="1fr 1fr 1fr 1fr" narrow="1fr 1fr" gap={1.5} mt={2}>
        {figure('knife', 'Left by knife', '%')}
        {figure('mill', 'Left by mill', '%')}
        {figure('blender', 'Left by blender', '%')}
        {figure('thawed', 'Left when thawed', '%')}
        {figure('bushel', 'A bushel weighs', 'g')}
        {figure('water', 'Water', '%')}
        {figure('solids', 'Soluble solids', '°Brix')}
        {figure('freshFactor', 'Stands for', 'times fresh')}
        {figure('phLow', 'pH from')}
        {figure('phHigh', 'pH to')}
        <Pick
          at={at('acid')}
          label="Main acid"
          of={[['', 'none'], 'citric', 'malic', 'tartaric', 'acetic']}
        />
        {figure('titratable', 'Titratable acid', '%')}
        {role === 'acid' && figure('strength', 'Labelled strength', '%')}
        {role === 'fruit' && (
          <Pick at={at('group')} label="Standard-of-identity group" of={[['', 'none'], 'I', 'II']} />
        )}
        {text('labelName', 'Name on the label')}
        {text('subIngredients', 'Its own ingredients')}
        {text('allergens', 'Allergens and sulphites')}
        {text('notes', 'Notes')}
      </Cells>
      {role === 'fruit' && <Tick at={at('safelyAcid')} label="Safely acid by itself" />}
      {ingredient && <Sources ingredient={ingredient} />}
    </FormDialog>
  );
}

function MoreRows({ onClick, children }: { onClick: () => void; children: string }) {
  return (
    <Button size="small" variant="outlined" sx={{ mt: 1 }} onClick={onClick}>
      {children}
    </Button>
  );
}

const VALUES: [keyof Ingredient, string][] = [
  ['cup_g', 'weight of a cup'],
  ['one_g', 'weight of one'],
  ['bushel_g', 'weight of a bushel'],
  ['trim', 'trim yield'],
  ['thawedYield', 'thawed yield'],
  ['solids_pct', 'water and soluble solids'],
  ['ph', 'pH'],
  ['acid', 'acid'],
  ['safelyAcid', 'safely acid or not'],
  ['group', 'standard-of-identity group'],
  ['strength_pct', 'strength'],
  ['allergens', 'allergens'],
  ['freshFactor', 'fresh weight of the dried'],
];

const isThere = (value: unknown): boolean =>
  value !== null &&
  value !== '' &&
  !(Array.isArray(value) && value.length === 0) &&
  !(typeof value === 'object' && Object.keys(value as object).length === 0);

/** Where each value comes from; what was recalled says so. */
function Sources({ ingredient }: { ingredient: Ingredient }) {
  return (
    <Box sx={{ mt: 2 }}>
      <Typography variant="h3">Where these figures come from</Typography>
      <List
        label="Sources"
        rows={VALUES.filter(([key]) => isThere(ingredient[key]))}
        keyOf={([key]) => key}
        columns={[
          { head: 'What', sx: { width: '32%' }, cell: ([, words]) => words },
          {
            head: 'From',
            cell: ([key]) => {
              const source = sourceOf(ingredient, key);
              return (
                <>
                  {source?.title ?? 'not said'}
                  {source?.fromMemory && <Soft> · from memory, hold it against the source</Soft>}
                </>
              );
            },
          },
        ]}
      />
    </Box>
  );
}
