import { type OwnIngredient, PIECE_UNITS, putIngredient, removeIngredient } from '@cocotte/contract';
import type { Fault, UnitId } from '@cocotte/core/measure';
import { type Ingredient, LINE_ROLES, type LineRole, sourceOf } from '@cocotte/core/ingredients';
import {
  Box,
  Button,
  Checkbox,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  FormControlLabel,
  Table,
  TableBody,
  TableCell,
  TableRow,
  Typography,
} from '@mui/material';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { v7 } from 'uuid';
import { CallError, call, faultsOf } from '../../shell/call.ts';
import { Faults, Soft } from '../../shell/parts.tsx';
import { useHere, useMay } from '../../shell/session.tsx';
import { Choice, Field, columns } from '../editor/fields.tsx';
import { BLANK, type Row, type Texts, readTexts, textsOf } from './ingredient-texts.ts';

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
  const [t, setT] = useState<Texts>(() => textsOf(base, kitchen.locale));
  const [faults, setFaults] = useState<Fault[]>([]);
  const [version, setVersion] = useState(own?.version ?? 0);
  const set = (part: Partial<Texts>) => setT(x => ({ ...x, ...part }));
  const at = (path: string) => faults.find(f => f.path === path);
  const field = (key: keyof Texts & string, label: string) => (
    <Field
      label={label}
      value={t[key]}
      onText={v => set({ [key]: v })}
      fault={at(key)}
      disabled={!mayChange}
    />
  );
  const save = async () => {
    const read = readTexts(t, base, id, kitchen.locale);
    setFaults(read.faults);
    if (!read.ingredient) return;
    try {
      await call(putIngredient, {
        params: { ingredientId: id },
        body: { version, ingredient: read.ingredient },
      });
      void client.invalidateQueries({ queryKey: ['ingredients'] });
      onClose();
    } catch (error) {
      if (error instanceof CallError && error.code === 'stale')
        setVersion((error.newer as OwnIngredient | undefined)?.version ?? 0);
      setFaults(faultsOf(error).map(f => ({ ...f, path: f.path.replace(/^ingredient\./, '') })));
    }
  };
  const takeBack = async () => {
    try {
      await call(removeIngredient, { params: { ingredientId: id } });
      void client.invalidateQueries({ queryKey: ['ingredients'] });
      onClose();
    } catch (error) {
      setFaults(faultsOf(error));
    }
  };
  const rows = (key: 'cups' | 'pieces', label: string) => (
    <Box role="group" aria-label={label}>
      {t[key].map((row, i) => {
        const put = (part: Partial<Row>) => {
          const next = t[key].map((x, k) => (k === i ? { ...x, ...part } : x));
          const last = next.at(-1) as Row;
          set({ [key]: last.key || last.grams ? [...next, { key: '', grams: '' }] : next });
        };
        return (
          // oxlint-disable-next-line react/no-array-index-key -- rows are known by their place while their key is typed
          <Box key={i} sx={{ ...columns('1.4fr 1fr'), mb: 1 }}>
            {key === 'cups' ? (
              <Field
                label="Cut or packed"
                value={row.key}
                onText={k => put({ key: k })}
                disabled={!mayChange}
              />
            ) : (
              <Choice<UnitId | ''>
                label="Counted as"
                value={row.key as UnitId | ''}
                of={PIECE_UNITS}
                words={{ each: 'a medium one' } as Partial<Record<UnitId, string>>}
                empty=" "
                onPick={k => put({ key: k })}
                disabled={!mayChange}
              />
            )}
            <Field
              label={key === 'cups' ? 'Grams in a cup' : 'Grams of one'}
              value={row.grams}
              onText={grams => put({ grams })}
              fault={at(`${key}[${i}]`)}
              disabled={!mayChange}
            />
          </Box>
        );
      })}
    </Box>
  );
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="md" aria-labelledby="ingredient-title">
      <DialogTitle id="ingredient-title" variant="h2">
        {ingredient?.name ?? 'A new ingredient'}
      </DialogTitle>
      <DialogContent>
        <Box sx={{ ...columns('2fr 2fr 1.2fr'), pt: 1 }}>
          {field('name', 'Name')}
          {field('aliases', 'Other names, with commas')}
          <Choice<LineRole>
            label="Role"
            value={t.role}
            of={LINE_ROLES}
            onPick={role => set({ role })}
            disabled={!mayChange}
          />
        </Box>
        <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr' }, gap: 3, mt: 2 }}>
          {rows('cups', 'Weight of a cup')}
          {rows('pieces', 'Weight of one')}
        </Box>
        <Box sx={{ ...columns('1fr 1fr 1fr 1fr'), mt: 1 }}>
          {field('knife', 'Left by knife, %')}
          {field('mill', 'Left by mill, %')}
          {field('blender', 'Left by blender, %')}
          {field('thawed', 'Left when thawed, %')}
          {field('bushel', 'Grams of a bushel')}
          {field('water', 'Water, %')}
          {field('solids', 'Soluble solids, °Brix')}
          {field('freshFactor', 'Stands for, times fresh')}
          {field('phLow', 'pH from')}
          {field('phHigh', 'pH to')}
          <Choice
            label="Main acid"
            value={t.acid}
            of={['citric', 'malic', 'tartaric', 'acetic']}
            empty="none"
            onPick={acid => set({ acid })}
            disabled={!mayChange}
          />
          {field('titratable', 'Titratable acid, %')}
          {t.role === 'acid' && field('strength', 'Labelled strength, %')}
          {t.role === 'fruit' && (
            <Choice
              label="Standard-of-identity group"
              value={t.group}
              of={['I', 'II']}
              empty="none"
              onPick={group => set({ group })}
              disabled={!mayChange}
            />
          )}
          {field('labelName', 'Name on the label')}
          {field('subIngredients', 'Its own ingredients')}
          {field('allergens', 'Allergens and sulphites')}
          {field('notes', 'Notes')}
        </Box>
        {t.role === 'fruit' && (
          <FormControlLabel
            control={
              <Checkbox
                checked={t.safelyAcid}
                onChange={(_, on) => set({ safelyAcid: on })}
                disabled={!mayChange}
              />
            }
            label="Safely acid by itself"
          />
        )}
        <Faults
          faults={faults.filter(f => f.path === '' || (!(f.path in t) && !/^(cups|pieces)\[/.test(f.path)))}
        />
        {ingredient && <Sources ingredient={ingredient} />}
      </DialogContent>
      <DialogActions sx={{ p: 2, flexWrap: 'wrap' }}>
        {own && mayChange && (
          <Button variant="outlined" onClick={() => void takeBack()} sx={{ mr: 'auto' }}>
            {shipped ? 'Go back to the shipped figures' : 'Remove it'}
          </Button>
        )}
        <Button variant="outlined" onClick={onClose}>
          Close
        </Button>
        {mayChange && (
          <Button variant="contained" onClick={() => void save()}>
            Keep these figures
          </Button>
        )}
      </DialogActions>
    </Dialog>
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
      <Table size="small" aria-label="Sources">
        <TableBody>
          {VALUES.filter(([key]) => isThere(ingredient[key])).map(([key, words]) => {
            const source = sourceOf(ingredient, key);
            return (
              <TableRow key={key}>
                <TableCell sx={{ width: '32%' }}>{words}</TableCell>
                <TableCell>
                  {source?.title ?? 'not said'}
                  {source?.fromMemory && <Soft> · from memory, hold it against the source</Soft>}
                </TableCell>
              </TableRow>
            );
          })}
        </TableBody>
      </Table>
    </Box>
  );
}
