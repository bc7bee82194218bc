import { addDays, dayOf } from '@cocotte/core/measure';
import { Button } from '@mui/material';
import { useState } from 'react';
import { Link } from 'react-router';
import { Switcher } from '../kit/controls.tsx';
import { Stack } from '../kit/layout.tsx';
import { Loaded } from '../kit/Loaded.tsx';
import { Sheet, ViewHead } from '../kit/parts.tsx';
import { kitchenNow } from '../shell/clock.ts';
import { useHere } from '../shell/session.tsx';
import { say } from '../words/views.ts';
import { FillChart } from './charts/FillChart.tsx';
import { ForecastChart } from './charts/ForecastChart.tsx';
import { PhChart } from './charts/PhChart.tsx';
import { ProcessChart } from './charts/ProcessChart.tsx';
import { SealChart } from './charts/SealChart.tsx';
import { useCheckHistory } from './history.ts';

const SPANS = { year: 366, all: 100_000 } as const;

/** What the kitchen's checks show over time. */
export function CheckedPage() {
  const { kitchen } = useHere();
  const [span, setSpan] = useState<keyof typeof SPANS>('year');
  const since = addDays(dayOf(kitchenNow(), kitchen.zone), -SPANS[span]);
  return (
    <>
      <ViewHead title={say('checked.title')} detail={say('checked.detail')}>
        <Switcher
          label={say('checked.span')}
          value={span}
          of={[
            ['year', say('checked.span.year')],
            ['all', say('checked.span.all')],
          ]}
          onPick={setSpan}
          sx={{ width: 160 }}
        />
        <Button component={Link} to="/check/deviations" variant="outlined">
          {say('deviations.list')}
        </Button>
      </ViewHead>
      <Loaded query={useCheckHistory()}>
        {data => {
          const batches = data.batches.filter(b => b.madeOn >= since);
          return (
            <Stack>
              <Sheet title={say('checked.ph')}>
                <PhChart batches={batches} />
              </Sheet>
              <Sheet title={say('checked.forecast')}>
                <ForecastChart batches={batches} />
              </Sheet>
              <Sheet title={say('checked.seals')}>
                <SealChart history={{ ...data, batches }} />
              </Sheet>
              <Sheet title={say('checked.fill')}>
                <FillChart batches={batches} />
              </Sheet>
              <Sheet title={say('checked.process')}>
                <ProcessChart batches={batches} />
              </Sheet>
            </Stack>
          );
        }}
      </Loaded>
    </>
  );
}
