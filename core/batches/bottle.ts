import { amountMiddle, numberText, rangesText, UNITS } from '../measure/index.ts';
import { jarSize } from '../jars/index.ts';
import type { Line } from '../recipes/index.ts';
import { lineMass_g } from '../recipes/index.ts';
import { deviation } from './counted.ts';
import type { BatchState, Deviation, JarState } from './state.ts';

/** A spoon is level to about a fifteenth. From memory: measuring spoons and hands differ by so much. */
const SPOON_SHARE = 1 / 15;

/** What one jar of a size is dosed with: grams, and millilitres where it is poured or spooned. */
export function doseOf(line: Line, size: JarState['size']): { g: number; mL: number | null } {
  const pints = jarSize(size).pints;
  const g = lineMass_g(line, pints);
  const unit = UNITS[line.amount.unit];
  if (unit.dimension === 'volume')
    return { g, mL: amountMiddle(line.amount).mul(pints).mul(unit.factor).valueOf() };
  return { g, mL: line.density_gPerMl ? g / line.density_gPerMl : null };
}

/** What left the bottle against the jars that are said to have had it. */
export interface BottleCheck {
  /** Jars dosed, by the record. */
  jars: number[];
  /** What those take together, in the unit that was read. */
  wanted: number;
  left: number;
  unit: 'g' | 'mL';
  /** As many doses as are missing or over, in those of the smallest jar; within a spoon it is none. */
  doses: number;
}

/**
 * Holds what left the bottle against jars times dose: those that had been dosed when it was read, or all of them where
 * none had.
 *
 * @param check  what was read of a line that goes into each jar
 * @returns null where no jar was dosed, or the two cannot be compared
 */
export function bottleCheck(
  lines: readonly Line[],
  jars: readonly JarState[],
  check: BatchState['doseChecks'][number],
): BottleCheck | null {
  const line = lines.find(l => l.id === check.lineId && l.where === 'each jar');
  if (!line) return null;
  const all = jars.filter(j => j.doses[line.id]?.is === 'given' && j.setAside?.why !== 'part-filled');
  const until = all.filter(j => (j.doses[line.id] as { by: { at_ms: number } }).by.at_ms <= check.by.at_ms);
  const dosed = until.length > 0 ? until : all;
  const doses = dosed.map(j => doseOf(line, j.size)[check.unit]);
  if (dosed.length === 0 || doses.some(d => d === null || d <= 0)) return null;
  const each = doses as number[];
  const wanted = each.reduce((sum, d) => sum + d, 0);
  const least = Math.min(...each);
  const off = check.quantity - wanted;
  // Half of the smallest dose tells a jar that had none, unless spoons alone may differ by more.
  const within = Math.max(least / 2, wanted * SPOON_SHARE);
  return {
    jars: dosed.map(j => j.number),
    wanted,
    left: check.quantity,
    unit: check.unit,
    doses: Math.abs(off) <= within ? 0 : Math.sign(off) * Math.max(1, Math.round(Math.abs(off) / least)),
  };
}

/** Acid that should have left its bottle and did not: some jar is without it, and nobody knows which. */
export function bottleDeviations(
  lines: readonly Line[],
  jars: readonly JarState[],
  checks: BatchState['doseChecks'],
): Deviation[] {
  return checks.flatMap(read => {
    const line = lines.find(l => l.id === read.lineId && l.role === 'acid');
    const check = line && bottleCheck(lines, jars, read);
    if (!check || check.doses >= 0) return [];
    const figure = (n: number) =>
      `${numberText(n, { locale: 'en-US' }, check.unit === 'g' ? 1 : 0)} ${check.unit}`;
    const missing = -check.doses;
    return [
      deviation({
        key: `bottle_short:${read.by.eventId}`,
        code: 'bottle_short',
        jars: check.jars,
        what: `${figure(check.left)} of ${line.name} left the bottle, and jars ${rangesText(check.jars)} take ${figure(check.wanted)}: the dose of ${missing === 1 ? 'one jar' : `${missing} jars`} is missing.`,
        next: 'If the bottle was misread, correct that entry. If you know which jar had none, correct its dose to missed. Otherwise read the acidity of every jar in doubt, or set them aside; it is settled with the reason.',
        settles: 'reason',
      }),
    ];
  });
}
