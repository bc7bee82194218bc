import type { Clock, PaperSize, WeekStart } from '@cocotte/core/measure';
import { Pick } from '../kit/fields.tsx';
import type { At } from '../kit/form.ts';
import { say } from '../words/views.ts';

/** How a kitchen reads the clock, begins its week, and what it prints on. */
export function HabitFields({ at }: { at: (name: 'clock' | 'weekStart' | 'paper') => At }) {
  return (
    <>
      <Pick<Clock>
        at={at('clock')}
        label={say('habits.clock')}
        of={[
          ['h12', say('habits.clock.h12')],
          ['h23', say('habits.clock.h23')],
        ]}
      />
      <Pick<WeekStart>
        at={at('weekStart')}
        label={say('habits.week')}
        of={[
          ['mon', say('habits.week.mon')],
          ['sat', say('habits.week.sat')],
          ['sun', say('habits.week.sun')],
        ]}
      />
      <Pick<PaperSize>
        at={at('paper')}
        label={say('habits.paper')}
        of={[
          ['letter', say('habits.paper.letter')],
          ['A4', say('habits.paper.A4')],
        ]}
      />
    </>
  );
}
