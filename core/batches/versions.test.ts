import { bodyOf as bodySize } from '../jars/index.ts';
import { describe, expect, it } from 'vitest';
import { plumJam } from '../../demo/recipes.ts';
import { PaperBatch } from '../../testing/builders.ts';
import type { BatchEvent, EventType } from './events.ts';
import { VERSIONS, complete, upgradeEvent, versionOf } from './versions.ts';

const paper = new PaperBatch(plumJam, [{ size: 'half-pint', count: 2 }]);
const some = paper.events[0] as BatchEvent;
const entry = (type: string, typeVersion: number, body: object): BatchEvent =>
  ({ ...some, type, typeVersion, body }) as unknown as BatchEvent;
const bodyOf = (event: BatchEvent | null) => event?.body as unknown as Record<string, unknown>;
const place = { outletId: null, potId: null };

/** With how many shapes each of those has had; the others have had two. Written apart from the code. */
const SHAPES: Partial<Record<EventType, number>> = {
  'batch.started': 6,
  'ph.read': 3,
  'step.started': 3,
  'step.done': 4,
  'measure.taken': 3,
  'line.weighed': 3,
  'temperature.read': 4,
  'solids.read': 3,
  'jars.filled': 4,
};

/** What each kind gained since its first shape, and what goes without saying there. Written apart from the code. */
const GAINED: Partial<Record<EventType, object>> = {
  'batch.started': {
    potId: null,
    equipment: { pots: [], canners: [] },
    keys: null,
    phAct: 4.2,
    phForecast: null,
    lotPattern: null,
  },
  'jars.released': { named: [] },
  'step.started': { ...place, outOfOrder: '' },
  'step.done': { ...place, ended: null, outOfOrder: '' },
  'line.weighed': { ...place, instrumentId: null, checked: null },
  'measure.taken': { ...place, how: null, from: [] },
  'temperature.read': { ...place, instrumentId: null, checked: null, part: '' },
  'solids.read': { part: '', instrumentId: null, checked: null },
  'jars.filled': { ...place, headspace_mm: null, closure: '' },
  'load.boil_lost': { lost: 'boil' },
  'load.packed': { cannerId: null, heat: null },
  'jars.pressed': { how: 'pressed' },
  'ph.read': {
    instrumentId: null,
    calibration: null,
    sample: null,
    tightest: false,
    replicates: [],
    paper: null,
  },
  'deviation.settled': { action: 'shown right', cause: '', paper: null },
};

describe('shapes of entries', () => {
  it.each(Object.entries(GAINED))('%s of its first shape is read as of today', (type, gained) => {
    const old = entry(type, 1, { was: 'there' });
    const read = upgradeEvent(old);
    const newest = VERSIONS[type as EventType];
    expect(read).toEqual({ ...old, typeVersion: newest, body: { was: 'there', ...gained } });
    expect(newest).toBe(SHAPES[type as EventType] ?? 2);
    // What is in its shape of today is the same entry, and what it says is left as it is.
    const today = entry(type, newest, { was: 'there' });
    expect(upgradeEvent(today)).toBe(today);
    expect(complete(type as 'step.done', { was: 'there' } as never)).toEqual({ was: 'there', ...gained });
    const [key] = Object.keys(gained);
    expect(bodyOf(upgradeEvent(entry(type, 1, { [key as string]: 'said' })))[key as string]).toBe('said');
  });

  it('lots that were drawn before they said their own waste have that of their line, and nobody used them offline', () => {
    const old = entry('lot.drawn', 1, { lots: [{ lotId: 'a' }] });
    expect(upgradeEvent(old)).toMatchObject({
      typeVersion: VERSIONS['lot.drawn'],
      body: { lots: [{ lotId: 'a', trimYield: null }], used: null },
    });
    const second = entry('lot.drawn', 2, { lots: [{ lotId: 'a' }], used: { entryId: 'x', short: '1' } });
    expect(bodyOf(upgradeEvent(second)).used).toEqual({ entryId: 'x', short: '1' });
    const today = entry('lot.drawn', 3, { lots: [{ lotId: 'a', trimYield: 1 }], used: null });
    expect(upgradeEvent(today)).toBe(today);
  });

  it('canners that were kept by name alone say nothing of what they hold, so that no load of theirs is overfull', () => {
    const old = entry('batch.started', 2, { equipment: { pots: [], canners: [{ id: 'c', name: 'Old' }] } });
    expect(bodyOf(upgradeEvent(old)).equipment).toEqual({
      pots: [],
      canners: [{ id: 'c', name: 'Old', kind: null, holds: null }],
    });
  });

  it('labels that were printed before they had directions have none, and before designs were chosen the one there was', () => {
    const old = entry('labels.printed', 1, {
      jars: [1],
      size: 'pint',
      stock: 'letter-10',
      label: { lotCode: 'X' },
    });
    const now = bodyOf(upgradeEvent(old));
    expect(now).toMatchObject({
      jars: [1],
      size: 'pint',
      design: 'one panel',
      container: bodySize('pint'),
      start: 0,
      spares: 0,
      read: [],
      label: { lotCode: 'X', directions: '', words: '', place: null, asks: { rules: 'US' } },
    });
    // What it was printed on is kept by its measures from now on.
    expect(now.stock).toMatchObject({ id: 'letter-10', label_mm: { width: 101.6, height: 50.8 } });
    const said = entry('labels.printed', 2, {
      size: 'pint',
      stock: 'letter-10',
      label: { directions: 'said' },
    });
    expect(bodyOf(upgradeEvent(said)).label).toMatchObject({ directions: 'said' });
    const today = entry('labels.printed', 4, { label: { directions: 'Keep cold.' } });
    expect(upgradeEvent(today)).toBe(today);
  });

  it('every other kind has had one shape, and is passed on as it is', () => {
    const apart = ['entry.corrected', 'labels.printed', 'lot.drawn'];
    const others = Object.entries(VERSIONS).filter(([t]) => !(t in GAINED) && !apart.includes(t));
    expect(others.length).toBeGreaterThan(15);
    for (const [type, version] of others) {
      const event = entry(type, version, { any: 1 });
      expect([type, version, upgradeEvent(event) === event]).toEqual([type, 1, true]);
    }
  });

  it('a calibration of the second shape keeps the names of its buffers, and says nothing it did not say', () => {
    const calibration = { at: '2026-01-02T09:00:00.000Z', slope_pct: 97, recheck_ph: 4.02 };
    expect(bodyOf(upgradeEvent(entry('ph.read', 2, { buffers: [4.01, 7], calibration })))).toMatchObject({
      calibration: {
        ...calibration,
        temp_C: null,
        points: [
          { ph: 4.01, mV: null },
          { ph: 7, mV: null },
        ],
      },
    });
  });

  it('a kind or a shape that only a newer build knows is read by nobody here', () => {
    expect(upgradeEvent(entry('jar.blessed', 1, {}))).toBeNull();
    for (const name of ['__proto__', 'constructor', 'toString']) {
      expect(upgradeEvent(entry(name, 1, {}))).toBeNull();
      expect(versionOf(name)).toBeNull();
    }
    expect(upgradeEvent(entry('jars.filled', 5, {}))).toBeNull();
    expect(upgradeEvent(entry('note.written', 2, {}))).toBeNull();
  });
});

describe('what a correction says instead', () => {
  const correction = (type: string, bodyVersion: number | undefined, body: object | null, typeVersion = 2) =>
    entry('entry.corrected', typeVersion, {
      replaces: 'x',
      reason: 'a slip',
      occurredAt: null,
      type,
      body,
      ...(bodyVersion === undefined ? {} : { bodyVersion }),
    });

  it('is brought to the shape of today too', () => {
    const read = bodyOf(upgradeEvent(correction('ph.read', 1, { ph: 3.9 })));
    expect(read).toMatchObject({
      bodyVersion: 3,
      body: { ph: 3.9, instrumentId: null, calibration: null },
      reason: 'a slip',
    });
    // From before corrections said of which shape their body is: the first.
    const first = bodyOf(upgradeEvent(correction('ph.read', undefined, { ph: 3.9 }, 1)));
    expect(first).toMatchObject({ bodyVersion: 3, body: { ph: 3.9, calibration: null } });
  });

  it('is left alone where it is of today, or takes the entry away', () => {
    const today = correction('ph.read', 3, { ph: 3.9 });
    expect(upgradeEvent(today)).toBe(today);
    const gone = correction('ph.read', 1, null);
    expect(upgradeEvent(gone)).toBe(gone);
    const plain = correction('note.written', 1, { text: 'x' });
    expect(upgradeEvent(plain)).toBe(plain);
  });

  it('is read by nobody where it is newer than this build', () => {
    expect(upgradeEvent(correction('jar.blessed', 1, {}))).toBeNull();
    expect(upgradeEvent(correction('ph.read', 4, {}))).toBeNull();
  });

  it('is completed with its inner body as it is entered', () => {
    const of = (type: string, body: object | null) =>
      complete('entry.corrected', { replaces: 'x', reason: 'r', occurredAt: null, type, body } as never);
    expect(of('jars.pressed', { sealed: [1], failed: [] })).toMatchObject({
      bodyVersion: 2,
      body: { sealed: [1], failed: [], how: 'pressed' },
    });
    expect(of('jars.pressed', null)).toMatchObject({ bodyVersion: 2, body: null });
    expect(of('note.written', { text: 'x' })).toMatchObject({ bodyVersion: 1, body: { text: 'x' } });
  });
});
