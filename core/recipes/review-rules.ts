import { Fraction, UNITS, amountMiddle, kitchenVolume } from '../measure/index.ts';
import { PICKLING_STRENGTH_PCT, acidKind, countsAsBarrier, replaceAcid } from './acids.ts';
import { REFUSALS, REFUSAL_SOURCE, type Refusal } from './data/refusals.ts';
import { acidBalance, isLowAcid, isLowAcidByLibrary } from './acid-balance.ts';
import { knownMasses_g } from './masses.ts';
import { sauerkrautFaults } from './sauerkraut.ts';
import { processEntry } from './process-entry.ts';
import type { FoodClass, Line, Recipe } from './recipe.ts';

/** What the review finds. `refused`: never started. `mend`: not for sale until mended. `note`: worth knowing. */
export interface ReviewFault {
  code: string;
  level: 'refused' | 'mend' | 'note';
  /** The line it is about, or null for the whole. */
  lineId: string | null;
  what: string;
  why: string;
  next: string;
  source: string;
}

const SPREADS: readonly Recipe['product'][] = [
  'jam',
  'preserves',
  'jelly',
  'fruit butter',
  'marmalade',
  'fruit spread',
];
const GUIDE = (n: number) => `USDA Complete Guide to Home Canning (2015), guide ${n} (from memory)`;

/** The class a recipe falls in by what is in it. The server keeps it with the recipe. */
export function classOf(recipe: Recipe): FoodClass {
  if (refusals(recipe).length > 0) return 'refused';
  if (recipe.product === 'sauerkraut') return 'fermented food';
  if (recipe.lines.some(l => l.where !== 'dip' && isLowAcid(l))) return 'acidified food';
  return SPREADS.includes(recipe.product) ? 'fruit spread' : 'acid food';
}

/**
 * Everything the review finds in a recipe: first what refuses it, then what has to be mended before sale, then notes.
 * The rules are common practice of the trade; each finding names its source.
 */
export function reviewFaults(recipe: Recipe): ReviewFault[] {
  const refused = refusals(recipe);
  return [...refused, ...mends(recipe), ...notes(recipe)];
}

function refusals(recipe: Recipe): ReviewFault[] {
  const out: ReviewFault[] = [];
  const entryId = followedEntry(recipe);
  const covered = (rule: Refusal) => entryId !== null && (rule.exceptEntries?.includes(entryId) ?? false);
  const refuse = (
    rule: Pick<Refusal, 'code' | 'what' | 'why' | 'next'>,
    who: string,
    lineId: string | null,
  ) =>
    out.push({
      code: rule.code,
      level: 'refused',
      lineId,
      what: `Refused: ${who} ${rule.what}.`,
      why: rule.why,
      next: rule.next,
      source: REFUSAL_SOURCE,
    });
  const hotFill = recipe.authority.grade === 'letter' && recipe.authority.process.kind === 'hot-fill-hold';
  for (const rule of REFUSALS) {
    if (covered(rule) || (rule.products && !rule.products.includes(recipe.product))) continue;
    if (rule.code === 'open-kettle' && hotFill) continue;
    if (rule.in === 'line') {
      for (const line of recipe.lines)
        if (line.where !== 'dip' && hits(rule, line.name)) refuse(rule, line.name || 'a line', line.id);
    } else {
      const text =
        rule.in === 'name'
          ? `${recipe.name} ${recipe.statementOfIdentity}`
          : [...recipe.steps.map(s => s.text), recipe.notes].join(' ');
      if (hits(rule, text)) refuse(rule, 'it', null);
    }
  }
  const butter = recipe.lines.filter(l => l.role === 'fat' && /\bbutter\b|margarine|lard/i.test(l.name));
  const masses = knownMasses_g(recipe);
  if (butter.reduce((sum, l) => sum + (masses.get(l.id) ?? 0), 0) > FREE_BUTTER_G)
    refuse(
      {
        code: 'butter',
        what: 'holds more butter than the half teaspoon that settles foam',
        why: 'Fat shields what is in it from acid and heat, and turns rancid.',
        next: 'Use half a teaspoon at most, or skim the foam.',
      },
      butter.map(l => l.name).join(', '),
      butter[0]?.id ?? null,
    );
  for (const line of recipe.lines)
    if (
      line.role === 'set' &&
      /modified starch|clear ?jel|cook-type/i.test(line.name) &&
      !testedFilling(recipe)
    )
      refuse(
        {
          code: 'starch',
          what: 'is modified starch outside a tested pie filling',
          why: 'Its tested amount is what lets the heat through.',
          next: 'Follow a tested pie filling unchanged, or can it thin and thicken on opening.',
        },
        line.name,
        line.id,
      );
  if (recipe.product === 'sauerkraut' ? !entryId?.startsWith('sauerkraut') : fermentOnly(recipe))
    refuse(
      {
        code: 'ferment',
        what: 'rests on fermentation alone',
        why: 'Salt, temperature and weeks have to be right before lactic acid is a barrier.',
        next: 'Follow the published sauerkraut entry, with its salt, temperature and weeks.',
      },
      'it',
      null,
    );
  else if (lowAcidWithoutAcid(recipe))
    refuse(
      {
        code: 'low-acid',
        what: 'is low-acid food without acid',
        why: 'Above pH 4.6 the spores of botulism grow in a closed jar, and boiling water does not kill them.',
        next: 'Pickle it by a tested recipe, or freeze it. Pressure canning is not done here.',
      },
      'it',
      null,
    );
  return out;
}

const hits = (rule: Refusal, text: string) => {
  const low = text.toLowerCase();
  return rule.pattern.test(low) && !(rule.not?.test(low) ?? false);
};

/** Half a teaspoon, by weight. */
const FREE_BUTTER_G = 2.5;

/** The published entry a tested recipe follows. */
function followedEntry(recipe: Recipe): string | null {
  const { authority } = recipe;
  return authority.grade === 'tested publication' && authority.time.kind === 'entry'
    ? authority.time.entryId
    : null;
}

const testedFilling = (recipe: Recipe) =>
  recipe.product === 'pie filling' &&
  (recipe.authority.grade === 'tested publication' || recipe.authority.grade === 'letter');

const fermentOnly = (recipe: Recipe) =>
  recipe.steps.some(s => /\bferment/i.test(s.text)) && acidBalance(recipe).barrier_g === 0;

function lowAcidWithoutAcid(recipe: Recipe): boolean {
  const balance = acidBalance(recipe);
  if (recipe.product === 'sauerkraut' || balance.barrier_g > 0 || balance.lowAcidShare < 0.5) return false;
  // Tomatoes and the like are mended by their dose; fresh juice is told apart below.
  const nearlyAcid = recipe.lines.filter(isLowAcid).every(l => l.role === 'fruit' || /tomat/i.test(l.name));
  return !nearlyAcid && !recipe.lines.some(l => l.role === 'acid');
}

function mends(recipe: Recipe): ReviewFault[] {
  const out: ReviewFault[] = [];
  const mend = (
    code: string,
    lineId: string | null,
    what: string,
    why: string,
    next: string,
    source: string,
  ) => out.push({ code, level: 'mend', lineId, what, why, next, source });
  const barrier =
    recipe.lines.some(l => l.where !== 'dip' && isLowAcid(l)) && recipe.product !== 'sauerkraut';
  if (barrier) {
    const counts = recipe.lines.some(countsAsBarrier);
    for (const line of recipe.lines) {
      const kind = acidKind(line);
      if (kind === 'vinegar' && line.minStrength_pct !== null && line.minStrength_pct < PICKLING_STRENGTH_PCT)
        mend(
          'weak-vinegar',
          line.id,
          `${line.name}: ${line.minStrength_pct} % acid.`,
          `Recipes are tested with vinegar of ${PICKLING_STRENGTH_PCT} % or more; a weaker one carries less acid into every piece.`,
          `Ask for ${PICKLING_STRENGTH_PCT} %.`,
          GUIDE(6),
        );
      if (kind === 'unlabelled vinegar')
        mend(
          'unlabelled-vinegar',
          line.id,
          `${line.name}: its strength is unknown.`,
          'Home-made or unlabelled vinegar is for flavour only.',
          'Use labelled vinegar of 5 % or more.',
          GUIDE(6),
        );
      if (kind === 'fresh juice' && !counts)
        mend(
          'fresh-juice',
          line.id,
          `${line.name}: fresh juice is the only acid here.`,
          'Fresh lemons differ in acid by half; where acid is the barrier only bottled juice, citric acid or labelled vinegar counts.',
          'Use bottled juice in the same amount.',
          GUIDE(3),
        );
    }
    const dose = doseFault(recipe);
    if (dose) out.push(dose);
  }
  if (
    recipe.product === 'pickle' ||
    recipe.product === 'sauerkraut' ||
    recipe.method.liquid.endsWith('brine')
  )
    for (const line of recipe.lines)
      if (line.role === 'salt' && /iodi[sz]ed|table salt|anti-?caking|low-?sodium salt/i.test(line.name))
        mend(
          'cloudy-salt',
          line.id,
          `${line.name}: iodised salt or salt with anti-caking is refused for brines.`,
          'Its additives cloud the brine and can darken what is in it, and a cloudy brine hides spoilage.',
          'Use canning or pickling salt, by weight.',
          GUIDE(6),
        );
  if (recipe.product === 'sauerkraut') out.push(...sauerkrautFaults(recipe));
  return out;
}

/** The acid each jar needs by the entry a recipe follows, held against what its lines give, in grams of citric acid a pint. */
function doseFault(recipe: Recipe): ReviewFault | null {
  const entryId = followedEntry(recipe);
  const asked = entryId === null ? null : processEntry(entryId)?.acidInEachPint;
  if (!asked) return null;
  let share = 0;
  for (const line of recipe.lines) {
    const kind = acidKind(line);
    if (!kind || line.where !== 'each jar' || line.ratio) continue;
    const unit = UNITS[line.amount.unit];
    if (unit.dimension !== 'volume') continue;
    const mL = new Fraction(line.amount.value).mul(unit.factor).valueOf();
    const tbsp = mL / UNITS.tbsp.factor.valueOf();
    if (kind === 'bottled juice') share += tbsp / asked.bottledLemon_tbsp;
    else if (kind === 'citric acid') share += (tbsp * 3) / asked.citricAcid_tsp;
    else if (kind === 'vinegar' && asked.vinegar_tbsp !== null) share += tbsp / asked.vinegar_tbsp;
  }
  if (share >= 1 - 1e-9) return null;
  const vinegar = asked.vinegar_tbsp === null ? '' : `, or ${asked.vinegar_tbsp} tablespoons of 5 % vinegar`;
  return {
    code: 'acid-each-jar',
    level: 'mend',
    lineId: null,
    what:
      share === 0
        ? 'No acid goes into each jar.'
        : `Each jar gets ${(share * 100).toFixed(0)} % of the acid its entry asks for.`,
    why: 'Tomatoes, figs and the like lie about 4.6 and may lie above; the dose in each jar makes sure of it.',
    next: `Add to each pint ${asked.bottledLemon_tbsp} tablespoon of bottled lemon juice, or ${asked.citricAcid_tsp} teaspoon of citric acid${vinegar}; other jars in proportion.`,
    source: processEntry(entryId as string)?.source.part ?? '',
  };
}

const followedDose = (recipe: Recipe): boolean => {
  const entryId = followedEntry(recipe);
  return entryId !== null && (processEntry(entryId)?.acidInEachPint ?? null) !== null;
};

/** What may stand in for the dose of a line in each jar of plain tomatoes, in kitchen measures for a pint. */
function equivalents(line: Line): string {
  const kind = acidKind(line);
  const unit = UNITS[line.amount.unit];
  if (
    unit.dimension !== 'volume' ||
    (kind !== 'vinegar' && kind !== 'bottled juice' && kind !== 'citric acid')
  )
    return '';
  const mL = amountMiddle(line.amount).mul(unit.factor).valueOf();
  const others = (['bottled juice', 'citric acid', 'vinegar'] as const).filter(k => k !== kind);
  return others
    .map(other => {
      const answer = replaceAcid(kind, other, mL, true);
      return answer.ok
        ? `${kitchenVolume(answer.volume_mL).text} of ${other === 'bottled juice' ? 'bottled lemon juice' : other === 'vinegar' ? '5 % vinegar' : 'citric acid'}`
        : '';
    })
    .filter(Boolean)
    .join(' or ')
    .concat(' may take its place in a pint');
}

function notes(recipe: Recipe): ReviewFault[] {
  const out: ReviewFault[] = [];
  const note = (code: string, lineId: string | null, what: string, why: string, source: string) =>
    out.push({ code, level: 'note', lineId, what, why, next: '', source });
  for (const line of recipe.lines) {
    if (line.where === 'dip') continue;
    if (line.role === 'fruit' && !line.safelyAcid)
      note(
        'unsafe-fruit',
        line.id,
        `${line.name}: not safely acid by itself.`,
        'Figs, Asian pears, white peaches, elderberries, ripe mango, papaya, banana, melon, persimmon, dates, coconut and tomatoes may lie above 4.6.',
        'FDA, Approximate pH of Foods (from memory)',
      );
    if (
      isLowAcidByLibrary(line) &&
      !(line.role === 'low-acid produce' || (line.role === 'fruit' && !line.safelyAcid))
    )
      note(
        'low-acid-by-library',
        line.id,
        `${line.name}: low-acid by the library, whatever its role says here.`,
        'It counts as low-acid produce in this review.',
        'FDA, Approximate pH of Foods (from memory)',
      );
    if (line.freshFactor > 1 && isLowAcid(line))
      note(
        'dried-as-fresh',
        line.id,
        `${line.name}: counts as ${line.freshFactor} times its weight of fresh produce.`,
        'Dried produce takes up water in the jar and is low in acid again.',
        'Common practice',
      );
    if (acidKind(line) === 'fresh juice' && !recipe.lines.some(isLowAcid))
      note(
        'fresh-juice-flavour',
        line.id,
        `${line.name}: for set and taste.`,
        'Fine in fruit that is acid by itself; it does not count as a barrier.',
        'Common practice',
      );
    const kind = acidKind(line);
    if ((kind === 'vinegar' || kind === 'bottled juice') && recipe.lines.some(isLowAcid)) {
      const plain = line.where === 'each jar' && followedDose(recipe);
      note(
        'acid-equivalent',
        line.id,
        `${line.name}: ${plain ? equivalents(line) : kind === 'vinegar' ? 'bottled lemon or lime juice may take its place, volume for volume; never the other way' : 'vinegar may not take its place'}.`,
        plain ? 'Plain tomatoes take any of the three in each jar.' : 'Vinegar is the weaker acid.',
        plain ? GUIDE(3) : GUIDE(6),
      );
    }
    if (line.role === 'sweetener' && /brown|molasses|muscovado/i.test(line.name))
      note(
        'colour',
        line.id,
        `${line.name}: darkens the colour.`,
        'A variant, not a fault.',
        'Common practice',
      );
    if (
      line.role === 'spice' &&
      /\bground\b|powder/i.test(line.name) &&
      recipe.method.liquid === 'vinegar brine'
    )
      note(
        'cloud',
        line.id,
        `${line.name}: clouds the brine.`,
        'Whole spice keeps it clear.',
        'Common practice',
      );
    if (line.role === 'fat')
      note(
        'butter-allergen',
        line.id,
        `${line.name}: an allergen on the label.`,
        'Milk is a major allergen.',
        'FALCPA (from memory)',
      );
  }
  return out;
}
