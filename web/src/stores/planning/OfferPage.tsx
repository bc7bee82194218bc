import {
  Decimal,
  UNITS,
  type UnitId,
  amount_g,
  fieldText,
  kitchenUnits,
  moneyText,
  numberText,
} from '@cocotte/core/measure';
import { type JarSizeId, jarSize } from '@cocotte/core/jars';
import { type Recipe, chooseJars, factorForFruit, mainLine, scaleRecipe } from '@cocotte/core/recipes';
import { processFor } from '@cocotte/core/review';
import {
  type Bound,
  type Offer,
  type ShelfItem,
  buyOrLeave,
  shelfForMouth,
  shelfOfKind,
} from '@cocotte/core/stores';
import { Box } from '@mui/material';
import { useSearchParams } from 'react-router';
import { useRecipe, useRecipes } from '../../recipes/api.ts';
import { firstWanted, foresee, madeOf, planOf } from '../../recipes/sheet/plan.ts';
import { Switcher } from '../../kit/controls.tsx';
import { Figure, Money, Pick } from '../../kit/fields.tsx';
import { useTyped } from '../../kit/form.ts';
import { Cells, Columns, Stack } from '../../kit/layout.tsx';
import { Nothing, Sheet, Soft, Tag, ViewHead } from '../../kit/parts.tsx';
import { useRead } from '../../kit/readers.ts';
import { useHere } from '../../shell/session.tsx';
import { useRecipeCosts, useShelf } from '../api.ts';
import { figuresOf, minutesFor } from '../costs/figures.ts';
import { StoresNav } from '../StoresNav.tsx';

const NO_FILTER = { search: '', family: '', tag: '', product: '', variantOf: '' };
const UNITS_SOLD: UnitId[] = ['lb', 'kg', 'bushel', 'peck'];

/** Fruit at this price: what a jar would cost, the most to pay, and how much of it can be taken. */
export function OfferPage() {
  const [params, setParams] = useSearchParams();
  const recipeId = params.get('recipe') ?? '';
  const { data: recipes } = useRecipes(NO_FILTER);
  const { data } = useRecipe(recipeId || undefined);
  const rows = recipes?.pages.flatMap(p => p.recipes) ?? [];
  return (
    <>
      <ViewHead
        title="Buy or leave"
        detail="Fruit is on offer today: is it worth it, and how much of it can be taken?"
      />
      <StoresNav />
      <Sheet sx={{ mb: 2 }}>
        <Switcher
          label="For which recipe"
          value={rows.some(r => r.id === recipeId) ? recipeId : ''}
          of={rows.map(r => [r.id, r.name] as const)}
          onPick={recipe => setParams({ recipe })}
          sx={{ maxWidth: 420 }}
        />
      </Sheet>
      {data &&
      !data.recipe.sketch &&
      data.recipe.lines.some(l => l.role === 'fruit' || l.role === 'low-acid produce') ? (
        <Opened key={recipeId} recipe={data.recipe} recipeId={recipeId} />
      ) : (
        <Sheet>
          <Nothing>
            {recipeId && data
              ? 'This recipe names no fruit or produce yet.'
              : 'Choose what it would be made into.'}
          </Nothing>
        </Sheet>
      )}
    </>
  );
}

function Opened({ recipe, recipeId }: { recipe: Recipe; recipeId: string }) {
  const { kitchen } = useHere();
  const { data: shelf } = useShelf();
  const { data: past } = useRecipeCosts(recipeId);
  const main = mainLine(recipe);
  const reader = useRead();
  const form = useTyped(
    {
      quantity: '',
      unit: kitchenUnits(kitchen).weight,
      asked: '',
      size: recipe.makes.size,
      price: '',
      margin: fieldText(kitchen.costs.pricing.margin_pct, kitchen.locale),
      hours: '6',
    },
    () => ({
      quantity: reader.decimal({ name: 'The quantity', min: 0, above: true, max: 100_000 }),
      asked: reader.decimal({ name: 'The price asked', min: 0, max: 1_000_000 }),
      price: reader.decimal({ name: 'The price of a jar', min: 0, above: true, max: 10_000 }),
      margin: reader.figure({ name: 'The margin', min: 0, max: 99.9, unit: ' %' }),
      hours: reader.figure({ name: 'The hours', min: 0, above: true, max: 48 }),
    }),
    { live: true },
  );
  const { at } = form;
  const { unit, size, margin } = form.all();
  const read = form.now();
  const mass_g = read.quantity.ok ? massOf(recipe, read.quantity.value, unit) : null;
  const reckon = (): Offer | null => {
    if (
      !shelf ||
      mass_g === null ||
      !read.quantity.ok ||
      !read.asked.ok ||
      !read.price.ok ||
      !read.margin.ok ||
      !read.hours.ok
    )
      return null;
    const factor = factorForFruit(recipe, mass_g, 'as bought');
    const { jars } = chooseJars(
      madeOf(recipe, factor, size, kitchen.pots[0] ?? null, kitchen, null),
      size,
      recipe.jars.map(j => j.size),
    );
    if (jars.length === 0) return null;
    const plan = { ...planOf(recipe, firstWanted(recipe, kitchen), kitchen), factor, jars };
    // One pot after the other: attention grows with the fruit, opening the kitchen does not.
    const one = minutesFor(recipe, plan, foresee(recipe, plan, kitchen), kitchen, past?.batches ?? []);
    const batches = Math.max(1, factor.valueOf());
    const minutes = { ...one, attended: one.attended * batches };
    const figures = figuresOf(recipe, scaleRecipe(recipe, factor, jars), jars, shelf.shelf, kitchen, minutes);
    const count = jars.reduce((n, j) => n + j.count, 0);
    return buyOrLeave(
      figures,
      main.id,
      {
        paid: new Decimal(read.asked.value),
        quantity: new Decimal(read.quantity.value),
        price: new Decimal(read.price.value),
        margin_pct: read.margin.value,
      },
      boundsOf(
        recipe,
        size,
        shelf.shelf,
        kitchen,
        read.hours.value,
        (minutes.attended + minutes.kitchen) / count,
      ),
    );
  };
  const answer = reckon();
  const money = (x: string) => moneyText(new Decimal(x).toDecimalPlaces(2), kitchen);
  return (
    <Columns of="380px 1fr">
      <Sheet title={`${main.name} on offer`}>
        <Cells wide="1fr 110px" narrow="1fr 110px" gap={1.5} mt={0}>
          <Figure at={at('quantity')} label="How much" />
          <Pick
            at={at('unit')}
            label="Unit"
            of={UNITS_SOLD.map(u => [u, UNITS[u].names.at(-1) ?? u] as const)}
          />
        </Cells>
        <Stack gap={1.5} sx={{ mt: 1.5 }}>
          {mass_g === null && read.quantity.ok && (
            <Soft>What a {unit} of it weighs is not in the recipe: enter a weight.</Soft>
          )}
          <Money at={at('asked')} label="Asked for all of it" />
          <Pick
            at={at('size')}
            label="Into"
            of={recipe.jars.map(j => [j.size, jarSize(j.size).plural] as const)}
          />
          <Money at={at('price')} label="A jar sells for" />
          <Figure at={at('margin')} label="Margin wanted" unit="%" />
          <Figure at={at('hours')} label="Hours there are" />
        </Stack>
      </Sheet>
      <Sheet title="The answer">
        {answer ? (
          <>
            <Box
              sx={{ display: 'flex', gap: 2, alignItems: 'center', flexWrap: 'wrap', mb: 2 }}
              role="status"
            >
              <Box component="strong" sx={{ fontSize: '2rem', lineHeight: 1.1 }}>
                {answer.buy
                  ? answer.share < 1
                    ? `Buy ${numberText(answer.share * 100, kitchen, 0)} % of it`
                    : 'Buy it'
                  : 'Leave it'}
              </Box>
              <Tag tone={answer.buy ? 'leaf' : 'ox'}>
                {numberText(answer.margin_pct, kitchen, 0)} % margin, {margin} % wanted
              </Tag>
            </Box>
            <Box
              component="dl"
              sx={{
                display: 'grid',
                gridTemplateColumns: 'repeat(auto-fit, minmax(150px, 1fr))',
                gap: 2,
                m: 0,
              }}
            >
              {(
                [
                  ['A jar would cost', money(answer.perJar)],
                  ['Jars it makes', numberText(answer.jars, kitchen, 0)],
                  ['The most to pay', answer.mostForAll === null ? 'nothing' : money(answer.mostForAll)],
                  [
                    `The most for a ${unit}`,
                    answer.mostPerUnit === null ? 'nothing' : money(answer.mostPerUnit),
                  ],
                ] as const
              ).map(([k, v]) => (
                <Box key={k}>
                  <Box component="dt" sx={{ color: 'text.secondary' }}>
                    {k}
                  </Box>
                  <Box component="dd" sx={{ m: 0, fontSize: '1.4rem', fontWeight: 700 }}>
                    {v}
                  </Box>
                </Box>
              ))}
            </Box>
            <Box component="ul" sx={{ mt: 2, mb: 0, pl: 2.5 }}>
              {answer.bounds.map(b => (
                <li key={b.what}>
                  {BOUND_WORDS[b.what]} for {numberText(b.jars, kitchen, 0)} jars
                  {answer.tightest?.what === b.what && <strong>: this is what runs out first</strong>}
                </li>
              ))}
            </Box>
          </>
        ) : (
          <Nothing>Say how much there is, what is asked for it, and what a jar sells for.</Nothing>
        )}
      </Sheet>
    </Columns>
  );
}

const BOUND_WORDS: Record<Bound['what'], string> = {
  jars: 'Jars on the shelf',
  lids: 'Lids on the shelf',
  hours: 'The hours are enough',
  canner: 'The canner, load after load, is enough',
};

/** Grams of the main line, or null where the unit cannot be weighed. */
function massOf(recipe: Recipe, quantity: string, unit: UnitId): number | null {
  try {
    return amount_g({ text: '', unit, value: quantity, upTo: null, toTaste: false }, mainLine(recipe));
  } catch {
    return null;
  }
}

/** How many jars the shelf, the hours and the canner allow. */
function boundsOf(
  recipe: Recipe,
  size: JarSizeId,
  shelf: readonly ShelfItem[],
  kitchen: ReturnType<typeof useHere>['kitchen'],
  hours: number,
  minutesPerJar: number,
): Bound[] {
  const left = (s: ShelfItem | undefined) =>
    (s?.lots ?? []).reduce((n, l) => n + Number(l.onHand), 0) - Number(s?.reserved ?? 0);
  const bounds: Bound[] = [
    { what: 'jars', jars: Math.max(0, left(shelfOfKind(shelf, 'jar', size))) },
    { what: 'lids', jars: Math.max(0, left(shelfForMouth(shelf, 'lid', size))) },
    { what: 'hours', jars: Math.floor((hours * 60) / Math.max(1, minutesPerJar)) },
  ];
  const room = kitchen.canners.reduce((n, c) => Math.max(n, c.holds[size] ?? 0), 0);
  const time = processFor(recipe, size, kitchen.altitude_m, kitchen);
  if (room > 0)
    bounds.push({
      what: 'canner',
      jars: Math.floor((hours * 60) / (30 + (time.ok ? time.time.minutes : 10))) * room,
    });
  return bounds;
}
