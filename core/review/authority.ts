import { dayText, type Figures, PLAIN_FIGURES } from '../measure/index.ts';
import type { Recipe } from '../recipes/index.ts';
import { processEntry } from '../times/index.ts';
import { type FormulaChange, formulaOf } from './changes/change.ts';
import { changesFrom } from './changes/index.ts';
import { coverChanges } from './cover/index.ts';
import { keptBySugar, spreadCover } from './identity.ts';
import { letterChanges, limitedLines } from './letter.ts';
import { classOf, reviewFaults } from './rules.ts';

/** Whether a recipe may be cooked for sale, and what opens or closes that. */
export interface RouteToSale {
  open: boolean;
  /** What opens or closes it, in one sentence. */
  what: string;
  why: string;
  next: string;
  source: string;
}

/** Why an authority does not cover a recipe. */
export interface AuthorityFault {
  what: string;
  why: string;
  next: string;
  source: string;
}

/** Publications older than this are out of date: the tested times were revised in the mid-1990s. Common practice. */
export const OLDEST_PUBLICATION = 1994;

/**
 * Where a recipe leaves what its authority covers. A published entry is held against what it covers, as data, from the
 * first save; a leaflet, a letter and a publication with a time of its own, which the tables know nothing of, against the
 * formula that was taken over.
 */
export function formulaChanges(recipe: Recipe, figures: Figures = PLAIN_FIGURES): FormulaChange[] {
  const { authority, tested } = recipe;
  if (authority.grade !== 'tested publication' && authority.grade !== 'letter') return [];
  const byEntry = coverChanges(recipe, figures);
  const isEntrys =
    authority.grade === 'tested publication' &&
    authority.kind === 'publication' &&
    authority.time.kind === 'entry';
  if (isEntrys) return byEntry;
  if (tested === null) return [...byEntry, ...letterChanges(recipe, figures)];
  const known = new Set(byEntry.map(c => c.code));
  // Lines with limits of their own are held against these alone.
  const limited = limitedLines(recipe);
  const rest = <F extends Pick<Recipe, 'lines'>>(of: F): F => ({
    ...of,
    lines: of.lines.filter(l => !limited.has(l.id)),
  });
  return [
    ...byEntry,
    ...letterChanges(recipe, figures),
    ...changesFrom(rest(tested), rest(formulaOf(recipe)), figures).filter(c => !known.has(c.code)),
  ];
}

const PRACTICE = 'Routes to sale, common practice';

/**
 * Why the authority of a recipe gives it no heat step, or null when it does. An own or untested recipe borrows no
 * time, except a fruit spread of safely acid fruit, whose solids are proven when it is cooked.
 */
export function authorityFault(recipe: Recipe, figures: Figures = PLAIN_FIGURES): AuthorityFault | null {
  const refused = reviewFaults(recipe, figures).find(f => f.level === 'refused');
  if (refused) return { what: refused.what, why: refused.why, next: refused.next, source: refused.source };
  const { authority } = recipe;
  switch (authority.grade) {
    case 'published, untested':
      return {
        what: `"${authority.title}" is published but untested.`,
        why: 'It has no tested process: nobody has shown that its acid and heat make it safe to keep, and pH alone does not give a heat step.',
        next: 'Cook it as a trial, or ask a process authority for a scheduled process.',
        source: PRACTICE,
      };
    case 'own': {
      const entry = authority.entryId === null ? undefined : processEntry(authority.entryId);
      const cover = spreadCover(recipe);
      if (!keptBySugar({ foodClass: classOf(recipe), product: recipe.product }))
        return {
          what: 'An own recipe has no processing time to borrow.',
          why: 'Acidity stops one hazard and heat another; nobody has tested the heat for this mixture.',
          next: 'Cook it as a trial and send it to a process authority, or follow a tested recipe unchanged.',
          source: PRACTICE,
        };
      if (!cover.covered)
        return {
          what: 'The published time for fruit spreads and syrups does not cover this recipe.',
          why: cover.why,
          next: cover.next,
          source: PRACTICE,
        };
      if (recipe.product === 'fruit butter')
        return {
          what: 'An own fruit butter has no processing time to borrow.',
          why: 'It is done at some 43 % of soluble solids; an own spread borrows the published time on 65 % or more, where its sugar keeps it.',
          next: 'Follow a tested recipe unchanged, ask a process authority, or cook it for the refrigerator.',
          source: PRACTICE,
        };
      if (!entry?.products.includes(recipe.product))
        return {
          what: entry
            ? `The entry it names, ${entry.product}, is not one of ${recipe.product}.`
            : 'It names no published family time.',
          why: 'Without its entry there is no tested time.',
          next: `Choose the published entry for ${recipe.product}.`,
          source: PRACTICE,
        };
      return packFault(recipe);
    }
    case 'tested publication': {
      if (authority.year < OLDEST_PUBLICATION)
        return {
          what: `${authority.title} of ${authority.year} is out of date.`,
          why: `Tested processes were revised in the mid-1990s; times from before ${OLDEST_PUBLICATION} are no longer relied on.`,
          next: 'Find the recipe in a current edition.',
          source: PRACTICE,
        };
      if (authority.time.kind === 'entry' && !processEntry(authority.time.entryId))
        return {
          what: 'The entry this recipe follows is not in the tables.',
          why: 'Without its entry there is no tested time.',
          next: 'Choose the published entry, or add the letter.',
          source: PRACTICE,
        };
      return packFault(recipe) ?? changedFault(recipe, figures);
    }
    case 'letter':
      return packFault(recipe) ?? changedFault(recipe, figures);
  }
}

/** What the heat step of an authority was set for: pack, packing liquids and kinds of product; empty for any. */
function setFor({ authority }: Recipe): {
  name: string;
  pack: 'hot' | 'raw';
  liquids: readonly string[];
  products: readonly string[];
} | null {
  switch (authority.grade) {
    case 'letter':
      return {
        name: `Letter ${authority.reference}`,
        pack: authority.process.kind === 'hot-fill-hold' ? 'hot' : authority.process.pack,
        liquids: [],
        products: [],
      };
    case 'tested publication':
      if (authority.time.kind === 'sea level')
        return { name: authority.title, pack: authority.time.pack, liquids: [], products: [] };
      return ofEntry(authority.time.entryId);
    case 'own':
      return ofEntry(authority.entryId ?? '');
    case 'published, untested':
      return null;
  }
}

function ofEntry(entryId: string): ReturnType<typeof setFor> {
  const entry = processEntry(entryId);
  return entry
    ? { name: entry.product, pack: entry.pack, liquids: entry.liquids, products: entry.products }
    : null;
}

/** Pack, packing liquid and product belong to the time: another one has another time, or none. */
function packFault(recipe: Recipe): AuthorityFault | null {
  const set = setFor(recipe);
  if (!set) return null;
  const { method, product } = recipe;
  const fault = (what: string, next: string): AuthorityFault => ({
    what,
    why: 'Pack, packing liquid and product were tested together with the time.',
    next,
    source: PRACTICE,
  });
  if (set.products.length > 0 && !set.products.includes(product))
    return fault(
      `${set.name} is no entry for ${product}.`,
      `Choose the entry of this product, or call it ${set.products.join(' or ')} if that is what it is.`,
    );
  if (set.pack !== method.pack)
    return fault(
      `${set.name} is set for a ${set.pack} pack; this recipe is packed ${method.pack}.`,
      `Pack it ${set.pack}, or choose what is set for a ${method.pack} pack.`,
    );
  if (set.liquids.length > 0 && !set.liquids.includes(method.liquid))
    return fault(
      `${set.name} is set for ${set.liquids.map(l => (l === 'none' ? 'no packing liquid' : l)).join(' or ')}; this recipe has ${method.liquid === 'none' ? 'none' : method.liquid}.`,
      'Set the packing liquid that was tested, or choose another entry.',
    );
  return null;
}

function changedFault(recipe: Recipe, figures: Figures): AuthorityFault | null {
  const breaking = formulaChanges(recipe, figures).filter(c => c.breaks);
  if (breaking.length === 0) return null;
  return {
    what: `Its authority no longer covers it: ${breaking.map(c => c.what).join(' ')}`,
    why: breaking.map(c => c.why).join(' '),
    next: breaking.map(c => c.next).join(' '),
    source: 'Changing a recipe, common practice',
  };
}

/**
 * Whether a recipe may be cooked for sale at all, and by which route: (1) a fruit spread of safely acid
 * fruit, under the published family time; (2) a tested publication or a process authority's letter, unchanged. pH alone
 * never opens sale.
 */
export function routeToSale(recipe: Recipe, figures: Figures = PLAIN_FIGURES): RouteToSale {
  if (recipe.sketch)
    return {
      open: false,
      what: 'A recipe that is cooked first and written down afterwards opens no way to sale.',
      why: 'Nobody knows yet what it is.',
      next: 'Cook it as a trial.',
      source: PRACTICE,
    };
  const fault = authorityFault(recipe, figures);
  if (fault) return { open: false, ...fault };
  const mend = reviewFaults(recipe, figures).find(f => f.level === 'mend');
  if (mend) return { open: false, what: mend.what, why: mend.why, next: mend.next, source: mend.source };
  const { authority } = recipe;
  if (authority.grade === 'letter')
    return {
      open: true,
      what: `Process authority's letter ${authority.reference}, ${authority.issuedOn}.`,
      why: authority.demo
        ? 'A demo letter: it opens sale in the demo kitchen only and must not be cooked from.'
        : 'A scheduled process, followed unchanged.',
      next: '',
      source: `${authority.authority}, reference ${authority.reference}`,
    };
  if (authority.grade === 'tested publication')
    return {
      open: true,
      what: `${authority.kind === 'leaflet' ? "Set-maker's leaflet" : 'Tested publication'}, unchanged: ${authority.title}, ${authority.edition}, ${authority.part}.`,
      why: `Checked on ${dayText(authority.checkedOn, figures)}${authority.fromMemory ? '; recalled from memory, hold it against the book' : ''}.`,
      next: '',
      source: `${authority.title}, ${authority.edition}, ${authority.part}`,
    };
  return {
    open: true,
    what: `Own recipe for a ${recipe.product === 'syrup' ? 'syrup' : 'fruit spread'} of safely acid fruit.`,
    why: 'The published family time applies on finished solids of 65 % or more, proven by a checked thermometer in the whole pot, a refractometer, or the balance with three filled jars weighed: a policy of this program, to be confirmed by the local authority.',
    next: '',
    source: PRACTICE,
  };
}
