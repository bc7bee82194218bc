import {
  type Balance,
  type Contents,
  type JarContents,
  type Parts,
  type Process,
  acidIn,
  balance,
  massIn,
  massOf,
  volume_mL,
} from '../balance/index.ts';
import { type BatchState, type LineMass, covered, observed } from '../batches/index.ts';
import { countsAsBarrier } from '../ingredients/index.ts';
import { byName, massText, numberText } from '../measure/index.ts';
import type { Line } from '../recipes/index.ts';
import { ACID_TOLERANCE, type Condition, condition } from './condition.ts';

/** Acid that goes into the pot or the brine; what is dosed by jar is asked of each jar. */
const isPotAcid = (line: Line) => countsAsBarrier(line) && line.where !== 'each jar' && line.where !== 'dip';
const isFood = (line: Line) =>
  (line.role === 'fruit' || line.role === 'low-acid produce') && line.where !== 'dip';

/**
 * Whether what is in the jars holds at least the acid its authority asks for, the tightest jar included, and the brine is
 * as strong as its recipe's. Reckoned from what was weighed, drawn and measured; what was only planned proves nothing.
 */
export function acidConditions(state: BatchState, masses: readonly LineMass[]): Condition[] {
  const asked = covered(state);
  if (!asked.lines.some(l => isPotAcid(l.line) && l.prepared_g > 0)) return [];
  const { kitchen } = state.started as NonNullable<BatchState['started']>;
  const planned = balance(asked);
  const process = cookedAsPlanned(observed(state, masses), planned);
  const made = balance(process);
  const drawn = new Set(state.draws.flatMap(d => d.lots.flatMap(l => l.lineId ?? [])));
  // Food that was drawn by the piece, from a lot nobody weighed, is there; acid counts by its weight alone.
  const proven = ({ line, known, prepared_g }: Process['lines'][number]) =>
    prepared_g > 0 && (known !== 'planned' || (isFood(line) && drawn.has(line.id)));
  const unproven = process.lines
    .filter(l => (isPotAcid(l.line) || isFood(l.line)) && l.line.where !== 'each jar' && !proven(l))
    .map(l => l.line.name);
  const proof = masses.filter(m => isPotAcid(m.line)).flatMap(m => m.by ?? []);
  const n = (value: number, places = 2) => numberText(value, kitchen, places);
  const nothing = `${unproven.join(', ')}: neither weighed nor drawn, and what was only planned proves nothing.`;
  const out: Condition[] = [];

  // Liquid that runs off takes acid along, and leaves the food.
  const drained = state.potTaken.find(t => t.how === 'drained off') ?? null;
  const [there, wanted] = [weakest(process, made), weakest(asked, planned)];
  const enough =
    there !== null &&
    wanted !== null &&
    there.tightest >= wanted.tightest * (1 - ACID_TOLERANCE) &&
    // In a pack the brine in the gaps is all there is; in a pot water may have boiled off the food, and not its share of acid.
    (process.recipe.packing !== null || there.toFood >= wanted.toFood * (1 - ACID_TOLERANCE));
  const tight = (of: { average: number; tightest: number }) =>
    of.tightest < of.average - 0.005
      ? `${n(of.average)} g, ${n(of.tightest)} g in the tightest jar`
      : `${n(of.average)} g`;
  const weakened =
    there && wanted && there.tightest >= wanted.tightest * (1 - ACID_TOLERANCE)
      ? ` For its food it is ${n((there.toFood / wanted.toFood) * 100, 0)} % of what the recipe has.`
      : '';
  out.push(
    condition({
      code: 'acid-share',
      title: 'At least the acid the authority asks for',
      met: enough && unproven.length === 0 && drained === null,
      evidence:
        unproven.length > 0
          ? nothing
          : drained
            ? `${massText(drained.mass_g, kitchen)} of liquid was drained off after the acid had gone in, and took of it along.`
            : there && wanted
              ? `Acetic acid (or as much of another) in 100 g of what is in the jar: ${tight(there)}; by the recipe ${tight(wanted)}.${enough ? '' : weakened}`
              : 'Nothing is known of what is in the jars.',
      why: 'Less acid, or more low-acid food, and the authority no longer covers the batch.',
      next:
        unproven.length > 0
          ? 'Weigh them, or draw the lots they came from.'
          : 'If a weight was entered wrongly, correct it; draw the lots the acid came from. Otherwise the batch stays held: refrigerate it, or use it at home while it is fresh.',
      jars: null,
      against: unproven.length === 0,
      proof,
    }),
  );

  const [strength, askedStrength] = [brineStrength(process, made), brineStrength(asked, planned)];
  if (askedStrength !== null && askedStrength.water_g > 0) {
    const least = askedStrength.in100_g * (1 - ACID_TOLERANCE);
    out.push(
      condition({
        code: 'brine-strength',
        title: 'A brine as strong as the authority asks for',
        met: strength !== null && strength.in100_g >= least && unproven.length === 0,
        evidence:
          unproven.length > 0
            ? nothing
            : `${n(strength?.in100_g ?? 0)} g of acetic acid in 100 g of its acid and water; the recipe has ${n(askedStrength.in100_g)} g.`,
        why: 'A thinner brine carries less acid into every piece.',
        next:
          unproven.length > 0
            ? 'Weigh them, or draw the lots they came from.'
            : 'If a weight was entered wrongly, correct it. Otherwise the batch stays held: refrigerate it, or use it at home while it is fresh.',
        jars: null,
        against: unproven.length === 0,
        proof,
      }),
    );
  }
  return out;
}

/**
 * A pot that was cooked by eye is taken to have lost the share of its volume that the plan loses: more jars than planned
 * are no less acid, and more food is not boiled away in the reckoning.
 */
function cookedAsPlanned(observing: Process, planned: Balance): Process {
  // What a measure is short of may be in the jars all the same: it is no reason to think of less food.
  const process = {
    ...observing,
    measures: byName(
      Object.entries(observing.measures).map(([id, m]) => [id, { ...m, known: 'planned' as const }] as const),
    ),
  };
  const eye = planned.cooks.findLast(c => c.part === '');
  if (!eye?.judged) return process;
  const before = volume_mL(eye.start);
  const by = before === 0 ? 0 : 1 - volume_mL(eye.end) / before;
  return {
    ...process,
    recipe: {
      ...process.recipe,
      steps: process.recipe.steps.map(s =>
        s.id === eye.stepId ? { ...s, target: { kind: 'reduced', by } } : s,
      ),
    },
  };
}

/** Barrier acid of the pot and the brine, as acetic, in what is in a jar. */
function potAcid_g(process: Process, contents: Contents): number {
  return acidIn({ lines: process.lines.filter(l => isPotAcid(l.line)) }, contents).barrier_g;
}

/** The jar that holds least of it: in 100 g, and for a gram of fibre of its food. */
function weakest(
  process: Process,
  made: Balance,
): { average: number; tightest: number; toFood: number } | null {
  // Fibre neither boils off nor drains away, whatever is typed of either; a clear juice has none of it.
  const sum = (contents: Contents, of: (parts: Parts) => number) =>
    process.lines.reduce((all, { line }) => {
      const parts = isFood(line) ? contents.get(line.id) : undefined;
      return all + (parts ? of(parts) : 0);
    }, 0);
  const food_g = (contents: Contents) =>
    sum(contents, p => p.insoluble_g) || sum(contents, p => massOf(p) - p.water_g);
  const of = (jar: JarContents) => {
    const acid_g = potAcid_g(process, jar.each);
    const tight_g = potAcid_g(process, jar.tightest);
    return {
      average: (acid_g / massIn(jar.each)) * 100,
      tightest: (tight_g / massIn(jar.tightest)) * 100,
      toFood: acid_g / (food_g(jar.each) || 1),
    };
  };
  return made.jars
    .map(of)
    .reduce<ReturnType<typeof of> | null>(
      (least, j) => (least && least.tightest <= j.tightest ? least : j),
      null,
    );
}

/** Acid of the brine as it was made, as acetic, in 100 g of its acid and its water. */
function brineStrength(process: Process, made: Balance): { in100_g: number; water_g: number } | null {
  let acid_g = 0;
  let water_g = 0;
  let barrier_g = 0;
  for (const flow of made.flows) {
    if (flow.to !== 'brine' || !flow.from.startsWith('line:')) continue;
    barrier_g += potAcid_g(process, flow.contents);
    for (const [id, parts] of flow.contents) {
      const role = process.lines.find(l => l.line.id === id)?.line.role;
      if (role === 'acid') acid_g += massOf(parts);
      else if (role === 'water') water_g += massOf(parts);
    }
  }
  if (acid_g === 0) return null;
  return { in100_g: (barrier_g / (acid_g + water_g)) * 100, water_g };
}
