import { addRecipe, changeRecipe } from '@cocotte/contract';
import type { Fault } from '@cocotte/core/measure';
import {
  JAR_SIZES,
  type JarSizeId,
  LINE_ROLES,
  type LineRole,
  PROCESS_ENTRIES,
  type Recipe,
  type RecipeVersion,
  STEP_KINDS,
  type StepKind,
} from '@cocotte/core/recipes';
import {
  Box,
  Button,
  Checkbox,
  FormControlLabel,
  MenuItem,
  TextField,
  type TextFieldProps,
} from '@mui/material';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { v7 } from 'uuid';
import { CallError, call, faultsOf } from '../shell/call.ts';
import { kitchenNow } from '../shell/clock.ts';
import { faultText } from '../shell/entry.ts';
import { Faults, Sheet, Soft, ViewHead } from '../shell/parts.tsx';
import { useHere } from '../shell/session.tsx';
import { Waiting } from '../shell/Shell.tsx';
import { useRecipe } from './api.ts';
import {
  type Draft,
  type DraftLine,
  type DraftStep,
  draftOf,
  emptyDraft,
  newLine,
  newStep,
  readDraft,
} from './draft.ts';

/** Adds a recipe, or changes one: a version that a batch has used stays, and the change becomes the next one. */
export function RecipeEditor() {
  const { recipeId } = useParams();
  const { data } = useRecipe(recipeId);
  if (recipeId && !data) return <Waiting />;
  return <Editor key={recipeId ?? 'new'} version={data ?? null} />;
}

/** Paths whose fault stands beside a field; any other is shown above. */
const HAS_A_FIELD =
  /^(name|code|statementOfIdentity|makes\.count|shelfLife_months|readyAfter_days|jars\[\d+\]\.net|lines\[\d+\]\.(name|amount|density_gPerMl|each_g|trimYield|preparation|labelName|allergens|minStrength_pct)|steps\[\d+\]\.(text|target|window)|authority\.(entryId|checkedOn|title|authority|reference|issuedOn|headspace_mm|maxPh|minutes\[\d+\]))$/;

const grid = (columns: string) => ({
  display: 'grid',
  gridTemplateColumns: {
    xs: 'minmax(0, 1fr) minmax(0, 1fr)',
    sm: columns.replaceAll(/([\d.]+fr)/g, 'minmax(0, $1)'),
  },
  gap: 1.5,
  alignItems: 'start',
});

function Editor({ version }: { version: RecipeVersion | null }) {
  const { kitchen } = useHere();
  const navigate = useNavigate();
  const client = useQueryClient();
  const [id] = useState(() => version?.recipeId ?? v7());
  const [draft, setDraft] = useState<Draft>(() => {
    const base = emptyDraft(kitchenNow(), kitchen.zone);
    return version ? draftOf(version.recipe, base) : base;
  });
  const [faults, setFaults] = useState<Fault[]>([]);
  const [number, setNumber] = useState(version?.number ?? 1);
  const set = (part: Partial<Draft>) => setDraft(d => ({ ...d, ...part }));
  const at = (path: string): Pick<TextFieldProps, 'error' | 'helperText'> => {
    const fault = faults.find(f => f.path === path);
    return fault ? { error: true, helperText: faultText(fault) } : {};
  };
  const field = (key: keyof Draft & string, label: string, path: string = key) => (
    <TextField
      label={label}
      value={draft[key] as string}
      onChange={e => set({ [key]: e.target.value })}
      {...at(path)}
    />
  );
  const save = async () => {
    const read = readDraft(draft, kitchen.locale, version?.recipe ?? null);
    setFaults(read.faults);
    if (!read.recipe) return;
    const recipe: Recipe = read.recipe;
    try {
      const next = version
        ? await call(changeRecipe, { params: { recipeId: id }, body: { version: number, recipe } })
        : await call(addRecipe, { body: { id, recipe } });
      client.setQueryData(['recipe', id], next);
      void client.invalidateQueries({ queryKey: ['recipes'] });
      void navigate(`/recipes/${id}`);
    } catch (error) {
      if (error instanceof CallError && error.newer) setNumber((error.newer as RecipeVersion).number);
      setFaults(faultsOf(error).map(f => ({ ...f, path: f.path.replace(/^recipe\./, '') })));
    }
  };
  const elsewhere = faults.filter(f => !HAS_A_FIELD.test(f.path));
  const entries = PROCESS_ENTRIES.filter(e => draft.grade !== 'own' || e.family === 'fruit spread');
  return (
    <>
      <ViewHead
        title={version ? `Change ${version.recipe.name}` : 'Add a recipe'}
        detail={
          version?.frozen
            ? `Version ${version.number} was cooked and stays as it is; this becomes version ${version.number + 1}.`
            : undefined
        }
      >
        <Button variant="outlined" onClick={() => void navigate(-1)}>
          Not now
        </Button>
        <Button variant="contained" onClick={() => void save()}>
          Keep the recipe
        </Button>
      </ViewHead>
      {faults.length > 0 && (
        <Box role="alert" sx={{ mb: 1, color: 'ox.main', fontWeight: 600 }}>
          {faults.length === 1
            ? 'One thing is to be mended; it is marked below.'
            : `${faults.length} things are to be mended; they are marked below.`}
        </Box>
      )}
      <Faults faults={elsewhere} />
      <Box sx={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr)', gap: 2 }}>
        <Sheet title="The recipe">
          <Box sx={grid('2fr 100px 2fr 1.2fr')}>
            {field('name', 'Name')}
            {field('code', 'Code')}
            {field('statementOfIdentity', 'What the label calls it')}
            <TextField
              select
              label="Class of food"
              value={draft.foodClass}
              onChange={e => set({ foodClass: e.target.value as Draft['foodClass'] })}
            >
              <MenuItem value="fruit spread">fruit spread</MenuItem>
              <MenuItem value="acidified food">acidified food</MenuItem>
            </TextField>
          </Box>
          <Box sx={{ ...grid('1fr 1fr 1fr 1fr'), mt: 1.5 }}>
            <TextField
              select
              label="Makes jars of"
              value={draft.makesSize}
              onChange={e => {
                const size = e.target.value as JarSizeId;
                set({
                  makesSize: size,
                  jars: draft.jars.some(j => j.size === size)
                    ? draft.jars
                    : [...draft.jars, { size, net: '', kind: 'weight' }],
                });
              }}
            >
              {JAR_SIZES.map(s => (
                <MenuItem key={s.id} value={s.id}>
                  {s.name}
                </MenuItem>
              ))}
            </TextField>
            {field('makesCount', 'How many', 'makes.count')}
            {field('shelfLife', 'Best for, months', 'shelfLife_months')}
            {field('readyAfter', 'Ready after, days', 'readyAfter_days')}
          </Box>
          {draft.jars.map((j, i) => (
            <Box key={j.size} sx={{ ...grid('1fr 1fr 1fr auto'), mt: 1.5 }}>
              <Box sx={{ alignSelf: 'center' }}>{JAR_SIZES.find(s => s.id === j.size)?.name}</Box>
              <TextField
                label={`Net contents of a ${j.size}`}
                value={j.net}
                onChange={e =>
                  set({ jars: draft.jars.map((x, k) => (k === i ? { ...x, net: e.target.value } : x)) })
                }
                {...at(`jars[${i}].net`)}
              />
              <TextField
                select
                label="In"
                value={j.kind}
                onChange={e =>
                  set({
                    jars: draft.jars.map((x, k) =>
                      k === i ? { ...x, kind: e.target.value as 'weight' | 'volume' } : x,
                    ),
                  })
                }
              >
                <MenuItem value="weight">ounces by weight</MenuItem>
                <MenuItem value="volume">fluid ounces</MenuItem>
              </TextField>
              <Button
                variant="outlined"
                disabled={j.size === draft.makesSize}
                onClick={() => set({ jars: draft.jars.filter((_, k) => k !== i) })}
                aria-label={`Leave out ${j.size} jars`}
              >
                Leave out
              </Button>
            </Box>
          ))}
          <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', mt: 1.5 }}>
            {JAR_SIZES.filter(s => !draft.jars.some(j => j.size === s.id)).map(s => (
              <Button
                key={s.id}
                size="small"
                variant="outlined"
                onClick={() => set({ jars: [...draft.jars, { size: s.id, net: '', kind: 'weight' }] })}
              >
                Add {s.plural}
              </Button>
            ))}
          </Box>
        </Sheet>
        <Sheet title="Authority" aside="an own recipe borrows no processing time">
          <Box sx={grid('1fr 2fr 1fr')}>
            <TextField
              select
              label="Grade"
              value={draft.grade}
              onChange={e => set({ grade: e.target.value as Draft['grade'] })}
            >
              <MenuItem value="own">own</MenuItem>
              <MenuItem value="tested publication">tested publication, unchanged</MenuItem>
              <MenuItem value="letter">process authority's letter</MenuItem>
              <MenuItem value="published, untested">published, untested</MenuItem>
            </TextField>
            {(draft.grade === 'tested publication' ||
              (draft.grade === 'own' && draft.foodClass === 'fruit spread')) && (
              <TextField
                select
                label={draft.grade === 'own' ? 'Published family time' : 'Published entry'}
                value={draft.entryId}
                onChange={e => set({ entryId: e.target.value })}
                {...at('authority.entryId')}
              >
                <MenuItem value="">none</MenuItem>
                {entries.map(e => (
                  <MenuItem key={e.id} value={e.id}>
                    {e.product} ({e.pack} pack; {e.source.title}, {e.source.part})
                  </MenuItem>
                ))}
              </TextField>
            )}
            {draft.grade === 'tested publication' && (
              <TextField
                label="Checked on"
                type="date"
                value={draft.checkedOn}
                onChange={e => set({ checkedOn: e.target.value })}
                slotProps={{ inputLabel: { shrink: true } }}
                {...at('authority.checkedOn')}
              />
            )}
            {draft.grade === 'published, untested' && field('title', 'Title', 'authority.title')}
          </Box>
          {draft.grade === 'letter' && (
            <>
              <Box sx={{ ...grid('2fr 1fr 1fr 1fr 1fr 1fr'), mt: 1.5 }}>
                {field('authority', 'Process authority', 'authority.authority')}
                {field('reference', 'Reference', 'authority.reference')}
                <TextField
                  label="Dated"
                  type="date"
                  value={draft.issuedOn}
                  onChange={e => set({ issuedOn: e.target.value })}
                  slotProps={{ inputLabel: { shrink: true } }}
                  {...at('authority.issuedOn')}
                />
                <TextField
                  select
                  label="Pack"
                  value={draft.pack}
                  onChange={e => set({ pack: e.target.value as 'hot' | 'raw' })}
                >
                  <MenuItem value="hot">hot</MenuItem>
                  <MenuItem value="raw">raw</MenuItem>
                </TextField>
                {field('headspace', 'Headspace, inches', 'authority.headspace_mm')}
                {field('maxPh', 'pH at most', 'authority.maxPh')}
              </Box>
              {draft.letter.map((m, i) => {
                const put = (part: Partial<typeof m>) =>
                  set({ letter: draft.letter.map((x, k) => (k === i ? { ...x, ...part } : x)) });
                return (
                  <Box key={m.size} sx={{ ...grid('1fr 1fr 1fr 1fr'), mt: 1.5 }}>
                    <TextField
                      select
                      label="Jar"
                      value={m.size}
                      onChange={e => put({ size: e.target.value as JarSizeId })}
                    >
                      {JAR_SIZES.map(s => (
                        <MenuItem key={s.id} value={s.id}>
                          {s.name}
                        </MenuItem>
                      ))}
                    </TextField>
                    <TextField
                      label="Minutes to 1,000 ft"
                      value={m.low}
                      onChange={e => put({ low: e.target.value })}
                      {...at(`authority.minutes[${i}]`)}
                    />
                    <TextField
                      label="Minutes to 6,000 ft"
                      value={m.middle}
                      onChange={e => put({ middle: e.target.value })}
                    />
                    <TextField
                      label="Minutes above"
                      value={m.high}
                      onChange={e => put({ high: e.target.value })}
                    />
                  </Box>
                );
              })}
            </>
          )}
        </Sheet>
        <Sheet title="Ingredients" aside="amounts prepared; for each jar: in one pint">
          {draft.lines.map((l, i) => (
            <LineFields
              key={l.id}
              line={l}
              index={i}
              at={at}
              put={part => set({ lines: draft.lines.map(x => (x.id === l.id ? { ...x, ...part } : x)) })}
              remove={() => set({ lines: draft.lines.filter(x => x.id !== l.id) })}
            />
          ))}
          <Button
            variant="outlined"
            sx={{ mt: 1.5 }}
            onClick={() => set({ lines: [...draft.lines, newLine(v7())] })}
          >
            Add an ingredient
          </Button>
        </Sheet>
        <Sheet title="Steps">
          {draft.steps.map((s, i) => (
            <StepFields
              key={s.id}
              step={s}
              index={i}
              lines={draft.lines}
              at={at}
              put={part => set({ steps: draft.steps.map(x => (x.id === s.id ? { ...x, ...part } : x)) })}
              move={by => set({ steps: moved(draft.steps, i, by) })}
              last={i === draft.steps.length - 1}
              remove={() => set({ steps: draft.steps.filter(x => x.id !== s.id) })}
            />
          ))}
          <Button
            variant="outlined"
            sx={{ mt: 1.5 }}
            onClick={() => set({ steps: [...draft.steps, newStep(v7())] })}
          >
            Add a step
          </Button>
        </Sheet>
        <Sheet title="Notes">
          <TextField
            label="Notes"
            multiline
            minRows={3}
            value={draft.notes}
            onChange={e => set({ notes: e.target.value })}
            sx={{ mt: 1 }}
          />
        </Sheet>
      </Box>
    </>
  );
}

function moved<T>(list: T[], index: number, by: number): T[] {
  const next = [...list];
  const [one] = next.splice(index, 1);
  next.splice(index + by, 0, one as T);
  return next;
}

type At = (path: string) => Pick<TextFieldProps, 'error' | 'helperText'>;
const block = { py: 1.75, borderBottom: 1, borderColor: 'rule.main' } as const;

function LineFields({
  line,
  index,
  at,
  put,
  remove,
}: {
  line: DraftLine;
  index: number;
  at: At;
  put: (part: Partial<DraftLine>) => void;
  remove: () => void;
}) {
  const path = `lines[${index}]`;
  const text = (key: keyof DraftLine & string, label: string, where = key as string) => (
    <TextField
      label={label}
      value={line[key] as string}
      onChange={e => put({ [key]: e.target.value })}
      {...at(`${path}.${where}`)}
    />
  );
  return (
    <Box role="group" aria-label={`Ingredient ${index + 1}`} sx={block}>
      <Box sx={grid('2fr 1fr 1.2fr 1fr auto')}>
        {text('name', 'Ingredient')}
        {text('amount', 'Amount')}
        <TextField
          select
          label="Role"
          value={line.role}
          onChange={e => put({ role: e.target.value as LineRole })}
        >
          {LINE_ROLES.map(r => (
            <MenuItem key={r} value={r}>
              {r}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          select
          label="Goes into"
          value={line.where}
          onChange={e => put({ where: e.target.value as DraftLine['where'] })}
        >
          <MenuItem value="pot">pot</MenuItem>
          <MenuItem value="brine">brine</MenuItem>
          <MenuItem value="each jar">each jar</MenuItem>
        </TextField>
        <Button variant="outlined" onClick={remove} aria-label={`Remove ingredient ${index + 1}`}>
          Remove
        </Button>
      </Box>
      <Box sx={{ ...grid('2fr 1fr 1fr 1fr 1.5fr 1.5fr'), mt: 1.25 }}>
        {text('preparation', 'Prepared how')}
        {text('density', 'Grams in a mL', 'density_gPerMl')}
        {text('each', 'Grams of one', 'each_g')}
        {text('trim', 'Left of what is bought, %', 'trimYield')}
        {text('labelName', 'Name on the label')}
        {text('allergens', 'Allergens')}
      </Box>
      <Box sx={{ display: 'flex', gap: 2, mt: 1.25, flexWrap: 'wrap', alignItems: 'center' }}>
        {line.role === 'fruit' && (
          <FormControlLabel
            control={<Checkbox checked={line.safelyAcid} onChange={(_, on) => put({ safelyAcid: on })} />}
            label="Safely acid by itself (not fig, Asian pear, white peach, elderberry, ripe mango, tomato and the like)"
          />
        )}
        {line.role === 'acid' && (
          <TextField
            label="At least, % acid"
            value={line.strength}
            onChange={e => put({ strength: e.target.value })}
            sx={{ width: 170 }}
            {...at(`${path}.minStrength_pct`)}
          />
        )}
        <TextField
          label="Where the weights come from"
          value={line.weightSource}
          onChange={e => put({ weightSource: e.target.value })}
          sx={{ width: 280 }}
        />
      </Box>
    </Box>
  );
}

function StepFields({
  step,
  index,
  lines,
  at,
  put,
  move,
  last,
  remove,
}: {
  step: DraftStep;
  index: number;
  lines: DraftLine[];
  at: At;
  put: (part: Partial<DraftStep>) => void;
  move: (by: number) => void;
  last: boolean;
  remove: () => void;
}) {
  const path = `steps[${index}]`;
  const toggle = (id: string) =>
    put({ lineIds: step.lineIds.includes(id) ? step.lineIds.filter(x => x !== id) : [...step.lineIds, id] });
  return (
    <Box role="group" aria-label={`Step ${index + 1}`} sx={block}>
      <Box sx={grid('1fr 3fr auto auto auto')}>
        <TextField
          select
          label="Kind"
          value={step.kind}
          onChange={e => put({ kind: e.target.value as StepKind })}
        >
          {STEP_KINDS.map(k => (
            <MenuItem key={k} value={k}>
              {k}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          label="What is done"
          value={step.text}
          multiline
          onChange={e => put({ text: e.target.value })}
          {...at(`${path}.text`)}
        />
        <Button
          variant="outlined"
          disabled={index === 0}
          onClick={() => move(-1)}
          aria-label={`Up: step ${index + 1}`}
        >
          Up
        </Button>
        <Button
          variant="outlined"
          disabled={last}
          onClick={() => move(1)}
          aria-label={`Down: step ${index + 1}`}
        >
          Down
        </Button>
        <Button variant="outlined" onClick={remove} aria-label={`Remove step ${index + 1}`}>
          Remove
        </Button>
      </Box>
      <Box sx={{ ...grid('1fr 1.5fr 1fr 1fr 2fr'), mt: 1.25 }}>
        <TextField
          select
          label="Until"
          value={step.target}
          onChange={e => put({ target: e.target.value as DraftStep['target'] })}
        >
          <MenuItem value="none">done</MenuItem>
          <MenuItem value="gel point">the gel point</MenuItem>
          <MenuItem value="temperature">a temperature, °C</MenuItem>
          <MenuItem value="time">minutes are over</MenuItem>
          <MenuItem value="look">it looks so</MenuItem>
        </TextField>
        {step.target === 'none' || step.target === 'gel point' ? (
          <span />
        ) : (
          <TextField
            label="Target"
            value={step.targetText}
            onChange={e => put({ targetText: e.target.value })}
            {...at(`${path}.target`)}
          />
        )}
        <TextField
          label="Wait from, hours"
          value={step.from}
          onChange={e => put({ from: e.target.value })}
          {...at(`${path}.window`)}
        />
        <TextField label="Wait to, hours" value={step.to} onChange={e => put({ to: e.target.value })} />
        <TextField label="Caution" value={step.caution} onChange={e => put({ caution: e.target.value })} />
      </Box>
      {lines.some(l => l.name) && (
        <Box sx={{ mt: 1 }}>
          <Soft>Goes in here: </Soft>
          {lines
            .filter(l => l.name)
            .map(l => (
              <FormControlLabel
                key={l.id}
                control={
                  <Checkbox
                    size="small"
                    checked={step.lineIds.includes(l.id)}
                    onChange={() => toggle(l.id)}
                  />
                }
                label={l.name}
              />
            ))}
        </Box>
      )}
    </Box>
  );
}
