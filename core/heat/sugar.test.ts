import { spawnSync } from 'node:child_process';
import { describe, expect, it } from 'vitest';
import { boilingPoint_C, boilingRise_C, brixAtRise, syrupDensity_gPerMl } from './index.ts';

const units = (from: string, to?: string) => {
  const run = spawnSync('units', ['-t', '--digits', '10', from, ...(to ? [to] : [])], { encoding: 'utf8' });
  return Number(run.stdout.trim());
};

describe('sugar solutions (GNU units, definitions.units: Starzak and Peacock; brix, NIST Circular 440, table 114)', () => {
  it.each([10, 30, 50, 60, 65, 68, 72, 76, 80, 84])('%i °Brix boil as the published curve says', brix => {
    const theirs = units(`sugar_conc_bpe(${brix})`, 'K');
    expect(Math.abs(boilingRise_C(brix) - theirs)).toBeLessThan(0.05);
  });

  it.each([10, 25, 40, 55, 65, 70])('%i °Brix weigh as the table says', brix => {
    const theirs = units(`brix(${brix})`, 'g/ml');
    expect(Math.abs(syrupDensity_gPerMl(brix) / theirs - 1)).toBeLessThan(0.005);
  });

  it('turn round: the rise at a concentration is the concentration at that rise, at every altitude', () => {
    for (const altitude_m of [0, 716, 2000, 3048])
      for (let brix = 5; brix <= 85; brix += 5)
        expect(brixAtRise(boilingRise_C(brix, altitude_m), altitude_m)).toBeCloseTo(brix, 6);
    expect(boilingRise_C(65, 2000)).toBeLessThan(boilingRise_C(65, 0));
    expect(boilingPoint_C(2000)).toBeLessThan(boilingPoint_C(0));
    expect(() => boilingRise_C(95)).toThrow(RangeError);
  });
});
