import { FormControlLabel, Switch } from '@mui/material';
import { Time } from '../kit/fields.tsx';
import { Line } from '../kit/layout.tsx';
import type { When } from './when.ts';

/** The switch for writing up afterwards, and the time that the next entries get. */
export function WhenFields({ when }: { when: When }) {
  return (
    <Line>
      <FormControlLabel
        control={<Switch checked={when.typed} onChange={(_, on) => when.setTyped(on)} />}
        label="Write up afterwards"
      />
      {when.typed && (
        <Time
          at={when.at}
          label="It happened at"
          hint="Marked in the record as typed in afterwards"
          sx={{ width: 290 }}
        />
      )}
    </Line>
  );
}
