import { potNumbers } from '@cocotte/core/batches';
import { clockText, temperatureText } from '@cocotte/core/measure';
import type { Step } from '@cocotte/core/recipes';
import { Box, ButtonBase } from '@mui/material';
import { CheckMark } from '../../kit/parts.tsx';
import { useHere } from '../../shell/session.tsx';
import { say } from '../../words/views.ts';
import type { OpenBatch } from '../open-batch.ts';

/** The pots of a batch, each with where it stands at this step; what is entered is of the chosen one, or of all. */
export function PotTiles({
  batch,
  step,
  potId,
  onPick,
}: {
  batch: OpenBatch;
  step: Step;
  potId: string | null;
  onPick: (potId: string | null) => void;
}) {
  const { kitchen } = useHere();
  const count = batch.state.started?.pots.count ?? 1;
  if (count < 2) return null;
  const at = batch.state.steps[step.id];
  const words = (id: string) => {
    const done = at?.pots[id]?.done;
    if (done) return say('pots.done', { at: clockText(done.at_ms, kitchen) });
    const last = batch.state.temperatures.findLast(t => t.where === 'pot' && t.potId === id);
    if (last) return temperatureText(last.temp_C, kitchen);
    const begun = at?.pots[id]?.started;
    return begun ? say('pots.begun', { at: clockText(begun.at_ms, kitchen) }) : say('pots.open');
  };
  const tile = (id: string | null, title: string, text: string, done: boolean) => (
    <ButtonBase
      key={id ?? 'all'}
      aria-pressed={potId === id}
      onClick={() => onPick(id)}
      sx={{
        display: 'block',
        textAlign: 'left',
        minHeight: 72,
        p: 1.5,
        borderRadius: 1,
        border: 2,
        borderColor: potId === id ? 'primary.main' : 'rule.strong',
      }}
    >
      <Box sx={{ fontWeight: 700, fontSize: '1.15rem' }}>
        {title} {done && <CheckMark size={14} />}
      </Box>
      <Box sx={{ color: 'text.secondary' }}>{text}</Box>
    </ButtonBase>
  );
  return (
    <Box
      role="group"
      aria-label={say('pots.title')}
      sx={{
        display: 'grid',
        gridTemplateColumns: 'repeat(auto-fit, minmax(min(100%, 130px), 1fr))',
        gap: 1,
        my: 1.5,
      }}
    >
      {tile(null, say('pots.all', { n: count }), say('pots.same'), Boolean(at?.done))}
      {potNumbers(count).map(id => tile(id, say('pots.one', { id }), words(id), Boolean(at?.pots[id]?.done)))}
    </Box>
  );
}
