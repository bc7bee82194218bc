import { JAR_FAULTS, SETS_SEEN } from '@cocotte/core/batches';
import type { Learned } from '@cocotte/core/checks';
import type { TrialReading } from '@cocotte/core/review';
import { choice, day, figure, list, maybe, shape, text } from '../rules.ts';

/** Acidity read in a batch, as a process authority asks for it. */
export const trialReading = shape<TrialReading>({
  day,
  ph: figure({ min: 0, max: 14, name: 'The pH' }),
  method: text({ max: 300 }),
});

/** What one batch teaches the next. */
export const learnedRule = shape<Learned>({
  cook_min: maybe(figure({ min: 0, max: 1e6, name: 'The minutes' })),
  boilOff_gPerMin: maybe(figure({ min: 0, max: 1e6, name: 'The water boiled off' })),
  set: maybe(choice(SETS_SEEN)),
  found: list(
    shape<Learned['found'][number]>({
      fault: choice(JAR_FAULTS),
      jars: figure({ min: 0, max: 1e6, whole: true, name: 'The jars' }),
    }),
    { max: JAR_FAULTS.length },
  ),
  said: list(text({ max: 2000 }), { max: 10_000 }),
});
