import { kitchenUnits, numberText } from '@cocotte/core/measure';
import { type Attention, STEP_KINDS, type StepTarget } from '@cocotte/core/recipes';
import { Box, Button, Checkbox, FormControlLabel } from '@mui/material';
import { memo, useState } from 'react';
import { get, useFormState, useWatch } from 'react-hook-form';
import { Figure, Pick, Text } from '../../kit/fields.tsx';
import { Cells, Line } from '../../kit/layout.tsx';
import { Soft } from '../../kit/parts.tsx';
import { useHere } from '../../shell/session.tsx';
import type { DraftForm } from './form.ts';

type TargetKind = StepTarget['kind'];
const TARGETS: [TargetKind, string][] = [
  ['none', 'done'],
  ['gel point', 'the gel point'],
  ['temperature', 'a temperature, held'],
  ['time', 'minutes are over'],
  ['volume', 'cooked down to a volume'],
  ['depth', 'cooked down to a depth'],
  ['reduced', 'reduced by a share'],
  ['look', 'it looks so'],
];
const ATTENTION: [Attention['kind'], string][] = [
  ['hands-on', 'hands on'],
  ['look in', 'look in every so often'],
  ['free', 'free'],
];
const WAITS: readonly string[] = ['soak', 'rest', 'strain', 'cool'];
/** What is folded away until somebody wants it, or something is wrong with it. */
const FOLDED = ['attention', 'mayStop_h', 'part', 'separates', 'expects'] as const;

/** One step of the draft: what is done and until when; waits, portions and parts underneath. */
export const StepFields = memo(OneStep, (a, b) => a.index === b.index);

function OneStep({
  form,
  index,
  onRemove,
}: {
  form: DraftForm;
  index: number;
  onRemove: (index: number) => void;
}) {
  const [open, setOpen] = useState(false);
  const { control } = form.form;
  const path = `steps.${index}` as const;
  const [step, lines] = useWatch({ control, name: [path, 'lines'] });
  const { errors } = useFormState({ control, name: path });
  const { at } = form;
  const { kind } = step.target;
  const asked =
    WAITS.includes(step.kind) ||
    step.separates.part !== '' ||
    step.part !== '' ||
    FOLDED.some(k => get(errors, `${path}.${k}`));
  const named = lines.filter(l => l.name);
  const toggle = (lineId: string, on: boolean) =>
    form.set(
      `${path}.adds`,
      on ? [...step.adds, { share: '1', lineId }] : step.adds.filter(a => a.lineId !== lineId),
    );
  return (
    <>
      <Cells wide="1fr 3fr auto" narrow="1fr 1fr" gap={1.5} mt={0}>
        <Pick at={at(`${path}.kind`)} label="Kind" of={STEP_KINDS} />
        <Text at={at(`${path}.text`)} label="What is done" multiline />
        <Button variant="outlined" onClick={() => onRemove(index)} aria-label={`Remove step ${index + 1}`}>
          Remove
        </Button>
      </Cells>
      <Cells wide="1.1fr 1.3fr 1fr 1fr 1.6fr" narrow="1fr 1fr" gap={1.5} mt={1.25}>
        <Pick
          at={at(`${path}.target.kind`)}
          label="Until"
          of={TARGETS}
          onPick={picked => form.set(`${path}.target`, { text: '', kind: picked, hold: '' })}
        />
        <TargetField form={form} index={index} kind={kind} />
        {kind === 'temperature' ? (
          <Figure at={at(`${path}.target.hold`)} label="Held" unit="minutes" />
        ) : (
          <>
            <Figure at={at(`${path}.window.from`)} label="Wait from" unit="hours" />
            <Figure at={at(`${path}.window.to`)} label="Wait to" unit="hours" />
          </>
        )}
        {kind === 'temperature' && <span />}
        <Text at={at(`${path}.caution`)} label="Caution" multiline />
      </Cells>
      {named.length > 0 && (
        <Line mt={1} sx={{ columnGap: 1, rowGap: 0 }}>
          <Soft>Goes in here: </Soft>
          {named.map(l => {
            const added = step.adds.findIndex(a => a.lineId === l.id);
            return (
              <Box key={l.id} sx={{ display: 'inline-flex', alignItems: 'center' }}>
                <FormControlLabel
                  control={
                    <Checkbox size="small" checked={added >= 0} onChange={(_, on) => toggle(l.id, on)} />
                  }
                  label={l.name}
                  sx={{ mr: 0.5 }}
                />
                {added >= 0 && (
                  <Text
                    at={at(`${path}.adds.${added}.share`)}
                    label={`Share of ${l.name} in step ${index + 1}`}
                    hiddenLabel
                    sx={{ width: 64, '& input': { py: 0.5 } }}
                  />
                )}
              </Box>
            );
          })}
          {!asked && (
            <Button
              size="small"
              variant="outlined"
              onClick={() => setOpen(o => !o)}
              aria-expanded={open}
              sx={{ ml: 'auto' }}
            >
              {open ? 'Less' : 'More'}
            </Button>
          )}
        </Line>
      )}
      {(open || asked) && (
        <Cells
          wide="1.2fr 1fr 1.2fr"
          gap={1.5}
          mt={1.25}
          sx={{ borderLeft: 3, borderColor: 'rule.main', pl: 1.5 }}
        >
          <Pick
            at={at(`${path}.attention.kind`)}
            label="How much of you it takes"
            of={ATTENTION}
            onPick={picked =>
              form.set(`${path}.attention`, {
                every: picked === 'look in' ? step.attention.every || '10' : '',
                kind: picked,
              })
            }
          />
          {step.attention.kind === 'look in' ? (
            <Figure at={at(`${path}.attention.every`)} label="Every" unit="minutes" />
          ) : (
            <Box sx={{ display: { xs: 'none', sm: 'block' } }} />
          )}
          <Figure at={at(`${path}.mayStop_h`)} label="One may stop after it" unit="hours" />
          <Text at={at(`${path}.part`)} label="Acts on the part called" hint="empty: the whole pot" />
          <Text at={at(`${path}.separates.part`)} label="Sets a part aside, called" />
          <Figure at={at(`${path}.separates.share`)} label="Share set aside" unit="%" />
          {step.kind === 'measure' && (
            <Text
              at={at(`${path}.expects`)}
              label="Expected, such as 2 L"
              hint="at the recipe as written; amounts that hang on it are planned with this"
            />
          )}
        </Cells>
      )}
    </>
  );
}

/** What a target is told by, in the kitchen's units. */
function TargetField({ form, index, kind }: { form: DraftForm; index: number; kind: TargetKind }) {
  const { kitchen } = useHere();
  const field = form.at(`steps.${index}.target.text`);
  switch (kind) {
    case 'temperature':
      return <Figure at={field} label="Target" unit={`°${kitchen.temperature}`} />;
    case 'time':
      return <Figure at={field} label="Minutes" />;
    case 'volume':
      return <Text at={field} label={`Volume, such as ${numberText(3.5, kitchen)} L`} />;
    case 'depth':
      return (
        <Figure
          at={field}
          label="Depth in the pot"
          unit={kitchen.measures === 'US' ? kitchenUnits(kitchen).length.sign : 'mm'}
        />
      );
    case 'reduced':
      return <Figure at={field} label="Reduced by" unit="%" />;
    case 'look':
      return <Text at={field} label="What it looks like" />;
    case 'none':
    case 'gel point':
      return <span />;
  }
}
