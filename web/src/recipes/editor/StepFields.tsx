import type { Kitchen } from '@cocotte/core/kitchen';
import { type Attention, STEP_KINDS, type StepKind, type StepTarget } from '@cocotte/core/recipes';
import { Box, Button, Checkbox, FormControlLabel, TextField } from '@mui/material';
import { memo, useState } from 'react';
import { Soft } from '../../shell/parts.tsx';
import type { DraftStep } from './draft.ts';
import { type At, Choice, Field, columns } from './fields.tsx';

type TargetKind = StepTarget['kind'];
const TARGETS: readonly TargetKind[] = [
  'none',
  'gel point',
  'temperature',
  'time',
  'volume',
  'depth',
  'look',
];
const TARGET_WORDS: Record<TargetKind, string> = {
  none: 'done',
  'gel point': 'the gel point',
  temperature: 'a temperature, held',
  time: 'minutes are over',
  volume: 'cooked down to a volume',
  depth: 'cooked down to a depth',
  look: 'it looks so',
};
const ATTENTION: Record<Attention['kind'], string> = {
  'hands-on': 'hands on',
  'look in': 'look in every so often',
  free: 'free',
};

type Put = (id: string, key: string, part: Partial<DraftStep>) => void;

/** One step of the draft: what is done and until when; waits, portions and parts underneath. */
export const StepFields = memo(function StepFields({
  step,
  index,
  lines,
  at,
  put,
  remove,
  kitchen,
}: {
  step: DraftStep;
  index: number;
  lines: { id: string; name: string }[];
  at: At;
  put: Put;
  remove: (id: string) => void;
  kitchen: Kitchen;
}) {
  const path = `steps[${index}]`;
  const [open, setOpen] = useState(false);
  const set = (key: keyof DraftStep) => (text: string) => put(step.id, key, { [key]: text });
  const named = lines.filter(l => l.name);
  const toggle = (lineId: string, on: boolean) =>
    put(step.id, '', {
      adds: on ? [...step.adds, { lineId, share: '1' }] : step.adds.filter(a => a.lineId !== lineId),
    });
  const inches = kitchen.altitude === 'ft';
  const targetLabel: Partial<Record<TargetKind, string>> = {
    temperature: `Target, °${kitchen.temperature}`,
    time: 'Minutes',
    volume: 'Volume, such as 3.5 L',
    depth: inches ? 'Depth in the pot, inches' : 'Depth in the pot, mm',
    look: 'What it looks like',
  };
  const waits =
    step.kind === 'soak' || step.kind === 'rest' || step.kind === 'strain' || step.kind === 'cool';
  const asked =
    waits ||
    ['attention', 'mayStop_h', 'part', 'separates', 'expects'].some(k => at(`${path}.${k}`)) ||
    step.separatesPart !== '' ||
    step.part !== '';
  const more = open || asked;
  return (
    <>
      <Box sx={columns('1fr 3fr auto')}>
        <Choice<StepKind>
          label="Kind"
          value={step.kind}
          of={STEP_KINDS}
          onPick={kind => put(step.id, '', { kind })}
        />
        <Field
          label="What is done"
          value={step.text}
          multiline
          onText={set('text')}
          fault={at(`${path}.text`)}
        />
        <Button variant="outlined" onClick={() => remove(step.id)} aria-label={`Remove step ${index + 1}`}>
          Remove
        </Button>
      </Box>
      <Box sx={{ ...columns('1.1fr 1.3fr 1fr 1fr 1.6fr'), mt: 1.25 }}>
        <Choice<TargetKind>
          label="Until"
          value={step.target}
          of={TARGETS}
          words={TARGET_WORDS}
          onPick={target => put(step.id, '', { target, targetText: '', hold: '' })}
        />
        {targetLabel[step.target] ? (
          <Field
            label={targetLabel[step.target]}
            value={step.targetText}
            onText={set('targetText')}
            fault={at(`${path}.target`)}
          />
        ) : (
          <span />
        )}
        {step.target === 'temperature' ? (
          <Field label="Held, minutes" value={step.hold} onText={set('hold')} />
        ) : (
          <Field
            label="Wait from, hours"
            value={step.from}
            onText={set('from')}
            fault={at(`${path}.window`)}
          />
        )}
        {step.target === 'temperature' ? (
          <span />
        ) : (
          <Field label="Wait to, hours" value={step.to} onText={set('to')} />
        )}
        <Field label="Caution" value={step.caution} multiline onText={set('caution')} />
      </Box>
      {named.length > 0 && (
        <Box sx={{ mt: 1, display: 'flex', flexWrap: 'wrap', alignItems: 'center', columnGap: 1 }}>
          <Soft>Goes in here: </Soft>
          {named.map(l => {
            const added = step.adds.find(a => a.lineId === l.id);
            return (
              <Box key={l.id} sx={{ display: 'inline-flex', alignItems: 'center' }}>
                <FormControlLabel
                  control={
                    <Checkbox
                      size="small"
                      checked={added !== undefined}
                      onChange={(_, on) => toggle(l.id, on)}
                    />
                  }
                  label={l.name}
                  sx={{ mr: 0.5 }}
                />
                {added && (
                  <TextField
                    value={added.share}
                    onChange={e =>
                      put(step.id, `share ${l.id}`, {
                        adds: step.adds.map(a => (a.lineId === l.id ? { ...a, share: e.target.value } : a)),
                      })
                    }
                    slotProps={{ htmlInput: { 'aria-label': `Share of ${l.name} in step ${index + 1}` } }}
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
        </Box>
      )}
      {more && (
        <Box
          sx={{ ...columns('1.2fr 1fr 1.2fr'), mt: 1.25, borderLeft: 3, borderColor: 'rule.main', pl: 1.5 }}
        >
          <Choice<Attention['kind']>
            label="How much of you it takes"
            value={step.attention}
            of={['hands-on', 'look in', 'free']}
            words={ATTENTION}
            onPick={attention =>
              put(step.id, '', { attention, every: attention === 'look in' ? step.every || '10' : '' })
            }
          />
          {step.attention === 'look in' ? (
            <Field
              label="Every, minutes"
              value={step.every}
              onText={set('every')}
              fault={at(`${path}.attention`)}
            />
          ) : (
            <span />
          )}
          <Field
            label="One may stop after it, hours"
            value={step.mayStop}
            onText={set('mayStop')}
            fault={at(`${path}.mayStop_h`)}
          />
          <Field
            label="Acts on the part called"
            value={step.part}
            onText={set('part')}
            fault={at(`${path}.part`)}
            hint="empty: the whole pot"
          />
          <Field
            label="Sets a part aside, called"
            value={step.separatesPart}
            onText={set('separatesPart')}
            fault={at(`${path}.separates`)}
          />
          <Field label="Share set aside, %" value={step.separatesShare} onText={set('separatesShare')} />
          {step.kind === 'measure' && (
            <Field
              label="Expected, such as 2 L"
              value={step.expects}
              onText={set('expects')}
              fault={at(`${path}.expects`)}
              hint="at the recipe as written; amounts that hang on it are planned with this"
            />
          )}
        </Box>
      )}
    </>
  );
});
