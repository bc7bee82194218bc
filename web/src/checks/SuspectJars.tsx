import { type SetAsideReason, SUSPECT } from '@cocotte/core/batches';
import { rangesText } from '@cocotte/core/measure';
import { Box, Button } from '@mui/material';
import { useState } from 'react';
import { Switcher } from '../kit/controls.tsx';
import { Caution } from '../kit/parts.tsx';
import { say } from '../words/views.ts';

/** A jar found open, bulging, leaking, spurting or mouldy: how it is destroyed stands beside the button, and it is never tasted. */
export function SuspectJars({
  jars,
  onDestroyed,
}: {
  jars: readonly number[];
  onDestroyed: (why: SetAsideReason) => void;
}) {
  const [why, setWhy] = useState<SetAsideReason>('found open');
  return (
    <Box sx={{ mt: 1.5, pt: 1.5, borderTop: 1, borderColor: 'rule.main' }}>
      <Caution>{say('suspect.how')}</Caution>
      <Box sx={{ display: 'flex', gap: 1.5, flexWrap: 'wrap', mt: 1.5 }}>
        <Switcher
          label={say('suspect.found')}
          value={why}
          of={SUSPECT.map(w => [w, w] as const)}
          onPick={setWhy}
          sx={{ width: 180 }}
        />
        <Button variant="outlined" color="error" sx={{ minHeight: 56 }} onClick={() => onDestroyed(why)}>
          {say('suspect.destroyed', { jars: rangesText([...jars]) })}
        </Button>
      </Box>
    </Box>
  );
}
