import { type LineMass, measuresOf } from '@cocotte/core/batches';
import { Fraction, massText } from '@cocotte/core/measure';
import { type Line, type Recipe, scaleRecipe, type Step } from '@cocotte/core/recipes';
import { freeText } from '@cocotte/core/review';
import { Box } from '@mui/material';
import { Fractions, Soft } from '../../kit/parts.tsx';
import { useHere } from '../../shell/session.tsx';
import { say } from '../../words/views.ts';
import type { OpenBatch } from '../open-batch.ts';

/** What goes in at a step: in the measures of the kitchen with the weight beside, for each pot of several. */
export function Amounts({
  batch,
  step,
  lines,
}: {
  batch: OpenBatch;
  step: Step;
  lines: ReadonlyMap<string, LineMass>;
}) {
  const { kitchen } = useHere();
  const started = batch.state.started as NonNullable<typeof batch.state.started>;
  const pots = started.pots.count;
  const factor = new Fraction(started.factor);
  const taken = measuresOf(started.recipe, batch.state.measures);
  const scaled = (by: Fraction) =>
    new Map(scaleRecipe(started.recipe, by, started.jars, taken).lines.map(l => [l.lineId, l]));
  const all = scaled(factor);
  const pot_g = [...lines.values()]
    .filter(m => m.line.where === 'pot' || m.line.where === 'brine')
    .reduce((sum, m) => sum + m.planned_g, 0);
  /** The measure of a portion, else of the whole line; none where it would only say the weight again. */
  const measureOf = (lineId: string) => {
    const line = all.get(lineId);
    return line?.portions.find(p => p.stepId === step.id)?.measure ?? line?.measure ?? '';
  };
  if (step.adds.length === 0) return null;
  return (
    <Box component="ul" sx={{ pl: 0, my: 1.5, listStyle: 'none', fontSize: '1.25rem', '& li': { mb: 0.75 } }}>
      {step.adds.map(a => {
        const m = lines.get(a.lineId);
        if (!m) return null;
        const share = new Fraction(a.share);
        const mass_g = m.planned_g * share.valueOf();
        if (m.line.where === 'each jar')
          return (
            <li key={m.line.id}>
              {m.line.name}
              <Soft> in each jar</Soft>
            </li>
          );
        return (
          <li key={m.line.id}>
            {!share.equals(1) && (
              <>
                <Fractions text={share.toFraction(true)} /> of the{' '}
              </>
            )}
            {m.line.name},{' '}
            <strong>
              <Fractions text={measureOf(m.line.id)} />
            </strong>{' '}
            <Box component="span" sx={{ fontWeight: 700 }}>
              · {massText(mass_g, kitchen)}
            </Box>
            {pots > 1 && (
              <Soft> {say('pot.inEach', { mass: massText(mass_g / pots, kitchen), n: pots })}</Soft>
            )}
            {m.line.amount.upTo !== null && <Soft> to taste, then weighed</Soft>}
            <Free recipe={started.recipe} line={m.line} pot_g={pot_g} />
            {m.basis === 'weighed' && <Soft> (weighed {massText(m.actual_g, kitchen)})</Soft>}
          </li>
        );
      })}
    </Box>
  );
}

/** What is free to change of a line, where it goes in. */
function Free({ recipe, line, pot_g }: { recipe: Recipe; line: Line; pot_g: number }) {
  const { kitchen } = useHere();
  const text = freeText(recipe, line, pot_g, kitchen);
  return text && <Soft> ({text})</Soft>;
}
