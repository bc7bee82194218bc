import { type BufferPoint, type Calibration, FOOD_PH, SAMPLES } from '@cocotte/core/acid';
import {
  CORRECTIVE_ACTIONS,
  type CorrectableType,
  type EventBodies,
  type PaperRef,
} from '@cocotte/core/batches';
import { choice, day, figure, flag, instant, list, maybe, shape, text, uuid } from '../rules.ts';
import { type Shapes, thingId } from './decision-rules.ts';
import { jarNumber } from './stove-rules.ts';

/** Kinds of entries of the bench and of what is settled there. */
type CheckType = 'ph.read' | 'pot.ph_read' | 'meter.rechecked' | 'deviation.settled' | 'deviation.looked';

const anyPh = figure({ min: 0, max: 14, name: 'The pH', why: 'The scale runs from 0 to 14.' });
/** pH of a sample of food. */
const foodPh = figure({
  ...FOOD_PH,
  name: 'The pH',
  why: 'No food is as sour or as alkaline as that.',
});
const sampleTemp_C = figure({
  min: 0,
  max: 60,
  name: 'The temperature of the sample in °C',
  why: 'A sample is read near room temperature.',
});
/** A buffer by its name. */
export const bufferName = figure({ min: 1, max: 13, name: 'A buffer' });
const slope_pct = figure({ min: 0, max: 200, name: 'The slope in per cent' });
const read = {
  jar: jarNumber,
  hoursSinceProcessing: figure({ min: 0, max: 50_000, name: 'The hours since processing' }),
  temp_C: sampleTemp_C,
  method: choice(['meter', 'laboratory', 'paper'] as const),
  buffers: list(bufferName, { max: 4 }),
  reference: text({ max: 120 }),
};
const instrumentId = maybe(thingId);
/** Rule of a paper beside the record. */
export const paperRef = maybe(shape<PaperRef>({ paperId: uuid, sha256: text({ min: 64, max: 64 }) }));
/** Rules of what is kept of a calibration. */
export const calibrationFields = {
  at: instant,
  slope_pct: maybe(slope_pct),
  recheck_ph: maybe(anyPh),
  temp_C: maybe(sampleTemp_C),
  offset_mV: maybe(figure({ min: -500, max: 500, name: 'The offset in millivolts' })),
  points: list(
    shape<BufferPoint>({
      ph: bufferName,
      mV: maybe(figure({ min: -1000, max: 1000, name: 'The millivolts' })),
    }),
    { max: 4 },
  ),
  buffersOpenedOn: maybe(day),
  electrodeSince: maybe(day),
  resolution_ph: maybe(figure({ min: 0, above: true, max: 1, name: 'The step it shows' })),
};
const reason = text({ min: 3, max: 300, name: 'The reason' });
const key = text({ min: 1, max: 200 });
const settled = {
  key,
  reason,
  minutes: maybe(figure({ min: 0, max: 1440, name: 'The minutes' })),
};
const replicates = list(foodPh, { max: 6 });

/** Bodies of those entries, in every shape they ever had. */
export const checked: { [K in CheckType & CorrectableType]: Shapes<EventBodies[K]> } = {
  'ph.read': [
    shape<never>({ ...read, ph: anyPh } as never),
    shape<never>({
      ...read,
      ph: anyPh,
      instrumentId,
      calibration: maybe(
        shape<never>({ at: instant, slope_pct: maybe(slope_pct), recheck_ph: maybe(anyPh) } as never),
      ),
    } as never),
    shape<EventBodies['ph.read']>({
      ...read,
      ph: foodPh,
      instrumentId,
      calibration: maybe(shape<Calibration>(calibrationFields)),
      sample: maybe(choice(SAMPLES)),
      tightest: flag,
      replicates,
      paper: paperRef,
    }),
  ],
  'pot.ph_read': [
    shape<EventBodies['pot.ph_read']>({
      outletId: maybe(uuid),
      potId: maybe(thingId),
      ph: foodPh,
      temp_C: sampleTemp_C,
      method: choice(['meter', 'paper'] as const),
      replicates,
      instrumentId,
    }),
  ],
  'meter.rechecked': [
    shape<EventBodies['meter.rechecked']>({
      calibratedAt: instant,
      reads_ph: anyPh,
      temp_C: sampleTemp_C,
      instrumentId,
    }),
  ],
  'deviation.settled': [
    shape<never>(settled as never),
    shape<EventBodies['deviation.settled']>({
      ...settled,
      action: choice(CORRECTIVE_ACTIONS),
      cause: text({ max: 300, name: 'The cause' }),
      paper: paperRef,
    }),
  ],
  'deviation.looked': [
    shape<EventBodies['deviation.looked']>({
      key,
      agrees: flag,
      text: text({ max: 300, name: 'What was seen' }),
    }),
  ],
};
