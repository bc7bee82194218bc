import { spawnSync } from 'node:child_process';
import { describe, expect, it } from 'vitest';
import { scale, Stove, thermometer } from './instruments.ts';
import { brixOf, heat_J, heated, type PotOnFire, rise_C } from './pot.ts';

const fresh = (over: Partial<PotOnFire> = {}): PotOnFire => ({
  water_g: 2200,
  solids_g: 1700,
  temp_C: 21,
  power_W: 1800,
  loss_WPerK: 2.2,
  boils_C: 97.6,
  steam_g: 0,
  in_J: 0,
  lost_J: 0,
  ...over,
});

describe('the pot of the stand-in', () => {
  it.each([10, 30, 50, 60, 65, 70, 76, 80, 84])(
    '%i °Brix boils within a kelvin of the published curve (GNU units, Starzak and Peacock)',
    brix => {
      const run = spawnSync('units', ['-t', '--digits', '10', `sugar_conc_bpe(${brix})`, 'K'], {
        encoding: 'utf8',
      });
      expect(Math.abs(rise_C(brix) - Number(run.stdout.trim()))).toBeLessThan(1);
    },
  );

  it('keeps its books: mass in is mass out, and heat in is heat there, lost or gone with the steam', () => {
    for (const power_W of [0, 600, 1800, 4000])
      for (const minutes of [1, 20, 90]) {
        const start = fresh({ power_W });
        const end = heated(start, minutes * 60);
        expect(end.water_g + end.steam_g).toBeCloseTo(start.water_g, 6);
        expect(end.solids_g).toBe(start.solids_g);
        const balance_J = heat_J(start) + end.in_J - end.lost_J - heat_J(end);
        expect(Math.abs(balance_J)).toBeLessThan(Math.max(1, end.in_J) * 1e-6 + 1);
      }
  });

  it('warms, stalls near its boil, then climbs faster and faster, and never boils below its point', () => {
    let pot = fresh();
    const at: number[] = [];
    for (let minute = 0; minute < 110; minute++) {
      pot = heated(pot, 60);
      at.push(pot.temp_C);
    }
    const climbs = (from: number, to: number) => (at[to] as number) - (at[from] as number);
    expect(climbs(0, 5)).toBeGreaterThan(10);
    const boiling = at.findIndex(t => t >= 97.6);
    expect(boiling).toBeGreaterThan(5);
    // The same ten minutes bring more the later they are.
    expect(climbs(boiling + 1, boiling + 11)).toBeLessThan(1.5);
    const last = at.length - 1;
    expect(climbs(last - 10, last)).toBeGreaterThan(climbs(boiling + 1, boiling + 11) * 2);
    expect(brixOf(pot)).toBeGreaterThan(60);
  });

  it('goes cold without a fire, and boils dry no further than its last gram', () => {
    expect(heated(fresh({ temp_C: 90, power_W: 0 }), 3600).temp_C).toBeLessThan(80);
    expect(heated(fresh({ water_g: 50, solids_g: 10 }), 7200).water_g).toBeGreaterThanOrEqual(1);
  });
});

describe('instruments', () => {
  it('a probe follows late, and shows the metal where it stands on the bottom', () => {
    const stove = new Stove(97.6);
    const probe = thermometer(stove, 0);
    stove.fire(1);
    for (let s = 0; s < 600; s++) {
      stove.tick(1);
      probe.tick(1);
    }
    const { value } = probe.show();
    expect(Math.abs(value - stove.pot.temp_C)).toBeLessThan(1);
    expect(probe.scene('bottom', 6)).toBe(true);
    for (let s = 0; s < 30; s++) probe.tick(1);
    expect(probe.show().value).toBeGreaterThan(stove.pot.temp_C + 4);
    expect(probe.scene('__proto__', 1)).toBe(false);
  });

  it('a boil is lost in the minute that was asked for, counted from the boil, once', () => {
    const stove = new Stove(97.6);
    const probe = thermometer(stove, 0);
    stove.fire(1);
    expect(probe.scene('lost', 6)).toBe(true);
    const live = (seconds: number) => {
      for (let s = 0; s < seconds; s++) {
        stove.tick(1);
        probe.tick(1);
      }
    };
    while (stove.pot.temp_C < 97.6) live(1);
    live(5 * 60);
    expect(stove.pot.power_W).toBeGreaterThan(0);
    const hot_C = stove.pot.temp_C;
    live(2 * 60);
    expect(stove.pot.power_W).toBe(0);
    expect(stove.pot.temp_C).toBeLessThan(hot_C);
    stove.fire(1);
    live(20 * 60);
    expect(stove.pot.power_W).toBeGreaterThan(0);
  });

  it('a scale swings, settles, and creeps where it is told to', () => {
    const one = scale();
    one.scene('load', 500);
    one.tick(0.1);
    expect(one.show().steady).toBe(false);
    for (let i = 0; i < 60; i++) one.tick(0.1);
    expect(one.show()).toEqual({ value: expect.closeTo(500, -0.4), steady: true });
    one.scene('creep', 2);
    for (let i = 0; i < 100; i++) one.tick(1);
    expect(one.show().value).toBeGreaterThan(650);
  });
});
