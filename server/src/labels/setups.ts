import type {
  BodyOf,
  changeLabelSettings,
  changeLabelSetup,
  labelCheckPage,
  LabelSettings,
  ParamsOf,
  ReplyOf,
} from '@cocotte/contract';
import type { LabelStock } from '@cocotte/core/batches';
import type { Kitchen } from '@cocotte/core/kitchen';
import { LABEL_STOCKS, type LabelSetup, plainSetup, stockFaults, stockFor } from '@cocotte/core/labels';
import { canonicalJson } from '@cocotte/core/measure';
import { heavy } from '../heavy/pool.ts';
import { Afterwards, type Call } from '../house/mount.ts';
import { HttpProblem, notFound, problem } from '../house/problems.ts';
import { readKitchen } from '../kitchen/service.ts';
import { keepSettings, keepSetup, selectPicture, selectSettings, selectSetup } from './queries.ts';

type SetupView = ReplyOf<typeof changeLabelSetup>;
type SettingsView = ReplyOf<typeof changeLabelSettings>;

/** How labels of a recipe are made, or plainly on the kitchen's paper. */
export async function setupOf(
  call: Pick<Call<unknown, unknown, unknown>, 'trx' | 'kitchenId'>,
  recipeId: string,
  kitchen: Pick<Kitchen, 'paper'>,
): Promise<SetupView> {
  return (
    (await selectSetup(call.trx, call.kitchenId, recipeId)) ?? {
      setup: plainSetup(stockFor(kitchen.paper).id),
      version: 0,
    }
  );
}

/** What the kitchen prints labels on. */
export async function settingsOf(
  call: Pick<Call<unknown, unknown, unknown>, 'trx' | 'kitchenId'>,
): Promise<SettingsView> {
  const found = await selectSettings(call.trx, call.kitchenId);
  return found
    ? { ...found.settings, version: found.version }
    : { stocks: [], offset_mm: { x: 0, y: 0 }, version: 0 };
}

/** A stock by its id: of the kitchen, or one that ships. */
export const stockOf = (settings: Pick<LabelSettings, 'stocks'>, id: string): LabelStock | undefined =>
  settings.stocks.find(s => s.id === id) ?? LABEL_STOCKS.find(s => s.id === id);

/** The setup of a recipe's labels. */
export async function readSetup(call: Call<{ recipeId: string }, unknown, unknown>): Promise<SetupView> {
  return setupOf(call, call.params.recipeId, await readKitchen(call));
}

/** Changes it, unless somebody else did meanwhile. The same sent twice is acknowledged. */
export async function changeSetup(
  call: Call<ParamsOf<typeof changeLabelSetup>, unknown, BodyOf<typeof changeLabelSetup>>,
): Promise<SetupView> {
  const { trx, kitchenId, params, body } = call;
  const recipe = await trx('recipes')
    .where({ kitchen_id: kitchenId, recipe_id: params.recipeId })
    .first('recipe_id');
  if (!recipe) throw notFound('This recipe');
  await checkSetup(call, body.setup);
  if (!(await keepSetup(trx, kitchenId, params.recipeId, body.setup, body.version))) {
    const newer = await readSetup(call);
    if (newer.version === body.version + 1 && canonicalJson(newer.setup) === canonicalJson(body.setup))
      return newer;
    throw stale('these labels', newer);
  }
  return readSetup(call);
}

async function checkSetup(call: Call<unknown, unknown, unknown>, setup: LabelSetup): Promise<void> {
  if (!stockOf(await settingsOf(call), setup.stockId))
    throw problem(422, {
      code: 'unknown-stock',
      what: 'These blank labels are not known.',
      why: 'Their measures are needed.',
      next: 'Choose others, or enter their measures.',
      path: 'setup.stockId',
    });
  const { pictureId } = setup.look;
  if (pictureId !== null && !(await selectPicture(call.trx, call.kitchenId, pictureId)))
    throw problem(422, {
      code: 'unknown-picture',
      what: 'This picture is not kept here.',
      why: 'It is printed on the label.',
      next: 'Choose it again.',
      path: 'setup.look.pictureId',
    });
  const sizes = setup.containers.map(c => c.size);
  if (new Set(sizes).size < sizes.length)
    throw problem(422, {
      code: 'twice',
      what: 'A jar size is measured twice.',
      why: 'One of both would be wrong.',
      next: 'Leave one out.',
      path: 'setup.containers',
    });
}

/** What this kitchen prints labels on. */
export const readSettings = (call: Call<unknown, unknown, unknown>): Promise<SettingsView> =>
  settingsOf(call);

/** Changes it, unless somebody else did meanwhile. The same sent twice is acknowledged. */
export async function changeSettings(
  call: Call<unknown, unknown, BodyOf<typeof changeLabelSettings>>,
): Promise<SettingsView> {
  const { version, ...settings } = call.body;
  const faults = settings.stocks.flatMap((stock, i) => [
    ...stockFaults(stock).map(f => ({ ...f, path: `stocks[${i}].${f.path}` })),
    ...(LABEL_STOCKS.some(s => s.id === stock.id) || settings.stocks.findIndex(s => s.id === stock.id) < i
      ? [
          {
            path: `stocks[${i}].id`,
            code: 'id-taken',
            what: 'Other blank labels have this id.',
            why: 'A print names what it was made on.',
            next: 'Send it under another id.',
          },
        ]
      : []),
  ]);
  if (faults.length > 0) throw new HttpProblem(422, 'impossible-stock', faults);
  if (!(await keepSettings(call.trx, call.kitchenId, settings, version))) {
    const newer = await settingsOf(call);
    const { version: newerVersion, ...there } = newer;
    if (newerVersion === version + 1 && canonicalJson(there) === canonicalJson(settings)) return newer;
    throw stale('these settings', newer);
  }
  return settingsOf(call);
}

const stale = (what: string, newer: unknown) =>
  new HttpProblem(
    409,
    'stale',
    [
      {
        path: '',
        code: 'stale',
        what: `Somebody changed ${what} meanwhile.`,
        why: 'Saving would undo what they did.',
        next: 'Look at both and choose.',
      },
    ],
    newer,
  );

/** A page that shows how far a printer is off. */
export async function checkPage(
  call: Call<ParamsOf<typeof labelCheckPage>, unknown, unknown>,
): Promise<Afterwards<Uint8Array>> {
  const settings = await settingsOf(call);
  const stock = stockOf(settings, call.params.stockId);
  if (!stock) throw notFound('These blank labels');
  const { locale } = await readKitchen(call);
  return new Afterwards(() => heavy('label check page', { stock, offset_mm: settings.offset_mm, locale }));
}
