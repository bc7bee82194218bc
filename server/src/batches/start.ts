import type { BatchView, BodyOf, startBatch } from '@cocotte/contract';
import { startedOf } from '@cocotte/core/batches';
import { jarSize } from '@cocotte/core/jars';
import type { Kitchen } from '@cocotte/core/kitchen';
import { Fraction, dayOf, numberText } from '@cocotte/core/measure';
import { type Recipe, factorForJars, scaleOff } from '@cocotte/core/recipes';
import { purposeFaults } from '@cocotte/core/review';
import { steamFault } from '@cocotte/core/times';
import { type Call } from '../house/mount.ts';
import { notFound, problem } from '../house/problems.ts';
import { readKitchen } from '../kitchen/service.ts';
import { settingsOf } from '../labels/setups.ts';
import { selectConfirmations } from '../recipes/confirmations.ts';
import { lockRecipe, selectVersion, freezeVersion } from '../recipes/queries.ts';
import { decide, decidedAt_ms } from './decide.ts';
import { freeLotCode } from './lot-codes.ts';

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
    const { lots: lotPattern } = await settingsOf(call);
    const started = startedOf({
      ...body,
      recipe,
      factor,
      pot,
      lotCode: await freeLotCode(trx, kitchenId, lotPattern, recipe.code, madeOn),
      lotPattern,
      madeOn,
      kitchen,
      confirmations: confirmed,
    });
    // Steam is chosen load by load; a batch that no load of could take is a slip.
    const unfit =
      body.heat === 'steam' ? started.times.filter(t => sizes.includes(t.jarSize)).map(steamFault) : [];
    if (unfit.length > 0 && unfit.every(f => f !== null))
      throw problem(422, {
        code: 'no-steam',
        what: `Steam covers none of these jars here.`,
        why: unfit[0] as string,
        next: 'Process them in boiling water.',
        path: 'heat',
      });
    await freezeVersion(trx, kitchenId, body.recipeId, body.recipeVersion, madeOn);
    return started;
  });
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
