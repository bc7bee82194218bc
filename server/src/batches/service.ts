import type {
  BatchView,
  BodyOf,
  FactEntry,
  ParamsOf,
  QueryOf,
  ReplyOf,
  appendFacts,
  drawLots,
  listBatches,
  readBatch,
  readToday,
  reverseDraw,
  startBatch,
} from '@cocotte/contract';
import { PH_LIMIT } from '@cocotte/core/acid';
import {
  type BatchEvent,
  type DrawnLot,
  type SequencedEvent,
  type StartedBody,
  correctedInstant_ms,
  isDecision,
} from '@cocotte/core/batches';
import { boilingPoint_C, gelPoint_C } from '@cocotte/core/heat';
import type { Kitchen } from '@cocotte/core/kitchen';
import { lotCode } from '@cocotte/core/labels';
import { Decimal, type Fault, Fraction, dayOf, yearAndDay } from '@cocotte/core/measure';
import {
  type Recipe,
  type ScheduledTime,
  factorForJars,
  forecastPacked,
  forecastPot,
  jarSize,
  pintsOf,
  planPots,
  processFor,
  reviewFaults,
  routeToSale,
  steamFault,
} from '@cocotte/core/recipes';
import { drawFault } from '@cocotte/core/stores';
import { type Call, JsonText } from '../house/mount.ts';
import { HttpProblem, notFound, problem } from '../house/problems.ts';
import { namesOf } from '../kitchen/outside.ts';
import { readKitchen } from '../kitchen/service.ts';
import { lockRecipe, selectVersion, freezeVersion } from '../recipes/queries.ts';
import { lockLots, move } from '../stores/queries.ts';
import { append, clientHash } from './chain.ts';
import { checkStamp, clash, decide } from './decide.ts';
import * as queries from './queries.ts';

export async function list(
  call: Call<unknown, QueryOf<typeof listBatches>, unknown>,
): Promise<ReplyOf<typeof listBatches>> {
  return queries.selectBatches(
    call.trx,
    call.kitchenId,
    call.query.after,
    call.query.search,
    call.query.stage,
  );
}

/** A batch's record, passed on as it is stored. */
export async function read(
  call: Call<ParamsOf<typeof readBatch>, unknown, unknown>,
): Promise<JsonText<BatchView>> {
  const { trx, kitchenId, params } = call;
  const events = await queries.selectEventTexts(trx, kitchenId, params.batchId);
  if (events.length === 0) throw notFound('This batch');
  const ids = new Set(events.flatMap(e => /"personId":"([0-9a-f-]{36})"/.exec(e.text)?.[1] ?? []));
  const people = await namesOf(trx, [...ids]);
  return new JsonText(
    `{"id":"${params.batchId}","events":[${events.map(e => e.text).join(',')}],"people":${JSON.stringify(people)},"lastSeq":${events.at(-1)?.seq}}`,
  );
}

/** What runs and what is due, over every batch that is not finished. */
export async function today(call: Call<unknown, unknown, unknown>): Promise<ReplyOf<typeof readToday>> {
  const rows = await queries.selectOpen(call.trx, call.kitchenId);
  const batches = rows.slice(0, queries.OPEN_LIMIT);
  const count = (stage: string) => batches.filter(b => b.summary.stage === stage).length;
  return {
    batches,
    more: rows.length > queries.OPEN_LIMIT,
    waiting: {
      cook: count('cooking'),
      check: count('checking'),
      label: batches.filter(b => b.summary.released > b.summary.labelled).length,
    },
  };
}

/** Starts a batch: everything later figures rest on is looked up now and stored in the event. */
export async function start(call: Call<unknown, unknown, BodyOf<typeof startBatch>>): Promise<BatchView> {
  const { trx, kitchenId, body } = call;
  return decide(call, body.batchId, body.stamp, body, 'batch.started', async () => {
    if (!(await lockRecipe(trx, kitchenId, body.recipeId))) throw notFound('This recipe');
    const version = await selectVersion(trx, kitchenId, body.recipeId, body.recipeVersion);
    if (!version) throw notFound('This version of the recipe');
    const { recipe } = version;
    const factor = readFactor(body.factor, recipe, body.jars);
    const kitchen = await readKitchen(call);
    const refusal = reviewFaults(recipe).find(f => f.level === 'refused');
    if (refusal)
      throw problem(
        422,
        'refused-food',
        refusal.what,
        `${refusal.why} ${refusal.source}.`,
        refusal.next,
        'recipeId',
      );
    const pot = kitchen.pots.find(p => p.id === body.potId) ?? null;
    if (body.potId !== null && !pot)
      throw problem(
        422,
        'unknown-pot',
        'That pot is not one of the kitchen.',
        'Its size and its boiling-off rate are needed.',
        'Choose another pot.',
        'potId',
      );
    const route = routeToSale(recipe);
    if (body.purpose === 'sale' && !route.open) {
      throw problem(
        422,
        'no-route',
        route.what,
        route.why,
        route.next || 'Cook it for home, as a gift or as a trial.',
        'purpose',
      );
    }
    const sizes = [...new Set(body.jars.filter(j => j.count > 0).map(j => j.size))];
    const answers = sizes.map(size => ({ size, answer: processFor(recipe, size, kitchen.altitude_m) }));
    const refused: Fault[] = answers.flatMap(({ size, answer }) =>
      answer.ok
        ? []
        : [{ path: `jars.${size}`, code: 'no-time', what: answer.what, why: answer.why, next: answer.next }],
    );
    // A recipe without any time may be cooked as a trial; a jar size outside the recipe's authority may not be cooked at all.
    if (refused.length > 0 && !(body.purpose === 'trial' && !route.open))
      throw new HttpProblem(422, 'no-time', refused);
    const times = answers.flatMap(({ answer }) => (answer.ok ? [answer.time] : []));
    if (body.heat === 'steam')
      for (const time of times) {
        const fault = steamFault(time);
        if (fault)
          throw problem(
            422,
            'no-steam',
            `Steam does not cover ${jarSize(time.jarSize).plural} here.`,
            fault,
            'Process them in boiling water.',
            'heat',
          );
      }
    const plan = recipe.sketch
      ? { pots: 1, each: factor.toFraction(), overridden: false, reasons: [] }
      : planPots(recipe, factor, pot, body.doublePectin);
    const madeOn = dayOf(correctedInstant_ms(body.stamp), kitchen.zone);
    const number = (await queries.countLotCodes(trx, kitchenId, `${recipe.code}-${yearAndDay(madeOn)}-`)) + 1;
    await freezeVersion(trx, kitchenId, body.recipeId, body.recipeVersion, madeOn);
    return {
      recipeId: body.recipeId,
      recipeVersion: body.recipeVersion,
      recipe,
      factor: factor.toFraction(),
      jars: body.jars.filter(j => j.count > 0),
      purpose: body.purpose,
      lotCode: lotCode(recipe.code, madeOn, number),
      madeOn,
      kitchen: {
        name: kitchen.name,
        altitude_m: kitchen.altitude_m,
        zone: kitchen.zone,
        locale: kitchen.locale,
        currency: kitchen.currency,
        hourlyRate: kitchen.hourlyRate,
        thermometerError_C: kitchen.thermometerError_C,
      },
      boilingPoint_C: boilingPoint_C(kitchen.altitude_m),
      gelPoint_C: gelPoint_C(kitchen.altitude_m, kitchen.thermometerError_C),
      times,
      noTime: answers.flatMap(({ size, answer }) =>
        answer.ok ? [] : [{ size, what: answer.what, why: answer.why }],
      ),
      route,
      phLimit: recipe.authority.grade === 'letter' ? Math.min(PH_LIMIT, recipe.authority.maxPh) : PH_LIMIT,
      heat: body.heat,
      pots: { count: plan.pots, each: plan.each, overridden: plan.overridden, reasons: plan.reasons },
      expected: recipe.sketch ? null : expectedOf(recipe, factor, plan.pots, times, body.jars, kitchen, pot),
    };
  });
}

/** What the batch is foreseen to fill: by the forecast of the pot or the pack, else the jars it was scaled for. */
function expectedOf(
  recipe: Recipe,
  factor: Fraction,
  pots: number,
  times: readonly ScheduledTime[],
  jars: BodyOf<typeof startBatch>['jars'],
  kitchen: Kitchen,
  pot: Kitchen['pots'][number] | null,
): StartedBody['expected'] {
  const wanted = jars.filter(j => j.count > 0);
  const sizes = [...new Set(wanted.map(j => j.size))].sort((a, b) =>
    jarSize(b).pints.compare(jarSize(a).pints),
  );
  const first = sizes[0];
  const planned = {
    pints: pintsOf(wanted).valueOf(),
    final_g: null,
    solids_pct: null,
    cook_min: null,
    foreseen: false,
  };
  if (!first) return null;
  const headspace_mm = times[0]?.headspace_mm ?? DEFAULT_HEADSPACE_MM;
  if (recipe.packing) {
    const packed = forecastPacked(recipe, factor, headspace_mm, first, null);
    return { ...planned, pints: pintsOf(packed.jars).valueOf(), foreseen: true };
  }
  const forecast = forecastPot(recipe, factor, pots, { ...kitchen, pot }, headspace_mm, sizes);
  const cooked = forecast.cooks.some(c => c.waterOff_g > 0);
  // A pot whose end is judged by eye foretells nothing: then the jars wanted are what is expected.
  if (!cooked || forecast.faults.length > 0) return planned;
  return {
    pints:
      pintsOf(forecast.jars.jars).valueOf() +
      (forecast.jars.part ? forecast.jars.part.share * jarSize(forecast.jars.part.size).pints.valueOf() : 0),
    final_g: forecast.final_g,
    solids_pct: forecast.solids_pct,
    cook_min: forecast.minutes,
    foreseen: true,
  };
}

/** Half an inch, where no time says otherwise. */
const DEFAULT_HEADSPACE_MM = 12.7;

/** Largest and smallest scale a batch may have: beyond these a slip is likelier than a plan. */
const FACTOR_LIMITS = { min: 0.05, max: 20 };

function readFactor(
  text: string,
  recipe: Pick<Recipe, 'makes' | 'jars'>,
  jars: BodyOf<typeof startBatch>['jars'],
): Fraction {
  let factor: Fraction;
  try {
    factor = new Fraction(text);
    factorForJars(recipe, jars);
  } catch {
    throw problem(
      422,
      'bad-scale',
      'The scale is not a number, or no jar is wanted.',
      'Every line follows from it.',
      'Choose how many jars.',
      'factor',
    );
  }
  const missing = jars.find(j => j.count > 0 && !recipe.jars.some(r => r.size === j.size));
  if (missing)
    throw problem(
      422,
      'size-not-listed',
      `The recipe has no ${jarSize(missing.size).plural}.`,
      'Its net contents and headspace for that size are unknown.',
      'Choose one of its sizes, or add the size to the recipe.',
      'jars',
    );
  if (factor.valueOf() < FACTOR_LIMITS.min || factor.valueOf() > FACTOR_LIMITS.max) {
    throw problem(
      422,
      'bad-scale',
      `${factor.valueOf().toFixed(2)} times the recipe is outside ${FACTOR_LIMITS.min} to ${FACTOR_LIMITS.max}.`,
      'A batch that small or large is a slip.',
      'Choose another number of jars.',
      'factor',
    );
  }
  return factor;
}

/** Stores facts, each once. A fact that breaks a rule is stored all the same and holds its jars. */
export async function appendEntries(
  call: Call<ParamsOf<typeof appendFacts>, unknown, BodyOf<typeof appendFacts>>,
): Promise<ReplyOf<typeof appendFacts>> {
  const { trx, kitchenId, body, params } = call;
  body.events.forEach((event, i) => checkStamp(call, event, `events[${i}]`));
  const head = await queries.lockHead(trx, kitchenId);
  const before = await queries.selectEvents(trx, kitchenId, params.batchId);
  if (before.length === 0) throw notFound('This batch');
  const known = await queries.knownEvents(
    trx,
    kitchenId,
    body.events.map(e => e.id),
  );
  const seqs = new Map<string, number>();
  const fresh: { entry: FactEntry; hash: string }[] = [];
  for (const [i, entry] of body.events.entries()) {
    const hash = clientHash({ batchId: params.batchId, entry });
    const there = known.get(entry.id);
    const twin = fresh.find(f => f.entry.id === entry.id);
    if (there ? there.clientHash !== hash : twin && twin.hash !== hash) throw clash(`events[${i}].id`);
    if (there) seqs.set(entry.id, there.seq);
    else if (!twin) fresh.push({ entry, hash });
  }
  refuseCorrectedDecisions(
    before,
    fresh.map(f => f.entry),
  );
  let lastSeq = head.seq;
  if (fresh.length > 0) {
    const entries = fresh.map(({ entry, hash }) => ({
      event: { ...entry, kitchenId, batchId: params.batchId } as BatchEvent,
      clientHash: hash,
    }));
    const after = await append(trx, kitchenId, params.batchId, head, before, entries, call.clock.now_ms());
    for (const event of after.slice(before.length)) seqs.set(event.id, event.seq);
    lastSeq = (after.at(-1) as SequencedEvent).seq;
  }
  return { accepted: body.events.map(e => ({ id: e.id, seq: seqs.get(e.id) as number })), lastSeq };
}

/** A decision is undone by another decision, never by a correction. */
function refuseCorrectedDecisions(before: readonly SequencedEvent[], entries: FactEntry[]): void {
  const corrections = entries.filter(e => e.type === 'entry.corrected');
  if (corrections.length === 0) return;
  const events = new Map([...before, ...entries].map(e => [e.id, e as Pick<SequencedEvent, 'type'>]));
  for (const correction of corrections) {
    const target = events.get(correction.body.replaces);
    if (target && (isDecision(target.type) || target.type !== correction.body.type)) {
      throw problem(
        422,
        'not-correctable',
        'That entry cannot be corrected this way.',
        isDecision(target.type)
          ? 'It is a decision of the kitchen, not something that was observed.'
          : 'The correction is of another kind than the entry.',
        'Put a draw back, or correct the fact behind it.',
        'events',
      );
    }
  }
}

/** Draws lots: all lines or none, each with the cost and facts it has now, and the movement in the same transaction. */
export async function draw(
  call: Call<ParamsOf<typeof drawLots>, unknown, BodyOf<typeof drawLots>>,
): Promise<BatchView> {
  const { trx, kitchenId, body, params, clock } = call;
  return decide(call, params.batchId, body.stamp, body, 'lot.drawn', async state => {
    const lines = state.started?.recipe.lines ?? [];
    const lots = await lockLots(
      trx,
      kitchenId,
      body.lots.map(l => l.lotId),
    );
    const faults: Fault[] = [];
    const taken = new Map<string, Decimal>();
    const drawn = body.lots.flatMap((wanted, i): DrawnLot[] => {
      const at = `lots[${i}]`;
      const row = lots.get(wanted.lotId);
      if (!row) {
        faults.push({
          path: `${at}.lotId`,
          code: 'unknown-lot',
          what: 'That lot is not in this kitchen.',
          why: 'A jar must be traced to where its contents came from.',
          next: 'Choose a lot, or record the purchase first.',
        });
        return [];
      }
      const line = wanted.lineId === null ? null : (lines.find(l => l.id === wanted.lineId) ?? undefined);
      if (line === undefined) {
        faults.push({
          path: `${at}.lineId`,
          code: 'unknown-line',
          what: 'The recipe of this batch has no such line.',
          why: 'The label follows from what serves which line.',
          next: 'Choose a line of the recipe.',
        });
        return [];
      }
      const { lot, item } = row;
      const left = new Decimal(lot.onHand).minus(taken.get(lot.id) ?? 0);
      const fault = drawFault(item, lot, line, wanted.quantity, left.toFixed());
      if (fault) {
        faults.push({ ...fault, path: `${at}.quantity` });
        return [];
      }
      taken.set(lot.id, (taken.get(lot.id) ?? new Decimal(0)).plus(wanted.quantity));
      return [
        {
          lotId: lot.id,
          itemId: item.id,
          kind: item.kind,
          name: item.name,
          lotLabel: lot.label,
          lineId: wanted.lineId,
          jarSize: item.jarSize,
          quantity: wanted.quantity,
          unit: item.unit,
          unitCost: lot.unitCost,
          mass_g: item.unit_g === null ? null : new Decimal(wanted.quantity).times(item.unit_g).toNumber(),
          labelName: item.labelName,
          subIngredients: item.subIngredients,
          allergens: item.allergens,
        },
      ];
    });
    if (faults.length > 0) throw new HttpProblem(422, faults[0]?.code ?? 'refused', faults);
    await move(
      trx,
      kitchenId,
      drawn.map((d, line) => ({
        lotId: d.lotId,
        quantity: `-${d.quantity}`,
        reason: 'drawn',
        eventId: body.stamp.id,
        line,
      })),
      new Date(clock.now_ms()).toISOString(),
    );
    return { lots: drawn };
  });
}

/** Puts a draw back: a movement the other way for each line, and the reason. */
export async function undraw(
  call: Call<ParamsOf<typeof reverseDraw>, unknown, BodyOf<typeof reverseDraw>>,
): Promise<BatchView> {
  const { trx, kitchenId, body, params, clock } = call;
  return decide(
    call,
    params.batchId,
    body.stamp,
    { ...body, drawId: params.drawId },
    'draw.reversed',
    async state => {
      const target = state.draws.find(d => d.drawId === params.drawId);
      if (!target)
        throw problem(
          422,
          'no-such-draw',
          'That draw is not there, or was put back already.',
          'Stock comes back once.',
          'Look at the batch again.',
          'drawId',
        );
      if (state.releases.length > 0)
        throw problem(
          422,
          'released',
          'Jars of this batch were released on this draw.',
          'Their label and trace rest on it.',
          'Record a note instead.',
          'drawId',
        );
      await lockLots(
        trx,
        kitchenId,
        target.lots.map(l => l.lotId),
      );
      await move(
        trx,
        kitchenId,
        target.lots.map((l, line) => ({
          lotId: l.lotId,
          quantity: l.quantity,
          reason: 'put back',
          eventId: body.stamp.id,
          line,
        })),
        new Date(clock.now_ms()).toISOString(),
      );
      return { drawId: params.drawId, reason: body.reason };
    },
  );
}
