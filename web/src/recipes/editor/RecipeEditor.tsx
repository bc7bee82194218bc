import { addRecipe, changeRecipe } from '@cocotte/contract';
import { productNamed } from '@cocotte/core/exchange';
import type { JarSizeId } from '@cocotte/core/jars';
import type { Recipe, RecipeVersion } from '@cocotte/core/recipes';
import { type FromEntry, processFor } from '@cocotte/core/review';
import { PRODUCTS } from '@cocotte/core/times';
import { Box, Button } from '@mui/material';
import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useState } from 'react';
import { useLocation, useNavigate, useParams } from 'react-router';
import { v7 } from 'uuid';
import { Text } from '../../kit/fields.tsx';
import { useReadForm, useRows } from '../../kit/form.ts';
import { Columns, Line, Stack } from '../../kit/layout.tsx';
import { Waiting } from '../../kit/Loaded.tsx';
import { NewerAsked } from '../../kit/NewerAsked.tsx';
import { Faults, Sheet, Soft, ViewHead } from '../../kit/parts.tsx';
import { CallError, call } from '../../shell/call.ts';
import { kitchenNow } from '../../shell/clock.ts';
import { useHere } from '../../shell/session.tsx';
import { say } from '../../words/views.ts';
import { useRecipe } from '../api.ts';
import { useLibrary } from '../library.ts';
import { ReviewPanel } from '../sheet/ReviewPanel.tsx';
import { AuthorityFields } from './AuthorityFields.tsx';
import { type Draft, draftOf, emptyDraft, isOpen, ofKind, newLine, newStep, withoutOpen } from './draft.ts';
import type { DraftForm } from './form.ts';
import { useHistory } from './history.ts';
import { JarFields } from './JarFields.tsx';
import { forget, keep, readKept } from './kept.ts';
import { LineFields } from './LineFields.tsx';
import { ProductFields } from './ProductFields.tsx';
import { readDraft } from './read-draft.ts';
import { SortableRows } from './SortableRows.tsx';
import { StepFields } from './StepFields.tsx';

/** What another view hands over to be written down: a pasted recipe, a variant, a batch that was cooked first. */
export interface Handed {
  recipe?: Recipe;
  /** What is still to be read off the publication: nothing stands there yet. */
  open?: FromEntry['open'];
}

/** Adds a recipe, or changes one: a version that a batch has used stays, and the change becomes the next one. */
export function RecipeEditor() {
  const { recipeId } = useParams();
  const { data } = useRecipe(recipeId);
  const location = useLocation();
  const navigate = useNavigate();
  const [{ recipe: handed = null, open = [] }] = useState<Handed>(
    () => (location.state as Handed | null) ?? {},
  );
  // What was handed over is taken once: after a reload the work that was kept here stands in its place.
  useEffect(() => {
    if (location.state !== null) void navigate(location.pathname, { replace: true, state: null });
  }, [location, navigate]);
  if (recipeId && !data) return <Waiting />;
  return <Editor key={recipeId ?? 'new'} version={data ?? null} handed={handed} open={open} />;
}

/** Fields of lines and steps come on screen by themselves when something is wrong with them. */
const opens = (name: string) => /^(lines|steps)\./.test(name);

function Editor({
  version,
  handed,
  open,
}: {
  version: RecipeVersion | null;
  handed: Recipe | null;
  open: NonNullable<Handed['open']>;
}) {
  const { kitchen } = useHere();
  const navigate = useNavigate();
  const client = useQueryClient();
  const library = useLibrary();
  const storedId = version?.recipeId ?? null;
  const [kept] = useState(() => (handed ? null : readKept(kitchen.id, storedId)));
  const [id] = useState(() => version?.recipeId ?? kept?.recipeId ?? v7());
  const draftNow = (recipe: Recipe | null) =>
    recipe ? draftOf(recipe, kitchen, kitchenNow()) : emptyDraft(kitchen, kitchenNow());
  const [start] = useState(
    () => kept?.draft ?? withoutOpen(draftNow(handed ?? version?.recipe ?? null), open),
  );
  const [restored, setRestored] = useState(kept !== null);
  // By hand a recipe begins with its name and kind: what follows depends on them.
  const [begun, setBegun] = useState(version !== null || handed !== null || kept !== null);
  const [number, setNumber] = useState(kept?.version || (version?.number ?? 1));
  const [newer, setNewer] = useState<RecipeVersion | null>(null);
  const hintOf = useCallback(
    (ingredientId: string | null) => (ingredientId === null ? {} : (library.byId.get(ingredientId) ?? {})),
    [library],
  );
  const readNow = (draft: Draft) => readDraft(draft, kitchen, version?.recipe ?? handed, hintOf);
  const form: DraftForm = useReadForm<Draft, Recipe>(
    start,
    draft => {
      const read = readNow(draft);
      return read.faults.length > 0 ? { ok: false, faults: read.faults } : { ok: true, value: read.recipe };
    },
    { opens },
  );
  const { control, formState } = form.form;
  const { undo, redo, canUndo, canRedo } = useHistory(form.form);
  const lines = useRows(control, 'lines');
  const steps = useRows(control, 'steps');
  const draft = form.all();
  const reading = readNow(draft);
  const left = open.filter(o => isOpen(draft, o));
  // What has no name yet is nothing to judge.
  const judged = { ...reading.recipe, lines: reading.recipe.lines.filter(l => l.name.trim() !== '') };
  // A jar larger than its authority has a time for is said beside it, while the others have theirs.
  const noTime = (size: JarSizeId): string | null => {
    const answer = processFor(reading.recipe, size, kitchen.altitude_m, kitchen);
    const others = reading.recipe.jars.some(
      j => processFor(reading.recipe, j.size, kitchen.altitude_m, kitchen).ok,
    );
    return answer.ok || !others ? null : `${answer.what} ${answer.next}`;
  };
  // Unsaved work survives a reload; what was never touched is not kept.
  const touched = canUndo || handed !== null || (begun && version === null);
  const written = JSON.stringify(draft);
  useEffect(() => {
    if (touched)
      keep(kitchen.id, storedId, { draft: JSON.parse(written) as Draft, version: number, recipeId: id });
  }, [written, touched, kitchen.id, storedId, number, id]);
  const save = form.submit(async recipe => {
    try {
      const saved = version
        ? await call(changeRecipe, { params: { recipeId: id }, body: { version: number, recipe } })
        : await call(addRecipe, { body: { id, recipe } });
      forget(kitchen.id, storedId);
      client.setQueryData(['recipe', id], saved);
      void client.invalidateQueries({ queryKey: ['recipes'] });
      void client.invalidateQueries({ queryKey: ['recipe', id] });
      void navigate(`/recipes/${id}`);
    } catch (error) {
      if (!(error instanceof CallError) || error.code !== 'stale' || !error.newer) throw error;
      setNewer(error.newer as RecipeVersion);
    }
  });
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (!(e.ctrlKey || e.metaKey) || e.altKey) return;
      const key = e.key.toLowerCase();
      if (key === 'z' && !e.shiftKey) undo();
      else if (key === 'y' || (key === 'z' && e.shiftKey)) redo();
      else if (key === 'enter' && begun && !form.busy) void save();
      else return;
      e.preventDefault();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  });
  const giveUp = () => {
    forget(kitchen.id, storedId);
    setRestored(false);
    form.again(draftNow(version?.recipe ?? null));
  };
  const settle = (theirs: RecipeVersion, take: boolean) => {
    setNumber(theirs.number);
    setNewer(null);
    if (take) form.again(draftNow(theirs.recipe));
  };
  const removeLine = (index: number) => {
    const gone = form.form.getValues(`lines.${index}.id`);
    lines.remove(index);
    form.form.getValues('steps').forEach((s, i) => {
      if (s.adds.some(a => a.lineId === gone))
        form.set(
          `steps.${i}.adds`,
          s.adds.filter(a => a.lineId !== gone),
        );
    });
  };
  const marked = countFaults(formState.errors);
  // What follows an ingredient waits for one, unless somebody already asked for all of it.
  const grown = version !== null || judged.lines.length > 0 || marked > 0;
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
        <Button variant="contained" size="large" onClick={() => void save()} disabled={form.busy || !begun}>
          Keep the recipe
        </Button>
      </ViewHead>
      {restored && (
        <Sheet tone="live" sx={{ mb: 2 }}>
          <Line>
            <Box sx={{ flex: '1 1 300px' }}>What you typed here before and did not save is back.</Box>
            <Button variant="outlined" size="small" onClick={giveUp}>
              Give it up
            </Button>
            <Button variant="outlined" size="small" onClick={() => setRestored(false)}>
              Go on with it
            </Button>
          </Line>
        </Sheet>
      )}
      {newer && (
        <NewerAsked onTake={() => settle(newer, true)} onKeep={() => settle(newer, false)}>
          Version {newer.number} is the newest.
        </NewerAsked>
      )}
      {left.length > 0 && (
        <Sheet tone="live" title={say('entry.left')} sx={{ mb: 2 }}>
          <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
            {left.map(o => (
              <li key={o.what}>{o.what}</li>
            ))}
          </Box>
        </Sheet>
      )}
      <Faults faults={form.faults} />
      {marked > 0 && (
        <Box role="alert" sx={{ color: 'ox.main', mb: 1.5, fontWeight: 600 }}>
          {say('form.marked', { n: marked })}
        </Box>
      )}
      {!begun && (
        <Sheet title={say('kind.title')}>
          <Text at={form.at('name')} label="Name" autoFocus sx={{ maxWidth: 420 }} />
          <Box role="group" aria-label={say('kind.ask')} sx={{ mt: 2 }}>
            <Soft>{say('kind.ask')}</Soft>
            <Line mt={1}>
              {PRODUCTS.map(product => (
                <Button
                  key={product}
                  variant={productNamed(draft.name) === product ? 'contained' : 'outlined'}
                  onClick={() => {
                    form.again(ofKind(form.all(), product, kitchen.locale));
                    setBegun(true);
                  }}
                >
                  {product}
                </Button>
              ))}
            </Line>
          </Box>
          <Soft>{say('kind.why')}</Soft>
        </Sheet>
      )}
      {begun && (
        <Columns of="1fr 330px" from="lg">
          <Stack>
            <ProductFields form={form} recipeId={id} fresh={version === null} />
            <Sheet title="Ingredients" aside="drag, or move with the arrows; for each jar: in one pint">
              <SortableRows ids={lines.fields.map(l => l.id)} what="ingredient" onMove={lines.move}>
                {(lineId, i) => (
                  <LineFields key={lineId} form={form} index={i} onRemove={removeLine} library={library} />
                )}
              </SortableRows>
              <Button variant="outlined" sx={{ mt: 1.5 }} onClick={() => lines.append(newLine(v7()))}>
                Add an ingredient
              </Button>
            </Sheet>
            {!grown && <Soft>{say('kind.next')}</Soft>}
            {grown && (
              <>
                <Sheet title="Steps" aside="tick what goes in where; shares of one ingredient add up to 1">
                  <SortableRows ids={steps.fields.map(x => x.id)} what="step" onMove={steps.move}>
                    {(stepId, i) => <StepFields key={stepId} form={form} index={i} onRemove={steps.remove} />}
                  </SortableRows>
                  <Button variant="outlined" sx={{ mt: 1.5 }} onClick={() => steps.append(newStep(v7()))}>
                    Add a step
                  </Button>
                </Sheet>
                <JarFields form={form} noTime={noTime} />
                <AuthorityFields form={form} />
                <Sheet title="Notes">
                  <Text at={form.at('notes')} label="Notes" multiline minRows={3} />
                </Sheet>
              </>
            )}
          </Stack>
          <Stack sx={{ position: { lg: 'sticky' }, top: { lg: 8 } }}>
            {judged.lines.length > 0 ? (
              <ReviewPanel recipe={judged} onCall={statement => form.set('statementOfIdentity', statement)} />
            ) : (
              <Sheet title="Review">
                <Soft>{say('review.nothing')}</Soft>
              </Sheet>
            )}
            {reading.faults.length > 0 && (
              <Soft sx={{ fontSize: '0.92rem' }}>
                {say('form.missing', { n: reading.faults.length })}
                <Box component="ul" sx={{ m: 0, mt: 0.5, pl: 2.5 }}>
                  {(formState.isSubmitted ? [] : reading.faults.slice(0, 8)).map(f => (
                    <li key={f.path + f.code}>{f.what}</li>
                  ))}
                </Box>
              </Soft>
            )}
          </Stack>
        </Columns>
      )}
    </>
  );
}

/** How many single fields are marked. */
function countFaults(errors: object): number {
  if ('message' in errors && typeof errors.message === 'string') return 1;
  return Object.entries(errors)
    .filter(([name, e]) => name !== 'ref' && typeof e === 'object' && e !== null)
    .reduce((n, [, e]) => n + countFaults(e as object), 0);
}
