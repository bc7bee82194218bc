import { lineMasses, recipeFromBatch } from '@cocotte/core/batches';
import {
  UNITS,
  amount_g,
  amountMiddle,
  massText,
  numberText,
  readAmount,
  type Names,
  byName,
} from '@cocotte/core/measure';
import type { Ingredient } from '@cocotte/core/ingredients';
import { pintsOf } from '@cocotte/core/jars';
import { lineFrom } from '@cocotte/core/recipes';
import { Autocomplete, Box, Button, TextField, Typography } from '@mui/material';
import { type FormEvent, useState } from 'react';
import { useNavigate } from 'react-router';
import { v7 } from 'uuid';
import { useLibrary } from '../recipes/library.ts';
import { faultText, useEntry, words } from '../shell/entry.ts';
import { Sheet, Soft } from '../shell/parts.tsx';
import { useHere } from '../shell/session.tsx';
import type { OpenBatch } from './api.ts';
import type { When } from './when.ts';

type Props = { batch: OpenBatch; when: When };

/** Takes the measure of a measuring step; amounts that hang on it follow at once. */
export function MeasureEntry({ batch, when }: Props) {
  const { kitchen } = useHere();
  const started = batch.state.started as NonNullable<typeof batch.state.started>;
  const steps = started.recipe.steps.filter(s => s.kind === 'measure' && s.expects);
  const form = useEntry(byName(steps.map(s => [s.id, (text: string) => readAmount(text, kitchen.locale)])));
  const hangs = (stepId: string) =>
    started.recipe.lines.filter(l => l.ratio?.of === 'step' && l.ratio.id === stepId);
  const planned = new Map(lineMasses(batch.state).map(m => [m.line.id, m.planned_g]));
  const [wrong, setWrong] = useState<Names<string>>(() => byName());
  if (steps.length === 0) return null;
  const take = async (e: FormEvent, stepId: string) => {
    e.preventDefault();
    const read = readAmount(form.texts[stepId] ?? '', kitchen.locale);
    const expects = steps.find(s => s.id === stepId)?.expects;
    if (!read.ok) {
      setWrong({ ...wrong, [stepId]: faultText(read.fault) });
      return;
    }
    const unit = UNITS[read.value.unit];
    const wanted = expects ? UNITS[expects.unit].dimension : 'volume';
    if (unit.dimension !== wanted) {
      setWrong({
        ...wrong,
        [stepId]: `Measure it as ${wanted === 'mass' ? 'a weight, such as 2 kg' : 'a volume, such as 2 L'}: what hangs on it is reckoned so.`,
      });
      return;
    }
    setWrong({ ...wrong, [stepId]: '' });
    const quantity = amountMiddle(read.value).mul(unit.factor).valueOf();
    if (
      await batch.enter([['measure.taken', { stepId, quantity, unit: wanted === 'mass' ? 'g' : 'mL' }]], when)
    )
      form.clear([stepId]);
  };
  return (
    <Sheet title="Measure">
      {steps.map(s => {
        const taken = batch.state.measures[s.id];
        return (
          <Box
            key={s.id}
            component="form"
            noValidate
            onSubmit={e => void take(e, s.id)}
            sx={{ display: 'grid', gap: 1.25, mt: 1 }}
          >
            <Typography>{s.text}</Typography>
            <TextField
              label={`Measured, about ${s.expects?.text ?? ''} as written`}
              value={form.texts[s.id] ?? ''}
              onChange={e => form.set(s.id, e.target.value)}
              error={Boolean(wrong[s.id])}
              helperText={wrong[s.id]}
            />
            <Button type="submit" variant="outlined" sx={{ minHeight: 56 }}>
              Log the measure
            </Button>
            {taken && (
              <Box>
                Measured{' '}
                <strong>
                  {taken.unit === 'g'
                    ? massText(taken.quantity, kitchen)
                    : `${numberText(taken.quantity / 1000, kitchen, 2)} L`}
                </strong>
                {hangs(s.id).map(l => (
                  <Box key={l.id}>
                    {l.name}: <strong>{massText(planned.get(l.id) ?? 0, kitchen)}</strong>{' '}
                    <Soft>
                      ({l.amount.text} for each {l.ratio?.per.text})
                    </Soft>
                  </Box>
                ))}
              </Box>
            )}
          </Box>
        );
      })}
    </Sheet>
  );
}

/** Something goes in that the recipe does not name: all of it, when the batch is cooked first. */
export function AddLineEntry({ batch, when }: Props) {
  const { kitchen } = useHere();
  const library = useLibrary();
  const [name, setName] = useState('');
  const [picked, setPicked] = useState<Ingredient | null>(null);
  const [amount, setAmount] = useState('');
  const [wrong, setWrong] = useState<{ name?: string; amount?: string }>({});
  const started = batch.state.started as NonNullable<typeof batch.state.started>;
  const onSubmit = async (e: FormEvent) => {
    e.preventDefault();
    const found = picked ?? library.index.find(name)?.ingredient ?? null;
    const read = readAmount(amount, kitchen.locale, found ?? {});
    if (name.trim() === '' || !read.ok) {
      setWrong({
        ...(name.trim() === ''
          ? { name: 'The ingredient is empty. It is needed to go on. Fill it in.' }
          : {}),
        ...(read.ok ? {} : { amount: faultText(read.fault) }),
      });
      return;
    }
    const line = { ...lineFrom(v7(), read.value, name.trim(), found), basis: 'prepared' as const };
    let mass_g: number;
    try {
      mass_g = amount_g(read.value, line);
    } catch {
      setWrong({ amount: `${name} cannot be weighed from that unit. Weigh it, and enter grams.` });
      return;
    }
    setWrong({});
    if (
      await batch.enter(
        [
          ['line.added', { line }],
          ['line.weighed', { lineId: line.id, mass_g: Math.round(mass_g * 1000) / 1000 }],
        ],
        when,
      )
    ) {
      setName('');
      setPicked(null);
      setAmount('');
    }
  };
  return (
    <Sheet title={started.recipe.sketch ? 'What goes in' : 'Something else went in'}>
      {!started.recipe.sketch && (
        <Soft>
          What the recipe does not name holds the batch: its authority covers the recipe as it stands.
        </Soft>
      )}
      <Box
        component="form"
        noValidate
        onSubmit={e => void onSubmit(e)}
        sx={{ display: 'grid', gridTemplateColumns: '1fr 120px', gap: 1.5, mt: 1, alignItems: 'start' }}
      >
        <Autocomplete
          freeSolo
          options={library.all}
          getOptionLabel={o => (typeof o === 'string' ? o : o.name)}
          inputValue={name}
          onInputChange={(_, text, reason) => {
            setName(text);
            if (reason === 'input') setPicked(null);
          }}
          onChange={(_, o) => setPicked(typeof o === 'string' ? null : o)}
          value={picked}
          renderInput={params => (
            <TextField {...params} label="What" error={wrong.name !== undefined} helperText={wrong.name} />
          )}
        />
        <TextField
          label="How much"
          value={amount}
          onChange={e => setAmount(e.target.value)}
          error={wrong.amount !== undefined}
          helperText={wrong.amount ?? 'such as 850 g'}
        />
        <Button type="submit" variant="outlined" sx={{ gridColumn: '1 / -1', minHeight: 56 }}>
          It went in
        </Button>
      </Box>
      {batch.state.added.map(a => (
        <Box key={a.by.eventId} sx={{ mt: 1 }}>
          {a.line.amount.text} {a.line.name}
        </Box>
      ))}
    </Sheet>
  );
}

/** What came out against what was foreseen, and why; and the way from a batch to its recipe. */
export function YieldEntry({ batch, when }: Props) {
  const { kitchen } = useHere();
  const navigate = useNavigate();
  const started = batch.state.started as NonNullable<typeof batch.state.started>;
  const reason = useEntry({ reason: words('The reason') });
  const filled = batch.state.jars.filter(j => j.setAside?.why !== 'part-filled');
  const pints = pintsOf(filled.map(j => ({ size: j.size, count: 1 }))).valueOf();
  if (filled.length === 0) return null;
  const onSubmit = async (e: FormEvent) => {
    e.preventDefault();
    const v = reason.read();
    if (v && (await batch.enter([['yield.explained', { reason: v.reason }]], when))) reason.clear();
  };
  const expected = started.expected?.pints ?? null;
  return (
    <Sheet title="What came out">
      <Typography>
        <strong>{numberText(pints, kitchen, 2)} pints</strong> filled
        {expected !== null && expected > 0 && (
          <>
            {' '}
            of {numberText(expected, kitchen, 2)} foreseen, {Math.round((pints / expected) * 100)} %
          </>
        )}
        .
      </Typography>
      {batch.state.yieldReasons.map(y => (
        <Box key={y.by.eventId} sx={{ mt: 0.5, color: 'text.secondary' }}>
          {y.reason}
        </Box>
      ))}
      <Box
        component="form"
        noValidate
        onSubmit={e => void onSubmit(e)}
        sx={{ display: 'grid', gap: 1.25, mt: 1.5 }}
      >
        <TextField label="Why more or less" {...reason.field('reason')} />
        <Button type="submit" variant="outlined">
          Keep the reason
        </Button>
      </Box>
      {started.recipe.sketch && (
        <Button
          variant="contained"
          sx={{ mt: 2 }}
          onClick={() =>
            void navigate(`/recipes/${started.recipeId}/change`, {
              state: { recipe: recipeFromBatch(batch.state) },
            })
          }
        >
          Write the recipe from this batch
        </Button>
      )}
    </Sheet>
  );
}
