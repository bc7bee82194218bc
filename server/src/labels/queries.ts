import type { LabelSettings } from '@cocotte/contract';
import type { LabelSetup } from '@cocotte/core/labels';
import type { Trx } from '../house/database.ts';

/** How labels of a recipe are made, as somebody chose; undefined before. */
export async function selectSetup(
  trx: Trx,
  kitchenId: string,
  recipeId: string,
): Promise<{ setup: LabelSetup; version: number } | undefined> {
  return trx('label_setups').where({ kitchen_id: kitchenId, recipe_id: recipeId }).first('setup', 'version');
}

/** Item numbers of the labels of all recipes but one. */
export async function selectNumbers(trx: Trx, kitchenId: string, recipeId: string): Promise<string[]> {
  const rows = await trx('label_setups')
    .where({ kitchen_id: kitchenId })
    .whereNot({ recipe_id: recipeId })
    .whereRaw("setup -> 'numbers' <> '[]'::jsonb")
    .select('setup');
  return rows.flatMap(r => (r.setup as LabelSetup).numbers.map(n => n.number));
}

/** What the kitchen prints labels on; undefined before anybody said. */
export async function selectSettings(
  trx: Trx,
  kitchenId: string,
): Promise<{ settings: LabelSettings; version: number } | undefined> {
  return trx('label_settings').where({ kitchen_id: kitchenId }).first('settings', 'version');
}

/** Keeps a value under its key if the version is still the one that was read; 0 where there was none. */
async function keep(
  trx: Trx,
  table: 'label_setups' | 'label_settings',
  key: Record<string, string>,
  value: Record<string, string>,
  version: number,
): Promise<boolean> {
  if (version === 0) {
    const made = await trx(table)
      .insert({ ...key, ...value, version: 1 })
      .onConflict(Object.keys(key))
      .ignore()
      .returning('version');
    return made.length > 0;
  }
  const changed = await trx(table)
    .where({ ...key, version })
    .update({ ...value, version: version + 1 });
  return changed > 0;
}

/** Keeps how labels of a recipe are made. */
export const keepSetup = (
  trx: Trx,
  kitchenId: string,
  recipeId: string,
  setup: LabelSetup,
  version: number,
) =>
  keep(
    trx,
    'label_setups',
    { kitchen_id: kitchenId, recipe_id: recipeId },
    { setup: JSON.stringify(setup) },
    version,
  );

/** Keeps what the kitchen prints labels on. */
export const keepSettings = (trx: Trx, kitchenId: string, settings: LabelSettings, version: number) =>
  keep(trx, 'label_settings', { kitchen_id: kitchenId }, { settings: JSON.stringify(settings) }, version);

/** A picture of the kitchen as JPEG; null where it is none or no longer kept. */
export async function selectPicture(
  trx: Trx,
  kitchenId: string,
  paperId: string,
): Promise<Uint8Array | null> {
  const row = await trx('papers')
    .where({ kitchen_id: kitchenId, paper_id: paperId, media_type: 'image/jpeg' })
    .first('content');
  return row ? new Uint8Array(row.content as Buffer) : null;
}

/** Batches of which labels were printed, the last touched first. */
export async function selectLabelled(trx: Trx, kitchenId: string, most: number): Promise<string[]> {
  const rows = await trx('batches')
    .where({ kitchen_id: kitchenId })
    .whereRaw("(summary->>'labelled')::int > 0")
    .orderBy('last_seq', 'desc')
    .limit(most)
    .select('batch_id');
  return rows.map(r => r.batch_id as string);
}
