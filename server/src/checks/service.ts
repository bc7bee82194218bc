import type { BatchView, BodyOf, ParamsOf, releaseJars } from '@cocotte/contract';
import { assess, standsOut } from '@cocotte/core/checks';
import type { Fault } from '@cocotte/core/measure';
import { decide } from '../batches/decide.ts';
import type { Call } from '../house/mount.ts';
import { HttpProblem, problem } from '../house/problems.ts';

/** Releases jars if every condition lets each of them through; otherwise says every condition that is open. */
export async function release(
  call: Call<ParamsOf<typeof releaseJars>, unknown, BodyOf<typeof releaseJars>>,
): Promise<BatchView> {
  return decide(
    call,
    call.params.batchId,
    call.body.stamp,
    call.body,
    'jars.released',
    async ({ events }) => {
      const { conditions, releasable } = assess(events).standing.gate;
      const wanted = new Set(call.body.jars);
      const through = new Set(releasable);
      if ([...wanted].some(n => !through.has(n))) {
        const open = conditions.filter(c => !c.met && (c.jars === null || c.jars.some(n => wanted.has(n))));
        const faults: Fault[] = open.map(c => ({
          path: 'jars',
          code: c.code,
          what: `${c.title}: ${c.evidence}`,
          why: c.why,
          next: c.next,
        }));
        if (faults.length === 0)
          throw problem(422, {
            code: 'not-in-batch',
            what: 'One of these jars is not in the batch, or was set aside.',
            why: 'Only a jar that is there can be released.',
            next: 'Choose among the jars shown.',
            path: 'jars',
          });
        throw new HttpProblem(422, 'gate-closed', faults);
      }
      return {
        jars: [...wanted].sort((a, b) => a - b),
        evidence: conditions
          .filter(c => c.met)
          .map(c => ({ code: c.code, title: c.title, evidence: c.evidence })),
        // What was written up or corrected is signed by name, not in passing.
        named: conditions.filter(c => c.met).flatMap(c => standsOut(c) || []),
      };
    },
  );
}
