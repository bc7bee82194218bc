import { spawnSync } from 'node:child_process';
import { describe, expect, it } from 'vitest';
import { fahrenheit, metresFromFeet } from '../measure/index.ts';
import { GEL_RISE_C, boilingPoint_C, gelPoint_C, standardPressure_Pa, vapourPressure_Pa } from './index.ts';

describe('boiling', () => {
  it.each([0, 500, 716.28, 1500, 3048])(
    'the air at %s m has the pressure of the 1976 standard atmosphere (GNU units, stdatmP)',
    altitude_m => {
      const run = spawnSync('units', ['-t', '--digits', '12', `stdatmP(${altitude_m} m)`, 'Pa'], {
        encoding: 'utf8',
      });
      // GNU units takes geometric, we take geopotential altitude: 0.02 % at 3 km.
      expect(standardPressure_Pa(altitude_m) / Number(run.stdout.trim())).toBeCloseTo(1, 3);
    },
  );

  it('has the vapour pressure of water in the steam tables (IAPWS-95 values, from memory)', () => {
    expect(vapourPressure_Pa(100) / 1000).toBeCloseTo(101.42, 1);
    expect(vapourPressure_Pa(90) / 1000).toBeCloseTo(70.18, 1);
    expect(vapourPressure_Pa(50) / 1000).toBeCloseTo(12.352, 2);
  });

  it('boils at 212 °F at sea level and falls with altitude', () => {
    expect(fahrenheit(boilingPoint_C(0))).toBeCloseTo(212, 0);
    expect(boilingPoint_C(1000)).toBeLessThan(boilingPoint_C(500));
    expect(() => boilingPoint_C(20_000)).toThrow(RangeError);
  });

  /** USDA Complete Guide to Home Canning (2015), guide 7, "temperature test": gel point by altitude; from memory. It is printed in whole degrees, the tables of water's boiling point behind it are rounded too. */
  it.each([
    [0, 220],
    [1000, 218],
    [2000, 216],
    [3000, 214],
    [4000, 212],
    [5000, 211],
    [6000, 209],
    [7000, 207],
    [8000, 205],
  ])('the gel point at %s ft is %s °F within a degree', (altitude_ft, gel_F) => {
    expect(Math.abs(fahrenheit(gelPoint_C(metresFromFeet(altitude_ft))) - gel_F)).toBeLessThanOrEqual(1.05);
  });

  it('adds what the thermometer reads high', () =>
    expect(gelPoint_C(0, 0.5) - gelPoint_C(0)).toBeCloseTo(0.5, 9));

  it('stands for at least 65 % soluble solids by the published curve of sucrose solutions (GNU units, Starzak and Peacock)', () => {
    const run = spawnSync('units', ['-t', '--digits', '8', `~sugar_conc_bpe(${GEL_RISE_C} K)`], {
      encoding: 'utf8',
    });
    expect(Number(run.stdout.trim())).toBeGreaterThanOrEqual(65);
  });
});
