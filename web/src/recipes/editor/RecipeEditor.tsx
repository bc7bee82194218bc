import { addRecipe, changeRecipe } from '@cocotte/contract';
import type { Fault } from '@cocotte/core/measure';
import type { JarSizeId } from '@cocotte/core/jars';
import type { Recipe, RecipeVersion } from '@cocotte/core/recipes';
import { processFor } from '@cocotte/core/review';
import { Box, Button } from '@mui/material';
import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { useLocation, useNavigate, useParams } from 'react-router';
import { v7 } from 'uuid';
import { CallError, call, faultsOf } from '../../shell/call.ts';
import { kitchenNow } from '../../shell/clock.ts';
import { Faults, Sheet, Soft, ViewHead } from '../../shell/parts.tsx';
import { useHere } from '../../shell/session.tsx';
import { Waiting } from '../../shell/Shell.tsx';
import { useRecipe } from '../api.ts';
import { useLibrary } from '../library.ts';
import { ReviewPanel } from '../sheet/ReviewPanel.tsx';
import { AuthorityFields } from './AuthorityFields.tsx';
import {
  type Draft,
  type DraftLine,
  type DraftStep,
  draftOf,
  emptyDraft,
  newLine,
  newStep,
} from './draft.ts';
import { Field } from './fields.tsx';
import { useUndo } from './history.ts';
import { forget, keep, readKept } from './kept.ts';
import { LineFields } from './LineFields.tsx';
import { JarFields, ProductFields } from './ProductFields.tsx';
import { readDraft } from './read-draft.ts';
import { SortableRows, moved } from './SortableRows.tsx';
import { StepFields } from './StepFields.tsx';

/** What another view hands over to be written down: a pasted recipe, a variant, a batch that was cooked first. */
export interface Handed {
  recipe?: Recipe;
}

/** Adds a recipe, or changes one: a version that a batch has used stays, and the change becomes the next one. */
export function RecipeEditor() {
  const { recipeId } = useParams();
  const { data } = useRecipe(recipeId);
  const location = useLocation();
  const navigate = useNavigate();
  const [handed] = useState(() => (location.state as Handed | null)?.recipe ?? null);
  // What was handed over is taken once: after a reload the work that was kept here stands in its place.
  useEffect(() => {
    if (location.state !== null) void navigate(location.pathname, { replace: true, state: null });
  }, [location, navigate]);
  if (recipeId && !data) return <Waiting />;
  return <Editor key={recipeId ?? 'new'} version={data ?? null} handed={handed} />;
}

/** Paths whose fault stands beside a field; any other is shown above. */
const HAS_A_FIELD =
  /^(name|code|statementOfIdentity|variantOf|outlets|makes\.count|shelfLife_months|readyAfter_days|packing\.\w+|jars|jars\[\d+\]\.net|outlets\[\d+\]\.(name|share|jarSize)|lines\[\d+\]\.(name|amount|density_gPerMl|each_g|bushel_g|trimYield|preparation|labelName|allergens|minStrength_pct|keptShare|ratio|solids_pct|addedSugar_pct|freshFactor)|steps\[\d+\]\.(text|target|window|attention|mayStop_h|part|separates|expects)|authority\.(entryId|checkedOn|title|edition|year|part|authority|reference|issuedOn|maxPh|limits|(process|time)\.(headspace_mm|temp_C|hold_min|closure|minutes\[\d+\])))$/;

function Editor({ version, handed }: { version: RecipeVersion | null; handed: Recipe | null }) {
  const { kitchen } = useHere();
  const navigate = useNavigate();
  const client = useQueryClient();
  const library = useLibrary();
  const storedId = version?.recipeId ?? null;
  const [kept] = useState(() => (handed ? null : readKept(kitchen.id, storedId)));
  const [id] = useState(() => version?.recipeId ?? kept?.recipeId ?? v7());
  const first = useCallback((): Draft => {
    if (handed) return draftOf(handed, kitchen, kitchenNow());
    return version ? draftOf(version.recipe, kitchen, kitchenNow()) : emptyDraft(kitchen, kitchenNow());
  }, [handed, kitchen, version]);
  const { value: draft, change, undo, redo, canUndo, canRedo } = useUndo<Draft>(() => kept?.draft ?? first());
  const [restored, setRestored] = useState(kept !== null);
  const [faults, setFaults] = useState<Fault[]>([]);
  const [number, setNumber] = useState(kept?.version || (version?.number ?? 1));
  const [busy, setBusy] = useState(false);

  const set = useCallback(
    (key: string, part: Partial<Draft>) => {
      change(key, d => ({ ...d, ...part }));
    },
    [change],
  );
  const putLine = useCallback(
    (lineId: string, key: string, part: Partial<DraftLine>) =>
      change(key && `${lineId} ${key}`, d => ({
        ...d,
        lines: d.lines.map(l => (l.id === lineId ? { ...l, ...part } : l)),
      })),
    [change],
  );
  const putStep = useCallback(
    (stepId: string, key: string, part: Partial<DraftStep>) =>
      change(key && `${stepId} ${key}`, d => ({
        ...d,
        steps: d.steps.map(s => (s.id === stepId ? { ...s, ...part } : s)),
      })),
    [change],
  );
  const removeLine = useCallback(
    (lineId: string) =>
      change('', d => ({
        ...d,
        lines: d.lines.filter(l => l.id !== lineId),
        steps: d.steps.map(s => ({ ...s, adds: s.adds.filter(a => a.lineId !== lineId) })),
      })),
    [change],
  );
  const removeStep = useCallback(
    (stepId: string) => change('', d => ({ ...d, steps: d.steps.filter(s => s.id !== stepId) })),
    [change],
  );
  const at = useCallback((path: string) => faults.find(f => f.path === path), [faults]);

  // Unsaved work survives a reload; what was never touched is not kept.
  useEffect(() => {
    if (canUndo || handed) keep(kitchen.id, storedId, { draft, version: number, recipeId: id });
  }, [draft, canUndo, handed, kitchen.id, storedId, number, id]);
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (!(e.ctrlKey || e.metaKey) || e.altKey) return;
      const key = e.key.toLowerCase();
      if (key === 'z' && !e.shiftKey) undo();
      else if (key === 'y' || (key === 'z' && e.shiftKey)) redo();
      else return;
      e.preventDefault();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [undo, redo]);

  const hintOf = useCallback(
    (ingredientId: string | null) => (ingredientId === null ? {} : (library.byId.get(ingredientId) ?? {})),
    [library],
  );
  const reading = useMemo(
    () => readDraft(draft, kitchen, version?.recipe ?? handed, hintOf),
    [draft, kitchen, version, handed, hintOf],
  );
  // A jar larger than its authority has a time for is said beside it, while the others have theirs.
  const noTime = (size: JarSizeId): string | null => {
    const answer = processFor(reading.recipe, size, kitchen.altitude_m);
    const others = reading.recipe.jars.some(j => processFor(reading.recipe, j.size, kitchen.altitude_m).ok);
    return answer.ok || !others ? null : `${answer.what} ${answer.next}`;
  };
  const lineNames = useMemo(() => draft.lines.map(l => ({ id: l.id, name: l.name })), [draft.lines]);

  const save = async () => {
    setFaults(reading.faults);
    if (reading.faults.length > 0) {
      document.querySelector('[aria-invalid="true"]')?.scrollIntoView({ block: 'center' });
      return;
    }
    setBusy(true);
    try {
      const saved = version
        ? await call(changeRecipe, {
            params: { recipeId: id },
            body: { version: number, recipe: reading.recipe },
          })
        : await call(addRecipe, { body: { id, recipe: reading.recipe } });
      forget(kitchen.id, storedId);
      client.setQueryData(['recipe', id], saved);
      void client.invalidateQueries({ queryKey: ['recipes'] });
      void client.invalidateQueries({ queryKey: ['recipe', id] });
      void navigate(`/recipes/${id}`);
    } catch (error) {
      if (error instanceof CallError && error.code === 'stale' && error.newer) {
        const newer = error.newer as RecipeVersion;
        setNumber(newer.number);
        setFaults([
          {
            path: '',
            code: 'stale',
            what: 'Somebody changed this recipe meanwhile.',
            why: `Version ${newer.number} is the newest; yours is still here.`,
            next: 'Save again to put yours over it, or give yours up to see theirs.',
          },
        ]);
        return;
      }
      setFaults(faultsOf(error).map(f => ({ ...f, path: f.path.replace(/^recipe\./, '') })));
    } finally {
      setBusy(false);
    }
  };
  const giveUp = () => {
    forget(kitchen.id, storedId);
    setRestored(false);
    setFaults([]);
    change('', () =>
      version ? draftOf(version.recipe, kitchen, kitchenNow()) : emptyDraft(kitchen, kitchenNow()),
    );
  };
  const elsewhere = faults.filter(f => !HAS_A_FIELD.test(f.path));
  const beside = faults.length - elsewhere.length;
  return (
    <>
      <ViewHead
        title={version ? `Change ${version.recipe.name}` : 'Add a recipe'}
        detail={
          version?.frozen
            ? `A batch has used version ${version.number}: this becomes version ${version.number + 1}.`
            : 'Everything later figures rest on. What you type is kept here until you save it.'
        }
      >
        <Button variant="outlined" onClick={undo} disabled={!canUndo}>
          Undo
        </Button>
        <Button variant="outlined" onClick={redo} disabled={!canRedo}>
          Redo
        </Button>
        <Button
          variant="outlined"
          onClick={() => {
            forget(kitchen.id, storedId);
            void navigate(version ? `/recipes/${id}` : '/recipes');
          }}
        >
          Leave it
        </Button>
        <Button variant="contained" size="large" onClick={() => void save()} disabled={busy}>
          Keep the recipe
        </Button>
      </ViewHead>
      {restored && (
        <Sheet tone="live" sx={{ mb: 2 }}>
          <Box sx={{ display: 'flex', gap: 2, alignItems: 'center', flexWrap: 'wrap' }}>
            <Box sx={{ flex: '1 1 300px' }}>What you typed here before and did not save is back.</Box>
            <Button variant="outlined" size="small" onClick={giveUp}>
              Give it up
            </Button>
            <Button variant="outlined" size="small" onClick={() => setRestored(false)}>
              Go on with it
            </Button>
          </Box>
        </Sheet>
      )}
      <Faults faults={elsewhere} />
      {beside > 0 && (
        <Box role="alert" sx={{ color: 'ox.main', mb: 1.5, fontWeight: 600 }}>
          {beside === 1 ? 'One field is marked below.' : `${beside} fields are marked below.`}
        </Box>
      )}
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: 'minmax(0, 1fr)', lg: 'minmax(0, 1fr) 330px' },
          gap: 2,
          alignItems: 'start',
        }}
      >
        <Box sx={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr)', gap: 2 }}>
          <ProductFields draft={draft} set={set} at={at} recipeId={id} />
          <Sheet title="Ingredients" aside="drag, or move with the arrows; for each jar: in one pint">
            <SortableRows
              ids={draft.lines.map(l => l.id)}
              what="ingredient"
              onMove={(from, to) => change('', d => ({ ...d, lines: moved(d.lines, from, to) }))}
            >
              {(lineId, i) => (
                <LineFields
                  line={draft.lines[i] as DraftLine}
                  index={i}
                  at={at}
                  put={putLine}
                  remove={removeLine}
                  library={library}
                  kitchen={kitchen}
                  steps={draft.steps}
                  lines={lineNames}
                  key={lineId}
                />
              )}
            </SortableRows>
            <Button
              variant="outlined"
              sx={{ mt: 1.5 }}
              onClick={() => change('', d => ({ ...d, lines: [...d.lines, newLine(v7())] }))}
            >
              Add an ingredient
            </Button>
          </Sheet>
          <Sheet title="Steps" aside="tick what goes in where; shares of one ingredient add up to 1">
            <SortableRows
              ids={draft.steps.map(s => s.id)}
              what="step"
              onMove={(from, to) => change('', d => ({ ...d, steps: moved(d.steps, from, to) }))}
            >
              {(stepId, i) => (
                <StepFields
                  step={draft.steps[i] as DraftStep}
                  index={i}
                  lines={lineNames}
                  at={at}
                  put={putStep}
                  remove={removeStep}
                  kitchen={kitchen}
                  key={stepId}
                />
              )}
            </SortableRows>
            <Button
              variant="outlined"
              sx={{ mt: 1.5 }}
              onClick={() => change('', d => ({ ...d, steps: [...d.steps, newStep(v7())] }))}
            >
              Add a step
            </Button>
          </Sheet>
          <JarFields draft={draft} set={set} at={at} noTime={noTime} />
          <AuthorityFields draft={draft} set={set} at={at} kitchen={kitchen} />
          <Sheet title="Notes">
            <Field
              label="Notes"
              multiline
              minRows={3}
              value={draft.notes}
              onText={notes => set('notes', { notes })}
            />
          </Sheet>
        </Box>
        <Box
          sx={{
            display: 'grid',
            gridTemplateColumns: 'minmax(0, 1fr)',
            gap: 2,
            position: { lg: 'sticky' },
            top: { lg: 8 },
          }}
        >
          <ReviewPanel recipe={reading.recipe} />
          {reading.faults.length > 0 && (
            <Soft sx={{ fontSize: '0.92rem' }}>
              {reading.faults.length === 1 ? 'One thing is' : `${reading.faults.length} things are`} still
              missing before it can be saved.
            </Soft>
          )}
        </Box>
      </Box>
    </>
  );
}
