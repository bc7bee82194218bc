import { randomUUID } from 'node:crypto';
import { plumJam } from '@cocotte/demo/recipes';
import { openDatabase } from '@cocotte/server/house/database';
import { hashToken } from '@cocotte/server/house/session-cookie';
import { addMembership, insertSession } from '@cocotte/server/kitchen/outside';
import { addKitchen, newKitchenSettings } from '@cocotte/server/kitchen/service';
import { Device } from '@cocotte/testing/device';
import { startOne } from './device.ts';
import { type Kitchen, serve } from './kitchens.ts';
import { appendFloor, call, inside, steady } from './load.ts';
import { median, ms, percentile, ratio, say, tiny } from './say.ts';

const KITCHENS = tiny ? 4 : 50;
/** Each kitchen taps every two seconds. */
const A_SECOND = KITCHENS / 2;

/** More kitchens on the same database, each with a jam on the stove. */
async function more(first: Kitchen): Promise<Kitchen[]> {
  const database = openDatabase(first.appUrl, 4, 600_000);
  const made: Kitchen[] = [];
  for (let i = 0; i < KITCHENS; i++) {
    const token = randomUUID();
    // oxlint-disable-next-line no-await-in-loop -- one kitchen after the other
    const kitchenId = await database.outside(async trx => {
      const id = await addKitchen(
        trx,
        newKitchenSettings(`Kitchen ${i}`, { zone: 'America/Denver', altitude_m: 716 }),
        Date.now(),
      );
      await addMembership(trx, first.personId, id, 'owner', true);
      const session = { tokenHash: hashToken(token), accountId: first.personId, kitchenId: id };
      await insertSession(trx, session, Date.now());
      return id;
    });
    made.push({ ...first, kitchenId, token, jamId: randomUUID() });
  }
  await database.close();
  return made;
}

/** Fifty kitchens cook at once: an entry of each every two seconds. */
export async function fiftyCook(first: Kitchen): Promise<void> {
  const kitchens = await more(first);
  const server = await serve(first);
  try {
    const cooking: (Kitchen & { device: Device })[] = [];
    for (const k of kitchens) {
      // oxlint-disable-next-line no-await-in-loop -- one kitchen after the other
      await call(
        server.port,
        k.token,
        inside(k, '/recipes'),
        JSON.stringify({ id: k.jamId, recipe: plumJam }),
      );
      // oxlint-disable-next-line no-await-in-loop -- as above
      const batchId = await startOne(k, server.port);
      cooking.push({ ...k, batchId, device: new Device(k.personId, Date.now()) });
    }
    let turn = 0;
    const tap = () => {
      const k = cooking[turn++ % cooking.length] as (typeof cooking)[number];
      return call(
        server.port,
        k.token,
        inside(k, `/batches/${k.batchId}/events`),
        JSON.stringify({
          personId: k.personId,
          kitchenId: k.kitchenId,
          sentAt: new Date().toISOString(),
          events: [k.device.fact(Date.now(), 'temperature.read', { where: 'pot', temp_C: 99 })],
        }),
      );
    };
    // A server that has just begun compiles as it goes.
    for (const _ of cooking) await tap();
    const appends = await steady(A_SECOND, tap);
    const least = await appendFloor(cooking[0] as Kitchen, A_SECOND);
    say(
      `\n${KITCHENS} kitchens cooking, ${A_SECOND} entries a second: append p95 ${ms(percentile(appends, 0.95))} (target under 20 ms), median ${ms(median(appends))}; floor, head and entries through pg: p95 ${ms(percentile(least, 0.95))}, median ${ms(median(least))}`,
    );
    ratio('an append of fifty kitchens over its floor, medians', median(appends) / median(least), 6);
  } finally {
    await server.stop();
  }
}
