import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { crushedTomatoes, plumJam, waxBeans } from '../../demo/recipes.ts';
import { type Entering, PaperBatch, START_MS } from '../../testing/builders.ts';
import { Device } from '../../testing/device.ts';
import { lineOf } from '../../testing/recipe-lines.ts';
import type { BatchEvent } from '../batches/index.ts';
import { assess, standsOut } from './index.ts';

/**
 * Ways through the gate that were tried, and more of the same kind: each begins with an honest batch, does one thing
 * wrongly, and may not get a jar through. What is well formed is stored all the same.
 */
const HOUR = 60;
const DAY = 24 * HOUR;
const four = [1, 2, 3, 4];
const releasable = (batch: PaperBatch) => assess(batch.events).standing.gate.releasable;
const codes = (batch: PaperBatch) =>
  assess(batch.events).standing.gate.conditions.flatMap(c =>
    c.met ? [] : c.code.split(':').slice(0, 2).join(':'),
  );

interface Plan {
  /** Minutes at the boil. */
  boil_min?: number;
  /** Hours after lifting at which the jars are pressed and the pH is read. */
  press_h?: number;
  read_h?: number;
  /** How the press and the reading are entered. */
  press?: Entering;
  read?: Entering;
  /** What happens in place of the usual, in its place. */
  fill?: (b: PaperBatch) => void;
  load?: (b: PaperBatch, loadId: string) => void;
  after?: (b: PaperBatch, loadId: string) => void;
}

/** Four pints of crushed tomatoes, 40 minutes at this altitude, from the draw to the reading. */
function cook(plan: Plan = {}, started = {}): PaperBatch {
  const { boil_min = 40, press_h = 13, read_h = 26 } = plan;
  const batch = new PaperBatch(crushedTomatoes, [{ size: 'pint', count: 4 }], started).drawAll().wait(60);
  if (plan.fill) plan.fill(batch);
  else batch.fill(four);
  const loadId = randomUUID();
  if (plan.load) plan.load(batch, loadId);
  else {
    batch.wait(5).add('load.packed', { loadId, number: 1, jars: four, newLidLotId: null });
    batch.wait(10).add('load.boiling', { loadId });
    batch.wait(boil_min).add('load.heat_off', { loadId });
    batch.wait(5).add('load.lifted', { loadId });
  }
  plan.after?.(batch, loadId);
  batch.wait(press_h * HOUR).add('jars.pressed', { sealed: four, failed: [] }, plan.press ?? {});
  batch.wait((read_h - press_h) * HOUR);
  batch.readPh(4.1, {}, plan.read ?? {});
  return batch;
}

const correct = (
  batch: PaperBatch,
  target: BatchEvent | undefined,
  body: object | null,
  occurredAt: string | null = null,
  entering: Entering = {},
) =>
  batch.add(
    'entry.corrected',
    {
      replaces: (target as BatchEvent).id,
      type: (target as BatchEvent).type as 'note.written',
      body: body as { text: string } | null,
      occurredAt,
      reason: 'entered wrongly',
    },
    entering,
  );
const found = (batch: PaperBatch, type: BatchEvent['type']) => batch.events.find(e => e.type === type);
const at = (batch: PaperBatch, minutes_from_now: number) =>
  new Date(batch.now_ms + minutes_from_now * 60_000).toISOString();

describe('an honest batch', () => {
  it('goes through, but for the jar that was opened', () => expect(releasable(cook())).toEqual([2, 3, 4]));

  it('goes through written up in the evening, and sent the next morning', () => {
    const day = cook();
    const arrived = new Date(day.now_ms + 3 * DAY * 60_000).toISOString();
    // The facts of the day, typed from paper: each with its minute, all of them sent at once.
    const written = day.events.map(e =>
      e.type === 'batch.started' || e.type === 'lot.drawn' || !e.receipt
        ? e
        : { ...e, typedInAfterwards: true, receipt: { ...e.receipt, at: arrived, sentAt: arrived } },
    ) as BatchEvent[];
    const { gate } = assess(written).standing;
    expect(gate.releasable).toEqual([2, 3, 4]);
    // It stands out, and is named in the signature.
    expect(gate.conditions.flatMap(c => standsOut(c) || [])).toEqual(
      expect.arrayContaining([
        'Processed for the whole time, unbroken: written up',
        'Sealed, pressed after cooling: written up',
      ]),
    );
    const later = cook({ press: { arrives_min: 5 * DAY }, read: { arrives_min: 5 * DAY } });
    expect(releasable(later)).toEqual([2, 3, 4]);
  });
});

describe('a clock that is wrong', () => {
  const ahead = (hours: number, offset_ms: number | null = 0) => {
    // A device whose clock shows so many hours more than it is, and that does not know it.
    const device = new Device(randomUUID(), START_MS, offset_ms);
    const wrong = device.stamp.bind(device);
    device.stamp = (at_ms, ...rest) => wrong(at_ms + hours * 3_600_000, ...rest);
    return device;
  };

  it.each([
    ['13 h ahead, with an offset of 0', 13, 0],
    ['13 h ahead, with none', 13, null],
    ['a year ahead', 365 * 24, 0],
    ['ahead by just enough', 11.99, 0],
  ] as const)('a press a minute after lifting, by a clock %s', (_, hours, offset_ms) => {
    const batch = cook({ press_h: 1 / 60, press: { device: ahead(hours, offset_ms) } });
    expect(codes(batch)).toContain('sealed');
    expect(releasable(batch)).toEqual([]);
  });

  it.each([
    ['two days ahead', 48, 0],
    ['a day ahead, with no offset', 24, null],
    ['a day ahead, kept on its device for an hour', 24, 0],
  ] as const)('a reading a minute after lifting, by a clock %s', (_, hours, offset_ms) => {
    const batch = cook({
      read_h: 13 + 1 / 60,
      read: { device: ahead(hours, offset_ms), arrives_min: offset_ms === null ? 0 : 60 },
    });
    expect(codes(batch)).toContain('ph-evidence');
    expect(releasable(batch)).toEqual([]);
  });

  it.each([
    ['300 years ago', 300 * 365.25 * DAY],
    ['two days ago', 2 * DAY],
    ['before it was measured', -1],
  ])('an offset measured %s is none', (_, age_min) => {
    const device = new Device(randomUUID(), START_MS, 13 * 3_600_000);
    const stale = device.stamp.bind(device);
    // The clock is right by now; the offset that it goes by is of another time.
    device.stamp = (at_ms, ...rest) => ({
      ...stale(at_ms + 13 * 3_600_000, ...rest),
      clockOffsetAge_ms: age_min * 60_000,
    });
    const batch = cook({ press_h: 1 / 60, press: { device, sentOffset_ms: 0 } });
    expect(releasable(batch)).toEqual([]);
  });

  it('a lifting that a slow clock puts half a day back makes no press of it, once something had been seen before', () => {
    const slow = ahead(-13);
    const batch = cook({
      press_h: 1 / 60,
      load: (b, loadId) => {
        b.wait(5).add('load.packed', { loadId, number: 1, jars: four, newLidLotId: null });
        b.wait(10).add('load.boiling', { loadId });
        const off = b.wait(40).add('load.heat_off', { loadId });
        b.wait(5).add('load.lifted', { loadId }, { device: slow, saw: off.receipt?.seq ?? 0 });
      },
    });
    expect(codes(batch)).toContain('sealed');
  });

  it.each([
    ['two hours slow, that had seen the boil', -2, true],
    ['two hours slow, that had seen nothing', -2, false],
    ['two hours fast', 2, true],
  ] as const)('a boil lost, told by a clock %s, does not go missing', (_, hours, saw) => {
    const batch = cook({
      load: (b, loadId) => {
        b.wait(5).add('load.packed', { loadId, number: 1, jars: four, newLidLotId: null });
        const boiling = b.wait(10).add('load.boiling', { loadId });
        b.wait(20).add(
          'load.boil_lost',
          { loadId },
          {
            device: ahead(hours),
            saw: saw ? (boiling.receipt?.seq ?? 0) : 0,
          },
        );
        b.wait(20).add('load.heat_off', { loadId });
        b.wait(5).add('load.lifted', { loadId });
      },
    });
    expect(releasable(batch)).toEqual([]);
  });

  it('a load timed over a jump of the clock is unverified', () => {
    const device = new Device(randomUUID(), START_MS);
    const honest = device.stamp.bind(device);
    let jump_ms = 0;
    device.stamp = (at_ms, ...rest) => {
      const stamp = honest(at_ms, ...rest);
      return {
        ...stamp,
        wallClock: new Date(Date.parse(stamp.wallClock) + jump_ms).toISOString(),
        occurredAt: new Date(Date.parse(stamp.occurredAt) + jump_ms).toISOString(),
      };
    };
    const batch = cook({
      load: (b, loadId) => {
        b.wait(5).add('load.packed', { loadId, number: 1, jars: four, newLidLotId: null });
        const later = { device, arrives_min: 3 * HOUR, sentOffset_ms: -30 * 60_000 };
        b.wait(10).add('load.boiling', { loadId }, later);
        jump_ms = 30 * 60_000;
        b.wait(10).add('load.heat_off', { loadId }, later);
        b.wait(5).add('load.lifted', { loadId }, later);
      },
    });
    expect(codes(batch)).toContain('deviation:time_unverified');
    expect(releasable(batch)).toEqual([]);
  });
});

describe('a time that is typed', () => {
  it("a reading a minute after lifting, typed as 24 h old: the hours are the record's", () => {
    const batch = cook({ press_h: 1 / 60, read_h: 2 / 60 });
    expect(codes(batch)).toEqual(expect.arrayContaining(['ph-evidence', 'sealed']));
  });

  it('nothing happened after it arrived, whatever day is typed', () => {
    for (const year of ['2099-01-01T00:00:00.000Z', '2027-11-20T00:00:00.000Z']) {
      const batch = cook({ press_h: 1 / 60 });
      correct(batch, found(batch, 'jars.pressed'), { sealed: four, failed: [], how: 'pressed' }, year);
      expect(releasable(batch)).toEqual([]);
    }
  });

  it('a press dated 13 h later inside a correction', () => {
    const batch = cook({ press_h: 1 / 60, read_h: 30 });
    const press = found(batch, 'jars.pressed');
    correct(batch, press, { sealed: four, failed: [], how: 'pressed' }, at(batch, -10 * HOUR));
    expect(codes(batch)).toContain('sealed');
  });

  it('a correction dated 2300 does not beat a later one', () => {
    const batch = cook();
    const reading = found(batch, 'ph.read');
    const body = (ph: number) => ({ ...(reading as BatchEvent<'ph.read'>).body, ph });
    correct(batch.wait(1), reading, body(4.1), '2099-12-31T00:00:00.000Z');
    correct(batch.wait(1), reading, body(4.8));
    expect(codes(batch)).toContain('ph-limit');
    expect(releasable(batch)).toEqual([]);
  });

  it('a reading or a press from before lifting, and one of a jar that was not filled yet', () => {
    const early = new PaperBatch(crushedTomatoes, [{ size: 'pint', count: 4 }]).drawAll();
    early.readPh(4.1).fact('jars.pressed', { sealed: four, failed: [] });
    early.wait(60).fill(four).process(1, four, 40);
    expect(codes(early.wait(2 * DAY))).toEqual(expect.arrayContaining(['ph-evidence', 'sealed']));
  });
});

describe('an order that cannot have been', () => {
  it.each([
    [
      'filled an hour after its load was lifted',
      'deviation:filled_after',
      (b: PaperBatch, loadId: string) => {
        b.add('load.packed', { loadId, number: 1, jars: four, newLidLotId: null });
        b.wait(10).add('load.boiling', { loadId });
        b.wait(40).add('load.heat_off', { loadId });
        b.wait(5).add('load.lifted', { loadId });
        b.wait(60).fill(four);
      },
    ],
    [
      'filled while its load boiled',
      'deviation:filled_after',
      (b: PaperBatch, loadId: string) => {
        b.add('load.packed', { loadId, number: 1, jars: four, newLidLotId: null });
        b.wait(10).add('load.boiling', { loadId });
        b.wait(20).fill(four);
        b.wait(20).add('load.heat_off', { loadId });
        b.wait(5).add('load.lifted', { loadId });
      },
    ],
  ])('%s', (_, code, load) => {
    const batch = cook({ fill: () => undefined, load });
    expect(codes(batch)).toContain(code);
    expect(releasable(batch)).toEqual([]);
  });

  it.each([
    ['half an hour', 30],
    ['a minute', 1],
    ['a day, written up', 0],
  ])('packed %s after the boil began', (_, minutes) => {
    const batch = cook({
      load: (b, loadId) => {
        b.wait(15).add('load.boiling', { loadId });
        b.wait(minutes || 2).add(
          'load.packed',
          { loadId, number: 1, jars: four, newLidLotId: null },
          minutes ? {} : { typed: true },
        );
        b.wait(40 - (minutes || 2)).add('load.heat_off', { loadId });
        b.wait(5).add('load.lifted', { loadId });
      },
    });
    expect(codes(batch)).toContain('deviation:packed_late');
    expect(releasable(batch)).toEqual([]);
  });

  it.each([
    ['heat off at 10 minutes and again at 40', 'load.heat_off'],
    ['heat off at 10 minutes, and a boil again', 'load.boiling'],
    ['heat off at 10 minutes, and lifted at 40', null],
  ] as const)('%s: the first end counts', (_, again) => {
    const batch = cook({
      load: (b, loadId) => {
        b.wait(5).add('load.packed', { loadId, number: 1, jars: four, newLidLotId: null });
        b.wait(10).add('load.boiling', { loadId });
        b.wait(10).add('load.heat_off', { loadId });
        b.wait(30);
        if (again) b.add(again, { loadId });
        if (again === 'load.boiling') b.wait(40).add('load.heat_off', { loadId });
        b.wait(5).add('load.lifted', { loadId });
      },
    });
    expect(codes(batch)).toContain('deviation:short');
    expect(releasable(batch)).toEqual([]);
  });

  it.each([
    ['that run side by side', 5],
    ['the second packed while the first boils', 20],
    ['the second packed while the first rests', 57],
  ])('one jar in two loads %s', (_, packed_min) => {
    const second = randomUUID();
    const batch = cook({
      load: (b, loadId) => {
        b.add('load.packed', { loadId, number: 1, jars: four, newLidLotId: null });
        const began_ms = b.now_ms;
        const to = (minutes: number) => {
          b.now_ms = began_ms + minutes * 60_000;
          return b;
        };
        const events: [number, () => unknown][] = [
          [
            packed_min,
            () => b.add('load.packed', { loadId: second, number: 2, jars: [1, 2], newLidLotId: null }),
          ],
          [10, () => b.add('load.boiling', { loadId })],
          [50, () => b.add('load.heat_off', { loadId })],
          [60, () => b.add('load.lifted', { loadId })],
          [65, () => b.add('load.boiling', { loadId: second })],
          [105, () => b.add('load.heat_off', { loadId: second })],
          [110, () => b.add('load.lifted', { loadId: second })],
        ];
        for (const [minutes, enter] of events.sort((a, z) => a[0] - z[0])) {
          to(minutes);
          enter();
        }
      },
    });
    expect(codes(batch)).toContain('deviation:two_loads');
    expect(releasable(batch)).toEqual([3, 4]);
  });

  it.each([
    ['told a day later as if now', (b: PaperBatch) => b.wait(DAY)],
    ['told once the jars are in the canner', (b: PaperBatch) => b.wait(6)],
    ['told an hour after they were lifted', (b: PaperBatch) => b.wait(HOUR)],
  ])('acid in each jar, %s', (_, wait) => {
    const batch = cook({
      fill: b =>
        void b.fact('jars.filled', { size: 'pint', jars: four, jarLotId: b.jarLotId, lidLotId: b.lidLotId }),
      after: b => void wait(b).fact('dose.given', { lineId: 'lemon', jars: four }),
    });
    expect(codes(batch)).toEqual(expect.arrayContaining(['deviation:dose_late', 'dose:lemon']));
    expect(releasable(batch)).toEqual([]);
  });

  it('acid on top, just before the lid, is in time', () => {
    const batch = cook({
      fill: b => {
        b.fact('jars.filled', { size: 'pint', jars: four, jarLotId: b.jarLotId, lidLotId: b.lidLotId });
        b.wait(3).fact('dose.given', { lineId: 'lemon', jars: four });
      },
    });
    expect(releasable(batch)).toEqual([2, 3, 4]);
  });
});

describe('what was found cannot be talked away', () => {
  it.each([
    ['the next minute', 1],
    ['the next day', DAY],
    ['at the bands', 2 * DAY],
  ])('a failed press, followed by "sealed" %s', (_, minutes) => {
    const batch = cook();
    batch.fact('jars.pressed', { sealed: [], failed: [3] });
    batch.wait(minutes).fact('jars.pressed', { sealed: four, failed: [], how: 'bands off' });
    expect(releasable(batch)).toEqual([2, 4]);
    expect(assess(batch.events).standing.forms.find(f => f.number === 3)?.form).toBe('failed');
  });

  const cooked = {
    'ph.read': () => cook({ after: b => void b.wait(25 * HOUR).readPh(4.9, { jar: 2 }) }),
    'jars.pressed': () =>
      cook({ after: b => void b.wait(13 * HOUR).fact('jars.pressed', { sealed: [1, 3, 4], failed: [2] }) }),
    'dose.missed': () =>
      cook({ after: b => void b.wait(1).fact('dose.missed', { lineId: 'lemon', jars: four }) }),
    'load.boil_lost': () =>
      cook({
        load: (b, loadId) => {
          b.wait(5).add('load.packed', { loadId, number: 1, jars: four, newLidLotId: null });
          b.wait(10).add('load.boiling', { loadId });
          b.wait(30).add('load.boil_lost', { loadId });
          b.wait(25).add('load.lifted', { loadId });
        },
      }),
  } as const;

  it.each(Object.keys(cooked) as (keyof typeof cooked)[])(
    '%s taken back by somebody who may not sign',
    type => {
      const batch = cooked[type]();
      const before = codes(batch);
      const correction = correct(batch.wait(HOUR), found(batch, type), null, null, { signs: false });
      expect(codes(batch)).toEqual(before);
      const told = assess(batch.events).state.amendments[found(batch, type)?.id ?? ''];
      expect(told).toMatchObject({ standing: null, corrections: [{ counts: false, signed: false }] });
      // A signature that waits on a device, or by somebody who may not, is none.
      batch.add('correction.signed', { correctionId: correction.id }, { signs: false });
      batch.add('correction.signed', { correctionId: correction.id }, { waits: true });
      expect(codes(batch)).toEqual(before);
      batch.wait(1).add('correction.signed', { correctionId: correction.id });
      expect(codes(batch)).not.toEqual(before);
    },
  );

  it('a short time, moved until it is long enough', () => {
    const batch = cook({ boil_min: 20 });
    const off = found(batch, 'load.heat_off') as BatchEvent;
    const later = new Date(Date.parse(off.receipt?.at ?? '') + 20 * 60_000).toISOString();
    correct(batch.wait(HOUR), off, off.body, later, { signs: false });
    expect(codes(batch)).toContain('deviation:short');
    // Signed, it still cannot lie after it arrived.
    correct(batch.wait(1), off, off.body, later);
    expect(codes(batch)).toContain('deviation:time_unverified');
    // The full boil moved back is a longer time as well: it takes a signature.
    const early = cook({ boil_min: 20 });
    const boiling = found(early, 'load.boiling') as BatchEvent;
    const earlier = new Date(Date.parse(boiling.occurredAt) - 20 * 60_000).toISOString();
    correct(early.wait(1), boiling, boiling.body, earlier, { signs: false });
    expect(codes(early)).toContain('deviation:short');
  });

  it('a good reading made bad, and good again by somebody who may not sign', () => {
    const batch = cook();
    const reading = found(batch, 'ph.read') as BatchEvent<'ph.read'>;
    correct(batch.wait(HOUR), reading, { ...reading.body, ph: 4.9 }, null, { signs: false });
    expect(codes(batch)).toContain('ph-limit');
    correct(batch.wait(1), reading, { ...reading.body, ph: 4.1 }, null, { signs: false });
    expect(codes(batch)).toContain('ph-limit');
    correct(batch.wait(1), reading, { ...reading.body, ph: 4.1 });
    expect(releasable(batch)).toEqual([2, 3, 4]);
  });

  it('a slip is undone freely: at once, by the same person, with nothing built on it', () => {
    const lost = (minutes: number, over: Entering, between?: (b: PaperBatch, id: string) => void) =>
      cook({
        load: (b, loadId) => {
          b.wait(5).add('load.packed', { loadId, number: 1, jars: four, newLidLotId: null });
          b.wait(10).add('load.boiling', { loadId });
          const slip = b.wait(20).add('load.boil_lost', { loadId }, { signs: false });
          between?.(b, loadId);
          correct(b.wait(minutes), slip, null, null, { signs: false, ...over });
          b.wait(20 - minutes).add('load.heat_off', { loadId });
          b.wait(5).add('load.lifted', { loadId });
        },
      });
    expect(releasable(lost(1, {}))).toEqual([2, 3, 4]);
    expect(releasable(lost(3, {}))).toEqual([]);
    expect(releasable(lost(1, { device: new Device(randomUUID(), START_MS) }))).toEqual([]);
    expect(releasable(lost(1, { typed: true }))).toEqual([]);
    expect(releasable(lost(1, {}, (b, loadId) => void b.add('load.boiling', { loadId })))).toEqual([]);
  });
});

describe('amounts that cannot have been', () => {
  const beans = (over: (b: PaperBatch) => void) => {
    const batch = new PaperBatch(waxBeans, [{ size: 'pint', count: 4 }]);
    over(batch);
    return batch.cookWell().readPh(3.6);
  };
  const drawn = (b: PaperBatch, lineId: string, mass_g: number) =>
    b.add('lot.drawn', {
      lots: [
        {
          lotId: randomUUID(),
          itemId: randomUUID(),
          kind: 'ingredient',
          name: 'Vinegar',
          lotLabel: 'V-1',
          lineId,
          jarSize: null,
          quantity: String(mass_g),
          unit: 'g',
          unitCost: '0',
          mass_g,
          trimYield: null,
          labelName: '',
          subIngredients: '',
          allergens: [],
        },
      ],
    });

  it.each([
    ['1 g drawn and 3 kg weighed', 1, 3000],
    ['half of it drawn', 350, 717],
    ['nothing to speak of drawn', 0.001, 717],
  ])('vinegar of which %s counts as far as it came from a lot', (_, drawn_g, weighed_g) => {
    const batch = beans(b => {
      drawn(b, 'vinegar', drawn_g);
      b.fact('line.weighed', { lineId: 'vinegar', mass_g: weighed_g });
    });
    expect(codes(batch)).toContain('acid-share');
    expect(assess(batch.events).state.books.map(n => n.key)).toContain('books:line:vinegar');
    // One tap draws the rest, and the batch goes on.
    drawn(batch, 'vinegar', weighed_g - drawn_g);
    expect(codes(batch)).not.toContain('acid-share');
  });

  it.each([
    ['500 jars in a batch of four', Array.from({ length: 500 }, (_, i) => i + 1)],
    ['twelve in a batch of four', Array.from({ length: 12 }, (_, i) => i + 1)],
  ])('%s', (_, jars) => {
    const batch = cook({
      fill: b => void b.fill(jars),
      load: b => void b.process(1, jars, 40),
    });
    expect(codes(batch)).toContain('more-than-pot');
    expect(releasable(batch)).toEqual([]);
  });

  it.each([
    ['1 mg of tomatoes behind four jars', 0.001],
    ['a quarter of the tomatoes', 500],
  ])('%s', (_, mass_g) => {
    const batch = cook({ fill: b => void b.fact('line.weighed', { lineId: 'tomatoes', mass_g }).fill(four) });
    expect(codes(batch)).toContain('more-than-pot');
  });

  it('every recipe of the demo fills the jars it says, and not three times as many', () => {
    for (const recipe of [plumJam, crushedTomatoes, waxBeans]) {
      const { size, count } = recipe.makes;
      const all = Array.from({ length: count * 3 }, (_, i) => i + 1);
      const batch = new PaperBatch(recipe, [{ size, count }]);
      expect(codes(batch.fill(all.slice(0, count)))).not.toContain('more-than-pot');
      expect([recipe.name, codes(batch.fill(all.slice(count)))]).toEqual([
        recipe.name,
        expect.arrayContaining(['more-than-pot']),
      ]);
    }
  });

  it.each(['20', '1/20', '4'])('a factor of %s for four jars', factor => {
    const batch = cook({}, { factor });
    expect(codes(batch)).toContain('scale');
    expect(releasable(batch)).toEqual([]);
  });

  it.each([
    ['a weight of a line of another recipe', 'line.weighed', { lineId: 'cucumbers', mass_g: 500 }],
    ['a dose of a line of another recipe', 'dose.given', { lineId: 'cucumbers', jars: four }],
    ['a weight of nothing that can be named', 'line.weighed', { lineId: '__proto__', mass_g: 500 }],
  ] as const)('%s holds, and nobody settles it', (_, type, body) => {
    const batch = cook({ after: b => void b.add(type, body as never) });
    const open = assess(batch.events).state.deviations.filter(d => d.code === 'unknown_line');
    expect(open).toHaveLength(1);
    batch.add('deviation.settled', { key: open[0]?.key ?? '', reason: 'never mind', minutes: null });
    expect(releasable(batch)).toEqual([]);
  });

  it.each([
    ['5 kg of garlic in oil', 'Garlic in oil', '5 kg'],
    ['a spoonful of garlic in oil', 'Garlic in oil', '5 g'],
    ['5 kg of dried onion', 'Dried onion', '5 kg'],
    ['fresh basil', 'Fresh basil', '5 g'],
  ])('%s, called a spice', (_, name, text) => {
    const line = { ...lineOf('dried-thyme', text, 'extra'), name, role: 'spice' as const, freshFactor: 8 };
    const batch = cook({ after: b => void b.fact('line.added', { line }) });
    const [open] = assess(batch.events).state.deviations;
    expect(open).toMatchObject({ code: 'line_added', settles: null });
    batch.wait(1).add('deviation.settled', { key: open?.key ?? '', reason: 'only a spice', minutes: null });
    expect(releasable(batch)).toEqual([]);
  });
});

describe('what is not proven yet', () => {
  it('is not proven by what still waits on a device, and is spoken against by it', () => {
    for (const over of [{ press: { waits: true } }, { read: { waits: true } }] as Plan[]) {
      const batch = cook(over);
      expect(releasable(batch)).toEqual([]);
      const open = assess(batch.events).standing.gate.conditions.filter(c => !c.met);
      expect(open.map(c => c.evidence).join(' ')).toMatch(/still waits on this device/);
    }
    const good = cook();
    good.add('jars.pressed', { sealed: [], failed: [3] }, { waits: true });
    expect(releasable(good)).toEqual([2, 4]);
  });

  it('an entry of a newer build holds everything where it cannot be read', () => {
    const batch = cook();
    const note = batch.add('note.written', { text: 'x' });
    for (const newer of [{ type: 'jars.irradiated' }, { typeVersion: 9 }, { type: '__proto__' }]) {
      const events = [...batch.events.slice(0, -1), { ...note, ...newer } as BatchEvent];
      const { state, standing } = assess(events);
      expect(standing.gate.releasable).toEqual([]);
      expect(standing.gate.conditions.find(c => !c.met)?.code).toBe('newer');
      // Its clocks and jars are all there.
      expect(state.newer).toHaveLength(1);
      expect(state.loads[0]?.phase).toBe('processed');
    }
  });

  it('unsafe jars are no sealed jars', () => {
    const form = (batch: PaperBatch) => assess(batch.events).standing.forms.map(f => f.form);
    expect(form(cook()).slice(1)).toEqual(['sealed', 'sealed', 'sealed']);
    expect(form(cook().readPh(4.9, { jar: 2 })).slice(2)).toEqual(['held', 'held']);
    expect(form(cook({ after: b => void b.fact('dose.missed', { lineId: 'lemon', jars: [3] }) }))[2]).toBe(
      'held',
    );
    expect(
      form(
        cook({
          fill: b =>
            void b.fact('jars.filled', { size: 'pint', jars: four, jarLotId: null, lidLotId: b.lidLotId }),
        }),
      )[3],
    ).toBe('held');
  });
});

describe('a release', () => {
  const released = () => {
    const batch = cook();
    batch.wait(10).add('jars.released', { jars: [2, 3, 4], evidence: [] });
    return batch;
  };
  const now = (batch: PaperBatch) => assess(batch.events).standing;

  it('is taken back by a later fact, for the jars it is about', () => {
    const batch = released();
    expect(now(batch)).toMatchObject({ released: [2, 3, 4], asksMore: [] });
    batch.fact('jars.pressed', { sealed: [], failed: [3] });
    expect(now(batch).released).toEqual([2, 4]);
    batch.readPh(4.7, { jar: 2 });
    expect(now(batch).released).toEqual([]);
  });

  it('is taken back by a fact that happened before it and came after', () => {
    const batch = released();
    const loadId = assess(batch.events).state.loads[0]?.id ?? '';
    const other = new Device(randomUUID(), START_MS);
    batch.add('load.boil_lost', { loadId }, { device: other, ago_min: 26 * HOUR + 10 + 25, typed: true });
    expect(now(batch).released).toEqual([]);
  });

  it('is not taken back by what was so at the time: a rule that asks more is listed, and holds nothing', () => {
    // Released as an earlier build would have: pressed an hour after lifting.
    const batch = cook({ press_h: 1 });
    batch.wait(10).add('jars.released', { jars: [2, 3, 4], evidence: [] });
    expect(releasable(batch)).toEqual([]);
    expect(now(batch)).toMatchObject({
      released: [2, 3, 4],
      stage: 'released',
      asksMore: ['Sealed, pressed after cooling'],
    });
    // A later fact of another kind holds it all the same.
    batch.readPh(4.9, { jar: 2 });
    expect(now(batch).released).toEqual([]);
  });
});
