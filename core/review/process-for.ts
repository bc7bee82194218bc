import { ALTITUDE_LIMIT_M } from '../heat/index.ts';
import type { JarSizeId } from '../jars/index.ts';
import { type Figures, PLAIN_FIGURES } from '../measure/index.ts';
import type { Recipe } from '../recipes/index.ts';
import {
  banded,
  type Basis,
  entryBasis,
  type ProcessAnswer,
  type ProcessRefusal,
  type ProcessSource,
  refusal,
  seaLevelBasis,
  timeFrom,
} from '../times/index.ts';
import { authorityFault } from './authority.ts';

/**
 * Which processing time covers this recipe in this jar at this altitude, or why none does.
 * A jar smaller than every row takes the next size up; a larger one is refused. A recipe that its authority no longer
 * covers, and an own recipe, borrow no time, except a fruit spread of safely acid fruit (the published family time, on
 * solids that are proven when it is cooked).
 *
 * @example
 * processFor(plumJam, 'half-pint', 716).time.minutes; // 15
 * processFor(plumJam, 'half-pint', 4000).ok; // false
 */
export function processFor(
  recipe: Recipe,
  size: JarSizeId,
  altitude_m: number,
  figures: Figures = PLAIN_FIGURES,
): ProcessAnswer {
  if (altitude_m < ALTITUDE_LIMIT_M.min || altitude_m > ALTITUDE_LIMIT_M.max) {
    return refusal(
      'No processing time at this altitude.',
      'The published tables end at 10,000 ft.',
      'Check the altitude of the kitchen, or ask a process authority.',
    );
  }
  const basis = processBasis(recipe, figures);
  if (!basis.ok) return basis;
  return timeFrom(basis, size, altitude_m);
}

/** The rows of minutes that a recipe's authority gives it, or why it gives none. */
export function processBasis(recipe: Recipe, figures: Figures): Basis | ProcessRefusal {
  const fault = authorityFault(recipe, figures);
  if (fault) return refusal(fault.what, fault.why, fault.next);
  const { authority } = recipe;
  if (authority.grade === 'letter') {
    const source: ProcessSource = {
      title: `${authority.demo ? 'DEMO, do not cook from this. ' : ''}Letter of ${authority.authority}`,
      edition: authority.issuedOn,
      part: `reference ${authority.reference}`,
      fromMemory: false,
    };
    const { process } = authority;
    const name = `letter ${authority.reference}`;
    if (process.kind === 'sea level') return seaLevelBasis(process, name, source);
    if (process.kind === 'hot-fill-hold') {
      const held = { minutes: process.hold_min, band: 'every altitude, by temperature' };
      return {
        ok: true,
        method: 'hot-fill-hold',
        rows: process.jarSizes.map(size => ({
          id: `${name}/${size}`,
          jarSize: size,
          at: () => held,
          seaLevel_min: process.hold_min,
        })),
        pack: 'hot',
        headspace_mm: process.headspace_mm,
        fill: { temp_C: process.temp_C, closure: authority.terms.closure },
        source,
      };
    }
    return {
      ok: true,
      method: 'boiling water',
      rows: process.minutes.map(m => banded(`${name}/${m.jarSize}`, m.jarSize, m.byAltitude)),
      pack: process.pack,
      headspace_mm: process.headspace_mm,
      fill: null,
      source,
    };
  }
  if (authority.grade === 'tested publication' && authority.time.kind === 'sea level') {
    const { title, edition, part, fromMemory } = authority;
    return seaLevelBasis(authority.time, title, { title, edition, part, fromMemory });
  }
  const entryId =
    authority.grade === 'tested publication' && authority.time.kind === 'entry'
      ? authority.time.entryId
      : authority.grade === 'own'
        ? (authority.entryId ?? '')
        : '';
  return entryBasis(entryId);
}
