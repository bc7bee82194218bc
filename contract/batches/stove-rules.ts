import { type CorrectableType, type EventBodies, LEFT_OVER_WENT } from '@cocotte/core/batches';
import { lineRule } from '../recipes/recipe-rules.ts';
import { choice, figure, flag, instant, list, maybe, shape, text, uuid } from '../rules.ts';
import { type Shapes, lineId } from './decision-rules.ts';

/** The number of a jar in its batch. */
export const jarNumber = figure({ min: 1, max: 2000, whole: true, name: 'A jar number' });
/** Numbers of jars in a batch, each once. */
export const jarNumbers = list(jarNumber, { min: 1, max: 500, unlike: true });
/** Highest temperature each place can have: sugar in a jam pot, water in a canner or jar. */
export const temperature = figure({
  min: -5,
  max: 130,
  name: 'The temperature in °C',
  why: 'Water and sugar in an open pot stay between freezing and 130 °C (266 °F).',
});
/** Kinds of entries that came with the counter: what is dosed, left over, replaced, washed, marked and pictured. */
type StoveType =
  | 'dose.checked'
  | 'left.over'
  | 'leftover.back'
  | 'line.replaced'
  | 'pot.washed'
  | 'jars.marked'
  | 'picture.kept';

/** Bodies of those entries, in every shape they ever had. */
export const stove: { [K in StoveType & CorrectableType]: Shapes<EventBodies[K]> } = {
  'dose.checked': [
    shape<EventBodies['dose.checked']>({
      lineId,
      quantity: figure({ min: 0, max: 100_000, name: 'What left the bottle' }),
      unit: choice(['g', 'mL'] as const),
    }),
  ],
  'left.over': [
    shape<EventBodies['left.over']>({
      went: choice(LEFT_OVER_WENT),
      what: choice(['pot', 'brine'] as const),
      mass_g: maybe(figure({ min: 0, above: true, max: 1_000_000, name: 'What is left in grams' })),
      text: text({ max: 300, name: 'The note' }),
    }),
  ],
  'leftover.back': [
    shape<EventBodies['leftover.back']>({
      refrigeratedAt: instant,
      boiled: flag,
      cooled: list(
        shape<EventBodies['leftover.back']['cooled'][number]>({ at: instant, temp_C: temperature }),
        { max: 12 },
      ),
    }),
  ],
  'line.replaced': [shape<EventBodies['line.replaced']>({ lineId, line: lineRule })],
  'pot.washed': [
    shape<EventBodies['pot.washed']>({
      washed: flag,
      allergens: list(text({ min: 1, max: 60 }), { min: 1, max: 20 }),
    }),
  ],
  'jars.marked': [
    shape<EventBodies['jars.marked']>({
      jars: jarNumbers,
      for: choice(['reading', 'keeping', 'sale'] as const),
    }),
  ],
  'picture.kept': [
    shape<EventBodies['picture.kept']>({
      paperId: uuid,
      sha256: text({ min: 64, max: 64 }),
      of: maybe(uuid),
      text: text({ max: 300, name: 'The words' }),
    }),
  ],
};
