import {
  type Fault,
  type Reading,
  fieldText,
  readNumber,
  ofNames,
  byName,
  type Names,
} from '@cocotte/core/measure';
import { type Readings, missing } from '../../kit/readers.ts';
import { type Ingredient, type LineRole, blankIngredient } from '@cocotte/core/ingredients';

/** Rows of a form whose keys are free: a cup by the way it is cut, a piece by its unit. */
export interface Row {
  key: string;
  grams: string;
}
export interface Texts {
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

export const BLANK = blankIngredient('', '', 'fruit');

/** An ingredient as it is typed. */
export function textsOf(i: Ingredient, locale: string): Texts {
  const n = (v: number | null | undefined) => (v === null || v === undefined ? '' : fieldText(v, locale));
  const percent = (v: number | null | undefined) =>
    v === null || v === undefined ? '' : fieldText(v * 100, locale, 2);
  const weights = (of: object) => [
    ...Object.entries(of).map(([key, g]) => ({ key, grams: n(g as number) })),
    { key: '', grams: '' },
  ];
  return {
    name: i.name,
    aliases: i.aliases.join(', '),
    role: i.role,
    cups: weights(i.cup_g),
    pieces: weights(i.one_g),
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

/** Reads the form; values that differ from what was there are the kitchen's own. */
export function readTexts(t: Texts, base: Ingredient, id: string, locale: string): Readings<Ingredient> {
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
    faults.push(missing('The name is empty.', 'It is found by it.', 'Fill it in.', 'name'));
  const weights = (rows: Row[], path: string, max: number) =>
    byName(
      rows.flatMap((r, i): (readonly [string, number])[] =>
        r.key.trim() === '' && r.grams.trim() === ''
          ? []
          : [
              [
                r.key.trim() || 'as it is',
                number(`${path}.${i}.grams`, r.grams, 'The weight in grams', 0, max, true),
              ],
            ],
      ),
    );
  const list = (text: string) => [
    ...new Set(
      text
        .split(',')
        .map(a => a.trim())
        .filter(Boolean),
    ),
  ];
  const trim = ofNames(
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
    one_g: weights(t.pieces, 'pieces', 20_000) as Names<number> & Ingredient['one_g'],
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
      t.role === 'acid' ? maybe('strength', t.strength, 'The strength', 0, 100) : base.strength_pct,
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
  return faults.length > 0 ? { ok: false, faults } : { ok: true, value: { ...ingredient, sources } };
}
