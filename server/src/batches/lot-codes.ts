import { bareCode, lotCodes, type LotPattern } from '@cocotte/core/batches';
import type { Day } from '@cocotte/core/measure';
import type { Trx } from '../house/database.ts';
import { selectTakenCodes } from './queries.ts';

/** How many codes are looked at in one journey. */
const AT_ONCE = 60;

/**
 * The first lot code of a product and a day that no batch of the kitchen ever had, whatever its codes looked like then. The
 * kitchen's head is locked by whoever asks, so that nobody else gets the same.
 */
export async function freeLotCode(
  trx: Trx,
  kitchenId: string,
  pattern: LotPattern,
  product: string,
  day: Day,
): Promise<string> {
  const codes = lotCodes(pattern, product, day);
  for (;;) {
    const some = Array.from({ length: AT_ONCE }, () => codes.next().value);
    // oxlint-disable-next-line no-await-in-loop -- the next ones only where all of these are taken
    const taken = new Set(await selectTakenCodes(trx, kitchenId, some.map(bareCode)));
    const free = some.find(c => !taken.has(bareCode(c)));
    if (free !== undefined) return free;
  }
}
