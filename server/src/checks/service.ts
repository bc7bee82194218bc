import type { BatchView, BodyOf, ParamsOf, releaseJars, withdrawJars } from '@cocotte/contract';
import type { BatchState } from '@cocotte/core/batches';
import { assess, standsOut } from '@cocotte/core/checks';
import { type Fault, rangesText } from '@cocotte/core/measure';
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
      const { state, standing } = assess(events);
      const { conditions, releasable } = standing.gate;
      await checkPapers(call, state);
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

/**
 * A laboratory's result stands on its paper: what the record names by its hash has to lie in this kitchen.
 *
 * @throws HttpProblem 422 where it does not
 */
async function checkPapers(
  { trx, kitchenId }: Pick<Call<unknown, unknown, unknown>, 'trx' | 'kitchenId'>,
  state: BatchState,
): Promise<void> {
  const named = state.readings.flatMap(r => (r.method === 'laboratory' && r.paper ? [r.paper] : []));
  if (named.length === 0) return;
  const rows: { paper_id: string; sha256: string }[] = await trx('papers')
    .where({ kitchen_id: kitchenId })
    .whereIn(
      'paper_id',
      named.map(p => p.paperId),
    )
    .select('paper_id', 'sha256');
  const kept = new Map(rows.map(r => [r.paper_id, r.sha256]));
  if (named.every(p => kept.get(p.paperId) === p.sha256)) return;
  throw problem(422, {
    code: 'paper-gone',
    what: "The laboratory's paper is not here.",
    why: 'A result stands on the paper it came with; the record names it by its hash.',
    next: 'Attach the paper with a new entry of the result, and take the old one back.',
    path: 'jars',
  });
}

/** Calls back what was released: any of its jars, once, with the reason. */
export async function withdraw(
  call: Call<ParamsOf<typeof withdrawJars>, unknown, BodyOf<typeof withdrawJars>>,
): Promise<BatchView> {
  return decide(
    call,
    call.params.batchId,
    call.body.stamp,
    call.body,
    'jars.withdrawn',
    async ({ state }) => {
      const ever = new Set(state.releases.flatMap(r => r.jars));
      const back = new Set(state.jars.flatMap(j => (j.withdrawn ? j.number : [])));
      const wanted = [...new Set(call.body.jars)].sort((a, b) => a - b);
      const not = wanted.filter(n => !ever.has(n) || back.has(n));
      if (not.length > 0)
        throw problem(422, {
          code: 'not-released',
          what: `Jar ${rangesText(not)} was not released, or was called back already.`,
          why: 'Only what has left the gate is called back; the others are held here.',
          next: 'Choose among the jars that were released.',
          path: 'jars',
        });
      return { jars: wanted, why: call.body.why };
    },
  );
}
