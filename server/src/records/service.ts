import type { Found, ParamsOf, QueryOf, ReplyOf, find, recordSheet } from '@cocotte/contract';
import { scannedLotCode } from '@cocotte/core/labels';
import { rangesText } from '@cocotte/core/measure';
import {
  madeOn,
  personIds,
  readHead,
  rowFrom,
  selectBatches,
  selectEventTexts,
  selectLotCodes,
} from '../batches/queries.ts';
import { heavy } from '../heavy/pool.ts';
import { Afterwards, type Call } from '../house/mount.ts';
import { notFound } from '../house/problems.ts';
import {
  bareCode,
  type BatchEvent,
  lotCodeFits,
  misreadOf,
  readsAsLotCode,
  USUAL_LOT_PATTERN,
} from '@cocotte/core/batches';
import { namesOf } from '../kitchen/outside.ts';
import { picturesOf } from '../kitchen/papers.ts';
import { readKitchen } from '../kitchen/service.ts';
import { settingsOf } from '../labels/setups.ts';
import { contextOf } from '../stores/cost-context.ts';
import { keptSheets } from '../stores/kept-sheets.ts';
import { selectRecipes } from '../recipes/queries.ts';
import { selectLots } from '../stores/queries.ts';

/** Lots that a record drew for nothing: a price of theirs may be to come. */
function freeLotIds(texts: readonly string[]): string[] {
  return texts
    .filter(t => t.includes('"lot.drawn"'))
    .flatMap(t => {
      const event = JSON.parse(t) as BatchEvent;
      return event.type === 'lot.drawn'
        ? event.body.lots.filter(l => Number(l.unitCost) === 0).map(l => l.lotId)
        : [];
    });
}

const EACH = 8;

/** The batch record on paper, drawn once it has been read. */
export async function printRecord(
  call: Call<ParamsOf<typeof recordSheet>, unknown, unknown>,
): Promise<Afterwards<Uint8Array>> {
  const { trx, kitchenId, params, clock } = call;
  const texts = (await selectEventTexts(trx, kitchenId, params.batchId)).map(e => e.text);
  const day = await madeOn(trx, kitchenId, params.batchId);
  if (texts.length === 0 || day === null) throw notFound('This batch');
  const ids = personIds(texts);
  const paper = {
    texts,
    people: await namesOf(trx, ids),
    head: await readHead(trx, kitchenId),
    kitchen: await readKitchen(call),
    context: await contextOf(call, params.batchId, day, ids, freeLotIds(texts)),
    kept: (await keptSheets(trx, kitchenId, [params.batchId])).get(params.batchId) ?? null,
    now_ms: clock.now_ms(),
    pictures: await picturesOf(trx, kitchenId, params.batchId),
  };
  return new Afterwards(() => heavy('record paper', paper));
}

/** What may be a lot code: at least the figures of its day, and little else. */
const MAY_BE_CODE = /^(?=(?:.*\d){4})[A-Za-z0-9 ./-]{6,24}$/;

/**
 * Finds by words over batches, recipes and lots. A lot code, also one that was scanned with what stands around it, leads to its
 * jars; one read with a slip is said to be one.
 */
export async function search(
  call: Call<unknown, QueryOf<typeof find>, unknown>,
): Promise<ReplyOf<typeof find>> {
  const { trx, kitchenId } = call;
  const words = scannedLotCode(call.query.words);
  const codes = MAY_BE_CODE.test(words) ? await selectLotCodes(trx, kitchenId) : [];
  const borne = codes.filter(c => bareCode(c.lotCode) === bareCode(words));
  const batches = (await selectBatches(trx, kitchenId, '', words, '')).batches.slice(0, EACH).map(rowFrom);
  const others = batches.filter(b => !borne.some(c => c.lotCode === b.summary.lotCode));
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
    ...borne.map(c => ({
      kind: 'batch' as const,
      id: c.batchId,
      title: c.lotCode,
      detail: [
        c.name,
        c.load === null ? '' : `load ${c.load}`,
        c.jars.length === 0 ? '' : `jar ${rangesText(c.jars)}`,
      ]
        .filter(t => t !== '')
        .join(', '),
    })),
    ...others.map(b => ({
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
  // A code that is none of ours may be one that was misread: each that one slip leads to is told, with the slip.
  const near = misreadOf(words, batches.length > 0 ? [] : codes.map(c => c.lotCode)).slice(0, EACH);
  found.unshift(
    ...near.map(({ code, said }) => {
      const of = codes.find(c => c.lotCode === code) as (typeof codes)[number];
      return { kind: 'batch' as const, id: of.batchId, title: code, detail: `${of.name}: ${said}` };
    }),
  );
  const settings = await settingsOf(call);
  const reads = [settings.lots, USUAL_LOT_PATTERN].some(p => readsAsLotCode(p, words));
  // The code of a jar in the hand is what was looked for, before whatever begins like it.
  const asked = words.toLowerCase();
  const exact = (f: Found) =>
    f.title.toLowerCase() === asked || (f.kind === 'lot' && f.title.toLowerCase().endsWith(`, lot ${asked}`));
  found.sort((a, b) => Number(exact(b)) - Number(exact(a)));
  return {
    found,
    slip:
      near.length > 0
        ? `No lot has this code. ${near.length === 1 ? 'It may be the one' : 'It may be one of those'} below, misread: hold ${near.length === 1 ? 'it' : 'each'} against the jar.`
        : found.length === 0 && reads && !lotCodeFits(words)
          ? 'The check character does not fit: one character of this lot code was misread or swapped.'
          : '',
  };
}
