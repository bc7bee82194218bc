import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { crushedTomatoes, plumJam, waxBeans } from '../../demo/recipes.ts';
import { PaperBatch } from '../../testing/builders.ts';
import { fold } from '../batches/index.ts';
import { type Line, stepFrom } from '../recipes/index.ts';
import { routeToSale } from '../review/index.ts';
import { assess, gate, summarise } from './index.ts';

const four = [1, 2, 3, 4];
const tomatoes = (count = 4) => new PaperBatch(crushedTomatoes, [{ size: 'pint', count }]);
const open = (batch: PaperBatch) =>
  gate(fold(batch.events))
    .conditions.filter(c => !c.met)
    .map(c => c.code.split(':')[0]);
const releasable = (batch: PaperBatch) => gate(fold(batch.events)).releasable;

describe('what went in against what the authority covers', () => {
  const beans = (weights: Record<string, number>) => {
    const batch = new PaperBatch(waxBeans, [{ size: 'pint', count: 8 }]);
    for (const [lineId, mass_g] of Object.entries(weights)) batch.fact('line.weighed', { lineId, mass_g });
    return batch.cookWell().readApart(3.6);
  };
  // As written: 1,814.4 g of beans, 1,434 g of vinegar, 946.4 g of water. The brine is made with a tenth to spare: what is
  // left of it in the pot is no acid of the jars, and a little less of it is no less in them.
  it('less acid in the jar, or more food for it, holds the batch', () => {
    expect(open(beans({ beans: 1814, vinegar: 1434 }))).toEqual([]);
    expect(open(beans({ vinegar: 1390 }))).toEqual([]);
    expect(open(beans({ vinegar: 1300 }))).toEqual(['acid-share', 'brine-strength']);
    // Beans for ten jars in eight: the jars are tighter, and hold less brine.
    expect(open(beans({ beans: 2300 }))).toEqual(['acid-share']);
    // Within what jars of a pack differ by, some are left over.
    expect(open(beans({ beans: 1950 }))).toEqual([]);
  });

  it('a brine with more water than the recipe has holds the batch, whatever its acid', () => {
    expect(open(beans({ water: 960 }))).toEqual([]);
    expect(open(beans({ water: 1100 }))).toEqual(['acid-share', 'brine-strength']);
    expect(open(beans({ water: 500 }))).toEqual([]);
    expect(open(beans({ water: 1900, vinegar: 2868 }))).toEqual([]);
    const evidence = (code: string) =>
      gate(fold(beans({ water: 1892.8 }).events)).conditions.find(c => c.code === code)?.evidence;
    // 1,434 g at 5 % in 3,326.8 g; as written in 2,380.4 g.
    expect(evidence('brine-strength')).toBe(
      '2.16 g of acetic acid in 100 g of its acid and water; the recipe has 3.01 g.',
    );
    expect(evidence('acid-share')).toMatch(
      /^Acetic acid \(or as much of another\) in 100 g of what is in the jar: 0\.9\d g, 0\.8\d g in the tightest jar; by the recipe 1\.3\d g, 1\.2\d g in the tightest jar\.$/,
    );
  });

  it('a jar whose seal failed, refrigerated, may be the one that is read; it is not released itself', () => {
    const batch = beans({});
    const plain = gate(fold(batch.events)).releasable.length;
    const failed = new PaperBatch(waxBeans, [{ size: 'pint', count: 8 }]).cookWell();
    failed.fact('jars.pressed', { sealed: [], failed: [5] });
    failed.fact('jars.moved', { jars: [5], to: 'refrigerator' });
    expect(open(failed)).toEqual(['ph-evidence']);
    failed.readApart(3.6, { jar: 5 });
    expect(open(failed)).toEqual([]);
    const { releasable } = gate(fold(failed.events));
    expect(releasable).not.toContain(5);
    // No sealed jar had to be opened for it.
    expect(releasable.length).toBe(plain);
  });

  it('takes nothing that was only planned as proof', () => {
    const batch = new PaperBatch(waxBeans, [{ size: 'pint', count: 8 }]);
    const share = () => gate(fold(batch.events)).conditions.find(c => c.code === 'acid-share');
    expect(share()).toMatchObject({
      met: false,
      against: false,
      evidence:
        'Yellow wax beans, White vinegar, 5 %: neither weighed nor drawn, and what was only planned proves nothing.',
    });
    batch.fact('line.weighed', { lineId: 'beans', mass_g: 1814 });
    expect(share()?.evidence).toMatch(/^White vinegar, 5 %: neither/);
    batch.fact('line.weighed', { lineId: 'vinegar', mass_g: 1434 });
    expect(share()?.met).toBe(true);
    // Each bowl that is weighed adds to it: beans for two more jars, in the same eight.
    batch.fact('line.weighed', { lineId: 'beans', mass_g: 500 });
    expect(share()).toMatchObject({ met: false, against: true });
  });

  it('is not talked into more acid by what is typed: a drained weight of nothing, a reading no pot has', () => {
    const relish = {
      ...waxBeans,
      packing: null,
      lines: [
        ...waxBeans.lines.filter(l => l.id === 'beans' || l.id === 'vinegar'),
        { ...(waxBeans.lines.find(l => l.id === 'salt') as Line), where: 'soak' as const },
      ].map(l => (l.id === 'vinegar' ? { ...l, where: 'pot' as const } : l)),
      steps: [
        {
          ...stepFrom('soak', 'soak', 'Salt, drain'),
          adds: ['beans', 'salt'].map(lineId => ({ lineId, share: '1' })),
        },
        {
          ...stepFrom('weigh', 'measure', 'Weigh'),
          expects: { text: '1500 g', unit: 'g' as const, value: '1500', upTo: null, toTaste: false },
        },
        {
          ...stepFrom('boil', 'cook', 'Boil'),
          target: { kind: 'temperature' as const, temp_C: 101, hold_min: 0 },
          adds: [{ lineId: 'vinegar', share: '1' }],
        },
      ],
    };
    const met = (vinegar_g: number, more: (b: PaperBatch) => unknown) => {
      const batch = new PaperBatch(relish, [{ size: 'pint', count: 8 }]);
      batch.fact('line.weighed', { lineId: 'vinegar', mass_g: vinegar_g });
      more(batch);
      batch.drawAll();
      return gate(fold(batch.events)).conditions.find(c => c.code === 'acid-share')?.met;
    };
    expect(met(1434, () => 0)).toBe(true);
    expect(met(1200, () => 0)).toBe(false);
    for (const quantity of [0.001, 1, 100])
      expect(met(700, b => b.fact('measure.taken', { stepId: 'weigh', quantity, unit: 'g' }))).toBe(false);
    expect(met(1200, b => b.fact('temperature.read', { where: 'pot', temp_C: 130 }))).toBe(false);
    expect(met(1200, b => b.fact('measure.taken', { stepId: 'weigh', quantity: 1500, unit: 'mL' }))).toBe(
      false,
    );
  });

  it('food drawn by the piece is there; vinegar drawn by the piece proves nothing', () => {
    const piece = (lineId: string) => ({
      lotId: '0197a000-0000-7000-8000-000000000001',
      itemId: '0197a000-0000-7000-8000-000000000002',
      kind: 'ingredient' as const,
      name: 'x',
      lotLabel: 'L',
      lineId,
      jarSize: null,
      quantity: '8',
      unit: 'each' as const,
      unitCost: '1',
      mass_g: null,
      trimYield: null,
      labelName: '',
      subIngredients: '',
      allergens: [],
    });
    const share = (...by: string[]) => {
      const batch = new PaperBatch(waxBeans, [{ size: 'pint', count: 8 }]);
      batch.add('lot.drawn', { lots: by.map(piece) });
      for (const lineId of ['beans', 'vinegar'].filter(id => !by.includes(id)))
        batch.fact('line.weighed', { lineId, mass_g: lineId === 'beans' ? 1814 : 1434 });
      return gate(fold(batch.events)).conditions.find(c => c.code === 'acid-share');
    };
    expect(share('beans')?.met).toBe(true);
    expect(share('vinegar')).toMatchObject({ met: false, against: false });
  });

  it('a pot cooked by eye: more jars of it are no less acid, more food in it is', () => {
    const pot = { ...waxBeans, packing: null, lines: waxBeans.lines.filter(l => l.where !== 'each jar') };
    const steps = pot.steps.map(s =>
      s.id === 'brine'
        ? { ...s, kind: 'cook' as const, target: { kind: 'look' as const, text: 'thick' }, adds: [] }
        : { ...s, adds: s.adds.filter(a => pot.lines.some(l => l.id === a.lineId)) },
    );
    const slaw = {
      ...pot,
      steps,
      lines: pot.lines.map(l => ({ ...l, where: 'pot' as const })),
      makes: { size: 'pint' as const, count: 8 },
    };
    const filled = (count: number, weights: Record<string, number>) => {
      const batch = new PaperBatch(slaw, [{ size: 'pint', count: 8 }]);
      for (const [lineId, mass_g] of Object.entries(weights)) batch.fact('line.weighed', { lineId, mass_g });
      batch.drawAll();
      batch.fact('jars.filled', {
        size: 'pint',
        jars: Array.from({ length: count }, (_, i) => i + 1),
        jarLotId: batch.jarLotId,
        lidLotId: batch.lidLotId,
      });
      return gate(fold(batch.events)).conditions.find(c => c.code === 'acid-share')?.met;
    };
    expect(filled(8, {})).toBe(true);
    expect(filled(9, {})).toBe(true);
    expect(filled(8, { beans: 2000 })).toBe(false);
    expect(filled(8, { water: 1200 })).toBe(false);
  });
});

describe('the gate', () => {
  it('lets a batch through when every condition is met', () => {
    // The jar that was opened for the reading has left.
    expect(releasable(tomatoes().cookWell().readPh(4.12))).toEqual([2, 3, 4]);
    expect(releasable(new PaperBatch(plumJam, [{ size: 'half-pint', count: 4 }]).cookWell())).toEqual(four);
    expect(
      releasable(new PaperBatch(waxBeans, [{ size: 'pint', count: 4 }]).cookWell().readApart(3.6)),
    ).toEqual([2, 3, 4]);
  });

  it('above 4.2 two jars are read, each at or below 4.6 with its uncertainty, unrounded; above 4.6 nothing goes', () => {
    const two = (first: number, second: number) =>
      releasable(tomatoes().cookWell().readPh(first).readPh(second, { jar: 2 }));
    expect(releasable(tomatoes().cookWell().readPh(4.15))).toEqual([2, 3, 4]);
    expect(open(tomatoes().cookWell().readPh(4.150_000_1))).toEqual(['ph-evidence']);
    // The same jar twice is one jar.
    expect(releasable(tomatoes().cookWell().readPh(4.3).readPh(4.3))).toEqual([]);
    expect(two(4.3, 4.1)).toEqual([3, 4]);
    expect(two(4.55, 4.55)).toEqual([3, 4]);
    expect(two(4.55, 4.550_001)).toEqual([]);
    expect(two(4.6, 3.9)).toEqual([]);
    expect(two(3.9, 4.600_000_1)).toEqual([]);
    expect(open(tomatoes().cookWell().readPh(4.61))).toEqual(['ph-limit', 'ph-evidence']);
    const asks = (ph: number) =>
      gate(fold(tomatoes().cookWell().readPh(ph).events)).conditions.find(c => c.code === 'ph-evidence');
    expect(asks(4.35)).toMatchObject({
      evidence:
        'Jar 1 read pH 4.35 ± 0.05 at 24 °C, 26 h after its load was lifted; as it was cut, it is the same all through. Above 4.2, with what it may err, one jar is not enough.',
      next: 'Read a second jar, the tightest packed; both at or below 4.6 with what they may err release it.',
    });
    expect(asks(4.58)?.evidence).toBe(
      'Jar 1 read pH 4.58: with its uncertainty of 0.05 it may be above 4.6.',
    );
  });

  it('above 4.6 nothing is released, whatever else was read, by whatever method, for whatever purpose', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 4.6, max: 14, minExcluded: true, noNaN: true }),
        fc.constantFrom('meter', 'laboratory', 'paper'),
        fc.constantFrom('sale', 'home', 'gift'),
        fc.nat(200),
        (ph, method, purpose, hours) => {
          const batch = new PaperBatch(crushedTomatoes, [{ size: 'pint', count: 4 }], {
            purpose: purpose as 'sale',
          })
            .cookWell()
            .readPh(3.9)
            .readPh(ph, { method: method as 'meter', hoursSinceProcessing: hours })
            .readPh(3.9);
          expect(releasable(batch)).toEqual([]);
        },
      ),
      { numRuns: 60 },
    );
    expect(
      releasable(new PaperBatch(plumJam, [{ size: 'half-pint', count: 4 }]).cookWell().readPh(4.7)),
    ).toEqual([]);
  });

  it("holds to a letter's own, lower limit", () =>
    expect(open(new PaperBatch(waxBeans, [{ size: 'pint', count: 4 }]).cookWell().readPh(4.5))).toEqual([
      'ph-limit',
      'ph-evidence',
    ]));

  it('releases nothing for sale without an authority', () => {
    const own = { ...crushedTomatoes, authority: { grade: 'own' as const, entryId: null } };
    const times = fold(tomatoes().events).started?.times ?? [];
    const batch = new PaperBatch(own, [{ size: 'pint', count: 4 }], { times, route: routeToSale(own) })
      .cookWell()
      .readPh(3.9);
    expect(open(batch)).toEqual(['authority']);
    expect(releasable(batch)).toEqual([]);
  });

  it('never releases a trial', () =>
    expect(
      open(
        new PaperBatch(crushedTomatoes, [{ size: 'pint', count: 4 }], { purpose: 'trial' })
          .cookWell()
          .readPh(3.9),
      ),
    ).toContain('purpose'));

  it('counts a reading by the hours of the record', () => {
    // Hours that were typed are a remark: what counts is how long ago the jar was lifted.
    expect(open(tomatoes().cookWell().readPh(3.9, { hoursSinceProcessing: 1 }))).toEqual([]);
    const fresh = tomatoes().drawAll().fill(four);
    fresh.process(1, four, 40);
    expect(open(fresh.wait(1).readPh(3.9, { hoursSinceProcessing: 24 }))).toContain('ph-evidence');
  });

  it('holds only the jars that fail: unsealed, missed, broken', () => {
    const batch = tomatoes()
      .cookWell()
      .readPh(3.9)
      .fact('jars.pressed', { sealed: [], failed: [2] });
    expect(releasable(batch)).toEqual([3, 4]);
    expect(open(batch)).toEqual(['sealed']);
    expect(open(batch.fact('jars.set_aside', { jars: [2], why: 'seal failed' }))).toEqual([]);
    const missed = tomatoes()
      .cookWell()
      .readPh(3.9)
      .fact('dose.missed', { lineId: 'lemon', jars: [4] });
    expect(releasable(missed)).toEqual([2, 3]);
  });

  it('does not take a press before 12 h for a seal', () => {
    const batch = tomatoes().drawAll().fill(four);
    batch.process(1, four, 40);
    expect(
      open(
        batch
          .wait(11 * 60)
          .fact('jars.pressed', { sealed: four, failed: [] })
          .readPh(3.9, { jar: 4 }),
      ),
    ).toEqual(['ph-evidence', 'sealed']);
    batch.wait(61).fact('jars.pressed', { sealed: four, failed: [] });
    expect(open(batch.wait(12 * 60).readPh(3.9, { jar: 1 }))).toEqual([]);
  });

  it('asks for the gel point and the lots of a jam', () => {
    const cold = new PaperBatch(plumJam, [{ size: 'half-pint', count: 4 }]).drawAll().fill(four);
    cold.process(1, four, 15);
    expect(open(cold.wait(13 * 60).fact('jars.pressed', { sealed: four, failed: [] }))).toEqual(['gel']);
    // Little fruit is a matter of its name, and of the label.
    expect(
      open(
        new PaperBatch(plumJam, [{ size: 'half-pint', count: 4 }])
          .cookWell()
          .fact('line.weighed', { lineId: 'plums', mass_g: 300 }),
      ),
    ).toEqual([]);
    const untraced = tomatoes().fill(four);
    expect(open(untraced)).toContain('traced');
  });

  it('holds an own spread to proven solids, whatever sets it', () => {
    const boil = plumJam.steps.map(s => ({ ...s, target: s.target.kind === 'gel point' ? null : s.target }));
    const jam = (over: Partial<typeof plumJam>) => {
      const batch = new PaperBatch({ ...plumJam, ...over }, [{ size: 'half-pint', count: 4 }]).drawAll();
      batch.fill(four).process(1, four, 15);
      return batch.wait(13 * 60).fact('jars.pressed', { sealed: four, failed: [] });
    };
    const steps = boil.map(s => ({
      ...s,
      target: s.target ?? { kind: 'look' as const, text: 'as written' },
    }));
    expect(open(jam({ setBy: 'ordinary pectin' }))).toEqual(['gel']);
    expect(open(jam({ setBy: 'nothing added', steps }))).toEqual(['gel']);
    expect(open(jam({ setBy: 'ordinary pectin', steps }))).toEqual(['gel']);
    const heated = (where: 'pot' | 'jar', off_C: number, when: 'before' | 'a day later' = 'before') => {
      const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 4 }]).drawAll();
      const { gelPoint_C } = fold(batch.events).started as { gelPoint_C: number };
      const read = () => batch.fact('temperature.read', { where, temp_C: gelPoint_C + off_C });
      if (when === 'before') read();
      batch.wait(5).fill(four).process(1, four, 15);
      batch.wait(24 * 60).fact('jars.pressed', { sealed: four, failed: [] });
      if (when !== 'before') read();
      return batch;
    };
    expect(open(heated('pot', -0.06))).toEqual(['gel']);
    expect(open(heated('jar', 0))).toEqual(['gel']);
    expect(open(heated('pot', 0))).toEqual([]);
    // Told a day later as if now, it says nothing of what is in the jars.
    const late = heated('pot', 5, 'a day later');
    expect(open(late)).toEqual(['gel']);
    expect(gate(fold(late.events)).conditions.find(c => c.code === 'gel')?.evidence).toMatch(
      /entered after the last jar was filled/,
    );
  });

  it('traces the lids of each jar that is still there, to a lot that was drawn', () => {
    const batch = tomatoes().cookWell().readPh(3.9);
    const other = '00000000-0000-7000-8000-0000000000aa';
    batch.fact('jars.filled', { size: 'pint', jars: [5], jarLotId: null, lidLotId: null });
    batch.fact('jars.filled', { size: 'pint', jars: [6], jarLotId: null, lidLotId: other });
    const traced = () => gate(fold(batch.events)).conditions.find(c => c.code === 'traced');
    expect(traced()).toMatchObject({ met: false, jars: null });
    expect(traced()?.evidence).toBe('No lot was drawn for: lids of jars 5, 6.');
    batch.fact('jars.set_aside', { jars: [5, 6], why: 'broken' });
    expect(traced()?.met).toBe(true);
  });

  it('notices less acid than the authority asks for', () => {
    const batch = new PaperBatch(waxBeans, [{ size: 'pint', count: 4 }]).cookWell().readApart(3.7);
    expect(open(batch)).toEqual([]);
    expect(open(batch.fact('line.weighed', { lineId: 'beans', mass_g: 1500 }))).toEqual(['acid-share']);
  });

  it('puts released jars back on hold when a late fact closes the gate', () => {
    const batch = tomatoes().cookWell().readPh(4.1);
    batch.add('jars.released', { jars: [2, 3, 4], evidence: [] });
    expect(assess(batch.events).standing).toMatchObject({ released: [2, 3, 4], stage: 'released' });
    const late = new PaperBatch(crushedTomatoes, [{ size: 'pint', count: 4 }]).device;
    batch.readPh(4.8, { jar: 2 }, { device: late });
    const now = assess(batch.events).standing;
    expect(now.released).toEqual([]);
    expect(now.forms.map(f => f.form)).toEqual(['set aside', 'set aside', 'held', 'held']);
    expect(now.stage).toBe('checking');
  });

  it('processes a short load again with new lids', () => {
    const batch = tomatoes().drawAll().fill(four);
    batch.process(1, four, 20);
    expect(assess(batch.events).standing.forms.every(f => f.form === 'held')).toBe(true);
    batch.process(2, four, 40);
    batch
      .wait(13 * 60)
      .fact('jars.pressed', { sealed: four, failed: [] })
      .wait(12 * 60)
      .readPh(3.9);
    const state = fold(batch.events);
    expect(state.loads.map(l => l.phase)).toEqual(['short', 'processed']);
    // The first load stays a deviation in the record, but its jars were processed again.
    expect(gate(state).releasable).toEqual([2, 3, 4]);
  });
});

describe('what is due', () => {
  it('calls for pressing, the pH, a look, release and labels in their order', () => {
    const batch = tomatoes().drawAll().fill(four);
    batch.process(1, four, 40);
    const due = () => summarise(assess(batch.events)).due.map(d => d.kind);
    expect(due()).toEqual(['press', 'acidity', 'look']);
    batch.wait(13 * 60).fact('jars.pressed', { sealed: four, failed: [] });
    expect(due()).toEqual(['acidity', 'look']);
    batch.wait(12 * 60).readPh(3.9);
    expect(due()).toEqual(['release', 'look']);
    batch.fact('jars.looked', { jars: four, set: null, found: [], text: '' });
    expect(due()).toEqual(['release']);
    batch.add('jars.released', { jars: [2, 3, 4], evidence: [] });
    expect(due()).toEqual(['label']);
  });
  it('shows what runs, with when it calls', () => {
    const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 2 }])
      .fact('step.started', { stepId: 'macerate' })
      .fill([1, 2]);
    batch.add('load.packed', {
      loadId: '00000000-0000-7000-8000-000000000001',
      number: 1,
      jars: [1, 2],
      newLidLotId: null,
    });
    batch.add('load.boiling', { loadId: '00000000-0000-7000-8000-000000000001' });
    expect(
      summarise(assess(batch.events)).running.map(r => [r.kind, (r.until_ms - r.since_ms) / 60_000]),
    ).toEqual([
      ['load', 15],
      ['wait', 240],
    ]);
  });
});
