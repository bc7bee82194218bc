import { type Instrument, INSTRUMENT_KINDS } from '@cocotte/core/kitchen';
import { endpoint } from '../endpoint.ts';
import { choice, figure, flag, instant, list, maybe, shape, text } from '../rules.ts';

/** What the instruments beside this server show just now; none where none are connected. */
export const readInstruments = endpoint({
  name: 'instruments.read',
  method: 'GET',
  path: '/api/kitchens/:kitchenId/instruments',
  who: 'viewer',
  summary: 'What the instruments beside this server show just now; none where none are connected',
  reply: shape<{ instruments: Instrument[] }>({
    instruments: list(
      shape<Instrument>({
        id: text({ min: 1, max: 40 }),
        kind: choice(INSTRUMENT_KINDS),
        name: text({ max: 60 }),
        state: choice(['reading', 'silent', 'rubbish'] as const),
        value: maybe(figure({ min: -50_000, max: 200_000, name: 'What it shows' })),
        steady: flag,
        calibrated: maybe(
          shape<NonNullable<Instrument['calibrated']>>({
            at: instant,
            off: figure({ min: -1e7, max: 1e7, name: 'How far it was off' }),
          }),
        ),
      }),
      { max: 20 },
    ),
  }),
});
