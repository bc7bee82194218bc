import { createHash } from 'node:crypto';
import { PH_ACT } from '@cocotte/core/acid';
import { type Kitchen, noPlace, PLAIN_LABEL, plainCosts } from '@cocotte/core/kitchen';
import { usualPaper } from '@cocotte/core/measure';
import { type Trx, enterKitchen } from '../house/database.ts';

type Settings = Omit<Kitchen, 'id' | 'version'>;

/**
 * Kitchens from before pots, canners or costs were kept have none on record; where its measures were not asked for, the
 * unit of its altitude tells them, and its locale tells its sheets. One from before it was asked whether its
 * place was entered was placed if it does not stand at exactly nothing, which is where a kitchen began.
 */
const fromRow = (row: {
  kitchen_id: string;
  settings: Omit<
    Settings,
    | 'pots'
    | 'canners'
    | 'costs'
    | 'placed'
    | 'demo'
    | 'measures'
    | 'paper'
    | 'thermometerIce_C'
    | 'thermometerCheckedOn'
    | 'phAct'
  > &
    Partial<Settings>;
  version: number;
}): Kitchen => ({
  ...row.settings,
  measures: row.settings.measures ?? (row.settings.altitude === 'ft' ? 'US' : 'metric'),
  thermometerIce_C: row.settings.thermometerIce_C ?? null,
  thermometerCheckedOn: row.settings.thermometerCheckedOn ?? null,
  phAct: row.settings.phAct ?? PH_ACT,
  paper: row.settings.paper ?? usualPaper(row.settings.locale),
  placed: row.settings.placed ?? row.settings.altitude_m !== 0,
  demo: row.settings.demo ?? false,
  jurisdiction: placeOf(row.settings.jurisdiction),
  pots: row.settings.pots ?? [],
  canners: row.settings.canners ?? [],
  costs: row.settings.costs ?? plainCosts,
  id: row.kitchen_id,
  version: row.version,
});

/** A place that was taken over before it said what it asks of a label asks what all do. */
function placeOf(stored: Partial<Kitchen['jurisdiction']> | undefined): Kitchen['jurisdiction'] {
  const place = { ...noPlace(), ...stored };
  const { rules } = place;
  return {
    ...place,
    rules: rules && { ...rules, label: rules.label ?? PLAIN_LABEL, edited: rules.edited ?? false },
  };
}

/** The kitchen the transaction is in. */
export async function selectKitchen(trx: Trx, kitchenId: string): Promise<Kitchen | undefined> {
  const row = await trx('kitchens').where({ kitchen_id: kitchenId }).first();
  return row ? fromRow(row) : undefined;
}

/** The first hash of a kitchen's chain. */
export function genesisHash(kitchenId: string): string {
  return createHash('sha256').update(`cocotte kitchen ${kitchenId}`).digest('hex');
}

/** Adds a kitchen and the head of its chain, and enters it. */
export async function insertKitchen(trx: Trx, id: string, settings: Settings, now_ms: number): Promise<void> {
  await enterKitchen(trx, id);
  await trx('kitchens').insert({
    kitchen_id: id,
    name: settings.name,
    settings: JSON.stringify(settings),
    created_at: new Date(now_ms).toISOString(),
  });
  await trx('heads').insert({ kitchen_id: id, seq: 0, hash: genesisHash(id) });
}

/** Changes settings if the version is still the one that was read. */
export async function updateKitchen(
  trx: Trx,
  kitchenId: string,
  version: number,
  settings: Settings,
): Promise<boolean> {
  const changed = await trx('kitchens')
    .where({ kitchen_id: kitchenId, version })
    .update({ name: settings.name, settings: JSON.stringify(settings), version: version + 1 });
  return changed === 1;
}

/** Names of kitchens. Row security shows one kitchen at a time, so each is entered in turn, and none in the end. */
export async function kitchenNames(trx: Trx, ids: string[]): Promise<Map<string, string>> {
  const names = new Map<string, string>();
  for (const id of ids) {
    await enterKitchen(trx, id);
    names.set(id, (await selectKitchen(trx, id))?.name ?? '');
  }
  await enterKitchen(trx, '');
  return names;
}
