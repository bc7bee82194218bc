import { performance } from 'node:perf_hooks';
import { expect, it } from 'vitest';
import { costCases, spreadsheetCost } from '../../../testing/cost-spreadsheet.ts';
import { Decimal } from '../../measure/index.ts';
import { batchCost } from './index.ts';

/** A figure that lies exactly half-way between two cents: we round it to the even one, a spreadsheet away from nought. */
const isTie = (exact: string) =>
  new Decimal(exact).times(1000).mod(10).abs().eq(5) && new Decimal(exact).times(1000).isInteger();

/**
 * The cost sheet against a spreadsheet, which is what people cost with today: HyperFormula (npm, GPL, tests only).
 */
it('agrees with a spreadsheet on 200 generated batches, before rounding to one in a thousand million and after to the cent', () => {
  const cases = costCases(200);
  let ties = 0;
  let ours_ms = 0;
  let theirs_ms = 0;
  for (const c of cases) {
    let began = performance.now();
    const ours = batchCost(c.state, c.context);
    ours_ms += performance.now() - began;
    began = performance.now();
    const theirs = spreadsheetCost(c);
    theirs_ms += performance.now() - began;
    const exact = ours?.parts.reduce((sum, p) => sum.plus(p.exact), new Decimal(0)) ?? new Decimal(0);
    const near = (a: Decimal | string, b: number) =>
      expect(new Decimal(a).minus(b).abs().toNumber()).toBeLessThanOrEqual(
        Math.max(1e-12, 1e-9 * Math.abs(b)),
      );
    near(exact, theirs.total);
    if (isTie(exact.toFixed())) ties++;
    else expect(ours?.total).toBe(theirs.cents.toFixed(2));
    expect(ours?.bySize.map(s => s.size).sort()).toEqual(Object.keys(theirs.perJar).sort());
    for (const s of ours?.bySize ?? []) {
      const jar = theirs.perJar[s.size];
      near(s.exactPerJar, jar?.exact ?? Number.NaN);
      if (isTie(s.exactPerJar)) ties++;
      else expect(s.perJar).toBe(jar?.cents.toFixed(2));
    }
  }
  console.log(
    `cost sheets of ${cases.length} batches: ours ${ours_ms.toFixed(0)} ms, the spreadsheet's ${theirs_ms.toFixed(0)} ms; exact ties ${ties}`,
  );
  expect(ties).toBeGreaterThan(0);
}, 60_000);
