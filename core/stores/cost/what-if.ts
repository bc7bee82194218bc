import { Decimal, byName, numberText } from '../../measure/index.ts';
import { mainLine } from '../../recipes/index.ts';
import { type PlanFigures, plannedInput } from './planned.ts';
import { costSheet } from './sheet.ts';

/** One thing turned down and up, and what a jar costs then. */
export interface Swing {
  id: string;
  title: string;
  /** What is turned, in words: "−30 %". */
  lowWords: string;
  highWords: string;
  /** Cost of the jar, decimal text; null where it cannot be turned that way. */
  low: string | null;
  high: string | null;
  /** Largest distance from the cost as planned. */
  spread: number;
}

/** Mean cost of a jar over all sizes, exact. */
export function costPerJar(figures: PlanFigures): Decimal {
  const sheet = costSheet(plannedInput(figures));
  const jars = sheet.bySize.reduce((n, s) => n + s.count, 0);
  const exact = sheet.parts.reduce((sum, p) => sum.plus(p.exact), new Decimal(0));
  return jars > 0 ? exact.div(jars) : new Decimal(0);
}

/** Variations that need the recipe scaled again, made by the caller who has it. */
export interface Rescaled {
  id: string;
  title: string;
  words: string;
  figures: PlanFigures | null;
}

/**
 * What moves the cost of a jar most: each figure turned by itself, the others left as planned.
 *
 * @param rescaled  one load more, a smaller jar: figures scaled for them
 * @returns the swings, the widest first
 */
export function whatIf(
  base: PlanFigures,
  turns: { fruit_pct: number; yield_pct: number; minutes_pct: number; sugar_pct: number },
  rescaled: readonly Rescaled[] = [],
): { cost: string; swings: Swing[] } {
  const cost = costPerJar(base);
  const swings: Swing[] = [];
  const add = (
    id: string,
    title: string,
    lowWords: string,
    highWords: string,
    low: PlanFigures | null,
    high: PlanFigures | null,
  ) => {
    const at = (f: PlanFigures | null) => (f ? costPerJar(f) : null);
    const [l, h] = [at(low), at(high)];
    const spread = Math.max(...[l, h].map(x => (x ? x.minus(cost).abs().toNumber() : 0)));
    swings.push({
      id,
      title,
      lowWords,
      highWords,
      low: l?.toFixed() ?? null,
      high: h?.toFixed() ?? null,
      spread,
    });
  };
  const both = (id: string, title: string, pct: number, turn: (factor: number) => PlanFigures) =>
    add(
      id,
      title,
      `−${numberText(pct, base)} %`,
      `+${numberText(pct, base)} %`,
      turn(1 - pct / 100),
      turn(1 + pct / 100),
    );
  const main = mainLine(base.recipe);
  const price = (lineIds: string[], factor: number): PlanFigures => ({
    ...base,
    priceFactor: {
      ...base.priceFactor,
      ...byName(lineIds.map(id => [id, (base.priceFactor[id] ?? 1) * factor] as const)),
    },
  });
  both('fruit', `Price of ${main.name.toLowerCase()}`, turns.fruit_pct, f => price([main.id], f));
  const sweet = base.recipe.lines.filter(l => l.role === 'sweetener').map(l => l.id);
  if (sweet.length > 0) both('sugar', 'Price of sugar', turns.sugar_pct, f => price(sweet, f));
  both('minutes', 'Attended minutes', turns.minutes_pct, f => ({ ...base, minutes: base.minutes * f }));
  add(
    'yield',
    'Jars that come out',
    `−${numberText(turns.yield_pct, base)} %`,
    '',
    { ...base, yieldShare: base.yieldShare * (1 - turns.yield_pct / 100) },
    null,
  );
  for (const r of rescaled) if (r.figures) add(r.id, r.title, r.words, '', r.figures, null);
  return { cost: cost.toFixed(), swings: swings.toSorted((a, b) => b.spread - a.spread) };
}
