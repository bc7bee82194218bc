import { byName } from '../measure/index.ts';
import type { Method, Product } from '../times/index.ts';
import { type FoodClass, type Line, noTerms, type Recipe, type Step } from './recipe.ts';

/**
 * Reads a recipe of any shape there ever was. Batches hold the recipe they were cooked from, and those never change.
 *
 * @param stored  a recipe of this format, of the second, or of the first (without a `format`)
 */
export function upgradeRecipe(stored: Recipe | object): Recipe {
  const { format } = stored as { format?: number };
  if (format === 3) return stored as Recipe;
  return fromSecond(format === 2 ? (stored as SecondRecipe) : fromFirst(stored as FirstRecipe));
}

/** The second shape: a letter named nothing beside its heat step, and a hot fill its closure there. */
interface SecondRecipe extends Omit<Recipe, 'format' | 'authority'> {
  format: 2;
  authority:
    | Exclude<Recipe['authority'], { grade: 'letter' }>
    | (Omit<Letter, 'terms' | 'process'> & { process: Letter['process'] & { closure?: string } });
}

function fromSecond(old: SecondRecipe): Recipe {
  const { authority } = old;
  if (authority.grade !== 'letter') return { ...old, format: 3, authority };
  const { closure = '', ...process } = authority.process;
  return {
    ...old,
    format: 3,
    authority: { ...authority, terms: { ...noTerms(), closure }, process: process as Letter['process'] },
  };
}

/** The first shape: no ingredient library, steps that name lines whole, three authorities with their times inline. */
interface FirstRecipe {
  name: string;
  code: string;
  statementOfIdentity: string;
  foodClass: 'fruit spread' | 'acidified food';
  authority: FirstAuthority;
  lines: (Pick<
    Line,
    | 'id'
    | 'name'
    | 'preparation'
    | 'role'
    | 'density_gPerMl'
    | 'each_g'
    | 'weightSource'
    | 'trimYield'
    | 'labelName'
    | 'subIngredients'
    | 'allergens'
    | 'minStrength_pct'
    | 'safelyAcid'
  > & {
    where: 'pot' | 'brine' | 'each jar';
    amount: { text: string; unit: Line['amount']['unit']; value: string };
  })[];
  steps: (Pick<Step, 'id' | 'kind' | 'text' | 'caution' | 'window'> & {
    target:
      | Exclude<Step['target'], { kind: 'temperature' | 'volume' | 'depth' }>
      | { kind: 'temperature'; temp_C: number };
    lineIds: string[];
  })[];
  makes: Recipe['makes'];
  jars: Recipe['jars'];
  shelfLife_months: number;
  readyAfter_days: number;
  notes: string;
}
type Letter = Extract<Recipe['authority'], { grade: 'letter' }>;
type FirstAuthority =
  | {
      grade: 'tested publication';
      title: string;
      edition: string;
      part: string;
      checkedOn: string;
      fromMemory: boolean;
      entryId: string;
    }
  | (Pick<Letter, 'grade' | 'authority' | 'reference' | 'issuedOn' | 'demo' | 'maxPh'> & {
      headspace_mm: number;
      pack: 'hot' | 'raw';
      minutes: Extract<Letter['process'], { kind: 'boiling water' }>['minutes'];
    })
  | { grade: 'published, untested'; title: string }
  | { grade: 'own'; entryId: string | null };

function fromFirst(old: FirstRecipe): SecondRecipe {
  const product = firstProduct(old);
  const uses = new Map<string, number>();
  for (const step of old.steps) for (const id of step.lineIds) uses.set(id, (uses.get(id) ?? 0) + 1);
  return {
    format: 2,
    name: old.name,
    code: old.code,
    statementOfIdentity: old.statementOfIdentity,
    product,
    family: '',
    tags: [],
    variantOf: null,
    foodClass: old.foodClass satisfies FoodClass,
    setBy: old.foodClass === 'fruit spread' ? 'nothing added' : 'not set',
    method: firstMethod(old),
    authority: firstAuthority(old.authority),
    tested: null,
    lines: old.lines.map(l => ({
      ...l,
      ingredientId: null,
      amount: { ...l.amount, upTo: null, toTaste: false },
      basis: 'prepared',
      keptShare: 1,
      ratio: null,
      form: '',
      bushel_g: null,
      solids_pct: l.role === 'sweetener' || l.role === 'salt' ? 100 : l.role === 'fruit' ? 11 : 0,
      addedSugar_pct: 0,
      freshFactor: 1,
      group: l.role === 'fruit' ? 'I' : null,
    })),
    steps: old.steps.map(({ lineIds, target, ...s }) => ({
      ...s,
      target: target.kind === 'temperature' ? { ...target, hold_min: 0 } : target,
      attention: { kind: 'hands-on' },
      mayStop_h: null,
      adds: lineIds.map(lineId => {
        const n = uses.get(lineId) ?? 1;
        return { lineId, share: n === 1 ? '1' : `1/${n}` };
      }),
      part: '',
      separates: null,
      expects: null,
    })),
    makes: old.makes,
    jars: old.jars,
    outlets: [],
    packing: null,
    shelfLife_months: old.shelfLife_months,
    readyAfter_days: old.readyAfter_days,
    notes: old.notes,
    sketch: false,
  };
}

function firstProduct(old: FirstRecipe): Product {
  if (old.foodClass === 'fruit spread') return 'jam';
  if (old.lines.some(l => l.where === 'brine')) return 'pickle';
  return old.lines.some(l => /tomato/i.test(l.name)) ? 'tomatoes' : 'other';
}

/** What the entries that the first shape knew were set for, where it was not a hot pack without liquid. */
const FIRST_ENTRIES = byName<Pick<Method, 'pack' | 'liquid'>>({
  'dilled-beans': { pack: 'raw', liquid: 'vinegar brine' },
  'tomatoes-in-water': { pack: 'hot', liquid: 'water' },
});

/** The first shape said nothing of method: what its authority was set for is what it was. */
function firstMethod(old: FirstRecipe): Method {
  const brine = old.lines.some(l => l.where === 'brine');
  const entry = 'entryId' in old.authority ? FIRST_ENTRIES[old.authority.entryId ?? ''] : undefined;
  return {
    peel: 'either',
    cut: old.foodClass === 'fruit spread' ? 'crushed' : 'chopped',
    strain: 'unstrained',
    liquid: entry?.liquid ?? (brine ? 'vinegar brine' : 'none'),
    pack: old.authority.grade === 'letter' ? old.authority.pack : (entry?.pack ?? 'hot'),
  };
}

function firstAuthority(a: FirstAuthority): SecondRecipe['authority'] {
  if (a.grade === 'letter') {
    const { headspace_mm, pack, minutes, ...rest } = a;
    return { ...rest, limits: '', process: { kind: 'boiling water', pack, headspace_mm, minutes } };
  }
  if (a.grade === 'tested publication') {
    const { entryId, ...rest } = a;
    return { ...rest, kind: 'publication', year: 2015, time: { kind: 'entry', entryId } };
  }
  return a;
}
