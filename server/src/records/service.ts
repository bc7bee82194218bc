import type { Found, QueryOf, ReplyOf, find } from '@cocotte/contract';
import { isLotCode } from '@cocotte/core/labels';
import type { Call } from '../house/mount.ts';
import { selectBatches } from '../batches/queries.ts';
import { selectRecipes } from '../recipes/queries.ts';
import { selectLots } from '../stores/queries.ts';

const EACH = 8;

/** Finds by words over batches, recipes and lots. A lot code read with a slip is said to be one. */
export async function search(
  call: Call<unknown, QueryOf<typeof find>, unknown>,
): Promise<ReplyOf<typeof find>> {
  const { trx, kitchenId } = call;
  const words = call.query.words.trim();
  const batches = (await selectBatches(trx, kitchenId, '', words, '')).batches.slice(0, EACH);
  const recipes = (
    await selectRecipes(trx, kitchenId, '', {
      search: words,
      family: '',
      tag: '',
      product: '',
      variantOf: '',
    })
  ).recipes.slice(0, EACH);
  const lots = (
    await selectLots(trx, kitchenId, { after: '', search: words, withEmpty: true, itemId: '' })
  ).lots.slice(0, EACH);
  const found: Found[] = [
    ...batches.map(b => ({
      kind: 'batch' as const,
      id: b.id,
      title: b.summary.lotCode,
      detail: `${b.summary.name}, ${b.summary.stage}`,
    })),
    ...recipes.map(r => ({
      kind: 'recipe' as const,
      id: r.id,
      title: r.name,
      detail: `version ${r.version}`,
    })),
    ...lots.map(l => ({
      kind: 'lot' as const,
      id: l.lot.id,
      title: `${l.item.name}, lot ${l.lot.label}`,
      detail: l.lot.supplier,
    })),
  ];
  const looksLikeCode = /^[A-Za-z]{3}-\d{5}-/.test(words);
  return {
    found,
    slip:
      looksLikeCode && !isLotCode(words)
        ? 'The check character does not fit: one character of this lot code was misread or swapped.'
        : '',
  };
}
