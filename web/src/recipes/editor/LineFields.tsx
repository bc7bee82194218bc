import { type Ingredient, LINE_ROLES, formsOf } from '@cocotte/core/ingredients';
import type { Kitchen } from '@cocotte/core/kitchen';
import { UNITS, fieldText, massText, readAmount } from '@cocotte/core/measure';
import { PLACES, type Place, factsOf, lineMass_g } from '@cocotte/core/recipes';
import { SEPARATORS, type Separator } from '@cocotte/core/balance';
import { Box, Button } from '@mui/material';
import { memo, useEffect, useRef, useState } from 'react';
import { get, useFormState, useWatch } from 'react-hook-form';
import { Amount, AmountWords } from '../../kit/Amount.tsx';
import { Switcher, Toggle } from '../../kit/controls.tsx';
import { Figure, Pick, Suggested, Text, Tick } from '../../kit/fields.tsx';
import { Cells, Line } from '../../kit/layout.tsx';
import { useHere } from '../../shell/session.tsx';
import type { Library } from '../library.ts';
import type { DraftLine } from './draft.ts';
import type { DraftForm } from './form.ts';
import { readLineAlone } from './read-draft.ts';

const WHERE: Record<Place, string> = {
  pot: 'the pot',
  brine: 'the brine',
  soak: 'a soak, partly poured away',
  infused: 'infused and lifted out',
  dip: 'a dip, never in the food',
  strained: 'strained off',
  'each jar': 'each jar (in one pint)',
};
/** Facts that are folded away until somebody wants them, or something is wrong with them. */
const FACTS = [
  'density_gPerMl',
  'each_g',
  'bushel_g',
  'trimYield',
  'solids_pct',
  'addedSugar_pct',
  'freshFactor',
  'labelName',
  'allergens',
  'ratio',
] as const;

/**
 * One ingredient of the draft: what it is and how much in one row, its facts underneath when asked for. It hears of
 * changes by itself, so that typing in one line does not draw the others.
 */
export const LineFields = memo(OneLine, (a, b) => a.index === b.index && a.library === b.library);

function OneLine({
  form,
  index,
  onRemove,
  library,
}: {
  form: DraftForm;
  index: number;
  onRemove: (index: number) => void;
  library: Library;
}) {
  const { kitchen } = useHere();
  const [open, setOpen] = useState(false);
  const { control } = form.form;
  const path = `lines.${index}` as const;
  const line = useWatch({ control, name: path });
  const { errors } = useFormState({ control, name: path });
  const at = <K extends keyof DraftLine & string>(key: K) => form.at(`${path}.${key}`);
  const figure = (key: keyof DraftLine & string, label: string, unit?: string) => (
    <Figure at={at(key)} label={label} unit={unit} />
  );
  const put = (part: Partial<DraftLine>) => form.set(path, { ...form.form.getValues(path), ...part });
  const choose = (ingredient: Ingredient | null) => {
    if (!ingredient) return put({ ingredientId: null });
    const read = readAmount(line.amount, kitchen.locale, ingredient);
    const amount = read.ok
      ? read.value
      : { text: '1', unit: 'each' as const, value: '1', upTo: null, toTaste: false };
    return put({
      name: ingredient.name,
      ...textOfFacts(factsOf(ingredient, amount, `${ingredient.name} ${line.preparation}`), kitchen.locale),
    });
  };
  const ingredient = line.ingredientId === null ? undefined : library.byId.get(line.ingredientId);
  // What one weighs hangs on the unit: where the library's figure stood, the library's of the new unit stands.
  const now = readAmount(line.amount, kitchen.locale, ingredient);
  const unit = now.ok ? now.value.unit : null;
  const unitBefore = useRef({ id: line.id, unit });
  useEffect(() => {
    const { id, unit: before } = unitBefore.current;
    if (unit === null || (unit === before && id === line.id)) return;
    unitBefore.current = { id: line.id, unit };
    // Moved up or down: another line stands here.
    if (id !== line.id || !ingredient) return;
    const of = (u: typeof unit) =>
      textOfFacts(
        factsOf(
          ingredient,
          { text: '', unit: u, value: '1', upTo: null, toTaste: false },
          `${ingredient.name} ${line.preparation}`,
        ),
        kitchen.locale,
      );
    const was = before === null ? '' : of(before).each_g;
    const { each_g, weightSource } = of(unit);
    if (line.each_g !== was || each_g === line.each_g || each_g === undefined) return;
    form.set(path, {
      ...form.form.getValues(path),
      each_g,
      ...(weightSource !== undefined && { weightSource }),
    });
  });
  const more = open || FACTS.some(k => get(errors, `${path}.${k}`));
  const fraction = (share: number) => fieldText(share * 100, kitchen.locale, 2);
  const ways = ingredient ? waysToTrim(ingredient) : [];
  return (
    <>
      <Cells wide="2.2fr 1.1fr 1.5fr auto" narrow="1fr 1fr" gap={1.5} mt={0}>
        <Suggested
          at={at('name')}
          label="Ingredient"
          of={library.all}
          nameOf={i => i.name}
          among={(all, typed) => matching(all, typed, library)}
          picked={ingredient ?? null}
          detail={i => i.role}
          onPick={choose}
          hint={!ingredient && line.name.trim() !== '' && 'Not from the library: enter its role and facts.'}
        />
        <Amount
          at={at('amount')}
          unitAt={at('chosenUnit')}
          label="Amount"
          knowing={ingredient ?? {}}
          reading={<ReadingOf line={line} kitchen={kitchen} />}
          hint="such as 2 1/2 c, 5 lb 4 oz, half a bushel"
        />
        <Text at={at('preparation')} label="Prepared how" />
        <Button
          variant="outlined"
          onClick={() => onRemove(index)}
          aria-label={`Remove ingredient ${index + 1}`}
        >
          Remove
        </Button>
      </Cells>
      <Line mt={1.25} sx={{ alignItems: 'flex-start' }}>
        <Pick at={at('role')} label="Role" of={LINE_ROLES} sx={{ width: 185 }} />
        <Pick
          at={at('where')}
          label="Goes into"
          of={PLACES.map(p => [p, WHERE[p]] as const)}
          onPick={where => put({ where, keptShare: usualKept(where, line.keptShare) })}
          sx={{ width: 180 }}
        />
        <Toggle
          label={`The amount of ingredient ${index + 1} means`}
          value={line.basis}
          of={['prepared', 'as bought']}
          onPick={basis => put({ basis })}
        />
        {line.where === 'strained' && (
          <Switcher
            label="Put through"
            value={SEPARATOR_NAMES.find(s => fraction(SEPARATORS[s].share) === line.keptShare) ?? ''}
            of={[['', 'as entered'], ...SEPARATOR_NAMES]}
            onPick={(by: string) => {
              const way = SEPARATOR_NAMES.find(s => s === by);
              if (way) put({ keptShare: fraction(SEPARATORS[way].share) });
            }}
            sx={{ width: 190 }}
          />
        )}
        {needsKept(line.where) && (
          <Box sx={{ width: 170 }}>
            <Figure
              at={at('keptShare')}
              label="Stays in the food"
              unit="%"
              hint={line.where === 'soak' ? 'where no soak step drains it; else it is reckoned' : undefined}
            />
          </Box>
        )}
        {line.role === 'acid' && (
          <Box sx={{ width: 140 }}>{figure('minStrength_pct', 'At least', '% acid')}</Box>
        )}
        <Button
          size="small"
          variant="outlined"
          onClick={() => setOpen(o => !o)}
          aria-expanded={more}
          sx={{ minHeight: 40 }}
        >
          {open ? 'Less' : 'Facts'}
        </Button>
      </Line>
      {more && (
        <Box sx={{ mt: 1.5, borderLeft: 3, borderColor: 'rule.main', pl: 1.5 }}>
          <Cells wide="1fr 1fr 1fr 1fr" narrow="1fr 1fr" gap={1.5}>
            {ingredient && formsOf(ingredient).length > 1 && (
              <Pick
                at={at('form')}
                label="Cut or packed"
                of={formsOf(ingredient)}
                onPick={picked => {
                  const grams = ingredient.cup_g[picked];
                  if (grams) put({ form: picked, density_gPerMl: fieldText(grams / CUP_ML, kitchen.locale) });
                }}
              />
            )}
            {figure('density_gPerMl', 'One mL weighs', 'g')}
            {figure('each_g', 'One weighs', 'g')}
            {figure('bushel_g', 'A bushel weighs', 'g')}
            {ways.length > 1 && (
              <Switcher
                label="Prepared by"
                value={ways.find(w => fraction(w.left) === line.trimYield)?.by ?? ''}
                of={[['', 'as entered'], ...ways.map(w => w.by)]}
                onPick={(by: string) => put({ trimYield: fraction(ways.find(w => w.by === by)?.left ?? 1) })}
              />
            )}
            {figure('trimYield', 'Left of what is bought', '%')}
            {figure('solids_pct', 'Soluble solids', '%')}
            {figure('addedSugar_pct', 'Sugar added to it', '%')}
            {figure('freshFactor', 'Stands for', 'times fresh')}
            {line.role === 'fruit' && (
              <Pick at={at('group')} label="Standard-of-identity group" of={[['', 'none'], 'I', 'II']} />
            )}
            <Text at={at('labelName')} label="Name on the label" />
            <Text at={at('subIngredients')} label="Its own ingredients" />
            <Text at={at('allergens')} label="Allergens" />
            <Text at={at('weightSource')} label="Where the weights come from" />
          </Cells>
          {line.role === 'fruit' && (
            <Tick
              at={at('safelyAcid')}
              label="Safely acid by itself (not fig, Asian pear, white peach, elderberry, ripe mango, tomato and the like)"
            />
          )}
          <RatioFields form={form} index={index} />
        </Box>
      )}
    </>
  );
}

/** So much for each measure taken in a step, or for each amount of another line. */
function RatioFields({ form, index }: { form: DraftForm; index: number }) {
  const { control } = form.form;
  const [line, lines, steps] = useWatch({ control, name: [`lines.${index}`, 'lines', 'steps'] });
  const at = (key: 'of' | 'id' | 'per') => form.at(`lines.${index}.ratio.${key}`);
  const { of } = line.ratio;
  return (
    <Cells wide="1.2fr 1.6fr 1fr" narrow="1fr 1fr" gap={1.5}>
      <Pick
        at={at('of')}
        label="So much for each"
        of={[
          ['', 'not a ratio'],
          ['step', 'measure taken in a step'],
          ['line', 'amount of another line'],
        ]}
        onPick={picked =>
          form.set(`lines.${index}.ratio`, {
            of: picked as typeof of,
            id: '',
            per: picked === '' ? '' : line.ratio.per,
          })
        }
      />
      {of === 'step' && (
        <Pick
          at={at('id')}
          label="Measured in"
          of={steps.filter(s => s.kind === 'measure').map(s => [s.id, s.text || 'a measuring step'] as const)}
        />
      )}
      {of === 'line' && (
        <Pick
          at={at('id')}
          label="Of"
          of={lines.filter(l => l.id !== line.id).map(l => [l.id, l.name || 'an ingredient'] as const)}
        />
      )}
      {of !== '' && <Amount at={at('per')} label="For each" placeholder="such as 1 L" />}
    </Cells>
  );
}

/** What the amount of a line comes to, as it is typed. */
function ReadingOf({ line, kitchen }: { line: DraftLine; kitchen: Kitchen }) {
  const { line: read, faults } = readLineAlone(line, kitchen);
  if (faults.some(f => f.path === '.amount')) return null;
  let grams = '';
  try {
    grams = massText(lineMass_g(read), kitchen);
  } catch {
    grams = '';
  }
  const density =
    UNITS[read.amount.unit].dimension === 'volume' && read.density_gPerMl
      ? ` at ${fieldText(read.density_gPerMl, kitchen.locale)} g/mL`
      : '';
  return (
    <>
      reads <AmountWords {...read.amount} />
      {grams && ` = ${grams}${density}`}
      {read.basis === 'as bought' && read.trimYield < 1 && grams && ' prepared'}
    </>
  );
}

/** What each way of preparing leaves of what was bought; thawed fruit is drained. */
function waysToTrim(ingredient: Ingredient): { by: string; left: number }[] {
  const ways = Object.entries(ingredient.trim).map(([by, left]) => ({ by, left }));
  return ingredient.thawedYield === null
    ? ways
    : [...ways, { by: 'thawed, drained', left: ingredient.thawedYield }];
}

const CUP_ML = UNITS.cup.factor.valueOf();

/** Options by what is typed: names and aliases that hold it, the ones that begin with it first. */
function matching(options: readonly Ingredient[], typed: string, library: Library): Ingredient[] {
  const low = typed.trim().toLowerCase();
  if (low === '') return options.slice(0, 40);
  const found = options.filter(
    o => o.name.toLowerCase().includes(low) || o.aliases.some(a => a.includes(low)),
  );
  const best = library.index.find(low)?.ingredient;
  const order = (o: Ingredient) => (o === best ? 0 : o.name.toLowerCase().startsWith(low) ? 1 : 2);
  return [...new Set([...(best ? [best] : []), ...found])].sort((a, b) => order(a) - order(b)).slice(0, 40);
}

function textOfFacts(f: ReturnType<typeof factsOf>, locale: string): Partial<DraftLine> {
  const textOf = (value: number | null, places = 4) =>
    value === null ? '' : fieldText(value, locale, places);
  return {
    ingredientId: f.ingredientId,
    role: f.role,
    form: f.form,
    density_gPerMl: textOf(f.density_gPerMl),
    each_g: textOf(f.each_g),
    bushel_g: textOf(f.bushel_g, 0),
    weightSource: f.weightSource,
    trimYield: textOf(f.trimYield * 100, 2),
    solids_pct: textOf(f.solids_pct),
    freshFactor: textOf(f.freshFactor),
    group: f.group ?? '',
    labelName: f.labelName,
    subIngredients: f.subIngredients,
    allergens: f.allergens.join(', '),
    minStrength_pct: textOf(f.minStrength_pct),
    safelyAcid: f.safelyAcid,
  };
}

const SEPARATOR_NAMES = Object.keys(SEPARATORS) as Separator[];
const needsKept = (where: Place) => where === 'soak' || where === 'infused' || where === 'strained';
const USUAL: Partial<Record<Place, string>> = { dip: '0', infused: '5', soak: '20', strained: '65' };
/** What usually stays in the food; a share that somebody typed stays when it goes into the pot. */
const usualKept = (where: Place, now: string): string =>
  USUAL[where] ?? (Object.values(USUAL).includes(now) ? '100' : now);
