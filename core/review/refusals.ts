import { PH_LIMIT } from '../acid/index.ts';
import { isLowAcid } from '../ingredients/index.ts';
import { type Figures, numberText } from '../measure/index.ts';
import { knownMasses_g, type Recipe } from '../recipes/index.ts';
import { acidBalance } from './acid-balance.ts';
import { type FoodRefusal, REFUSAL_SOURCE, REFUSALS } from './data/refusals.ts';
import { followedEntry, FREE_BUTTER_G, isCovered, type ReviewFault } from './finding.ts';

/** What is never started: food that boiling water does not make safe, and ways that are no process. */
export function refusals(recipe: Recipe, figures: Figures): ReviewFault[] {
  const out: ReviewFault[] = [];
  const entryId = followedEntry(recipe);
  const covered = (rule: FoodRefusal) =>
    (rule.unlessCovered === true && isCovered(recipe)) ||
    (entryId !== null && (rule.exceptEntries?.includes(entryId) ?? false));
  const refuse = (
    rule: Pick<FoodRefusal, 'code' | 'what' | 'why' | 'next'>,
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
        if (
          (line.where !== 'dip' || rule.evenDipped) &&
          hits(rule, line.name) &&
          !(LETTERS_MAY.has(rule.code) && letterNames(recipe, line.name))
        )
          refuse(rule, line.name || 'a line', line.id);
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
      /modified (?:corn ?)?starch|canning starch|cook-type/i.test(line.name) &&
      !testedFilling(recipe) &&
      !letterNames(recipe, line.name)
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
        why: `Above pH ${numberText(PH_LIMIT, figures)} the spores of botulism grow in a closed jar, and boiling water does not kill them.`,
        next: 'Pickle it by a tested recipe, or freeze it. Pressure canning is not done here.',
      },
      'it',
      null,
    );
  return out;
}

/** What a process authority may have tested where no publication did, by the codes of the refusals. */
const LETTERS_MAY = new Set(['thickener', 'oil', 'nut']);
/** Words that say nothing of what a thing is. */
const NOT_A_NAME = new Set([
  'the',
  'and',
  'with',
  'powder',
  'ground',
  'fine',
  'pure',
  'extra',
  'virgin',
  'light',
]);

/**
 * Whether a letter names a line among what it allows, in its own words: "xanthan gum to 0.3 %". What it says is not in it
 * ("no oil", "without flour") is not named.
 */
function letterNames(recipe: Recipe, name: string): boolean {
  if (recipe.authority.grade !== 'letter') return false;
  const { limits: said, terms } = recipe.authority;
  const limits = ` ${said}. ${terms.thickener}. ${terms.oil} `.toLowerCase();
  const words =
    name
      .toLowerCase()
      .match(/[a-z]{3,}/g)
      ?.filter(w => !NOT_A_NAME.has(w)) ?? [];
  return words.some(
    word =>
      new RegExp(`\\b${word}`).test(limits) &&
      !new RegExp(`\\b(?:no|not|nor|never|without|free of|except|excluding)\\b[^.;]*\\b${word}`).test(limits),
  );
}

const hits = (rule: FoodRefusal, text: string) => {
  const low = text.toLowerCase();
  return rule.pattern.test(low) && !(rule.not?.test(low) ?? false);
};

const testedFilling = (recipe: Recipe) => recipe.product === 'pie filling' && isCovered(recipe);

const fermentOnly = (recipe: Recipe) =>
  recipe.steps.some(s => /\bferment/i.test(s.text)) && acidBalance(recipe).barrier_g === 0;

function lowAcidWithoutAcid(recipe: Recipe): boolean {
  const balance = acidBalance(recipe);
  if (recipe.product === 'sauerkraut' || balance.barrier_g > 0 || balance.lowAcidShare < 0.5) return false;
  // Tomatoes and the like are mended by their dose; fresh juice is told apart below.
  const nearlyAcid = recipe.lines.filter(isLowAcid).every(l => l.role === 'fruit' || /tomat/i.test(l.name));
  return !nearlyAcid && !recipe.lines.some(l => l.role === 'acid');
}
