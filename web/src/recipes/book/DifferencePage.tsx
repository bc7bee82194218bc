import { type Difference, differences } from '@cocotte/core/recipes';
import { Box, MenuItem, Table, TableBody, TableCell, TableHead, TableRow, TextField } from '@mui/material';
import { useParams, useSearchParams } from 'react-router';
import { faultsOf } from '../../shell/call.ts';
import { Faults, Nothing, Sheet, Tag, ViewHead } from '../../shell/parts.tsx';
import { Waiting } from '../../shell/Shell.tsx';
import { useVersion, useVersions } from '../api.ts';

const PARTS: [Difference['part'], string][] = [
  ['recipe', 'What it is'],
  ['lines', 'Ingredients'],
  ['steps', 'Steps'],
  ['jars', 'Jars'],
  ['authority', 'Authority'],
];
const TONE: Record<Difference['kind'], 'leaf' | 'ox' | 'live' | 'plain'> = {
  added: 'leaf',
  'taken out': 'ox',
  changed: 'live',
  moved: 'plain',
};

/** Two versions of a recipe side by side: only what differs, in words. */
export function DifferencePage() {
  const { recipeId } = useParams() as { recipeId: string };
  const [query, setQuery] = useSearchParams();
  const { data: versions } = useVersions(recipeId);
  const newest = versions?.versions[0]?.number ?? 1;
  const to = Number(query.get('to')) || newest;
  const from = Number(query.get('from')) || Math.max(1, to - 1);
  const a = useVersion(recipeId, from);
  const b = useVersion(recipeId, to);
  if (a.error || b.error) return <Faults faults={faultsOf(a.error ?? b.error)} />;
  if (!a.data || !b.data || !versions) return <Waiting />;
  const found = differences(a.data.recipe, b.data.recipe);
  const pick = (label: string, key: 'from' | 'to', value: number) => (
    <TextField
      select
      label={label}
      value={value}
      onChange={e => setQuery({ from: String(from), to: String(to), [key]: e.target.value })}
      sx={{ width: 150 }}
    >
      {versions.versions.map(v => (
        <MenuItem key={v.number} value={v.number}>
          version {v.number}
        </MenuItem>
      ))}
    </TextField>
  );
  return (
    <>
      <ViewHead
        title={`What changed in ${b.data.recipe.name}`}
        detail={found.length === 1 ? 'One difference' : `${found.length} differences`}
      >
        {pick('From', 'from', from)}
        {pick('To', 'to', to)}
      </ViewHead>
      {found.length === 0 && (
        <Sheet>
          <Nothing>These two versions say the same.</Nothing>
        </Sheet>
      )}
      <Box sx={{ display: 'grid', gap: 2 }}>
        {PARTS.map(([part, title]) => {
          const here = found.filter(d => d.part === part);
          if (here.length === 0) return null;
          return (
            <Sheet key={part} title={title} sx={{ overflowX: 'auto' }}>
              <Table size="small" aria-label={title}>
                <TableHead>
                  <TableRow>
                    <TableCell sx={{ width: '24%' }}>What</TableCell>
                    <TableCell sx={{ width: '38%' }}>Version {from}</TableCell>
                    <TableCell>Version {to}</TableCell>
                  </TableRow>
                </TableHead>
                <TableBody>
                  {here.map(d => (
                    <TableRow key={`${d.about} ${d.kind} ${d.before} ${d.after}`}>
                      <TableCell>
                        {d.about} <Tag tone={TONE[d.kind]}>{d.kind}</Tag>
                      </TableCell>
                      <TableCell sx={{ color: 'text.secondary', overflowWrap: 'anywhere' }}>
                        {d.before}
                      </TableCell>
                      <TableCell sx={{ overflowWrap: 'anywhere' }}>{d.after}</TableCell>
                    </TableRow>
                  ))}
                </TableBody>
              </Table>
            </Sheet>
          );
        })}
      </Box>
    </>
  );
}
