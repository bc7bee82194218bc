import { useSyncExternalStore } from 'react';
import { records } from '../device/index.ts';
import { say } from '../words/index.ts';
import { Bar } from './Bar.tsx';
import { useRail } from './rail.ts';
import { loadAgain, useNewerBuild } from './renewal.ts';
import { useHere } from './session.tsx';

/** Says what this device cannot keep, and that a newer build is here: never while something boils. */
export function DeviceBars() {
  const { keepsNothing } = useSyncExternalStore(records.subscribe, records.view);
  const newer = useNewerBuild();
  const busy = useRail(useHere().kitchen.id).some(t => t.kind !== 'wait');
  return (
    <>
      {keepsNothing && (
        <Bar tone="live" role="status">
          {say('device.keepsNothing')}
        </Bar>
      )}
      {newer && !busy && (
        <Bar tone="live" role="status" action={say('renewal.load')} onAction={loadAgain}>
          {say('renewal.there')}
        </Bar>
      )}
    </>
  );
}
