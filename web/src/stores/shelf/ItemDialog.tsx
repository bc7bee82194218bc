import { addItem, changeItem } from '@cocotte/contract';
import { densityOf } from '@cocotte/core/ingredients';
import { JAR_SIZES, type JarSizeId } from '@cocotte/core/jars';
import { fieldText } from '@cocotte/core/measure';
import {
  type Item,
  ITEM_KINDS,
  ITEM_USES,
  type ItemUse,
  MOUTHS,
  type Mouth,
  TOOL_STATES,
  upgradeItem,
  itemUseOf,
} from '@cocotte/core/stores';
import { Button } from '@mui/material';
import { useState } from 'react';
import { v7 } from 'uuid';
import { Figure, Pick, Text } from '../../kit/fields.tsx';
import { useRows, useTyped } from '../../kit/form.ts';
import { FormDialog } from '../../kit/FormDialog.tsx';
import { Cells, Stack } from '../../kit/layout.tsx';
import { NewerAsked } from '../../kit/NewerAsked.tsx';
import { anyWords, listed, orElse, orNone, rows, unasked, useRead, words } from '../../kit/readers.ts';
import { useLibrary } from '../../recipes/library.ts';
import { CallError, call } from '../../shell/call.ts';
import { useHere } from '../../shell/session.tsx';
import { useStockChanged } from '../api.ts';
import { KIND_WORDS } from '../words.ts';

const UNITS = { g: 'grams', mL: 'millilitres', each: 'pieces' } as const;

/** An item as it stands in its fields; a new one while nothing is typed. */
function textsOf(item: Item | undefined, locale: string) {
  const plain = (n: number | string | null | undefined) =>
    n === null || n === undefined ? '' : fieldText(Number(n), locale, 6);
  return {
    kind: item?.kind ?? ITEM_KINDS[0]!,
    unit: item?.unit ?? ('g' as Item['unit']),
    use: (item?.use ?? '') as ItemUse | '',
    jarSize: (item?.jarSize ?? 'pint') as JarSizeId,
    mouth: (item?.mouth ?? '') as Mouth | '',
    toolState: item?.toolState ?? TOOL_STATES[0]!,
    name: item?.name ?? '',
    labelName: item?.labelName ?? '',
    subIngredients: item?.subIngredients ?? '',
    allergens: item?.allergens.join(', ') ?? '',
    unit_g: plain(item?.unit_g),
    density_gPerMl: plain(item?.density_gPerMl),
    bushel_g: plain(item?.bushel_g),
    brim_mL: plain(item?.brim_mL),
    tare_g: plain(item?.tare_g),
    minimum: plain(item?.minimum),
    packages: (item?.packages ?? []).map(p => ({ name: p.name, quantity: plain(p.quantity) })),
    leadTime_days: plain(item?.leadTime_days),
  };
}

/** Adds something the kitchen keeps, or changes what is known of it. */
export function ItemDialog({ item, onClose }: { item?: Item; onClose: (saved?: Item) => void }) {
  const { kitchen } = useHere();
  const library = useLibrary();
  const changed = useStockChanged();
  const read = useRead();
  const [id] = useState(() => item?.id ?? v7());
  /** What the change is made to; somebody else's newer one once that was seen. */
  const [base, setBase] = useState(item);
  const [newer, setNewer] = useState<Item | null>(null);
  const above = (name: string, max: number, unit: string) =>
    read.figure({ name, min: 0, above: true, max, unit });
  const form = useTyped(textsOf(item, kitchen.locale), ({ kind, unit }) => ({
    name: words('The name'),
    labelName: anyWords,
    subIngredients: anyWords,
    allergens: listed,
    unit_g:
      (kind === 'ingredient' || kind === 'fuel') && unit === 'each'
        ? above('The weight of one', 20_000, ' g')
        : unasked(null),
    density_gPerMl: orNone(above('The density', 3, ' g')),
    bushel_g: orNone(above('The bushel', 60_000, ' g')),
    brim_mL: orNone(above('The volume to the brim', 10_000, ' mL')),
    tare_g: orNone(above('The empty weight', 5000, ' g')),
    minimum: orNone(read.decimal({ name: 'The least to have', min: 0, max: 1e7 })),
    packages: rows(() => ({
      name: words('The package'),
      quantity: read.decimal({ name: 'What a package holds', min: 0, above: true, max: 1e7 }),
    })),
    leadTime_days: orElse(0, read.figure({ name: 'The days', min: 0, max: 365, whole: true })),
  }));
  const { at } = form;
  const packages = useRows(form.form.control, 'packages');
  const { kind, unit, use } = form.all();
  const counted = kind !== 'ingredient' && kind !== 'fuel';
  const unitWords = counted || unit === 'each' ? 'pieces' : unit;
  const save = form.submit(async v => {
    const ingredient = kind === 'ingredient';
    // What the library knows by this name serves the lines of recipes that are written with its entry.
    const match = ingredient ? library.index.find(v.name) : null;
    const known = match?.exact ? match.ingredient : null;
    const density = v.density_gPerMl ?? (known && densityOf(known, ''));
    const ownUnit = counted ? 'each' : unit;
    const body: Item = {
      ...upgradeItem({ id, kind, name: v.name, unit: ownUnit }),
      ...base,
      kind,
      name: v.name,
      unit: ownUnit,
      unit_g: !ingredient ? null : unit === 'g' ? 1 : unit === 'mL' ? density : v.unit_g,
      density_gPerMl: ingredient ? density : v.density_gPerMl,
      ingredientId: known?.id ?? item?.ingredientId ?? null,
      bushel_g: v.bushel_g,
      use: !ingredient ? 'other' : v.use || (known ? itemUseOf(known) : 'other'),
      jarSize: kind === 'jar' ? v.jarSize : null,
      mouth: kind === 'jar' || kind === 'lid' || kind === 'band' ? v.mouth || null : null,
      brim_mL: kind === 'jar' ? v.brim_mL : null,
      tare_g: kind === 'jar' ? v.tare_g : null,
      toolState: kind === 'tool' ? v.toolState : null,
      labelName: ingredient ? v.labelName || known?.labelName || v.name.toLowerCase() : '',
      subIngredients: v.subIngredients || (item ? '' : (known?.subIngredients ?? '')),
      allergens: v.allergens.length === 0 && !item ? (known?.allergens ?? []) : v.allergens,
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
      if (!(error instanceof CallError) || !error.newer) throw error;
      setNewer(error.newer as Item);
    }
  });
  const settle = (theirs: Item, take: boolean) => {
    setBase(theirs);
    setNewer(null);
    if (take) form.again(textsOf(theirs, kitchen.locale));
  };
  return (
    <FormDialog
      title={item ? 'Change the item' : 'Add an item'}
      action={item ? 'Keep the change' : 'Add the item'}
      form={form}
      onClose={() => onClose()}
      onSubmit={save}
    >
      {newer && (
        <NewerAsked onTake={() => settle(newer, true)} onKeep={() => settle(newer, false)}>
          It is now: {newer.name}.
        </NewerAsked>
      )}
      <Cells>
        <Pick
          at={at('kind')}
          label="Kind"
          of={ITEM_KINDS.map(k => [k, KIND_WORDS[k].toLowerCase()] as const)}
          disabled={item !== undefined}
        />
        <Text at={at('name')} label="Name" />
        {kind === 'jar' && (
          <Pick at={at('jarSize')} label="Jar size" of={JAR_SIZES.map(s => [s.id, s.name] as const)} />
        )}
        {(kind === 'jar' || kind === 'lid' || kind === 'band') && (
          <Pick at={at('mouth')} label="Mouth" of={[['', 'does not matter'], ...MOUTHS]} />
        )}
        {kind === 'jar' && <Figure at={at('brim_mL')} label="To the brim" unit="mL" />}
        {kind === 'jar' && <Figure at={at('tare_g')} label="Empty on the scale" unit="g" />}
        {kind === 'tool' && <Pick at={at('toolState')} label="State" of={TOOL_STATES} />}
        {!counted && (
          <Pick at={at('unit')} label="Counted in" of={Object.entries(UNITS)} disabled={item !== undefined} />
        )}
        {!counted && unit === 'each' && <Figure at={at('unit_g')} label="One piece weighs" unit="g" />}
        {!counted && <Figure at={at('density_gPerMl')} label="One mL weighs" unit="g" />}
        {kind === 'ingredient' && (
          <>
            <Pick at={at('use')} label="What it is" of={[['', 'by its name'], ...ITEM_USES]} />
            {use === 'produce' && <Figure at={at('bushel_g')} label="A bushel weighs" unit="g" />}
            <Text at={at('labelName')} label="Name on the label" />
            <Text at={at('subIngredients')} label="Its own ingredients, if bought mixed" />
            <Text at={at('allergens')} label="Allergens, with commas" />
          </>
        )}
        {kind !== 'tool' && (
          <>
            <Figure at={at('minimum')} label="Least to have" unit={unitWords} />
            <Figure at={at('leadTime_days')} label="Here after" unit="days" />
          </>
        )}
      </Cells>
      {kind !== 'tool' && (
        <Stack gap={1.5} sx={{ mt: 2 }}>
          {packages.fields.map((p, i) => (
            <Cells key={p.key} role="group" aria-label={`Package ${i + 1}`} wide="1.4fr 1fr auto" mt={0}>
              <Text at={at(`packages.${i}.name`)} label="Sold in" placeholder="case of 12" />
              <Figure at={at(`packages.${i}.quantity`)} label="It holds" unit={unitWords} />
              <Button
                variant="outlined"
                aria-label={`Remove package ${i + 1}`}
                onClick={() => packages.remove(i)}
              >
                Remove
              </Button>
            </Cells>
          ))}
          <Button
            variant="outlined"
            sx={{ justifySelf: 'start' }}
            onClick={() => packages.append({ name: '', quantity: '' })}
          >
            Add a package that shops sell
          </Button>
        </Stack>
      )}
    </FormDialog>
  );
}
