import type { Kitchen } from '@cocotte/core/kitchen';
import { Fraction, amount_g, massText, readAmount } from '@cocotte/core/measure';
import {
  type JarSizeId,
  type JarsWanted,
  type Recipe,
  type ScaledLine,
  factorForFruit,
  factorForJars,
  jarCountText,
  jarSize,
  jarsForFactor,
  mainLine,
  routeToSale,
  scaleRecipe,
} from '@cocotte/core/recipes';
import {
  Box,
  Button,
  MenuItem,
  Slider,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
  TextField,
  ToggleButton,
  ToggleButtonGroup,
  Typography,
} from '@mui/material';
import { useMemo, useState } from 'react';
import { Link, useParams } from 'react-router';
import { faultText } from '../shell/entry.ts';
import { JarShelf } from '../shell/jars.tsx';
import { Faults, Fractions, Sheet, Soft, Tag, ViewHead } from '../shell/parts.tsx';
import { faultsOf } from '../shell/call.ts';
import { useHere, useMay } from '../shell/session.tsx';
import { Waiting } from '../shell/Shell.tsx';
import { useRecipe } from './api.ts';
import { AuthorityPanel, ProcessPanel } from './ProcessPanel.tsx';
import { StartDialog } from './StartDialog.tsx';

const MOST_JARS = 60;

interface Plan {
  factor: Fraction;
  jars: JarsWanted[];
  fault: string | null;
}

/** A recipe as a sheet: how much, the lines at that scale, and its process in this kitchen. */
export function RecipeSheet() {
  const { recipeId } = useParams();
  const { kitchen } = useHere();
  const { data, error } = useRecipe(recipeId);
  if (error) return <Faults faults={faultsOf(error)} />;
  if (!data) return <Waiting />;
  return (
    <Opened
      key={`${data.recipeId} ${data.number}`}
      recipe={data.recipe}
      recipeId={data.recipeId}
      number={data.number}
      kitchen={kitchen}
    />
  );
}

function Opened({
  recipe,
  recipeId,
  number,
  kitchen,
}: {
  recipe: Recipe;
  recipeId: string;
  number: number;
  kitchen: Kitchen;
}) {
  const mayCook = useMay('cook');
  const [mode, setMode] = useState<'jars' | 'fruit'>('jars');
  const [size, setSize] = useState<JarSizeId>(recipe.makes.size);
  const [count, setCount] = useState(recipe.makes.count);
  const [second, setSecond] = useState(0);
  const [fruit, setFruit] = useState('');
  const [starting, setStarting] = useState(false);
  const main = mainLine(recipe);
  const other = recipe.jars.find(j => j.size !== size)?.size;
  const plan = useMemo((): Plan => {
    const jars: JarsWanted[] = [
      { size, count },
      ...(other && second > 0 ? [{ size: other, count: second }] : []),
    ];
    if (mode === 'jars') return { factor: factorForJars(recipe, jars), jars, fault: null };
    const read = readAmount(fruit, kitchen.locale);
    const nothing = { factor: factorForJars(recipe, [recipe.makes]), jars: [recipe.makes] };
    if (!read.ok) return { ...nothing, fault: fruit.trim() === '' ? null : faultText(read.fault) };
    try {
      const factor = factorForFruit(recipe, amount_g(read.value, main));
      const fits = jarsForFactor(recipe, factor, size);
      if (fits.count === 0)
        return {
          ...nothing,
          fault: `That fills less than one ${jarSize(size).name}. Enter more, or choose a smaller jar.`,
        };
      if (fits.count > 500)
        return { ...nothing, fault: 'That is more than 500 jars: a slip. Check the figure and its unit.' };
      return { factor, jars: [{ size, count: fits.count }], fault: null };
    } catch {
      return {
        ...nothing,
        fault: `${main.name} cannot be weighed from that unit. Enter it by weight, such as 4 lb or 2 kg.`,
      };
    }
  }, [mode, size, count, second, other, fruit, recipe, kitchen.locale, main]);
  const scaled = useMemo(() => scaleRecipe(recipe, plan.factor, plan.jars), [recipe, plan]);
  const total = plan.jars.reduce((n, j) => n + j.count, 0);
  const shelf = plan.jars
    .flatMap(j => Array.from({ length: Math.min(j.count, 80) }, () => j.size))
    .map((s, i) => ({ number: i + 1, size: s, form: 'filled' as const }));
  const route = routeToSale(recipe);
  return (
    <>
      <ViewHead
        title={recipe.name}
        detail={
          <>
            {recipe.code} · {recipe.foodClass} · version {number}
            {recipe.authority.grade === 'letter' && recipe.authority.demo && (
              <>
                {' '}
                · <Tag tone="ox">demo, do not cook from this</Tag>
              </>
            )}
          </>
        }
      >
        {mayCook && (
          <Button component={Link} to={`/recipes/${recipeId}/change`} variant="outlined">
            Change it
          </Button>
        )}
        {mayCook && (
          <Button
            variant="contained"
            size="large"
            onClick={() => setStarting(true)}
            disabled={plan.fault !== null}
          >
            Start a batch
          </Button>
        )}
      </ViewHead>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: 'minmax(0, 1fr) 360px' },
          gap: 2,
          alignItems: 'start',
        }}
      >
        <Box sx={{ display: 'grid', gap: 2, minWidth: 0 }}>
          <Sheet>
            <Box sx={{ display: 'flex', gap: 2.5, alignItems: 'center', flexWrap: 'wrap' }}>
              <ToggleButtonGroup
                exclusive
                size="small"
                value={mode}
                onChange={(_, m: 'jars' | 'fruit' | null) => m && setMode(m)}
                aria-label="Scale by"
              >
                <ToggleButton value="jars" sx={{ px: 2, minHeight: 44, textTransform: 'none' }}>
                  Jars wanted
                </ToggleButton>
                <ToggleButton value="fruit" sx={{ px: 2, minHeight: 44, textTransform: 'none' }}>
                  {main.role === 'fruit' ? 'Fruit at hand' : 'Produce at hand'}
                </ToggleButton>
              </ToggleButtonGroup>
              <TextField
                select
                label="Jar"
                value={size}
                onChange={e => setSize(e.target.value as JarSizeId)}
                sx={{ width: 150 }}
              >
                {recipe.jars.map(j => (
                  <MenuItem key={j.size} value={j.size}>
                    {jarSize(j.size).name}
                  </MenuItem>
                ))}
              </TextField>
              {mode === 'fruit' && (
                <TextField
                  label={`${main.name}, prepared`}
                  placeholder="such as 5 lb or 2 kg"
                  value={fruit}
                  onChange={e => setFruit(e.target.value)}
                  error={plan.fault !== null}
                  helperText={plan.fault}
                  sx={{ flex: '1 1 220px', width: 'auto' }}
                />
              )}
              {mode === 'jars' && other && (
                <TextField
                  label={`And ${jarSize(other).plural}`}
                  type="number"
                  value={second}
                  onChange={e =>
                    setSecond(Math.max(0, Math.min(60, Math.floor(Number(e.target.value) || 0))))
                  }
                  sx={{ width: 150 }}
                />
              )}
            </Box>
            <Box sx={{ display: 'flex', alignItems: 'center', gap: 3, mt: 2, flexWrap: 'wrap' }}>
              <Box sx={{ whiteSpace: 'nowrap' }} aria-live="polite">
                <Box component="span" sx={{ fontSize: '2rem', fontWeight: 700 }}>
                  {total}
                </Box>{' '}
                {plan.jars.length === 1 ? (
                  total === 1 ? (
                    jarSize(size).name
                  ) : (
                    jarSize(size).plural
                  )
                ) : (
                  <>
                    jars <Soft>({plan.jars.map(j => jarCountText(j.count, j.size)).join(', ')})</Soft>
                  </>
                )}
                {scaled.over > 0.02 && <Soft>, and {Math.round(scaled.over * 100)} % of one over</Soft>}
              </Box>
              {mode === 'jars' && (
                <Slider
                  aria-label="Jars wanted"
                  value={count}
                  min={1}
                  max={MOST_JARS}
                  onChange={(_, v) => setCount(v as number)}
                  sx={{
                    flex: '1 1 200px',
                    '& .MuiSlider-thumb': {
                      width: 30,
                      height: 30,
                      bgcolor: 'background.paper',
                      border: '3px solid',
                      borderColor: 'primary.main',
                    },
                  }}
                />
              )}
            </Box>
            <Box sx={{ mt: 2, maxHeight: 240, overflow: 'auto' }}>
              <JarShelf jars={shelf} />
            </Box>
          </Sheet>
          <LineTable recipe={recipe} lines={scaled.lines} kitchen={kitchen} />
          <Sheet title="Steps">
            <Box component="ol" sx={{ m: 0, pl: 3, '& li': { mb: 1 } }}>
              {recipe.steps.map(s => (
                <li key={s.id}>
                  {s.text}
                  {s.window && (
                    <Soft>
                      {' '}
                      · {s.window.from_min / 60} to {s.window.to_min / 60} h
                    </Soft>
                  )}
                  {s.target.kind === 'look' && <Soft> · until {s.target.text}</Soft>}
                  {s.target.kind === 'time' && <Soft> · {s.target.minutes} min</Soft>}
                </li>
              ))}
            </Box>
            {recipe.notes && <Typography sx={{ mt: 2, color: 'text.secondary' }}>{recipe.notes}</Typography>}
          </Sheet>
        </Box>
        <Box sx={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr)', gap: 2 }}>
          <ProcessPanel recipe={recipe} kitchen={kitchen} sizes={plan.jars.map(j => j.size)} />
          <AuthorityPanel recipe={recipe} route={route} />
        </Box>
      </Box>
      {starting && (
        <StartDialog
          recipe={recipe}
          recipeId={recipeId}
          version={number}
          factor={plan.factor.toFraction()}
          jars={plan.jars}
          route={route}
          onClose={() => setStarting(false)}
        />
      )}
    </>
  );
}

const PLACES: [ScaledLine['where'], string][] = [
  ['pot', 'Into the pot'],
  ['brine', 'Into the brine'],
  ['each jar', 'Into each jar'],
];

function LineTable({ recipe, lines, kitchen }: { recipe: Recipe; lines: ScaledLine[]; kitchen: Kitchen }) {
  const goesIn = (lineId: string) => {
    const steps = recipe.steps.flatMap((s, i) => (s.lineIds.includes(lineId) ? [i + 1] : []));
    return steps.length === 0 ? '' : `step ${steps.join(' and ')}`;
  };
  return (
    <Sheet sx={{ pb: 1, overflowX: 'auto' }}>
      {PLACES.map(([where, title]) => {
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
                <TableCell sx={{ width: { sm: '40%' } }}>{title}</TableCell>
                <TableCell>{each ? 'in one jar' : 'to buy'}</TableCell>
                <TableCell>{each ? 'for all' : 'prepared'}</TableCell>
                <TableCell>weighed</TableCell>
                <TableCell sx={{ display: { xs: 'none', sm: 'table-cell' } }}>goes in</TableCell>
              </TableRow>
            </TableHead>
            <TableBody>
              {here.map(l => (
                <TableRow key={l.lineId}>
                  <TableCell>
                    {l.name}
                    {l.preparation && <Soft>, {l.preparation}</Soft>}
                  </TableCell>
                  <TableCell>
                    {each ? (
                      l.eachJar.map(e => (
                        <Box key={e.size}>
                          <Fractions text={e.measure} />
                          {l.eachJar.length > 1 && <Soft> a {e.size}</Soft>}
                        </Box>
                      ))
                    ) : (
                      <>{l.toBuy && <Fractions text={l.toBuy} />}</>
                    )}
                  </TableCell>
                  <TableCell>
                    <Fractions text={l.measure} />
                  </TableCell>
                  <TableCell sx={{ fontWeight: 700 }}>{massText(l.mass_g, kitchen)}</TableCell>
                  <TableCell sx={{ display: { xs: 'none', sm: 'table-cell' }, color: 'text.secondary' }}>
                    {goesIn(l.lineId)}
                  </TableCell>
                </TableRow>
              ))}
            </TableBody>
          </Table>
        );
      })}
      <Soft sx={{ fontSize: '0.9rem' }}>
        Weights are exact; cups and spoons are rounded to what a kitchen has. Volumes are weighed at the
        density of each line.
      </Soft>
    </Sheet>
  );
}
