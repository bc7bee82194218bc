import { randomInt } from 'node:crypto';
import type {
  BodyOf,
  changeLabelSettings,
  changeLabelSetup,
  labelCheckPage,
  LabelSettings,
  ParamsOf,
  ReplyOf,
} from '@cocotte/contract';
import { type LabelStock, lotPatternFaults, USUAL_LOT_PATTERN } from '@cocotte/core/batches';
import type { Kitchen } from '@cocotte/core/kitchen';
import {
  LABEL_STOCKS,
  type LabelSetup,
  plainSetup,
  readItemNumber,
  stockFaults,
  stockFor,
  wholeItemNumber,
} from '@cocotte/core/labels';
import { canonicalJson, type Fault } from '@cocotte/core/measure';
import { heavy } from '../heavy/pool.ts';
import { Afterwards, type Call } from '../house/mount.ts';
import { HttpProblem, notFound, problem } from '../house/problems.ts';
import { namePage, pageOfKitchen } from '../kitchen/outside.ts';
import { readKitchen } from '../kitchen/service.ts';
import {
  keepSettings,
  keepSetup,
  selectNumbers,
  selectPicture,
  selectSettings,
  selectSetup,
} from './queries.ts';

type SetupView = ReplyOf<typeof changeLabelSetup>;
type SettingsView = ReplyOf<typeof changeLabelSettings>;

/** How labels of a recipe are made, or plainly on the kitchen's paper; where their blank labels are gone, on its paper as well. */
export async function setupOf(
  call: Pick<Call<unknown, unknown, unknown>, 'trx' | 'kitchenId'>,
  recipeId: string,
  kitchen: Pick<Kitchen, 'paper'>,
  settings: Pick<LabelSettings, 'stocks'>,
): Promise<SetupView> {
  const stockId = stockFor(kitchen.paper).id;
  const found = await selectSetup(call.trx, call.kitchenId, recipeId);
  if (!found) return { setup: plainSetup(stockId), version: 0 };
  return stockOf(settings, found.setup.stockId) ? found : { ...found, setup: { ...found.setup, stockId } };
}

/** What the kitchen prints labels on. */
export async function settingsOf(
  call: Pick<Call<unknown, unknown, unknown>, 'trx' | 'kitchenId'>,
): Promise<SettingsView> {
  const found = await selectSettings(call.trx, call.kitchenId);
  const settings = found?.settings ?? BEFORE;
  const named = settings.pagesAt === '' ? null : await pageOfKitchen(call.trx, call.kitchenId);
  return {
    ...settings,
    version: found?.version ?? 0,
    page: named === null ? null : `${settings.pagesAt}/lot/${named}/`,
  };
}
/** What a kitchen has before anybody said otherwise. */
const BEFORE: LabelSettings = {
  stocks: [],
  offset_mm: { x: 0, y: 0 },
  lots: USUAL_LOT_PATTERN,
  pagesAt: '',
};

/** A stock by its id: of the kitchen, or one that ships. */
export const stockOf = (settings: Pick<LabelSettings, 'stocks'>, id: string): LabelStock | undefined =>
  settings.stocks.find(s => s.id === id) ?? LABEL_STOCKS.find(s => s.id === id);

/** The setup of a recipe's labels. */
export async function readSetup(call: Call<{ recipeId: string }, unknown, unknown>): Promise<SetupView> {
  return setupOf(call, call.params.recipeId, await readKitchen(call), await settingsOf(call));
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
  await checkSetup(call, params.recipeId, body.setup);
  if (!(await keepSetup(trx, kitchenId, params.recipeId, body.setup, body.version))) {
    const newer = await readSetup(call);
    if (newer.version === body.version + 1 && canonicalJson(newer.setup) === canonicalJson(body.setup))
      return newer;
    throw stale('these labels', newer);
  }
  return readSetup(call);
}

async function checkSetup(
  call: Call<unknown, unknown, unknown>,
  recipeId: string,
  setup: LabelSetup,
): Promise<void> {
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
  await checkNumbers(call, recipeId, setup);
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

/** A number names one food in one jar: with its check digit, and no other food of the kitchen has it. */
async function checkNumbers(
  call: Call<unknown, unknown, unknown>,
  recipeId: string,
  { numbers }: LabelSetup,
): Promise<void> {
  const others = numbers.length > 0 ? await selectNumbers(call.trx, call.kitchenId, recipeId) : [];
  const faults = numbers.flatMap(({ size, number }, i) => {
    const path = `setup.numbers[${i}].number`;
    const read = readItemNumber(number);
    if (!read.ok) return [{ ...read.fault, path }];
    const whole = wholeItemNumber(number);
    const taken = [...numbers.slice(0, i).map(n => n.number), ...others].map(wholeItemNumber);
    const twice = numbers.findIndex(n => n.size === size) < i;
    return read.number !== number || twice || taken.includes(whole)
      ? [
          {
            path,
            code: read.number === number ? 'number-taken' : 'not-figures',
            what:
              read.number === number
                ? 'Another food or jar of this kitchen has this number.'
                : 'An item number is kept as its figures alone.',
            why: 'A scanner at a till finds the food by this number alone.',
            next: 'Hold both against the papers they were given to you on.',
          },
        ]
      : [];
  });
  if (faults.length > 0) throw new HttpProblem(422, 'item-number', faults);
}

/** What this kitchen prints labels on. */
export const readSettings = (call: Call<unknown, unknown, unknown>): Promise<SettingsView> =>
  settingsOf(call);

/** Letters and figures of the name of a kitchen's pages: none that look like another. */
const PAGE_LETTERS = '23456789ABCDEFGHJKLMNPQRSTUVWXYZ';
const PAGE_LENGTH = 8;
const newPage = () =>
  Array.from({ length: PAGE_LENGTH }, () => PAGE_LETTERS[randomInt(PAGE_LETTERS.length)]).join('');

/** Changes it, unless somebody else did meanwhile. The same sent twice is acknowledged. */
export async function changeSettings(
  call: Call<unknown, unknown, BodyOf<typeof changeLabelSettings>>,
): Promise<SettingsView> {
  const { version, ...body } = call.body;
  const settings = { ...body, pagesAt: body.pagesAt.trim().replace(/\/+$/, '') };
  const before = await settingsOf(call);
  const faults = [
    ...stocksFaults(settings.stocks),
    ...lotPatternFaults(settings.lots).map(f => ({ ...f, path: `lots.${f.path}` })),
    ...pagesFaults(settings.pagesAt),
  ];
  if (faults.length > 0) throw new HttpProblem(422, 'impossible-settings', faults);
  if (settings.pagesAt !== before.pagesAt && call.role !== 'owner')
    throw problem(403, {
      code: 'role',
      what: 'Pages of lots are opened and closed by an owner.',
      why: 'They show the maker and the address to anybody.',
      next: 'Ask an owner of the kitchen.',
      path: 'pagesAt',
    });
  if (!(await keepSettings(call.trx, call.kitchenId, settings, version))) {
    const { version: newer, page: _page, ...there } = before;
    if (newer === version + 1 && canonicalJson(there) === canonicalJson(settings)) return before;
    throw stale('these settings', before);
  }
  if (settings.pagesAt !== '') await namePage(call.trx, call.kitchenId, newPage());
  return settingsOf(call);
}

const stocksFaults = (stocks: readonly LabelStock[]): Fault[] =>
  stocks.flatMap((stock, i) => [
    ...stockFaults(stock).map(f => ({ ...f, path: `stocks[${i}].${f.path}` })),
    ...(LABEL_STOCKS.some(s => s.id === stock.id) || stocks.findIndex(s => s.id === stock.id) < i
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

/** What is wrong with the address of the pages: it is printed on jars, and has to lead here. */
function pagesFaults(at: string): Fault[] {
  if (at === '') return [];
  const url = URL.canParse(at) ? new URL(at) : null;
  if (url && /^https?:$/.test(url.protocol) && url.origin.toLowerCase() === at.toLowerCase()) return [];
  return [
    {
      path: 'pagesAt',
      code: 'no-address',
      what: 'This is no address of a server.',
      why: 'It is printed on jars as a code, and a telephone opens it.',
      next: 'Enter how this server is reached from outside, such as https://jars.example.',
    },
  ];
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
