import { readNumber } from '@cocotte/core/measure';
import { Button } from '@mui/material';
import { v7 } from 'uuid';
import { Figure, Text } from '../kit/fields.tsx';
import { useTyped } from '../kit/form.ts';
import { FormDialog } from '../kit/FormDialog.tsx';
import { Line } from '../kit/layout.tsx';
import { Soft } from '../kit/parts.tsx';
import { words } from '../kit/readers.ts';
import { say } from '../words/views.ts';
import { kitchenNow } from './clock.ts';
import { useHere } from './session.tsx';
import { type OwnTimer, setTimer } from './timers.ts';

const MINUTE_MS = 60_000;
const MOST_MIN = 48 * 60;

/** A timer for anything: its name and its minutes; one that runs can be made longer or shorter, or stopped. */
export function TimerDialog({ timer = null, onClose }: { timer?: OwnTimer | null; onClose: () => void }) {
  const { kitchen } = useHere();
  const form = useTyped({ name: timer?.name ?? '', minutes: '' }, () => ({
    name: words(say('timer.name')),
    minutes: (text: string) =>
      timer && text.trim() === ''
        ? { ok: true as const, value: null }
        : readNumber(text, kitchen.locale, {
            name: say('timer.minutes'),
            min: 0,
            above: true,
            max: MOST_MIN,
            unit: ' min',
          }),
  }));
  const keep = form.submit(async ({ name, minutes }) => {
    const now_ms = kitchenNow();
    const id = timer?.id ?? v7();
    setTimer(kitchen.id, id, {
      id,
      name,
      since_ms: minutes === null && timer ? timer.since_ms : now_ms,
      until_ms: minutes === null && timer ? timer.until_ms : now_ms + (minutes ?? 0) * MINUTE_MS,
    });
    onClose();
  });
  const move = (by_min: number) => {
    if (!timer) return;
    // What has rung already goes on from now.
    const from_ms = Math.max(timer.until_ms, by_min > 0 ? kitchenNow() : 0);
    setTimer(kitchen.id, timer.id, { ...timer, until_ms: from_ms + by_min * MINUTE_MS });
    onClose();
  };
  const stop = () => {
    if (timer) setTimer(kitchen.id, timer.id, null);
    onClose();
  };
  return (
    <FormDialog
      title={say(timer ? 'timer.change' : 'timer.new')}
      action={say(timer ? 'timer.keep' : 'timer.start')}
      form={form}
      onClose={onClose}
      onSubmit={keep}
    >
      <Soft>{say('timer.why')}</Soft>
      {timer && (
        <Line mt={2}>
          {[-1, 1, 5].map(min => (
            <Button key={min} variant="outlined" sx={{ minHeight: 56 }} onClick={() => move(min)}>
              {say('timer.move', { min })}
            </Button>
          ))}
          <Button variant="outlined" color="error" sx={{ minHeight: 56 }} onClick={stop}>
            {say('timer.stop')}
          </Button>
        </Line>
      )}
      <Text at={form.at('name')} label={say('timer.name')} autoFocus={!timer} sx={{ mt: 2 }} />
      <Figure
        at={form.at('minutes')}
        label={say(timer ? 'timer.anew' : 'timer.minutes')}
        unit="min"
        sx={{ mt: 2 }}
      />
    </FormDialog>
  );
}
