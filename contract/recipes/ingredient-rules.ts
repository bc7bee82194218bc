import { type UnitId, UNITS } from '@cocotte/core/measure';
import { type Ingredient, LINE_ROLES, type SetKind } from '@cocotte/core/ingredients';
import { type Rule, choice, dictionary, figure, flag, list, maybe, shape, text } from '../rules.ts';

const percent = (name: string) => figure({ min: 0, max: 100, name });
const grams = (name: string, max: number) => figure({ min: 0, above: true, max, name });
const trim = figure({
  min: 0,
  above: true,
  max: 1,
  name: 'The trim yield',
  why: 'It is what is left of what was bought, above 0 and up to 1.',
});
const ph = figure({ min: 0, max: 14, name: 'The pH', why: 'The scale runs from 0 to 14.' });

/** An ingredient of the kitchen's own library. Declared against the type in core. */
export const ingredientRule = shape<Ingredient>({
  id: text({ min: 1, max: 60 }),
  name: text({ min: 1, max: 80, name: 'The name' }),
  aliases: list(text({ min: 1, max: 80, name: 'Another name' }), { max: 40 }),
  role: choice(LINE_ROLES),
  cup_g: dictionary(grams('The weight of a cup in grams', 700)),
  one_g: dictionary(grams('The weight of one in grams', 20_000)) as Rule<Ingredient['one_g']>,
  bushel_g: maybe(grams('The weight of a bushel in grams', 100_000)),
  trim: dictionary(trim) as Rule<Ingredient['trim']>,
  thawedYield: maybe(trim),
  water_pct: percent('The water in percent'),
  solids_pct: percent('The soluble solids in percent'),
  ph: maybe(list(ph, { min: 2, max: 2 })) as Rule<Ingredient['ph']>,
  acid: maybe(
    shape<NonNullable<Ingredient['acid']>>({
      kind: choice(['citric', 'malic', 'tartaric', 'acetic'] as const),
      titratable_pct: percent('The titratable acid in percent'),
    }),
  ),
  safelyAcid: flag,
  group: maybe(choice(['I', 'II'] as const)),
  strength_pct: maybe(figure({ min: 0, max: 100, name: 'The strength in percent' })),
  allergens: list(text({ min: 1, max: 40 }), { max: 20 }),
  labelName: text({ max: 80 }),
  subIngredients: text({ max: 300 }),
  freshFactor: figure({ min: 1, max: 30, name: 'The fresh weight it stands for' }),
  set: maybe(
    choice<SetKind>([
      'ordinary pectin',
      'low-sugar pectin',
      'calcium pectin',
      'calcium water',
      'modified starch',
      'other',
    ]),
  ),
  liquid: flag,
  dryPint: flag,
  refused: maybe(text({ max: 40 })),
  notes: text({ max: 400 }),
  sources: dictionary(text({ min: 1, max: 40 })) as Rule<Ingredient['sources']>,
});

/** Units a piece may be counted in. */
export const PIECE_UNITS = (Object.keys(UNITS) as UnitId[]).filter(u => UNITS[u].dimension === 'count');
