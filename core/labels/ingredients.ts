import { balance, reachedJars_g } from '../balance/index.ts';
import { type BatchState, observed } from '../batches/index.ts';

/** Spices that are named by themselves: vegetables that season, and what colours as well. Source: 21 CFR 101.22(a)(2) (from memory). */
const NAMED_SPICE = /\b(?:onions?|garlic|celery|paprika|turmeric|saffron|annatto|salt|mustard flour)\b/i;

/**
 * The ingredient statement: descending order of weight of what was added and reached the jars (21 CFR 101.4, from memory),
 * like names joined, a compound's own ingredients in brackets after it. Water that boiled off counts with the food it
 * was in; what was poured away, strained off or left in the pot does not.
 *
 * @param groupSpices  spices are told as "spices", where the law lets them be
 */
export function ingredientStatement(state: BatchState, groupSpices = false): string {
  const drawn = new Map(
    state.draws
      .flatMap(d => d.lots)
      .filter(l => l.lineId)
      .map(l => [l.lineId as string, l]),
  );
  const process = observed(state);
  const reached = reachedJars_g(balance(process));
  const mass = new Map<string, number>();
  for (const { line } of process.lines) {
    const there_g = reached.get(line.id) ?? 0;
    // What gave its taste and was lifted out again stands last; a dip, or a soak that is gone, is no ingredient.
    if (there_g <= 0 && line.where !== 'infused') continue;
    const lot = drawn.get(line.id);
    const sub = lot?.subIngredients || line.subIngredients;
    const own = lot?.labelName || line.labelName;
    const grouped = groupSpices && line.role === 'spice' && sub === '' && !NAMED_SPICE.test(own);
    const name = grouped ? 'spices' : own + (sub ? ` (${sub})` : '');
    mass.set(name, (mass.get(name) ?? 0) + there_g);
  }
  return [...mass]
    .sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1))
    .map(([name]) => name)
    .join(', ');
}
