import type { Kitchen } from '@cocotte/core/kitchen';
import { massText } from '@cocotte/core/measure';
import type { Place, Recipe, ScaledLine } from '@cocotte/core/recipes';
import { Box, Table, TableBody, TableCell, TableHead, TableRow } from '@mui/material';
import { Fractions, Sheet, Soft } from '../../shell/parts.tsx';

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
const wide = { display: { xs: 'none', sm: 'table-cell' } } as const;

/** Every line at the scale of the plan: to buy, in cups and spoons, weighed, and when it goes in. */
export function LineTable({
  recipe,
  lines,
  kitchen,
}: {
  recipe: Recipe;
  lines: ScaledLine[];
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
    <Sheet sx={{ pb: 1, overflowX: 'auto' }}>
      {PLACES.map(([where, named]) => {
        const title = titleOf(recipe, where, named);
        const here = lines.filter(l => l.where === where);
        if (here.length === 0) return null;
        const each = where === 'each jar';
        return (
          <Table
            key={where}
            size="small"
            sx={{
              mb: 1.5,
              tableLayout: { sm: 'fixed' },
              '& td, & th': { '&:nth-of-type(n+2)': { textAlign: 'right' } },
            }}
            aria-label={title}
          >
            <TableHead>
              <TableRow>
                <TableCell sx={{ width: { sm: '38%' } }}>{title}</TableCell>
                <TableCell sx={each ? {} : wide}>{each ? 'in one jar' : 'to buy'}</TableCell>
                <TableCell>{each ? 'for all' : 'prepared'}</TableCell>
                <TableCell>weighed</TableCell>
                <TableCell sx={wide}>goes in</TableCell>
              </TableRow>
            </TableHead>
            <TableBody>
              {here.map(l => {
                const line = ofLine.get(l.lineId);
                return (
                  <TableRow key={l.lineId}>
                    <TableCell>
                      {l.name}
                      {l.preparation && <Soft>, {l.preparation}</Soft>}
                      {!each && l.toBuy && l.asBought_g > l.mass_g * 1.005 && (
                        <Box sx={{ display: { sm: 'none' }, color: 'text.secondary', fontSize: '0.88rem' }}>
                          buy <Fractions text={l.toBuy} />
                        </Box>
                      )}
                      {ratioWords(l.lineId) && (
                        <>
                          <br />
                          <Soft sx={{ fontSize: '0.88rem' }}>{ratioWords(l.lineId)}</Soft>
                        </>
                      )}
                      {line && line.keptShare < 1 && where !== 'dip' && (
                        <>
                          <br />
                          <Soft sx={{ fontSize: '0.88rem' }}>
                            {Math.round(line.keptShare * 100)} % of it stays in the food
                          </Soft>
                        </>
                      )}
                    </TableCell>
                    <TableCell sx={each ? {} : wide}>
                      {each
                        ? l.eachJar.map(e => (
                            <Box key={e.size}>
                              <Fractions text={e.measure} />
                              {l.eachJar.length > 1 && <Soft> a {e.size}</Soft>}
                            </Box>
                          ))
                        : l.toBuy && <Fractions text={l.toBuy} />}
                    </TableCell>
                    <TableCell>
                      <Fractions text={l.measure} />
                      {line?.basis === 'as bought' && <Soft sx={{ fontSize: '0.88rem' }}> as bought</Soft>}
                      {Math.abs(l.measureError) >= 0.01 && (
                        <Soft sx={{ fontSize: '0.85rem' }}>
                          {' '}
                          {l.measureError > 0 ? '+' : '−'}
                          {Math.abs(Math.round(l.measureError * 100))} %
                        </Soft>
                      )}
                      {l.portions.map(p => (
                        <Box key={p.stepId} sx={{ fontSize: '0.88rem', color: 'text.secondary' }}>
                          <Fractions text={p.measure} /> in step{' '}
                          {recipe.steps.findIndex(s => s.id === p.stepId) + 1}
                        </Box>
                      ))}
                    </TableCell>
                    <TableCell sx={{ fontWeight: 700, '& > span': { whiteSpace: 'nowrap' } }}>
                      <span>{massText(l.mass_g, kitchen)}</span>
                      {l.range_g && (
                        <Box sx={{ fontWeight: 400, fontSize: '0.88rem', color: 'text.secondary' }}>
                          {massText(l.range_g.from, kitchen)} to {massText(l.range_g.to, kitchen)}, to taste
                        </Box>
                      )}
                    </TableCell>
                    <TableCell sx={{ ...wide, color: 'text.secondary' }}>{goesIn(l.lineId)}</TableCell>
                  </TableRow>
                );
              })}
            </TableBody>
          </Table>
        );
      })}
      <Soft sx={{ fontSize: '0.9rem' }}>
        Weights are exact; cups and spoons are rounded to what a kitchen has, and a rounding of 1 % or more is
        shown. Volumes are weighed at the density of each line.
      </Soft>
    </Sheet>
  );
}
