import type {
  BatchView,
  BodyOf,
  ParamsOf,
  ReplyOf,
  labelSheet,
  printLabels,
  printOnRoll,
} from '@cocotte/contract';
import { lotOf, LABEL_READS, type SequencedEvent } from '@cocotte/core/batches';
import { type BatchStanding, assess } from '@cocotte/core/checks';
import { type Kitchen, pictureWords } from '@cocotte/core/kitchen';
import {
  containerOf,
  labelCodes,
  labelPlaceFault,
  type LabelSetup,
  labelContent,
  sameLabel,
} from '@cocotte/core/labels';
import { canonicalJson, dayOf, rangesText } from '@cocotte/core/measure';
import { jarSize } from '@cocotte/core/jars';
import type { LabelStock } from '@cocotte/core/batches';
import { decide, view } from '../batches/decide.ts';
import { selectEvents } from '../batches/queries.ts';
import { heavy } from '../heavy/pool.ts';
import { Afterwards, type Call } from '../house/mount.ts';
import { HttpProblem, notFound, problem } from '../house/problems.ts';
import { print as tellPrinter, printHead } from '../kitchen/instruments.ts';
import { readKitchen } from '../kitchen/service.ts';
import { selectPicture } from './queries.ts';
import { settingsOf, setupOf, stockOf } from './setups.ts';
import { type Print, printFaults } from './print.ts';

type Asked = BodyOf<typeof printLabels>;

/** Labels go on jars that were released, and against which nothing has come up since. */
function refuseHeld({ released }: BatchStanding, jars: readonly number[]): void {
  const held = jars.filter(n => !released.includes(n));
  if (held.length > 0)
    throw problem(422, {
      code: 'not-released',
      what: `Jar ${rangesText(held)} is not released.`,
      why: 'Labels are printed for released jars only.',
      next: 'See at the gate what holds it, or leave it out.',
      path: 'jars',
    });
}

/** The print as the batch stands now, or the refusal: for released jars of one size and one lot only, each once. */
function printOf(
  events: readonly SequencedEvent[],
  kitchen: Kitchen,
  body: Asked,
  setup: LabelSetup,
  { stock, page }: { stock: LabelStock; page: string | null },
  now_ms: number,
): Print & { toRead: boolean } {
  const { state, standing } = assess(events);
  const place = labelPlaceFault(state, kitchen, dayOf(now_ms, kitchen.zone));
  if (place) throw problem(422, { code: 'place', ...place });
  const twice = body.jars.filter((n, i) => body.jars.indexOf(n) < i);
  if (twice.length > 0)
    throw problem(422, {
      code: 'twice',
      what: `Jar ${rangesText(twice)} is named twice.`,
      why: 'One jar gets one label; more of them are spares.',
      next: 'Name it once, and say how many spares there are to be.',
      path: 'jars',
    });
  refuseHeld(standing, body.jars);
  const other = body.jars.filter(n => state.jars.find(j => j.number === n)?.size !== body.size);
  if (other.length > 0) {
    throw problem(422, {
      code: 'other-size',
      what: `Jar ${rangesText(other)} is no ${jarSize(body.size).name}.`,
      why: 'Net contents differ by size.',
      next: 'Print each size by itself.',
      path: 'jars',
    });
  }
  const lots = new Set(body.jars.map(n => lotOf(state, n)?.lotCode));
  if (lots.size > 1)
    throw problem(422, {
      code: 'other-lot',
      what: `These jars are of several lots: ${[...lots].join(', ')}.`,
      why: 'A lot code on a jar leads to the filling it came from.',
      next: 'Print each lot by itself.',
      path: 'jars',
    });
  const each = stock.columns * stock.rows;
  if (body.start >= each)
    throw problem(422, {
      code: 'past-the-sheet',
      what: `A sheet of these has ${each} labels, and ${body.start} are said to be gone.`,
      why: 'The first label has to lie on the sheet.',
      next: 'Count the labels that are gone, from the upper left along each row.',
      path: 'start',
    });
  const words = labelContent(state, kitchen, setup, body.size, body.jars);
  if (!words.ok) throw new HttpProblem(422, 'label-incomplete', words.faults);
  const { design, look } = setup;
  const made = labelCodes(setup, body.size, words.label, page);
  if (!made.ok) throw new HttpProblem(422, 'label-incomplete', made.faults);
  return {
    label: words.label,
    stock,
    size: body.size,
    design,
    look,
    container: containerOf(setup, body.size),
    codes: made.codes,
    start: body.start,
    spares: body.spares,
    toRead: !state.labels.some(l => l.read.length === LABEL_READS.length && sameLabel(l.label, words.label)),
  };
}

/** Decides what is printed on released jars. The words are stored, so that the same sheet can be printed again. */
export async function print(call: Call<ParamsOf<typeof printLabels>, unknown, Asked>): Promise<BatchView> {
  const { body, params } = call;
  const kitchen = await readKitchen(call);
  const settings = await settingsOf(call);
  // Whether the text fits is tried before the kitchen's record is locked. It takes milliseconds, and waits behind no sheet.
  const before = await selectEvents(call.trx, call.kitchenId, params.batchId);
  const recipeId = before.flatMap(e => (e.type === 'batch.started' ? [e.body.recipeId] : []))[0];
  if (recipeId === undefined) throw notFound('This batch');
  const { setup, version } = await setupOf(call, recipeId, kitchen, settings);
  const stock = stockOf(settings, setup.stockId);
  if (!stock)
    throw problem(422, {
      code: 'unknown-stock',
      what: 'These blank labels are not known.',
      why: 'Their measures are needed.',
      next: 'Choose others.',
      path: 'stock',
    });
  const on = { stock, page: settings.page };
  const tried = tryPrint(() => printOf(before, kitchen, body, setup, on, call.clock.now_ms()));
  const faults = tried ? printFaults({ ...tried, others: settings.stocks }) : [];
  return decide(call, params.batchId, body.stamp, body, 'labels.printed', async ({ events }) => {
    const { toRead, ...made } = printOf(events, kitchen, body, setup, on, call.clock.now_ms());
    if (
      version !== body.setupVersion ||
      (tried && canonicalJson([tried.label, tried.codes]) !== canonicalJson([made.label, made.codes]))
    )
      throw problem(409, {
        code: 'batch-changed',
        what: 'The batch or its label changed while it was looked at.',
        why: 'The label must say what is in the jar.',
        next: 'Look at the label again, then print it.',
      });
    if (faults.length > 0) throw new HttpProblem(422, 'does-not-fit', faults);
    const unread = toRead ? LABEL_READS.filter(r => !body.read.includes(r)) : [];
    if (unread.length > 0)
      throw problem(422, {
        code: 'not-read',
        what: `Nobody has read its ${unread.join(', ')} against the batch.`,
        why: 'The first label of a lot is read by a person before more are printed: what is wrong on one is wrong on all.',
        next: 'Hold each against what stands beside it, and tick it.',
        path: 'read',
      });
    return { ...made, jars: [...body.jars].sort((a, b) => a - b), read: body.read };
  });
}

/** What would be printed, or null where that is refused: the decision itself says why, or knows the print already. */
function tryPrint(made: () => ReturnType<typeof printOf>): ReturnType<typeof printOf> | null {
  try {
    return made();
  } catch (error) {
    if (error instanceof HttpProblem) return null;
    throw error;
  }
}

/** A print that was decided, with what it is drawn with; not for jars that are held again since. */
async function decided(
  call: Call<ParamsOf<typeof labelSheet>, unknown, unknown>,
): Promise<Print & { count: number; picture: Uint8Array | null }> {
  const { events } = await view(call, call.params.batchId);
  const { state, standing } = assess(events);
  const printed = state.labels.find(l => l.eventId === call.params.printId);
  if (!printed) throw notFound('This sheet');
  refuseHeld(standing, printed.jars);
  const { eventId: _id, by: _by, read: _read, jars, ...print } = printed;
  const { pictureId } = print.look;
  const picture = pictureId === null ? null : await selectPicture(call.trx, call.kitchenId, pictureId);
  if (pictureId !== null && !picture)
    throw problem(422, {
      code: 'unknown-picture',
      what: 'The picture of this label is no longer kept.',
      why: 'The sheet would not be the one that was decided.',
      next: 'Choose a picture again, and make the labels anew.',
    });
  const faults = printFaults({ ...print, others: [] });
  if (faults.length > 0) throw new HttpProblem(422, 'does-not-fit', faults);
  return { ...print, count: jars.length, picture };
}

/** The sheet of a print that was decided; not for jars that are held again since. */
export async function sheet(
  call: Call<ParamsOf<typeof labelSheet>, unknown, unknown>,
): Promise<Afterwards<Uint8Array>> {
  const print = await decided(call);
  const { offset_mm } = await settingsOf(call);
  return new Afterwards(() => heavy('label sheet', { ...print, offset_mm }));
}

/** Prints it label by label on a roll; the printer is spoken to once nothing is held any more. */
export async function roll(
  call: Call<ParamsOf<typeof printOnRoll>, unknown, BodyOf<typeof printOnRoll>>,
): Promise<Afterwards<ReplyOf<typeof printOnRoll>>> {
  const sheet = await decided(call);
  const { printerId } = call.body;
  if (sheet.stock.form !== 'roll')
    throw problem(422, {
      code: 'no-roll',
      what: `"${sheet.stock.name}" is no roll.`,
      why: 'A label printer prints one label after the other.',
      next: 'Open the sheet and print it on paper, or choose a roll and make the labels anew.',
    });
  return new Afterwards(async () => {
    const head = printHead(printerId);
    if (!head) throw notPrinted('it is not there, or prints words alone', 0);
    const pictures = await heavy('label pictures', { ...sheet, dots_per_mm: head.dots_per_mm });
    const wide = pictures.find(p => p.across > head.across);
    if (wide) throw notPrinted(`the label is ${wide.across} dots wide, and its head ${head.across}`, 0);
    const copies = sheet.count + sheet.spares;
    let printed = 0;
    for (const picture of pictures) {
      // oxlint-disable-next-line no-await-in-loop -- one after the other, as they come off the roll
      const why = await tellPrinter(printerId, pictureWords(picture, copies));
      if (why !== '') throw notPrinted(why, printed);
      printed += copies;
    }
    return { printed };
  });
}

const notPrinted = (why: string, printed: number) =>
  problem(422, {
    code: 'not-printed',
    what:
      printed === 0
        ? `The label printer printed nothing: ${why}.`
        : `The label printer printed ${printed} labels and stopped: ${why}.`,
    why: 'Labels that are counted have to be there.',
    next: 'Look after it and print again, or open the sheet as PDF.',
    path: 'printerId',
  });
