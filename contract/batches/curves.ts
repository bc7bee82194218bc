import type { ByInstrument, Stamp } from '@cocotte/core/batches';
import type { Degrees } from '@cocotte/core/heat';
import { endpoint, fileEndpoint } from '../endpoint.ts';
import { figure, instant, list, maybe, shape, text, uuid } from '../rules.ts';
import { batchParams, batchView } from './batches.ts';
import { stampRule } from './stamp-rules.ts';

/** Most points a curve is told in. */
export const CURVE_POINTS = 600;

/** What an instrument shows all along a step, followed by the server. */
export interface Curve {
  curveId: string;
  stepId: string;
  potId: string | null;
  instrumentId: string;
  /** What the instrument calls itself. */
  name: string;
  checked: ByInstrument['checked'];
  from: string;
  /** When it was kept in the record; null while it is followed. */
  keptAt: string | null;
  /** Readings that lie beside the record by now. */
  readings: number;
}
const potId = maybe(text({ min: 1, max: 40 }));
const stepId = text({ min: 1, max: 40 });
const instrumentId = text({ min: 1, max: 40 });
const fields = {
  curveId: uuid,
  stepId,
  potId,
  instrumentId,
  name: text({ max: 60 }),
  checked: maybe(
    shape<NonNullable<ByInstrument['checked']>>({
      at: instant,
      off: figure({ min: -1000, max: 1000, name: 'How far the instrument was off' }),
    }),
  ),
  from: instant,
  keptAt: maybe(instant),
  readings: figure({ min: 0, max: 1e7, whole: true, name: 'How many readings' }),
};
const curve = shape<Curve>(fields);
const curveParams = shape<{ batchId: string; curveId: string }>({ batchId: uuid, curveId: uuid });
const point = shape<Degrees>({
  at_ms: figure({ min: 0, max: 8.64e15, name: 'The moment' }),
  temp_C: figure({ min: -100, max: 400, name: 'The temperature' }),
});

/** The curves of a batch, those that are followed and those that are kept. */
export const listCurves = endpoint({
  name: 'curves.list',
  method: 'GET',
  path: '/api/kitchens/:kitchenId/batches/:batchId/curves',
  who: 'viewer',
  summary: 'The curves of a batch, those that are followed and those that are kept',
  params: batchParams,
  reply: shape<{ curves: Curve[] }>({ curves: list(curve, { max: 100 }) }),
});
/** Follow a thermometer all along a step; the same id is acknowledged again. */
export const followCurve = endpoint({
  name: 'curves.follow',
  method: 'POST',
  path: '/api/kitchens/:kitchenId/batches/:batchId/curves',
  who: 'cook',
  summary: 'Follow a thermometer all along a step; the same id is acknowledged again',
  params: batchParams,
  body: shape<Pick<Curve, 'curveId' | 'stepId' | 'potId' | 'instrumentId'>>({
    curveId: uuid,
    stepId,
    potId,
    instrumentId,
  }),
  reply: curve,
});
/** Lay what it showed since beside the record, so that a power cut takes no more than the last of it. */
export const layCurve = endpoint({
  name: 'curves.lay',
  method: 'POST',
  path: '/api/kitchens/:kitchenId/batches/:batchId/curves/:curveId/chunks',
  who: 'cook',
  summary:
    'Lay what it showed since beside the record, so that a power cut takes no more than the last of it',
  params: curveParams,
  reply: curve,
});
/** A curve as it can be drawn: the lowest and the highest of each stretch. */
export const readCurve = endpoint({
  name: 'curves.read',
  method: 'GET',
  path: '/api/kitchens/:kitchenId/batches/:batchId/curves/:curveId',
  who: 'viewer',
  summary: `A curve as it can be drawn, in at most ${CURVE_POINTS} points: the lowest and the highest of each stretch`,
  params: curveParams,
  reply: shape<{ curve: Curve; points: Degrees[] }>({
    curve,
    points: list(point, { max: CURVE_POINTS }),
  }),
});
/** Keep it (a decision): one entry names the chunks by the last of their hashes. */
export const keepCurve = endpoint({
  name: 'curves.keep',
  method: 'POST',
  path: '/api/kitchens/:kitchenId/batches/:batchId/curves/:curveId/keep',
  who: 'cook',
  summary: 'Keep a curve (a decision): one entry names its chunks by the last of their chained hashes',
  params: curveParams,
  body: shape<{ stamp: Stamp }>({ stamp: stampRule }),
  reply: batchView,
});
/** Every reading of a curve, as it was shown. */
export const curveTable = fileEndpoint({
  name: 'curves.table',
  path: '/api/kitchens/:kitchenId/batches/:batchId/curves/:curveId/readings.csv',
  who: 'viewer',
  summary: 'Every reading of a curve: its instant and degrees Celsius, as it was shown',
  params: curveParams,
  mediaType: 'text/csv',
});
