import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { DryKitchen, type Scene, SCENES } from './dry-kitchen.ts';

const BOILS_C = 97.6;
const dry = (scene: Scene | null = null) => new DryKitchen(BOILS_C, 0.4, scene);

/** Jars in, and the fire on until it boils. */
function boiling(scene: Scene | null): DryKitchen {
  const one = dry(scene);
  one.load(7);
  one.cannerFire(1);
  for (let minute = 0; minute < 60 && !one.see().cannerBoils; minute++) one.tick(60);
  expect(one.see().cannerBoils).toBe(true);
  return one;
}

describe('a kitchen that is played', () => {
  it('boils when it is hot enough and its fire burns, and not before', () => {
    const one = dry();
    one.load(7);
    expect(one.see()).toMatchObject({ cannerBoils: false, loaded: true });
    one.cannerFire(1);
    one.tick(60);
    expect(one.see().cannerBoils).toBe(false);
    one.tick(40 * 60);
    expect(one.see().cannerBoils).toBe(true);
    one.cannerFire(0);
    expect(one.see().cannerBoils).toBe(false);
    one.tick(600);
    expect(one.see().canner_C).toBeLessThan(BOILS_C);
  });

  it('loses its boil in the sixth minute, once, until somebody brings it back', () => {
    const one = boiling('boil lost');
    one.tick(5 * 60);
    expect(one.happened).toEqual([]);
    one.tick(2 * 60);
    expect(one.see().cannerBoils).toBe(false);
    expect(one.happened).toMatchObject([{ scene: 'boil lost', to_s: null }]);
    one.tick(600);
    expect(one.happened[0]?.to_s).toBeNull();
    one.cannerFire(1);
    one.tick(20 * 60);
    expect(one.see().cannerBoils).toBe(true);
    expect(one.happened[0]?.to_s).toBeGreaterThan(one.happened[0]?.from_s ?? Infinity);
    one.tick(60 * 60);
    expect(one.happened).toHaveLength(1);
  });

  it('runs low, which no boil hides, until water is poured in', () => {
    const one = boiling('low water');
    one.tick(5 * 60);
    expect(one.see()).toMatchObject({ cannerBoils: true });
    expect(one.see().cover_mm).toBeLessThan(0);
    expect(one.sights.at(-1)?.boiling).toBe(false);
    one.pour();
    one.tick(5);
    expect(one.sights.at(-1)?.boiling).toBe(true);
  });

  it('reads the metal where its probe stands on it, until it is lifted', () => {
    const one = dry('probe on the bottom');
    one.put(2200, 1700);
    one.fire(1);
    one.tick(25 * 60);
    const off = () => one.probe.show().value - one.see().pot_C - 0.4;
    expect(off()).toBeGreaterThan(4);
    one.liftProbe();
    one.tick(60);
    expect(Math.abs(off())).toBeLessThan(0.5);
  });

  it('weighs what lies on its scale, creeps where it is told to, and is right once it is set to zero', () => {
    const good = dry();
    good.weigh(500);
    good.weigh(50);
    good.tick(30);
    expect(good.scale.show().value).toBe(550);
    const one = dry('scale creeping');
    one.weigh(500);
    one.tick(120);
    expect(one.scale.show().value).toBeGreaterThan(540);
    expect(one.see().weighs_g).toBe(500);
    one.zero();
    one.tick(120);
    expect(Math.abs(one.scale.show().value - 500)).toBeLessThan(2);
    one.weigh(0);
    one.tick(30);
    expect(Math.abs(one.scale.show().value)).toBeLessThan(2);
  });

  it('lives the same life in one stretch as in many, whatever goes wrong', () => {
    fc.assert(
      fc.property(fc.constantFrom(null, ...SCENES), fc.integer({ min: 1, max: 12 }), (scene, parts) => {
        const live = (n: number) => {
          const one = dry(scene);
          one.put(1500, 1100);
          one.fire(1);
          one.cannerFire(1);
          one.load(6);
          one.weigh(300);
          for (let i = 0; i < n; i++) one.tick((60 * 60) / n);
          return one;
        };
        const [once, often] = [live(1), live(parts)];
        expect(often.see().pot_C).toBeCloseTo(once.see().pot_C, 0);
        expect(often.happened.map(h => h.scene)).toEqual(once.happened.map(h => h.scene));
      }),
      { numRuns: 30 },
    );
  });

  it('keeps few sights of a long day', () => {
    const one = dry();
    one.tick(24 * 3600);
    expect(one.sights.length).toBeLessThan(24 * 60 + 10);
  });
});
