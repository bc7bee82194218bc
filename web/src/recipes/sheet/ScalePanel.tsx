import type { Kitchen } from '@cocotte/core/kitchen';
import { mixedText } from '@cocotte/core/measure';
import { type JarSizeId, jarCountText, jarSize } from '@cocotte/core/jars';
import { type Recipe, loadsFor, mainLine } from '@cocotte/core/recipes';
import { Box, Button, Checkbox, FormControlLabel, Slider } from '@mui/material';
import { Count, FreeText, Switcher, Toggle } from '../../kit/controls.tsx';
import { JarShelf } from '../../kit/jars.tsx';
import { Line } from '../../kit/layout.tsx';
import { Fractions, Sheet, Soft } from '../../kit/parts.tsx';
import type { Plan, ScaleMode, Wanted } from './plan.ts';

const MODES: [ScaleMode, string][] = [
  ['jars', 'Jars wanted'],
  ['fruit', 'Fruit at hand'],
  ['loads', 'Canner loads'],
  ['pot', 'Pot full'],
  ['factor', 'Times the recipe'],
];
const MOST_JARS = 60;

/** How much: by jars, by what is at hand, by whole loads, by the pot, or times the recipe; with the jars on a shelf. */
export function ScalePanel({
  recipe,
  wanted,
  set,
  plan,
  over,
  kitchen,
}: {
  recipe: Recipe;
  wanted: Wanted;
  set: (part: Partial<Wanted>) => void;
  plan: Plan;
  /** What is left after the last jar, as a share of the smallest. */
  over: number;
  kitchen: Kitchen;
}) {
  const main = mainLine(recipe);
  const fruit = main.role === 'fruit' ? 'Fruit at hand' : 'Produce at hand';
  const total = plan.jars.reduce((n, j) => n + j.count, 0);
  const shelf = plan.jars
    .flatMap(j => Array.from({ length: Math.min(j.count, 80) }, () => j.size))
    .map((s, i) => ({ number: i + 1, size: s, form: 'filled' as const }));
  const setCount = (size: JarSizeId, count: number) => set({ counts: { ...wanted.counts, [size]: count } });
  const others = recipe.jars.map(j => j.size).filter(s => s !== wanted.size);
  const loads = plan.canner ? loadsFor(plan.jars, plan.canner) : null;
  return (
    <Sheet>
      <Toggle
        label="Scale by"
        value={wanted.mode}
        of={MODES.map(([mode, words]) => [mode, mode === 'fruit' ? fruit : words] as const)}
        onPick={mode => set({ mode })}
      />
      <Line mt={2} sx={{ alignItems: 'flex-start' }}>
        <Switcher
          label="Jar"
          value={wanted.size}
          of={recipe.jars.map(j => [j.size, jarSize(j.size).name] as const)}
          onPick={(size: JarSizeId) => {
            const count = wanted.counts[wanted.size] ?? 0;
            set({
              size,
              counts: { ...wanted.counts, [wanted.size]: 0, [size]: wanted.counts[size] || count },
            });
          }}
          sx={{ width: 150 }}
        />
        {wanted.mode === 'jars' &&
          others.map(size => (
            <Count
              key={size}
              label={`And ${jarSize(size).plural}`}
              value={wanted.counts[size] ?? 0}
              min={0}
              max={MOST_JARS}
              onCount={n => setCount(size, n)}
              sx={{ width: 160 }}
            />
          ))}
        {wanted.mode === 'fruit' && (
          <>
            <FreeText
              label={`${main.name}, ${wanted.basis}`}
              placeholder="such as 5 lb or 2 kg"
              value={wanted.fruit}
              onText={text => set({ fruit: text })}
              fault={plan.fault}
              sx={{ flex: '1 1 220px', width: 'auto' }}
            />
            <Toggle
              label="That weight is"
              value={wanted.basis}
              of={['as bought', 'prepared']}
              onPick={basis => set({ basis })}
            />
          </>
        )}
        {wanted.mode === 'loads' && (
          <>
            <Equipment
              label="Canner"
              value={wanted.cannerId}
              of={kitchen.canners}
              onPick={cannerId => set({ cannerId })}
              fault={plan.fault}
            />
            <Count
              label="Whole loads"
              value={wanted.loads}
              min={1}
              max={20}
              onCount={loads => set({ loads })}
              sx={{ width: 130 }}
            />
          </>
        )}
        {wanted.mode === 'pot' && (
          <Equipment
            label="Pot"
            value={wanted.potId}
            of={kitchen.pots}
            onPick={potId => set({ potId })}
            fault={plan.fault}
          />
        )}
        {wanted.mode === 'factor' && (
          <FreeText
            label="Times the recipe"
            value={wanted.factor}
            onText={factor => set({ factor })}
            fault={plan.fault}
            sx={{ width: 200 }}
          />
        )}
        {wanted.mode !== 'pot' && kitchen.pots.length > 0 && (
          <Equipment
            label="Pot"
            value={wanted.potId}
            of={kitchen.pots}
            onPick={potId => set({ potId })}
            fault={null}
          />
        )}
        {wanted.mode !== 'loads' && kitchen.canners.length > 0 && (
          <Equipment
            label="Canner"
            value={wanted.cannerId}
            of={kitchen.canners}
            onPick={cannerId => set({ cannerId })}
            fault={null}
          />
        )}
      </Line>
      <Line mt={2}>
        <Box sx={{ whiteSpace: 'nowrap' }} aria-live="polite">
          <Box component="span" sx={{ fontSize: '2rem', fontWeight: 700 }}>
            {total}
          </Box>{' '}
          {plan.jars.length === 1 && plan.jars[0] ? (
            total === 1 ? (
              jarSize(plan.jars[0].size).name
            ) : (
              jarSize(plan.jars[0].size).plural
            )
          ) : (
            <>
              jars <Soft>({plan.jars.map(j => jarCountText(j.count, j.size)).join(', ')})</Soft>
            </>
          )}
          {over > 0.02 && <Soft>, and {Math.round(over * 100)} % of one over</Soft>}
        </Box>
        {wanted.mode === 'jars' && (
          <Slider
            aria-label="Jars wanted"
            value={wanted.counts[wanted.size] ?? 0}
            min={1}
            max={MOST_JARS}
            onChange={(_, v) => setCount(wanted.size, v as number)}
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
        <Soft>
          {plan.factor.equals(1) ? (
            'the recipe as written'
          ) : (
            <>
              <Fractions text={mixedText(plan.factor.valueOf(), true)} /> times the recipe
            </>
          )}
          {loads &&
            loads.missing.length === 0 &&
            `, ${loads.loads} ${loads.loads === 1 ? 'load' : 'loads'} in the ${plan.canner?.name}`}
          {loads &&
            loads.missing.length > 0 &&
            `; the ${plan.canner?.name} holds no ${jarSize(loads.missing[0] as JarSizeId).plural}`}
        </Soft>
      </Line>
      {(plan.pots.pots > 1 || plan.pots.overridden) && (
        <Box role="note" sx={{ mt: 1.5, borderLeft: 4, borderColor: 'live.fill', pl: 1.5 }}>
          {plan.pots.overridden ? (
            <>
              Ordinary pectin is made more than once in one pot, by your decision. It is logged with the
              batch.
            </>
          ) : (
            <>
              <strong>{plan.pots.pots} pots</strong> of{' '}
              <Fractions text={mixedText(plan.factor.div(plan.pots.pots).valueOf(), true)} /> each.{' '}
              {plan.pots.reasons.join(' ')}
            </>
          )}
        </Box>
      )}
      {recipe.setBy === 'ordinary pectin' && plan.factor.compare(1) > 0 && (
        <FormControlLabel
          control={<Checkbox checked={wanted.doublePectin} onChange={(_, on) => set({ doublePectin: on })} />}
          label="Cook it in one pot all the same"
        />
      )}
      <Box sx={{ mt: 2, maxHeight: 240, overflow: 'auto' }} tabIndex={0} role="group" aria-label="The shelf">
        <JarShelf jars={shelf} />
      </Box>
    </Sheet>
  );
}

function Equipment({
  label,
  value,
  of,
  onPick,
  fault,
}: {
  label: string;
  value: string;
  of: readonly { id: string; name: string }[];
  onPick: (id: string) => void;
  fault: string | null;
}) {
  return (
    <Box sx={{ width: 190 }}>
      {of.length > 0 ? (
        <Switcher
          label={label}
          value={value}
          of={of.map(o => [o.id, o.name] as const)}
          onPick={onPick}
          error={fault !== null}
          helperText={fault}
        />
      ) : (
        <Button variant="outlined" href="/kitchen">
          Add a {label.toLowerCase()} in the settings
        </Button>
      )}
    </Box>
  );
}
