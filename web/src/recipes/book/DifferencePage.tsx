import { type Difference, differences } from '@cocotte/core/recipes';
import { useParams, useSearchParams } from 'react-router';
import { useHere } from '../../shell/session.tsx';
import { faultsOf } from '../../shell/call.ts';
import { Switcher } from '../../kit/controls.tsx';
import { Stack } from '../../kit/layout.tsx';
import { List } from '../../kit/List.tsx';
import { Faults, Nothing, Sheet, Tag, ViewHead } from '../../kit/parts.tsx';
import { Waiting } from '../../kit/Loaded.tsx';
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
  const { kitchen } = useHere();
  const { data: versions } = useVersions(recipeId);
  const newest = versions?.versions[0]?.number ?? 1;
  const to = Number(query.get('to')) || newest;
  const from = Number(query.get('from')) || Math.max(1, to - 1);
  const a = useVersion(recipeId, from);
  const b = useVersion(recipeId, to);
  if (a.error || b.error) return <Faults faults={faultsOf(a.error ?? b.error)} />;
  if (!a.data || !b.data || !versions) return <Waiting />;
  const found = differences(a.data.recipe, b.data.recipe, kitchen);
  const pick = (label: string, key: 'from' | 'to', value: number) => (
    <Switcher
      label={label}
      value={String(value)}
      of={versions.versions.map(v => [String(v.number), `version ${v.number}`] as const)}
      onPick={n => setQuery({ from: String(from), to: String(to), [key]: n })}
      sx={{ width: 150 }}
    />
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
          <Nothing>
            {versions.versions.length === 1
              ? 'There is one version so far. What is changed from now on shows here.'
              : 'These two versions say the same.'}
          </Nothing>
        </Sheet>
      )}
      <Stack>
        {PARTS.map(([part, title]) => {
          const here = found.filter(d => d.part === part);
          if (here.length === 0) return null;
          return (
            <Sheet key={part} title={title}>
              <List
                label={title}
                rows={here}
                keyOf={d => `${d.about} ${d.kind} ${d.before} ${d.after}`}
                columns={[
                  {
                    head: 'What',
                    sx: { width: '24%' },
                    cell: d => (
                      <>
                        {d.about} <Tag tone={TONE[d.kind]}>{d.kind}</Tag>
                      </>
                    ),
                  },
                  {
                    head: `Version ${from}`,
                    sx: { width: '38%', color: 'text.secondary', overflowWrap: 'anywhere' },
                    cell: d => d.before,
                  },
                  { head: `Version ${to}`, sx: { overflowWrap: 'anywhere' }, cell: d => d.after },
                ]}
              />
            </Sheet>
          );
        })}
      </Stack>
    </>
  );
}
