import { bareCalibration, type BufferPoint, type Calibration, PH_ACT } from '../acid/index.ts';
import { bodyOf, type JarSizeId } from '../jars/index.ts';
import { PLAIN_LABEL } from '../kitchen/index.ts';
import { under } from '../measure/index.ts';
import type { BatchEvent, Correction, CorrectableType, EventBodies, EventType } from './events.ts';
import { oldStock } from './old-stocks.ts';

type Body = Record<string, unknown>;
const place = { outletId: null, potId: null };
const byEye = (body: Body): Body => ({ instrumentId: null, checked: null, ...body });

/**
 * How the bodies of a kind of entry were raised from one shape to the next, in order. A shape that was ever sent is read
 * forever: entries are stored as they came, and brought up to date whenever they are read.
 */
const RISES: { readonly [K in EventType]?: readonly ((body: Body) => Body)[] } = {
  'batch.started': [
    body => ({ potId: null, equipment: { pots: [], canners: [] }, ...body }),
    body => ({ keys: null, ...body }),
    body => ({
      ...body,
      equipment: {
        ...(body.equipment as Body),
        canners: ((body.equipment as Body).canners as Body[]).map(c => ({ kind: null, holds: null, ...c })),
      },
    }),
    body => ({ phAct: PH_ACT, phForecast: null, ...body }),
    body => ({ lotPattern: null, ...body }),
  ],
  'lot.drawn': [
    body => ({ used: null, ...body }),
    body => ({ ...body, lots: (body.lots as Body[]).map(l => ({ trimYield: null, ...l })) }),
  ],
  'jars.released': [body => ({ named: [], ...body })],
  'labels.printed': [
    body => ({ ...body, label: { directions: '', ...(body.label as Body) } }),
    body => ({
      design: 'one panel',
      look: { ink: '#2A211D', accent: '#4B1E3F', ground: '#FFFFFF', pictureId: null, pictureRatio: 1 },
      container: bodyOf(body.size as JarSizeId),
      code: true,
      start: 0,
      spares: 0,
      read: [],
      ...body,
      stock: oldStock(body.stock),
      label: {
        emphasised: [],
        shares: '',
        net: { unit: 'g', amount: 0 },
        registration: '',
        keeping: '',
        words: '',
        nutrition: '',
        locale: 'en-US',
        place: null,
        asks: PLAIN_LABEL,
        ...(body.label as Body),
      },
    }),
    // The lot code as QR or none: which codes, and what they hold, is said since.
    ({ code, ...body }) => ({
      codes: code === false ? [] : [{ kind: 'QR', says: (body.label as { lotCode: string }).lotCode }],
      ...body,
    }),
  ],
  'step.started': [body => ({ ...place, ...body }), body => ({ outOfOrder: '', ...body })],
  'step.done': [
    body => ({ ...place, ...body }),
    body => ({ ended: null, ...body }),
    body => ({ outOfOrder: '', ...body }),
  ],
  'line.weighed': [body => ({ ...place, ...body }), byEye],
  'measure.taken': [body => ({ ...place, ...body }), body => ({ how: null, from: [], ...body })],
  'temperature.read': [
    body => ({ ...place, instrumentId: null, ...body }),
    body => ({ part: '', ...body }),
    byEye,
  ],
  'solids.read': [body => ({ part: '', ...body }), byEye],
  'jars.filled': [
    body => ({ ...place, ...body }),
    body => ({ headspace_mm: null, ...body }),
    body => ({ closure: '', ...body }),
  ],
  'load.packed': [body => ({ cannerId: null, heat: null, ...body })],
  'load.boil_lost': [body => ({ lost: 'boil', ...body })],
  'jars.pressed': [body => ({ how: 'pressed', ...body })],
  'ph.read': [
    body => ({ instrumentId: null, calibration: null, ...body }),
    body => ({
      sample: null,
      tightest: false,
      replicates: [],
      paper: null,
      ...body,
      calibration: body.calibration
        ? bareCalibration({
            ...(body.calibration as Calibration),
            points:
              ((body.calibration as Calibration).points as BufferPoint[] | undefined) ??
              (body.buffers as number[]).map(ph => ({ ph, mV: null })),
          })
        : null,
    }),
  ],
  'deviation.settled': [body => ({ action: 'shown right', cause: '', paper: null, ...body })],
  'entry.corrected': [body => ({ bodyVersion: 1, ...body })],
};

/** Every kind of entry there is: with how many shapes its body has had. */
export const VERSIONS: { readonly [K in EventType]: number } = {
  'batch.started': 6,
  'lot.drawn': 3,
  'draw.reversed': 1,
  'lots.returned': 1,
  'jars.taken': 1,
  'pot.taken': 1,
  'curve.kept': 1,
  'jars.released': 2,
  'jars.withdrawn': 1,
  'labels.printed': 4,
  'labels.counted': 1,
  'outlet.opened': 1,
  'step.started': 3,
  'step.done': 4,
  'line.weighed': 3,
  'line.added': 1,
  'measure.taken': 3,
  'lot.used': 1,
  'level.read': 1,
  'yield.explained': 1,
  'temperature.read': 4,
  'solids.read': 3,
  'jars.filled': 4,
  'jars.boiled': 1,
  'jars.weighed': 1,
  'dose.given': 1,
  'dose.missed': 1,
  'dose.checked': 1,
  'left.over': 1,
  'leftover.back': 1,
  'line.replaced': 1,
  'pot.washed': 1,
  'jars.marked': 1,
  'picture.kept': 1,
  'canner.lit': 1,
  'load.packed': 2,
  'load.boiling': 1,
  'load.boil_lost': 2,
  'load.heat_off': 1,
  'load.lifted': 1,
  'jars.set_aside': 1,
  'jars.moved': 1,
  'jars.pressed': 2,
  'jars.looked': 1,
  'jars.market_checked': 1,
  'ph.read': 3,
  'pot.ph_read': 1,
  'meter.rechecked': 1,
  'minutes.worked': 1,
  'minutes.shared': 1,
  'kitchen.worked': 1,
  'energy.used': 1,
  'note.written': 1,
  'deviation.settled': 2,
  'deviation.looked': 1,
  'entry.corrected': 2,
  'correction.signed': 1,
};

/**
 * Raised with every kind and shape that is added. A device says it with what it sends: a server that knows a lower one
 * asks for what it cannot read again, rather than refuse it.
 */
export const RECORD_SHAPE = 14;

/** The shape in which this build writes a kind of entry; null for a kind that only a newer build knows. */
export const versionOf = (type: string): number | null =>
  under(VERSIONS as { [type: string]: number }, type) ?? null;

function raised(type: EventType, version: number, body: Body): Body {
  return (RISES[type] ?? []).slice(version - 1).reduce((was, rise) => rise(was), body);
}

/**
 * An entry in the shape of today.
 *
 * @param event  as it was stored, of whatever shape
 * @returns the same entry where its shape is today's; null where its kind or shape came with a newer build
 */
export function upgradeEvent(event: BatchEvent): BatchEvent | null {
  const newest = versionOf(event.type);
  if (newest === null || event.typeVersion > newest) return null;
  let body: Body = event.body as unknown as Body;
  if (event.typeVersion < newest) body = raised(event.type, event.typeVersion, body);
  if (event.type === 'entry.corrected') {
    const { type, bodyVersion, body: inner } = body as unknown as BatchEvent<'entry.corrected'>['body'];
    const known = versionOf(type);
    if (known === null || bodyVersion > known) return null;
    if (inner !== null && bodyVersion < known)
      body = {
        ...body,
        body: raised(type, bodyVersion, inner as unknown as Body),
        bodyVersion: known,
      };
  }
  return body === (event.body as unknown as Body)
    ? event
    : ({ ...event, typeVersion: newest, body } as BatchEvent);
}

/** What goes without saying in an entry: the main outlet, the first pot and canner, no instrument named. */
type Usual =
  | 'outletId'
  | 'potId'
  | 'equipment'
  | 'ended'
  | 'outOfOrder'
  | 'from'
  | 'headspace_mm'
  | 'closure'
  | 'lost'
  | 'part'
  | 'keys'
  | 'instrumentId'
  | 'checked'
  | 'calibration'
  | 'sample'
  | 'tightest'
  | 'replicates'
  | 'paper'
  | 'action'
  | 'cause'
  | 'phAct'
  | 'phForecast'
  | 'lotPattern'
  | 'cannerId'
  | 'heat'
  | 'how'
  | 'named'
  | 'used'
  | 'bodyVersion';

/** A body as it is entered: what goes without saying may be left out. */
export type Entered<K extends EventType> = K extends 'entry.corrected'
  ? Omit<Correction, 'body' | 'bodyVersion'> & { body: Entered<CorrectableType> | null; bodyVersion?: number }
  : Omit<EventBodies[K], Usual> & Partial<Pick<EventBodies[K], Usual & keyof EventBodies[K]>>;

/**
 * The whole body of a new entry.
 *
 * @example
 * complete('jars.pressed', { sealed: [1, 2], failed: [] }).how; // 'pressed'
 */
export function complete<K extends EventType>(type: K, entered: Entered<K>): EventBodies[K] {
  const body = entered as unknown as Body;
  if (type !== 'entry.corrected') return raised(type, 1, body) as unknown as EventBodies[K];
  const correction = body as unknown as EventBodies['entry.corrected'];
  return {
    ...correction,
    body: correction.body && complete(correction.type, correction.body as never),
    bodyVersion: VERSIONS[correction.type],
  } as EventBodies[K];
}
