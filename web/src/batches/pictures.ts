import { addPaper } from '@cocotte/contract';
import { batchSubject } from '@cocotte/core/kitchen';
import type { Fault } from '@cocotte/core/measure';
import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import { useCallback, useEffect, useState } from 'react';
import { v7 } from 'uuid';
import { readyToSend } from '../kit/picture.ts';
import { CallError, call, faultsOf } from '../shell/call.ts';
import { useHere } from '../shell/session.tsx';
import { kitchenNow } from '../shell/clock.ts';
import type { OpenBatch } from './open-batch.ts';

/** A picture that has not arrived: kept on this device, for whoever took it, until the kitchen has it. */
interface WaitingPicture {
  paperId: string;
  personId: string;
  kitchenId: string;
  batchId: string;
  /** The entry it shows; null for the batch. */
  of: string | null;
  text: string;
  name: string;
  mediaType: string;
  bytes: Uint8Array;
  /** When it was taken, kitchen time. */
  taken_ms: number;
}
interface Schema extends DBSchema {
  waiting: { key: string; value: WaitingPicture };
}

let opened: Promise<IDBPDatabase<Schema>> | null = null;
const database = () =>
  (opened ??= openDB<Schema>('cocotte-pictures', 1, {
    upgrade: db => void db.createObjectStore('waiting', { keyPath: 'paperId' }),
  }));

/** A picture arrived at least this long after it was taken is written up: its entry says when it was taken. */
const LATE_MS = 60_000;
const AGAIN_MS = 15_000;

/** Pictures on their way just now. */
const underWay = new Set<string>();

/**
 * Pictures of a batch: kept on the device first, handed to the kitchen, and only then named by the record with the hash of what
 * is kept there. What did not arrive waits, also through a reload, and goes again by itself.
 */
export function usePictures(batch: OpenBatch): {
  /** How many wait on this device. */
  waiting: number;
  add: (file: File, of: string | null, text: string) => Promise<Fault[]>;
} {
  const { person, kitchen } = useHere();
  const [waiting, setWaiting] = useState(0);
  const { id: batchId, enter } = batch;
  const mine = useCallback(async () => {
    const all = await (await database()).getAll('waiting');
    return all.filter(w => w.personId === person.id && w.kitchenId === kitchen.id && w.batchId === batchId);
  }, [person.id, kitchen.id, batchId]);
  const deliver = useCallback(
    async (picture: WaitingPicture): Promise<Fault[]> => {
      // One way at a time: the same picture is named once.
      if (underWay.has(picture.paperId)) return [];
      underWay.add(picture.paperId);
      const drop = () =>
        database().then(
          db => db.delete('waiting', picture.paperId),
          () => undefined,
        );
      try {
        const kept = await call(addPaper, {
          params: { paperId: picture.paperId },
          query: { subject: batchSubject(picture.batchId), name: picture.name },
          body: { mediaType: picture.mediaType, bytes: picture.bytes },
        });
        const late = kitchenNow() - picture.taken_ms > LATE_MS;
        await enter(
          [['picture.kept', { paperId: kept.id, sha256: kept.sha256, of: picture.of, text: picture.text }]],
          late ? picture.taken_ms : undefined,
        );
        await drop();
        return [];
      } catch (error) {
        if (error instanceof CallError && error.away) return [];
        // What was refused is refused again: it does not wait.
        await drop();
        return faultsOf(error);
      } finally {
        underWay.delete(picture.paperId);
      }
    },
    [enter],
  );
  useEffect(() => {
    let busy = false;
    const all = async () => {
      if (busy) return;
      busy = true;
      try {
        const there = await mine();
        setWaiting(there.length);
        for (const picture of there) await deliver(picture);
        if (there.length > 0) setWaiting((await mine()).length);
      } catch {
        // A browser that keeps nothing has nothing that waits.
      } finally {
        busy = false;
      }
    };
    void all();
    const timer = setInterval(() => void all(), AGAIN_MS);
    addEventListener('online', all);
    return () => {
      clearInterval(timer);
      removeEventListener('online', all);
    };
  }, [deliver, mine]);
  const add = useCallback(
    async (file: File, of: string | null, text: string): Promise<Fault[]> => {
      const ready = await readyToSend(file);
      if (!ready.ok) return [ready.fault];
      const picture: WaitingPicture = {
        paperId: v7(),
        personId: person.id,
        kitchenId: kitchen.id,
        batchId,
        of,
        text,
        name: file.name.slice(0, 120) || 'picture',
        mediaType: ready.value.mediaType,
        bytes: ready.value.bytes,
        taken_ms: kitchenNow(),
      };
      try {
        await (await database()).put('waiting', picture);
      } catch {
        // A browser that keeps nothing hands it in at once, or not at all.
      }
      setWaiting(n => n + 1);
      const found = await deliver(picture);
      setWaiting(
        await mine().then(
          all => all.length,
          () => 0,
        ),
      );
      return found;
    },
    [person.id, kitchen.id, batchId, deliver, mine],
  );
  return { waiting, add };
}
