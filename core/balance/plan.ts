import { INVERTED } from '../heat/index.ts';
import { fillVolume_mL, jarSize, type JarSizeId, pintsOf } from '../jars/index.ts';
import type { Pot } from '../kitchen/index.ts';
import { Fraction, UNITS, amountMiddle, byName } from '../measure/index.ts';
import {
  type JarsWanted,
  type Line,
  type Recipe,
  knownMasses_g,
  recipeMasses_g,
  targetAt,
} from '../recipes/index.ts';
import {
  BOIL_OFF,
  BY_EYE,
  CLOTH_SPREAD,
  FILL,
  PACK,
  SALT_UPTAKE,
  SEPARATORS,
  STAYS_IN_POT,
  TRIM_SPREAD,
} from './data/yields.ts';
import type { Known, Process, ProcessLine, Uncertain } from './process.ts';
import { afterSalt } from './soaking.ts';

/** What the kitchen brings to a balance. */
export interface BalanceKitchen {
  altitude_m: number;
  thermometerError_C: number;
  pot: Pot | null;
  pots: number;
  /** Of the jars. */
  headspace_mm: number;
}

/** Half an inch, where no time names a headspace: common practice. */
export const DEFAULT_HEADSPACE_MM = 12.7;

/**
 * A recipe at a scale as a process that can be reckoned.
 *
 * @param masses_g  grams prepared of each line, by id; for lines dosed by jar, in all pints of `pints`
 * @param jars  jars to fill, in any order; a count of 0 lets the pot say how many
 * @param pints  pints that the lines dosed by jar were weighed for
 */
export function processOf(
  recipe: Recipe,
  scale: Fraction,
  masses_g: ReadonlyMap<string, number>,
  jars: readonly JarsWanted[],
  pints: Fraction,
  kitchen: BalanceKitchen,
  known: (lineId: string) => Known = () => 'planned',
): Process {
  const lines = recipe.lines.map((line): ProcessLine => ({
    line,
    prepared_g:
      (masses_g.get(line.id) ?? 0) / (line.where === 'each jar' ? Math.max(pints.valueOf(), 1e-9) : 1),
    known: known(line.id),
  }));
  const { pot } = kitchen;
  return {
    recipe: {
      ...recipe,
      steps: recipe.steps.map(s => ({ ...s, target: targetAt(s.target, scale, kitchen.pots) })),
    },
    lines,
    jars: jars
      .map(({ size, count }) => ({ size, count, fill_mL: fillVolume_mL(size, kitchen.headspace_mm) }))
      .sort((a, b) => jarSize(b.size).pints.compare(jarSize(a.size).pints)),
    pints: pintsOf([recipe.makes]).mul(scale).valueOf(),
    measures: byName(
      recipe.steps.flatMap(s => {
        if (s.kind !== 'measure' || !s.expects) return [];
        const unit = UNITS[s.expects.unit];
        const quantity = amountMiddle(s.expects).mul(unit.factor).mul(scale).valueOf();
        return unit.dimension === 'mass' || unit.dimension === 'volume'
          ? [[s.id, { quantity, unit: unit.dimension === 'mass' ? 'g' : 'mL', known: 'planned' }] as const]
          : [];
      }),
    ),
    kitchen: {
      altitude_m: kitchen.altitude_m,
      thermometerError_C: kitchen.thermometerError_C,
      boilOff_gPerMin: pot?.boilOff_gPerMin ?? null,
      mLPerMm: pot ? (Math.PI * (pot.diameter_mm / 2) ** 2) / 1000 : null,
      pots: kitchen.pots,
    },
    taken: [],
    perPint_g: null,
    uncertain: uncertainOf(recipe, lines),
  };
}

/** A line that is less than so much of everything moves nothing worth a range; nor do more than these together. */
const WORTH = 0.05;
const MOST_RANGES = 3;

function uncertainOf(recipe: Recipe, lines: readonly ProcessLine[]): Uncertain[] {
  const out: Uncertain[] = [];
  const all_g = lines.reduce((sum, l) => sum + (l.line.where === 'each jar' ? 0 : l.prepared_g), 0);
  const heaviest = lines
    .filter(l => l.line.where !== 'each jar' && l.prepared_g >= all_g * WORTH)
    .toSorted((a, b) => b.prepared_g - a.prepared_g)
    .slice(0, MOST_RANGES);
  for (const { line, known } of heaviest) {
    const cut = 1 - line.trimYield;
    if (cut > 0 && known !== 'weighed')
      out.push({
        id: `trim:${line.id}`,
        mid: line.trimYield,
        low: line.trimYield - cut * TRIM_SPREAD,
        high: line.trimYield + cut * TRIM_SPREAD,
      });
    if (line.where === 'strained')
      out.push({ id: `kept:${line.id}`, mid: line.keptShare, ...clothRange(line) });
  }
  const share = (id: string, { share: mid, low, high }: { share: number; low: number; high: number }) =>
    out.push({ id, mid, low, high });
  const has = (kind: Recipe['steps'][number]['kind']) => recipe.steps.some(s => s.kind === kind);
  if (has('soak')) {
    share(
      'after salt',
      afterSalt(recipe.lines.filter(l => l.role === 'fruit' || l.role === 'low-acid produce')),
    );
    share('salt uptake', SALT_UPTAKE);
  }
  if (has('cook')) {
    share('stays', STAYS_IN_POT);
    const targets = new Set(recipe.steps.filter(s => s.kind === 'cook').map(s => s.target.kind));
    if (targets.has('time')) share('boil off', BOIL_OFF);
    if (targets.has('look') || targets.has('none')) share('by eye', BY_EYE);
    if (targets.has('gel point') || targets.has('temperature')) out.push({ id: 'inverted', ...INVERTED });
  }
  share('fill', FILL);
  if (recipe.packing) share('pack', PACK);
  return out;
}

/** The range of the way that lets through what the line says, of those in the list; else what a cloth spreads by. */
function clothRange(line: Line): { low: number; high: number } {
  const way = Object.values(SEPARATORS).find(s => Math.abs(s.share - line.keptShare) < 0.005);
  return (
    way ?? {
      low: line.keptShare * (1 - CLOTH_SPREAD),
      high: Math.min(1, line.keptShare * (1 + CLOTH_SPREAD)),
    }
  );
}

/** Sizes of jars with nothing said of how many: the pot says it. */
export function asManyAsItFills(sizes: readonly JarSizeId[]): JarsWanted[] {
  return sizes.map(size => ({ size, count: 0 }));
}

/**
 * The plan of a recipe: what its amounts come to at a scale.
 *
 * @param factor  exact factor on the recipe as written
 * @param jars  jars to fill; a count of 0 lets the pot say how many ({@link asManyAsItFills})
 * @throws RangeError for a line that cannot be weighed, or a ratio that cannot be reckoned
 */
export function plan(
  recipe: Recipe,
  factor: Fraction,
  jars: readonly JarsWanted[],
  kitchen: BalanceKitchen,
): Process {
  const pints = pintsOf([recipe.makes]).mul(factor);
  return processOf(recipe, factor, recipeMasses_g(recipe, factor, pints), jars, pints, kitchen);
}

/**
 * The plan of a recipe as written, while it is being written: a line that cannot be weighed yet counts nothing, so that
 * the review keeps up with what is typed.
 */
export function asWritten(recipe: Recipe, kitchen: BalanceKitchen): Process {
  const one = new Fraction(1);
  return processOf(recipe, one, knownMasses_g(recipe), [recipe.makes], pintsOf([recipe.makes]), kitchen);
}
