import type { Calibration } from '@cocotte/core/acid';
import {
  type CheckBody,
  CHECKED_KINDS,
  type InstrumentCheck,
  type KeptInstrument,
} from '@cocotte/core/kitchen';
import { calibrationFields } from '../batches/check-rules.ts';
import { endpoint } from '../endpoint.ts';
import { choice, figure, flag, instant, list, maybe, shape, text, union, uuid } from '../rules.ts';

/** An instrument with its log, newest first. */
export interface InstrumentLog {
  instrument: KeptInstrument;
  /** It is not used any more. */
  retired: boolean;
  checks: (InstrumentCheck & { person: string })[];
}

/** Checks of an instrument that are shown. */
export const CHECKS_SHOWN = 100;
/** Instruments a kitchen keeps at most. */
export const INSTRUMENTS_KEPT = 60;

const degrees = (name: string) => figure({ min: -20, max: 130, name });
const body = union<CheckBody>('kind', {
  'ph meter': shape<never>({
    kind: choice(['ph meter']),
    calibration: shape<Calibration>(calibrationFields),
  } as never),
  thermometer: shape<never>({
    kind: choice(['thermometer']),
    ice_C: maybe(degrees('What it showed in ice')),
    boils_C: degrees('What it showed in boiling water'),
  } as never),
  scale: shape<never>({
    kind: choice(['scale']),
    known_g: figure({ min: 1, max: 100_000, name: 'The known weight' }),
    shows_g: figure({ min: 0, max: 100_000, name: 'What it showed' }),
  } as never),
  refractometer: shape<never>({
    kind: choice(['refractometer']),
    water_pct: figure({ min: -10, max: 20, name: 'What it showed in water' }),
  } as never),
});
const instrument = shape<KeptInstrument>({
  id: text({ min: 1, max: 40 }),
  kind: choice(CHECKED_KINDS),
  name: text({ min: 1, max: 60, name: 'The instrument' }),
});
const check = {
  id: uuid,
  instrument,
  at: instant,
  body,
};

/** The kitchen's instruments, each with its log. */
export const listInstrumentChecks = endpoint({
  name: 'instruments.checks',
  method: 'GET',
  path: '/api/kitchens/:kitchenId/instruments/checks',
  who: 'viewer',
  summary: "The kitchen's instruments, each with the log of its checks, newest first",
  reply: shape<{ instruments: InstrumentLog[] }>({
    instruments: list(
      shape<InstrumentLog>({
        instrument,
        retired: flag,
        checks: list(
          shape<InstrumentLog['checks'][number]>({ ...check, personId: uuid, person: text({ max: 80 }) }),
          { max: CHECKS_SHOWN },
        ),
      }),
      { max: INSTRUMENTS_KEPT },
    ),
  }),
});

/** Keep a check of an instrument; the first one makes the instrument known. The same id is acknowledged again. */
export const checkInstrument = endpoint({
  name: 'instruments.check',
  method: 'POST',
  path: '/api/kitchens/:kitchenId/instruments/checks',
  who: 'cook',
  summary: 'Keep a check of an instrument; the first one makes the instrument known',
  body: shape<Omit<InstrumentCheck, 'personId' | 'at'>>({ id: uuid, instrument, body }),
  reply: shape<{ check: InstrumentCheck }>({ check: shape<InstrumentCheck>({ ...check, personId: uuid }) }),
});

/** Take an instrument out of use, or into use again: its log stays. */
export const retireInstrument = endpoint({
  name: 'instruments.retire',
  method: 'POST',
  path: '/api/kitchens/:kitchenId/instruments/retire',
  who: 'cook',
  summary: 'Take an instrument out of use, or into use again: its log stays',
  body: shape<{ id: string; retired: boolean }>({ id: text({ min: 1, max: 40 }), retired: flag }),
  reply: shape<{ retired: boolean }>({ retired: flag }),
});
