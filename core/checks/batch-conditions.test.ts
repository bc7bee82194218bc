import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { crushedTomatoes, plumJam, waxBeans } from '../../demo/recipes.ts';
import { PaperBatch } from '../../testing/builders.ts';
import { lineOf } from '../../testing/recipe-lines.ts';
import { fold } from '../batches/index.ts';
import { FOOD_CLASSES, type Recipe } from '../recipes/index.ts';
import { routeToSale } from '../review/index.ts';
import { type Condition, gate, needsReading } from './index.ts';

const four = [1, 2, 3, 4];
const all = (batch: PaperBatch) => gate(fold(batch.events)).conditions;
const find = (batch: PaperBatch, code: string): Condition | undefined =>
  all(batch).find(c => c.code === code);
const releasable = (batch: PaperBatch) => gate(fold(batch.events)).releasable;
const tomatoes = (started = {}) => new PaperBatch(crushedTomatoes, [{ size: 'pint', count: 4 }], started);
const jam = (started = {}) => new PaperBatch(plumJam, [{ size: 'half-pint', count: 4 }], started);
const beans = () => new PaperBatch(waxBeans, [{ size: 'pint', count: 8 }]);

describe('the purpose', () => {
  it('asks for an authority only of what is sold', () => {
    const own = { ...crushedTomatoes, authority: { grade: 'own' as const, entryId: null } };
    const route = routeToSale(own);
    expect(route.open).toBe(false);
    for (const purpose of ['home', 'gift'] as const)
      expect(find(tomatoes({ purpose, route }), 'authority')).toBeUndefined();
    const sale = find(tomatoes({ route }), 'authority');
    expect(sale).toMatchObject({ met: false, evidence: `${route.what} ${route.why}`, next: route.next });
    expect(sale?.why).toContain(route.source);
    const open = routeToSale(crushedTomatoes);
    expect(find(tomatoes(), 'authority')).toMatchObject({ met: true, evidence: open.what, next: '' });
  });

  it('of a trial is never to release: every other condition met, nothing goes through', () => {
    const trial = tomatoes({ purpose: 'trial' }).cookWell().readPh(3.9);
    const open = all(trial).filter(c => !c.met);
    expect(open.map(c => c.code)).toEqual(['purpose']);
    expect(open[0]).toMatchObject({ jars: null, evidence: 'This batch is a trial.' });
    expect(releasable(trial)).toEqual([]);
  });
});

describe('a spread in two pots', () => {
  const two = () => jam({ pots: { count: 2, each: '1', overridden: false, reasons: [] } });
  const gel_C = 103;

  it('that are read one by one shows it in each; one reading of both is of both', () => {
    const one = two().fact('temperature.read', { where: 'pot', potId: '1', temp_C: gel_C });
    expect(find(one, 'gel')).toMatchObject({ met: false });
    expect(find(one, 'gel')?.evidence).toMatch(/^Pot 2: /);
    one.fact('temperature.read', { where: 'pot', potId: '2', temp_C: gel_C - 3 });
    expect(find(one, 'gel')?.met).toBe(false);
    one.fact('solids.read', { brix_pct: 66, potId: '2', outletId: null, instrumentId: null });
    expect(find(one, 'gel')?.met).toBe(true);
    expect(find(two().fact('temperature.read', { where: 'pot', temp_C: gel_C }), 'gel')?.met).toBe(true);
  });

  it('is not shown by pots that the batch does not have', () => {
    const other = two();
    for (const potId of ['3', '7', '__proto__', 'constructor'])
      other.fact('temperature.read', { where: 'pot', potId, temp_C: gel_C });
    expect(find(other, 'gel')?.met).toBe(false);
  });
});

describe('a spread', () => {
  it('that sets by cooking names the pot and the gel point in both scales', () => {
    const none = find(jam(), 'gel');
    // 2,350 ft: water boils some 2.3 °C below 100, and the gel point is 4.4 °C (8 °F) above that; common practice.
    expect(none).toMatchObject({ met: false });
    expect(none?.evidence).toBe(
      'No pot temperature is logged, and no soluble solids; the gel point here is 215.7 °F (102.0 °C).',
    );
    const cool = jam().fact('temperature.read', { where: 'pot', temp_C: 100 });
    expect(find(cool, 'gel')).toMatchObject({
      met: false,
      evidence: 'The pot reached 212.0 °F (100.0 °C); the gel point here is 215.7 °F (102.0 °C).',
    });
    // The hottest of the pot counts, whatever the canner or a jar read.
    cool.fact('temperature.read', { where: 'canner', temp_C: 104 });
    expect(find(cool, 'gel')?.met).toBe(false);
    cool.fact('temperature.read', { where: 'pot', temp_C: 102.5 });
    cool.fact('temperature.read', { where: 'pot', temp_C: 96 });
    expect(find(cool, 'gel')?.met).toBe(true);
  });

  it('is never held for its name: little fruit is a matter of the label', () => {
    const thin = jam().fact('line.weighed', { lineId: 'plums', mass_g: 200 });
    expect(all(thin).map(c => c.code)).not.toContain('identity');
    expect(find(thin, 'spread')).toMatchObject({ met: true });
    const wrong = jam().fact('line.added', { line: lineOf('onion', '200 g', 'onion') });
    expect(find(wrong, 'spread')).toMatchObject({ met: false, jars: null });
  });

  it('proves its solids by a refractometer too, read before the last jar was filled', () => {
    const solids = (brix_pct: number, when: 'before' | 'after' = 'before') => {
      const batch = jam();
      const read = () =>
        batch.fact('solids.read', { brix_pct, outletId: null, potId: null, instrumentId: null });
      if (when === 'before') read();
      batch.drawAll().wait(5).fill(four);
      if (when === 'after') {
        batch.wait(30);
        read();
      }
      return find(batch, 'gel');
    };
    expect(solids(65)).toMatchObject({
      met: true,
      evidence: 'A refractometer read 65 °Brix in the pot; 65 are asked for.',
    });
    expect(solids(64.9)?.met).toBe(false);
    expect(solids(70, 'after')).toMatchObject({
      met: false,
      evidence: expect.stringMatching(/^What was read of the pot was entered after the last jar was filled/),
    });
  });

  it('what a separated syrup reached never counts for the pot, by thermometer or refractometer', () => {
    const batch = jam();
    batch.fact('temperature.read', { where: 'pot', part: 'syrup', temp_C: 110 });
    batch.fact('solids.read', {
      part: 'syrup',
      brix_pct: 72,
      outletId: null,
      potId: null,
      instrumentId: null,
    });
    batch.fact('step.done', { stepId: 'boil', ended: 'cold plate' });
    batch.drawAll().wait(5).fill(four);
    expect(find(batch, 'gel')).toMatchObject({
      met: false,
      evidence: expect.stringMatching(/^What was read is of a part alone, and says nothing of the whole pot/),
    });
    expect(fold(batch.events).steps.boil?.ended).toBe('cold plate');
    const whole = jam().fact('temperature.read', { where: 'pot', part: 'syrup', temp_C: 110 });
    whole.fact('temperature.read', { where: 'pot', temp_C: 103 });
    expect(find(whole.drawAll().wait(5).fill(four), 'gel')?.met).toBe(true);
  });

  it('a five-minute time asks that the empty jars were boiled, by the minutes of this altitude', () => {
    const short: Recipe = { ...plumJam, authority: { grade: 'own', entryId: 'jam-no-pectin-5' } };
    const filled = (...minutes: number[]) => {
      const batch = new PaperBatch(short, [{ size: 'half-pint', count: 4 }]);
      for (const m of minutes) batch.fact('jars.boiled', { minutes: m });
      return find(batch.drawAll().fill(four), 'sterile');
    };
    // 10 minutes, and one more for each started thousand of 2,350 ft.
    expect(filled()).toMatchObject({ met: false, jars: four });
    expect(filled(10, 12)).toMatchObject({
      met: false,
      evidence: 'The empty jars were boiled 12 minutes; 13 are asked for here.',
    });
    expect(filled(13)).toMatchObject({ met: true, jars: null });
    // Two boilings do not add up.
    expect(filled(7, 6)?.met).toBe(false);
    // Not after they were filled, not on the day before, and not for jars of a later fill than it can have been.
    const after = new PaperBatch(short, [{ size: 'half-pint', count: 4 }]).drawAll().fill(four).wait(30);
    expect(find(after.fact('jars.boiled', { minutes: 20 }), 'sterile')).toMatchObject({
      met: false,
      jars: four,
      evidence: expect.stringMatching(/^The empty jars were boiled, and not before jars 1-4 were filled/),
    });
    const before = new PaperBatch(short, [{ size: 'half-pint', count: 4 }]).drawAll();
    before.fact('jars.boiled', { minutes: 20 }).wait(60).fill([1, 2]);
    before.wait(24 * 60).fill([3, 4]);
    expect(find(before, 'sterile')?.jars).toEqual([3, 4]);
    // A device whose clock runs ahead claims no boiling before its own filling.
    const ahead = new PaperBatch(short, [{ size: 'half-pint', count: 4 }]).drawAll().fill(four).wait(60);
    ahead.add('jars.boiled', { minutes: 20 }, { ago_min: 90, typed: true });
    expect(find(ahead, 'sterile')).toMatchObject({ met: true });
    expect(find(ahead, 'sterile')?.proof?.[0]?.known).toBe('written up');
    // Clean jars are enough from ten minutes on.
    expect(find(jam().drawAll().fill(four), 'sterile')).toBeUndefined();
  });

  it('of a tested publication or a letter is not asked for solids: its own end of cooking was tested', () => {
    const { time: _time, ...rest } = crushedTomatoes.authority as Extract<
      Recipe['authority'],
      { grade: 'tested publication' }
    >;
    const tested = {
      ...plumJam,
      authority: { ...rest, time: { kind: 'entry' as const, entryId: 'jam-no-pectin-10' } },
    };
    const batch = new PaperBatch(tested, [{ size: 'half-pint', count: 4 }]);
    expect(all(batch).map(c => c.code)).not.toEqual(expect.arrayContaining(['gel']));
    expect(find(batch, 'gel')).toBeUndefined();
  });

  it('is asked for no acid and no brine; a pickle for no fruit and no gel', () => {
    const codes = (batch: PaperBatch) => all(batch).map(c => c.code);
    expect(codes(jam())).not.toEqual(expect.arrayContaining(['acid-share']));
    expect(codes(jam())).not.toEqual(expect.arrayContaining(['ph-evidence']));
    expect(codes(beans())).not.toEqual(expect.arrayContaining(['identity']));
    expect(codes(beans())).toEqual(expect.arrayContaining(['acid-share', 'brine-strength', 'ph-evidence']));
  });
});

describe('the acid of a batch', () => {
  it('may err by two hundredths, as a kitchen scale does, and not by more', () => {
    const planned_g = 1434;
    // All of the brine goes into the jars here: what is short of it is short in them.
    const stirred = {
      ...waxBeans,
      packing: null,
      lines: waxBeans.lines.filter(l => l.where !== 'each jar').map(l => ({ ...l, where: 'pot' as const })),
    };
    const at = (share: number) =>
      find(
        new PaperBatch(stirred, [{ size: 'pint', count: 8 }])
          .fact('line.weighed', { lineId: 'vinegar', mass_g: planned_g * share })
          .drawAll(),
        'acid-share',
      );
    expect(at(0.981)?.met).toBe(true);
    expect(at(0.979)).toMatchObject({ met: false, title: 'At least the acid the authority asks for' });
    expect(at(1.5)?.met).toBe(true);
    expect(at(0.9)?.evidence).toMatch(/1\.81 g; by the recipe 1\.95 g\.$/);
  });

  it('in each jar is the dose, and is no part of the share: crushed tomatoes have no share to keep', () =>
    expect(find(tomatoes(), 'acid-share')).toBeUndefined());

  it('no food weighed in is no proof, and a brine still has its strength', () => {
    const none = beans().drawAll().fact('line.weighed', { lineId: 'beans', mass_g: 0 });
    expect(find(none, 'acid-share')).toMatchObject({ met: false, against: false });
    const batch = beans().drawAll();
    expect(find(batch, 'acid-share')?.met).toBe(true);
    batch.fact('line.weighed', { lineId: 'water', mass_g: 2000 });
    expect(find(batch, 'brine-strength')?.met).toBe(false);
  });
});

describe('a brine', () => {
  it('is what covers the pieces: acid in the pot, or a brine without water, has no strength to keep', () => {
    const where = (id: string, place: 'pot' | 'brine') => ({
      ...waxBeans,
      lines: waxBeans.lines.map(l => (l.id === id ? { ...l, where: place } : l)),
    });
    const strength = (recipe: typeof waxBeans) =>
      find(new PaperBatch(recipe, [{ size: 'pint', count: 8 }]).drawAll(), 'brine-strength');
    expect(strength(where('vinegar', 'brine'))?.met).toBe(true);
    expect(strength(where('vinegar', 'pot'))).toBeUndefined();
    expect(strength(where('water', 'pot'))).toBeUndefined();
  });

  it('acid stirred into a pot of fruit is held against the fruit', () => {
    const stirred = {
      ...crushedTomatoes,
      lines: crushedTomatoes.lines.map(l => (l.id === 'lemon' ? { ...l, where: 'pot' as const } : l)),
    };
    const batch = new PaperBatch(stirred, [{ size: 'pint', count: 9 }]).drawAll();
    expect(find(batch, 'acid-share')?.met).toBe(true);
    expect(find(batch.fact('line.weighed', { lineId: 'tomatoes', mass_g: 9000 }), 'acid-share')?.met).toBe(
      false,
    );
  });
});

describe('a hot fill', () => {
  const hot = () => {
    const authority = waxBeans.authority as Extract<Recipe['authority'], { grade: 'letter' }>;
    const process = {
      kind: 'hot-fill-hold' as const,
      temp_C: 88,
      hold_min: 3,
      headspace_mm: 6,
      jarSizes: ['pint' as const],
    };
    const recipe = {
      ...waxBeans,
      method: { ...waxBeans.method, pack: 'hot' as const },
      authority: { ...authority, terms: { ...authority.terms, closure: 'lug cap' }, process },
    };
    return new PaperBatch(recipe, [{ size: 'pint', count: 2 }]);
  };

  it('is read in a jar: neither the pot nor the canner says how hot a jar was', () => {
    const batch = hot();
    const none = { met: false, evidence: 'No jar temperature is logged from the time of filling.' };
    expect(find(batch, 'hot-fill')).toMatchObject(none);
    batch.fact('temperature.read', { where: 'pot', temp_C: 95 });
    batch.fact('temperature.read', { where: 'canner', temp_C: 99 });
    expect(find(batch, 'hot-fill')).toMatchObject(none);
    expect(find(batch.fact('temperature.read', { where: 'jar', temp_C: 90 }), 'hot-fill')).toMatchObject({
      title: 'Filled at 190.4 °F (88.0 °C) or above',
      met: true,
      evidence: 'The coldest jar read 194.0 °F (90.0 °C); closure: lug cap.',
    });
  });

  it('forgives what a thermometer of tenths cannot show, and no more', () => {
    const at = (temp_C: number) =>
      find(hot().fact('temperature.read', { where: 'jar', temp_C }), 'hot-fill')?.met;
    expect([87.97, 87.94].map(at)).toEqual([true, false]);
  });

  it('is asked for by no other process', () => expect(find(beans(), 'hot-fill')).toBeUndefined());
});

describe('the trace', () => {
  it('asks for a lot of each line but water, and for lids of each jar that goes out', () => {
    const batch = tomatoes();
    expect(find(batch, 'traced')).toMatchObject({
      met: false,
      evidence: 'No lot was drawn for: Tomatoes, Bottled lemon juice.',
      next: 'Draw the lots that were used.',
    });
    batch.fill([1, 2]);
    expect(find(batch, 'traced')?.evidence).toContain('lids of jars 1, 2');
    batch.drawAll();
    expect(find(batch, 'traced')).toMatchObject({
      met: true,
      evidence: 'Each ingredient and lid was drawn from a lot.',
    });
    expect(beans().recipe.lines.map(l => l.role)).toContain('water');
    expect(find(beans(), 'traced')?.evidence).not.toContain('Water');
  });

  it('a lid is traced by a lot of lids, not by any lot of that name', () => {
    const batch = tomatoes().drawAll();
    batch.fact('jars.filled', { size: 'pint', jars: [1], jarLotId: null, lidLotId: batch.jarLotId });
    expect(find(batch, 'traced')?.evidence).toBe('No lot was drawn for: lids of jars 1.');
  });

  it('a draw that was taken back is no draw', () => {
    const batch = tomatoes().drawAll().fill(four);
    const draw = batch.events.find(e => e.type === 'lot.drawn');
    expect(find(batch, 'traced')?.met).toBe(true);
    batch.add('draw.reversed', { drawId: draw?.id as string, reason: 'the other batch' });
    expect(find(batch, 'traced')?.met).toBe(false);
  });
});

describe('acidity', () => {
  it('is asked of what was made acid, or grew so, and of nothing else', () => {
    const asked = FOOD_CLASSES.filter(needsReading);
    expect(asked).toEqual(['acidified food', 'fermented food']);
  });

  it('above the limit names the worst jar, and holds even what needs no reading', () => {
    const batch = jam().cookWell().readPh(4.7, { jar: 2 }).readPh(4.9, { jar: 3 }).readPh(4.8, { jar: 4 });
    expect(find(batch, 'ph-limit')).toMatchObject({
      title: 'No reading above pH 4.6',
      met: false,
      evidence: 'Jar 3 read pH 4.9.',
      jars: null,
    });
    expect(releasable(batch)).toEqual([]);
  });

  it('a letter that sets a lower limit is named beside the law', () => {
    const batch = beans().cookWell().readPh(4.5);
    expect(find(batch, 'ph-limit')?.why).toBe(
      'The letter sets 4.4; above 4.6 botulism can grow in a sealed jar (21 CFR 114, from memory).',
    );
    expect(find(tomatoes().cookWell().readPh(4.7), 'ph-limit')?.why).not.toContain('letter');
  });

  it('says in turn: nothing read, what is wrong with what was read, what was read', () => {
    const batch = tomatoes().cookWell();
    const evidence = () => find(batch, 'ph-evidence');
    expect(evidence()).toMatchObject({ met: false, evidence: 'No reading is entered.' });
    batch.readPh(3.9, { jar: 4 }, { ago_min: 5 * 60 });
    expect(evidence()?.met).toBe(false);
    expect(evidence()?.evidence).toMatch(/^The last reading does not count: read 21 h after processing/);
    batch.wait(4.6 * 60).readPh(3.9, { temp_C: 24 });
    expect(evidence()).toMatchObject({
      met: true,
      evidence:
        'Jar 1 read pH 3.9 ± 0.05 at 24 °C, 30 h after its load was lifted; as it was cut, it is the same all through.',
    });
    // Careful producers act from 4.2 on: common practice.
    batch.readPh(4.3, { jar: 2 });
    expect(evidence()?.evidence).toMatch(/^Jar 2 read pH 4.3 .*careful producers look for the cause/);
    batch.readPh(4.7, { jar: 3 });
    expect(evidence()).toMatchObject({
      met: false,
      evidence: 'The last reading does not count: pH 4.7 is above 4.6.',
    });
  });
});

describe('a deviation', () => {
  const lifted = () => {
    const batch = tomatoes().drawAll().fill(four);
    batch.process(1, [1, 2], 5);
    batch.process(2, [3, 4], 40);
    return batch
      .wait(13 * 60)
      .fact('jars.pressed', { sealed: four, failed: [] })
      .wait(13 * 60)
      .readPh(3.9, { jar: 3 });
  };

  it('of a load holds only jars whose last load it was, and none once they are set aside', () => {
    const batch = lifted();
    const short = () => all(batch).filter(c => c.code.startsWith('deviation:short'));
    expect(short()).toMatchObject([{ met: false, jars: [1, 2] }]);
    expect(releasable(batch)).toEqual([4]);
    batch.fact('jars.set_aside', { jars: [1], why: 'broken' });
    expect(short()).toMatchObject([{ jars: [2] }]);
    batch.fact('jars.set_aside', { jars: [2], why: 'broken' });
    expect(short()).toEqual([]);
    expect(find(batch, 'deviations')).toMatchObject({
      met: true,
      evidence: 'Each was settled, or its jars set aside.',
    });
    expect(releasable(batch)).toEqual([4]);
  });

  it('that names no jar holds the whole batch until it is settled', () => {
    const batch = lifted().fact('load.boiling', { loadId: randomUUID() });
    const stray = all(batch).find(c => c.code.startsWith('deviation:unknown_load'));
    expect(stray).toMatchObject({ met: false, jars: null });
    expect(releasable(batch)).toEqual([]);
  });

  it('is settled by a person where it can be, and by nobody where it cannot', () => {
    const batch = tomatoes().cookWell().readPh(3.9);
    expect(find(batch, 'deviations')).toMatchObject({ met: true, evidence: 'None was opened.' });
    batch.fact('line.added', { line: { ...lineOf('canning-salt', '1 g', 'pinch'), role: 'salt' } });
    batch.fact('dose.missed', { lineId: 'lemon', jars: [4] });
    const keys = fold(batch.events).deviations.map(d => d.key);
    expect(keys.map(k => k.split(':')[0])).toEqual(['line_added', 'dose_missed']);
    expect(all(batch).filter(c => c.code.startsWith('deviation'))).toMatchObject([
      { code: `deviation:${keys[0]}`, jars: null },
      { code: `deviation:${keys[1]}`, jars: [4] },
    ]);
    expect(releasable(batch)).toEqual([]);
    for (const key of keys) batch.add('deviation.settled', { key, reason: 'it is so', minutes: null });
    expect(fold(batch.events).deviations.map(d => d.settled?.reason)).toEqual(['it is so', undefined]);
    // It is traced to no lot yet.
    expect(
      all(batch)
        .filter(c => !c.met && c.jars === null)
        .map(c => c.code),
    ).toEqual(['traced']);
  });

  it('of the books holds nothing, and is settled by anybody', () => {
    const batch = tomatoes().cookWell().readPh(3.9);
    batch.fact('energy.used', { burnerId: 'no-such-burner', minutes: 5 });
    const books = () => fold(batch.events).books.map(b => [b.key.split(':')[0], b.settled?.reason]);
    expect(books()).toEqual([['unknown_burner', undefined]]);
    expect(releasable(batch)).toEqual([2, 3, 4]);
    expect(find(batch, 'traced')).toMatchObject({
      met: true,
      evidence:
        'Each ingredient and lid was drawn from a lot. One difference in the books is not settled yet.',
    });
    const [note] = fold(batch.events).books;
    batch.add(
      'deviation.settled',
      { key: note?.key ?? '', reason: 'the other hob', minutes: null },
      { signs: false },
    );
    expect(books()).toEqual([['unknown_burner', 'the other hob']]);
  });
});
