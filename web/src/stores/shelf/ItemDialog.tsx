import { addItem, changeItem } from '@cocotte/contract';
import { type Fault, Decimal, fieldText, readDecimal, readNumber } from '@cocotte/core/measure';
import { densityOf } from '@cocotte/core/ingredients';
import { JAR_SIZES, type JarSizeId } from '@cocotte/core/jars';
import {
  type Item,
  type ItemKind,
  ITEM_KINDS,
  ITEM_USES,
  type ItemUse,
  MOUTHS,
  type Mouth,
  TOOL_STATES,
  type ToolState,
  upgradeItem,
  itemUseOf,
} from '@cocotte/core/stores';
import { Box, MenuItem, TextField } from '@mui/material';
import { type ReactNode, useState } from 'react';
import { v7 } from 'uuid';
import { useLibrary } from '../../recipes/library.ts';
import { call, faultsOf } from '../../shell/call.ts';
import { anyWords, useEntry, words } from '../../shell/entry.ts';
import { FormDialog } from '../../shell/FormDialog.tsx';
import { useHere } from '../../shell/session.tsx';
import { useStockChanged } from '../api.ts';
import { KIND_WORDS } from '../words.ts';

const UNITS: Record<Item['unit'], string> = { g: 'grams', mL: 'millilitres', each: 'pieces' };
const none = { ok: true as const, value: null };

/** "case of 12: 12; sleeve: 60" as packages, each name with what it holds. */
function readPackages(text: string, locale: string) {
  const parts = text
    .split(';')
    .map(p => p.trim())
    .filter(Boolean);
  const packages: Item['packages'] = [];
  for (const p of parts) {
    const at = p.lastIndexOf(':');
    const quantity = readDecimal(at < 0 ? '' : p.slice(at + 1), locale, {
      name: 'What a package holds',
      min: 0,
      above: true,
      max: 1e7,
    });
    if (!quantity.ok) return quantity;
    packages.push({ name: p.slice(0, at).trim() || 'package', quantity: quantity.value });
  }
  return { ok: true as const, value: packages };
}

const listed = (text: string): string[] =>
  text
    .split(',')
    .map(a => a.trim())
    .filter(Boolean);

/** Adds something the kitchen keeps, or changes what is known of it. */
export function ItemDialog({ item, onClose }: { item?: Item; onClose: (saved?: Item) => void }) {
  const { kitchen } = useHere();
  const library = useLibrary();
  const changed = useStockChanged();
  const [id] = useState(() => item?.id ?? v7());
  const [kind, setKind] = useState<ItemKind>(item?.kind ?? 'ingredient');
  const [unit, setUnit] = useState<Item['unit']>(item?.unit ?? 'g');
  const [use, setUse] = useState<ItemUse | ''>(item?.use ?? '');
  const [jarSize, setJarSize] = useState<JarSizeId>(item?.jarSize ?? 'pint');
  const [mouth, setMouth] = useState<Mouth | ''>(item?.mouth ?? '');
  const [toolState, setToolState] = useState<ToolState>(item?.toolState ?? 'good');
  const [faults, setFaults] = useState<Fault[]>([]);
  const plain = (n: number | null | undefined) => (n == null ? '' : fieldText(n, kitchen.locale));
  const optional = (name: string, max: number, unitWord: string) => (t: string) =>
    t.trim() === ''
      ? none
      : readNumber(t, kitchen.locale, { name, min: 0, above: true, max, unit: unitWord });
  const counted = kind !== 'ingredient' && kind !== 'fuel';
  const form = useEntry(
    {
      name: words('The name'),
      labelName: anyWords,
      subIngredients: anyWords,
      allergens: anyWords,
      unit_g: t =>
        !counted && unit === 'each'
          ? readNumber(t, kitchen.locale, {
              name: 'The weight of one',
              min: 0,
              above: true,
              max: 20_000,
              unit: ' g',
            })
          : none,
      density_gPerMl: t => optional('The density', 3, ' g')(t),
      bushel_g: optional('The bushel', 60_000, ' g'),
      brim_mL: optional('The volume to the brim', 10_000, ' mL'),
      tare_g: optional('The empty weight', 5000, ' g'),
      minimum: t =>
        t.trim() === ''
          ? none
          : readDecimal(t, kitchen.locale, { name: 'The least to have', min: 0, max: 1e7 }),
      packages: t => readPackages(t, kitchen.locale),
      leadTime_days: t =>
        readNumber(t.trim() === '' ? '0' : t, kitchen.locale, {
          name: 'The days',
          min: 0,
          max: 365,
          whole: true,
        }),
    },
    item && {
      name: item.name,
      labelName: item.labelName,
      subIngredients: item.subIngredients,
      allergens: item.allergens.join(', '),
      unit_g: plain(item.unit_g),
      density_gPerMl: plain(item.density_gPerMl),
      bushel_g: plain(item.bushel_g),
      brim_mL: plain(item.brim_mL),
      tare_g: plain(item.tare_g),
      minimum: item.minimum === null ? '' : plain(Number(item.minimum)),
      packages: item.packages.map(p => `${p.name}: ${plain(new Decimal(p.quantity).toNumber())}`).join('; '),
      leadTime_days: plain(item.leadTime_days),
    },
  );
  const save = async () => {
    const v = form.read();
    if (!v) return;
    const ingredient = kind === 'ingredient';
    // What the library knows by this name serves the lines of recipes that are written with its entry.
    const match = ingredient ? library.index.find(v.name) : null;
    const known = match?.exact ? match.ingredient : null;
    const density = v.density_gPerMl ?? (known && densityOf(known, ''));
    const ownUnit = counted ? 'each' : unit;
    const body: Item = {
      ...upgradeItem({ id, kind, name: v.name, unit: ownUnit }),
      ...item,
      kind,
      name: v.name,
      unit: ownUnit,
      unit_g: !ingredient ? null : unit === 'g' ? 1 : unit === 'mL' ? density : v.unit_g,
      density_gPerMl: ingredient ? density : v.density_gPerMl,
      ingredientId: known?.id ?? item?.ingredientId ?? null,
      bushel_g: v.bushel_g,
      use: !ingredient ? 'other' : use || (known ? itemUseOf(known) : 'other'),
      jarSize: kind === 'jar' ? jarSize : null,
      mouth: kind === 'jar' || kind === 'lid' || kind === 'band' ? mouth || null : null,
      brim_mL: kind === 'jar' ? v.brim_mL : null,
      tare_g: kind === 'jar' ? v.tare_g : null,
      toolState: kind === 'tool' ? toolState : null,
      labelName: ingredient ? v.labelName || known?.labelName || v.name.toLowerCase() : '',
      subIngredients: v.subIngredients || (item ? '' : (known?.subIngredients ?? '')),
      allergens: v.allergens.trim() === '' && !item ? (known?.allergens ?? []) : listed(v.allergens),
      minimum: v.minimum,
      packages: v.packages,
      leadTime_days: v.leadTime_days,
    };
    try {
      const saved = await (item
        ? call(changeItem, { params: { itemId: id }, body })
        : call(addItem, { body }));
      await changed();
      onClose(saved);
    } catch (error) {
      setFaults(form.place(faultsOf(error)));
    }
  };
  const choose = <T extends string>(
    label: string,
    value: T,
    set: (v: T) => void,
    of: readonly (readonly [T, string])[],
    disabled = false,
  ): ReactNode => (
    <TextField
      select
      label={label}
      value={value}
      onChange={e => set(e.target.value as T)}
      disabled={disabled}
    >
      {of.map(([v, w]) => (
        <MenuItem key={v} value={v}>
          {w}
        </MenuItem>
      ))}
    </TextField>
  );
  const same = <T extends string>(list: readonly T[]) => list.map(x => [x, x] as const);
  const number = (label: string, name: Parameters<typeof form.field>[0]) => (
    <TextField label={label} inputMode="decimal" {...form.field(name)} />
  );
  return (
    <FormDialog
      title={item ? 'Change the item' : 'Add an item'}
      action={item ? 'Keep the change' : 'Add the item'}
      faults={faults}
      onClose={() => onClose()}
      onSubmit={() => void save()}
    >
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr' },
          gap: 2,
          mt: 1,
          alignItems: 'start',
        }}
      >
        {choose(
          'Kind',
          kind,
          setKind,
          ITEM_KINDS.map(k => [k, KIND_WORDS[k].toLowerCase()] as const),
          item !== undefined,
        )}
        <TextField label="Name" {...form.field('name')} />
        {kind === 'jar' &&
          choose(
            'Jar size',
            jarSize,
            setJarSize,
            JAR_SIZES.map(s => [s.id, s.name] as const),
          )}
        {(kind === 'jar' || kind === 'lid' || kind === 'band') &&
          choose('Mouth', mouth, setMouth, [['', 'does not matter'], ...same(MOUTHS)] as const)}
        {kind === 'jar' && number('To the brim, mL', 'brim_mL')}
        {kind === 'jar' && number('Empty on the scale, g', 'tare_g')}
        {kind === 'tool' && choose('State', toolState, setToolState, same(TOOL_STATES))}
        {!counted &&
          choose(
            'Counted in',
            unit,
            setUnit,
            (Object.keys(UNITS) as Item['unit'][]).map(u => [u, UNITS[u]] as const),
            item !== undefined,
          )}
        {!counted && unit === 'each' && number('Grams of one piece', 'unit_g')}
        {!counted && number('Grams in one mL', 'density_gPerMl')}
        {kind === 'ingredient' && (
          <>
            {choose('What it is', use, setUse, [['', 'by its name'], ...same(ITEM_USES)] as const)}
            {use === 'produce' && number('Grams of a bushel', 'bushel_g')}
            <TextField label="Name on the label" {...form.field('labelName')} />
            <TextField label="Its own ingredients, if bought mixed" {...form.field('subIngredients')} />
            <TextField label="Allergens, with commas" {...form.field('allergens')} />
          </>
        )}
        {kind !== 'tool' && (
          <>
            {number(`Least to have${counted ? '' : `, ${unit === 'each' ? 'pieces' : unit}`}`, 'minimum')}
            {number('Days until it is here', 'leadTime_days')}
            <TextField
              label="Packages that shops sell"
              {...form.field('packages')}
              helperText={
                form.field('packages').helperText ??
                `Name: how many ${counted ? 'pieces' : UNITS[unit]}; case of 12: 12`
              }
              sx={{ gridColumn: { sm: '1 / -1' } }}
            />
          </>
        )}
      </Box>
    </FormDialog>
  );
}
