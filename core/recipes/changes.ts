import { PICKLING_STRENGTH_PCT, acidKind } from './acids.ts';
import { jarSize } from './jars.ts';
import { lineMass_g } from './masses.ts';
import type { Line, Method, Recipe, TestedFormula } from './recipe.ts';

/** One difference from the formula an authority covers. */
export interface FormulaChange {
  code: string;
  /** It takes the recipe out of its authority; otherwise it is free. */
  breaks: boolean;
  what: string;
  why: string;
  /** What would bring it back. */
  next: string;
}

/** Shares that differ by less are the same: rounding of spoons, not a change. */
const SAME = 0.01;

type Formula = Pick<TestedFormula, 'product' | 'lines' | 'method' | 'setBy' | 'jarSizes'>;

const nameOf = (l: Line) => l.ingredientId ?? l.name.trim().toLowerCase();

/** Grams of a line as far as it can be weighed alone; a ratio counts as its amount, a dose as for one pint. */
function mass_g(line: Line): number {
  try {
    return lineMass_g(line) * line.keptShare;
  } catch {
    return 0;
  }
}

/** What a recipe is measured against: its fruit and produce. Falls back to everything in it. */
function bulk_g(formula: Formula): number {
  const food = formula.lines
    .filter(l => (l.role === 'fruit' || l.role === 'low-acid produce') && l.where !== 'each jar')
    .reduce((sum, l) => sum + mass_g(l), 0);
  return food > 0 ? food : formula.lines.reduce((sum, l) => sum + mass_g(l), 0) || 1;
}

/** Shares of the bulk by ingredient. */
function sharesOf(formula: Formula): Map<string, { share: number; line: Line }> {
  const bulk = bulk_g(formula);
  const out = new Map<string, { share: number; line: Line }>();
  for (const line of formula.lines) {
    const key = nameOf(line);
    const dose = line.where === 'each jar';
    // A dose follows the jars, so it is compared in grams for a pint, whatever the scale of the pot.
    const share = mass_g(line) / (dose ? 1000 : bulk);
    const before = out.get(key);
    out.set(key, { share: (before?.share ?? 0) + share, line });
  }
  return out;
}

const less = (now: number, then: number) => now < then * (1 - SAME) - 1e-9;
const more = (now: number, then: number) => now > then * (1 + SAME) + 1e-9;
const percent = (x: number) => `${(x * 100).toFixed(x < 0.1 ? 1 : 0)} %`;

/**
 * Every change of ingredient or method from a tested formula, and whether it takes the recipe out of its authority.
 * Scaling the whole is no change. Rules of the trade: dried spices, and salt in a vinegar pickle, are free; sugar is
 * flavour in juice, fruit pack and vinegar pickle, but belongs to a spread; salt in a ferment is the process.
 */
export function changesFrom(tested: Formula, recipe: Formula): FormulaChange[] {
  return [
    ...acidChanges(tested, recipe),
    ...ingredientChanges(tested, recipe),
    ...methodChanges(tested, recipe),
    ...jarChanges(tested, recipe),
  ];
}

/** The formula of a recipe, to take over as tested or to hold against one. */
export function formulaOf(recipe: Recipe): Formula {
  return {
    product: recipe.product,
    lines: recipe.lines,
    method: recipe.method,
    setBy: recipe.setBy,
    jarSizes: recipe.jars.map(j => j.size),
  };
}

const lost = (code: string, what: string, why: string, next: string): FormulaChange => ({
  code,
  breaks: true,
  what,
  why,
  next,
});
const free = (code: string, what: string, why: string): FormulaChange => ({
  code,
  breaks: false,
  what,
  why,
  next: '',
});

interface Acids {
  /** Shares of the bulk; doses in each jar in kilograms for a pint. */
  vinegar: number;
  juice: number;
  citric: number;
  /** The same as bottled lemon juice, by the exchange that is tested for plain tomatoes. */
  asLemon: number;
  /** Least strength asked of a vinegar, percent. */
  strength: number | null;
}

/** A quarter teaspoon of citric acid stands for a tablespoon of bottled lemon juice, by weight. */
const LEMON_FOR_CITRIC = 15.25 / 1.2;

function acidsOf(formula: Formula): Acids {
  const bulk = bulk_g(formula);
  const out: Acids = { vinegar: 0, juice: 0, citric: 0, asLemon: 0, strength: null };
  for (const line of formula.lines) {
    const kind = acidKind(line);
    const share = mass_g(line) / (line.where === 'each jar' ? 1000 : bulk);
    if (kind === 'vinegar') {
      out.vinegar += share;
      out.strength = Math.min(out.strength ?? Infinity, line.minStrength_pct ?? PICKLING_STRENGTH_PCT);
    } else if (kind === 'bottled juice') out.juice += share;
    else if (kind === 'citric acid') out.citric += share;
  }
  out.asLemon = out.juice + out.vinegar / 2 + out.citric * LEMON_FOR_CITRIC;
  return out;
}

/** Plain tomatoes take bottled juice, citric acid or vinegar in each jar, one for another. */
function isPlainTomatoes(formula: Formula): boolean {
  const acids = formula.lines.filter(l => acidKind(l) !== null);
  return (
    ['tomatoes', 'tomato sauce', 'juice'].includes(formula.product) &&
    acids.length > 0 &&
    acids.every(l => l.where === 'each jar')
  );
}

/** Volume for volume is a few percent off by weight: vinegar weighs 1.01, bottled juice 1.03 g a mL. */
const VOLUME_SLACK = 0.03;

function acidChanges(tested: Formula, recipe: Formula): FormulaChange[] {
  const then = acidsOf(tested);
  const now = acidsOf(recipe);
  const out: FormulaChange[] = [];
  const lessAcid = (is: number, was: number) =>
    lost(
      'less-acid',
      `Less acid: ${percent(is / Math.max(was, 1e-12))} of what the tested recipe has for its produce.`,
      'Acid is the barrier that was tested.',
      'Put the acid back, or take out produce in proportion.',
    );
  if (then.strength !== null && now.strength !== null && now.strength < then.strength)
    out.push(
      lost(
        'weaker-vinegar',
        `Vinegar of ${now.strength} % in place of ${then.strength} %.`,
        'Weaker vinegar carries less acid into every piece.',
        `Ask for ${then.strength} % again.`,
      ),
    );
  if (isPlainTomatoes(tested)) {
    if (now.asLemon < then.asLemon * (1 - VOLUME_SLACK) - 1e-9) out.push(lessAcid(now.asLemon, then.asLemon));
    return out;
  }
  const spareJuice = Math.max(0, now.juice - then.juice);
  if (less(now.juice, then.juice))
    out.push(
      more(now.vinegar, then.vinegar)
        ? lost(
            'vinegar-for-juice',
            'Vinegar in place of bottled lemon or lime juice.',
            'Vinegar is the weaker acid; it never takes the place of bottled juice (plain tomatoes excepted).',
            'Put the bottled juice back.',
          )
        : lessAcid(now.juice, then.juice),
    );
  else if (less(now.citric, then.citric)) out.push(lessAcid(now.citric, then.citric));
  else if (less(now.vinegar, then.vinegar)) {
    if (now.vinegar + spareJuice < then.vinegar * (1 - VOLUME_SLACK) - 1e-9)
      out.push(lessAcid(now.vinegar + spareJuice, then.vinegar));
    else
      out.push(
        free(
          'juice-for-vinegar',
          'Bottled juice in place of vinegar, volume for volume.',
          'It is the stronger acid; it tastes sharper.',
        ),
      );
  } else if (more(now.vinegar, then.vinegar) || more(now.juice, then.juice) || more(now.citric, then.citric))
    out.push(free('more-acid', 'More acid than the tested recipe.', 'Safe; it tastes sharper.'));
  return out;
}

/** Half a teaspoon of butter against foam is free, for a pot as tested. */
const FREE_FAT_G = 2.5;

function ingredientChanges(tested: Formula, recipe: Formula): FormulaChange[] {
  const then = sharesOf(tested);
  const now = sharesOf(recipe);
  const out: FormulaChange[] = [];
  const spread = ['jam', 'preserves', 'jelly', 'fruit butter', 'marmalade', 'fruit spread'].includes(
    tested.product,
  );
  const ferment = tested.product === 'sauerkraut';
  for (const key of new Set([...then.keys(), ...now.keys()])) {
    const a = then.get(key);
    const b = now.get(key);
    const line = (b ?? a)?.line as Line;
    const up = more(b?.share ?? 0, a?.share ?? 0);
    const down = less(b?.share ?? 0, a?.share ?? 0);
    if (!up && !down) continue;
    const how = !a ? 'added' : !b ? 'taken out' : up ? 'more' : 'less';
    const what = `${line.name}: ${how === 'more' || how === 'less' ? `${how} of it (${percent((b as { share: number }).share / (a as { share: number }).share)} of what was tested)` : how}.`;
    const back = !a
      ? `Leave out ${line.name.toLowerCase()}.`
      : `Go back to the tested amount of ${line.name.toLowerCase()}.`;
    switch (line.role) {
      case 'spice':
        if (line.freshFactor > 1 || !line.name.toLowerCase().startsWith('fresh'))
          out.push(free('spice', what, 'Dried spices are free.'));
        else out.push(lost('fresh-herb', what, 'Fresh herbs are low-acid produce.', back));
        break;
      case 'salt':
        if (ferment) out.push(lost('salt-in-ferment', what, 'In a ferment the salt is the process.', back));
        else out.push(free('salt', what, 'Salt is flavour here.'));
        break;
      case 'sweetener':
        if (spread)
          out.push(
            lost(
              'sugar-in-spread',
              what,
              'In a spread the sugar sets it, keeps it and gives it its name.',
              back,
            ),
          );
        else out.push(free('sugar', what, 'Sugar is flavour here.'));
        break;
      case 'low-acid produce':
        if (!a)
          out.push(
            lost(
              /herb|dill|basil|cilantro|parsley|mint|garlic|rosemary|thyme|sage|tarragon/i.test(line.name)
                ? 'fresh-herb'
                : 'produce-added',
              what,
              'Low-acid produce dilutes the acid, and nobody has tested the mixture.',
              back,
            ),
          );
        else if (up) out.push(lost('more-low-acid', what, 'More low-acid produce for the same acid.', back));
        else if (b)
          out.push(free('less-low-acid', what, 'Less low-acid produce leaves more acid for the rest.'));
        else
          out.push(
            free('less-low-acid', what, 'Leaving out low-acid produce leaves more acid for the rest.'),
          );
        break;
      case 'fruit':
        out.push(
          lost(
            a ? 'fruit-changed' : 'fruit-added',
            what,
            'The fruit and its share belong to what was tested.',
            back,
          ),
        );
        break;
      case 'water':
        if (up && !spread) out.push(lost('diluted', what, 'Water thins the acid.', back));
        else out.push(free('water', what, 'It boils away, or leaves more acid for the rest.'));
        break;
      case 'set':
        out.push(lost('thickening', what, 'A thickener or another set slows the heat on its way in.', back));
        break;
      case 'fat':
        if (/butter/i.test(line.name) && mass_g(line) <= FREE_FAT_G)
          out.push(
            free(
              'butter',
              what,
              'Half a teaspoon of butter against foam is free; it is an allergen on the label.',
            ),
          );
        else out.push(lost('oil', what, 'Fat shields what is in it from acid and heat.', back));
        break;
      case 'acid':
        // Amounts are judged together, above; a new kind that is none for safety is flavour.
        break;
      case 'other':
        out.push(lost('other', what, 'It is no part of what was tested.', back));
    }
  }
  return out;
}

const METHOD_WORDS: { [K in keyof Method]: [code: string, why: string] } = {
  peel: ['peel', 'Skins carry most of the microbes, and acid enters peeled pieces faster.'],
  cut: [
    'cut',
    'Heat and acid reach the middle of smaller and larger pieces at other times, and a purée holds less acid at its surface.',
  ],
  strain: ['strain', 'What is strained off carries acid and solids with it.'],
  liquid: ['liquid', 'Pieces heat at another pace in another liquid.'],
  pack: ['pack', 'A raw pack goes into the canner colder than a hot one.'],
};

function methodChanges(tested: Formula, recipe: Formula): FormulaChange[] {
  const out: FormulaChange[] = [];
  for (const key of Object.keys(METHOD_WORDS) as (keyof Method)[]) {
    const then = tested.method[key];
    const now = recipe.method[key];
    if (then === now || then === 'either') continue;
    const [code, why] = METHOD_WORDS[key];
    const puree = key === 'cut' && now === 'puréed';
    out.push(
      lost(
        puree ? 'pureed' : code,
        `${key === 'liquid' ? 'Packing liquid' : key === 'pack' ? 'Pack' : sentence(key)}: ${now}, tested ${then}.`,
        why,
        `Go back to ${then}.`,
      ),
    );
  }
  if (tested.product !== recipe.product)
    out.push(
      lost(
        'product',
        `It is now a ${recipe.product}; a ${tested.product} was tested.`,
        'Another product has another process.',
        `Call it ${tested.product} again, or give it its own authority.`,
      ),
    );
  if (tested.setBy !== recipe.setBy)
    out.push(
      lost(
        'thickening',
        `Set by ${recipe.setBy}, tested with ${tested.setBy}.`,
        'Another set changes how heat moves through the jar.',
        `Go back to ${tested.setBy}.`,
      ),
    );
  return out;
}

function jarChanges(tested: Formula, recipe: Formula): FormulaChange[] {
  const largest = tested.jarSizes.map(jarSize).sort((a, b) => b.pints.compare(a.pints))[0];
  if (!largest) return [];
  const over = recipe.jarSizes.map(jarSize).filter(s => s.pints.compare(largest.pints) > 0);
  return over.map(s =>
    lost(
      'larger-jar',
      `${sentence(s.plural)}; the largest jar tested is the ${largest.name}.`,
      'Heat takes longer to reach the middle of a larger jar.',
      `Use ${largest.plural} or smaller.`,
    ),
  );
}

const sentence = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
