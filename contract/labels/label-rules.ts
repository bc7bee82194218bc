import {
  type Container,
  LABEL_CODES,
  LABEL_DESIGNS,
  LABEL_READS,
  type LabelCode,
  type LabelLook,
  type LabelStock,
} from '@cocotte/core/batches';
import { choice, colour, figure, list, maybe, shape, text, uuid } from '../rules.ts';

const mm = (name: string, min = 0, max = 1000) => figure({ min, max, name });
const size = (name: string, min: number, max: number) =>
  shape<{ width: number; height: number }>({
    width: mm(`The width of ${name} in mm`, min, max),
    height: mm(`The height of ${name} in mm`, min, max),
  });

/** Rule of blank labels by their measures. */
export const stockRule = shape<LabelStock>({
  id: text({ min: 1, max: 40 }),
  name: text({ min: 1, max: 80, name: 'The name' }),
  form: choice(['sheet', 'roll'] as const),
  shape: choice(['rectangle', 'round'] as const),
  page_mm: size('the page', 10, 1000),
  label_mm: size('a label', 10, 500),
  columns: figure({ min: 1, max: 40, whole: true, name: 'The columns' }),
  rows: figure({ min: 1, max: 80, whole: true, name: 'The rows' }),
  margin_mm: shape<LabelStock['margin_mm']>({
    left: mm('The left margin in mm', 0, 500),
    top: mm('The upper margin in mm', 0, 500),
  }),
  pitch_mm: shape<LabelStock['pitch_mm']>({
    x: mm('From one left edge to the next, in mm', 0, 1000),
    y: mm('From one upper edge to the next, in mm', 0, 1000),
  }),
});
/** Rule of colours and picture. */
export const lookRule = shape<LabelLook>({
  ink: colour,
  accent: colour,
  ground: colour,
  pictureId: maybe(uuid),
  pictureRatio: figure({ min: 0.05, max: 20, name: 'The shape of the picture' }),
});
/** Rule of what a label's type is measured by. */
export const containerRule = shape<Container>({
  across_mm: mm('Across the jar in mm', 10, 500),
  tall_mm: mm('The height of its body in mm', 5, 500),
  lid_mm: mm('Across the lid in mm', 10, 300),
});
/** Rule of the codes on a label. */
export const codes = list(shape<LabelCode>({ kind: choice(LABEL_CODES), says: text({ min: 1, max: 300 }) }), {
  max: 4,
});
/** How labels lie on what they are printed on. */
export const printSetup = {
  design: choice(LABEL_DESIGNS),
  stock: stockRule,
  look: lookRule,
  container: containerRule,
  start: figure({ min: 0, max: 3000, whole: true, name: 'The labels that are gone' }),
  spares: figure({ min: 0, max: 500, whole: true, name: 'The spare labels' }),
  read: list(choice(LABEL_READS), { max: LABEL_READS.length }),
};
