import type { Kitchen } from '@cocotte/core/kitchen';
import { massText } from '@cocotte/core/measure';
import type { Place, PotAmount, Recipe, ScaledLine } from '@cocotte/core/recipes';
import { Box } from '@mui/material';
import type { ReactNode } from 'react';
import { List } from '../../kit/List.tsx';
import { Fractions, Sheet, Soft } from '../../kit/parts.tsx';

const PLACES: [Place, string][] = [
  ['pot', 'Into the pot'],
  ['strained', 'Strained off'],
  ['brine', 'Into the brine'],
  ['soak', 'Into a soak, partly poured away'],
  ['infused', 'Infused and lifted out'],
  ['each jar', 'Into each jar'],
  ['dip', 'A dip, never in the food'],
];
/** Packed pieces stand in the jars, never in a pot. */
const titleOf = (recipe: Recipe, where: Place, title: string) =>
  where === 'pot' && recipe.packing && recipe.method.pack === 'raw' ? 'Pieces to pack' : title;

/** Every line at the scale of the plan: to buy, in cups and spoons, weighed, and when it goes in. */
export function LineTable({
  recipe,
  lines,
  pots,
  kitchen,
}: {
  recipe: Recipe;
  lines: ScaledLine[];
  /** What goes into each of several pots, by line; null where there is one. */
  pots: { count: number; each: ReadonlyMap<string, PotAmount> } | null;
  kitchen: Kitchen;
}) {
  const ofLine = new Map(recipe.lines.map(l => [l.id, l]));
  const goesIn = (lineId: string) => {
    const steps = recipe.steps.flatMap((s, i) => (s.adds.some(a => a.lineId === lineId) ? [i + 1] : []));
    return steps.length === 0 ? '' : `step ${steps.join(' and ')}`;
  };
  const ratioWords = (lineId: string) => {
    const ratio = ofLine.get(lineId)?.ratio;
    if (!ratio) return '';
    const what =
      ratio.of === 'line'
        ? (recipe.lines.find(l => l.id === ratio.id)?.name ?? '')
        : (recipe.steps.find(s => s.id === ratio.id)?.text ?? 'what is measured');
    return `${ofLine.get(lineId)?.amount.text} for each ${ratio.per.text}: ${what.toLowerCase()}`;
  };
  return (
    <Sheet sx={{ pb: 1 }}>
      {PLACES.map(([where, named]) => {
        const title = titleOf(recipe, where, named);
        const here = lines.filter(l => l.where === where);
        if (here.length === 0) return null;
        const each = where === 'each jar';
        return (
          <List
            key={where}
            label={title}
            rows={here}
            keyOf={l => l.lineId}
            sx={{
              mb: 1.5,
              tableLayout: { sm: 'fixed' },
              '& td, & th': { '&:nth-of-type(n+2)': { textAlign: 'right' } },
            }}
            columns={[
              {
                head: title,
                sx: { width: { sm: '38%' } },
                cell: l => {
                  const line = ofLine.get(l.lineId);
                  return (
                    <>
                      {l.name}
                      {l.preparation && <Soft>, {l.preparation}</Soft>}
                      {!each && l.toBuy && l.asBought_g > l.mass_g * 1.005 && (
                        <Box sx={{ display: { sm: 'none' }, color: 'text.secondary', fontSize: '0.88rem' }}>
                          buy <Fractions text={l.toBuy} />
                        </Box>
                      )}
                      {ratioWords(l.lineId) && <Small>{ratioWords(l.lineId)}</Small>}
                      {line && line.keptShare < 1 && where !== 'dip' && (
                        <Small>{Math.round(line.keptShare * 100)} % of it stays in the food</Small>
                      )}
                    </>
                  );
                },
              },
              {
                head: each ? 'in one jar' : 'to buy',
                ...(each ? {} : { from: 'sm' as const }),
                cell: l =>
                  each
                    ? l.eachJar.map(e => (
                        <Box key={e.size}>
                          <Fractions text={e.measure} />
                          {l.eachJar.length > 1 && <Soft> a {e.size}</Soft>}
                        </Box>
                      ))
                    : l.toBuy && <Fractions text={l.toBuy} />,
              },
              {
                head: each ? 'for all' : 'prepared',
                cell: l => (
                  <>
                    <Fractions text={l.measure} />
                    {ofLine.get(l.lineId)?.basis === 'as bought' && (
                      <Soft sx={{ fontSize: '0.88rem' }}> as bought</Soft>
                    )}
                    {Math.abs(l.measureError) >= 0.01 && (
                      <Soft sx={{ fontSize: '0.85rem' }}>
                        {' '}
                        {l.measureError > 0 ? '+' : '−'}
                        {Math.abs(Math.round(l.measureError * 100))} %
                      </Soft>
                    )}
                    {l.portions.map(p => (
                      <Small key={p.stepId}>
                        <Fractions text={p.measure} /> in step{' '}
                        {recipe.steps.findIndex(s => s.id === p.stepId) + 1}
                      </Small>
                    ))}
                  </>
                ),
              },
              {
                head: 'weighed',
                sx: { fontWeight: 700, '& > span:first-of-type': { whiteSpace: 'nowrap' } },
                cell: l => (
                  <>
                    <span>{massText(l.mass_g, kitchen)}</span>
                    {l.range_g && (
                      <Small>
                        {massText(l.range_g.from, kitchen)} to {massText(l.range_g.to, kitchen)}, to taste
                      </Small>
                    )}
                  </>
                ),
              },
              !each &&
                pots !== null && {
                  head: `each of ${pots.count} pots`,
                  cell: l => {
                    const one = pots.each.get(l.lineId);
                    return (
                      one && (
                        <>
                          <Fractions text={one.measure} />
                          {one.measure !== massText(one.mass_g, kitchen) && (
                            <Small>{massText(one.mass_g, kitchen)}</Small>
                          )}
                        </>
                      )
                    );
                  },
                },
              {
                head: 'goes in',
                from: 'sm',
                sx: { color: 'text.secondary' },
                cell: l => goesIn(l.lineId),
              },
            ]}
          />
        );
      })}
      <Soft sx={{ fontSize: '0.9rem' }}>
        Weights are exact; cups and spoons are rounded to what a kitchen has, and a rounding of 1 % or more is
        shown. Volumes are weighed at the density of each line.
      </Soft>
    </Sheet>
  );
}

function Small({ children }: { children: ReactNode }) {
  return <Soft sx={{ display: 'block', fontSize: '0.88rem', fontWeight: 400 }}>{children}</Soft>;
}
