import { spawnSync } from 'node:child_process';
import { describe, expect, it } from 'vitest';
import {
  INVERTED,
  boilingPoint_C,
  boilingRise_C,
  brixAtRise,
  syrupDensity_gPerMl,
  waterAtRise_g,
} from './index.ts';

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

describe('jams: fruit and inverted sugar boil higher than sucrose', () => {
  // 100 parts of fruit at 10 °Brix to 110 of sugar, with a lemon: as most jams are.
  const jam = { sugar_g: 110, soluble_g: 10, salt_g: 0, acid_g: 1 };
  const solids_g = 121;
  const brix = (temp_F: number, inverted?: number) => {
    const water_g = waterAtRise_g(jam, ((temp_F - 212) * 5) / 9, 0, inverted);
    return (solids_g / (solids_g + water_g)) * 100;
  };

  // USDA Complete Guide (2015), guide 7, and preserving tables of the trade: 220 °F stands for 65 %, 222 °F for 68 %;
  // from memory.
  it.each([
    [220, 65],
    [222, 68],
  ])('%i °F is %i °Brix, within two', (temp_F, published) => {
    expect(Math.abs(brix(temp_F) - published)).toBeLessThan(2);
  });

  it.each([215, 217, 218, 219, 220, 221, 222])(
    'at %i °F lies below pure sucrose by GNU units, by 1 to 4 °Brix, and moves by at most two a side with what is inverted',
    temp_F => {
      const sucrose = units(`~sugar_conc_bpe(${((temp_F - 212) * 5) / 9} K)`);
      expect(sucrose - brix(temp_F)).toBeGreaterThan(0.5);
      expect(sucrose - brix(temp_F)).toBeLessThan(4);
      expect(brix(temp_F, INVERTED.low) - brix(temp_F)).toBeLessThan(2);
      expect(brix(temp_F) - brix(temp_F, 0.2)).toBeLessThan(4);
    },
  );
});
