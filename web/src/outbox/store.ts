import type { FactEntry } from '@cocotte/contract';
import type { Fault } from '@cocotte/core/measure';
import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import { v7 } from 'uuid';

/** An entry on its way: where it belongs, and what the server said where it would not take it. */
export interface Waiting {
  key: number;
  kitchenId: string;
  batchId: string;
  entry: FactEntry;
  /** Set when the server refused it for good. */
  refused: Fault[] | null;
}

/** This device, and how many entries it has made. */
export interface DeviceCount {
  deviceId: string;
  deviceCounter: number;
}

interface Schema extends DBSchema {
  entries: { key: number; value: Omit<Waiting, 'key'> & { key?: number } };
  device: { key: string; value: { id: string; counter: number } };
}

const THIS = 'this';
/** Where the device was counted by builds before this one. */
const BEFORE = { id: 'cocotte.device', counter: 'cocotte.counter' };

let opened: Promise<IDBPDatabase<Schema>> | null = null;
const database = (): Promise<IDBPDatabase<Schema>> =>
  (opened ??= openDB<Schema>('cocotte', 2, {
    upgrade(db, from) {
      if (from < 1) db.createObjectStore('entries', { keyPath: 'key', autoIncrement: true });
      if (from < 2)
        void db.createObjectStore('device').put(
          {
            id: localStorage.getItem(BEFORE.id) ?? v7(),
            counter: Number(localStorage.getItem(BEFORE.counter) ?? '0'),
          },
          THIS,
        );
    },
  }).catch((error: unknown) => {
    opened = null;
    throw error;
  }));

/** Everything that waits, oldest first. */
export const waiting = async (): Promise<Waiting[]> =>
  (await (await database()).getAll('entries')) as Waiting[];

/**
 * Makes entries and keeps them. The device's count is drawn in the transaction that keeps them: no two entries have the
 * same, whatever other tabs do, and none is lost that was counted.
 */
export async function keep(
  kitchenId: string,
  batchId: string,
  makers: readonly ((device: DeviceCount) => FactEntry)[],
): Promise<Waiting[]> {
  const db = await database();
  const tx = db.transaction(['entries', 'device'], 'readwrite');
  const device = (await tx.objectStore('device').get(THIS)) as { id: string; counter: number };
  const entries = makers.map((make, i) =>
    make({ deviceId: device.id, deviceCounter: device.counter + i + 1 }),
  );
  void tx.objectStore('device').put({ ...device, counter: device.counter + makers.length }, THIS);
  const kept = entries.map(entry => ({ kitchenId, batchId, entry, refused: null }));
  const keys = await Promise.all(kept.map(w => tx.objectStore('entries').add(w)));
  await tx.done;
  // It is kept, and can be shown; a moment later the disk has it too, and it outlives the power.
  const flush = db.transaction('device', 'readwrite', { durability: 'strict' });
  void flush.store.get(THIS).then(now => now && flush.store.put(now, THIS));
  flush.done.catch(() => undefined);
  return kept.map((w, i) => ({ ...w, key: keys[i] as number }));
}

/** A device that remembers nothing is another one each time its page is opened. */
const unkept = { deviceId: v7(), deviceCounter: 0 };
/** The next count of a page whose browser keeps nothing. */
export const countUnkept = (): DeviceCount => ({ ...unkept, deviceCounter: ++unkept.deviceCounter });

/** Draws the device's next count, for a decision that is asked of the server at once. */
export async function draw(): Promise<DeviceCount> {
  try {
    return await drawKept();
  } catch {
    return countUnkept();
  }
}

async function drawKept(): Promise<DeviceCount> {
  const tx = (await database()).transaction('device', 'readwrite');
  const device = (await tx.store.get(THIS)) as { id: string; counter: number };
  const deviceCounter = device.counter + 1;
  void tx.store.put({ ...device, counter: deviceCounter }, THIS);
  await tx.done;
  return { deviceId: device.id, deviceCounter };
}

/** Lets go of entries, and notes what the server said of those it will not take. */
export async function settle(gone: readonly number[], refused: readonly Waiting[]): Promise<void> {
  const tx = (await database()).transaction('entries', 'readwrite');
  for (const key of gone) void tx.store.delete(key);
  for (const one of refused) void tx.store.put(one);
  await tx.done;
}
