import { type OwnIngredient, PIECE_UNITS, putIngredient, removeIngredient } from '@cocotte/contract';
import { type Fault, type Reading, type UnitId, readNumber } from '@cocotte/core/measure';
import { type Ingredient, LINE_ROLES, type LineRole, sourceOf } from '@cocotte/core/recipes';
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

/** Rows of a form whose keys are free: a cup by the way it is cut, a piece by its unit. */
interface Row {
  key: string;
  grams: string;
}
interface Texts {
  name: string;
  aliases: string;
  role: LineRole;
  cups: Row[];
  pieces: Row[];
  bushel: string;
  knife: string;
  mill: string;
  blender: string;
  thawed: string;
  water: string;
  solids: string;
  phLow: string;
  phHigh: string;
  acid: '' | 'citric' | 'malic' | 'tartaric' | 'acetic';
  titratable: string;
  strength: string;
  safelyAcid: boolean;
  group: '' | 'I' | 'II';
  allergens: string;
  labelName: string;
  subIngredients: string;
  freshFactor: string;
  notes: string;
}

const n = (v: number | null | undefined) => (v === null || v === undefined ? '' : String(v));
const percent = (v: number | null | undefined) =>
  v === null || v === undefined ? '' : String(Number((v * 100).toFixed(2)));

const BLANK: Ingredient = {
  id: '',
  name: '',
  aliases: [],
  role: 'fruit',
  cup_g: {},
  one_g: {},
  bushel_g: null,
  trim: {},
  thawedYield: null,
  water_pct: 0,
  solids_pct: 0,
  ph: null,
  acid: null,
  safelyAcid: false,
  group: null,
  strength_pct: null,
  allergens: [],
  labelName: '',
  subIngredients: '',
  freshFactor: 1,
  set: null,
  liquid: false,
  dryPint: false,
  refused: null,
  notes: '',
  sources: {},
};

function textsOf(i: Ingredient): Texts {
  return {
    name: i.name,
    aliases: i.aliases.join(', '),
    role: i.role,
    cups: [...Object.entries(i.cup_g).map(([key, g]) => ({ key, grams: n(g) })), { key: '', grams: '' }],
    pieces: [...Object.entries(i.one_g).map(([key, g]) => ({ key, grams: n(g) })), { key: '', grams: '' }],
    bushel: n(i.bushel_g === null ? null : Math.round(i.bushel_g)),
    knife: percent(i.trim.knife),
    mill: percent(i.trim.mill),
    blender: percent(i.trim.blender),
    thawed: percent(i.thawedYield),
    water: n(i.water_pct),
    solids: n(i.solids_pct),
    phLow: n(i.ph?.[0]),
    phHigh: n(i.ph?.[1]),
    acid: i.acid?.kind ?? '',
    titratable: n(i.acid?.titratable_pct),
    strength: n(i.strength_pct),
    safelyAcid: i.safelyAcid,
    group: i.group ?? '',
    allergens: i.allergens.join(', '),
    labelName: i.labelName,
    subIngredients: i.subIngredients,
    freshFactor: n(i.freshFactor),
    notes: i.notes,
  };
}

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
  const [t, setT] = useState<Texts>(() => textsOf(base));
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

/** Reads the form; values that differ from what was there are the kitchen's own. */
function readTexts(
  t: Texts,
  base: Ingredient,
  id: string,
  locale: string,
): { ingredient: Ingredient | null; faults: Fault[] } {
  const faults: Fault[] = [];
  const take = (path: string, reading: Reading<number>): number => {
    if (reading.ok) return reading.value;
    faults.push({ ...reading.fault, path });
    return 1;
  };
  const number = (path: string, text: string, name: string, min: number, max: number, above = false) =>
    take(path, readNumber(text, locale, { name, min, max, above }));
  const maybe = (path: string, text: string, name: string, min: number, max: number, above = false) =>
    text.trim() === '' ? null : number(path, text, name, min, max, above);
  const share = (path: string, text: string, name: string) => {
    const v = maybe(path, text, name, 0, 100, true);
    return v === null ? undefined : v / 100;
  };
  if (t.name.trim() === '')
    faults.push({
      path: 'name',
      code: 'missing',
      what: 'The name is empty.',
      why: 'It is found by it.',
      next: 'Fill it in.',
    });
  const weights = (rows: Row[], path: string, max: number) =>
    Object.fromEntries(
      rows.flatMap((r, i) =>
        r.key.trim() === '' && r.grams.trim() === ''
          ? []
          : [
              [
                r.key.trim() || 'as it is',
                number(`${path}[${i}]`, r.grams, 'The weight in grams', 0, max, true),
              ],
            ],
      ),
    );
  const list = (text: string) =>
    text
      .split(',')
      .map(a => a.trim())
      .filter(Boolean);
  const trim = Object.fromEntries(
    (['knife', 'mill', 'blender'] as const).flatMap(by => {
      const v = share(by, t[by], 'The trim yield');
      return v === undefined ? [] : [[by, v]];
    }),
  );
  const low = maybe('phLow', t.phLow, 'The pH', 0, 14);
  const high = maybe('phHigh', t.phHigh, 'The pH', 0, 14);
  const ingredient: Ingredient = {
    ...base,
    id,
    name: t.name.trim(),
    aliases: list(t.aliases.toLowerCase()),
    role: t.role,
    cup_g: weights(t.cups, 'cups', 700),
    one_g: weights(t.pieces, 'pieces', 20_000),
    bushel_g: maybe('bushel', t.bushel, 'The weight of a bushel', 0, 100_000, true),
    trim,
    thawedYield: share('thawed', t.thawed, 'The thawed yield') ?? null,
    water_pct: number('water', t.water || '0', 'The water', 0, 100),
    solids_pct: number('solids', t.solids || '0', 'The soluble solids', 0, 100),
    ph: low === null && high === null ? null : [low ?? (high as number), high ?? (low as number)],
    acid:
      t.acid === ''
        ? null
        : {
            kind: t.acid,
            titratable_pct: number('titratable', t.titratable || '0', 'The titratable acid', 0, 100),
          },
    strength_pct:
      t.role === 'acid' ? maybe('strength', t.strength, 'The strength', 0, 30) : base.strength_pct,
    safelyAcid: t.role === 'fruit' && t.safelyAcid,
    group: t.role === 'fruit' ? t.group || null : null,
    allergens: list(t.allergens),
    labelName: t.labelName.trim() || t.name.trim().toLowerCase(),
    subIngredients: t.subIngredients.trim(),
    freshFactor: number('freshFactor', t.freshFactor || '1', 'The fresh weight it stands for', 1, 30),
    notes: t.notes.trim(),
  };
  const sources = { ...base.sources };
  for (const key of Object.keys(ingredient) as (keyof Ingredient)[])
    if (key !== 'sources' && JSON.stringify(ingredient[key]) !== JSON.stringify(base[key]))
      sources[key] = 'own';
  return { ingredient: faults.length === 0 ? { ...ingredient, sources } : null, faults };
}
