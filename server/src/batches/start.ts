import type { BatchView, BodyOf, startBatch } from '@cocotte/contract';
import { PH_LIMIT } from '@cocotte/core/acid';
import type { StartedBody } from '@cocotte/core/batches';
import { boilingPoint_C, gelPoint_C } from '@cocotte/core/heat';
import type { Kitchen } from '@cocotte/core/kitchen';
import { lotCode } from '@cocotte/core/labels';
import { Fraction, dayOf, numberText, yearAndDay } from '@cocotte/core/measure';
import { DEFAULT_HEADSPACE_MM } from '@cocotte/core/balance';
import { forecast } from '@cocotte/core/forecast';
import { JAR_SIZES, jarSize, pintsOf } from '@cocotte/core/jars';
import { type Recipe, factorForJars, planPots, scaleOff } from '@cocotte/core/recipes';
import {
  type Confirmation,
  confirmationOf,
  pageOf,
  processFor,
  purposeFaults,
  routeToSale,
  unprovenFault,
} from '@cocotte/core/review';
import { type ScheduledTime, steamFault } from '@cocotte/core/times';
import { type Call } from '../house/mount.ts';
import { notFound, problem } from '../house/problems.ts';
import { readKitchen } from '../kitchen/service.ts';
import { selectConfirmations } from '../recipes/confirmations.ts';
import { lockRecipe, selectVersion, freezeVersion } from '../recipes/queries.ts';
import { decide, decidedAt_ms } from './decide.ts';
import * as queries from './queries.ts';

/** Starts a batch: everything later figures rest on is looked up now and stored in the event. */
export async function start(call: Call<unknown, unknown, BodyOf<typeof startBatch>>): Promise<BatchView> {
  const { trx, kitchenId, body } = call;
  return decide(call, body.batchId, body.stamp, body, 'batch.started', async () => {
    if (!(await lockRecipe(trx, kitchenId, body.recipeId))) throw notFound('This recipe');
    const version = await selectVersion(trx, kitchenId, body.recipeId, body.recipeVersion);
    if (!version) throw notFound('This version of the recipe');
    const { recipe } = version;
    const kitchen = await readKitchen(call);
    const factor = readFactor(body.factor, recipe, body.jars, kitchen);
    if (!kitchen.placed)
      throw problem(422, {
        code: 'kitchen-not-set-up',
        what: 'Nobody has entered where this kitchen stands.',
        why: 'The processing time follows from its altitude, and the day of the batch from its time zone.',
        next: 'An owner enters both in the settings of the kitchen; then start the batch.',
      });
    const pot = kitchen.pots.find(p => p.id === body.potId) ?? null;
    if (body.potId !== null && !pot)
      throw problem(422, {
        code: 'unknown-pot',
        what: 'That pot is not one of the kitchen.',
        why: 'Its size and its boiling-off rate are needed.',
        next: 'Choose another pot.',
        path: 'potId',
      });
    const sizes = [...new Set(body.jars.filter(j => j.count > 0).map(j => j.size))];
    const confirmed = body.purpose === 'sale' ? await selectConfirmations(trx, kitchenId) : [];
    const madeOn = dayOf(decidedAt_ms(call, body.stamp), kitchen.zone);
    const fault = purposeFaults(recipe, { kitchen, sizes, confirmations: confirmed, today: madeOn })[
      body.purpose
    ];
    if (fault) {
      const { size, ...words } = fault;
      throw problem(422, { ...words, path: size === null ? 'purpose' : `jars.${size}` });
    }
    const route = routeToSale(recipe, kitchen);
    const answers = sizes.map(size => ({
      size,
      answer: processFor(recipe, size, kitchen.altitude_m, kitchen),
    }));
    const times = answers.flatMap(({ answer }) => (answer.ok ? [answer.time] : []));
    // Steam is chosen load by load; a batch that no load of could take is a slip.
    const unfit = body.heat === 'steam' ? times.map(steamFault) : [];
    if (unfit.length > 0 && unfit.every(f => f !== null))
      throw problem(422, {
        code: 'no-steam',
        what: `Steam covers none of these jars here.`,
        why: unfit[0] as string,
        next: 'Process them in boiling water.',
        path: 'heat',
      });
    // An odd jar of any other size that its authority covers may be filled as well: its time stands ready.
    const others = JAR_SIZES.filter(s => !sizes.includes(s.id)).flatMap(({ id }) => {
      const answer = processFor(recipe, id, kitchen.altitude_m, kitchen);
      // What nobody read off the page is no time for a jar that is sold.
      const proven =
        body.purpose !== 'sale' ||
        (answer.ok && unprovenFault(recipe, kitchen, [answer.time], confirmed, madeOn) === null);
      return answer.ok && proven ? [answer.time] : [];
    });
    const plan = recipe.sketch
      ? { pots: 1, each: factor.toFraction(), overridden: false, reasons: [] }
      : planPots(recipe, factor, pot, body.doublePectin);
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
        costs: kitchen.costs,
      },
      boilingPoint_C: boilingPoint_C(kitchen.altitude_m),
      gelPoint_C: gelPoint_C(kitchen.altitude_m, kitchen.thermometerError_C),
      times: [...times, ...others],
      noTime: answers.flatMap(({ size, answer }) =>
        answer.ok ? [] : [{ size, what: answer.what, why: answer.why }],
      ),
      route,
      phLimit: Math.min(
        PH_LIMIT,
        recipe.authority.grade === 'letter' ? recipe.authority.maxPh : PH_LIMIT,
        (body.purpose === 'sale' && kitchen.jurisdiction.rules?.phLimit) || PH_LIMIT,
      ),
      keys: body.purpose === 'sale' ? keysOf(recipe, kitchen, confirmed) : null,
      heat: body.heat,
      pots: { count: plan.pots, each: plan.each, overridden: plan.overridden, reasons: plan.reasons },
      potId: body.potId,
      equipment: {
        pots: kitchen.pots.map(({ id, name }) => ({ id, name })),
        canners: kitchen.canners.map(({ id, name, kind, holds }) => ({ id, name, kind, holds })),
      },
      expected: recipe.sketch ? null : expectedOf(recipe, factor, plan.pots, times, body.jars, kitchen, pot),
    };
  });
}

/** The proof of both keys, as it stood when they were turned. */
function keysOf(recipe: Recipe, kitchen: Kitchen, confirmed: readonly Confirmation[]): StartedBody['keys'] {
  const { rules } = kitchen.jurisdiction;
  if (!rules || recipe.foodClass === 'refused') return null;
  const page = pageOf(recipe, kitchen.altitude_m, kitchen);
  const read = page && confirmationOf(page, confirmed);
  return {
    page: read && {
      subject: read.subject,
      edition: read.edition,
      page: read.page,
      personId: read.personId,
      confirmedAt: read.confirmedAt,
      demo: read.demo,
    },
    place: {
      id: rules.id,
      name: rules.name,
      version: rules.version,
      rule: rules.foods[recipe.foodClass].rule,
    },
  };
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
  const foreseen = forecast(
    recipe,
    factor,
    { ...kitchen, pot, pots, headspace_mm: times[0]?.headspace_mm ?? DEFAULT_HEADSPACE_MM },
    sizes,
  );
  // A pot whose end is judged by eye foretells nothing: then the jars wanted are what is expected.
  const foretells = recipe.packing !== null || (foreseen.waterOff_g > 0 && !foreseen.byEye);
  if (!foretells || foreseen.faults.length > 0) return planned;
  return {
    pints: recipe.packing ? foreseen.made.filling.pints : foreseen.pints.mid,
    final_g: recipe.packing ? null : foreseen.final_g,
    solids_pct: recipe.packing ? null : foreseen.solids_pct,
    cook_min: recipe.packing ? null : foreseen.minutes,
    foreseen: true,
  };
}

/** Largest and smallest scale a batch may have: beyond these a slip is likelier than a plan. */
const FACTOR_LIMITS = { min: 0.05, max: 20 };

function readFactor(
  text: string,
  recipe: Pick<Recipe, 'makes' | 'jars'>,
  jars: BodyOf<typeof startBatch>['jars'],
  kitchen: Kitchen,
): Fraction {
  const n = (value: number) => numberText(value, kitchen);
  let factor: Fraction;
  try {
    factor = new Fraction(text);
    factorForJars(recipe, jars);
  } catch {
    throw problem(422, {
      code: 'bad-scale',
      what: 'The scale is not a number, or no jar is wanted.',
      why: 'Every line follows from it.',
      next: 'Choose how many jars.',
      path: 'factor',
    });
  }
  const missing = jars.find(j => j.count > 0 && !recipe.jars.some(r => r.size === j.size));
  if (missing)
    throw problem(422, {
      code: 'size-not-listed',
      what: `The recipe has no ${jarSize(missing.size).plural}.`,
      why: 'Its net contents and headspace for that size are unknown.',
      next: 'Choose one of its sizes, or add the size to the recipe.',
      path: 'jars',
    });
  if (factor.valueOf() < FACTOR_LIMITS.min || factor.valueOf() > FACTOR_LIMITS.max) {
    throw problem(422, {
      code: 'bad-scale',
      what: `${n(factor.valueOf())} times the recipe is outside ${n(FACTOR_LIMITS.min)} to ${n(FACTOR_LIMITS.max)}.`,
      why: 'A batch that small or large is a slip.',
      next: 'Choose another number of jars.',
      path: 'factor',
    });
  }
  const off = scaleOff(recipe, factor, jars);
  if (off)
    throw problem(422, {
      code: 'scale-off',
      what: `The scale is far ${off} what these jars take.`,
      why: 'Weights, doses and times would be planned for another amount.',
      next: 'Choose the jars for what is cooked, or the scale for the jars.',
      path: 'factor',
    });
  return factor;
}
