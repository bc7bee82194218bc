import type { JarState } from '@cocotte/core/batches';
import type { OpenBatch } from './open-batch.ts';

/** Jars that may go in the canner next: never processed, or short, failed or in doubt before; those in the cold too. */
export function loadable(batch: OpenBatch): JarState[] {
  const loads = new Map(batch.state.loads.map(l => [l.id, l]));
  return batch.state.jars.filter(j => {
    // What stands in the cold may go in again; the gate asks for the whole time all the same.
    if (j.setAside) return j.setAside.why === 'refrigerator' || j.setAside.why === 'freezer';
    const load = loads.get(j.loadIds.at(-1) ?? '');
    if (!load) return true;
    return (
      load.lifted !== null &&
      (load.phase !== 'processed' ||
        j.pressed?.sealed === false ||
        batch.state.deviations.some(d => !d.settled && d.loadId === load.id && d.jars?.includes(j.number)))
    );
  });
}
