import { blankIngredient } from '../blank-ingredient.ts';
import type { Ingredient } from '../ingredient.ts';

export type Short = Partial<Omit<Ingredient, 'id' | 'name' | 'aliases' | 'cup_g'>> & {
  cup?: Record<string, number>;
};

/** One entry: what it is called, other names with commas between, and the values that are known. */
export const one = (
  id: string,
  name: string,
  aliases: string,
  role: Ingredient['role'],
  { cup, ...rest }: Short,
): Ingredient => ({
  ...blankIngredient(id, name, role),
  aliases: aliases === '' ? [] : aliases.split(', '),
  cup_g: cup ?? {},
  ...rest,
});

export const lb = (pounds: number) => Math.round(pounds * 453.592_37);

export type Grow = {
  cup: Record<string, number>;
  one?: number;
  more?: Ingredient['one_g'];
  bu?: number;
  /** Knife, mill, blender. */
  trim: [number, number?, number?];
  thaw?: number;
  w: number;
  brix: number;
  ph: [number, number];
  acid?: [Ingredient['acid'] extends infer A ? (A extends { kind: infer K } ? K : never) : never, number];
  label?: string;
  dry?: boolean;
  notes?: string;
};
export const grown = (g: Grow): Short => ({
  cup: g.cup,
  one_g: { ...(g.one ? { each: g.one } : {}), ...g.more },
  bushel_g: g.bu ? lb(g.bu) : null,
  trim: {
    knife: g.trim[0],
    ...(g.trim[1] ? { mill: g.trim[1] } : {}),
    ...(g.trim[2] ? { blender: g.trim[2] } : {}),
  },
  thawedYield: g.thaw ?? null,
  water_pct: g.w,
  solids_pct: g.brix,
  ph: g.ph,
  acid: g.acid ? { kind: g.acid[0], titratable_pct: g.acid[1] } : null,
  dryPint: g.dry ?? false,
  notes: g.notes ?? '',
  ...(g.label ? { labelName: g.label } : {}),
});
/** Fruit that is safely acid by itself; its group under 21 CFR 150.160. */
export const fruit = (
  id: string,
  name: string,
  aliases: string,
  group: Ingredient['group'],
  g: Grow,
): Ingredient => one(id, name, aliases, 'fruit', { ...grown(g), safelyAcid: true, group });
/** Fruit on the list of those that are not. */
export const mild = (
  id: string,
  name: string,
  aliases: string,
  group: Ingredient['group'],
  g: Grow,
): Ingredient => one(id, name, aliases, 'fruit', { ...grown(g), safelyAcid: false, group });
export const produce = (id: string, name: string, aliases: string, g: Grow): Ingredient =>
  one(id, name, aliases, 'low-acid produce', grown(g));
