import { acidKind, acidsNamed, isLowAcid } from '../ingredients/index.ts';
import { fillVolume_mL, jarSize } from '../jars/index.ts';
import { type Fault, Fraction, UNITS } from '../measure/index.ts';
import { type LetterProcess, processEntry } from '../times/index.ts';
import { lineMass_g, RatioError, timesOf } from './masses.ts';
import type { Line, Recipe } from './recipe.ts';
import { unboundNames } from './step-text.ts';

const RATIO_WORDS: Record<RatioError['reason'], [what: string, why: string, next: string]> = {
  circular: [
    'The ratio runs in a circle.',
    'Each amount would wait for the other.',
    'Let one of them have an amount of its own.',
  ],
  missing: [
    'The ratio refers to nothing that has an amount.',
    'What it is "for each" of must be another line, or a measuring step with what is expected.',
    'Choose the line or the step, and give that step its expected measure.',
  ],
  units: [
    'The ratio mixes weight with volume.',
    'So many grams for each litre of something weighed cannot be reckoned.',
    'Give both sides as weight or both as volume.',
  ],
};

/**
 * What the dose of one pint weighs; nothing where it cannot be weighed, which is said elsewhere. Held as grams against
 * millilitres: a sprig that stands loose in a cup is no dose of a cup.
 */
function doseOfPint_g(line: Line): number {
  try {
    return lineMass_g(line, new Fraction(1));
  } catch (error) {
    if (error instanceof RangeError) return 0;
    throw error;
  }
}

/**
 * What is wrong with a recipe as it is written, by path, beside what its shape allows. Whether it is safe is the
 * review's to say; this only keeps what cannot be scaled, weighed or cooked.
 *
 * @example
 * recipeFaults(plumJam); // []
 * recipeFaults({ ...plumJam, lines: [] }).length > 0; // true
 */
export function recipeFaults(recipe: Recipe): Fault[] {
  const faults: Fault[] = [];
  const fault = (path: string, code: string, what: string, why: string, next: string) =>
    faults.push({ path, code, what, why, next });
  lineFaults(recipe, fault);
  stepFaults(recipe, fault);
  jarFaults(recipe, fault);
  minuteFaults(recipe, fault);
  return faults;
}

type Say = (path: string, code: string, what: string, why: string, next: string) => void;

function lineFaults(recipe: Recipe, fault: Say): void {
  const ids = new Set<string>();
  const lowAcid = recipe.lines.some(isLowAcid);
  recipe.lines.forEach((line, i) => {
    const at = `lines[${i}]`;
    if (ids.has(line.id))
      fault(
        `${at}.id`,
        'line-twice',
        'Two lines share one id.',
        'A draw or a weight could not tell them apart.',
        'Give each line its own id.',
      );
    ids.add(line.id);
    if (line.name.trim() === '')
      fault(
        `${at}.name`,
        'no-ingredient',
        'The line has no ingredient.',
        'An amount of nothing cannot be bought, weighed or put on a label.',
        'Name the ingredient, or take the line out.',
      );
    weightFault(line, at, fault);
    if (line.amount.toTaste && line.amount.upTo === null && line.where !== 'each jar' && line.role === 'acid')
      fault(
        `${at}.amount`,
        'acid-to-taste',
        `${line.name} "to taste" has no amount.`,
        'A splash of acid must become a dose.',
        'Give a range, as in "2-3 tbsp".',
      );
    if (line.role === 'acid' && acidsNamed(line.name).length > 1)
      fault(
        `${at}.name`,
        'two-acids',
        `${line.name}: two acids in one line.`,
        'They are of unlike strength, and what is drawn or dosed has to be one of them.',
        'Name the one that goes in; the other may be a line or a variant of its own.',
      );
    if (line.where === 'each jar' && doseOfPint_g(line) > fillVolume_mL('pint', 0))
      fault(
        `${at}.amount`,
        'dose-over-jar',
        `${line.name}: that is more than a pint jar holds.`,
        'A line for each jar is the dose of one pint; other sizes follow it.',
        'Enter what goes into one jar, or put the line in the pot.',
      );
    if (line.where === 'each jar' && line.ratio)
      fault(
        `${at}.ratio`,
        'ratio-each-jar',
        'A line for each jar cannot have a ratio as well.',
        'It already follows the jars.',
        'Take out the ratio, or put it in the pot.',
      );
    if (acidKind(line) === 'vinegar' && line.minStrength_pct === null && lowAcid)
      fault(
        `${at}.minStrength_pct`,
        'strength-missing',
        `${line.name} has no least strength.`,
        'Vinegar under 5 % does not make a pickle safe.',
        'Enter 5 or the strength the authority asks for.',
      );
    if (line.ratio) {
      try {
        timesOf(recipe, line, new Fraction(1));
      } catch (error) {
        if (!(error instanceof RangeError)) throw error;
        const words = RATIO_WORDS[error instanceof RatioError ? error.reason : 'units'];
        fault(`${at}.ratio`, `ratio-${error instanceof RatioError ? error.reason : 'units'}`, ...words);
      }
    }
  });
  if (recipe.sketch) return;
  if (recipe.lines.length === 0)
    fault(
      'lines',
      'no-lines',
      'The recipe has no ingredients.',
      'Nothing can be scaled, drawn or labelled.',
      'Add the first line, or cook first and write it down from the batch.',
    );
  if (!recipe.lines.some(l => l.role === 'fruit' || l.role === 'low-acid produce'))
    fault(
      'lines',
      'no-main-line',
      'No line is fruit or produce.',
      'Scaling by what is at hand starts from it.',
      'Set the role of the main ingredient.',
    );
}

function weightFault(line: Line, at: string, fault: Say): void {
  switch (UNITS[line.amount.unit].dimension) {
    case 'volume':
      if (line.density_gPerMl === null)
        fault(
          `${at}.density_gPerMl`,
          'density-missing',
          `${line.name} is measured by volume and has no density.`,
          'Its weight, its cost and its place on the label follow from the density.',
          'Weigh one cup and enter it, or give the amount by weight.',
        );
      break;
    case 'count':
      if (line.each_g === null)
        fault(
          `${at}.each_g`,
          'weight-of-one-missing',
          `${line.name} is counted and has no weight of one.`,
          'Its weight, its cost and its place on the label follow from it.',
          'Weigh one and enter its grams.',
        );
      break;
    case 'produce':
      if (line.bushel_g === null)
        fault(
          `${at}.bushel_g`,
          'bushel-missing',
          `${line.name} is in bushels or pecks and has no bushel weight.`,
          'A bushel is a weight that differs by commodity.',
          'Enter what a bushel of it weighs.',
        );
      break;
    case 'mass':
  }
}

function stepFaults(recipe: Recipe, fault: Say): void {
  const ids = new Set(recipe.lines.map(l => l.id));
  const shares = new Map<string, Fraction>();
  const parts = new Set<string>();
  recipe.steps.forEach((step, i) => {
    const at = `steps[${i}]`;
    for (const { lineId, share } of step.adds) {
      if (!ids.has(lineId))
        fault(
          `${at}.adds`,
          'unknown-line',
          'The step names a line that is not there.',
          'Its ingredient would never be called for.',
          'Choose one of the lines above.',
        );
      shares.set(lineId, (shares.get(lineId) ?? new Fraction(0)).add(new Fraction(share)));
    }
    for (const name of unboundNames(recipe, step))
      fault(
        `${at}.text`,
        'unbound-name',
        `{${name}} is no line of this recipe, or could be several.`,
        'What stands in braces is shown with the amount of its line, and grows with the batch.',
        'Write the name of one line as it stands above, or take the braces away.',
      );
    if (step.window && step.window.to_min < step.window.from_min)
      fault(
        `${at}.window`,
        'window-backwards',
        'The wait ends before it begins.',
        'The rail could not call it.',
        'Put the shorter time first.',
      );
    if (step.separates) parts.add(step.separates.part);
    if (step.part !== '' && !parts.has(step.part))
      fault(
        `${at}.part`,
        'unknown-part',
        `No step before this one sets "${step.part}" aside.`,
        'There is nothing to act on.',
        'Set the part aside in an earlier step.',
      );
  });
  for (const [lineId, share] of shares)
    if (!share.equals(1) && ids.has(lineId)) {
      const line = recipe.lines.find(l => l.id === lineId);
      fault(
        'steps',
        'portions',
        `The steps take ${share.toFraction(true)} of ${line?.name ?? 'a line'}.`,
        'The portions of a line make one whole, or a part of it is forgotten at scale.',
        'Let the portions add up to 1.',
      );
    }
}

function jarFaults(recipe: Recipe, fault: Say): void {
  if (!recipe.jars.some(j => j.size === recipe.makes.size))
    fault(
      'jars',
      'size-missing',
      'The jar size the recipe makes is not among its jars.',
      'Its net contents would be unknown.',
      'Add that size.',
    );
  const heat = heatOf(recipe);
  if (heat?.step.kind === 'hot-fill-hold' && letterClosure(recipe) === '')
    fault(
      'authority.terms.closure',
      'no-closure',
      'A hot fill is held by its closure, and the letter names none here.',
      'Another closure may let air in as it cools.',
      'Enter the closure the letter names.',
    );
  if (recipe.authority.grade === 'letter')
    recipe.authority.terms.lines.forEach(({ lineId, least_pct, most_pct }, i, all) => {
      if (!recipe.lines.some(l => l.id === lineId) || all.findIndex(l => l.lineId === lineId) !== i)
        fault(
          `authority.terms.lines[${i}].lineId`,
          'limit-of-nothing',
          'This limit is of no line of the recipe, or its line has two.',
          'Nobody could hold the recipe against it.',
          'Choose the line it is about, or leave the limit out.',
        );
      else if (least_pct === null && most_pct === null)
        fault(
          `authority.terms.lines[${i}].most_pct`,
          'limit-without-figure',
          'This limit has no figure.',
          'A limit is so much at least, or at most.',
          'Enter one of them, or leave the limit out.',
        );
      else if (least_pct !== null && most_pct !== null && least_pct > most_pct)
        fault(
          `authority.terms.lines[${i}].most_pct`,
          'limit-crossed',
          'The most is less than the least.',
          'Nothing lies between them.',
          'Enter them as the letter has them.',
        );
    });
  const headspace = heat?.step.headspace_mm ?? null;
  if (headspace !== null && !(headspace > 0))
    fault(
      `${heat?.path}.headspace_mm`,
      'headspace',
      'The headspace is not above zero.',
      'A jar filled to the brim pushes its lid off in the canner.',
      'Enter what the authority gives, commonly 1/4 or 1/2 inch.',
    );
  else if (headspace !== null)
    recipe.jars.forEach((jar, i) => {
      if (fillVolume_mL(jar.size, headspace) <= 0)
        fault(
          `jars[${i}].size`,
          'headspace-over-jar',
          `${jarSize(jar.size).name}: the headspace is taller than the jar.`,
          'Nothing would go in.',
          'Check the headspace.',
        );
    });
  const shares = recipe.outlets.reduce((sum, o) => sum + o.share, 0);
  if (shares >= 1)
    fault(
      'outlets',
      'outlets-take-all',
      'The other outlets take everything that is in the pot.',
      'Mass in equals mass out; nothing is left for the jars.',
      'Let their shares stay below 1 together.',
    );
  recipe.outlets.forEach((outlet, i) => {
    if (
      outlet.use === 'jars' &&
      (outlet.jarSize === null || (outlet.entryId !== null && !processEntry(outlet.entryId)))
    )
      fault(
        `outlets[${i}].jarSize`,
        'outlet-jar',
        `${outlet.name} goes into jars and names no jar.`,
        'It has a measure, a process and a lot of its own.',
        'Choose its jar size and its published entry.',
      );
  });
}

const letterClosure = ({ authority }: Recipe) =>
  authority.grade === 'letter' ? authority.terms.closure.trim() : '';

/** The heat step that a recipe's authority states itself, and where it stands; null where a published entry gives it. */
function heatOf({ authority }: Recipe): { path: string; step: LetterProcess } | null {
  if (authority.grade === 'letter') return { path: 'authority.process', step: authority.process };
  return authority.grade === 'tested publication' && authority.time.kind === 'sea level'
    ? { path: 'authority.time', step: authority.time }
    : null;
}

/** Minutes as an authority wrote them, checked for slips: no tested time gets shorter with altitude or in a larger jar. */
function minuteFaults(recipe: Recipe, fault: Say): void {
  const heat = heatOf(recipe);
  if (!heat || heat.step.kind === 'hot-fill-hold') return;
  const rows = heat.step.minutes.map((row, i) => ({
    size: jarSize(row.jarSize),
    bands: 'byAltitude' in row ? row.byAltitude : [{ upTo_ft: null, minutes: row.minutes }],
    path: `${heat.path}.minutes[${i}]`,
  }));
  const seen = new Set<string>();
  for (const { size, bands, path } of rows) {
    if (seen.has(size.id))
      fault(
        path,
        'size-twice',
        `${size.plural} have two rows of minutes.`,
        'Nobody could say which of them holds.',
        'Keep the row the authority gives.',
      );
    seen.add(size.id);
    const tops = bands.map(b => b.upTo_ft ?? Infinity);
    if (tops.some((top, k) => k > 0 && top <= (tops[k - 1] as number)))
      fault(
        path,
        'bands-order',
        `${size.plural}: the altitude bands are out of order.`,
        'A band begins where the one below it ends.',
        'Put the lowest band first, and the one without a top last.',
      );
    if (bands.some((band, k) => k > 0 && band.minutes < (bands[k - 1]?.minutes ?? 0)))
      fault(
        path,
        'minutes-fall',
        `${size.plural}: the minutes get fewer with altitude.`,
        'Water boils colder the higher the kitchen lies, so no tested time gets shorter.',
        'Check the minutes against the letter.',
      );
  }
  const bySize = [...rows].sort((a, b) => a.size.pints.compare(b.size.pints));
  bySize.forEach((row, i) => {
    const smaller = bySize[i - 1];
    const atSeaLevel = (r: typeof row) => r.bands[0]?.minutes ?? 0;
    if (smaller && smaller.size.id !== row.size.id && atSeaLevel(row) < atSeaLevel(smaller))
      fault(
        row.path,
        'larger-shorter',
        `${row.size.plural} have fewer minutes than ${smaller.size.plural}.`,
        'Heat takes longer to reach the middle of a larger jar.',
        'Check the minutes against the letter.',
      );
  });
}
