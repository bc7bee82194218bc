import { useSyncExternalStore } from 'react';
import { faultText } from '../kit/readers.ts';
import { outbox } from '../outbox/index.ts';
import { say } from '../words/index.ts';
import { Bar } from './Bar.tsx';

/** Says what is still on this device, and what the server would not take. */
export function OutboxBar() {
  const { waiting, away, stalled, unkept } = useSyncExternalStore(outbox.subscribe, outbox.view);
  const kept = waiting.filter(w => !w.refused);
  return (
    <>
      {away && kept.length > 0 && (
        <Bar tone="live" role="status" action={say('outbox.try')} onAction={outbox.deliver}>
          <strong>{say('outbox.away')}</strong> {say('outbox.kept', { n: kept.length })}
        </Bar>
      )}
      {!away && stalled.length > 0 && kept.length > 0 && (
        <Bar tone="live" role="status" action={say('outbox.try')} onAction={outbox.deliver}>
          <strong>{say('outbox.stalled', { n: kept.length })}</strong> {stalled.map(faultText).join(' ')}
        </Bar>
      )}
      {unkept.length > 0 && (
        <Bar tone="ox" role="alert" action={say('outbox.read')} onAction={outbox.readUnkept}>
          {unkept.map(faultText).join(' ')}
        </Bar>
      )}
      {waiting
        .filter(w => w.refused)
        .map(w => (
          <Bar
            key={w.key}
            tone="ox"
            role="alert"
            action={say('outbox.letGo')}
            onAction={() => void outbox.discard(w.key)}
          >
            <strong>{say('outbox.refused', { entry: w.entry.type })}</strong>{' '}
            {w.refused?.map(faultText).join(' ')}
          </Bar>
        ))}
    </>
  );
}
