import { describe, expect, it } from 'vitest';
import { crushedTomatoes, plumJam, strawberryJam } from '../../demo/recipes.ts';
import { PaperBatch } from '../../testing/builders.ts';
import { lineOf } from '../../testing/recipe-lines.ts';
import type { Entered, EventType } from '../batches/index.ts';
import { Fraction } from '../measure/index.ts';
import { planPots } from '../recipes/index.ts';
import { eventWords } from './index.ts';
import { printed, SAMPLE_LABEL } from '../../testing/labels.ts';

const F = { locale: 'en-US', temperature: 'F', measures: 'US', zone: 'America/Denver' } as const;
const C = { locale: 'de-DE', temperature: 'C', measures: 'metric', zone: 'Europe/Berlin' } as const;
const batch = () => new PaperBatch(crushedTomatoes, [{ size: 'pint', count: 9 }]);
const said = <K extends EventType>(type: K, body: Entered<K>, habits: typeof F | typeof C = F) =>
  eventWords(batch().add(type, body), crushedTomatoes, habits);
const load = { loadId: 'a' };

describe('an entry of the record, in a sentence', () => {
  it('the start: recipe, version, purpose, jars, lot code', () => {
    const [start] = batch().events;
    if (!start) throw new Error('a batch begins with its start');
    expect(eventWords(start, null, F)).toBe(
      'Started Crushed tomatoes, version 1, for sale: 9 pints. Lot CRT-26324-1X.',
    );
    const steam = new PaperBatch(plumJam, [{ size: 'half-pint', count: 1 }], {
      heat: 'steam',
      purpose: 'gift',
    });
    expect(eventWords(steam.events[0] as (typeof steam.events)[0], null, F)).toMatch(
      /for gift: 1 half-pint\..* In steam\.$/,
    );
    const { pots, ...rest } = planPots(strawberryJam, new Fraction(2), null, true);
    const doubled = new PaperBatch(strawberryJam, [{ size: 'half-pint', count: 16 }], {
      pots: { count: pots, ...rest },
    });
    expect(eventWords(doubled.events[0] as (typeof doubled.events)[0], null, F)).toMatch(
      /Ordinary pectin is doubled, by decision\.$/,
    );
  });

  it.each([
    ['step.started', { stepId: 'crush' }, /^Began: Heat one sixth fast/],
    ['step.done', { stepId: 'nowhere' }, /^Done: a step$/],
    ['line.weighed', { lineId: 'tomatoes', mass_g: 4990 }, /^Weighed 4,990 g of Tomatoes\.$/],
    ['line.weighed', { lineId: 'tomatoes', mass_g: 12_400 }, /^Weighed 12\.40 kg of Tomatoes\.$/],
    ['measure.taken', { stepId: 'crush', quantity: 2100, unit: 'mL' }, /^Measured 2,100 mL: Heat/],
    ['measure.taken', { stepId: 'crush', quantity: 900, unit: 'g' }, /^Measured 900 g: Heat/],
    ['yield.explained', { reason: 'Watery fruit.' }, /^Yield: Watery fruit\.$/],
    ['temperature.read', { where: 'pot', temp_C: 100 }, /^Read 212\.0 °F in the pot\.$/],
    [
      'solids.read',
      { brix_pct: 66.5, outletId: null, potId: null, instrumentId: null },
      /^Read 66\.5 °Brix in the pot\.$/,
    ],
    [
      'jars.filled',
      { size: 'pint', jars: [1, 2, 3], jarLotId: null, lidLotId: null },
      /^Filled jars 1-3, 3 pints\.$/,
    ],
    ['jars.filled', { size: 'pint', jars: [4], jarLotId: null, lidLotId: null }, /^Filled jar 4, 1 pint\.$/],
    [
      'jars.weighed',
      {
        jars: [
          { jar: 1, net_g: 268 },
          { jar: 4, net_g: 271.5 },
        ],
        left_g: 40,
      },
      /^Weighed filled jars: 1 268 g, 4 272 g inside; 40 g left beside\.$/,
    ],
    ['jars.boiled', { minutes: 13 }, /^Boiled the empty jars for 13 minutes\.$/],
    ['temperature.read', { where: 'pot', temp_C: 105, part: 'syrup' }, /in the pot, of the syrup alone\.$/],
    ['step.done', { stepId: 'crush', ended: 'cold plate' }, /Ended by cold plate\.$/],
    ['dose.given', { lineId: 'lemon', jars: [1, 2, 3] }, /^Bottled lemon juice into jars 1-3\.$/],
    ['dose.missed', { lineId: 'lemon', jars: [7] }, /^Bottled lemon juice missed in jar 7\.$/],
    [
      'load.packed',
      { ...load, number: 2, jars: [1, 2], newLidLotId: null },
      /^Load 2 packed with jars 1, 2\.$/,
    ],
    [
      'load.packed',
      { ...load, number: 3, jars: [1], newLidLotId: 'x' },
      /^Load 3 packed with jar 1, new lids\.$/,
    ],
    ['load.boiling', load, /^Full boil: the clock started\.$/],
    ['load.boil_lost', load, /void/],
    ['load.heat_off', load, /^Heat off\.$/],
    ['load.lifted', load, /^Jars lifted\.$/],
    ['jars.set_aside', { jars: [2], why: 'broken' }, /^Set aside jar 2: broken\.$/],
    ['jars.pressed', { sealed: [1, 2], failed: [] }, /^Pressed: 2 sealed\.$/],
    ['jars.pressed', { sealed: [1], failed: [2, 3] }, /^Pressed: 1 sealed, jars 2, 3 failed\.$/],
    ['minutes.worked', { minutes: 95 }, /^95 min of work\.$/],
    ['note.written', { text: 'Ripe fruit.' }, /^Ripe fruit\.$/],
    ['draw.reversed', { drawId: 'd', reason: 'Wrong lot.' }, /^Put a draw back: Wrong lot\.$/],
    [
      'deviation.settled',
      { key: 'k', reason: 'Seen on the wall clock.', minutes: 16 },
      /^Settled a deviation at 16 min: Seen/,
    ],
    [
      'deviation.settled',
      { key: 'k', reason: 'Counted again.', minutes: null },
      /^Settled a deviation: Counted again\.$/,
    ],
  ] as [EventType, never, RegExp][])('%s %j', (type, body, words) => expect(said(type, body)).toMatch(words));

  it('a pH with everything that makes it evidence', () => {
    const body: Entered<'ph.read'> = {
      jar: 3,
      ph: 4.12,
      temp_C: 24,
      hoursSinceProcessing: 26.7,
      method: 'meter',
      buffers: [4.01, 7],
      reference: '',
    };
    expect(said('ph.read', body)).toBe(
      'pH 4.12 in jar 3 at 75.2 °F, 26 h after processing as entered, by meter, buffers 4.01 and 7.',
    );
    expect(said('ph.read', { ...body, hoursSinceProcessing: 0 }, C)).toBe(
      'pH 4,12 in jar 3 at 24,0 °C, by meter, buffers 4,01 and 7.',
    );
    expect(said('ph.read', { ...body, method: 'laboratory', buffers: [], reference: 'LAB-7' })).toBe(
      'pH 4.12 in jar 3 at 75.2 °F, 26 h after processing as entered, by laboratory, LAB-7.',
    );
  });

  it('draws name each lot, pieces without a unit', () => {
    const made = batch().drawAll();
    const draw = made.events.find(e => e.type === 'lot.drawn');
    if (!draw) throw new Error('drawAll draws');
    expect(eventWords(draw, crushedTomatoes, F)).toBe(
      'Drew 100 g Tomatoes (lot L-1); 100 g Bottled lemon juice (lot L-1); 9 Jars (lot L-1); 9 Lids (lot L-1).',
    );
  });

  it('releases and labels', () => {
    expect(
      said('jars.released', {
        jars: [1, 2, 3, 5],
        evidence: [
          { code: 'a', title: 'Sealed', evidence: '' },
          { code: 'b', title: 'Processed', evidence: '' },
        ],
      }),
    ).toBe('Released jars 1-3, 5. Sealed; Processed.');
    expect(
      said('labels.printed', {
        jars: [1],
        ...printed('pint', {
          ...SAMPLE_LABEL,
          statementOfIdentity: 'Crushed tomatoes',
          netContents: 'Net wt 15 oz (425 g)',
        }),
      }),
    ).toBe('Printed labels for jar 1: Crushed tomatoes, Net wt 15 oz (425 g).');
  });

  it('what the recipe does not name', () =>
    expect(said('line.added', { line: lineOf('onion', '2 medium', 'x') })).toBe(
      'Added 2 medium of Onions, which the recipe does not name.',
    ));

  it('a correction says what it now reads, or that it was taken back, and why', () => {
    const body = { replaces: 'e', type: 'line.weighed', occurredAt: null, reason: 'Misread.' } as const;
    expect(said('entry.corrected', { ...body, body: { lineId: 'tomatoes', mass_g: 5000 } })).toBe(
      'Corrected to: Weighed 5,000 g of Tomatoes. Reason: Misread.',
    );
    expect(said('entry.corrected', { ...body, body: null })).toBe('Taken back: Misread.');
  });

  it('in the marks and the scale of the kitchen', () => {
    expect(said('temperature.read', { where: 'canner', temp_C: 97.6 }, C)).toBe(
      'Read 97,6 °C in the canner.',
    );
    expect(said('line.weighed', { lineId: 'tomatoes', mass_g: 1250 }, C)).toBe(
      'Weighed 1.250 g of Tomatoes.',
    );
  });

  it('names lines and steps as lines and steps where the recipe is not known', () =>
    expect(eventWords(batch().add('dose.given', { lineId: 'lemon', jars: [1] }), null, F)).toBe(
      'a line into jar 1.',
    ));
});
