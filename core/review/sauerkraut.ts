import { type Figures, numberText } from '../measure/index.ts';
import { knownMasses_g, type Line, type Recipe } from '../recipes/index.ts';
import type { ReviewFault } from './finding.ts';

const GUIDE_6 = 'USDA Complete Guide to Home Canning (2015), guide 6 (from memory)';

/** Salt of sauerkraut, percent of the cabbage, and its weeks by temperature in °F. Source: USDA Complete Guide (2015), guide 6; from memory. */
export const SAUERKRAUT = {
  salt_pct: { min: 2.25, max: 2.5 },
  windows: [
    { from_F: 70, to_F: 75, fromWeeks: 3, toWeeks: 4 },
    { from_F: 60, to_F: 65, fromWeeks: 5, toWeeks: 6 },
  ],
} as const;

const MIN_PER_WEEK = 7 * 24 * 60;

/** What keeps a sauerkraut from being the published one: its salt and its weeks. */
export function sauerkrautFaults(recipe: Recipe, figures: Figures): ReviewFault[] {
  const n = (value: number, places?: number) => numberText(value, figures, places);
  const masses = knownMasses_g(recipe);
  const sum = (role: Line['role']) =>
    recipe.lines.filter(l => l.role === role).reduce((total, l) => total + (masses.get(l.id) ?? 0), 0);
  const cabbage = sum('low-acid produce');
  const salt_pct = cabbage === 0 ? 0 : (sum('salt') / cabbage) * 100;
  const out: ReviewFault[] = [];
  const { min, max } = SAUERKRAUT.salt_pct;
  if (salt_pct < min - 0.005 || salt_pct > max + 0.005)
    out.push({
      code: 'kraut-salt',
      level: 'mend',
      lineId: recipe.lines.find(l => l.role === 'salt')?.id ?? null,
      what: `Salt is ${n(salt_pct, 2)} % of the cabbage.`,
      why: `In a ferment the salt is the process: from ${n(min)} to ${n(max)} % lets the right bacteria win.`,
      next: `Use ${n((cabbage * min) / 100, 0)} to ${n((cabbage * max) / 100, 0)} g of salt for this cabbage.`,
      source: GUIDE_6,
    });
  const wait = recipe.steps.find(s => (s.kind === 'rest' || s.kind === 'soak') && s.window);
  const weeks = wait?.window
    ? [wait.window.from_min / MIN_PER_WEEK, wait.window.to_min / MIN_PER_WEEK]
    : null;
  const fits = SAUERKRAUT.windows.some(
    w => weeks && (weeks[0] as number) >= w.fromWeeks - 1e-9 && (weeks[1] as number) <= w.toWeeks + 1e-9,
  );
  if (!fits)
    out.push({
      code: 'kraut-weeks',
      level: 'mend',
      lineId: null,
      what: weeks
        ? `The ferment is set to ${n(weeks[0] as number, 1)} to ${n(weeks[1] as number, 1)} weeks.`
        : 'No step holds the weeks of the ferment.',
      why: 'It takes 3 to 4 weeks at 70 to 75 °F, or 5 to 6 weeks at 60 to 65 °F; below 60 °F it may not ferment, above 75 °F it turns soft.',
      next: 'Give a rest step a window of 3 to 4, or 5 to 6 weeks, and its temperature in words.',
      source: GUIDE_6,
    });
  return out;
}
