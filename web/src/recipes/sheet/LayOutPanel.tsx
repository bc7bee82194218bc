import { type JarSizeId, jarCountText, jarSize } from '@cocotte/core/jars';
import { type JarsWanted, type Recipe, layOut } from '@cocotte/core/recipes';
import { processByEntry } from '@cocotte/core/times';
import type { Kitchen } from '@cocotte/core/kitchen';
import { Box } from '@mui/material';
import { Sheet, Soft } from '../../kit/parts.tsx';

/** What stands ready before the stove is lit: jars with spares and a small one, lids, what to measure with. */
export function LayOutPanel({
  recipe,
  jars,
  kitchen,
}: {
  recipe: Recipe;
  jars: JarsWanted[];
  kitchen: Kitchen;
}) {
  const list = layOut(
    jars,
    recipe.jars.map(j => j.size),
  );
  const doses = recipe.lines.filter(l => l.where === 'each jar');
  return (
    <Sheet title="Lay out" aside="before the stove is lit">
      <Box component="ul" sx={{ m: 0, pl: 2.5, '& li': { mb: 0.5 } }}>
        {list.jars.map(j => (
          <li key={j.size}>
            {jarCountText(j.count, j.size)} and {j.spare} spare
          </li>
        ))}
        {list.small && list.jars.every(j => j.size !== list.small) && (
          <li>one {jarSize(list.small).name} for what is left</li>
        )}
        {list.small && list.jars.some(j => j.size === list.small) && (
          <li>a small jar for the refrigerator</li>
        )}
        <li>{list.lids} new lids and clean bands</li>
        {doses.map(l => (
          <li key={l.id}>{l.name}, for every jar</li>
        ))}
        {recipe.outlets.map(o => (
          <li key={o.id}>
            for the {o.name}:{' '}
            {o.use === 'jars' && o.jarSize
              ? outletText(o.entryId, o.jarSize, kitchen)
              : 'a clean container with its date'}
          </li>
        ))}
      </Box>
      <Soft sx={{ fontSize: '0.9rem' }}>
        Spare jars stand hot with the others: one breaks, one is chipped.
      </Soft>
    </Sheet>
  );
}

function outletText(entryId: string | null, size: JarSizeId, kitchen: Kitchen): string {
  const answer = entryId === null ? null : processByEntry(entryId, size, kitchen.altitude_m);
  if (!answer) return `${jarSize(size).plural}, for the refrigerator: it names no entry`;
  return answer.ok
    ? `${jarSize(size).plural}, ${answer.time.minutes} min of its own (${answer.time.source.part})`
    : `${jarSize(size).plural}: ${answer.what}`;
}
