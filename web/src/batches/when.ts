import { type Fault, type Habits, instantOf, localTextOf } from '@cocotte/core/measure';
import { useState } from 'react';
import { kitchenNow } from '../shell/clock.ts';

/** When an entry happened: now, or a time typed in afterwards, for a day cooked on paper. */
export interface When {
  typed: boolean;
  setTyped: (typed: boolean) => void;
  /** Kitchen's wall clock, `YYYY-MM-DDTHH:MM:SS`. */
  text: string;
  setText: (text: string) => void;
  fault: Fault | null;
  /** The typed instant, or null for now; shows its fault where it cannot be read. */
  read: () => { ok: true; typedAt_ms: number | null } | { ok: false };
}

export function useWhen(kitchen: Pick<Habits, 'zone'>): When {
  const [typed, setTypedState] = useState(false);
  const [text, setText] = useState('');
  const [fault, setFault] = useState<Fault | null>(null);
  const setTyped = (on: boolean) => {
    if (on && text === '') setText(localTextOf(kitchenNow(), kitchen.zone));
    setTypedState(on);
    setFault(null);
  };
  const read: When['read'] = () => {
    if (!typed) return { ok: true, typedAt_ms: null };
    const at_ms = instantOf(text, kitchen.zone);
    if (Number.isNaN(at_ms)) {
      setFault({
        path: 'occurredAt',
        code: 'not-a-time',
        what: 'This is not a time.',
        why: 'The record is in order of time.',
        next: 'Enter day and time.',
      });
      return { ok: false };
    }
    if (at_ms > kitchenNow() + 60_000) {
      setFault({
        path: 'occurredAt',
        code: 'future-time',
        what: 'That time lies in the future.',
        why: 'What is written down afterwards has already happened.',
        next: 'Enter the time it happened.',
      });
      return { ok: false };
    }
    setFault(null);
    return { ok: true, typedAt_ms: at_ms };
  };
  return {
    typed,
    setTyped,
    text,
    setText: t => {
      setText(t);
      setFault(null);
    },
    fault,
    read,
  };
}
