import { batchStepText, lineMasses } from '@cocotte/core/batches';
import {
  type Amount as Measured,
  amountMiddle,
  kitchenWeight,
  massText,
  readAmount,
  UNITS,
  volumeText,
} from '@cocotte/core/measure';
import type { Line, Step } from '@cocotte/core/recipes';
import { Box, Typography } from '@mui/material';
import { EntryForm } from '../../kit/EntryForm.tsx';
import { Amount } from '../../kit/Amount.tsx';
import { OneOf } from '../../kit/fields.tsx';
import { useTyped } from '../../kit/form.ts';
import { Fractions, Sheet, Soft } from '../../kit/parts.tsx';
import { useHere } from '../../shell/session.tsx';
import { misread, say } from '../../words/views.ts';
import type { OpenBatch } from '../open-batch.ts';
import type { When } from '../when.ts';

type Props = { batch: OpenBatch; when: When };
const startedOf = (batch: OpenBatch) => batch.state.started as NonNullable<typeof batch.state.started>;

/** Takes the measures of measuring steps; amounts that hang on them follow at once. */
export function MeasureEntry({ batch, when }: Props) {
  const steps = startedOf(batch).recipe.steps.filter(s => s.kind === 'measure' && s.expects);
  if (steps.length === 0) return null;
  return (
    <Sheet title="Measure">
      {steps.map(step => (
        <OneMeasure key={step.id} batch={batch} when={when} step={step} />
      ))}
    </Sheet>
  );
}

function OneMeasure({ batch, when, step }: Props & { step: Step }) {
  const { kitchen } = useHere();
  const { recipe } = startedOf(batch);
  const wanted = step.expects ? UNITS[step.expects.unit].dimension : 'volume';
  const base = (m: Measured) => amountMiddle(m).mul(UNITS[m.unit].factor).valueOf();
  const strained =
    recipe.method.strain !== 'unstrained' ||
    recipe.steps.slice(0, recipe.steps.indexOf(step)).some(s => s.kind === 'strain');
  const form = useTyped({ measure: '', how: 'dripped' as 'dripped' | 'pressed' }, () => ({
    // Several strainers are pooled: each is measured by itself, with a plus between.
    measure: (text: string) => {
      const parts = text.split('+').map(part => readAmount(part, kitchen.locale));
      const values: number[] = [];
      for (const part of parts) {
        if (!part.ok) return part;
        if (UNITS[part.value.unit].dimension !== wanted) return misread('wrong-measure', { kind: wanted });
        values.push(base(part.value));
      }
      return { ok: true as const, value: values };
    },
  }));
  const take = form.submit(async ({ measure, how }) => {
    const quantity = measure.reduce((sum, n) => sum + n, 0);
    const body = {
      stepId: step.id,
      quantity,
      unit: wanted === 'mass' ? ('g' as const) : ('mL' as const),
      how: strained ? how : null,
      from: measure.length > 1 ? measure : [],
    };
    if (await batch.enter([['measure.taken', body]], when)) form.again();
  });
  const taken = batch.state.measures[step.id];
  const planned = new Map(lineMasses(batch.state).map(m => [m.line.id, m.planned_g]));
  const measured = (quantity: number, unit: 'g' | 'mL') =>
    unit === 'g' ? massText(quantity, kitchen) : volumeText(quantity, kitchen);
  return (
    <EntryForm form={form} action="Log the measure" onSubmit={take} tall>
      <Typography>
        <Fractions text={batchStepText(batch.state, step, kitchen)} />
      </Typography>
      <Amount
        at={form.at('measure')}
        label={`Measured, about ${step.expects?.text ?? ''} as written`}
        hint={strained ? say('measure.pooled') : undefined}
      />
      {strained && (
        <OneOf
          at={form.at('how')}
          label={say('measure.how')}
          row
          of={[
            ['dripped', say('measure.dripped')],
            ['pressed', say('measure.pressed')],
          ]}
        />
      )}
      {taken && (
        <Box sx={{ fontSize: '1.25rem' }}>
          <strong>{measured(taken.quantity, taken.unit)}</strong>
          {taken.how && <Soft> {say(taken.how === 'pressed' ? 'measure.pressed' : 'measure.dripped')}</Soft>}
          {taken.from.length > 1 && (
            <Soft>
              {' '}
              {say('measure.from', { parts: taken.from.map(q => measured(q, taken.unit)).join(' + ') })}
            </Soft>
          )}
          {recipe.lines
            .filter(l => l.ratio?.of === 'step' && l.ratio.id === step.id)
            .map(l => (
              <HandOff key={l.id} line={l} mass_g={planned.get(l.id) ?? 0} />
            ))}
        </Box>
      )}
    </EntryForm>
  );
}

/** What goes with so much of what was measured, worked out at once. */
function HandOff({ line, mass_g }: { line: Line; mass_g: number }) {
  const { kitchen } = useHere();
  const upTo = line.amount.upTo !== null || line.amount.toTaste;
  return (
    <Box>
      {line.name}:{' '}
      <strong>
        {upTo ? `${say('measure.upTo')} ` : ''}
        <Fractions text={kitchen.measures === 'US' ? kitchenWeight(mass_g) : massText(mass_g, kitchen)} />
      </strong>
      {kitchen.measures === 'US' && ` · ${massText(mass_g, kitchen)}`}
      {upTo && ` ${say('measure.toTaste')}`}{' '}
      <Soft>
        ({line.amount.text} for each {line.ratio?.per.text})
      </Soft>
    </Box>
  );
}
