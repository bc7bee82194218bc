import { type Line, type Recipe, emptyRecipe } from '@cocotte/core/recipes';
import { COVERS, type Cover } from '@cocotte/core/review';
import { type ProcessEntry, processEntry } from '@cocotte/core/times';
import { lineOf } from './recipe-lines.ts';

/** The authority of a recipe that follows a published entry. */
export const following = (entryId: string): Recipe['authority'] => ({
  grade: 'tested publication',
  kind: 'publication',
  title: 'USDA Complete Guide to Home Canning',
  edition: '2015 revision',
  year: 2015,
  part: processEntry(entryId)?.source.part ?? '',
  checkedOn: '2026-05-01',
  fromMemory: true,
  time: { kind: 'entry', entryId },
});

/** A recipe that does what a formula of an entry says, and nothing else. */
export function written(entry: ProcessEntry, cover: Cover): Recipe {
  const where = cover.packed ? 'brine' : 'pot';
  const food = cover.anyAcidFruit ? [{ ids: ['plum'], amount: '', main: true }] : cover.food;
  const lines: Line[] = [
    ...food.map(f => lineOf(f.ids[0] as string, f.amount || (f.main ? '5 lb' : '10 g'))),
    ...cover.acid.map(a => lineOf(a.ids[0] as string, a.amount, a.ids[0], { where })),
    ...(cover.water ? [lineOf('water', cover.water, 'water', { where })] : []),
    ...(cover.oil ? [lineOf('oil', cover.oil)] : []),
    ...(cover.starch ? [lineOf('canning-starch', cover.starch)] : []),
    ...(cover.sugarForFruit > 0 ? [lineOf('sugar', '4 lb')] : []),
    ...(entry.acidInEachPint ? [lineOf('bottled-lemon', '1 Tbsp', 'dose', { where: 'each jar' })] : []),
    lineOf('canning-salt', '1 Tbsp'),
  ];
  return {
    ...emptyRecipe(),
    name: entry.product,
    product: entry.products[0] as Recipe['product'],
    setBy: cover.setBy[0] ?? 'not set',
    method: {
      cut: cover.cut[0] ?? 'chopped',
      peel: cover.peel[0] ?? 'either',
      strain: cover.strain[0] ?? 'unstrained',
      liquid: entry.liquids[0] ?? 'none',
      pack: entry.pack,
    },
    authority: following(entry.id),
    lines,
    makes: { size: 'pint', count: 8 },
  };
}

/** The same of the first formula of an entry. */
export const writtenAs = (entryId: string): Recipe => {
  const entry = processEntry(entryId) as ProcessEntry;
  return written(entry, COVERS[entry.cleanFormOf ?? entry.id]?.[0] as Cover);
};
