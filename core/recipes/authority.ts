import { spreadIdentity } from './identity.ts';
import { processEntry } from './process-data.ts';
import type { Recipe } from './recipe.ts';

export interface RouteToSale {
  open: boolean;
  /** What opens or closes it, in one sentence. */
  what: string;
  why: string;
  next: string;
  source: string;
}

/**
 * Whether a recipe may be cooked for sale at all, and by which route: (1) a fruit spread that meets its standard,
 * under the published family time; (2) a tested publication or a process authority's letter, unchanged. pH alone
 * never opens sale.
 */
export function routeToSale(recipe: Recipe): RouteToSale {
  const { authority } = recipe;
  switch (authority.grade) {
    case 'letter':
      return {
        open: true,
        what: `Process authority's letter ${authority.reference}, ${authority.issuedOn}.`,
        why: authority.demo
          ? 'A demo letter: it opens sale in the demo kitchen only and must not be cooked from.'
          : 'A scheduled process, followed unchanged.',
        next: '',
        source: `${authority.authority}, reference ${authority.reference}`,
      };
    case 'tested publication': {
      const known = processEntry(authority.entryId) !== undefined;
      return {
        open: known,
        what: known
          ? `Tested publication, unchanged: ${authority.title}, ${authority.edition}, ${authority.part}.`
          : 'The publication names no entry that is in the tables.',
        why: known
          ? `Checked on ${authority.checkedOn}${authority.fromMemory ? '; recalled from memory, hold it against the book' : ''}.`
          : 'Without its entry there is no tested time.',
        next: known ? '' : 'Choose the published entry.',
        source: `${authority.title}, ${authority.edition}, ${authority.part}`,
      };
    }
    case 'published, untested':
      return {
        open: false,
        what: `"${authority.title}" is published but untested.`,
        why: 'Nobody has shown that its acid and heat make it safe to keep.',
        next: 'Cook it as a trial, or ask a process authority for a scheduled process.',
        source: 'Routes to sale, common practice',
      };
    case 'own': {
      const identity = spreadIdentity(recipe);
      if (recipe.foodClass === 'fruit spread' && identity.meets && authority.entryId !== null) {
        return {
          open: true,
          what: 'Own recipe for a fruit spread of safely acid fruit that meets its standard.',
          why: identity.why,
          next: '',
          source: identity.source,
        };
      }
      return {
        open: false,
        what: 'An own recipe opens no way to sale.',
        why:
          recipe.foodClass === 'fruit spread'
            ? identity.why || 'It names no published family time.'
            : 'Acidity stops one hazard and heat another; nobody has tested its heat.',
        next: 'Cook it as a trial, or ask a process authority for a scheduled process.',
        source: 'Routes to sale, common practice',
      };
    }
  }
}
