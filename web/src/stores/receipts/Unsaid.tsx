import { FILE_KINDS, type FileAnswers, type KindUse } from '@cocotte/core/stores';
import { Button } from '@mui/material';
import { Switcher } from '../../kit/controls.tsx';
import { Line } from '../../kit/layout.tsx';
import { Sheet, Soft } from '../../kit/parts.tsx';
import { say } from '../../words/views.ts';

/** One question for all lines that do not say how produce came, what salt or what juice it is. It is asked for each file anew. */
export function Unsaid({
  uses,
  answers,
  onAnswer,
  onRead,
}: {
  uses: readonly KindUse[];
  answers: FileAnswers;
  onAnswer: (use: KindUse, kind: string) => void;
  onRead: () => void;
}) {
  return (
    <Sheet title={say('import.unsaid')} aside={say('import.unsaid.aside')}>
      <Soft>{say('import.unsaid.why')}</Soft>
      <Line mt={1.5}>
        {uses.map(use => (
          <Switcher
            key={use}
            label={say('import.unsaid.use', { use: use === 'citrus juice' ? 'juice' : use })}
            value={answers[use] ?? ''}
            of={FILE_KINDS[use]}
            onPick={kind => onAnswer(use, kind)}
            sx={{ width: 260 }}
          />
        ))}
        <Button variant="contained" disabled={uses.some(u => !answers[u])} onClick={onRead}>
          {say('import.unsaid.read')}
        </Button>
      </Line>
    </Sheet>
  );
}
