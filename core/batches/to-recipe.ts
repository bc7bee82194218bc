import { Fraction } from '../measure/index.ts';
import { type JarSizeId, jarSize } from '../jars/index.ts';
import { type Line, type Recipe, stepFrom } from '../recipes/index.ts';
import { withMass } from './at-the-pot.ts';
import { lineMasses } from './masses.ts';
import type { BatchState } from './state.ts';

/**
 * The recipe a batch was: what was weighed is its amounts, what was filled is its yield, what was done are its steps.
 * For a recipe that was cooked first and is written down afterwards; an own one, whose authority is still to be found.
 *
 * @throws RangeError when the batch has not been started
 */
export function recipeFromBatch(state: BatchState): Recipe {
  const { started } = state;
  if (!started) throw new RangeError('recipeFromBatch: the batch has not been started');
  const masses = new Map(lineMasses(state).map(m => [m.line.id, m]));
  const lines = started.recipe.lines.map((line): Line => {
    const mass = masses.get(line.id);
    if (!mass || mass.basis === 'planned') return line;
    return withMass(line, mass.actual_g);
  });
  const sizes = new Map<JarSizeId, number>();
  for (const jar of state.jars)
    if (jar.setAside?.why !== 'part-filled') sizes.set(jar.size, (sizes.get(jar.size) ?? 0) + 1);
  const most = [...sizes].sort((a, b) =>
    jarSize(b[0]).pints.mul(b[1]).compare(jarSize(a[0]).pints.mul(a[1])),
  )[0];
  // Mixed sizes are said in the size that most went into.
  const pints = [...sizes].reduce(
    (sum, [size, count]) => sum.add(jarSize(size).pints.mul(count)),
    new Fraction(0),
  );
  const makes = most
    ? { size: most[0], count: Math.max(1, Number(pints.div(jarSize(most[0]).pints).floor().n)) }
    : started.recipe.makes;
  const hottest = Math.max(
    -Infinity,
    ...state.temperatures.filter(t => t.where === 'pot' && t.part === '').map(t => t.temp_C),
  );
  const notes = state.notes.map(n => n.text).join('\n');
  const named = new Set(started.recipe.steps.flatMap(s => s.adds.map(a => a.lineId)));
  const steps =
    started.recipe.steps.length > 0
      ? started.recipe.steps
      : [
          {
            ...stepFrom('cook', 'cook' as const, 'Cook'),
            target: Number.isFinite(hottest)
              ? { kind: 'temperature' as const, temp_C: Math.round(hottest * 10) / 10, hold_min: 0 }
              : { kind: 'none' as const },
          },
          stepFrom('fill', 'fill', 'Fill hot jars; free bubbles, wipe rims, lids fingertip tight'),
          stepFrom('process', 'process', 'Into the canner; start the clock at the full boil'),
          stepFrom('cool', 'cool', 'Cool 12 to 24 hours out of the draught'),
        ];
  const loose = lines.filter(l => !named.has(l.id)).map(l => ({ lineId: l.id, share: '1' }));
  const first = steps.findIndex(s => s.kind === 'cook' || s.kind === 'prepare');
  return {
    ...started.recipe,
    sketch: false,
    lines,
    makes,
    steps: steps.map((s, i) => (i === Math.max(0, first) ? { ...s, adds: [...s.adds, ...loose] } : s)),
    notes: [started.recipe.notes, notes].filter(Boolean).join('\n').slice(0, 4000),
  };
}
