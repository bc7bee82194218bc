import type { Container } from '@cocotte/core/batches';
import type { JarSizeId } from '@cocotte/core/jars';
import {
  containerOf,
  type LabelNutrition,
  type LabelSetup,
  type Nutrients,
  readItemNumber,
} from '@cocotte/core/labels';
import { byName, fieldText, type Habits, kitchenUnits } from '@cocotte/core/measure';
import { anyWords, orElse, readersOf, type ValuesOf } from '../kit/readers.ts';
import { say } from '../words/views.ts';

/** Nutrients as they are asked for, with the most that 100 g can hold. */
export const NUTRIENTS = [
  ['energy_kcal', 900],
  ['fat_g', 100],
  ['saturated_g', 100],
  ['carbohydrate_g', 100],
  ['fibre_g', 100],
  ['sugars_g', 100],
  ['addedSugars_g', 100],
  ['protein_g', 100],
  ['sodium_mg', 40_000],
] as const satisfies readonly (readonly [keyof Nutrients, number])[];

/** How labels are made, as it stands in its fields. */
export function setupTexts(setup: LabelSetup, size: JarSizeId, habits: Habits) {
  const { length } = kitchenUnits(habits);
  const plain = (value: number, places = 2) => fieldText(value, habits.locale, places);
  const { across_mm, tall_mm, lid_mm } = containerOf(setup, size);
  const { nutrition } = setup;
  const entered = nutrition.how === 'entered' ? nutrition.per100_g : null;
  return {
    design: setup.design,
    stockId: setup.stockId,
    ink: setup.look.ink,
    accent: setup.look.accent,
    ground: setup.look.ground,
    pictureId: setup.look.pictureId,
    pictureRatio: setup.look.pictureRatio,
    words: setup.words,
    keeping: setup.keeping,
    shake: setup.shake,
    diluteParts: setup.diluteParts === null ? '' : plain(setup.diluteParts, 1),
    groupSpices: setup.groupSpices,
    netForm: setup.netForm,
    how: nutrition.how,
    serving: nutrition.how === 'none' ? '' : nutrition.serving.says,
    servingGrams: nutrition.how === 'none' ? '' : plain(nutrition.serving.grams),
    ...(byName(NUTRIENTS.map(([id]) => [id, entered ? plain(entered[id]) : '0'])) as unknown as Record<
      keyof Nutrients,
      string
    >),
    fewSulphites: setup.fewSulphites,
    scan: setup.scan,
    bars: setup.bars,
    number: setup.numbers.find(n => n.size === size)?.number ?? '',
    size,
    across_mm: plain(across_mm / length.size, 3),
    tall_mm: plain(tall_mm / length.size, 3),
    lid_mm: plain(lid_mm / length.size, 3),
  };
}
export type SetupTexts = ReturnType<typeof setupTexts>;

/** An item number, or none. */
const itemNumber = (text: string) => {
  if (text.trim() === '') return { ok: true as const, value: '' };
  const read = readItemNumber(text);
  return read.ok ? { ok: true as const, value: read.number } : read;
};

/** Readers of the fields of a setup. */
export function setupShape(habits: Habits) {
  const read = readersOf(habits);
  const { length } = kitchenUnits(habits);
  const long = (name: string, min_mm: number, max_mm: number) => (text: string) => {
    const found = read.figure({
      name,
      min: min_mm / length.size,
      max: max_mm / length.size,
      unit: ` ${length.sign}`,
    })(text);
    return found.ok ? { ok: true as const, value: found.value * length.size } : found;
  };
  return (typed: SetupTexts) => {
    const none = typed.how === 'none';
    const asked = (name: string, max: number) =>
      typed.how === 'entered'
        ? read.figure({ name, min: 0, max })
        : orElse(0, () => ({ ok: true, value: 0 }));
    return {
      words: anyWords,
      keeping: anyWords,
      serving: anyWords,
      fewSulphites: anyWords,
      number: itemNumber,
      diluteParts: orElse<number | null>(null, read.figure({ name: say('label.dilute'), min: 0.5, max: 20 })),
      servingGrams: none
        ? () => ({ ok: true as const, value: 0 })
        : read.figure({ name: 'The grams of a serving', min: 1, max: 1000 }),
      ...(byName(NUTRIENTS.map(([id, max]) => [id, asked('What is in 100 g', max)])) as unknown as Record<
        keyof Nutrients,
        ReturnType<typeof read.figure>
      >),
      across_mm: long('Across the jar', 10, 500),
      tall_mm: long('The height of its body', 5, 500),
      lid_mm: long('Across the lid', 10, 300),
    };
  };
}
type Read = Omit<SetupTexts, keyof ReturnType<ReturnType<typeof setupShape>>> &
  ValuesOf<ReturnType<ReturnType<typeof setupShape>>>;

const sameContainer = (a: Container, b: Container) =>
  (['across_mm', 'tall_mm', 'lid_mm'] as const).every(k => Math.abs(a[k] - b[k]) < 0.05);

/** The setup that was read; jars of other sizes keep their measures. */
export function setupOf(v: Read, before: LabelSetup): LabelSetup {
  const serving = { says: v.serving || '1 serving', grams: v.servingGrams };
  const nutrition: LabelNutrition =
    v.how === 'none'
      ? { how: 'none' }
      : v.how === 'calculated'
        ? { how: 'calculated', serving }
        : {
            how: 'entered',
            serving,
            per100_g: byName(NUTRIENTS.map(([id]) => [id, v[id]])) as unknown as Nutrients,
          };
  const container = { across_mm: v.across_mm, tall_mm: v.tall_mm, lid_mm: v.lid_mm };
  const usual = containerOf({ containers: [] }, v.size);
  return {
    design: v.design,
    stockId: v.stockId,
    look: {
      ink: v.ink,
      accent: v.accent,
      ground: v.ground,
      pictureId: v.pictureId,
      pictureRatio: v.pictureRatio,
    },
    words: v.words,
    keeping: v.keeping,
    shake: v.shake,
    diluteParts: v.diluteParts,
    groupSpices: v.groupSpices,
    netForm: v.netForm,
    nutrition,
    fewSulphites: v.fewSulphites,
    scan: v.scan,
    bars: v.bars,
    numbers: [
      ...before.numbers.filter(n => n.size !== v.size),
      ...(v.number === '' ? [] : [{ size: v.size, number: v.number }]),
    ],
    containers: [
      ...before.containers.filter(c => c.size !== v.size),
      ...(sameContainer(container, usual) ? [] : [{ size: v.size, container }]),
    ],
  };
}
